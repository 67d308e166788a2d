import { judge, drawEnsemble, type Verdict } from '../acclimation/judge'
import { nominalOf, type AcclimationQuestion, type HouseDefaults } from '../acclimation/question'
import { schools as tradeSchools, type School } from '../acclimation/schools'
import type { Limits } from '../limits/houseLimits'
import { equilibriumMeterPh } from '../water/carbonate'

/** Litres of a first-response bath for so many fish. */
export const bathLitres = (fish: number, { bathLitresPer10Fish }: Pick<Limits, 'bathLitresPer10Fish'>): number => Math.max(1, Math.ceil(fish / 10)) * bathLitresPer10Fish

/** Clean water that fish go into after a bath, where they do not go straight into their tank: little enough to be dripped into, L and g/L. */
const [leastL, gramsPerL] = [2, 5] as const
const soonH = 0.1
const leastGasL = 0.02
const leastTanMgL = 0.02

/**
 * The delivery as it is once its fish come out of a bath: into clean, aerated water of the bag's temperature and salinity,
 * without its ammonia. What acclimates them from there is judged for that water.
 * Source: docs/bench.md, baths.
 */
export function questionAfterBath(question: AcclimationQuestion, fish: number, limits: Pick<Limits, 'bathLitresPer10Fish'>): AcclimationQuestion {
  const litres = Math.min(bathLitres(fish, limits), Math.max(leastL, (fish * question.bag.massG) / gramsPerL))
  const { tempC, salinityPpt } = nominalOf(question)
  const { alkalinityMeqL } = question.tank
  const ph = equilibriumMeterPh(alkalinityMeqL, question.roomPco2Uatm, Math.max(0.05, salinityPpt), tempC)
  const { salinityBy = 'refractometer' as const } = question.measured
  return {
    ...question,
    told: {},
    measured: { tempC, salinityPpt, salinityBy, ph, tanMgL: leastTanMgL, alkalinityMeqL },
    bag: { ...question.bag, fish, waterL: litres, gasL: leastGasL, hours: soonH, packedC: tempC, transitC: tempC, oxygenAtm: 0.209, headspacePco2Uatm: question.roomPco2Uatm },
    ...{ bags: 1, isFed: false, hasSpareTank: false },
  }
}

/** Schools that can follow a bath: nothing is opened or poured any more; a bag of clean water may still be floated. */
export function schoolsInVessel(schools: readonly School[] = tradeSchools): School[] {
  const isOver = ['open', 'pour']
  const isUnfloated = ({ steps }: School): boolean => steps.some(({ step }) => step === 'overflow')
  return schools
    .filter(({ isPooled, needs }) => !isPooled && needs !== 'gap and spare tank' && needs !== 'prepared tank')
    .map((school) => ({ ...school, steps: school.steps.filter(({ step }) => !isOver.includes(step) && !(step === 'float' && isUnfloated(school))) }))
    .filter(({ steps }) => steps.length > 0)
}

/** Draws that tell schools apart where the water is made up and known. */
const draws = 40
/** Judges what follows a bath. */
export const judgeAfterBath = (question: AcclimationQuestion, limits: Limits, schools: readonly School[], defaults: HouseDefaults = {}): Verdict => judge(drawEnsemble(question, limits, { draws, schools: schoolsInVessel(schools) }), defaults)
