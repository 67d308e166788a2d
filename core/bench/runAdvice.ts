import { whenToAerate } from '../acclimation/planDrip'
import { targetOf, type AcclimationQuestion } from '../acclimation/question'
import { likelyBag } from '../acclimation/drawBag'
import { limitsFor } from '../acclimation/figures'
import type { Limits } from '../limits/houseLimits'
import { baseUnits, showFigure, type Quantity } from '../units/units'
import { oxygenSaturationMgL } from '../water/oxygen'
import { isSoonThin, type BenchFish } from './fishRules'
import { flowWords } from './flowWords'
import { flowOf } from './pace'
import { startLitres, type RunScene } from './planRun'
import { lowerFirst } from '../words/lowerFirst'
import { mostLitres, vesselFor, vesselWords, type RunStep } from './runPlan'

/** One figure of a recommendation, in words. */
export interface AdviceLine {
  label: string
  value: string
}

const quietAnimals = ['peaceful', 'peaceful in groups']

/**
 * The figures that a school asks for on this delivery: float, flow, litres, vessel, air, lights, feed.
 * @param fish - what the book says of them; whoever bears no hunger is fed at once.
 * @param temperament - of the species, from the book; null when it says nothing.
 */
export function adviseRun(steps: readonly RunStep[], scene: RunScene, temperament: string | null, fish: readonly BenchFish[] = []): AdviceLine[] {
  const units = scene.units ?? baseUnits
  const show = (quantity: Quantity, base: number): string => showFigure(quantity, base, units)
  const out = steps.findIndex(({ countsOut }) => countsOut)
  const before = steps.slice(0, out + 1)
  const float = before.find(({ water }) => water.some((deed) => deed.do === 'wait' && deed.handling === 'sealed'))
  const flowing = before.find((step) => flowOf(step) !== null)
  const flow = flowOf(flowing ?? null)
  const usesVessel = before.some(({ fish }) => fish === 'vessel')
  const endL = mostLitres(startLitres(scene), before)
  const days = steps.slice(out + 1).filter(({ toPpt }) => toPpt !== null).length
  const tankL = before.flatMap(({ water }) => water).reduce((litres, deed) => litres + (deed.do === 'fill' || deed.do === 'overflow' || deed.do === 'add' ? deed.litres : 0), 0)
  const lines: (AdviceLine | null)[] = [
    float ? { label: 'float', value: `${float.minutes} min` } : { label: 'float', value: 'not at all' },
    flow && flowing?.minutes ? { label: 'flow', value: flowWords((1000 * flow.litres) / flowing.minutes, scene.dropsPerMl) } : null,
    { label: 'tank water', value: tankL > 0 ? show('volume', tankL) : 'none' },
    usesVessel ? { label: 'vessel', value: `${vesselWords(vesselFor(endL), units)} or more, with a lid` } : null,
    usesVessel ? { label: 'air stone', value: airAdvice(steps, scene) } : null,
    { label: 'lights', value: temperament && !quietAnimals.includes(temperament) ? 'off for some hours: the residents or these fish pick fights' : 'low until they have settled' },
    { label: 'feed today', value: isSoonThin(fish) ? 'small live food from the first hour: they bear no hunger' : 'nothing; offer food tomorrow' },
    days > 0 ? { label: 'afterwards', value: `${days} ${days === 1 ? 'day' : 'days'} of bringing the tank to ${show('salinity', scene.question.tank.salinityPpt)}` } : null,
  ]
  return lines.filter((line): line is AdviceLine => line !== null)
}

/** Whether and when air is needed, from what the fish use and what the water holds. */
export function airAdvice(steps: readonly RunStep[], scene: RunScene): string {
  const { question, limits } = scene
  if (steps.some(({ water }) => water.some((deed) => 'handling' in deed && deed.handling === 'air'))) return 'on'
  const minutes = steps.filter(({ fish }) => fish === 'vessel').reduce((sum, step) => sum + (step.minutes ?? 0), 0)
  const { when, why } = whenToAerate(hoursToLow(question, limits), Math.max(minutes, 1), Math.max(1, minutes / 3))
  return when === 'not needed' ? `none: ${lowerFirst(why)}` : when === 'after diluting' ? `only after diluting: ${lowerFirst(why)}` : why
}

/** Hours until a still vessel of undiluted bag water is at its oxygen limit, without any exchange. */
function hoursToLow(question: AcclimationQuestion, limits: Limits): number {
  const bag = likelyBag(question)
  const target = targetOf(question)
  const { oxygen } = limitsFor(limits, question.tolerance, oxygenSaturationMgL(target.salinityPpt, target.tempC))
  const usedPerH = (bag.options.biomassG * bag.options.demandMgGH) / question.bag.waterL
  return usedPerH > 0 ? Math.max(0, (bag.start.oxygenMgL - oxygen) / usedPerH) : Infinity
}
