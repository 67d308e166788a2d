import type { RecheckView } from '../../core/bench/benchView'
import type { OpenClaim } from '../../core/crates/claim'
import { summaryStage, type CrateSummary } from '../../core/crates/crateSummary'
import type { DueItem } from '../../core/due/due'
import type { HeldLot, HungryLot, RaisedTank, RecentLoss, RunOnToday } from '../../core/today/todayView'
import { Link } from 'react-router'
import { capital } from '../../core/words/capital'
import { nowMs } from '../api/clock'
import { ButtonLink } from '../ui/Button'
import { formatSpan, plural } from '../ui/format'
import { InUnits } from '../ui/InUnits'
import { Row } from '../ui/Rows'
import { useFormat } from '../ui/useFormat'

export function CrateRow({ crate }: { crate: CrateSummary }) {
  const format = useFormat()
  const stage = summaryStage(crate)
  const words = { due: 'due', opening: 'being unpacked', placing: 'to be placed', done: 'placed', closed: 'closed' }
  const due = crate.expectedAtMs === null ? 'without a time' : format.moment(crate.expectedAtMs)
  return (
    <Row to={stage === 'due' ? `/crates/${crate.id}` : `/crates/${crate.id}/unpack`} mark={stage === 'due' ? 'plan' : 'act'} aside={stage === 'due' ? due : `${crate.openedCount} of ${crate.bagCount} bags`}>
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

/** How long it is until then, or since. */
const inOrSince = (atMs: number): string => (atMs > nowMs() ? `in ${formatSpan(atMs - nowMs())}` : `since ${formatSpan(nowMs() - atMs)}`)

/** What is left to prepare for one crate, the next of it first. */
export function PrepareRow({ items: [next, ...others] }: { items: DueItem[] }) {
  if (!next) return null
  const { to, what, about, byMs, urgency } = next
  return (
    <Row to={to} mark={urgency === 'now' ? 'act' : 'plan'} aside={byMs === null ? '' : inOrSince(byMs)}>
      <strong>{about}</strong> {what}
      {others.length > 0 && <small>and {plural(others.length, 'more step')}</small>}
    </Row>
  )
}

/** Fish that stand somewhere for a while only, or are on their way in. */
export const OnTheWayRow = ({ item: { to, what, detail, about, where, byMs, urgency } }: { item: DueItem }) => (
  <Row to={to} mark={urgency === 'now' ? 'act' : 'plan'} aside={byMs === null ? '' : inOrSince(byMs)}>
    <strong>{where ?? about}</strong> {where === null ? '' : about}
    <small>
      <InUnits>{detail ?? what}</InUnits>
    </small>
  </Row>
)

/** What somebody asked for at a tank, what a feed asks for next, or a hold. */
export const ChoreRow = ({ item: { to, what, detail, about, byMs, urgency } }: { item: DueItem }) => (
  <Row to={to} mark={urgency === 'now' ? 'act' : 'plan'} aside={byMs === null ? '' : inOrSince(byMs)}>
    <strong>{about}</strong> <InUnits>{what}</InUnits>
    {detail && <small>{detail}</small>}
  </Row>
)

/** Work that comes round: what is late by itself, what is of today in one row. */
export function ChoresToday({ items }: { items: DueItem[] }) {
  const [late, today] = [items.filter(({ urgency }) => urgency === 'now'), items.filter(({ urgency }) => urgency !== 'now')]
  return (
    <>
      {late.map((item) => (
        <ChoreRow key={item.id} item={item} />
      ))}
      {today.length === 1 && today.map((item) => <ChoreRow key={item.id} item={item} />)}
      {today.length > 1 && (
        <Row to="/chores" mark="plan" aside="today">
          {today.map(({ about }) => about).join('; ')}
        </Row>
      )}
    </>
  )
}

/** A plan that can go now, asks for something, or never will. */
export const PlanRow = ({ item: { to, what, detail, about, where, urgency } }: { item: DueItem }) => (
  <Row to={to} mark={urgency === 'later' ? 'watch' : 'plan'} aside={where}>
    <strong>{about}</strong> {what}
    {detail && <small>{detail}</small>}
  </Row>
)

export const RunRow = ({ run }: { run: RunOnToday }) => (
  <Row to={`/bench/runs/${run.id}`} mark={run.isForgotten || run.isAlarm ? 'act' : 'plan'} aside={run.isForgotten ? 'forgotten?' : run.dueAtMs === null ? '' : inOrSince(run.dueAtMs)}>
    <strong>run {run.number}</strong> {run.species}
    <small>{run.words}</small>
  </Row>
)

/** A tank that calls for somebody, with why. */
export const RaisedRow = ({ tank: { code, species, level, reasons, act } }: { tank: RaisedTank }) => (
  <Row to={`/room/${code}`} mark={level === 'act' ? 'harm' : 'watch'} aside={level === 'act' ? 'act now' : 'look again'}>
    <strong>{code}</strong> {species}
    <small>
      {reasons.slice(0, 2).join(' · ')}
      {act.length > 0 && `. ${capital(act.slice(0, 3).map(({ words }) => words).join(', '))}.`}
    </small>
  </Row>
)

export const RecheckDue = ({ recheck }: { recheck: RecheckView }) => (
  <Row to={recheck.doneAtMs === null ? '/bench' : `/room/${recheck.tankCodes[0] ?? ''}`} mark={recheck.look === 'worse' ? 'harm' : 'act'} aside={recheck.look === 'worse' ? 'worse than usual' : `${recheck.label} after`}>
    <strong>{recheck.tankCodes.join(', ')}</strong> {recheck.species}
    <small>{recheck.look === 'worse' ? `${recheck.label} after their run${recheck.note ? `: ${recheck.note}` : ''}` : `usual by now: ${recheck.usual}`}</small>
  </Row>
)

export const ClaimRow = ({ claim }: { claim: OpenClaim }) => (
  <Row to={`/crates/${claim.crateId}/claim`} mark="watch" aside={`${formatSpan(claim.leftMs)} left`}>
    <strong>
      {claim.number} {claim.supplier}
    </strong>{' '}
    {[claim.dead > 0 ? `${claim.dead} dead` : '', claim.missing > 0 ? `${claim.missing} missing` : ''].filter(Boolean).join(', ')}
    <small>to be claimed</small>
  </Row>
)

const tanksShown = 12

export function UncheckedTanks({ codes, stocked }: { codes: string[]; stocked: number }) {
  return (
    <li className="record unchecked">
      <ButtonLink to="/rounds">Walk the round</ButtonLink>
      <span>
        {codes.length} of {stocked}:{' '}
        {codes.slice(0, tanksShown).map((code) => (
          <Link key={code} to={`/room/${code}`}>
            {code}
          </Link>
        ))}
        {codes.length > tanksShown && <Link to="/room?show=unchecked">and {codes.length - tanksShown} more</Link>}
      </span>
    </li>
  )
}

export const HungryRow = ({ lot }: { lot: HungryLot }) => (
  <Row to={`/room/${lot.tankCode}`} mark="watch" aside={formatSpan(lot.forMs)}>
    <strong>{lot.tankCode}</strong> {lot.quantity} {lot.species}
    <small>
      {lot.isNew ? 'nothing eaten since it came here' : 'since its last meal'}
      {lot.tries && `; try ${lot.tries}`}
    </small>
  </Row>
)

export function LossRow({ loss }: { loss: RecentLoss }) {
  const format = useFormat()
  return (
    <Row to={`/room/${loss.tankCode}`} mark="harm" aside={format.day(loss.lastAtMs)}>
      <strong>{loss.tankCode}</strong> {loss.quantity} {loss.species}
      <small>
        {loss.isAttributed ? 'no lot known' : `lot ${loss.lotCode}`}
        {loss.causes.length > 0 && `, ${loss.causes.join(', ')}`}
      </small>
      {loss.isPoison && <span className="danger-word">Its death poisons the water: out, large water change, carbon; look at every tank on it.</span>}
    </Row>
  )
}

/** Lots of which the same is said: that once, then each tank. */
export function HoldRow({ words, lots }: { words: string; lots: HeldLot[] }) {
  const [first] = lots
  if (!first) return null
  return (
    <li className="record hold-day">
      <p>
        <Link to="/holds">
          <strong>{words}</strong>
        </Link>
        <span className="hold-bar" aria-hidden="true">
          <span style={{ width: `${Math.min(100, (first.day / first.of) * 100)}%` }} />
        </span>
      </p>
      <ul>
        {lots.map(({ lotId, tankCode, quantity, species }) => (
          <li key={`${lotId} ${tankCode}`}>
            <Link to={`/room/${tankCode}`}>
              <strong>{tankCode}</strong> {quantity} {species}
            </Link>
          </li>
        ))}
      </ul>
    </li>
  )
}
