import type { Limits } from '../limits/houseLimits'
import type { Water } from '../room/room.schema'
import type { Tolerance } from '../setup/words'
import type { BagWords, FigureSource } from './bagFigures'
import type { KnownFigure } from './benchView'

/** Water of the room's kinds while nobody entered what it is kept at. */
const usualTank: Record<Water, { tempC: number; salinityPpt: number; alkalinityMeqL: number; ph: number }> = {
  fresh: { tempC: 25, salinityPpt: 0.3, alkalinityMeqL: 3, ph: 7.6 },
  brackish: { tempC: 26, salinityPpt: 10, alkalinityMeqL: 2.5, ph: 7.9 },
  marine: { tempC: 25.5, salinityPpt: 34, alkalinityMeqL: 2.7, ph: 8.2 },
}
const usualTransitHours = 24
/** Weight of a fish of which the book says nothing, g. */
export const usualMassG = 3
const leastBagL = 0.2
/** Alkalinity below which fresh water counts as soft, meq/L. */
const softBelowMeqL = 1.2

export interface KnownBag {
  fish: number
  skinTempC: number | null
  waterTempC: number | null
  salinityPpt: number | null
  ph: number | null
  ammoniaMgL: number | null
  hasBinder: boolean
}
export interface KnownTank {
  water: Water
  tempC: number | null
  salinityPpt: number | null
  ph: number | null
  alkalinityMeqL: number | null
}
/** What the books say; null where they say nothing. */
export interface KnownFacts {
  species: { water: string | null; massG: number | null; phMax: number | null; tolerance: Tolerance | null }
  bags: readonly KnownBag[]
  hoursInBag: number | null
  usualHours: number | null
  shipping: { tempC: number | null; salinityPpt: number | null; ph: number | null; alkalinityMeqL: number | null; from: FigureSource }
  tank: KnownTank | null
  preparedPpt: number | null
  hasSpareTank: boolean
  limits: Limits
}

const mean = (values: readonly (number | null | undefined)[]): number | null => {
  const known = values.filter((value): value is number => value !== null && value !== undefined)
  return known.length === 0 ? null : known.reduce((sum, value) => sum + value, 0) / known.length
}
const round = (value: number, digits: number): number => Number(value.toFixed(digits))

/**
 * Gathers what a comparison needs from crate, bags, tank, species book and house limits, each with where it comes from.
 * What is measured goes before what was told, that before what is usual.
 */
export function knownFigures({ species, bags, hoursInBag, usualHours, shipping, tank, preparedPpt, hasSpareTank, limits }: KnownFacts): { figures: Record<string, KnownFigure>; words: BagWords } {
  const figures: Record<string, KnownFigure> = {}
  const put = (name: string, ...tries: [number | null | undefined, FigureSource][]): number | null => {
    const found = tries.find(([value]) => value !== null && value !== undefined)
    if (found) figures[name] = { value: round(found[0] as number, 2), from: found[1] }
    return figures[name]?.value ?? null
  }
  const usual = tank ? usualTank[tank.water] : null
  const tankC = put('tankC', [tank?.tempC, 'system'], [usual?.tempC, 'guess'])
  put('tankPpt', [tank?.salinityPpt, 'system'], [usual?.salinityPpt, 'guess'])
  const tankAlkalinity = put('tankAlkalinity', [tank?.alkalinityMeqL, 'system'], [usual?.alkalinityMeqL, 'guess'])
  put('tankPh', [tank?.ph, 'system'], [usual?.ph, 'guess'])
  put('roomC', [limits.roomAirC, 'house limit'])
  put('bags', [Math.max(1, bags.length), 'list'])
  const fish = put('fish', [Math.max(1, Math.round(mean(bags.map((bag) => bag.fish)) ?? 1)), 'list']) ?? 1
  const massG = put('massG', [species.massG, 'species book'], [usualMassG, 'guess']) ?? usualMassG
  const waterL = put('waterL', [Math.max(leastBagL, (fish * massG) / limits.bagLoadGPerL), 'guess']) ?? leastBagL
  put('gasL', [waterL * limits.bagGasTimes, 'guess'])
  put('hours', [hoursInBag === null ? null : round(Math.min(120, Math.max(0.1, hoursInBag)), 1), 'list'], [usualHours, 'told'], [usualTransitHours, 'guess'])
  const packedC = put('packedC', [shipping.tempC, shipping.from], [tankC, 'guess'], [25, 'guess'])
  put('transitC', [packedC, 'guess'])
  put('toldPpt', [shipping.salinityPpt, shipping.from])
  put('toldPh', [shipping.ph, shipping.from])
  put('toldAlkalinity', [shipping.alkalinityMeqL, shipping.from])
  put('measuredC', [mean(bags.map((bag) => bag.waterTempC)), 'measured'])
  put('guessedC', [mean(bags.map((bag) => bag.skinTempC)), 'bag’s skin'])
  put('measuredPpt', [mean(bags.map((bag) => bag.salinityPpt)), 'measured'])
  put('measuredPh', [mean(bags.map((bag) => bag.ph)), 'measured'])
  put('measuredTan', [mean(bags.map((bag) => bag.ammoniaMgL)), 'measured'])
  if (preparedPpt !== null) put('preparedPpt', [preparedPpt, 'system'])
  const water = tank?.water ?? species.water
  const isSoft = (shipping.alkalinityMeqL ?? tankAlkalinity ?? 3) < softBelowMeqL || (species.phMax !== null && species.phMax <= 7)
  const waterClass = species.water === 'brackish' ? 'brackish' : water === 'marine' ? 'marine' : water === 'brackish' ? 'brackish' : isSoft ? 'soft' : 'hard'
  return {
    figures,
    words: { waterClass, gas: 'oxygen', fed: 'no', binder: bags.some(({ hasBinder }) => hasBinder) ? 'yes' : 'no', tolerance: species.tolerance ?? 'normal', spareTank: hasSpareTank ? 'yes' : 'no' },
  }
}
