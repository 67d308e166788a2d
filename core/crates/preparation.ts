import type { Limits } from '../limits/houseLimits'
import type { Water } from '../room/room.schema'
import { dangerOf, poisonsBag, isKeptUnderWater, type Handling } from '../species/handling'
import { hasInvertebrate } from '../bench/fishRules'
import { waterOf, waterOfBag } from '../bench/waterOfBag'
import { conflictBetween, eats, ownKindFinding } from '../tankChoice/company'
import type { Animal, ChoiceTank } from '../tankChoice/tankChoice'
import { nameKey } from '../words/nameKey'
import { litresToSwap, saltToAddG } from '../water/salt'
import { markedUnits, showSet } from '../units/units'

export const preparationKinds = ['tank', 'water', 'company', 'shelter', 'tools', 'food', 'question'] as const
export type PreparationKind = (typeof preparationKinds)[number]

/** One thing to do before a crate comes. */
export interface PreparationStep {
  /** Made from what the step is about, so that it stays done while the list around it changes. */
  key: string
  kind: PreparationKind
  what: string
  why: string
  /** Null when the crate has no time yet, or the step is due at once. */
  dueAtMs: number | null
}

/** A step, and who did it when. */
export interface StepView extends PreparationStep {
  done: { by: string; atMs: number } | null
}

export interface PreparedLine {
  id: string
  animal: Animal
  count: number
  tankId: string | null
  origin: string | null
  ateBefore: string | null
  /** What the species book says of it beyond what tanks are chosen by. */
  book: LineBook
}

/** What the species book says of a line's fish. */
export interface LineBook {
  firstFoods: string | null
  firstFoodKinds: readonly string[]
  shareSeenPercent: number | null
  bearsHunger: string | null
  needs: readonly string[]
  escapes: string | null
  law: readonly string[]
  handling: Handling
}

/** A food that is on hand, and the kinds of first food it is. */
export interface FoodOnHand {
  name: string
  servesAs: readonly string[]
}

/** A tank that a line goes to, and where it stands. */
export interface PreparedPlace {
  tankId: string
  code: string
  system: string
  water: Water
  tempC: number | null
  salinityPpt: number | null
  netVolumeL: number | null
  /** Whether its water is its own, so that it can be made to match the shipping water. */
  isAlone: boolean
  zone: string | null
  /** Names of the tool sets of its zone; null when it has none. */
  toolSets: string | null
}

export interface PreparationInput {
  supplier: string
  expectedAtMs: number | null
  packedAtMs: number | null
  shipping: { tempC: number | null; salinityPpt: number | null; ph: number | null; /** Kind of water the supplier usually ships in. */ usualWater?: Water | null }
  lines: readonly PreparedLine[]
  places: readonly PreparedPlace[]
  tanks: readonly ChoiceTank[]
  foods: readonly FoodOnHand[]
  limits: Pick<Limits, 'mixAheadHours' | 'tankReadyHours' | 'bathLitresPer10Fish' | 'shareInBathPercent' | 'usualPackedC'>
}

const hourMs = 3_600_000

/** Writes what has to be ready before a crate comes, in the order in which it is due. */
export function planPreparation(input: PreparationInput): PreparationStep[] {
  const before = (hours: number): number | null => (input.expectedAtMs === null ? null : input.expectedAtMs - hours * hourMs)
  const [mixBy, readyBy] = [before(input.limits.mixAheadHours), before(input.limits.tankReadyHours)]
  const steps = [
    ...homelessSteps(input, readyBy),
    ...mixSteps(input, mixBy),
    ...tankSteps(input, readyBy),
    ...companySteps(input, readyBy),
    ...shelterSteps(input, readyBy),
    ...toolSteps(input, readyBy),
    ...handlingSteps(input, readyBy),
    ...foodSteps(input, readyBy),
    ...questionSteps(input),
  ]
  // Two lots of one kind in a tank ask for the same thing once.
  const unique = [...new Map(steps.map((step) => [step.key, step])).values()]
  const order = (step: PreparationStep): number => (step.kind === 'question' ? 0 : (step.dueAtMs ?? Infinity))
  return unique.map((step, index) => ({ step, index })).sort((a, b) => order(a.step) - order(b.step) || a.index - b.index).map(({ step }) => step)
}

interface Target {
  place: PreparedPlace
  lines: PreparedLine[]
}

function targets({ lines, places }: PreparationInput): Target[] {
  return places.map((place) => ({ place, lines: lines.filter(({ tankId }) => tankId === place.tankId) })).filter((target) => target.lines.length > 0)
}

const nameAll = (lines: readonly PreparedLine[]): string => [...new Set(lines.map(({ animal }) => animal.species))].join(', ')

const homelessSteps = ({ lines }: PreparationInput, dueAtMs: number | null): PreparationStep[] => {
  const homeless = lines.filter(({ tankId }) => tankId === null)
  return homeless.length === 0 ? [] : [{ key: 'tanks-chosen', kind: 'tank', what: `Choose tanks for ${homeless.length} ${homeless.length === 1 ? 'line' : 'lines'}`, why: nameAll(homeless), dueAtMs }]
}

/** Salinity at which a tank should stand when the fish come: the shipping water where that can be, else its own. */
function readySalinity({ shipping, tanks }: PreparationInput, { place, lines }: Target): number | null {
  if (place.water === 'fresh') return null
  const isStocked = (tanks.find(({ id }) => id === place.tankId)?.occupants.length ?? 0) > 0
  if (shipping.salinityPpt === null || !place.isAlone || isStocked) return place.salinityPpt
  const isBorne = lines.every(({ animal }) => (animal.salinityPptMin ?? 0) - 4 <= Number(shipping.salinityPpt) && Number(shipping.salinityPpt) <= (animal.salinityPptMax ?? 45))
  return isBorne ? shipping.salinityPpt : place.salinityPpt
}

function tankSteps(input: PreparationInput, dueAtMs: number | null): PreparationStep[] {
  return targets(input).map((target): PreparationStep => {
    const { place, lines } = target
    const salinity = readySalinity(input, target)
    const isMatched = salinity !== null && place.isAlone && salinity === input.shipping.salinityPpt && salinity !== place.salinityPpt
    const aims = [place.tempC !== null ? degrees(place.tempC) : '', salinity !== null ? ppt(salinity) : ''].filter(Boolean).join(', ')
    const why = isMatched ? `matches the shipping water; back to ${place.salinityPpt === null ? 'house salinity' : ppt(place.salinityPpt)} over the following days` : `for ${nameAll(lines)}`
    return { key: `tank-${place.tankId}-ready`, kind: 'tank', what: `${place.code} ready${aims ? ` at ${aims}` : ''}, clean and covered`, why, dueAtMs }
  })
}

/** Water that the bags of a line hold, as far as it is known before they are read. */
function bagWaterOf({ animal, tankId }: PreparedLine, { shipping, places }: PreparationInput): Water | null {
  const lives = animal.waters && animal.waters.length > 0 ? (animal.waters as Water[]) : animal.water ? [animal.water] : []
  const target = places.find((place) => place.tankId === tankId)?.salinityPpt ?? NaN
  const { waterClass } = waterOfBag({ standing: null, usual: shipping.usualWater ?? null, waters: lives, phMax: animal.phMax ?? null }, { toldPpt: shipping.salinityPpt ?? undefined, targetPpt: target }, animal.species, String)
  return waterClass === 'unknown' ? null : waterOf(waterClass)
}
/** Words a figure where it is read, in the units people see there. */
type InUnits = (base: number) => string
const [degrees, ppt, volume] = (['temperature', 'salinity', 'volume'] as const).map((quantity) => (base: number): string => showSet(quantity, base, markedUnits)) as [InUnits, InUnits, InUnits]

/** Salt water for baths and for tanks that are brought to the shipping water. */
function mixSteps(input: PreparationInput, dueAtMs: number | null): PreparationStep[] {
  const { limits, lines } = input
  // What is no fish is not bathed; where nobody knows the water of the bags, it is asked for instead.
  const bathed = lines.filter(({ animal }) => !hasInvertebrate([animal]))
  const bathL = (water: Water): number => {
    const fish = bathed.filter((line) => bagWaterOf(line, input) === water).reduce((sum, { count }) => sum + count, 0)
    return fish === 0 ? 0 : Math.max(limits.bathLitresPer10Fish, Math.ceil(((fish * limits.shareInBathPercent) / 100 / 10) * limits.bathLitresPer10Fish))
  }
  const baths = (['fresh', 'brackish', 'marine'] as const).flatMap((water): PreparationStep[] => {
    const litres = bathL(water)
    if (litres === 0) return []
    const { tempC, salinityPpt } = input.shipping
    // Like the bag's, never like the tank's: where it was not told, it is made when the bags are read.
    const salt = water === 'fresh' ? '' : salinityPpt === null ? ', to what the bags read' : ` at ${ppt(salinityPpt)}, ${Math.round(saltToAddG(litres, 0, salinityPpt, tempC ?? limits.usualPackedC))} g of salt mix`
    const name = water === 'fresh' ? 'Fresh water' : 'Salt water'
    return [{ key: `bath-${water}`, kind: 'water', what: `${name} for first-response baths: ${volume(litres)}${salt}`, why: `for ${limits.shareInBathPercent} % of the fish; aerated, ${tempC === null ? 'as warm as the bags' : `at ${degrees(tempC)}`}`, dueAtMs }]
  })
  return [...baths, ...targets(input).flatMap((target) => matchStep(input, target, dueAtMs))]
}

function matchStep(input: PreparationInput, target: Target, dueAtMs: number | null): PreparationStep[] {
  const { tankId, code, netVolumeL, salinityPpt, tempC } = target.place
  const aim = readySalinity(input, target)
  if (netVolumeL === null || salinityPpt === null || aim === null || Math.abs(aim - salinityPpt) < 0.5) return []
  const swap = litresToSwap(netVolumeL, salinityPpt, aim)
  const what = aim < salinityPpt ? `${code}: take out ${volume(swap)} and replace it by fresh water` : `${code}: add ${Math.round(saltToAddG(netVolumeL, salinityPpt, aim, tempC ?? 25))} g of salt mix`
  return [{ key: `match-${tankId}`, kind: 'water', what, why: `from ${ppt(salinityPpt)} to ${ppt(aim)}, the shipping water`, dueAtMs }]
}


/** Who has to leave first: whoever eats the new ones, is eaten by them, or fights them. */
function companySteps(input: PreparationInput, dueAtMs: number | null): PreparationStep[] {
  return targets(input).flatMap(({ place, lines }) => {
    const occupants = input.tanks.find(({ id }) => id === place.tankId)?.occupants ?? []
    return occupants.flatMap((occupant): PreparationStep[] => {
      const because = lines.map(({ animal }) => conflictBetween(animal, occupant.animal)).find((each) => each !== null)?.why
      if (!because) return fastFeeders(place, lines, occupant.animal, dueAtMs)
      return [{ key: `out-${place.tankId}-${occupant.animal.species}`, kind: 'company', what: `Move ${occupant.quantity} ${occupant.animal.species} out of ${place.code}`, why: because, dueAtMs }]
    })
  })
}

/** Residents that are on every meal at once starve newcomers that are hardly seen. */
function fastFeeders(place: PreparedPlace, lines: readonly PreparedLine[], resident: Animal, dueAtMs: number | null): PreparationStep[] {
  // A group is quick or shy as one: nobody is fed apart from its own kind.
  const shy = lines.filter(({ book, animal }) => animal.species !== resident.species && (animal.company ? animal.company === 'quiet' : (book.shareSeenPercent ?? 100) < 50) && !eats(resident, animal))
  const isQuick = resident.company ? resident.company === 'bold' || resident.company === 'bully' : resident.temperament === 'peaceful in groups'
  if (shy.length === 0 || !isQuick) return []
  return [{ key: `feed-${place.tankId}-${resident.species}`, kind: 'company', what: `${place.code}: plan to feed ${nameAll(shy)} apart from ${resident.species}`, why: 'shy newcomers go short beside quick feeders', dueAtMs }]
}

function shelterSteps(input: PreparationInput, dueAtMs: number | null): PreparationStep[] {
  return targets(input).flatMap(({ place, lines }) => {
    const fighters = sumBySpecies(lines).filter(({ animal, count }) => ownKindFinding(animal, count)?.level === 'forbidden')
    const shy = lines.filter(({ book }) => (book.shareSeenPercent ?? 100) <= 60)
    const needed = [...new Set(lines.flatMap(({ book }) => [...book.needs.filter((need) => made.includes(need)), ...guardsOf(book)]))]
    return [
      ...fighters.map(({ animal: { species, ownKind }, count }): PreparationStep => ({ key: `divide-${place.tankId}-${species}`, kind: 'shelter', what: `${place.code}: ${count - 1} ${count === 2 ? 'divider' : 'dividers'} or boxes for ${count} ${species}`, why: ownKind === 'pair' ? 'fights all but its partner' : 'fights its own kind', dueAtMs })),
      ...(needed.length > 0 ? [{ key: `needs-${place.tankId}`, kind: 'shelter' as const, what: `${place.code}: ${needed.join(', ')}`, why: nameAll(lines.filter(({ book }) => [...book.needs, ...guardsOf(book)].some((need) => needed.includes(need)))), dueAtMs }] : []),
      ...(shy.length > 0 ? [{ key: `hides-${place.tankId}`, kind: 'shelter' as const, what: `${place.code}: hides for ${shy.reduce((sum, { count }) => sum + count, 0)} fish`, why: `${nameAll(shy)} ${shy.length === 1 ? 'hides' : 'hide'}`, dueAtMs }] : []),
    ]
  })
}

/** What can be put into a tank before fish come; a tank that has matured cannot be made. */
const made = ['land', 'sand', 'caves', 'wood', 'shells', 'strong flow', 'hitching post', 'dim light', 'strong light']

/** What keeps fish in that jump, climb or find every gap. */
const guardsOf = ({ escapes }: LineBook): string[] => (escapes === 'jumps' ? ['tight lid'] : escapes === 'climbs out' || escapes === 'gaps' ? ['lid without gaps', 'drain guarded'] : [])

function sumBySpecies(lines: readonly PreparedLine[]): { animal: Animal; count: number }[] {
  const counts = new Map<string, { animal: Animal; count: number }>()
  for (const { animal, count } of lines) counts.set(animal.species, { animal, count: (counts.get(animal.species)?.count ?? 0) + count })
  return [...counts.values()]
}

/** What people and water need beside nets and buckets: tubs for what stings, a water of its own for what poisons its bag. */
function handlingSteps({ lines }: PreparationInput, dueAtMs: number | null): PreparationStep[] {
  const [stinging, poisoning, wet] = [lines.filter(({ book }) => dangerOf(book.handling) !== null), lines.filter(({ book }) => poisonsBag(book.handling)), lines.filter(({ book }) => isKeptUnderWater(book.handling))]
  const step = (key: string, kind: PreparationKind, what: string, found: readonly PreparedLine[]): PreparationStep[] => (found.length === 0 ? [] : [{ key, kind, what, why: nameAll(found), dueAtMs }])
  return [
    ...step('people-tub', 'tools', 'A tub for under water and two people: no net, no bare hand, first aid known', stinging),
    ...step('water-own', 'water', 'A vessel and fresh water of its own for each of these: none of their bag water goes in', poisoning),
    ...step('tools-cup', 'tools', 'Cups and bags to lead them under water: they never come into air', wet),
  ]
}

/** One set of tools for each zone, and a word where a zone has none. */
function toolSteps(input: PreparationInput, dueAtMs: number | null): PreparationStep[] {
  const zones = new Map<string, { toolSets: string | null; codes: string[] }>()
  for (const { place } of targets(input)) {
    const zone = place.zone ?? ''
    zones.set(zone, { toolSets: place.toolSets, codes: [...(zones.get(zone)?.codes ?? []), place.code] })
  }
  return [...zones].map(([zone, { toolSets, codes }]): PreparationStep => {
    const tools = 'nets, buckets, airline, air stone, thermometer'
    const what = toolSets ? `Lay out ${toolSets}` : `Mark one tool set${zone ? ` for ${zone}` : ''}: ${tools}`
    return { key: `tools-${zone || 'none'}`, kind: 'tools', what, why: `${zone ? `${zone}: ` : ''}${codes.join(', ')}; look the nets over for holes`, dueAtMs }
  })
}

/** What newcomers are offered first: what they ate before, else what is on hand of the kinds they take, else a food to get. */
function foodSteps({ lines, foods }: PreparationInput, dueAtMs: number | null): PreparationStep[] {
  const byWhat = new Map<string, Set<string>>()
  for (const { animal, ateBefore, book } of lines) {
    const what = foodFor(ateBefore, book, foods)
    if (what) byWhat.set(what, (byWhat.get(what) ?? new Set()).add(animal.species))
  }
  const hungry = lines.filter(({ book }) => book.bearsHunger === 'a day or two')
  return [
    ...[...byWhat].map(([what, species]): PreparationStep => ({ key: `food-${what.slice(0, 60)}`, kind: 'food', what, why: [...species].join(', '), dueAtMs })),
    ...(hungry.length > 0 ? [{ key: 'food-first-hour', kind: 'food' as const, what: 'Small live food from the first hour, and several times a day', why: `${nameAll(hungry)}: a day or two without food is too long`, dueAtMs }] : []),
  ]
}

const mostFoods = 3

function foodFor(ateBefore: string | null, { firstFoodKinds, firstFoods }: LineBook, foods: readonly FoodOnHand[]): string | null {
  if (ateBefore) return `Have ready: ${ateBefore}`
  if (firstFoodKinds.length === 0) return firstFoods && `Have ready: ${firstFoods}`
  const onHand = foods.filter(({ name, servesAs }) => servesAs.some((kind) => firstFoodKinds.includes(kind)) || firstFoodKinds.some((kind) => nameKey(kind) === nameKey(name)))
  return onHand.length > 0 ? `Have ready: ${onHand.slice(0, mostFoods).map(({ name }) => name).join(', ')}` : `Get one of: ${firstFoodKinds.slice(0, mostFoods).join(', ')}`
}

/** What the supplier has not said yet; each answer takes its question off the list. */
function questionSteps(input: PreparationInput): PreparationStep[] {
  const { supplier, expectedAtMs, packedAtMs, shipping, lines } = input
  const unknownWater = lines.filter((line) => bagWaterOf(line, input) === null)
  const isSalt = lines.some(({ animal }) => animal.water !== null && animal.water !== 'fresh')
  const without = (said: (line: PreparedLine) => string | null): PreparedLine[] => lines.filter((line) => said(line) === null)
  const bound = lines.filter(({ book }) => book.law.length > 0)
  const [unknownOrigin, unknownFood] = [without(({ origin }) => origin), without(({ ateBefore }) => ateBefore)]
  const ask = (key: string, what: string, why: string): PreparationStep => ({ key: `ask-${key}`, kind: 'question', what: `Ask ${supplier}: ${what}`, why, dueAtMs: null })
  return [
    ...(expectedAtMs === null ? [ask('expected', 'when will it be here?', 'nothing on this list has a time yet')] : []),
    ...(packedAtMs === null ? [ask('packed', 'when was it packed?', 'hours in the bag decide what comes first')] : []),
    ...(shipping.tempC === null ? [ask('temperature', 'at which temperature do you ship?', 'bath water and tanks are set by it')] : []),
    ...(isSalt && shipping.salinityPpt === null ? [ask('salinity', 'at which salinity do you ship, read with what?', 'a tank prepared to it saves most of the acclimation')] : []),
    ...(unknownWater.length > 0 ? [ask('water', 'in which water are they, fresh, brackish or sea?', `${nameAll(unknownWater)}: it is sold from more than one, or what was told is not its water`)] : []),
    ...(shipping.ph === null ? [ask('ph', 'at which pH do you ship?', 'decides how far the water moves when the bag is opened')] : []),
    ...(unknownOrigin.length > 0 ? [ask('origin', 'wild, captive bred or pond raised?', nameAll(unknownOrigin))] : []),
    ...(bound.length > 0 ? [ask('papers', 'are the papers with the crate?', `${bound.map(({ animal, book }) => `${animal.species}: ${book.law.join(', ')}`).join('; ')}; a reminder as of 2025, local law decides`)] : []),
    ...(unknownFood.length > 0 ? [ask('food', 'what do they eat?', nameAll(unknownFood))] : []),
  ]
}
