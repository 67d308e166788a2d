import type { Limits } from '../limits/houseLimits'
import { lowerFirst } from '../words/lowerFirst'
import { showChange } from '../units/units'
import type { RunNow } from './followRun'
import { vesselWords } from './runPlan'
import { vesselLimit } from '../moves/vesselLimit'
import { hasAir, hasBinder, stepIndexOf, type RunRecord } from './runRecord'

const minuteMs = 60_000

/** Something that wants a person at the bench. */
export interface Alarm {
  /** Names it, so that it can be put off. */
  key: string
  /** `act` sounds. */
  level: 'act' | 'watch'
  words: string
  sinceMs: number
}

/** How long an alarm is put off with one touch. */
export const snoozeMs = 5 * minuteMs
const fullShare = 0.95

const spanWords = (fromMs: number, toMs: number): string => `${Math.max(0, Math.round((toMs - fromMs) / minuteMs))}`

/** Everything a run has to say at one moment, the pressing first; what was put off is left out until its time is over. */
export function alarmsOf(run: RunRecord, now: RunNow, limits: Limits, nowMs: number): Alarm[] {
  if (!now.step) return []
  // What stands for days has one thing to say; clocks and figures mean nothing any more.
  const standing = standingAlarms(run, now, nowMs)
  const all = standing.length > 0 ? standing : [...timerAlarms(run, now, limits, nowMs), ...ammoniaAlarms(run, now, limits, nowMs), ...vesselAlarms(run, now, limits, nowMs), ...waitingAlarms(run, now, limits, nowMs)]
  const isPutOff = (key: string): boolean => run.events.some((event) => event.kind === 'snooze' && event.alarm === key && (event.untilMs ?? 0) > nowMs)
  return all.filter(({ key }) => !isPutOff(key)).sort((a, b) => Number(b.level === 'act') - Number(a.level === 'act') || a.sinceMs - b.sinceMs)
}

function timerAlarms(run: RunRecord, now: RunNow, limits: Limits, nowMs: number): Alarm[] {
  const { step, index, dueAtMs } = now
  if (!step || dueAtMs === null || !(nowMs >= dueAtMs)) return []
  const next = run.plan.steps[index + 1]
  const over = `${step.title}: time is up${nowMs - dueAtMs >= minuteMs ? ` since ${longWords(nowMs - dueAtMs)}` : ''}.`
  return [{ key: `step-${index}`, level: 'act', words: `${isForgotten(now, limits, nowMs) ? 'Forgotten? ' : ''}${over}${next ? ` Next: ${lowerFirst(next.title)}.` : ''}`, sinceMs: dueAtMs }]
}

/** What a run that was left open for days has to say instead of figures. */
function standingAlarms(run: RunRecord, { water }: RunNow, nowMs: number): Alarm[] {
  if (!water.isTooLong) return []
  return [{ key: 'standing', level: 'act', words: `This run has stood open for ${longWords(nowMs - run.startedAtMs)}: its water is not reckoned any more. Look at the fish and read the water, then count them out or end the run.`, sinceMs: run.startedAtMs }]
}

const longWords = (spanMs: number): string => {
  const hours = Math.floor(spanMs / (60 * minuteMs))
  if (hours < 3) return `${Math.round(spanMs / minuteMs)} min`
  return hours < 48 ? `${hours} hours` : `${Math.floor(hours / 24)} days`
}

/** Forgotten runs stand on Today. */
export const isForgotten = ({ dueAtMs, step }: RunNow, limits: Limits, nowMs: number): boolean => step !== null && dueAtMs !== null && nowMs >= dueAtMs + limits.runForgottenMinutes * minuteMs

function ammoniaAlarms(run: RunRecord, { ammoniaAt, fish, index }: RunNow, limits: Limits, nowMs: number): Alarm[] {
  const isOpen = fish === 'vessel' || (index > 0 && run.plan.steps[index]?.water.some((deed) => deed.do === 'wait' && deed.handling === 'bag'))
  if (!ammoniaAt?.likelyMs || !isOpen || isPartlyOut(run)) return []
  const { likelyMs, soonestMs, latestMs } = ammoniaAt
  const band = soonestMs !== null ? ` (${spanWords(nowMs, soonestMs)}–${latestMs === null ? 'never' : spanWords(nowMs, latestMs)})` : ''
  if (likelyMs <= nowMs) return [{ key: 'ammonia', level: 'act', words: 'By the estimate the water has passed the ammonia limit: net over now, or dilute at once.', sinceMs: likelyMs }]
  return likelyMs - nowMs <= limits.ammoniaSoonMinutes * minuteMs ? [{ key: 'ammonia', level: 'watch', words: `The water passes the ammonia limit in about ${spanWords(nowMs, likelyMs)} min${band}.`, sinceMs: nowMs }] : []
}

/** Whether some of its fish were counted out already: the model, which follows all of them, says nothing of the rest. */
const isPartlyOut = ({ events }: RunRecord): boolean => events.some(({ kind }) => kind === 'count')

/** Fish that wait in their vessel to be counted out: no timer runs any more, but the vessel bears them only so long. */
function waitingAlarms(run: RunRecord, { fish, step, litres, water, stepStartedAtMs }: RunNow, limits: Limits, nowMs: number): Alarm[] {
  const { inVessel = 0, plan } = run
  if (fish !== 'vessel' || !step?.countsOut || inVessel === 0 || !(litres > 0)) return []
  const { tank, bag, tolerance } = plan.question
  const air = hasAir(run)
  const { minutes, binds } = vesselLimit({ litres, tempC: water.now?.tempC ?? tank.tempC, salinityPpt: water.now?.salinityPpt ?? tank.salinityPpt, ph: tank.ph, air, fish: [{ n: inVessel, massG: bag.massG }], tolerance, hasBinder: hasBinder(run) }, limits)
  const actAtMs = stepStartedAtMs + minutes * minuteMs
  const watchAtMs = stepStartedAtMs + (2 / 3) * minutes * minuteMs
  if (nowMs < watchAtMs) return []
  const who = `${inVessel} fish in the vessel${air ? '' : ', no air stone'}`
  if (nowMs < actAtMs) return [{ key: 'vessel', level: 'watch', words: `${who}: it bears them about ${spanWords(nowMs, actAtMs)} min more (${binds}).`, sinceMs: watchAtMs }]
  return [{ key: 'vessel', level: 'act', words: `${who} for ${longWords(nowMs - stepStartedAtMs)}; it bears them ${longWords(minutes * minuteMs)} (${binds}). Count them into a tank now; until then air, and water of their tank.`, sinceMs: actAtMs }]
}

function vesselAlarms(run: RunRecord, now: RunNow, limits: Limits, nowMs: number): Alarm[] {
  const { fish, step, litres, pace, water, stepStartedAtMs, units } = now
  if (fish !== 'vessel' || !step) return []
  const { vesselL } = run.plan
  const alarms: Alarm[] = []
  if (litres >= fullShare * vesselL) alarms.push({ key: 'full', level: 'act', words: `The vessel is full: about ${showChange('volume', litres, units)} of ${vesselWords(vesselL, units)}. Take water out, or let it overflow far from the drip.`, sinceMs: nowMs })
  else if (step.endL > fullShare * vesselL && pace && pace.mlPerMin > 0) {
    const inMin = (1000 * (fullShare * vesselL - litres)) / pace.mlPerMin
    alarms.push({ key: 'full', level: 'watch', words: `It will be full in about ${Math.max(1, Math.round(inMin))} min: ${showChange('volume', step.endL, units)} are planned, it holds ${vesselWords(vesselL, units)}.`, sinceMs: nowMs })
  }
  if (water.now && water.now.oxygenMgL < water.limits.oxygen && !hasAir(run) && !isPartlyOut(run)) {
    const isDiluted = litres >= 2 * run.plan.startL
    alarms.push({ key: 'air', level: 'act', words: `Oxygen is estimated at ${water.now.oxygenMgL.toFixed(1)} mg/L, limit ${water.limits.oxygen.toFixed(1)}. ${isDiluted ? 'The water is diluted: air stone in.' : 'Dilute first if you can, then air; air in undiluted bag water turns its ammonia toxic.'}`, sinceMs: nowMs })
  }
  const intoVessel = run.events.find((event) => event.kind === 'step' && run.plan.steps[event.stepIndex]?.fish === 'vessel')
  if (intoVessel && nowMs - intoVessel.atMs < 15 * minuteMs) alarms.push({ key: 'lid', level: 'watch', words: 'Lid on: fish jump.', sinceMs: intoVessel.atMs })
  const lastRead = run.events.findLast(({ kind, stepIndex }) => kind === 'reading' && stepIndex <= stepIndexOf(run))?.atMs ?? intoVessel?.atMs ?? stepStartedAtMs
  if (step.minutes !== null && nowMs - lastRead >= limits.bucketReadMinutes * minuteMs) alarms.push({ key: 'read', level: 'watch', words: `Read the vessel: temperature${Math.abs(run.plan.question.tank.salinityPpt - (water.now?.salinityPpt ?? 0)) > 1 ? ' and salinity' : ''}. Nothing was read for ${spanWords(lastRead, nowMs)} min.`, sinceMs: lastRead + limits.bucketReadMinutes * minuteMs })
  return alarms
}
