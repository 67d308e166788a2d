import { drawEnsemble, judge, type Ensemble, type JudgedSchool, type Verdict } from '../acclimation/judge'
import { gapPpt, isToSaltier, nominalOf, type AcclimationQuestion, type HouseDefaults } from '../acclimation/question'
import { bestRemedy } from '../acclimation/remedies'
import { crossingGapPpt, schools as tradeSchools, type School, type SchoolVariant } from '../acclimation/schools'
import { verdictWords, type VerdictWords } from '../acclimation/sentences'
import { bathStep, isPressing, quietStep, releaseStep, type Triage } from '../crates/triage'
import type { Limits } from '../limits/houseLimits'
import type { Water } from '../room/room.schema'
import { outsideKept } from '../species/keptIn'
import { spanWords } from '../time/spanWords'
import { baseUnits, showChange, showFigure, type DisplayUnits } from '../units/units'
import { judgeAfterBath, questionAfterBath } from './afterBath'
import { hasInvertebrate, poolingAgainst, withheldSchools, type BenchFish, type RefusalCode } from './fishRules'
import type { Ask, BagWater } from './waterOfBag'

/** What comes before any acclimating. */
export const firstActions = ['none', 'bath', 'release now', 'observation tank'] as const
export type FirstAction = (typeof firstActions)[number]

/** Something that is not on offer, and why: a school by its key, a bath, pooling, or the tank itself. */
export interface Refusal {
  what: string
  code: RefusalCode
  why: string
}

/** A delivery as it stands on a screen: the water in its bags, the figures, the fish, and where they are to go. */
export interface Delivery {
  water: BagWater
  /** Null while it is not known which water the bags hold. */
  question: AcclimationQuestion | null
  kinds: readonly BenchFish[]
  triage: Triage | null
  /** Kind of water of the tank; null when none is planned. */
  tankWater: Water | null
  /** What is in the tank's water. */
  tankAgents: readonly string[]
  tank: { tempC?: number | undefined; salinityPpt?: number | undefined; ph?: number | undefined; alkalinityMeqL?: number | undefined }
  /** Whether fish come out of a tank of the same water. */
  isOneWater: boolean
  hasBinder: boolean
  /** How far the bags that were read lie apart, °C. */
  bagsApartC?: number
  /** Hours under way as somebody said them; null where they are only usual. */
  hoursSaid: number | null
}

/** What is advised: one first action, a school for the water the fish are in after it, and what is not on offer. */
export interface DeliveryAdvice {
  asks: Ask[]
  first: FirstAction
  /** What a bath is made of; null where none is advised, or nobody knows what the bag holds. */
  bathWater: { tempC: number; salinityPpt: number } | null
  /** Null where none is advised. */
  schoolKey: string | null
  variant: SchoolVariant | null
  refusals: Refusal[]
  /** What to do, what binds, how sure. */
  sentence: string
  /** The rest, for whoever asks. */
  why: string
}

export interface AdviceOptions {
  limits: Limits
  schools?: readonly School[]
  defaults?: HouseDefaults
  units?: DisplayUnits
}

/** Names the first action that triage asks for. */
export const firstAction = (triage: Triage | null): FirstAction => (triage?.step === releaseStep ? 'release now' : triage?.step === bathStep ? 'bath' : triage?.step === quietStep ? 'observation tank' : 'none')

/** Everything that is refused for a delivery, whichever school it is. */
export function refusalsOf({ kinds, question, tankWater, tank, tankAgents, triage, hasBinder, bagsApartC = 0 }: Delivery, schools: readonly School[], units: DisplayUnits, limits: Pick<Limits, 'bagsApartC'>): Refusal[] {
  const isSaltier = question === null || isToSaltier(question)
  const pooling = poolingAgainst(kinds)
  const isBathAsked = triage !== null && (isPressing(triage.step) || triage.step === quietStep)
  return [
    ...withheldSchools(kinds, schools, tankWater, isSaltier).map(({ key, code, why }) => ({ what: key, code, why })),
    ...(pooling && !schools.some(({ isPooled }) => isPooled) ? [{ what: 'pooled', ...pooling }] : []),
    ...(bagsApartC > limits.bagsApartC ? [{ what: 'together', code: 'unlike waters' as const, why: `The bags lie ${showChange('temperature', bagsApartC, units)} apart; take them one by one` }] : []),
    ...(isBathAsked && hasInvertebrate(kinds) ? [{ what: 'bath', code: 'no fish' as const, why: 'No bath: dyes and dips kill what is no fish' }] : []),
    ...kinds.flatMap(({ species, kept }) => (kept ? outsideKept(species, kept, tank, units).map((each) => ({ what: 'tank', ...each })) : [])),
    ...kinds.flatMap(({ species, agents }) => tankAgents.flatMap((agent): Refusal[] => (agents[agent] === 'forbidden' ? [{ what: 'tank', code: 'forbidden agent', why: `${agent} is in this tank, and ${species} does not bear it` }] : agents[agent] === 'with care' ? [{ what: 'tank', code: 'agent with care', why: `${agent} is in this tank; ${species} bears it with care only` }] : []))),
    ...(hasBinder ? [{ what: 'schools', code: 'binder' as const, why: 'A binder is at work: figures for ammonia mean nothing, so schools are not compared' }] : []),
  ]
}

/** Schools that may be compared for a delivery. */
export const allowedSchools = ({ kinds, question, tankWater }: Delivery, schools: readonly School[]): School[] => {
  const isSaltier = question === null || isToSaltier(question)
  const withheld = withheldSchools(kinds, schools, tankWater, isSaltier)
  return schools.filter(({ key }) => !withheld.some((each) => each.key === key))
}

/** Why nothing is compared; null where schools are. */
export function nothingCompared(delivery: Delivery, schools: readonly School[] = tradeSchools): string | null {
  const { isOneWater, water, hasBinder, question } = delivery
  if (isOneWater) return 'No acclimation: it is the same water.'
  if (water.why !== null) return water.why
  const deadly = deadlyTank(delivery, schools)
  if (deadly !== null && question !== null) return `Not into this tank: ${deadly}.`
  return hasBinder ? 'A binder is at work: no school is compared while it is. Judge by temperature and salinity, and by the fish.' : null
}

/** Why fish would die in a tank whichever way they come into it; null where nothing is known to. */
function deadlyTank({ kinds, tankAgents, tankWater, question }: Delivery, schools: readonly School[]): string | null {
  const poisoned = kinds.flatMap(({ species, agents }) => tankAgents.filter((agent) => agents[agent] === 'forbidden').map((agent) => `${agent} is in it, and ${species} does not bear it`))[0]
  if (poisoned) return poisoned
  if (question === null || gapPpt(question) <= crossingGapPpt) return null
  // A crossing that no crossing school is offered for: the ordinary ones are none.
  const against = withheldSchools(kinds, schools, tankWater, isToSaltier(question)).find(({ code }) => code === 'not its water')
  return against?.why ?? null
}

/** Fish that fail go by whatever takes least time and stays under the limits; crossings go in their order, all of them take the fish out of the bag alike. */
export function quickestSchool({ schools, equal, recommended, situation }: Verdict): JudgedSchool | undefined {
  const best = schools.find(({ key }) => key === recommended)
  if (situation === 'crossing') return best
  const under = equal.flatMap((each) => schools.find(({ key }) => key === each) ?? [])
  return under.sort((a, b) => a.likely.minutes - b.likely.minutes)[0] ?? best
}

/** Answers whether a crossing, or a bath, would be begun in water like a bag that nobody read or spoke of. */
const asksForSalt = (question: AcclimationQuestion): boolean => gapPpt(question) > crossingGapPpt && question.measured.salinityPpt === undefined && question.told.salinityPpt === undefined

/** What is said where water is made up like a bag that nobody read. */
export const saltWords = 'Read the salinity first: made-up water has to be like the bag’s, and nobody read it.'
/** What is said where the temperature of a long trip was not read. */
export const probeWords = 'Read the water’s temperature first: nobody did, and it was long under way.'

/** Answers whether the temperature nobody read could break a limit in the school that is advised. */
export function asksForProbe({ hoursSaid }: Pick<Delivery, 'hoursSaid'>, { question, schools, tried }: Ensemble, schoolKey: string | null, limits: Pick<Limits, 'readAfterHours'>): boolean {
  if (hoursSaid === null || hoursSaid <= limits.readAfterHours || question.measured.tempC !== undefined || question.guessedFrom === 'skin') return false
  const column = schools.findIndex(({ key }) => key === schoolKey)
  return tried.some((row) => (row[column]?.ratios.T ?? 0) >= 1)
}

/**
 * Says what to do with a delivery, from the very facts that stand on the screen. It compares waters, and predicts no survival.
 * Source: docs/bench.md, what is said.
 * @param draws - plausible bags to draw where schools are compared.
 */
export function adviseDelivery(delivery: Delivery, { limits, schools = tradeSchools, defaults = {}, units = baseUnits }: AdviceOptions, draws: number): DeliveryAdvice {
  const { question } = delivery
  const nothing = nothingCompared(delivery, schools)
  if (nothing !== null || question === null) return withoutSchool(delivery, nothing ?? '', schools, units, limits)
  const ensemble = drawEnsemble(question, limits, { draws, schools: allowedSchools(delivery, schools) })
  return adviceFrom(delivery, ensemble, judge(ensemble, defaults), { limits, schools, defaults, units }, true)
}

function withoutSchool(delivery: Delivery, sentence: string, schools: readonly School[], units: DisplayUnits, limits: Limits): DeliveryAdvice {
  const first = firstAction(delivery.triage)
  return { asks: delivery.isOneWater ? [] : delivery.water.asks, first, bathWater: first === 'bath' ? bathWaterOf(delivery) : null, schoolKey: null, variant: null, refusals: refusalsOf(delivery, schools, units, limits), sentence: `${firstWords(delivery, units)}${sentence}`, why: '' }
}

const bathWaterOf = ({ question, water }: Delivery): DeliveryAdvice['bathWater'] => (question === null || water.waterClass === 'unknown' ? null : nominalOf(question))

/** The first action in words, before anything else; empty where there is none. */
function firstWords(delivery: Delivery, units: DisplayUnits): string {
  const { triage } = delivery
  const first = firstAction(triage)
  const because = triage ? ` (${triage.reasons.join(', ')})` : ''
  const apart = poolingAgainst(delivery.kinds) ? ', each bag by itself' : ''
  if (first === 'release now') return `First: release them now${because}. `
  if (first === 'observation tank') return `First: a quiet observation tank${because}. `
  if (first !== 'bath') return ''
  const bath = bathWaterOf(delivery)
  return `First: a bath${because}${apart}${bath ? `, of water like the bag’s, ${showFigure('temperature', bath.tempC, units)} and ${showFigure('salinity', bath.salinityPpt, units)}` : ''}. `
}

/** Advice from a verdict that was drawn already. `isLast` is false while only a first answer is wanted: remedies are then left out. */
export function adviceFrom(delivery: Delivery, ensemble: Ensemble, verdict: Verdict, { limits, schools = tradeSchools, defaults = {}, units = baseUnits }: AdviceOptions, isLast: boolean): DeliveryAdvice {
  const first = firstAction(delivery.triage)
  const { question } = ensemble
  const scene = ensemble.scene
  const asked = (key: string): Ask[] => [...delivery.water.asks, ...(asksForSalt(question) ? ['salinity' as const] : []), ...(asksForProbe(delivery, ensemble, key, limits) ? ['temperature' as const] : [])]
  const said = (school: { key: string; variant: SchoolVariant | null }, words: VerdictWords): DeliveryAdvice => {
    const open = asked(school.key)
    const probe = `${open.includes('salinity') ? ` ${saltWords}` : ''}${open.includes('temperature') ? ` ${probeWords}` : ''}`
    return { asks: open, first, bathWater: first === 'bath' ? bathWaterOf(delivery) : null, schoolKey: school.key, variant: school.variant, refusals: refusalsOf(delivery, schools, units, limits), sentence: `${firstWords(delivery, units)}${words.sentence}${probe}`, why: words.why }
  }
  if (first === 'bath') {
    const fish = question.bag.fish * question.bags
    const after = questionAfterBath(question, fish, limits)
    const then = judgeAfterBath(after, limits, allowedSchools(delivery, schools), defaults)
    const school = then.schools.find(({ key }) => key === then.recommended)
    if (school) return said(school, verdictWords(then, after, scene.limits, null, units))
  }
  if (first === 'release now') {
    const quick = quickestSchool(verdict)
    if (quick) return said(quick, { sentence: `${quick.name} (${spanWords(quick.likely.minutes)}) takes least time${quick.worst < 1 ? ' of all that stay under the limits' : '; no school stays under the limits'}. Look again within the hour.`, why: '' })
  }
  const recommended = verdict.schools.find(({ key }) => key === verdict.recommended)
  if (!recommended) return withoutSchool(delivery, 'No school is on offer for these fish.', schools, units, limits)
  const remedy = isLast && verdict.equal.length === 0 ? bestRemedy(recommended, question, limits, schools, units) : null
  return said(recommended, verdictWords(verdict, question, scene.limits, remedy, units))
}
