import type { Limits } from '../limits/houseLimits'
import { poisonsBag } from '../species/handling'
import type { BagFindings } from './crateView'

/** What to do with the fish of a bag first; from the most pressing to the plainest. */
export const firstSteps = ['release at once', 'first-response bath, then an observation tank', 'a quiet observation tank', 'as planned; a harsher entry dip is possible', 'as planned'] as const
export type FirstStep = (typeof firstSteps)[number]
export const [releaseStep, bathStep, quietStep, strongStep, plainStep] = firstSteps

/** Answers whether something has to be done before any acclimating is thought of. */
export const isPressing = (step: FirstStep): boolean => step === releaseStep || step === bathStep

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
  /** Whether they are no fish: nothing is bathed then. */
  isInvertebrate?: boolean
  /** All bags of the lot that were opened, this one with them; left out where only this one is looked at. */
  lot?: LotFindings
}
/** Living and dead of a lot, over its opened bags. */
export interface LotFindings {
  alive: number
  dead: number
  bagsWithDead: number
}
/** Counts the living and the dead over the opened bags of a lot. */
export function countLot(bags: readonly { alive: number; dead: number }[]): LotFindings {
  return { alive: bags.reduce((sum, { alive }) => sum + alive, 0), dead: bags.reduce((sum, { dead }) => sum + dead, 0), bagsWithDead: bags.filter(({ dead }) => dead > 0).length }
}
type TriageLimits = Pick<Limits, 'longInBagHours' | 'deadShareForBathPercent' | 'deadBagsForBath'>

/**
 * Says what the fish of a bag need first, from the four looks, behaviour, body and hours. It orders the work; it does
 * not treat: which agent and how much is the matter of label, veterinarian and law.
 *
 * Fish that fail in their bag go out of it at once, whatever else is wrong: there is no time for a bath. Any other
 * concern calls for a short aerated bath and a quiet tank; what is no fish is not bathed. Thin ones are fed and left in
 * quiet, and one dead of many is no reason for a bath. A harsher dip is only spoken of for fish that arrive strong.
 * Source: handbook, opening the crate.
 */
export function triageBag({ findings, hoursInBag, poisons = null, isInvertebrate = false, lot }: TriageInput, limits: TriageLimits): Triage | null {
  if (findings.alive === 0) return null
  const failing = [...failingReasons(findings), ...(poisonsBag({ poisons }) ? poisonedReasons(findings) : [])]
  const pressing = pressingReasons(findings, hoursInBag, lot ?? countLot([findings]), limits)
  const thin = findings.body === 'thin' ? ['thin'] : []
  const cautions = cautionsFor(findings)
  if (failing.length > 0) return { step: releaseStep, reasons: [...failing, ...pressing, ...thin], cautions: ['Look again within the hour: fish that lie down on release may recover.', ...cautions] }
  if (pressing.length > 0 && isInvertebrate) return { step: quietStep, reasons: [...pressing, ...thin], cautions: ['No bath: they are no fish, and dyes and dips kill them. Fresh water like theirs is what helps.', ...cautions] }
  if (pressing.length > 0) return { step: bathStep, reasons: [...pressing, ...thin], cautions: ['Aerate the bath, stay beside it, keep to the label of the agent.', ...cautions] }
  if (thin.length > 0) return { step: quietStep, reasons: thin, cautions: ['Quiet, dim, with hides; small meals soon. No bath and no dip for being thin.', ...cautions] }
  const isStrong = findings.behaviour === 'lively' && findings.body !== null && findings.body !== undefined && !isInvertebrate
  if (isStrong) return { step: strongStep, reasons: ['lively', `body ${findings.body}`], cautions: ['Only where the house dips on entry, and never fish that are weak.', ...cautions] }
  return { step: plainStep, reasons: ['no concern was noted'], cautions }
}

/** The first response that the worst of some bags asks for; null when none was looked at. */
export const worstTriage = (all: readonly (Triage | null)[]): Triage | null => all.filter((each) => each !== null).sort((a, b) => firstSteps.indexOf(a.step) - firstSteps.indexOf(b.step))[0] ?? null

/** A fish that poisons its bag does not wait in it: cloudy or foaming water, or fish that suffer, are enough. */
function poisonedReasons({ concerns, behaviour, dead }: TriageInput['findings']): string[] {
  const isBad = concerns.includes('water') || concerns.includes('fish') || behaviour === 'distressed' || dead > 0
  return isBad ? ['it poisons its own bag'] : []
}

function failingReasons({ behaviour, concerns }: TriageInput['findings']): string[] {
  if (behaviour === 'on its side') return ['on its side']
  return behaviour === 'distressed' && concerns.includes('fish') ? ['distressed and failing'] : []
}

function pressingReasons({ concerns, behaviour }: TriageInput['findings'], hoursInBag: number | null, lot: LotFindings, limits: TriageLimits): string[] {
  const words = { clock: 'too long under way', bag: 'bag leaking or flat', water: 'water cloudy, foaming or smelling', fish: 'fish failing' }
  const isLong = hoursInBag !== null && hoursInBag >= limits.longInBagHours && !concerns.includes('clock')
  const all = lot.alive + lot.dead
  const isMany = lot.bagsWithDead >= limits.deadBagsForBath || (lot.dead > 0 && (100 * lot.dead) / all >= limits.deadShareForBathPercent)
  return [
    ...concerns.map((look) => words[look]),
    ...(isLong ? [`${Math.round(hoursInBag)} h in the bag, house limit ${limits.longInBagHours} h`] : []),
    ...(behaviour === 'distressed' && !concerns.includes('fish') ? ['distressed'] : []),
    ...(isMany ? [`${lot.dead} of ${all} dead ${lot.bagsWithDead > 1 ? `in ${lot.bagsWithDead} bags` : 'in the bag'}`] : []),
  ]
}

const cautionsFor = ({ hasBinder }: TriageInput['findings']): string[] => (hasBinder ? ['A binder is in this water: ammonia readings and NH3 figures mean nothing while it works.'] : [])
