import { companyBetween, conflictBetween, ownKindFinding, poisonsTank, waterCautions, withoutForbidden, type BrokenRule, type Finding, type RuleCode, type Slots } from './company'
import type { Animal, ChoiceInput, ChoiceLine, ChoiceTank, Occupant } from './tankChoice'
import { sourcesStateWords } from '../contacts/sourceKnown'
import { markedUnits, showChange, showSet, type Quantity } from '../units/units'

/** Weight of animals in grams; unknown weights count as nothing. */
export const weightOf = (animal: Animal, quantity: number): number => (animal.massG ?? 0) * quantity

/** Grams of animals that a tank still takes; infinite where its volume is not known. */
export function roomLeftG({ netVolumeL, occupants }: ChoiceTank, gPerL: number): number {
  if (netVolumeL === null) return Infinity
  return netVolumeL * gPerL - occupants.reduce((sum, { animal, quantity }) => sum + weightOf(animal, quantity), 0)
}

const broken = (code: RuleCode, why: string, about: Slots): BrokenRule => ({ code, why, about })

/** Names every hard rule that fish alone would break in a tank; empty when none. The one check behind every way into a tank. */
export function brokenRules(line: ChoiceLine, tank: ChoiceTank, limits: ChoiceInput['limits']): BrokenRule[] {
  return [...waterRules(line.animal, tank), ...tankRules(line, tank, limits), ...companyRules(line, tank)]
}

/** Names every hard rule that fish break which go into a tank together: each alone, and with each other. */
export function rulesTogether(lines: readonly ChoiceLine[], tank: ChoiceTank, limits: ChoiceInput['limits']): BrokenRule[] {
  const pairs = lines.flatMap((line, index) => lines.slice(index + 1).flatMap((other) => conflictBetween(line.animal, other.animal) ?? []))
  const weight = lines.reduce((sum, { animal, count }) => sum + weightOf(animal, count), 0)
  const left = roomLeftG(tank, limits.stockGPerL)
  const own = lines.flatMap((line) => brokenRules(line, tank, limits))
  const isFull = weight > left + 1e-9 && !own.some(({ code }) => code === 'overload')
  return eachOnce([...own, ...pairs, ...(isFull ? [overload(weight, left)] : [])])
}

/** Each rule once, as it is first said. */
export const eachOnce = (rules: readonly BrokenRule[]): BrokenRule[] => [...new Map(rules.map((each) => [`${each.code} ${each.why}`, each])).values()]

/** Answers whether nobody knows which water an animal lives in: it has no tank until somebody says. */
export const isWaterUnsaid = ({ water, waters }: Pick<Animal, 'water' | 'waters'>): boolean => water === null && (waters ?? []).length === 0

/** Fish together weigh more than a tank still takes, grams. */
export const overload = (weight: number, left: number): BrokenRule => broken('overload', `${Math.round(weight)} g of fish, room for ${Math.max(0, Math.round(left))} g`, { grams: weight, room: Math.max(0, left) })

/** That a figure lies outside a range, and by how much. */
function outside(quantity: Quantity, value: number, low: number | null, high: number | null): string {
  const show = (each: number | null): string => (each === null ? '…' : showSet(quantity, each, markedUnits))
  const offBy = low !== null && value < low ? low - value : value - (high ?? value)
  return `${show(value)}, outside ${show(low)} to ${show(high)} by ${showChange(quantity, offBy, markedUnits)}`
}

/** Names what forbids the water of a tank to an animal. */
export function waterRules({ water, waters, species, tempCMin, tempCMax, salinityPptMin, salinityPptMax, sensitivities }: Animal, tank: ChoiceTank): BrokenRule[] {
  const isSaltKnown = tank.salinityPpt !== null && salinityPptMin !== null && salinityPptMax !== null
  const isSaltOff = isSaltKnown && (Number(tank.salinityPpt) < salinityPptMin || Number(tank.salinityPpt) > salinityPptMax)
  const lives = waters && waters.length > 0 ? waters : water === null ? [] : [water]
  const isWaterOff = !isSaltKnown && lives.length > 0 && !lives.includes(tank.water)
  const isTempOff = tank.tempC !== null && ((tempCMin !== null && tank.tempC < tempCMin) || (tempCMax !== null && tank.tempC > tempCMax))
  const borne = tank.agents.filter((agent) => sensitivities.includes(agent))
  return [
    ...(lives.length === 0 && !isSaltKnown ? [broken('water-unknown', `nobody has said which water ${species} lives in`, { species })] : []),
    ...(isSaltOff ? [broken('salinity', outside('salinity', Number(tank.salinityPpt), salinityPptMin, salinityPptMax), { species, have: tank.salinityPpt, min: salinityPptMin, max: salinityPptMax })] : []),
    ...(isWaterOff ? [broken('water-kind', `${tank.water} water, needs ${lives.join(' or ')}`, { species, have: tank.water, need: lives.join(' or ') })] : []),
    ...(isTempOff ? [broken('temperature', outside('temperature', Number(tank.tempC), tempCMin, tempCMax), { species, have: tank.tempC, min: tempCMin, max: tempCMax })] : []),
    ...borne.map((agent) => broken('agent', `${agent} in the water, ${species} does not bear it`, { species, agent })),
  ]
}

/** Names what forbids the tank itself to fish: its state, purpose, size, load and who counts on it. */
export function tankRules({ animal, count }: Pick<ChoiceLine, 'animal' | 'count'>, tank: ChoiceTank, { stockGPerL }: ChoiceInput['limits']): BrokenRule[] {
  const left = roomLeftG(tank, stockGPerL)
  const weight = weightOf(animal, count)
  return [
    ...(tank.state !== null && tank.state !== 'ready' ? [broken('not-clean', tank.state, { state: tank.state })] : []),
    ...(tank.purpose === 'customer' ? [broken('customer-tank', 'a customer’s tank', {})] : []),
    ...(tank.netVolumeL !== null && animal.minTankL !== null && tank.netVolumeL < animal.minTankL ? [broken('too-small', `${showSet('volume', tank.netVolumeL, markedUnits)}, needs ${showSet('volume', animal.minTankL, markedUnits)}`, { species: animal.species, litres: tank.netVolumeL, need: animal.minTankL })] : []),
    ...(weight > left ? [overload(weight, left)] : []),
    ...(tank.bookings ?? []).filter(({ takes, isReady }) => takes === 'whole' && isReady).map(({ plan }) => broken('plan-place-ready', `${plan} is ready to use this tank`, { plan })),
  ]
}

/** Fish that stand in a tank and those of a line are counted together where they are of one kind. */
export const together = ({ animal, count }: ChoiceLine, { occupants }: ChoiceTank): number => count + occupants.filter((each) => each.animal.species === animal.species).reduce((sum, { quantity }) => sum + quantity, 0)

function companyRules({ animal, supplier, count, fromWaterId }: ChoiceLine, tank: ChoiceTank): BrokenRule[] {
  const { occupants } = tank
  const conflicts = occupants.flatMap((each): BrokenRule[] => {
    const found = conflictBetween(animal, each.animal)
    return found ? [{ ...found, why: `${found.why}${bookedBy(each)}` }] : []
  })
  const own = ownKindFinding(animal, count)
  // Whoever shares the water already meets nothing new in it.
  const strangers = fromWaterId === tank.waterId ? [] : occupants.filter(({ heldDays, supplier: other }) => heldDays !== null && other !== supplier)
  const unmet = fromWaterId === tank.waterId ? [] : (tank.unmet ?? []).filter(({ source, other }) => source === supplier && !strangers.some((each) => each.supplier === other))
  return eachOnce([
    ...conflicts,
    ...(own?.level === 'forbidden' ? [broken(own.code, own.why, own.about ?? {})] : []),
    ...(poisonsTank(animal) && tank.waterId !== tank.id ? [broken('poisons', `${animal.species} poisons the water it shares; a tank of its own water`, { species: animal.species })] : []),
    ...strangers.map((each) => broken('held-there', `${each.animal.species} of ${each.supplier} is held there${bookedBy(each)}`, { species: each.animal.species, supplier: each.supplier })),
    ...unmet.map(({ source, other, state }) => broken('sources', `${source} and ${other} ${sourcesStateWords(state)}; no pairing passed`, { a: source, b: other, state })),
  ])
}

const bookedBy = ({ booked }: Occupant): string => (booked === undefined ? '' : ` (${booked})`)

/** Says everything that speaks against a line in a tank without forbidding it: warnings first, then notes. */
export function cautionsFor(line: ChoiceLine, tank: ChoiceTank): Finding[] {
  const own = ownKindFinding(line.animal, together(line, tank))
  const found = [...tank.occupants.flatMap((each) => companyBetween(line.animal, each.animal)), ...(own ? [own] : []), ...waterCautions(line.animal, tank)]
  return withoutForbidden(found)
}
