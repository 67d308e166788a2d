import type { Animal, ChoiceInput, ChoiceLine, ChoiceTank, Occupant } from './tankChoice'

/** A fish of half its adult length swallows half as much. */
function swallowsNowCm({ swallowsCm, sizeCm, adultCm }: Animal): number {
  if (swallowsCm === null) return 0
  return sizeCm !== null && adultCm !== null && adultCm > 0 ? swallowsCm * Math.min(1, sizeCm / adultCm) : swallowsCm
}

/** Answers whether one animal can eat the other, by its mouth and the other's size; unknown sizes eat nobody. */
export const eats = (hunter: Animal, prey: Animal): boolean => hunter.species !== prey.species && prey.sizeCm !== null && swallowsNowCm(hunter) >= prey.sizeCm

/**
 * Says why two kinds must not stand in one tank; null when they may.
 * Kinds that fight their own are forbidden together; what else quarrels is a matter of room and cover, and no hard rule.
 */
export function conflictBetween(a: Animal, b: Animal): string | null {
  if (eats(a, b)) return `${a.species} eats ${b.species}`
  if (eats(b, a)) return `${b.species} eats ${a.species}`
  if (a.species === b.species) return a.temperament === 'fights its own kind' ? `${a.species} fights its own kind` : null
  if (isApart(a.tempCMin, a.tempCMax, b.tempCMin, b.tempCMax)) return `${a.species} and ${b.species} bear no common temperature`
  if (isApart(a.salinityPptMin, a.salinityPptMax, b.salinityPptMin, b.salinityPptMax)) return `${a.species} and ${b.species} bear no common salinity`
  return null
}

const isApart = (aMin: number | null, aMax: number | null, bMin: number | null, bMax: number | null): boolean =>
  (aMin !== null && bMax !== null && aMin > bMax) || (bMin !== null && aMax !== null && bMin > aMax)

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

function waterRules({ water, species, tempCMin, tempCMax, salinityPptMin, salinityPptMax, sensitivities }: Animal, tank: ChoiceTank): string[] {
  const isSaltKnown = tank.salinityPpt !== null && salinityPptMin !== null && salinityPptMax !== null
  const isSaltOff = isSaltKnown && (Number(tank.salinityPpt) < salinityPptMin || Number(tank.salinityPpt) > salinityPptMax)
  const isWaterOff = !isSaltKnown && water !== null && water !== tank.water
  const isTempOff = tank.tempC !== null && ((tempCMin !== null && tank.tempC < tempCMin) || (tempCMax !== null && tank.tempC > tempCMax))
  const borne = tank.agents.filter((agent) => sensitivities.includes(agent))
  return [
    ...(isSaltOff ? [`${tank.salinityPpt} ppt, outside ${salinityPptMin} to ${salinityPptMax}`] : []),
    ...(isWaterOff ? [`${tank.water} water, needs ${water}`] : []),
    ...(isTempOff ? [`${tank.tempC} °C, outside ${tempCMin ?? '…'} to ${tempCMax ?? '…'}`] : []),
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

function companyRules({ animal, supplier }: ChoiceLine, { occupants }: ChoiceTank): string[] {
  const conflicts = occupants.map((each) => conflictBetween(animal, each.animal)).filter((each) => each !== null)
  const strangers = occupants.filter((each): each is Occupant => each.heldDays !== null && each.supplier !== supplier)
  return [
    ...new Set(conflicts),
    ...new Set(strangers.map((each) => `${each.animal.species} of ${each.supplier} is held there`)),
  ]
}
