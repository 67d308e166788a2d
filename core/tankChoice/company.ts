import type { Animal, ChoiceTank } from './tankChoice'

/** Hard rules by the word that programs read; the same in every answer, whichever way fish come into a tank. */
export const ruleCodes = ['water-unknown', 'salinity', 'water-kind', 'temperature', 'agent', 'not-clean', 'customer-tank', 'too-small', 'overload', 'eats', 'hunts', 'own-kind', 'no-common', 'poisons', 'held-there', 'plan-place-ready', 'plan-water', 'agent-carried', 'vessel-load', 'sick-to-well', 'hold-open', 'sources', 'pairing-open', 'course-open', 'promised', 'plan-fish-out'] as const
export type RuleCode = (typeof ruleCodes)[number]

/** What a rule is about, by the name of the slot in its sentence. */
export type Slots = Readonly<Record<string, string | number | null>>

/** A hard rule that fish would break in a tank. */
export interface BrokenRule {
  code: RuleCode
  why: string
  about?: Slots
}

/** What speaks against company or a tank without forbidding it, by the word that programs read. */
export const cautionCodes = ['nibbles', 'grazes', 'bully', 'own-number', 'agent-care', 'kept-otherwise'] as const
export type CautionCode = (typeof cautionCodes)[number]
export interface Caution {
  code: CautionCode
  why: string
  about: Slots
}

/** What two kinds, or a kind and its tank, have against each other: *forbidden* only a lead overrules, *warning* is said, *note* is mentioned. */
export type Finding = ({ level: 'forbidden' } & BrokenRule) | ({ level: 'warning' | 'note' } & Caution)

/** A fish of half its adult length swallows half as much. */
export function swallowsNowCm({ swallowsCm, sizeCm, adultCm }: Animal): number {
  if (swallowsCm === null) return 0
  return sizeCm !== null && adultCm !== null && adultCm > 0 ? swallowsCm * Math.min(1, sizeCm / adultCm) : swallowsCm
}

/** How long an animal is for whoever would eat it, cm; a resident whose size nobody knows may still be small. */
const preyCm = ({ asPreyCm, sizeCm }: Animal): number | null => asPreyCm ?? sizeCm

/** Answers whether one animal swallows the other whole, by its mouth and the other's size; unknown sizes eat nobody. */
export function eats(hunter: Animal, prey: Animal): boolean {
  const size = preyCm(prey)
  return hunter.species !== prey.species && size !== null && swallowsNowCm(hunter) >= size
}

const forbidden = (code: RuleCode, why: string, about: Slots): Finding => ({ level: 'forbidden', code, why, about })
const warning = (code: CautionCode, why: string, about: Slots): Finding => ({ level: 'warning', code, why, about })
const note = (code: CautionCode, why: string, about: Slots): Finding => ({ level: 'note', code, why, about })

/** Shrimp and crabs up to this share of a hunter's adult length are torn apart. */
const tornShare = 1 / 3
/** Fish up to so many times the mouth are hunted all the same. */
const huntedTimes = 1.5

/** Says what one animal does to the other beyond swallowing it: what it hunts, bites or grazes (species book, *eats*). */
function harmTo(hunter: Animal, prey: Animal): Finding | null {
  const takes = (word: string): boolean => hunter.eats?.includes(word) === true
  const [size, mouth] = [preyCm(prey), swallowsNowCm(hunter)]
  const isEaten = (code: 'eats' | 'hunts'): Finding => forbidden(code, `${hunter.species} eats ${prey.species}`, { eater: hunter.species, eaten: prey.species })
  const nibbles = (why: string): Finding => warning('nibbles', why, { species: hunter.species, prey: prey.species })
  const grazes = (what: string, why: string): Finding => note('grazes', why, { species: hunter.species, what })
  const mayBe = nibbles(`${hunter.species} may eat ${prey.species}`)
  const torn = (): Finding => (size !== null && hunter.adultCm !== null && size <= hunter.adultCm * tornShare ? isEaten('hunts') : mayBe)
  if (hunter.species === prey.species) return null
  if (eats(hunter, prey)) return isEaten('eats')
  switch (prey.animal) {
    case 'snail':
      return takes('snails') ? isEaten('hunts') : takes('small snails') ? grazes('small snails', `${hunter.species} eats small snails`) : null
    case 'starfish, urchin or cucumber':
      return takes('starfish and urchins') ? isEaten('hunts') : null
    case 'shrimp':
      return takes('shrimp') ? torn() : null
    case 'crab':
    case 'crayfish':
      return takes('crabs') ? torn() : null
    case 'clam':
      return takes('clams') ? mayBe : null
    case 'anemone or coral':
      return takes('anemones') || takes('corals') ? nibbles(`${hunter.species} bites ${prey.species}`) : null
    case 'other invertebrate':
      return takes('worms') ? mayBe : null
    default:
      if (takes('small fish') && size !== null && size <= huntedTimes * mouth) return mayBe
      if (takes('fins') && prey.fins === 'long') return nibbles(`${hunter.species} bites the long fins of ${prey.species}`)
      return takes('fry') && prey.breeds === 'live-bearer' ? grazes('fry', `${hunter.species} eats the young of ${prey.species}`) : null
  }
}

/** What stays where it is competes for nothing. */
const sessile = ['clam', 'anemone or coral']

/** *Quiet* goes short at food beside *bold* and is hurt by *bully*. */
function temperBetween(a: Animal, b: Animal): Finding | null {
  const quiet = a.company === 'quiet' ? a : b.company === 'quiet' ? b : null
  const other = quiet === a ? b : a
  if (!quiet || sessile.includes(quiet.animal ?? '')) return null
  const bully = (why: string): Finding => warning('bully', why, { strong: other.species, quiet: quiet.species })
  if (other.company === 'bully') return bully(`${other.species} is a bully beside quiet ${quiet.species}`)
  return other.company === 'bold' ? bully(`${quiet.species} goes short at food beside ${other.species}; feed apart`) : null
}

const isApart = (aMin: number | null, aMax: number | null, bMin: number | null, bMax: number | null): boolean =>
  (aMin !== null && bMax !== null && aMin > bMax) || (bMin !== null && aMax !== null && bMin > aMax)

/** Answers whether a kind bears none of its own beside it that came another way. A pair that fights all others is put together as a pair, never by adding a stranger. */
function fightsItsOwn({ ownKind, temperament }: Animal): boolean {
  if (ownKind === 'one only') return true
  return temperament === 'fights its own kind' && (ownKind === null || ownKind === undefined || ownKind === 'pair')
}

/** Answers whether a kind poisons the water it is in when frightened: it never shares one. */
export const poisonsTank = ({ poisons }: Animal): boolean => poisons === 'the tank'

/**
 * Says everything that two kinds in one tank have against each other, either way round, the gravest first.
 * What else quarrels is a matter of room and cover, and no rule.
 */
export function companyBetween(a: Animal, b: Animal): Finding[] {
  if (a.species === b.species) return fightsItsOwn(a) ? [forbidden('own-kind', `${a.species} fights its own kind`, { species: a.species })] : []
  const poisoner = poisonsTank(a) ? a : poisonsTank(b) ? b : null
  const found: (Finding | null)[] = [
    harmTo(a, b),
    harmTo(b, a),
    isApart(a.tempCMin, a.tempCMax, b.tempCMin, b.tempCMax) ? forbidden('no-common', `${a.species} and ${b.species} bear no common temperature`, { what: 'temperature', a: a.species, b: b.species }) : null,
    isApart(a.salinityPptMin, a.salinityPptMax, b.salinityPptMin, b.salinityPptMax) ? forbidden('no-common', `${a.species} and ${b.species} bear no common salinity`, { what: 'salinity', a: a.species, b: b.species }) : null,
    poisoner ? forbidden('poisons', `${poisoner.species} poisons the water it shares when frightened`, { species: poisoner.species }) : null,
    temperBetween(a, b),
  ]
  return gravestFirst(found.filter((each) => each !== null))
}

const levels: readonly Finding['level'][] = ['forbidden', 'warning', 'note']
const gravestFirst = (found: readonly Finding[]): Finding[] => [...found].sort((one, other) => levels.indexOf(one.level) - levels.indexOf(other.level))

/** What is said of a tank that may be taken: each finding once, warnings before notes. */
export const withoutForbidden = (found: readonly Finding[]): Finding[] => gravestFirst([...new Map(found.filter(({ level }) => level !== 'forbidden').map((each) => [each.why, each])).values()])

export const isForbidden = (found: Finding): found is Extract<Finding, { level: 'forbidden' }> => found.level === 'forbidden'

/** Names the rule by which two kinds must not stand in one tank; null when they may. */
export function conflictBetween(a: Animal, b: Animal): BrokenRule | null {
  const found = companyBetween(a, b).find(isForbidden)
  if (!found) return null
  const { level: _, ...rule } = found
  return rule
}

/** Says what so many of one kind have against each other in one tank, by the book's *own kind*. */
export function ownKindFinding({ species, ownKind, temperament }: Animal, count: number): Finding | null {
  if (count < 2) return null
  switch (ownKind) {
    case 'one only':
      return forbidden('own-kind', `${count} ${species}: one only, or dividers`, { species })
    case 'pair':
      if (temperament === 'fights its own kind') return forbidden('own-kind', `${count} ${species}: one, or a pair that is known to be one; else dividers`, { species })
      return count > 2 ? warning('own-number', `${count} ${species}: lives in pairs, others are driven off`, { species }) : null
    case 'one male':
    case 'males fight':
      return note('own-number', `${count} ${species}: ${ownKind}`, { species })
    default:
      return null
  }
}

/** Says what speaks against an animal in the water of a tank without forbidding it: agents borne with care only, pH and hardness it is not kept in. */
export function waterCautions({ species, withCare, phMin, phMax, hardness }: Animal, { agents, ph, alkalinityMeqL }: ChoiceTank): Finding[] {
  const otherwise = (why: string): Finding => note('kept-otherwise', why, { species })
  const isPhOff = ph !== null && ph !== undefined && ((typeof phMin === 'number' && ph < phMin) || (typeof phMax === 'number' && ph > phMax))
  const isHard = typeof alkalinityMeqL === 'number' && alkalinityMeqL >= hardFromMeqL
  const isSoft = typeof alkalinityMeqL === 'number' && alkalinityMeqL < softBelowMeqL
  return [
    ...agents.filter((agent) => withCare?.includes(agent)).map((agent) => warning('agent-care', `${agent} in the water, ${species} bears it with care only`, { species, agent })),
    ...(isPhOff ? [otherwise(`pH ${ph}, kept at ${phMin ?? '…'} to ${phMax ?? '…'}`)] : []),
    ...(hardness === 'soft' && isHard ? [otherwise('hard water, kept in soft')] : hardness === 'hard' && isSoft ? [otherwise('soft water, kept in hard')] : []),
  ]
}

/** Alkalinity from which water is hard, and below which it is soft, meq/L; house guidance. */
const [hardFromMeqL, softBelowMeqL] = [4, 1]
