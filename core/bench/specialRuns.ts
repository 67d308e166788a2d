import { doseMg } from '../dosing/dose'
import type { Limits } from '../limits/houseLimits'
import type { DisplayUnits } from '../units/units'
import { agentAgainst, staysUnderWater, type BenchFish } from './fishRules'
import { goOver, vesselWords, type RunStep } from './runPlan'

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
  /** What the book says of them. */
  kinds: readonly BenchFish[]
  to: string
  tankSalinityPpt: number
  limits: Pick<Limits, 'bathLitresPer10Fish'>
  units: DisplayUnits
}

export type BathPlan = { ok: true; steps: RunStep[]; litres: number; doseMl: number; minutes: number; withCare: string[] } | { ok: false; reason: string }

const step = (title: string, detail: string, more: Partial<RunStep> = {}): RunStep => ({ title, detail, minutes: null, water: [], endL: 0, fish: 'bag', countsOut: false, toPpt: null, ...more })

/**
 * Plans a first-response bath or a harsher entry dip: litres by the number of fish, the dose by the agent's own entry,
 * made up before any fish is in it, timed, aerated. Arithmetic, no prescription.
 * @returns why not, when the agent's entry lacks a figure.
 */
export function planBath(kind: 'bath' | 'dip', { agent, fish, kinds, to, tankSalinityPpt, limits, units }: BathScene): BathPlan {
  const against = agentAgainst(kinds, agent.substance)
  if (against?.word === 'forbidden') return { ok: false, reason: `${against.species.join(', ')}: no ${agent.substance}, by the species book. Choose another agent, or none.` }
  const withCare = against?.species ?? []
  const isUnderWater = staysUnderWater(kinds)
  const [mgL, minutes] = kind === 'bath' ? [agent.bathMgL, agent.bathMinutes] : [agent.dipMgL, agent.dipMinutes]
  if (mgL === null || minutes === null) return { ok: false, reason: `The entry of ${agent.name} has no ${kind}: put level and minutes there, from the label (Setup, Agents).` }
  if (!agent.strengthMgPerMl) return { ok: false, reason: `The entry of ${agent.name} has no strength: put mg in a mL there, from the label (Setup, Agents).` }
  const litres = Math.max(1, Math.ceil(fish / 10)) * limits.bathLitresPer10Fish
  const doseMl = doseMg(litres, 0, mgL) / agent.strengthMgPerMl
  const into = { endL: litres, fish: 'vessel' } as const
  const steps = [
    step(`Make the ${kind} up`, `${vesselWords(litres, units)} of water of ${to}, air stone on, same temperature. ${doseMl < 1 ? doseMl.toFixed(2) : doseMl.toFixed(1)} mL of ${agent.name} (${agent.strengthMgPerMl} mg in a mL) for ${mgL} mg/L; stir it in before any fish.`, { endL: litres }),
    step('Fish in', isUnderWater ? 'In a cup, never out of the water, with as little bag water as can be. Lid on.' : 'With the net, without the bag water. Lid on.', { ...into, water: [{ do: 'into', litres, salinityPpt: tankSalinityPpt }] }),
    step(kind === 'bath' ? 'Bath' : 'Dip', `${minutes} min. Stay beside it.${withCare.length > 0 ? ` ${withCare.join(', ')} bear it with care only.` : ''}`, { ...into, minutes, water: [{ do: 'wait', handling: 'air', isNearRoom: true }] }),
    step(goOver(isUnderWater, to), 'The quiet tank, lights low. Count them.', { fish: 'tank', countsOut: true, water: [{ do: 'transfer' }], endL: litres }),
  ]
  return { ok: true, steps, litres, doseMl, minutes, withCare }
}

const lookMinutes = 10

/** Residents and newcomers look at each other through the bag before anything is opened. */
export const planLook = (to: string): RunStep[] => [
  step('Float the bags shut, lights on', `${lookMinutes} min against the residents of ${to}: who comes, who flares, who bites at the bag?`, { minutes: lookMinutes, water: [{ do: 'wait', handling: 'sealed', isNearRoom: false }] }),
  step('Add them, or do not', '“Do not add” ends it and frees the tank that was planned.'),
]
export const lookOutcomes = ['add', 'do not add'] as const
