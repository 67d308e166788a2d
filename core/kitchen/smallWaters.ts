import { groupBy } from '../collections/groupBy'
import { byText } from '../contacts/contact'
import type { Measured, TankFacts } from '../facts/facts'
import type { Limits } from '../limits/houseLimits'
import type { Water } from '../room/room.schema'
import type { FilterState } from '../setup/words'
import { markedUnits, showSet } from '../units/units'
import type { ComposedFeed } from './composeFeed'
import { filterShares, foodLoad, type FoodLoad } from './foodLoad'
import type { KitchenView } from './kitchenView'
import { dryFoodG } from './thawList'

/** Where nobody read a water and nobody says what it is kept at. */
const usual: Readonly<Record<Water, { ph: number; salinityPpt: number }>> = { fresh: { ph: 7.5, salinityPpt: 0.3 }, brackish: { ph: 8, salinityPpt: 10 }, marine: { ph: 8.2, salinityPpt: 34 } }
const usualC = 25

const readOf = (readings: readonly Measured[], what: Measured['what']): number | undefined => readings.find((each) => each.what === what)?.value

/** Figures of a tank's water: what was read of late, else what it is kept at, else what is usual. */
export function figuresOf({ readings, water }: Pick<TankFacts, 'readings' | 'water'>): { tempC: number; ph: number; salinityPpt: number } {
  return { tempC: readOf(readings, 'tempC') ?? water.tempC ?? usualC, ph: readOf(readings, 'ph') ?? water.ph ?? usual[water.kind].ph, salinityPpt: readOf(readings, 'salinityPpt') ?? water.salinityPpt ?? usual[water.kind].salinityPpt }
}

/** A system as far as food goes. */
export interface FedSystem {
  id: string
  name: string
  sumpL: number | null
  filter: FilterState | null
}

/**
 * Waters that bear the food of a day badly, with what to change or how much less to feed.
 * @param tanks - all in use, the empty ones too: their water counts.
 */
export function smallWaters(tanks: readonly TankFacts[], { list, fed, rules }: ComposedFeed, systems: readonly FedSystem[], { waterChangeTold }: Pick<Limits, 'waterChangeTold'>): Pick<KitchenView, 'waters' | 'filterUnsaid' | 'volumeUnsaid'> {
  const skipped = new Set(list.skipped.map(({ lot }) => lot))
  const volumeUnsaid: string[] = []
  const [fedIn, rationsOf] = [groupBy(fed, ({ tank }) => tank.water.id), groupBy(list.rations, ({ lot }) => lot)]
  const found = [...groupBy(tanks, ({ water }) => water.id)].flatMap(([waterId, onWater]) => {
    const [first] = onWater
    const system = systems.find(({ id }) => id === first?.systemId)
    const here = fedIn.get(waterId) ?? []
    const volumeL = onWater.reduce((sum, { netVolumeL }) => sum + (netVolumeL ?? NaN), first?.water.isAlone ? 0 : (system?.sumpL ?? 0))
    if (!first || here.length === 0) return []
    const where = first.water.isAlone ? first.code : (system?.name ?? first.code)
    if (!(volumeL > 0)) return volumeUnsaid.push(where), []
    const asked = {
      ...figuresOf(onWater.find(({ readings }) => readings.length > 0) ?? first),
      volumeL,
      fish: here.map(({ lot }) => ({ quantity: lot.quantity, massG: lot.massG })),
      dryFoodG: here.reduce((sum, { lot }) => sum + (skipped.has(lot.lot) ? 0 : dryFoodG(lot, rules.kitchen)), 0),
      protein: proteinOf(here.flatMap(({ lot }) => rationsOf.get(lot.lot) ?? []), rules.foods),
    }
    const load = foodLoad({ ...asked, filterShare: filterShares[system?.filter ?? 'none'] }, rules.kitchen)
    const isTold = !load.isEnough || load.changeLPerDay / volumeL >= waterChangeTold
    return isTold ? [{ isSaid: system?.filter !== null && system?.filter !== undefined, where, system: system?.name ?? where, water: { waterId, where, words: loadWords(load, volumeL), isHarm: !load.isEnough } }] : []
  })
  return { waters: found.filter(({ isSaid }) => isSaid).map(({ water }) => water).sort((a, b) => Number(b.isHarm) - Number(a.isHarm) || byText(a.where, b.where)), filterUnsaid: [...new Set(found.filter(({ isSaid }) => !isSaid).map(({ system }) => system))].sort(byText), volumeUnsaid: volumeUnsaid.sort(byText) }
}

/** Protein of what is given, by dry weight; that of usual foods where nothing is. */
function proteinOf(rations: readonly { food: string; grams: number }[], foods: readonly { food: string; dryShare: number; protein: number }[]): number {
  const parts = rations.flatMap(({ food, grams }) => {
    const rule = foods.find((each) => each.food === food)
    return rule ? [{ dryG: grams * rule.dryShare, protein: rule.protein }] : []
  })
  const dryG = parts.reduce((sum, part) => sum + part.dryG, 0)
  return dryG === 0 ? 0.5 : parts.reduce((sum, part) => sum + part.dryG * part.protein, 0) / dryG
}

function loadWords({ changeLPerDay, foodShare, isEnough }: FoodLoad, volumeL: number): string {
  const change = `${showSet('volume', changeLPerDay < 10 ? Math.ceil(changeLPerDay * 2) / 2 : Math.ceil(changeLPerDay), markedUnits)} of ${showSet('volume', volumeL, markedUnits)}`
  if (!isEnough) return `even unfed, its fish give off more ammonia than half of its water a day takes away (${change}): a running filter, more water or fewer fish`
  return foodShare < 1 ? `change ${change} a day and give ${Math.floor(foodShare * 100)} % of this food` : `change ${change} a day with this food`
}
