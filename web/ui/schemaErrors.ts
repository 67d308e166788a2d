import { ValidationError, type Schema } from 'yup'

/** What a schema has against values, one sentence per field; empty when nothing. Values must have their final types. */
export function schemaErrors(schema: Schema, values: unknown): Record<string, string> {
  try {
    schema.validateSync(values, { strict: true, abortEarly: false })
    return {}
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error
    // The first sentence about a field says most: that it is missing, not also that it is too short.
    return Object.fromEntries(error.inner.map((inner) => [inner.path ?? '', inner.message] as const).reverse())
  }
}
