import { Link } from 'react-router'
import type { RecheckView, RunView, WaitingLine } from '../../core/bench/benchView'
import type { IntroductionView } from '../../core/moves/introductionView'
import { proposalWords } from '../../core/moves/introductionWords'
import type { VesselView } from '../../core/moves/moveView'
import { stepIndexOf } from '../../core/bench/runRecord'
import { nowMs } from '../api/clock'
import { useBench, useLimits } from '../api/sharedReads'
import { formatSpan, plural } from '../ui/format'
import { Apart } from '../ui/Apart'
import { InUnits } from '../ui/InUnits'
import { Lead } from '../ui/Lead'
import { Trouble, Waiting } from '../ui/PageState'
import { Row, RowSection } from '../ui/Rows'
import { useFormat } from '../ui/useFormat'
import { LaneCard } from './LaneCard'
import { runTitle, runTo, runWay } from './laneWords'
import { RecheckRow } from './RecheckRow'
import { useStandingBeside } from './useBench'
import './bench.css'

/** Whether the fish of a run are in their tank and only its water is still on its way. */
const isOnItsDays = (run: RunView): boolean => run.outAtMs !== null

/** The bench: live runs with their clocks, fish that wait in bags, looks that are due. */
export function BenchPage() {
  const { bench, problem } = useBench()
  const limits = useLimits()
  const { introductions, vessels } = useStandingBeside()
  if (!bench) return problem ? <Trouble problem={problem} /> : <Waiting what="the bench" />
  const open = bench.runs.filter(({ endedAtMs }) => endedAtMs === null)
  const [live, days] = [open.filter((run) => !isOnItsDays(run)), open.filter(isOnItsDays)]
  const due = bench.rechecks.filter(({ doneAtMs }) => doneAtMs === null)
  return (
    <div className="bench">
      <Lead title="Bench">
        <WhatNow live={live} waiting={bench.waiting} due={due} />
      </Lead>
      {live.length > 0 && (
        <ul className="lanes" aria-label="Live runs">
          {live.map((run) => (
            <Apart key={run.id} what={`Run ${run.number}`} of={run} instead={<Link to={`/bench/runs/${run.id}`}>open it to end it</Link>} isRow>
              <LaneCard run={run} limits={limits} />
            </Apart>
          ))}
        </ul>
      )}
      <RowSection title="Introductions" count={introductions.length}>
        {introductions.map((introduction) => (
          <IntroductionRow key={introduction.id} introduction={introduction} />
        ))}
      </RowSection>
      <RowSection title="In buckets and boxes" count={vessels.length}>
        {vessels.map((vessel) => (
          <VesselRow key={vessel.id} vessel={vessel} />
        ))}
      </RowSection>
      <RowSection title="Look again" count={due.length}>
        {due.slice(0, 12).map((recheck) => (
          <RecheckRow key={recheck.id} recheck={recheck} />
        ))}
      </RowSection>
      <RowSection title="Waiting in bags" count={bench.waiting.length} nothing="No fish stand in bags. Fish in a tank go to the bench from the tank’s page.">
        {bench.waiting.map((line) => (
          <WaitingRow key={line.lineId} line={line} />
        ))}
      </RowSection>
      {days.length > 0 && <RunList title="Tanks on their way" runs={days} />}
      <RunList title="Ended in the last day" runs={bench.runs.filter(({ endedAtMs }) => endedAtMs !== null)} />
    </div>
  )
}

function WhatNow({ live, waiting, due }: { live: RunView[]; waiting: WaitingLine[]; due: RecheckView[] }) {
  const late = due.find(({ dueAtMs }) => dueAtMs <= nowMs())
  if (late) return <>Now: look at {late.species} in {late.tankCodes.join(' and ')}, {late.label} after their run. Usual by now: {late.usual}.</>
  if (live.length > 0) return <>{plural(live.length, 'run')} on the bench. The clocks are the server’s: they go on when this device sleeps.</>
  const first = waiting[0]
  if (first) return <>Next: <Link to={`/bench/compare?line=${first.lineId}`}>choose how {first.species} are acclimated</Link>{first.packedAtMs ? `, ${formatSpan(nowMs() - first.packedAtMs)} since packing` : ''}.</>
  return <>Nothing is on the bench and no fish wait in bags.</>
}

const WaitingRow = ({ line }: { line: WaitingLine }) => (
  <Row to={`/bench/compare?line=${line.lineId}`} mark="plan" aside={line.packedAtMs ? formatSpan(nowMs() - line.packedAtMs) : ''}>
    <strong>{line.species}</strong> {plural(line.bags, 'bag')}, {line.fish} fish
    <small>
      crate {line.crateNumber}, {line.tankCode ? `to ${line.tankCode}` : 'no tank planned'}
      {line.shut === line.bags ? ', still shut' : line.shut > 0 ? `, ${line.shut} still shut` : ''}
    </small>
  </Row>
)

/** Newcomers on their way into a tank, and what is to be done about them. */
function IntroductionRow({ introduction: { id, number, tank, newcomers, day, proposes, state, steps, nextLookAtMs } }: { introduction: IntroductionView }) {
  const step = steps.find(({ doneAtMs }) => doneAtMs === null)
  const next = proposes === 'box' || proposes === 'return' || proposes === 'take out' ? proposalWords(proposes) : state === 'not begun' ? (step?.words ?? 'Look') : 'Look'
  const isLate = (nextLookAtMs ?? Infinity) <= nowMs() || proposes !== null
  return (
    <Row to={`/bench/introductions/${id}`} mark={isLate ? 'act' : 'plan'} aside={`day ${day}`}>
      <strong>{newcomers.map(({ name, quantity }) => `${quantity} ${name}`).join(', ')}</strong> into {tank.code}
      <small>
        introduction {number}: <InUnits>{next ?? 'Look'}</InUnits>
      </small>
    </Row>
  )
}

const VesselRow = ({ vessel: { id, name, tank, fish, limit } }: { vessel: VesselView }) => (
  <Row to={`/vessels/${id}`} mark={limit && nowMs() >= limit.actAtMs ? 'harm' : limit && nowMs() >= limit.watchAtMs ? 'watch' : 'hold'} aside={limit ? (nowMs() < limit.actAtMs ? `${formatSpan(limit.actAtMs - nowMs())} more` : 'its time is over') : ''}>
    <strong>{fish.map(({ species, quantity }) => `${quantity} ${species}`).join(', ')}</strong>
    <small>
      {name}
      {tank ? `, water of ${tank.code}` : ''}
    </small>
  </Row>
)

function RunList({ title, runs }: { title: string; runs: RunView[] }) {
  return (
    <RowSection title={title} count={runs.length}>
      {runs.map((run) => (
        <RunRow key={run.id} run={run} />
      ))}
    </RowSection>
  )
}

function RunRow({ run }: { run: RunView }) {
  const format = useFormat()
  return (
    <Row to={`/bench/runs/${run.id}`} mark="hold" aside={format.time(run.endedAtMs ?? run.outAtMs ?? run.startedAtMs)}>
      <strong>{runTitle(run)}</strong> to {runTo(run)}
      <small>
        run {run.number}, {runWay(run).toLowerCase()}
        {run.endedAtMs === null ? `: ${run.plan.steps[stepIndexOf(run)]?.title ?? ''}` : run.outcome ? `: ${run.outcome}` : run.countedAlive !== null ? `: ${run.countedAlive} alive${run.countedDead ? `, ${run.countedDead} dead` : ''}` : ''}
      </small>
    </Row>
  )
}
