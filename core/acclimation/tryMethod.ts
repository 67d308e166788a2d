import type { Limits } from '../limits/houseLimits'
import { dicAtAir, dicFromPh } from '../water/carbonate'
import { oxygenSaturationMgL } from '../water/oxygen'
import { hourlyRamp, valvePlan, type ValveSetting } from './crossing'
import type { DrawnBag } from './drawBag'
import { figuresOf, limitsFor, ratiosOf, worstRatio, type Figures, type Ratios, type SpeciesLimits } from './figures'
import { gapPpt, isToSaltier, nominalOf, practiceOf, targetOf, type AcclimationQuestion } from './question'
import type { FastRun, Series } from './runFast'
import { crossingGapPpt, floatMinutes, gradedFromPpt, litresAdded, nameOfSchool, phasesOf, slowedTimes, type School, type SchoolStep } from './schools'
import type { SaltPace } from './stretch'
import type { Phase, VesselState } from './vessel'

/** Oxygen of a tank in use, as a share of saturation. */
const tankOxygenShare = 0.95
/** Share of the hour limit that a ramp is planned with. */
const rampShare = 0.9
const litresOfTank = 1e4

/** Everything about a question that stays the same from draw to draw. */
export interface MethodScene {
  question: AcclimationQuestion
  tank: VesselState
  limits: SpeciesLimits
  gapPpt: number
  gapC: number
  nominalPpt: number
  /** Most that an hour of an ordinary school may move the salinity by; Infinity where only minutes count. */
  ordinaryPerHour: number
  /** How the valve of an overflow is set, for each litre of the vessel. */
  overflow: readonly ValveSetting[]
}

export function sceneOf(question: AcclimationQuestion, limits: Limits): MethodScene {
  const target = targetOf(question)
  const saturation = oxygenSaturationMgL(target.salinityPpt, target.tempC)
  const nominal = nominalOf(question)
  const ownLimits = limitsFor(limits, question.tolerance, saturation)
  return {
    question,
    tank: {
      ...{ volumeL: 1, tempC: target.tempC, salinityPpt: target.salinityPpt, alkalinityMeqL: target.alkalinityMeqL, tanMgL: 0, oxygenMgL: tankOxygenShare * saturation },
      dicMmolL: dicFromPh(target.ph, target.alkalinityMeqL, target.salinityPpt, target.tempC),
    },
    limits: ownLimits,
    gapPpt: gapPpt(question),
    gapC: nominal.tempC - target.tempC,
    nominalPpt: nominal.salinityPpt,
    ordinaryPerHour: perHourOf(question, ownLimits.perHour),
    overflow: overflowSettings(question, 1, gapPpt(question), ownLimits.perHour),
  }
}

/** How much looser the limit for each hour is, for every ppt that a gap lies below a crossing. */
const looserPerPpt = 3
/** Between 6 and 8 ppt hours count more and more, so that no school is a day slower for a tenth of a ppt. */
function perHourOf(question: AcclimationQuestion, perHour: number): number {
  const gap = gapPpt(question)
  if (gap > crossingGapPpt) return perHour
  if (gap < gradedFromPpt || !practiceOf(question).gradesHours) return Infinity
  // The species' share applies to the whole of it: the house's limit is 2 ppt as shipped.
  return perHour * (1 + (looserPerPpt / 2) * (crossingGapPpt - gap))
}

/** What an hour and five minutes of an ordinary school may move the salinity by. */
export const paceOf = ({ question, gapPpt: gap, ordinaryPerHour, limits }: MethodScene): SaltPace => ({ gapPpt: gap, perHourPpt: ordinaryPerHour, perFiveMinPpt: isToSaltier(question) ? limits.salinityRise : limits.salinityFall })

export interface Tried {
  figures: Figures
  ratios: Ratios
  /** Largest ratio. */
  worst: number
}

/** Carries a school out on one bag and reads the figures. */
export function tryMethod(school: School, bag: DrawnBag, scene: MethodScene, run: FastRun, series: Series): Tried {
  const { question, tank } = scene
  const pool = school.isPooled ? question.bags : 1
  const start = { ...bag.start, volumeL: bag.start.volumeL * pool }
  const options = { ...bag.options, biomassG: bag.options.biomassG * pool }
  const { phases, litres, addMinutes, leastPerHour } = planOf(school, bag, scene, start.volumeL)
  run(start, tank, phases, options, isTogether(school) ? 4 : 1, series)
  if (series.isFull) throw new RangeError(`${nameOfSchool(school)} takes longer than can be followed`)
  const plain = figuresOf(series, litres)
  const figures = { ...plain, minutes: plain.minutes + addMinutes, salinityPerHour: Math.max(plain.salinityPerHour, leastPerHour) }
  const ratios = ratiosOf(figures, scene.limits, hourLimitOf(school, scene))
  return { figures, ratios, worst: worstRatio(ratios) }
}

/** What an hour may move the salinity by in a school: crossings are made for the house's limit, whatever the gap. */
export const hourLimitOf = (school: School, { ordinaryPerHour, limits }: MethodScene): number => (isTogether(school) ? limits.perHour : ordinaryPerHour)

const isCrossingStep = (step: SchoolStep): step is Extract<SchoolStep, { step: 'overflow' | 'tankRamp' }> => step.step === 'overflow' || step.step === 'tankRamp'
/** In these all bags of the lot end in one vessel. */
export const isTogether = (school: School): boolean => school.steps.some(isCrossingStep)

interface Plan {
  phases: Phase[]
  litres: number
  /** Days in the tank that are not simulated minute by minute. */
  addMinutes: number
  leastPerHour: number
}

function planOf(school: School, bag: DrawnBag, scene: MethodScene, waterL: number): Plan {
  const { question, tank } = scene
  const plan: Plan = { phases: [], litres: 0, addMinutes: 0, leastPerHour: 0 }
  const isSlowed = school.variant === 'slowed float'
  for (const each of school.steps) {
    if (!isCrossingStep(each)) {
      const phases = phasesOf([each], { waterL, bags: question.bags, floatMin: floatMinutes(question.bag.waterL, scene.gapC, isSlowed), floatTauMin: bag.floatTauMin * (isSlowed ? slowedTimes : 1), sealedShare: bag.sealedShare, tankC: tank.tempC, roomC: question.roomC, exchangePerH: bag.exchangePerH, pourShare: bag.pourShare })
      plan.phases.push(...phases)
      plan.litres += litresAdded(phases)
      continue
    }
    const biomassG = question.bag.fish * question.bag.massG * question.bags
    if (each.step === 'overflow') addOverflow(plan, each, bag, scene, biomassG)
    else {
      plan.phases.push({ into: baseWater(scene, litresOfTank), biomassG }, { minutes: each.restMinutes, mode: 'none' })
      plan.addMinutes += (1440 * scene.gapPpt) / each.pptPerDay
      plan.leastPerHour = each.pptPerDay / 24
    }
  }
  return plan
}

/**
 * Rest, then hour after hour of overflow. Rest and last hour are needed: without them the netting error or the final step
 * would fall into an hour of the ramp.
 */
function addOverflow(plan: Plan, { restMinutes, gramsPerL, leastL }: Extract<SchoolStep, { step: 'overflow' }>, bag: DrawnBag, scene: MethodScene, biomassG: number): void {
  const volumeL = Math.max(leastL, biomassG / gramsPerL)
  // Lidded and large: its heat goes with the tank's water that runs through.
  const inBucket = { exchangePerH: bag.exchangePerH.air }
  const settings = scene.overflow.map((each) => ({ ...each, flowLPerH: each.flowLPerH * volumeL }))
  plan.phases.push({ into: baseWater(scene, volumeL), biomassG }, { minutes: restMinutes, mode: 'none', ...inBucket })
  for (const { hours, flowLPerH } of settings) plan.phases.push({ minutes: 60 * hours, mode: 'overflow', flowLPerMin: flowLPerH / 60, ...inBucket })
  plan.litres += settings.reduce((sum, { hours, flowLPerH }) => sum + hours * flowLPerH, 0)
}

/** Float, opening and rest before the valve is first set; and from how many hours on few settings are too slow to be followed. */
const [restHours, longestFewH] = [1.5, 600]

/** How the valve of an overflow is set: every hour, or a few times while people are there. */
export function overflowSettings(question: AcclimationQuestion, volumeL: number, gap: number, perHour: number): ValveSetting[] {
  const { valveSettings, people } = practiceOf(question)
  if (gap <= gradedFromPpt) return []
  const hourly = (): ValveSetting[] => hourlyRamp(volumeL, gap, rampShare * perHour)
  if (valveSettings === 0) return hourly()
  const few = valvePlan(volumeL, gap, rampShare * perHour, valveSettings, people && { ...people, startHour: people.startHour + restHours })
  return few.reduce((sum, { hours }) => sum + hours, 0) > longestFewH ? hourly() : few
}

/**
 * Made-up water of the bag's salinity: temperature and alkalinity of the tank, in balance with the room. Not the bag's own
 * water: aerated for hours, that is the worst case of the model.
 */
function baseWater({ question, tank, nominalPpt }: MethodScene, volumeL: number): VesselState {
  const salinityPpt = Math.max(0.05, nominalPpt)
  return {
    ...{ volumeL, tempC: tank.tempC, salinityPpt, alkalinityMeqL: tank.alkalinityMeqL, tanMgL: 0 },
    dicMmolL: dicAtAir(tank.alkalinityMeqL, question.roomPco2Uatm, salinityPpt, tank.tempC),
    oxygenMgL: tankOxygenShare * oxygenSaturationMgL(salinityPpt, tank.tempC),
  }
}

/** Minutes of work that a school asks for. */
export const workMinutes = (school: School, bags: number): number => (school.handsPerBagMin + (school.variant === 'slowed float' ? 1 : 0)) * bags + school.handsPerLotMin
