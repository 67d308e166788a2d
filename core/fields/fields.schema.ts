import { array, boolean, mixed, number, object, string, type AnyObject, type ObjectShape } from 'yup'

/** Bounds that several features share. Text bounds are characters, counts are fish or bags. */
export const bounds = { note: 500, name: 80, fishInBag: 5000, fishInLine: 20_000, bagsInCrate: 1000 } as const

const emptyToNull = (value: unknown, original: unknown): unknown => (original === '' ? null : value)
/** Control characters, and halves of a character, which no file or database can hold. */
const isUnkeepable = (value: string): boolean => /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]|\p{Surrogate}/u.test(value)

/** A required line of text; what neither paper nor database can hold is refused. */
export const text = (label: string, max: number, min = 1) =>
  string()
    .typeError(`${label} must be text`)
    .defined(`${label} is missing`)
    .nonNullable(`${label} is missing`)
    .test('blank', `${label} is missing`, (value) => min === 0 || Boolean(value?.trim()))
    // What is blank is missing, and said once.
    .min(min > 1 ? min : 0, `${label} needs at least ${min} characters`)
    .max(max, `${label} may have at most ${max} characters`)
    .test('printable', `${label} holds a character that cannot be kept`, (value) => !value || !isUnkeepable(value))

/** Text that may be left out; null when it was. */
export const optionalText = (label: string, max: number) =>
  string()
    .typeError(`${label} must be text`)
    .transform(emptyToNull)
    .nullable()
    .defined(`${label} is missing (send null when there is none)`)
    .max(max, `${label} may have at most ${max} characters`)
    .test('printable', `${label} holds a character that cannot be kept`, (value) => !value || !isUnkeepable(value))

const boundedNumber = (label: string, unit: string, min: number, max: number) =>
  number()
    .typeError(`${label} must be a number${unit ? ` of ${unit}` : ''}`)
    .transform(emptyToNull)
    .min(min, `${label} must be at least ${min}${unit ? ` ${unit}` : ''}`)
    .max(max, `${label} must be at most ${max}${unit ? ` ${unit}` : ''}`)

/** A whole number between both bounds, inclusive. */
export const whole = (label: string, min: number, max: number, unit = '') =>
  boundedNumber(label, unit, min, max)
    .integer(`${label} must be a whole number`)
    .defined(`${label} is missing`)
    .nonNullable(`${label} is missing`)

/** A whole number that may be left out. */
export const optionalWhole = (label: string, min: number, max: number, unit = '') =>
  boundedNumber(label, unit, min, max)
    .integer(`${label} must be a whole number`)
    .nullable()
    .defined(`${label} is missing (send null when there is none)`)

/** A measured figure that may be left out, in the unit named. */
export const optionalMeasure = (label: string, unit: string, min: number, max: number) =>
  boundedNumber(label, unit, min, max)
    .nullable()
    .defined(`${label} is missing (send null when not measured)`)

/** An opaque identifier made by the server or a device. */
export const identifier = (label: string) =>
  string()
    .typeError(`${label} must be an identifier`)
    .defined(`${label} is missing`)
    .nonNullable(`${label} is missing`)
    // A choice that nobody made is empty; whoever reads this chose nothing, and knows no identifiers.
    .matches(/^[A-Za-z0-9_-]{1,64}$/, ({ value }) => (value === '' ? `${label} is missing` : `${label} is not an identifier`))

/** An identifier that may be left out. */
export const optionalIdentifier = (label: string) =>
  string()
    .typeError(`${label} must be an identifier`)
    .transform(emptyToNull)
    .nullable()
    .defined(`${label} is missing (send null when there is none)`)
    .matches(/^[A-Za-z0-9_-]{1,64}$/, { message: `${label} is not an identifier`, excludeEmptyString: false })

/** Yes or no; nothing else counts as either. */
export const yesNo = (label: string) => boolean().typeError(`${label} must be true or false`).defined(`${label} is missing`).nonNullable(`${label} is missing`)

/** One word of a closed list. */
export const choice = <T extends string>(label: string, values: readonly T[]) =>
  mixed<T>()
    .transform(emptyToNull)
    .defined(`${label} is missing`)
    .nonNullable(`${label} is missing`)
    .test('choice', `${label} must be one of: ${values.join(', ')}`, (value) => values.includes(value as T))

/** One word of a closed list, or null. */
export const optionalChoice = <T extends string>(label: string, values: readonly T[]) =>
  mixed<T>()
    .transform(emptyToNull)
    .nullable()
    .defined(`${label} is missing (send null when there is none)`)
    .test('choice', `${label} must be one of: ${values.join(', ')}`, (value) => value === null || value === undefined || values.includes(value as T))

/** Several different words of a closed list, possibly none. */
export const choices = <T extends string>(label: string, values: readonly T[]) =>
  array()
    .of(choice(label, values))
    .typeError(`${label} must be a list`)
    .defined(`${label} is missing`)
    .nonNullable(`${label} is missing`)
    .max(values.length, `${label} names something twice`)
    .test('distinct', `${label} names something twice`, (value) => !value || new Set(value).size === value.length)

const earliestMs = Date.UTC(2000, 0, 1)
const latestMs = Date.UTC(2200, 0, 1)

/** A moment as UTC epoch milliseconds, between the years 2000 and 2200. */
export const instant = (label: string) => whole(label, earliestMs, latestMs)

/** A moment that may be left out. */
export const optionalInstant = (label: string) => optionalWhole(label, earliestMs, latestMs)

/** An object that refuses fields nobody asked for, so that a misspelt one is noticed. */
export const strictObject = <S extends ObjectShape>(shape: S) =>
  object<AnyObject, S>(shape)
    .typeError('The request must be an object')
    .nonNullable('The request must be an object')
    .noUnknown(({ unknown }: { unknown?: string }) => `Nothing here is called ${unknown}`)
