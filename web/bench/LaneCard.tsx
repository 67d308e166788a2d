import { Link } from 'react-router'
import type { RunView } from '../../core/bench/benchView'
import type { Limits } from '../../core/limits/houseLimits'
import { Button, ButtonLink } from '../ui/Button'
import { VesselLane } from '../ui/VesselLane'
import { AlarmRow } from './AlarmRow'
import { laneOf, runTitle, runTo, runWay, timerOf } from './laneWords'
import { useAlarms } from './useAlarms'
import { useFollow, useRunWrites } from './useBench'

/** One live run: its vessel, its clock, the next step under the thumb. */
export function LaneCard({ run, limits }: { run: RunView; limits: Limits }) {
  const { now, atMs } = useFollow(run, limits)
  const alarms = useAlarms(run, now, limits, atMs)
  const { doStep, snooze } = useRunWrites(run.id)
  const timer = timerOf(now, atMs)
  const lane = laneOf(run, now, atMs)
  const to = `/bench/runs/${run.id}`
  const needsMore = now.step?.countsOut || (run.plan.kind === 'look' && now.index === run.plan.steps.length - 1)
  return (
    <li className={alarms.some(({ level }) => level === 'act') ? 'lane is-calling' : 'lane'}>
      <div className="lane-head">
        <Link to={to}>
          <strong>{runTitle(run)}</strong> <span className="tank-code">to {runTo(run)}</span>
          <small>
            run {run.number}, {runWay(run).toLowerCase()}
          </small>
        </Link>
        <p className={timer.isOver ? 'lane-timer is-over' : 'lane-timer'}>
          {timer.figure} <small>{timer.words}</small>
        </p>
      </div>
      <VesselLane {...lane} />
      {alarms.slice(0, 2).map((alarm) => (
        <AlarmRow key={alarm.key} alarm={alarm} onSnooze={snooze} />
      ))}
      {now.step && (
        <div className="lane-foot">
          <p>
            <strong>{now.step.title}</strong>
            <small>{now.step.detail}</small>
          </p>
          {needsMore ? (
            <ButtonLink to={to} look="act" size="hand">
              {now.step.countsOut ? 'Count out' : 'Decide'}
            </ButtonLink>
          ) : (
            <Button look={timer.isOver || now.dueAtMs === null ? 'act' : 'plain'} size="hand" aria-label={`done: ${now.step.title}, run ${run.number}`} onClick={() => doStep(now.index, now.step?.title ?? '')}>
              Done
            </Button>
          )}
        </div>
      )}
    </li>
  )
}
