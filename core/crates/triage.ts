import type { Limits } from '../limits/houseLimits'
import { poisonsBag } from '../species/handling'
import type { BagFindings } from './crateView'

/** What to do with the fish of a bag first; from the most pressing to the plainest. */
export const firstSteps = ['release at once', 'first-response bath, then an observation tank', 'as planned; a harsher entry dip is possible', 'as planned'] as const
export type FirstStep = (typeof firstSteps)[number]

export interface Triage {
  step: FirstStep
  /** What speaks for it, in words. */
  reasons: string[]
  /** What to mind besides. */
  cautions: string[]
}

/** What triage looks at: the findings of a bag, and how long it was under way (null when nobody said). */
export interface TriageInput {
  findings: Pick<BagFindings, 'alive' | 'dead' | 'concerns' | 'body' | 'behaviour' | 'waterTempC' | 'hasBinder'>
  hoursInBag: number | null
  /** What the species poisons, by the book; left out when the book does not say. */
  poisons?: string | null
}

/**
 * Says what the fish of a bag need first, from the four looks, behaviour, body and hours. It orders the work; it does
 * not treat: which agent and how much is the matter of label, veterinarian and law.
 *
 * Fish that fail in their bag go out of it at once, whatever else is wrong: there is no time for a bath. Any other
 * concern calls for a short aerated bath and a quiet tank. A harsher dip is only spoken of for fish that arrive strong.
 * Source: handbook, opening the crate.
 */
export function triageBag({ findings, hoursInBag, poisons = null }: TriageInput, limits: Pick<Limits, 'longInBagHours'>): Triage | null {
  if (findings.alive === 0) return null
  const failing = [...failingReasons(findings), ...(poisonsBag({ poisons }) ? poisonedReasons(findings) : [])]
  const pressing = pressingReasons(findings, hoursInBag, limits.longInBagHours)
  const cautions = cautionsFor(findings)
  if (failing.length > 0) return { step: 'release at once', reasons: [...failing, ...pressing], cautions: ['Look again within the hour: fish that lie down on release may recover.', ...cautions] }
  if (pressing.length > 0) return { step: 'first-response bath, then an observation tank', reasons: pressing, cautions: ['Aerate the bath, stay beside it, keep to the label of the agent.', ...cautions] }
  const isStrong = findings.behaviour === 'lively' && findings.body !== null && findings.body !== undefined
  if (isStrong) return { step: 'as planned; a harsher entry dip is possible', reasons: ['lively', `body ${findings.body}`], cautions: ['Only where the house dips on entry, and never fish that are weak.', ...cautions] }
  return { step: 'as planned', reasons: ['no concern was noted'], cautions }
}

/** A fish that poisons its bag does not wait in it: cloudy or foaming water, or fish that suffer, are enough. */
function poisonedReasons({ concerns, behaviour, dead }: TriageInput['findings']): string[] {
  const isBad = concerns.includes('water') || concerns.includes('fish') || behaviour === 'distressed' || dead > 0
  return isBad ? ['it poisons its own bag'] : []
}

function failingReasons({ behaviour, concerns }: TriageInput['findings']): string[] {
  if (behaviour === 'on its side') return ['on its side']
  return behaviour === 'distressed' && concerns.includes('fish') ? ['distressed and failing'] : []
}

function pressingReasons({ alive, dead, concerns, body, behaviour }: TriageInput['findings'], hoursInBag: number | null, longHours: number): string[] {
  const words = { clock: 'too long under way', bag: 'bag leaking or flat', water: 'water cloudy or smelling', fish: 'fish failing' }
  const isLong = hoursInBag !== null && hoursInBag >= longHours && !concerns.includes('clock')
  return [
    ...concerns.map((look) => words[look]),
    ...(isLong ? [`${Math.round(hoursInBag)} h in the bag, house limit ${longHours} h`] : []),
    ...(behaviour === 'distressed' && !concerns.includes('fish') ? ['distressed'] : []),
    ...(body === 'thin' ? ['thin'] : []),
    ...(dead > 0 ? [`${dead} of ${alive + dead} dead in the bag`] : []),
  ]
}

const cautionsFor = ({ hasBinder }: TriageInput['findings']): string[] => (hasBinder ? ['A binder is in this water: ammonia readings and NH3 figures mean nothing while it works.'] : [])
