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
