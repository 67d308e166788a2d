export interface Schema<T> {
  validateSync(value: unknown, options: { strict: boolean; abortEarly: boolean }): T
}

/**
 * Checks a JSON value against a schema without changing it: `"12"` is no number here, and stray fields are refused.
 * @throws ValidationError with one entry per fault.
 */
export const validated = <T>(schema: Schema<T>, value: unknown): T => schema.validateSync(value ?? {}, { strict: true, abortEarly: false })
