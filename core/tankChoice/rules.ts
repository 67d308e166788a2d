import { companyBetween, conflictBetween, ownKindFinding, poisonsTank, waterCautions, withoutForbidden, type Finding } from './company'
import type { Animal, ChoiceInput, ChoiceLine, ChoiceTank, Occupant } from './tankChoice'

/** Weight of animals in grams; unknown weights count as nothing. */
export const weightOf = (animal: Animal, quantity: number): number => (animal.massG ?? 0) * quantity

/** Grams of animals that a tank still takes; infinite where its volume is not known. */
export function roomLeftG({ netVolumeL, occupants }: ChoiceTank, gPerL: number): number {
  if (netVolumeL === null) return Infinity
  return netVolumeL * gPerL - occupants.reduce((sum, { animal, quantity }) => sum + weightOf(animal, quantity), 0)
}

/** Names every hard rule that a line alone would break in a tank; empty when none. */
export function brokenRules(line: ChoiceLine, tank: ChoiceTank, limits: ChoiceInput['limits']): string[] {
  return [...waterRules(line.animal, tank), ...tankRules(line, tank, limits), ...companyRules(line, tank)]
}

/** By how much a figure lies outside a range, in words. */
const offBy = (value: number, low: number | null, high: number | null): string => ` by ${Number((low !== null && value < low ? low - value : value - (high ?? value)).toFixed(1))}`

function waterRules({ water, waters, species, tempCMin, tempCMax, salinityPptMin, salinityPptMax, sensitivities }: Animal, tank: ChoiceTank): string[] {
  const isSaltKnown = tank.salinityPpt !== null && salinityPptMin !== null && salinityPptMax !== null
  const isSaltOff = isSaltKnown && (Number(tank.salinityPpt) < salinityPptMin || Number(tank.salinityPpt) > salinityPptMax)
  const lives = waters && waters.length > 0 ? waters : water === null ? [] : [water]
  const isWaterOff = !isSaltKnown && lives.length > 0 && !lives.includes(tank.water)
  const isTempOff = tank.tempC !== null && ((tempCMin !== null && tank.tempC < tempCMin) || (tempCMax !== null && tank.tempC > tempCMax))
  const borne = tank.agents.filter((agent) => sensitivities.includes(agent))
  return [
    ...(isSaltOff ? [`${tank.salinityPpt} ppt, outside ${salinityPptMin} to ${salinityPptMax}${offBy(Number(tank.salinityPpt), salinityPptMin, salinityPptMax)}`] : []),
    ...(isWaterOff ? [`${tank.water} water, needs ${lives.join(' or ')}`] : []),
    ...(isTempOff ? [`${tank.tempC} °C, outside ${tempCMin ?? '…'} to ${tempCMax ?? '…'}${offBy(Number(tank.tempC), tempCMin, tempCMax)}`] : []),
    ...borne.map((agent) => `${agent} in the water, ${species} does not bear it`),
  ]
}

function tankRules({ animal, count }: ChoiceLine, tank: ChoiceTank, { stockGPerL }: ChoiceInput['limits']): string[] {
  const left = roomLeftG(tank, stockGPerL)
  const weight = weightOf(animal, count)
  return [
    ...(tank.state !== null && tank.state !== 'ready' ? [tank.state] : []),
    ...(tank.purpose === 'customer' ? ['a customer’s tank'] : []),
    ...(tank.netVolumeL !== null && animal.minTankL !== null && tank.netVolumeL < animal.minTankL ? [`${tank.netVolumeL} L, needs ${animal.minTankL} L`] : []),
    ...(weight > left ? [`${Math.round(weight)} g of fish, room for ${Math.max(0, Math.round(left))} g`] : []),
  ]
}

/** Fish that stand in a tank and those of a line are counted together where they are of one kind. */
export const together = ({ animal, count }: ChoiceLine, { occupants }: ChoiceTank): number => count + occupants.filter((each) => each.animal.species === animal.species).reduce((sum, { quantity }) => sum + quantity, 0)

function companyRules(line: ChoiceLine, tank: ChoiceTank): string[] {
  const { animal, supplier, count } = line
  const { occupants } = tank
  const conflicts = occupants.map((each) => conflictBetween(animal, each.animal)).filter((each) => each !== null)
  const own = ownKindFinding(animal, count)
  const strangers = occupants.filter((each): each is Occupant => each.heldDays !== null && each.supplier !== supplier)
  return [
    ...new Set(conflicts),
    ...(own?.level === 'forbidden' ? [own.why] : []),
    ...(poisonsTank(animal) && tank.waterId !== tank.id ? [`${animal.species} poisons the water it shares; a tank of its own water`] : []),
    ...new Set(strangers.map((each) => `${each.animal.species} of ${each.supplier} is held there`)),
  ]
}

/** Says everything that speaks against a line in a tank without forbidding it: warnings first, then notes. */
export function cautionsFor(line: ChoiceLine, tank: ChoiceTank): Finding[] {
  const own = ownKindFinding(line.animal, together(line, tank))
  const found = [...tank.occupants.flatMap((each) => companyBetween(line.animal, each.animal)), ...(own ? [own] : []), ...waterCautions(line.animal, tank)]
  return withoutForbidden(found)
}
