import type { Limits } from '../limits/houseLimits'
import type { Water } from '../room/room.schema'
import type { PhInstrument, SalinityInstrument } from '../acclimation/instruments'
import type { Tolerance } from '../setup/words'
import { showFigure, type DisplayUnits } from '../units/units'
import type { BagWords, FigureSource } from './bagFigures'
import { guessBagTemperature } from './bagTemperature'
import type { KnownFigure } from './benchView'
import { waterOfBag, type BagWater, type WaterFacts } from './waterOfBag'

/** Water of the room's kinds while nobody entered what it is kept at. */
const usualTank: Record<Water, { tempC: number; salinityPpt: number; alkalinityMeqL: number; ph: number }> = {
  fresh: { tempC: 25, salinityPpt: 0.3, alkalinityMeqL: 3, ph: 7.6 },
  brackish: { tempC: 26, salinityPpt: 10, alkalinityMeqL: 2.5, ph: 7.9 },
  marine: { tempC: 25.5, salinityPpt: 34, alkalinityMeqL: 2.7, ph: 8.2 },
}
const leastBagL = 0.2

export interface KnownBag {
  fish: number
  skinTempC: number | null
  waterTempC: number | null
  salinityPpt: number | null
  ph: number | null
  ammoniaMgL: number | null
  hasBinder: boolean
  salinityBy?: SalinityInstrument | null
  phBy?: PhInstrument | null
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
  species: { name: string; massG: number | null; tolerance: Tolerance | null }
  water: WaterFacts
  bags: readonly KnownBag[]
  hoursInBag: number | null
  usualHours: number | null
  shipping: { tempC: number | null; salinityPpt: number | null; ph: number | null; alkalinityMeqL: number | null; from: FigureSource }
  tank: KnownTank | null
  preparedPpt: number | null
  hasSpareTank: boolean
  /** Mean of other bags of the crate whose water was read within the hour. */
  otherBagsC: number | null
  hasWorkingPacks: boolean
  /** What the house reads with, where a bag does not say. */
  instruments: { salinityBy: SalinityInstrument; phBy: PhInstrument }
  limits: Limits
  units: DisplayUnits
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
export function knownFigures({ species, water, bags, hoursInBag, usualHours, shipping, tank, preparedPpt, hasSpareTank, otherBagsC, hasWorkingPacks, instruments, limits, units }: KnownFacts): { figures: Record<string, KnownFigure>; words: BagWords; water: BagWater } {
  const figures: Record<string, KnownFigure> = {}
  const put = (name: string, ...tries: [number | null | undefined, FigureSource][]): number | null => {
    const found = tries.find(([value]) => value !== null && value !== undefined)
    if (found) figures[name] = { value: round(found[0] as number, 3), from: found[1] }
    return figures[name]?.value ?? null
  }
  const usual = tank ? usualTank[tank.water] : null
  put('tankC', [tank?.tempC, 'system'], [usual?.tempC, 'guess'])
  const tankPpt = put('tankPpt', [tank?.salinityPpt, 'system'], [usual?.salinityPpt, 'guess'])
  put('tankAlkalinity', [tank?.alkalinityMeqL, 'system'], [usual?.alkalinityMeqL, 'guess'])
  put('tankPh', [tank?.ph, 'system'], [usual?.ph, 'guess'])
  put('roomC', [limits.roomAirC, 'house limit'])
  put('bags', [Math.max(1, bags.length), 'list'])
  const fish = put('fish', [Math.max(1, Math.round(mean(bags.map((bag) => bag.fish)) ?? 1)), 'list']) ?? 1
  const massG = put('massG', [species.massG, 'species book'], [limits.usualFishG, 'guess']) ?? limits.usualFishG
  const waterL = put('waterL', [Math.max(leastBagL, (fish * massG) / limits.bagLoadGPerL), 'guess']) ?? leastBagL
  put('gasL', [waterL * limits.bagGasTimes, 'guess'])
  const hours = put('hours', [hoursInBag === null ? null : round(Math.min(120, Math.max(0.1, hoursInBag)), 1), 'list'], [usualHours, 'told'], [limits.usualTransitHours, 'guess'])
  const packedC = put('packedC', [shipping.tempC, shipping.from], [limits.usualPackedC, 'guess']) ?? limits.usualPackedC
  const guess = guessBagTemperature({ theirTankC: water.standing === null ? null : shipping.tempC, skinC: mean(bags.map((bag) => bag.skinTempC)), otherBagsC, hasWorkingPacks, packedC, hours: hours ?? limits.usualTransitHours, roomC: limits.roomAirC })
  const measuredC = put('measuredC', [mean(bags.map((bag) => bag.waterTempC)), 'measured'])
  put('guessedC', [guess.tempC, guess.from === 'skin' ? 'bag’s skin' : guess.from === 'other bags' ? 'other bags' : guess.from === 'their tank' ? shipping.from : 'guess'])
  put('transitC', [(packedC + (measuredC ?? guess.tempC)) / 2, 'guess'])
  const toldPpt = put('toldPpt', [shipping.salinityPpt, shipping.from])
  put('toldPh', [shipping.ph, shipping.from])
  put('toldAlkalinity', [shipping.alkalinityMeqL, shipping.from])
  const measuredPpt = put('measuredPpt', [mean(bags.map((bag) => bag.salinityPpt)), 'measured'])
  put('measuredPh', [mean(bags.map((bag) => bag.ph)), 'measured'])
  put('measuredTan', [mean(bags.map((bag) => bag.ammoniaMgL)), 'measured'])
  if (preparedPpt !== null) put('preparedPpt', [preparedPpt, 'system'])
  const found = waterOfBag(water, { measuredPpt: measuredPpt ?? undefined, toldPpt: toldPpt ?? undefined, alkalinityMeqL: shipping.alkalinityMeqL ?? undefined, isSurePpt: true, targetPpt: preparedPpt ?? tankPpt ?? NaN }, species.name, (ppt) => showFigure('salinity', ppt, units))
  const read = <T extends string>(of: (bag: KnownBag) => T | null | undefined, usually: T): T => bags.map(of).find((each) => each !== null && each !== undefined) ?? usually
  return {
    figures,
    water: found,
    words: {
      ...{ waterClass: found.waterClass, guessedFrom: guess.from, salinityBy: read((bag) => bag.salinityBy, instruments.salinityBy), phBy: read((bag) => bag.phBy, instruments.phBy) },
      ...{ gas: 'oxygen', fed: 'no', binder: bags.some(({ hasBinder }) => hasBinder) ? 'yes' : 'no', tolerance: species.tolerance ?? 'normal', spareTank: hasSpareTank ? 'yes' : 'no' },
    },
  }
}
