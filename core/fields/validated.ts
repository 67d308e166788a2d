import { ValidationError, type Schema as AnySchema } from 'yup'

export interface Schema<T> {
  validateSync(value: unknown, options: { strict: boolean; abortEarly: boolean; disableStackTrace: boolean }): T
}

/**
 * Checks a JSON value against a schema without changing it: `"12"` is no number here, and stray fields are refused.
 * Lengths come first: thousands of faulty elements would take minutes to complain of, one by one.
 * @throws ValidationError with one entry per fault.
 */
export function validated<T>(schema: Schema<T>, value: unknown): T {
  const given = value ?? {}
  refuseTooLong(schema as unknown as Part, given, '')
  return schema.validateSync(given, { strict: true, abortEarly: false, disableStackTrace: true })
}

/** What this needs to know of a schema; yup says it of every kind. */
interface Part {
  type: string
  fields?: Record<string, Part>
  innerType?: Part
  tests: readonly { OPTIONS?: { name?: string; message?: unknown; params?: Record<string, unknown> } }[]
}

const mostOf = (schema: Part) => schema.tests.find(({ OPTIONS }) => OPTIONS?.name === 'max')?.OPTIONS

function refuseTooLong(schema: Part, value: unknown, path: string): void {
  if (schema.type === 'array' && Array.isArray(value)) {
    const most = mostOf(schema)
    if (value.length > Number(most?.params?.max)) throw new ValidationError(String(most?.message), undefined, path, 'max', true)
    value.forEach((each, index) => schema.innerType && refuseTooLong(schema.innerType, each, `${path}[${index}]`))
  } else if (schema.fields && value !== null && typeof value === 'object') {
    for (const [name, field] of Object.entries(schema.fields)) if (Object.hasOwn(value, name)) refuseTooLong(field, (value as Record<string, unknown>)[name], path ? `${path}.${name}` : name)
  }
}

/**
 * Names every list in a schema that has no longest length.
 * @returns their paths; what they hold could be checked for ever.
 */
export function endlessLists(schema: AnySchema | Schema<unknown>, path = 'request'): string[] {
  const part = schema as unknown as Part
  const own = part.type === 'array' && !mostOf(part) ? [path] : []
  const inner = part.innerType ? endlessLists(part.innerType as unknown as AnySchema, `${path}[]`) : []
  return [...own, ...inner, ...Object.entries(part.fields ?? {}).flatMap(([name, field]) => endlessLists(field as unknown as AnySchema, `${path}.${name}`))]
}
