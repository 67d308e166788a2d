import { useHotkeys } from 'react-hotkeys-hook'
import { Link, useParams } from 'react-router'
import { gapPpt, nominalOf, targetOf } from '../../core/acclimation/question'
import type { RunView } from '../../core/bench/benchView'
import { flowWords } from '../../core/bench/flowWords'
import type { RunNow } from '../../core/bench/followRun'
import { flowOf } from '../../core/bench/pace'
import { hasAir, isGateOpen } from '../../core/bench/runRecord'
import { bathCaution } from '../../core/bench/specialRuns'
import type { Limits } from '../../core/limits/houseLimits'
import { baseUnits, showChange } from '../../core/units/units'
import { lowerFirst } from '../../core/words/lowerFirst'
import { useAirlines, useLimits } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { formatSpan } from '../ui/format'
import { Apart } from '../ui/Apart'
import { HandlingNotes } from '../ui/HandlingNotes'
import { HandScreen } from '../ui/HandScreen'
import { Notice } from '../ui/Notice'
import { Trouble, Waiting } from '../ui/PageState'
import { useFormat } from '../ui/useFormat'
import { useTheme } from '../ui/useTheme'
import { VesselLane } from '../ui/VesselLane'
import { AlarmRow } from './AlarmRow'
import { CountOut } from './CountOut'
import { DropCounter } from './DropCounter'
import { laneOf, runTitle, runTo, runWay, timerOf } from './laneWords'
import { ReadVessel } from './ReadVessel'
import { Decide, EndEarly } from './RunEnds'
import { RunStory } from './RunStory'
import { useAlarms } from './useAlarms'
import { spokenOf } from './spokenWords'
import { useFollow, useRun, useRunWrites } from './useBench'
import { useSpeech, type SpeechOnDevice } from './useSpeech'
import { WaterNow } from './WaterNow'
import './bench.css'
import './run.css'

/** One run: the clock, what to do now, what was read, what comes. */
export function RunPage() {
  const { runId = '' } = useParams()
  const { run, problem } = useRun(runId)
  const limits = useLimits()
  if (!run) return problem ? <Trouble problem={problem} back={{ to: '/bench', label: 'The bench' }} /> : <Waiting what="the run" />
  return (
    <Apart what={`Run ${run.number}`} of={run} instead={
        <>
          {run.endedAtMs === null && <EndEarly run={run} />}
          <Link to="/bench">The bench</Link>
        </>
      }>
      <Run run={run} limits={limits} />
    </Apart>
  )
}

function Run({ run, limits }: { run: RunView; limits: Limits }) {
  const { now, atMs } = useFollow(run, limits)
  const alarms = useAlarms(run, now, limits, atMs)
  const speech = useSpeech(spokenOf(run, now, alarms))
  const { doStep, snooze, setFlow, setSwitch, undo } = useRunWrites(run.id)
  const airlines = useAirlines()
  const timer = timerOf(now, atMs)
  const lane = laneOf(run, now, atMs)
  const last = run.events.at(-1)
  const isOpen = run.endedAtMs === null
  const isDeciding = run.plan.kind === 'look' && now.index === run.plan.steps.length - 1
  const canUndo = last !== undefined
  const isCount = last?.kind === 'count' || (last?.kind === 'step' && run.plan.steps[last.stepIndex]?.countsOut === true)
  const gate = now.step?.gate
  const canStep = isOpen && now.step !== null && !now.step.countsOut && !isDeciding && (!gate || isGateOpen(run, gate))
  useHotkeys('u', () => last && undo(last.id, last.kind), { enabled: Boolean(canStep && canUndo) })
  useHotkeys('z', () => alarms[0] && snooze(alarms[0].key), { enabled: alarms.length > 0 })
  return (
    <HandScreen
      className="run"
      title={`${runTitle(run)} to ${runTo(run)}`}
      aside={<span>run {run.number}</span>}
      back={{ to: '/bench', label: 'back to the bench' }}
    >
      {(run.plan.kind === 'bath' || run.plan.kind === 'dip') && <Notice>{bathCaution}</Notice>}
      <div className="run-clock">
        <p className={timer.isOver ? 'lane-timer is-over' : 'lane-timer'}>
          {timer.figure} <small>{timer.words}</small>
        </p>
        {isOpen && now.outAtMs !== null && Number.isFinite(now.outAtMs) && <OutAt run={run} outAtMs={now.outAtMs} />}
      </div>
      {run.outAtMs === null && <VesselLane {...lane} />}
      {alarms.map((alarm) => (
        <AlarmRow key={alarm.key} alarm={alarm} onSnooze={snooze} />
      ))}
      {isOpen && <HandlingNotes of={run.standing} />}
      {isOpen && now.step && (
        <section className="step-in-hand" aria-label="Step in hand">
          <h2>{now.step.title}</h2>
          <small className="aside-word">
            {runWay(run).toLowerCase()}, step {now.index + 1} of {run.plan.steps.length}
          </small>
          <p>{now.step.detail}</p>
          {gate && !isGateOpen(run, gate) && <Notice level="watch">Read the tank below and record it: this step ends once it stands within {gate.withinPpt} ppt.</Notice>}
          {now.pace && <PaceWords run={run} now={now} atMs={atMs} />}
          {now.advice && <p className="lane-alarm watch"><span>{now.advice}</span></p>}
        </section>
      )}
      {isOpen && run.outAtMs === null && run.plan.kind === 'acclimation' && (
        <Apart what="The water" of={now}>
          <WaterNow run={run} now={now} atMs={atMs} />
        </Apart>
      )}
      {isOpen && now.step?.countsOut && <CountOut key={run.standing.map(({ lotId, quantity }) => lotId + quantity).join()} run={run} stepIndex={now.index} />}
      {isOpen && isDeciding && <Decide run={run} />}
      {isOpen && (!now.step?.countsOut || run.events.some(({ kind }) => kind === 'count')) && run.outAtMs === null && run.plan.kind !== 'look' && <ReadVessel run={run} />}
      {isOpen && flowOf(now.step) && <DropCounter dropsPerMl={run.plan.dropsPerMl} airlines={airlines} onFlow={setFlow} />}
      {isOpen && run.outAtMs === null && run.plan.kind === 'acclimation' && (
        <div className="run-switches" role="group" aria-label="In the water">
          <Switch label="air stone" isOn={hasAir(run)} onChange={(isOn) => setSwitch('air', isOn)} />
          <Switch label="ammonia binder" isOn={now.hasBinder} onChange={(isOn) => setSwitch('binder', isOn)} />
          {run.plan.isDark && <LightsOffer />}
        </div>
      )}
      <RunStory run={run} index={now.index} />
      {last && isCount && (!canStep || !isOpen) && (
        <Button size="hand" className="undo-count" onClick={() => undo(last.id, 'the count')}>
          undo the count <small>the fish go back to where they were counted out</small>
        </Button>
      )}
      {isOpen && <Speech speech={speech} />}
      {isOpen && <EndEarly run={run} />}
      {canStep && now.step && (
        <div className="thumb-bar">
          <Button size="hand" className="undo" disabled={!canUndo} onClick={() => last && undo(last.id, last.kind)}>
            undo <small>{canUndo && last ? last.kind : null}</small>
          </Button>
          <Button look="act" size="hand" onClick={() => doStep(now.index, now.step?.title ?? '')}>
            <strong>Done: {lowerFirst(now.step.title)}</strong>
            <small>{run.plan.steps[now.index + 1] ? `next: ${run.plan.steps[now.index + 1]?.title}` : 'the last step'}</small>
          </Button>
        </div>
      )}
    </HandScreen>
  )
}

/** Whether this device says the next step aloud; not there where a browser cannot speak. */
function Speech({ speech: { canSpeak, isOn, toggle } }: { speech: SpeechOnDevice }) {
  return canSpeak ? (
    <Button look="quiet" className="speech" onClick={toggle}>
      say the next step aloud: {isOn ? 'on' : 'off'}
    </Button>
  ) : null
}

function OutAt({ run, outAtMs }: { run: RunView; outAtMs: number }) {
  const format = useFormat()
  return (
    <p className="out-at">
      in {runTo(run)} by <strong>{format.time(outAtMs)}</strong>
    </p>
  )
}

function LightsOffer() {
  const { isLightsOff, toggle } = useTheme()
  if (isLightsOff) return null
  return (
    <Button size="hand" onClick={toggle}>
      lights are low: dim this screen
    </Button>
  )
}

/** How far the first hour of an overflow moves the water at the flow it runs with: the steepest, whatever somebody sets. */
function steepestWords({ plan }: RunView, { step, index, pace }: RunNow): string {
  if (!step?.water.some((deed) => deed.do === 'overflow') || !pace) return ''
  const from = plan.steps[index - 1]?.toPpt ?? nominalOf(plan.question).salinityPpt
  const gap = Math.abs(targetOf(plan.question).salinityPpt - from)
  return `, steepest hour ${showChange('salinity', gap * (1 - Math.exp((-pace.mlPerMin * 60) / 1000 / step.endL)), baseUnits)}`
}

/** How fast the water runs in, and how that is known. */
function PaceWords({ run, now, atMs }: { run: RunView; now: RunNow; atMs: number }) {
  const { pace } = now
  if (!pace) return null
  const band = pace.soonestMs !== null && pace.latestMs !== null && Number.isFinite(pace.latestMs) ? ` (${formatSpan(pace.soonestMs - atMs)} to ${formatSpan(pace.latestMs - atMs)})` : ''
  return (
    <p className={pace.by === 'plan' ? 'is-estimate' : undefined}>
      {pace.by === 'plan' ? 'planned: ' : `by the ${pace.by}: `}
      <strong>{flowWords(pace.mlPerMin, run.plan.dropsPerMl)}</strong>, {showChange('volume', pace.litresIn, now.units)} in so far
      {steepestWords(run, now)}
      {Number.isFinite(pace.endMs) ? `, enough in ${formatSpan(pace.endMs - atMs)}${band}` : ''}.{' '}
      {gapPpt(run.plan.question) > 1 && <Link to={`/desk/drip?${dripQuery(run, now)}`}>on the Water desk</Link>}
    </p>
  )
}

const dripQuery = (run: RunView, now: RunNow): string => {
  const { question, dropsPerMl } = run.plan
  const isOverflow = now.step?.water.some((deed) => deed.do === 'overflow') === true
  const [fromPpt, toPpt] = [nominalOf(question).salinityPpt, targetOf(question).salinityPpt]
  const end = now.step?.endL ?? run.plan.startL
  // An overflowing vessel is full to its rim all the while.
  const [waterL, vesselL] = isOverflow ? [end, end] : [run.plan.startL, run.plan.vesselL]
  return new URLSearchParams({ run: run.id, waterL: String(waterL), vesselL: String(vesselL), fromPpt: String(fromPpt), toPpt: String(toPpt), withinPpt: String(Math.max(0.1, isOverflow ? Math.abs(toPpt - (now.step?.toPpt ?? toPpt)) : (Math.abs(fromPpt - toPpt) * run.plan.startL) / end).toFixed(2)), minutes: String(now.step?.minutes ?? 60), dropsPerMl: String(dropsPerMl) }).toString()
}

function Switch({ label, isOn, onChange }: { label: string; isOn: boolean; onChange: (isOn: boolean) => void }) {
  return (
    <Button size="hand" aria-pressed={isOn} onClick={() => onChange(!isOn)}>
      {label}: {isOn ? 'in' : 'out'}
    </Button>
  )
}
