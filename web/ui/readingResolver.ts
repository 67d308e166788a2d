import { toNestErrors } from '@hookform/resolvers'
import type { FieldErrors, FieldValues, Resolver } from 'react-hook-form'

/** What stands in the fields, read: what is sent, or what is wrong by the path of each field. */
export type Reading<S> = { ok: true; values: S } | { ok: false; errors: Record<string, string> }

/** Checks a form by reading what was typed into what is sent; that is what its submit then gets. */
export const readingResolver =
  <T extends FieldValues, S>(read: (typed: T) => Reading<S>): Resolver<T, unknown, S> =>
  (typed, _context, options) => {
    const result = read(typed)
    if (result.ok) return { values: result.values, errors: {} }
    const errors = Object.fromEntries(Object.entries(result.errors).map(([path, message]) => [path, { type: 'read', message }]))
    return { values: {}, errors: toNestErrors(errors as unknown as FieldErrors<T>, options) }
  }
