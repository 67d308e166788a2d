import { Children, type ReactNode } from 'react'
import { Link } from 'react-router'
import type { OpenClaim } from '../../core/crates/claim'
import { groupBy } from '../../core/collections/groupBy'
import { summaryStage, type CrateSummary } from '../../core/crates/crateView'
import type { DueItem } from '../../core/due/due'
import type { RecheckView } from '../../core/bench/benchView'
import { placingApi } from '../../core/placing/placing.api'
import { todayApi } from '../../core/today/today.api'
import { nextStep, type HeldLot, type HungryLot, type RecentLoss, type RescueView, type RunOnToday, type TodayView } from '../../core/today/todayView'
import { nowMs } from '../api/clock'
import { useSession } from '../api/session'
import { useWrite } from '../api/useOutbox'
import { useRead } from '../api/useRead'
import { formatSpan, plural } from '../ui/format'
import { Apart } from '../ui/Apart'
import { Lead } from '../ui/Lead'
import { Trouble, Waiting } from '../ui/PageState'
import { useFormat } from '../ui/useFormat'
import { FirstSteps } from './FirstSteps'

/** What this room needs now, in the order of urgency; each row opens the place where it is dealt with. */
export function TodayPage() {
  const { data: today, problem } = useRead(todayApi.readToday, {}, { everyMs: 30_000 })
  const format = useFormat()
  if (!today) return problem ? <Trouble problem={problem} /> : <Waiting what="the day" />
  if (nextStep(today.counts)) return <FirstSteps counts={today.counts} />
  const served = today.holds.filter((hold) => hold.isServed)
  return (
    <>
      <Lead title="Today" aside={format.day(nowMs())}>
        <WhatNow today={today} />
      </Lead>
      {today.broken.length > 0 && (
        <p className="notice" role="alert">
          Not worked out: {today.broken.join(', ')}. Everything else on this page is.
        </p>
      )}
      <Section title="Crates" count={today.crates.length} nothing="No crate is due or open.">
        {today.crates.map((crate) => (
          <CrateRow key={crate.id} crate={crate} />
        ))}
      </Section>
      {today.prepare.length > 0 && (
        <Section title="Prepare" count={today.prepare.length} nothing="">
          {[...groupBy(today.prepare, ({ to }) => to)].map(([to, items]) => (
            <PrepareRow key={to} items={items} />
          ))}
        </Section>
      )}
      {today.runs.length > 0 && (
        <Section title="On the bench" count={today.runs.length} nothing="">
          {today.runs.map((run) => (
            <RunRow key={run.id} run={run} />
          ))}
        </Section>
      )}
      {today.rechecks.length > 0 && (
        <Section title="Look again" count={today.rechecks.length} nothing="">
          {today.rechecks.map((recheck) => (
            <RecheckDue key={recheck.id} recheck={recheck} />
          ))}
        </Section>
      )}
      {today.rescues.length > 0 && (
        <Section title="Rescues to look at" count={today.rescues.length} nothing="">
          {today.rescues.map((rescue) => (
            <RescueRow key={rescue.key} rescue={rescue} />
          ))}
        </Section>
      )}
      {today.claims.length > 0 && (
        <Section title="Claims" count={today.claims.length} nothing="">
          {today.claims.map((claim) => (
            <ClaimRow key={claim.crateId} claim={claim} />
          ))}
        </Section>
      )}
      <Section title="Not looked at yet" count={today.unchecked.length} nothing={today.stockedTanks === 0 ? 'No tank holds fish.' : `All ${plural(today.stockedTanks, 'stocked tank')} were looked at today.`}>
        {today.unchecked.length > 0 && <UncheckedTanks codes={today.unchecked.map(({ code }) => code)} stocked={today.stockedTanks} />}
      </Section>
      <Section title="Not eating" count={today.notEating.length} nothing="Every lot eats, or is within its usual delay.">
        {today.notEating.map((lot) => (
          <HungryRow key={`${lot.lotId} ${lot.tankCode}`} lot={lot} />
        ))}
      </Section>
      <Section title={`Lost in the last ${plural(today.lossDays, 'day')}`} count={today.losses.reduce((sum, loss) => sum + loss.quantity, 0)} nothing="No fish were lost.">
        {today.losses.map((loss) => (
          <LossRow key={`${loss.lotId} ${loss.tankCode}`} loss={loss} />
        ))}
      </Section>
      <Section title="Shop hold" count={today.holds.length - served.length} nothing="No lot is held.">
        {today.holds.map((hold) => (
          <HoldRow key={`${hold.lotId} ${hold.tankCode}`} hold={hold} />
        ))}
      </Section>
      <p className="aside-word">
        <Link to="/today/calendar">What is due, in your calendar</Link>
      </p>
    </>
  )
}

/** The one thing to turn to, with its reason. */
function WhatNow({ today }: { today: TodayView }) {
  const late = today.runs.find(({ isForgotten, isAlarm }) => isForgotten || isAlarm)
  if (late) return <>Now: <Link to={`/bench/runs/${late.id}`}>run {late.number}, {late.species}</Link>. {late.words}</>
  const poison = today.losses.find(({ isPoison }) => isPoison)
  if (poison) return <>Now: <Link to={`/room/${poison.tankCode}`}>{poison.tankCode}</Link>. A {poison.species} died there and poisons its water: out, large water change, carbon.</>
  const crate = today.crates[0]
  const stage = crate && summaryStage(crate)
  if (crate && stage === 'opening') return <>Now: <Link to={`/crates/${crate.id}/unpack`}>unpack crate {crate.number}</Link>. {plural(crate.bagCount - crate.openedCount, 'bag')} still shut{crate.packedAtMs ? `, ${formatSpan(nowMs() - crate.packedAtMs)} since packing` : ''}.</>
  if (crate && stage === 'placing') return <>Now: <Link to={`/crates/${crate.id}/unpack`}>place crate {crate.number}</Link>. {crate.inBags} fish still stand in their bags.</>
  if (crate?.expectedAtMs && crate.expectedAtMs < nowMs()) return <>Now: <Link to={`/crates/${crate.id}`}>crate {crate.number}</Link> was due {formatSpan(nowMs() - crate.expectedAtMs)} ago.</>
  if (today.unchecked.length > 0) return <>Now: <Link to="/rounds">walk the round</Link>. {plural(today.unchecked.length, 'tank was', 'tanks were')} not looked at yet{crate?.expectedAtMs ? `, and crate ${crate.number} comes in ${formatSpan(crate.expectedAtMs - nowMs())}` : ''}.</>
  if (crate) return <>Next: <Link to={`/crates/${crate.id}`}>crate {crate.number}</Link> from {crate.supplier}{crate.expectedAtMs ? `, in ${formatSpan(crate.expectedAtMs - nowMs())}` : ''}.</>
  return <>Nothing waits. Every stocked tank was looked at.</>
}

function Section({ title, count, nothing, children }: { title: string; count: number; nothing: string; children: ReactNode }) {
  const isEmpty = Array.isArray(children) ? children.length === 0 : !children
  return (
    <section className="today-section">
      <h2>
        {title} {count > 0 && <strong>{count}</strong>}
      </h2>
      {isEmpty ? <p className="aside-word">{nothing}</p> : (
        <ul className="record-list">
          {Children.map(children, (row) => (
            <Apart what={`A row of “${title}”`} of={row} isRow>
              {row}
            </Apart>
          ))}
        </ul>
      )}
    </section>
  )
}

/** What a keeper alone did in distress; a lead says that it was looked at. */
function RescueRow({ rescue: { key, species, tankCode, rules, reason, staffName, atMs } }: { rescue: RescueView }) {
  const { recorder } = useSession()
  const write = useWrite()
  const format = useFormat()
  return (
    <li className="record rescue-row">
      <Link to={`/room/${tankCode}`} className="today-row is-act">
        <span>
          <strong>
            {species} in {tankCode}
          </strong>{' '}
          {reason}
          <small>
            {staffName}, {format.moment(atMs)}; against: {rules}
          </small>
        </span>
      </Link>
      {recorder.role === 'lead' && (
        <button type="button" className="button" onClick={() => void write(placingApi.seeRescue, { params: { key }, label: 'a rescue looked at', body: {} }, { refusals: 'tray' })}>
          Looked at
        </button>
      )}
    </li>
  )
}

const Row = ({ to, mark, children, aside }: { to: string; mark?: string; children: ReactNode; aside?: ReactNode }) => (
  <li className="record">
    <Link to={to} className={`today-row ${mark ?? ''}`}>
      <span>{children}</span>
      {aside && <span className="today-aside">{aside}</span>}
    </Link>
  </li>
)

function CrateRow({ crate }: { crate: CrateSummary }) {
  const format = useFormat()
  const stage = summaryStage(crate)
  const words = { due: 'due', opening: 'being unpacked', placing: 'to be placed', done: 'placed', closed: 'closed' }
  const due = crate.expectedAtMs === null ? 'without a time' : format.moment(crate.expectedAtMs)
  return (
    <Row to={stage === 'due' ? `/crates/${crate.id}` : `/crates/${crate.id}/unpack`} mark={stage === 'due' ? 'is-plan' : 'is-act'} aside={stage === 'due' ? due : `${crate.openedCount} of ${crate.bagCount} bags`}>
      <strong>
        {crate.number} {crate.supplier}
      </strong>{' '}
      {words[stage]}
      <small>
        {plural(crate.lineCount, 'line')}, {plural(crate.bagCount, 'bag')}, {crate.listed} fish
      </small>
    </Row>
  )
}

/** What is left to prepare for one crate, the next of it first. */
function PrepareRow({ items: [next, ...others] }: { items: DueItem[] }) {
  if (!next) return null
  const { to, what, about, byMs, urgency } = next
  return (
    <Row to={to} mark={urgency === 'now' ? 'is-act' : 'is-plan'} aside={byMs === null ? '' : byMs > nowMs() ? `in ${formatSpan(byMs - nowMs())}` : `since ${formatSpan(nowMs() - byMs)}`}>
      <strong>{about}</strong> {what}
      {others.length > 0 && <small>and {plural(others.length, 'more step')}</small>}
    </Row>
  )
}

const RunRow = ({ run }: { run: RunOnToday }) => (
  <Row to={`/bench/runs/${run.id}`} mark={run.isForgotten || run.isAlarm ? 'is-act' : 'is-plan'} aside={run.isForgotten ? 'forgotten?' : run.dueAtMs === null ? '' : run.dueAtMs > nowMs() ? `in ${formatSpan(run.dueAtMs - nowMs())}` : `since ${formatSpan(nowMs() - run.dueAtMs)}`}>
    <strong>run {run.number}</strong> {run.species}
    <small>{run.words}</small>
  </Row>
)

const RecheckDue = ({ recheck }: { recheck: RecheckView }) => (
  <Row to={recheck.doneAtMs === null ? '/bench' : `/room/${recheck.tankCodes[0] ?? ''}`} mark={recheck.look === 'worse' ? 'is-harm' : 'is-act'} aside={recheck.look === 'worse' ? 'worse than usual' : `${recheck.label} after`}>
    <strong>{recheck.tankCodes.join(', ')}</strong> {recheck.species}
    <small>{recheck.look === 'worse' ? `${recheck.label} after their run${recheck.note ? `: ${recheck.note}` : ''}` : `usual by now: ${recheck.usual}`}</small>
  </Row>
)

const ClaimRow = ({ claim }: { claim: OpenClaim }) => (
  <Row to={`/crates/${claim.crateId}/claim`} mark="is-watch" aside={`${formatSpan(claim.leftMs)} left`}>
    <strong>
      {claim.number} {claim.supplier}
    </strong>{' '}
    {[claim.dead > 0 ? `${claim.dead} dead` : '', claim.missing > 0 ? `${claim.missing} missing` : ''].filter(Boolean).join(', ')}
    <small>to be claimed</small>
  </Row>
)

const tanksShown = 12

function UncheckedTanks({ codes, stocked }: { codes: string[]; stocked: number }) {
  return (
    <li className="record unchecked">
      <Link to="/rounds" className="button">
        Walk the round
      </Link>
      <span>
        {codes.length} of {stocked}:{' '}
        {codes.slice(0, tanksShown).map((code) => (
          <Link key={code} to={`/room/${code}`} className="code-link">
            {code}
          </Link>
        ))}
        {codes.length > tanksShown && <Link to="/room?show=unchecked">and {codes.length - tanksShown} more</Link>}
      </span>
    </li>
  )
}

const HungryRow = ({ lot }: { lot: HungryLot }) => (
  <Row to={`/room/${lot.tankCode}`} mark="is-watch" aside={formatSpan(lot.forMs)}>
    <strong>{lot.tankCode}</strong> {lot.quantity} {lot.species}
    <small>
      {lot.isNew ? 'nothing eaten since it came here' : 'since its last meal'}
      {lot.firstFoods && `; first foods: ${lot.firstFoods}`}
    </small>
  </Row>
)

function LossRow({ loss }: { loss: RecentLoss }) {
  const format = useFormat()
  return (
    <Row to={`/room/${loss.tankCode}`} mark="is-harm" aside={format.day(loss.lastAtMs)}>
      <strong>{loss.tankCode}</strong> {loss.quantity} {loss.species}
      <small>
        lot {loss.lotCode}
        {loss.causes.length > 0 && `, ${loss.causes.join(', ')}`}
      </small>
      {loss.isPoison && <span className="danger-word">Its death poisons the water: out, large water change, carbon; look at every tank on it.</span>}
    </Row>
  )
}

const HoldRow = ({ hold }: { hold: HeldLot }) => (
  <Row to={`/room/${hold.tankCode}`} mark="is-hold" aside={hold.isServed ? `all ${hold.of} days served` : `day ${hold.day} of ${hold.of}`}>
    <strong>{hold.tankCode}</strong> {hold.quantity} {hold.species} <small className="inline">lot {hold.lotCode}</small>
    <span className="hold-bar" aria-hidden="true">
      <span style={{ width: `${Math.min(100, (hold.day / hold.of) * 100)}%` }} />
    </span>
  </Row>
)
