import { kitchenLimits } from './kitchenLimits'
import { outcomeLimits } from './outcomeLimits'
import { roundLimits } from './roundLimits'
import { optionalText, strictObject, whole } from '../fields/fields.schema'
import { number } from 'yup'

/** A number the house may change: everything that is judgement and no law of nature stands here and nowhere else. */
export interface HouseLimit {
  label: string
  unit: string
  /** Used until a lead changes it. */
  standard: number
  min: number
  max: number
  /** Where the standard comes from. */
  source: string
  /** What it decides. */
  about: string
  group: 'holding' | 'arriving' | 'tank choice' | 'acclimating' | 'oxygen' | 'rounds' | 'kitchen' | 'outcomes'
}

const guidance = 'house guidance'

/** Every limit with its standard. Keys are part of the export format. */
export const houseLimits = {
  shopHoldDays: { label: 'Shop hold', unit: 'days', standard: 14, min: 0, max: 120, source: 'usual in the trade, about two weeks', about: 'How long a lot is watched after its crate was opened.', group: 'holding' },
  newArrivalDays: { label: 'New arrival', unit: 'days', standard: 14, min: 0, max: 120, source: guidance, about: 'Tanks whose newest fish came within this time are walked after settled ones.', group: 'holding' },
  roundOpenHours: { label: 'A round goes on', unit: 'h', standard: 4, min: 0, max: 24, source: guidance, about: 'How long after its last check a round that is not finished still goes on, past midnight too. After that a new one begins.', group: 'holding' },
  recentLossDays: { label: 'Recent losses', unit: 'days', standard: 7, min: 1, max: 90, source: guidance, about: 'How far back Today looks for losses.', group: 'holding' },
  longInBagHours: { label: 'Long in the bag', unit: 'h', standard: 30, min: 1, max: 200, source: guidance, about: 'From so many hours on, a bag is taken as too long under way, whatever it looks like.', group: 'arriving' },
  mixAheadHours: { label: 'Salt water mixed ahead', unit: 'h', standard: 24, min: 0, max: 240, source: 'usual in the trade, a day of mixing and warming', about: 'How long before a crate salt water has to be on the mixer.', group: 'arriving' },
  tankReadyHours: { label: 'Tank ready ahead', unit: 'h', standard: 4, min: 0, max: 240, source: guidance, about: 'How long before a crate its tanks have to stand at their temperature and salinity.', group: 'arriving' },
  bathLitresPer10Fish: { label: 'Bath water for ten fish', unit: 'L', standard: 4, min: 0.5, max: 200, source: guidance, about: 'Water to have ready for first-response baths.', group: 'arriving' },
  shareInBathPercent: { label: 'Share that needs a bath', unit: '%', standard: 15, min: 0, max: 100, source: guidance, about: 'How many of the fish of a crate bath water is prepared for.', group: 'arriving' },
  deadShareForBathPercent: { label: 'Dead that call for a bath', unit: '%', standard: 10, min: 0.1, max: 100, source: guidance, about: 'From so many dead of a lot on, or dead in two of its bags, the living are bathed first.', group: 'arriving' },
  deadBagsForBath: { label: 'Bags with dead that call for a bath', unit: 'bags', standard: 2, min: 1, max: 100, source: guidance, about: 'Deaths in so many bags of a lot are no single accident: the living are bathed first.', group: 'arriving' },
  readAfterHours: { label: 'Temperature to be read after', unit: 'h', standard: 10, min: 0, max: 200, source: guidance, about: 'From so long under way on, a temperature that nobody read is asked for where it could matter.', group: 'arriving' },
  usualTransitHours: { label: 'In the bag, where nobody said', unit: 'h', standard: 24, min: 0.5, max: 120, source: guidance, about: 'How long bags are taken to be under way while neither packing time nor supplier say.', group: 'arriving' },
  usualPackedC: { label: 'Packed at, where nobody said', unit: '°C', standard: 25, min: 5, max: 35, source: guidance, about: 'Temperature of a bag when it was packed, while the supplier’s row does not say.', group: 'arriving' },
  usualFishG: { label: 'A fish, where nobody said', unit: 'g', standard: 3, min: 0.05, max: 500, source: guidance, about: 'Weight of a fish while the species book does not say.', group: 'arriving' },
  stockGPerL: { label: 'Fish in a holding tank', unit: 'g/L', standard: 2, min: 0.05, max: 50, source: guidance, about: 'Weight of fish a tank takes while it holds a delivery.', group: 'tank choice' },
  openTankPoints: { label: 'Opening another tank', unit: 'points', standard: 3, min: 0, max: 100, source: guidance, about: 'Cost of using a tank that stands empty.', group: 'tank choice' },
  sharePoints: { label: 'Sharing with another kind', unit: 'points', standard: 6, min: 0, max: 100, source: guidance, about: 'Cost of every further kind in one tank. Above the cost of another tank, lines are kept apart while tanks stand empty.', group: 'tank choice' },
  groupPoints: { label: 'A group too small', unit: 'points', standard: 10, min: 0, max: 100, source: guidance, about: 'Cost of a tank in which fewer of a kind would stand than it is kept in. A cost and no rule, because small orders come.', group: 'tank choice' },
  restartPoints: { label: 'Restarting a hold', unit: 'points a day', standard: 1, min: 0, max: 100, source: guidance, about: 'Cost of every day already served by a lot whose water new fish come into.', group: 'tank choice' },
  warmerPoints: { label: 'Temperature off', unit: 'points a °C', standard: 0.5, min: 0, max: 100, source: guidance, about: 'Cost of every degree between the shipping water and the tank.', group: 'tank choice' },
  saltierPoints: { label: 'Salinity off', unit: 'points a ppt', standard: 0.5, min: 0, max: 100, source: guidance, about: 'Cost of every ppt between the shipping water and the tank.', group: 'tank choice' },
  fightPoints: { label: 'A fight remembered', unit: 'points', standard: 6, min: 0, max: 100, source: `${guidance}; fights in a small tank say little about a large one`, about: 'Cost of a tank in which fish were lost to fights lately; halved with every doubling of 100 L.', group: 'tank choice' },
  fightMemoryDays: { label: 'A fight is remembered', unit: 'days', standard: 60, min: 0, max: 730, source: guidance, about: 'How long fish that were chased or eaten count against a tank.', group: 'tank choice' },
  zonePoints: { label: 'One more zone', unit: 'points', standard: 4, min: 0, max: 100, source: guidance, about: 'Cost of every further zone that the fish of one crate are spread over.', group: 'tank choice' },
  hospitalPoints: { label: 'Last free hospital tank', unit: 'points', standard: 20, min: 0, max: 1000, source: guidance, about: 'Cost of leaving no hospital tank free.', group: 'tank choice' },
  warningPoints: { label: 'A warning about company or agents', unit: 'points', standard: 12, min: 0, max: 100, source: guidance, about: 'Cost of a tank against which the species book warns without forbidding it: nipped fins, a bully, an agent borne with care.', group: 'tank choice' },
  purposePoints: { label: 'Another purpose', unit: 'points', standard: 5, min: 0, max: 100, source: guidance, about: 'Cost of a tank that is there for something else, such as a display.', group: 'tank choice' },
  peakNh3: { label: 'Peak NH3-N', unit: 'mg/L', standard: 0.1, min: 0.001, max: 2, source: `${guidance}; about half of the published 1-hour salt-water criterion, 0.19 as N (EPA 1989), which was not set for this use`, about: 'Highest un-ionised ammonia while acclimating.', group: 'acclimating' },
  doseNh3: { label: 'NH3-N dose above 0.02', unit: 'mg·min/L', standard: 5, min: 0.01, max: 500, source: `${guidance}; one hour at the peak limit (0.08 × 62 min)`, about: 'Un-ionised ammonia above 0.02 mg/L, added up over the minutes.', group: 'acclimating' },
  tempRise: { label: 'Temperature rise in 5 min', unit: '°C', standard: 3, min: 0.1, max: 20, source: guidance, about: 'Largest warming inside five minutes.', group: 'acclimating' },
  tempFall: { label: 'Temperature fall in 5 min', unit: '°C', standard: 2, min: 0.1, max: 20, source: `${guidance}; a fall is taken as worse`, about: 'Largest cooling inside five minutes.', group: 'acclimating' },
  salinityRise: { label: 'Salinity rise in 5 min', unit: 'ppt', standard: 2.5, min: 0.1, max: 40, source: `${guidance}; 2.5 is about 0.002 in SG`, about: 'Largest rise of salinity inside five minutes.', group: 'acclimating' },
  salinityFall: { label: 'Salinity fall in 5 min', unit: 'ppt', standard: 5, min: 0.1, max: 40, source: `${guidance}; a fall is usually borne better`, about: 'Largest fall of salinity inside five minutes.', group: 'acclimating' },
  ownPh: { label: 'Own pH in 5 min', unit: '', standard: 0.5, min: 0.05, max: 4, source: guidance, about: 'Change of the pH that the water itself has at balance with room air.', group: 'acclimating' },
  co2Ph: { label: 'Carbon dioxide pH in 5 min', unit: '', standard: 1.8, min: 0.1, max: 5, source: `${guidance}, weakest of all`, about: 'Change of pH that only carbon dioxide explains; every opened bag has it.', group: 'acclimating' },
  salinityPerHour: { label: 'Salinity per hour in a crossing', unit: 'ppt/h', standard: 2, min: 0.1, max: 20, source: `${guidance} (range 1–3)`, about: 'Steepest hour of a crossing between waters.', group: 'acclimating' },
  valveSettings: { label: 'Settings of an overflow', unit: 'times', standard: 2, min: 0, max: 3, source: `${guidance}; a valve is set while people are there`, about: 'How often the valve of an overflow is set: the fastest plan under the hour’s limit with so many flows. 0 sets it every hour.', group: 'acclimating' },
  peopleFromHour: { label: 'People come in', unit: 'o’clock', standard: 8, min: 0, max: 23, source: guidance, about: 'From this hour of the day on a valve can be set. The same hour as they leave: at any hour.', group: 'acclimating' },
  peopleUntilHour: { label: 'People leave', unit: 'o’clock', standard: 20, min: 0, max: 24, source: guidance, about: 'Until this hour of the day a valve can be set.', group: 'acclimating' },
  salinityPerDay: { label: 'Salinity per day in a tank', unit: 'ppt/day', standard: 3, min: 0.2, max: 20, source: guidance, about: 'How fast a tank that was made to match a delivery is brought back to house salinity.', group: 'acclimating' },
  bagLoadGPerL: { label: 'Fish in a litre of bag water', unit: 'g/L', standard: 12, min: 0.5, max: 200, source: `${guidance}; look at your own bags`, about: 'Guesses how much water a bag holds while nobody said.', group: 'acclimating' },
  bagGasTimes: { label: 'Gas for each litre of bag water', unit: 'L', standard: 2, min: 0.2, max: 10, source: `${guidance}; usual packing is a third water, two thirds gas`, about: 'Guesses how much gas a bag holds while nobody said.', group: 'acclimating' },
  roomAirC: { label: 'Air of the room', unit: '°C', standard: 22, min: 5, max: 40, source: guidance, about: 'What buckets and bags cool or warm towards.', group: 'acclimating' },
  bagsApartC: { label: 'Bags that are taken together', unit: '°C', standard: 3, min: 0.1, max: 20, source: guidance, about: 'Bags whose water lies further apart are taken one by one.', group: 'acclimating' },
  ammoniaSoonMinutes: { label: 'Ammonia limit near', unit: 'min', standard: 10, min: 1, max: 120, source: guidance, about: 'How long before the water is expected to pass its ammonia limit the bench says so.', group: 'acclimating' },
  lookThroughMinutes: { label: 'A look through the bag', unit: 'min', standard: 10, min: 1, max: 120, source: guidance, about: 'How long a shut bag floats among residents that may not take newcomers.', group: 'acclimating' },
  bucketReadMinutes: { label: 'Bucket read every', unit: 'min', standard: 20, min: 2, max: 240, source: guidance, about: 'How long an open vessel may go without a reading before the bench asks for one.', group: 'acclimating' },
  runForgottenMinutes: { label: 'Run forgotten after', unit: 'min', standard: 20, min: 1, max: 600, source: guidance, about: 'How long past its timer a step may stand before it alarms on Today.', group: 'acclimating' },
  darkHours: { label: 'Dark after a run with lights off', unit: 'h', standard: 4, min: 0.5, max: 72, source: `${guidance}; the trade says hours`, about: 'How long after such a run the lights are turned up again and the fish looked at.', group: 'acclimating' },
  vesselAirMinutes: { label: 'Fish in a bucket with air', unit: 'min', standard: 240, min: 5, max: 2880, source: guidance, about: 'The longest fish stand in a bucket with an air stone, whatever its water says.', group: 'acclimating' },
  vesselStillMinutes: { label: 'Fish in a bucket without air', unit: 'min', standard: 60, min: 5, max: 1440, source: guidance, about: 'The longest fish stand in a bucket without an air stone.', group: 'acclimating' },
  boxDays: { label: 'Fish in a breeder box', unit: 'days', standard: 3, min: 0.5, max: 60, source: `${guidance}; the trade says two to four`, about: 'The longest fish stay in a box that hangs in their tank.', group: 'holding' },
  oxygenHardy: { label: 'Lowest oxygen, hardy', unit: 'mg/L', standard: 3.5, min: 0.5, max: 8, source: guidance, about: 'Never taken above 80 % of saturation.', group: 'oxygen' },
  oxygenNormal: { label: 'Lowest oxygen, normal', unit: 'mg/L', standard: 4, min: 0.5, max: 8, source: guidance, about: 'Never taken above 80 % of saturation.', group: 'oxygen' },
  oxygenDelicate: { label: 'Lowest oxygen, delicate', unit: 'mg/L', standard: 4.5, min: 0.5, max: 8, source: guidance, about: 'Never taken above 80 % of saturation.', group: 'oxygen' },
  oxygenVeryDelicate: { label: 'Lowest oxygen, very delicate', unit: 'mg/L', standard: 5, min: 0.5, max: 8, source: guidance, about: 'Never taken above 80 % of saturation.', group: 'oxygen' },
  ...roundLimits,
  firstDayFood: { label: 'Food on the first day', unit: '1 yes, 0 no', standard: 0, min: 0, max: 1, source: 'usual in the trade: mostly none', about: 'Whether fish are fed on the day they come.', group: 'kitchen' },
  foodOrderDays: { label: 'Food is ordered ahead', unit: 'days', standard: 7, min: 0, max: 90, source: guidance, about: 'A food that lasts for fewer days is said to be ordered.', group: 'kitchen' },
  waterChangeTold: { label: 'A small water is told from', unit: 'share a day', standard: 0.05, min: 0, max: 1, source: guidance, about: 'Where so much of a water has to be changed each day because of its food, the kitchen says so.', group: 'kitchen' },
  ...kitchenLimits,
  ...outcomeLimits,
  probeSilentTimes: { label: 'A probe is silent after', unit: 'times its interval', standard: 3, min: 1, max: 20, source: guidance, about: 'Without an answer for so long it is said to have failed.', group: 'rounds' },
  probeStuckHours: { label: 'A probe is stuck after', unit: 'h', standard: 6, min: 1, max: 72, source: `${guidance}; no water stands still for so long`, about: 'The same figure for so long, to its last digit.', group: 'rounds' },
} as const satisfies Record<string, HouseLimit>

export type HouseLimitKey = keyof typeof houseLimits
export const houseLimitKeys = Object.keys(houseLimits) as HouseLimitKey[]
/** The limits in force, by key. */
export type Limits = Readonly<Record<HouseLimitKey, number>>
export const standardLimits = Object.fromEntries(houseLimitKeys.map((key) => [key, houseLimits[key].standard])) as Limits

/** A limit as a person reads it. */
export interface LimitView {
  key: HouseLimitKey
  value: number
  source: string
  version: number
  /** Null while the standard holds. */
  changedBy: string | null
  changedAtMs: number | null
}

/** Answers whether a word names a limit. */
export const isLimitKey = (word: string): word is HouseLimitKey => Object.hasOwn(houseLimits, word)

/** Changes a limit; a null source leaves the one that is there. */
export const changeLimitSchema = strictObject({
  value: number().typeError('Limit must be a number').defined('Limit is missing').nonNullable('Limit is missing'),
  source: optionalText('Source', 300),
  version: whole('Version', 0, 1_000_000_000),
})
export interface ChangeLimit {
  value: number
  source: string | null
  version: number
}
