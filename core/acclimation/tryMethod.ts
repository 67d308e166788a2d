import type { Limits } from '../limits/houseLimits'
import { dicAtAir, dicFromPh } from '../water/carbonate'
import { oxygenSaturationMgL } from '../water/oxygen'
import { hourlyRamp } from './crossing'
import type { DrawnBag } from './drawBag'
import { figuresOf, limitsFor, ratiosOf, worstRatio, type Figures, type Ratios, type SpeciesLimits } from './figures'
import { gapPpt, nominalOf, situationOf, targetOf, type AcclimationQuestion } from './question'
import type { FastRun, Series } from './runFast'
import { floatMinutes, litresAdded, phasesOf, type School, type SchoolStep } from './schools'
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
  isCrossing: boolean
  gapPpt: number
  floatMin: number
  nominalPpt: number
}

export function sceneOf(question: AcclimationQuestion, limits: Limits): MethodScene {
  const target = targetOf(question)
  const saturation = oxygenSaturationMgL(target.salinityPpt, target.tempC)
  const nominal = nominalOf(question)
  return {
    question,
    tank: {
      ...{ volumeL: 1, tempC: target.tempC, salinityPpt: target.salinityPpt, alkalinityMeqL: target.alkalinityMeqL, tanMgL: 0, oxygenMgL: tankOxygenShare * saturation },
      dicMmolL: dicFromPh(target.ph, target.alkalinityMeqL, target.salinityPpt, target.tempC),
    },
    limits: limitsFor(limits, question.tolerance, saturation),
    isCrossing: situationOf(question) === 'crossing',
    gapPpt: gapPpt(question),
    floatMin: floatMinutes(question.bag.waterL, nominal.tempC - target.tempC),
    nominalPpt: nominal.salinityPpt,
  }
}

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
  if (series.isFull) throw new RangeError(`${school.name} takes longer than can be followed`)
  const plain = figuresOf(series, litres)
  const figures = { ...plain, minutes: plain.minutes + addMinutes, salinityPerHour: Math.max(plain.salinityPerHour, leastPerHour) }
  const ratios = ratiosOf(figures, scene.limits, scene.isCrossing)
  return { figures, ratios, worst: worstRatio(ratios) }
}

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
  for (const each of school.steps) {
    if (!isCrossingStep(each)) {
      const phases = phasesOf([each], { waterL, bags: question.bags, floatMin: scene.floatMin, floatTauMin: bag.floatTauMin, sealedShare: bag.sealedShare, tankC: tank.tempC, roomC: question.roomC, exchangePerH: bag.exchangePerH, pourShare: bag.pourShare })
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
  const hours = hourlyRamp(volumeL, scene.gapPpt, rampShare * scene.limits.perHour)
  plan.phases.push({ into: baseWater(scene, volumeL), biomassG }, { minutes: restMinutes, mode: 'none', ...inBucket })
  for (const { flowLPerH } of hours) plan.phases.push({ minutes: 60, mode: 'overflow', flowLPerMin: flowLPerH / 60, ...inBucket })
  plan.litres += hours.reduce((sum, { flowLPerH }) => sum + flowLPerH, 0)
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
export const workMinutes = (school: School, bags: number): number => school.handsPerBagMin * bags + school.handsPerLotMin
