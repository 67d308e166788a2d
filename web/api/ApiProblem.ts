import type { FieldError, ProblemBody, ProblemCode } from '../../core/problem/problem'

/** What the server refused, in its own words. */
export class ApiProblem extends Error {
  readonly code: ProblemCode
  readonly status: number
  readonly errors: FieldError[]
  readonly current: unknown

  constructor(body: ProblemBody) {
    super(body.detail)
    this.code = body.code
    this.status = body.status
    this.errors = body.errors ?? []
    this.current = body.current
  }
}

/** The server did not answer: off, restarting, or behind a rack. */
export class Unreachable extends Error {
  constructor(cause?: unknown) {
    super('The server cannot be reached', { cause })
  }
}

/** Says an error of a read or a write in a sentence. */
export const sentenceOf = (error: unknown): string =>
  error instanceof ApiProblem || error instanceof Unreachable ? error.message : 'Something went wrong in this browser; reload the page'

/**
 * What the server says of each field, by its path; null when it named none.
 * @param inside - part of the body that the form's fields stand in, left off their paths.
 */
export function errorsByField(error: unknown, inside = ''): Record<string, string> | null {
  if (!(error instanceof ApiProblem) || error.errors.length === 0) return null
  return Object.fromEntries(error.errors.map(({ path, message }) => [inside && path.startsWith(`${inside}.`) ? path.slice(inside.length + 1) : path, message]))
}

/** What stands there now, out of the refusal of a stale save; any other error is thrown on. */
export function currentOf<T>(error: unknown): T {
  if (error instanceof ApiProblem && error.code === 'stale') return error.current as T
  throw error
}
