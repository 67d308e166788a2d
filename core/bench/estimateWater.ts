import { limitsFor, type SpeciesLimits } from '../acclimation/figures'
import { likelyBag, type DrawnBag } from '../acclimation/drawBag'
import { usualBucketTauMin } from '../acclimation/mixing'
import { nominalOf } from '../acclimation/question'
import { createFastRun, makeSeries } from '../acclimation/runFast'
import { exchangeBands, slowedTimes, type Handling } from '../acclimation/schools'
import { sceneOf } from '../acclimation/tryMethod'
import { isStretch, type Phase, type VesselState } from '../acclimation/vessel'
import type { Limits } from '../limits/houseLimits'
import { dicAtAir } from '../water/carbonate'
import { oxygenSaturationMgL } from '../water/oxygen'
import { stepIndexOf, stepStarts, type RunEvent, type RunRecord } from './runRecord'
import type { WaterDeed } from './runPlan'

/** Water around the fish at one moment, as the model has it. */
export interface WaterNow {
  tempC: number
  salinityPpt: number
  ph: number
  unionisedMgL: number
  oxygenMgL: number
}

export interface WaterEstimate {
  /** Null once the fish are in their tank, and where it is not reckoned. */
  now: WaterNow | null
  /** Whether the run has stood for longer than its water is followed: `now` is then not known. */
  isTooLong: boolean
  /** When un-ionised ammonia reaches the limit on the way this run is going; null when it does not. */
  ammoniaAtMs: number | null
  limits: SpeciesLimits
  /** The curve, for a chart: minutes since the run began. */
  curve: { atMin: number[]; tempC: number[]; salinityPpt: number[]; ph: number[]; unionisedMgL: number[] }
}

/** How fast carbon dioxide leaves: the middle of what is known, or its ends. */
export type Handled = 'low' | 'likely' | 'high'
/** How long a run's water is followed beyond what its plan takes. By then nobody can know it but by reading. */
export const followedBeyondMin = 24 * 60
const column = { low: 0, likely: 1, high: 2 } as const
const minuteMs = 60_000
// Its columns are large; one set serves every run, one after another.
const [engine, moments] = [createFastRun(), makeSeries()]

/** What the water is followed by, where more is known than the plan. */
interface Course {
  handled?: Handled
  /** Litres that ran in during a begun step, as readings or a drop counter say; null where the plan has to do. */
  litresIn?: (index: number) => number | null
  /** True flow as a share of the planned one. */
  flowFactor?: number
}

/**
 * Follows the water of a run: what was done with its true times, the step in hand as it flows, the rest as planned. From
 * each reading on, the water is what was measured.
 */
export function estimateWater(run: RunRecord, limits: Limits, nowMs: number, { handled = 'likely', litresIn = () => null, flowFactor = 1 }: Course = {}): WaterEstimate {
  const { question } = run.plan
  const scene = sceneOf(question, limits)
  const bag = likelyBag(question)
  const pool = run.plan.startL / question.bag.waterL
  // What is read at a gate is the tank, not the water around the fish.
  const told = run.events.filter(({ kind, atMs, stepIndex }) => (kind === 'reading' || kind === 'air') && atMs <= nowMs && !run.plan.steps[stepIndex]?.gate)
  const way = createWay(run, bag, scene.tank, told, { handled, litresIn, flowFactor })
  const followedMin = plannedMinutes(run) + followedBeyondMin
  const series = engine({ ...bag.start, volumeL: run.plan.startL }, scene.tank, cutAt(way.phases(nowMs), followedMin), { ...bag.options, biomassG: bag.options.biomassG * pool }, 1, moments)
  const nowMin = (nowMs - run.startedAtMs) / minuteMs
  const isTooLong = !way.isOut && (nowMin > followedMin || (series.isFull && nowMin > (series.atMin[series.length - 1] ?? 0)))
  const speciesLimits = limitsFor(limits, question.tolerance, oxygenSaturationMgL(scene.tank.salinityPpt, scene.tank.tempC))
  // What was reckoned before the last reading is overtaken by it.
  const readMin = Math.max(-1, ...told.map(({ kind, atMs }) => (kind === 'air' ? -1 : (atMs - run.startedAtMs) / minuteMs)))
  let [at, over]: [number, number | null] = [0, null]
  for (let index = 0; index < series.length; index += 1) {
    const atMin = series.atMin[index] ?? 0
    if (atMin <= nowMin + 1e-6) at = index
    if (over === null && atMin > readMin + 1e-6 && (series.unionisedMgL[index] ?? 0) >= speciesLimits.nh3) over = atMin
  }
  const phAt = (index: number): number => (series.ownPh[index] ?? NaN) + (series.co2Ph[index] ?? NaN)
  const every = Math.max(1, Math.floor(series.length / 240))
  const kept = Array.from({ length: series.length }, (_, index) => index).filter((index) => index % every === 0 || index === series.length - 1)
  const pick = (values: Float64Array): number[] => kept.map((index) => values[index] ?? NaN)
  return {
    isTooLong,
    now: way.isOut || isTooLong ? null : { tempC: series.tempC[at] ?? NaN, salinityPpt: series.salinityPpt[at] ?? NaN, ph: phAt(at), unionisedMgL: series.unionisedMgL[at] ?? NaN, oxygenMgL: series.oxygenMgL[at] ?? NaN },
    ammoniaAtMs: over === null ? null : run.startedAtMs + over * minuteMs,
    limits: speciesLimits,
    curve: { atMin: pick(series.atMin), tempC: pick(series.tempC), salinityPpt: pick(series.salinityPpt), ph: kept.map(phAt), unionisedMgL: pick(series.unionisedMgL) },
  }
}

const plannedMinutes = (run: RunRecord): number => run.plan.steps.reduce((sum, { minutes }) => sum + (minutes ?? 0), 0)

/** The phases up to a minute; what comes after it is left out. */
function cutAt(phases: readonly Phase[], untilMin: number): Phase[] {
  let leftMin = untilMin
  return phases.flatMap((phase): Phase[] => {
    if (!isStretch(phase)) return leftMin > 0 ? [phase] : []
    const minutes = Math.min(phase.minutes, leftMin)
    leftMin -= minutes
    return minutes > 0 ? [{ ...phase, minutes }] : []
  })
}

/** Turns the steps of a run into phases of the vessel, up to the fish going into their tank. */
function createWay(run: RunRecord, bag: DrawnBag, tank: VesselState, told: readonly RunEvent[], { handled, litresIn, flowFactor }: Required<Course>) {
  const { question, steps } = run.plan
  const [starts, inHand] = [stepStarts(run), stepIndexOf(run)]
  const out = steps.findIndex(({ countsOut }) => countsOut)
  // As planned until somebody says that the air stone is in or out.
  let hasAir: boolean | null = null
  const exchange = (handling: Handling): number => exchangeBands[hasAir === null ? handling : hasAir ? 'air' : handling === 'air' ? 'bucket' : handling][column[handled]]
  const floatTauMin = bag.floatTauMin * (run.plan.school?.variant === 'slowed float' ? slowedTimes : 1)
  const sealed = (minutes: number): Phase => ({ minutes, mode: 'none', exchangePerH: 0, sealedShare: bag.sealedShare, tauMin: floatTauMin, bathC: tank.tempC })
  const room = (isNearRoom: boolean) => (isNearRoom ? { tauMin: usualBucketTauMin, bathC: question.roomC } : {})
  const still = (handling: Handling | 'sealed', minutes: number, isNearRoom = true): Phase[] => (minutes <= 0 ? [] : [handling === 'sealed' ? sealed(minutes) : { minutes, mode: 'none', exchangePerH: exchange(handling), ...room(isNearRoom) }])

  const stretch = (deed: WaterDeed, minutes: number, index: number, isDone: boolean): Phase[] => {
    if (deed.do === 'wait') return still(deed.handling, minutes, deed.isNearRoom)
    if ((deed.do !== 'fill' && deed.do !== 'overflow') || minutes <= 0) return []
    const planned = steps[index]?.minutes ?? minutes
    const litres = litresIn(index) ?? (isDone ? deed.litres : Math.min(deed.litres, (deed.litres * flowFactor * minutes) / planned))
    return [{ minutes, mode: deed.do, flowLPerMin: litres / minutes, exchangePerH: exchange(deed.handling), ...room(deed.isNearRoom) }]
  }
  const instant = (deed: WaterDeed): Phase[] => {
    if (deed.do === 'dump') return [{ dump: deed.share }]
    if (deed.do === 'add') return [{ addL: deed.litres }]
    if (deed.do === 'pour') return [{ pour: bag.pourShare }]
    if (deed.do === 'transfer') return [{ transfer: true }]
    if (deed.do !== 'into') return []
    const { alkalinityMeqL } = tank
    const tempC = deed.tempC ?? tank.tempC
    const into = { volumeL: deed.litres, tempC, salinityPpt: deed.salinityPpt, alkalinityMeqL, tanMgL: 0, dicMmolL: dicAtAir(alkalinityMeqL, question.roomPco2Uatm, deed.salinityPpt, tempC), oxygenMgL: 0.95 * oxygenSaturationMgL(deed.salinityPpt, tempC) }
    return [{ into, biomassG: bag.options.biomassG * question.bags }]
  }

  /** Parts a stretch of a step where the water was read, or the air stone went in or out. */
  const parted = (stretches: readonly Phase[], handling: Handling | 'sealed', index: number): Phase[] => {
    const parts: Phase[] = []
    let whole = stretches.find(isStretch) ?? null
    const goOn = (minutes: number): void => {
      if (whole && minutes > 1e-9) parts.push({ ...whole, minutes })
    }
    const [lastsMin, startMs] = [whole?.minutes ?? 0, starts[index] ?? run.startedAtMs]
    let fromMin = 0
    for (const event of told.filter(({ stepIndex }) => stepIndex === index)) {
      const untilMin = Math.min(lastsMin, Math.max(fromMin, (event.atMs - startMs) / minuteMs))
      goOn(untilMin - fromMin)
      fromMin = untilMin
      if (event.kind === 'reading') parts.push({ read: event })
      else hasAir = event.isOn
      if (whole && handling !== 'sealed') whole = { ...whole, exchangePerH: exchange(handling) }
    }
    goOn(lastsMin - fromMin)
    return parts
  }

  return {
    isOut: out >= 0 && inHand > out,
    phases(nowMs: number): Phase[] {
      const phases: Phase[] = []
      let handling: Handling | 'sealed' = 'sealed'
      for (const [index, step] of steps.entries()) {
        const from = starts[index]
        const isDone = index < inHand
        const lasted = from === undefined ? null : ((isDone ? (starts[index + 1] ?? nowMs) : nowMs) - from) / minuteMs
        // What a touch ends lasts as long as it took; what a timer ends goes on for its minutes unless it was cut short.
        if (step.minutes === null) {
          phases.push(...parted(still(handling, Math.max(0, lasted ?? 0)), handling, index), ...step.water.flatMap(instant))
        } else {
          phases.push(...step.water.flatMap(instant))
          const flowing = step.water.find((deed) => 'handling' in deed)
          if (flowing && isDone) phases.push(...parted(stretch(flowing, lasted ?? 0, index, true), flowing.handling, index))
          else if (flowing) {
            const soFar = Math.max(0, lasted ?? 0)
            const before = stretch(flowing, soFar, index, false)
            phases.push(...parted(before, flowing.handling, index), ...restOf(flowing, step.minutes, soFar, before))
          }
        }
        const last = step.water.at(-1)
        if (last && 'handling' in last) handling = last.handling
        else if (last?.do === 'pour' || last?.do === 'add') handling = 'bucket'
        if (step.countsOut) break
      }
      return phases
    },
  }

  /** What is still to run in goes on at the pace so far. */
  function restOf(deed: WaterDeed, minutes: number, soFar: number, before: readonly Phase[]): Phase[] {
    if (deed.do === 'wait') return still(deed.handling, minutes - soFar, deed.isNearRoom)
    if (deed.do !== 'fill' && deed.do !== 'overflow') return []
    const first = before[0]
    const flow = first && 'minutes' in first && first.flowLPerMin ? first.flowLPerMin : (deed.litres * flowFactor) / minutes
    const left = deed.litres - flow * soFar
    return left > 1e-6 && flow > 0 ? [{ minutes: left / flow, mode: deed.do, flowLPerMin: flow, exchangePerH: exchange(deed.handling), ...room(deed.isNearRoom) }] : []
  }
}

/** Salinity of the water at the start of a step, as the model has it. */
export function salinityAtStart(run: RunRecord, index: number): number {
  const before = run.plan.steps[index - 1]?.toPpt
  if (before !== null && before !== undefined) return before
  const target = run.plan.question.prepared?.salinityPpt ?? run.plan.question.tank.salinityPpt
  let [gap, litres] = [nominalOf(run.plan.question).salinityPpt - target, run.plan.startL]
  for (const step of run.plan.steps.slice(0, index)) {
    for (const deed of step.water) {
      if (deed.do === 'into') [gap, litres] = [deed.salinityPpt - target, deed.litres]
      else if (deed.do === 'dump') litres *= 1 - deed.share
      else if (deed.do === 'add' || deed.do === 'fill') {
        gap *= litres / (litres + deed.litres)
        litres += deed.litres
      }
    }
  }
  return target + gap
}
