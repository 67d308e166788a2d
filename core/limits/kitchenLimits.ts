import { shippedKitchen, type KitchenNumbers, type KitchenRules } from '../kitchen/kitchenRules'

const guidance = 'house guidance'
/** Numbers of the kitchen by the name of their limit; soaks are told by their place in the list. */
type Path = Exclude<keyof KitchenNumbers, 'soaks'> | 'lure' | 'vitamin'
const mlOf = (soak: string): number => shippedKitchen.kitchen.soaks.find((each) => each.soak === soak)?.mlPerKg ?? 0
const at = (path: Path): number => (path === 'lure' || path === 'vitamin' ? mlOf(path) : shippedKitchen.kitchen[path])

function limit<const P extends Path>(path: P, label: string, unit: string, [min, max]: readonly [number, number], about: string, source = guidance) {
  return { label, unit, standard: at(path), min, max, source, about, group: 'kitchen' as const, path }
}

/** The single numbers behind the feed kitchen; foods and recipes are data of their own. */
export const kitchenLimits = {
  dryFoodShare: limit('dryShareAt1G', 'Dry food a day', 'share of weight', [0.001, 0.2], 'Of a fish of 1 g at 25 °C.', `${guidance}; the trade says 0.01 to 0.03`),
  foodMassPower: limit('massPower', 'Larger fish eat less', 'power of weight', [0.3, 1], 'How what a fish eats goes by its weight.'),
  foodWarmth: limit('q10', 'Warmer fish eat more', 'times in 10 °C', [1, 4], 'Beside 25 °C.'),
  foodWarmthLeast: limit('tempLeast', 'In the cold, at least', 'times', [0.05, 1], 'Whatever the temperature.'),
  foodWarmthMost: limit('tempMost', 'In the warmth, at most', 'times', [1, 3], 'Whatever the temperature.'),
  conditioningTimes: limit('conditioningTimes', 'Food while conditioning', 'times', [1, 3], 'Beside what others of their size get.'),
  conditioningMeals: limit('conditioningMeals', 'Small meals while conditioning', 'a day', [1, 20], 'Shared out over the feeds of the day.'),
  ateNoneTimes: limit('ateNoneTimes', 'Food after none was eaten', 'times', [0, 1], 'What is not eaten fouls the water.'),
  ateSomeTimes: limit('ateSomeTimes', 'Food after some was eaten', 'times', [0, 1], 'What is not eaten fouls the water.'),
  soakedDays: limit('soakedDays', 'Food of newcomers is soaked for', 'days', [0, 60], 'With a scent that tempts and with vitamins.'),
  strainMinutes: limit('strainMin', 'Straining', 'min', [0, 120], 'Of what was frozen, before it is fed.'),
  soakMinutes: limit('soakMin', 'Soaking', 'min', [0, 240], 'Before it is fed.'),
  thawStepMinutes: limit('startStepMin', 'Thawing begins on', 'min', [1, 60], 'Rounded down to so many minutes.'),
  packSlack: limit('packSlack', 'No piece is opened for', 'of a piece', [0, 0.5], 'So small a part of one is given less instead.'),
  lureMlPerKg: limit('lure', 'Lure scent', 'mL/kg', [0, 500], 'For each kilogram that is soaked. The label of the product decides.'),
  vitaminMlPerKg: limit('vitamin', 'Vitamins', 'mL/kg', [0, 500], 'For each kilogram that is soaked. The label of the product decides.'),
  nitrogenPerProtein: limit('nPerProtein', 'Ammonia from protein', 'g N a g', [0.01, 0.2], 'Total ammonia as nitrogen that comes of each gram of protein.', 'Timmons and Ebeling, recirculating aquaculture; daily-fed culture'),
  smallWaterNh3: limit('nh3LimitMgL', 'Ammonia in a small water', 'mg/L NH3-N', [0.001, 0.2], 'Un-ionised, where water is changed every day.'),
  smallWaterChange: limit('changeMost', 'Water changed in a day, at most', 'share', [0.05, 1], 'More of it is another water.'),
  kitchenActivity: limit('activity', 'Activity of fed fish', 'times rest', [0.5, 4], 'What fish give off while they are fed and move about.', 'see the science of bags; an assumption'),
  kitchenAmmoniaQuotient: limit('ammoniaQuotient', 'Ammonia for oxygen', 'mol/mol', [0.02, 0.5], 'Of what fish give off by themselves.', 'Kutty 1972; van den Thillart and Kesbeke 1978'),
} as const
export type KitchenLimitKey = keyof typeof kitchenLimits

/** The rules of the kitchen with the house’s own numbers in them. */
export function kitchenWith(limits: Readonly<Record<KitchenLimitKey, number>>, rules: KitchenRules = shippedKitchen): KitchenRules {
  const own: KitchenNumbers = { ...rules.kitchen, soaks: [{ soak: 'lure', mlPerKg: limits.lureMlPerKg }, { soak: 'vitamin', mlPerKg: limits.vitaminMlPerKg }] }
  for (const [key, { path }] of Object.entries(kitchenLimits)) if (path !== 'lure' && path !== 'vitamin') own[path] = limits[key as KitchenLimitKey]
  return { ...rules, kitchen: own }
}
