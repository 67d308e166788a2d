import { Link } from 'react-router'
import type { RecheckView, RunView, WaitingLine } from '../../core/bench/benchView'
import { stepIndexOf } from '../../core/bench/runRecord'
import { nowMs } from '../api/clock'
import { useBench, useLimits } from '../api/sharedReads'
import { formatSpan, plural } from '../ui/format'
import { Apart } from '../ui/Apart'
import { Lead } from '../ui/Lead'
import { Trouble, Waiting } from '../ui/PageState'
import { Row, RowSection } from '../ui/Rows'
import { useFormat } from '../ui/useFormat'
import { LaneCard } from './LaneCard'
import { runTitle, runTo, runWay } from './laneWords'
import { RecheckRow } from './RecheckRow'
import './bench.css'

/** Whether the fish of a run are in their tank and only its water is still on its way. */
const isOnItsDays = (run: RunView): boolean => run.outAtMs !== null

/** The bench: live runs with their clocks, fish that wait in bags, looks that are due. */
export function BenchPage() {
  const { bench, problem } = useBench()
  const limits = useLimits()
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
