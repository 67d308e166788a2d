import { array, boolean, lazy, mixed, number, object, string, ValidationError, type InferType, type ISchema } from 'yup'
import { choice, optionalChoice, strictObject, text, whole } from '../fields/fields.schema'
import { validated } from '../fields/validated'
import { waters } from '../room/room.schema'
import { firstFoodKinds, mouths } from '../species/speciesWords'
import { habits, shippedRoundRules, signGroups, signRule, type CourseEntry, type JudgedReading, type ReadingRule, type RoundRules, type SignRule } from './roundRules'
import { signs, type Sign } from './rounds.schema'

// The lists behind the round as a house changes them in Setup: single entries over the shipped ones. Its single numbers are house limits.

const events = ['arrival', 'move', 'crossing', 'bath', 'treatment', 'company', 'dark'] as const
const readings = shippedRoundRules.readings.map(({ kind }) => kind)
const [mostPoints, mostHours, mostEntries] = [50, 2000, 100]

const points = (label: string) => number().typeError(`${label} must be a number of points`).min(0, `${label} cannot be below 0`).max(mostPoints, `${label} can be at most ${mostPoints}`).optional().nonNullable()
const hours = (label: string) => number().typeError(`${label} must be a number of hours`).min(0, `${label} cannot be below 0`).max(mostHours, `${label} can be at most ${mostHours}`)
const flag = (label: string) => boolean().typeError(`${label} must be true or false`).optional().nonNullable()
const listOf = <T>(label: string, of: ISchema<T>, most = mostEntries) => array().of(of).typeError(`${label} must be a list`).max(most, `${label} may have at most ${most} entries`).optional().nonNullable()

/** One word of a closed list, or nothing said. */
const maybe = (label: string, values: readonly string[]) => mixed<string>().optional().test('choice', `${label} must be one of: ${values.join(', ')}`, (value) => value === undefined || values.includes(value))

/** A record by names of a closed list. */
const record = <T extends string>(label: string, names: readonly T[], of: (name: T) => Parameters<typeof strictObject>[0][string]) =>
  lazy((value: unknown) => (value === undefined ? mixed<Partial<Record<T, unknown>>>().optional() : object(Object.fromEntries(names.map((name) => [name, of(name)]))).typeError(`${label} must be an object`).noUnknown(({ unknown }: { unknown?: string }) => `${label} knows no ${unknown}`)))

/** Hours within which a sign is usual: clear ones no longer than slight ones. */
const windowOf = (sign: Sign) =>
  array()
    .of(hours(`The window of ${sign}`).required(`The window of ${sign} needs two numbers of hours: clear, slight`))
    .typeError(`The window of ${sign} must be two numbers of hours: clear, slight`)
    .optional()
    .test('pair', `The window of ${sign} needs two numbers of hours: clear, slight`, (value) => !value || value.length === 2)
    .test('order', `A clear ${sign} cannot be usual for longer than a slight one`, (value) => !value || typeof value[0] !== 'number' || typeof value[1] !== 'number' || value[0] <= value[1])
    .test('grave', `${sign} is never usual: it calls for somebody at once`, (value) => !value || signRule(shippedRoundRules, sign).isGrave !== true)
    .max(2, `The window of ${sign} has two numbers of hours: clear, slight`)

const signSchema = strictObject({ sign: choice('Sign', signs), slight: points('Slight'), clear: points('Clear'), group: optionalChoice('Group', signGroups).optional(), isWater: flag('isWater'), isSlow: flag('isSlow'), isLasting: flag('isLasting'), isFight: flag('isFight'), asksHold: flag('asksHold') })
  .required('A sign is missing')
  .test('order', ({ sign, slight, clear }, context) => {
    const shipped = signRule(shippedRoundRules, sign)
    return (slight ?? shipped.slight) <= (clear ?? shipped.clear) || context.createError({ message: `A slight ${sign} cannot weigh more than a clear one` })
  })

const risingSteps = (steps: readonly (number[] | undefined)[]): boolean => steps.every((pair, index) => pair?.length === 2 && (pair[1] ?? 2) <= 1 && (index === 0 || (steps[index - 1]?.[0] ?? 0) < (pair[0] ?? 0)))

const courseSchema = strictObject({
  event: choice('Event', events),
  school: string().typeError('School must be a word, or null').max(40, 'School may have at most 40 characters').nullable().defined('School is missing (send null for every school)'),
  isScaled: flag('isScaled'),
  signs: record('The signs of a course', signs, windowOf),
  ateNone: strictObject({ leastH: hours('leastH').required('leastH is missing'), perFirstMealDay: hours('perFirstMealDay').required('perFirstMealDay is missing') }).optional().default(undefined),
  ateSomeMoreH: hours('ateSomeMoreH').optional().nonNullable(),
  shareSeen: listOf('shareSeen', array().of(number().typeError('shareSeen has pairs of numbers').min(0, 'shareSeen cannot be below 0').required('shareSeen has pairs of numbers')).typeError('shareSeen has pairs: until which hour, which share').max(2, 'shareSeen has pairs: until which hour, which share').required('shareSeen has pairs'), 10)
    .test('steps', 'shareSeen needs pairs with rising hours and shares from 0 to 1', (value) => !value || risingSteps(value as (number[] | undefined)[])),
}).required('A course is missing')

const bound = (label: string) => array().of(number().typeError(`${label} has two numbers`).required(`${label} has two numbers`)).typeError(`${label} must be two numbers`).max(2, `${label} has two numbers`).optional().nonNullable().test('rising', `${label} needs two numbers, the smaller first`, (value) => !value || (value.length === 2 && (value[0] ?? 0) <= (value[1] ?? 0)))
const readingSchema = strictObject({ kind: choice('Reading', readings), low: bound('low'), high: bound('high'), sd: number().typeError('sd must be a number').moreThan(0, 'sd must be above 0').optional().nonNullable() })
  .required('A reading is missing')
  .test('side', ({ kind, low, high }, context) => {
    const shipped = shippedRoundRules.readings.find((each) => each.kind === kind)
    return (!low || shipped?.low != null) && (!high || shipped?.high != null) ? true : context.createError({ message: `${kind} has no limit on that side` })
  })

const lureSchema = strictObject({
  for: strictObject({ habit: maybe('Habit', habits), mouth: maybe('Mouth', mouths) }).required('Whom a lure is for is missing'),
  foods: array().of(choice('Food', firstFoodKinds)).typeError('Foods must be a list').max(10, 'At most 10 foods').required('Foods are missing'),
}).required('A lure is missing')

const sharesSum = (parts: readonly (unknown[] | undefined)[]): boolean => Math.abs(parts.reduce((sum, part) => sum + (typeof part?.[1] === 'number' ? part[1] : NaN), 0) - 1) < 0.001
const recipeSchema = strictObject({
  recipe: text('The name of a recipe', 60),
  for: strictObject({ water: maybe('Water', waters), habit: maybe('Habit', habits), mouth: maybe('Mouth', mouths) }).required('Whom a recipe is for is missing'),
  parts: array()
    .of(mixed<[string, number]>().required('A part of a recipe is missing').test('part', 'A part of a recipe is a kind of food of the species book and its share, such as ["mysis", 0.5]', (value) => Array.isArray(value) && value.length === 2 && (firstFoodKinds as readonly unknown[]).includes(value[0]) && typeof value[1] === 'number' && value[1] > 0 && value[1] <= 1))
    .typeError('Parts must be a list')
    .min(1, 'A recipe needs a part')
    .max(10, 'A recipe may have at most 10 parts')
    .required('Parts are missing')
    .test('sum', 'The shares of a recipe must come to 1', (value) => !Array.isArray(value) || value.some((part) => !Array.isArray(part)) || sharesSum(value)),
}).required('A recipe is missing')

const words = (label: string) => array().of(text(label, 80)).typeError(`${label} must be a list of words`).max(20, `${label} may have at most 20 entries`).optional().nonNullable()

/** What a house wants to be other than shipped. */
const roundListsSchema = strictObject({
  signs: listOf('signs', signSchema),
  courses: listOf('courses', courseSchema),
  readings: listOf('readings', readingSchema),
  lures: listOf('lures', lureSchema, 30),
  recipes: listOf('recipes', recipeSchema, 60),
  habitSigns: record('habitSigns', habits, (habit) => array().of(choice('Sign', signs)).typeError(`${habit} must be a list of signs`).max(10, `${habit} may have at most 10 signs`).optional().nonNullable()),
  seenWith: record('seenWith', signs, (sign) => words(sign)),
})
export type RoundListChanges = Partial<Pick<RoundRules, 'lures' | 'recipes' | 'habitSigns' | 'seenWith'>> & { signs?: (Partial<SignRule> & { sign: Sign })[]; courses?: CourseEntry[]; readings?: (Partial<ReadingRule> & { kind: JudgedReading })[] }

/**
 * Checks what a house wants to be other than shipped.
 * @returns the changes, or in plain words what is wrong with them, with where.
 * @example readRoundLists({ signs: [{ sign: 'spots', slight: 5 }] }).ok // true
 */
export function readRoundLists(value: unknown): { ok: true; changes: RoundListChanges } | { ok: false; problems: string[] } {
  try {
    return { ok: true, changes: validated(roundListsSchema as never, value) as RoundListChanges }
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error
    const all = error.inner.length > 0 ? error.inner : [error]
    return { ok: false, problems: all.map(({ path, message }) => (path ? `${path}: ${message}` : message)) }
  }
}

/** The rules with what a house changed: its entries over the shipped ones of the same sign, event and school, or reading. Lures and recipes are its own lists. */
export function withLists({ signs: ownSigns = [], courses = [], readings: ownReadings = [], lures, recipes, habitSigns, seenWith }: RoundListChanges, rules: RoundRules = shippedRoundRules): RoundRules {
  const isCourse = (a: CourseEntry, b: CourseEntry): boolean => a.event === b.event && a.school === b.school
  const kept = rules.courses.map((entry) => {
    const own = courses.find((each) => isCourse(each, entry))
    return own ? { ...entry, ...own, signs: { ...entry.signs, ...own.signs } } : entry
  })
  return {
    ...rules,
    signs: rules.signs.map((rule) => ({ ...rule, ...ownSigns.find(({ sign }) => sign === rule.sign) })),
    courses: [...kept, ...courses.filter((own) => !rules.courses.some((entry) => isCourse(own, entry))).map((own) => ({ ...own, signs: own.signs ?? {} }))],
    readings: rules.readings.map((rule) => ({ ...rule, ...ownReadings.find(({ kind }) => kind === rule.kind) })),
    lures: lures ?? rules.lures,
    recipes: recipes ?? rules.recipes,
    habitSigns: { ...rules.habitSigns, ...habitSigns },
    seenWith: { ...rules.seenWith, ...seenWith },
  }
}

/** A house changes lists as text, in JSON. */
export const changeRoundListsSchema = strictObject({ rules: text('Lists', 60_000), version: whole('Version', 0, 1_000_000_000) })
export type ChangeRoundLists = InferType<typeof changeRoundListsSchema>
export interface RoundListsView {
  shipped: Pick<RoundRules, 'signs' | 'courses' | 'readings' | 'lures' | 'recipes' | 'habitSigns' | 'seenWith'>
  changes: RoundListChanges
  version: number
  changedBy: string | null
  changedAtMs: number | null
}
/** The lists of the rules, without their single numbers. */
export const listsOf = ({ signs: all, courses, readings: read, lures, recipes, habitSigns, seenWith }: RoundRules): RoundListsView['shipped'] => ({ signs: all, courses, readings: read, lures, recipes, habitSigns, seenWith })
