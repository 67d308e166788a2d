import type { AcclimationQuestion } from '../acclimation/question'
import type { School } from '../acclimation/schools'
import { doseMg } from '../dosing/dose'
import type { Limits } from '../limits/houseLimits'
import { showFigure, type DisplayUnits } from '../units/units'
import { bathLitres } from './afterBath'
import { agentAgainst, hasInvertebrate, poolingAgainst, staysUnderWater, type BenchFish } from './fishRules'
import { planRun } from './planRun'
import { vesselWords, type RunStep } from './runPlan'

/** What the list of agents says of one; figures are the house's, from the label of its product. */
export interface Agent {
  id: string
  name: string
  /** Column of the species book that says who bears it; null when nobody said. */
  substance: string | null
  /** Active ingredient in a millilitre of what stands on the shelf, mg. */
  strengthMgPerMl: number | null
  bathMgL: number | null
  bathMinutes: number | null
  dipMgL: number | null
  dipMinutes: number | null
  cautions: string | null
}

/** What every bath and dip is shown with. */
export const bathCaution = 'Follow the product’s label and a veterinarian; local law decides. Aerate, stay beside it, and take out any fish that rolls or gasps. Gloves; eye protection with formalin (toxic, suspected carcinogen) and concentrated peroxide.'

export interface BathScene {
  agent: Agent
  fish: number
  /** Bags they come from. */
  bags: number
  /** What the book says of them. */
  kinds: readonly BenchFish[]
  to: string
  /** Water of the bag: a bath is made like it. */
  bag: { tempC: number; salinityPpt: number }
  /** How the fish are acclimated from there, and the delivery as it then is; null while only the bath is asked for. */
  then: { school: School; question: AcclimationQuestion } | null
  limits: Limits
  units: DisplayUnits
}

export type BathPlan = { ok: true; steps: RunStep[]; litres: number; doseMl: number; minutes: number; withCare: string[] } | { ok: false; reason: string }

const step = (title: string, detail: string, more: Partial<RunStep> = {}): RunStep => ({ title, detail, minutes: null, water: [], endL: 0, fish: 'bag', countsOut: false, toPpt: null, ...more })

/**
 * Plans a first-response bath or a harsher entry dip: water like the bag's, litres by the number of fish, the dose by the
 * agent's own entry, made up before any fish is in it, timed, aerated; from it the fish are acclimated to their tank.
 * Arithmetic, no prescription.
 * @returns why not, when the agent's entry lacks a figure.
 */
export function planBath(kind: 'bath' | 'dip', { agent, fish, bags, kinds, to, bag, then, limits, units }: BathScene): BathPlan {
  const against = agentAgainst(kinds, agent.substance)
  if (against?.word === 'forbidden') return { ok: false, reason: `${against.species.join(', ')}: no ${agent.substance}, by the species book. Choose another agent, or none.` }
  if (hasInvertebrate(kinds) && !isBorneBy(kinds, agent.substance)) return { ok: false, reason: `${agent.name}: not for what is no fish; dyes and dips kill it.` }
  const apart = bags > 1 ? poolingAgainst(kinds) : null
  if (apart) return { ok: false, reason: `${apart.why}: bathe them one bag at a time.` }
  const withCare = against?.species ?? []
  const isUnderWater = staysUnderWater(kinds)
  const [mgL, minutes] = kind === 'bath' ? [agent.bathMgL, agent.bathMinutes] : [agent.dipMgL, agent.dipMinutes]
  if (mgL === null || minutes === null) return { ok: false, reason: `The entry of ${agent.name} has no ${kind}: put level and minutes there, from the label (Setup, Agents).` }
  if (!agent.strengthMgPerMl) return { ok: false, reason: `The entry of ${agent.name} has no strength: put mg in a mL there, from the label (Setup, Agents).` }
  const litres = bathLitres(fish, limits)
  const doseMl = doseMg(litres, 0, mgL) / agent.strengthMgPerMl
  const into = { endL: litres, fish: 'vessel' } as const
  const steps = [
    step(`Make the ${kind} up`, `${vesselWords(litres, units)} of clean water like the bag’s, ${showFigure('temperature', bag.tempC, units)} and ${showFigure('salinity', bag.salinityPpt, units)}; air stone on. ${doseMl < 1 ? doseMl.toFixed(2) : doseMl.toFixed(1)} mL of ${agent.name} (${agent.strengthMgPerMl} mg in a mL) for ${mgL} mg/L; stir it in before any fish.`, { endL: litres }),
    step('Fish in', isUnderWater ? 'In a cup, never out of the water, with as little bag water as can be. Lid on.' : 'With the net, without the bag water. Lid on.', { ...into, water: [{ do: 'into', litres, ...bag }] }),
    step(kind === 'bath' ? 'Bath' : 'Dip', `${minutes} min. Stay beside it.${withCare.length > 0 ? ` ${withCare.join(', ')} bear it with care only.` : ''}`, { ...into, minutes, water: [{ do: 'wait', handling: 'air', isNearRoom: true }] }),
    ...(then ? stepsAfter(then, { limits, to, isUnderWater, bag, units }) : []),
  ]
  return { ok: true, steps, litres, doseMl, minutes, withCare }
}

const isBorneBy = (kinds: readonly BenchFish[], substance: string | null): boolean => substance !== null && kinds.every(({ agents }) => agents[substance] === 'usual' || agents[substance] === 'with care')

/** From the bath to the tank: at once where the waters are alike, else through clean water that is brought to the tank's. */
function stepsAfter({ school, question }: NonNullable<BathScene['then']>, { limits, to, isUnderWater, bag, units }: Pick<BathScene, 'limits' | 'to' | 'bag' | 'units'> & { isUnderWater: boolean }): RunStep[] {
  const steps = planRun(school, { question, limits, to, tankL: null, isPooled: false, dropsPerMl: 20, isUnderWater, isInVessel: true, units })
  const { waterL } = question.bag
  const isAtOnce = steps[0]?.countsOut === true || steps.some(({ water }) => water.some((deed) => deed.do === 'into'))
  const clean = step(isUnderWater ? 'By cup into clean water' : 'Net into clean water', `${vesselWords(waterL, units)} of ${showFigure('temperature', bag.tempC, units)} and ${showFigure('salinity', bag.salinityPpt, units)}: what was dosed stays behind. Lid on.`, { endL: waterL, fish: 'vessel', water: [{ do: 'into', litres: waterL, ...bag }] })
  return isAtOnce ? steps : [clean, ...steps]
}

/** Residents and newcomers look at each other through the bag before anything is opened. */
export const planLook = (to: string, { lookThroughMinutes: lookMinutes }: Pick<Limits, 'lookThroughMinutes'>): RunStep[] => [
  step('Float the bags shut, lights on', `${lookMinutes} min against the residents of ${to}: who comes, who flares, who bites at the bag?`, { minutes: lookMinutes, water: [{ do: 'wait', handling: 'sealed', isNearRoom: false }] }),
  step('Add them, or do not', '“Do not add” ends it and frees the tank that was planned.'),
]
export const lookOutcomes = ['add', 'do not add'] as const
