import { drawEnsemble } from '../acclimation/judge'
import type { AcclimationQuestion } from '../acclimation/question'
import { schools } from '../acclimation/schools'
import { planRun, startLitres } from '../bench/planRun'
import type { RunEvent, RunRecord } from '../bench/runRecord'
import { standardLimits } from '../limits/houseLimits'

export const runStartMs = Date.UTC(2031, 4, 4, 9, 0)
export const atMin = (minutes: number): number => runStartMs + minutes * 60_000

/** A marine bag, six ppt below its tank, twenty hours under way. */
export const marineBag: AcclimationQuestion = {
  waterClass: 'marine',
  told: { ph: 8, alkalinityMeqL: 2.4 },
  measured: { tempC: 23, salinityPpt: 28 },
  guessedC: 23,
  bag: { fish: 2, massG: 8, waterL: 1.5, gasL: 3, hours: 20, packedC: 25, transitC: 24 },
  ...{ bags: 1, isFed: false, hasSpareTank: false },
  tank: { tempC: 25.5, salinityPpt: 34, alkalinityMeqL: 2.7, ph: 8.2 },
  prepared: null,
  tolerance: 'normal',
  ...{ roomC: 22, roomPco2Uatm: 600 },
}

/** A run of a school on a delivery, with nothing done yet. */
export function runOf(schoolKey: string, question: AcclimationQuestion = marineBag, more: Partial<RunRecord['plan']> = {}, isPooled = false): RunRecord {
  const school = schools.find(({ key }) => key === schoolKey)
  if (!school) throw new RangeError(`no school ${schoolKey}`)
  const steps = planRun(school, { question, limits: standardLimits, to: 'M1-01', tankL: 100, isPooled, dropsPerMl: 20 })
  const startL = startLitres({ question, isPooled })
  return {
    ...{ id: 'run', startedAtMs: runStartMs, events: [] },
    plan: { kind: 'acclimation', school, question, hasBinder: false, vessel: 'bucket', vesselL: 20, dropsPerMl: 20, isDark: false, startL, biomassG: 16, steps, sentence: null, predicted: null, ...more },
  }
}

const blank = { staffName: 'Imre', tempC: null, salinityPpt: null, ph: null, tanMgL: null, isSimulated: false, mlPerMin: null, alarm: null, untilMs: null, isOn: null, note: null }
/** The run with one more thing that happened, at the step then in hand. */
export function withEvent(run: RunRecord, minutes: number, event: Partial<RunEvent> & Pick<RunEvent, 'kind'>): RunRecord {
  const stepIndex = run.events.filter(({ kind }) => kind === 'step').length
  return { ...run, events: [...run.events, { ...blank, id: String(run.events.length), stepIndex, atMs: atMin(minutes), ...event }] }
}

/** Litres and minutes a school takes on the likely bag, as it is judged. */
export const judgedFigures = (question: AcclimationQuestion, schoolKey: string) => {
  const { schools: offered, likely } = drawEnsemble(question, standardLimits, { draws: 1 })
  return likely[offered.findIndex(({ key }) => key === schoolKey)]?.figures
}
