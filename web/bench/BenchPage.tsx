import { Link } from 'react-router'
import type { RecheckView, RunView, WaitingLine } from '../../core/bench/benchView'
import { stepIndexOf } from '../../core/bench/runRecord'
import { nowMs } from '../api/clock'
import { useBench, useLimits } from '../api/sharedReads'
import { formatSpan, plural } from '../ui/format'
import { Apart } from '../ui/Apart'
import { Lead } from '../ui/Lead'
import { Trouble, Waiting } from '../ui/PageState'
import { useFormat } from '../ui/useFormat'
import { LaneCard } from './LaneCard'
import { runTitle, runTo, runWay } from './laneWords'
import { RecheckRow } from './RecheckRow'

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
      {due.length > 0 && (
        <section className="today-section">
          <h2>
            Look again <strong>{due.length}</strong>
          </h2>
          <ul className="record-list">
            {due.slice(0, 12).map((recheck) => (
              <RecheckRow key={recheck.id} recheck={recheck} />
            ))}
          </ul>
        </section>
      )}
      <section className="today-section">
        <h2>
          Waiting in bags {bench.waiting.length > 0 && <strong>{bench.waiting.length}</strong>}
        </h2>
        {bench.waiting.length === 0 ? (
          <p className="aside-word">No fish stand in bags. Fish in a tank go to the bench from the tank’s page.</p>
        ) : (
          <ul className="record-list">
            {bench.waiting.map((line) => (
              <WaitingRow key={line.lineId} line={line} />
            ))}
          </ul>
        )}
      </section>
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
  <li className="record">
    <Link to={`/bench/compare?line=${line.lineId}`} className="today-row is-plan">
      <span>
        <strong>{line.species}</strong> {plural(line.bags, 'bag')}, {line.fish} fish
        <small>
          crate {line.crateNumber}, {line.tankCode ? `to ${line.tankCode}` : 'no tank planned'}
          {line.shut === line.bags ? ', still shut' : line.shut > 0 ? `, ${line.shut} still shut` : ''}
        </small>
      </span>
      <span className="today-aside">{line.packedAtMs ? formatSpan(nowMs() - line.packedAtMs) : ''}</span>
    </Link>
  </li>
)

function RunList({ title, runs }: { title: string; runs: RunView[] }) {
  const format = useFormat()
  if (runs.length === 0) return null
  return (
    <section className="today-section">
      <h2>
        {title} <strong>{runs.length}</strong>
      </h2>
      <ul className="record-list">
        {runs.map((run) => (
          <Apart key={run.id} what={`Run ${run.number}`} of={run} isRow>
            <li className="record">
              <Link to={`/bench/runs/${run.id}`} className="today-row is-hold">
                <span>
                  <strong>{runTitle(run)}</strong> to {runTo(run)}
                  <small>
                    run {run.number}, {runWay(run).toLowerCase()}
                    {run.endedAtMs === null ? `: ${run.plan.steps[stepIndexOf(run)]?.title ?? ''}` : run.outcome ? `: ${run.outcome}` : run.countedAlive !== null ? `: ${run.countedAlive} alive${run.countedDead ? `, ${run.countedDead} dead` : ''}` : ''}
                  </small>
                </span>
                <span className="today-aside">{format.time(run.endedAtMs ?? run.outAtMs ?? run.startedAtMs)}</span>
              </Link>
            </li>
          </Apart>
        ))}
      </ul>
    </section>
  )
}
