import type { FieldError, ProblemBody, ProblemCode } from '../../core/problem/problem'

const kinds = {
  'malformed-request': { status: 400, title: 'The request cannot be read' },
  'invalid-input': { status: 422, title: 'Something entered is not right' },
  'too-large': { status: 413, title: 'The request is too large' },
  'signed-out': { status: 401, title: 'Nobody is signed in' },
  unidentified: { status: 403, title: 'Nobody is recording' },
  'not-allowed': { status: 403, title: 'Not allowed' },
  'too-many-tries': { status: 429, title: 'Too many tries' },
  'not-found': { status: 404, title: 'Not found' },
  conflict: { status: 409, title: 'This no longer fits' },
  'breaks-rule': { status: 422, title: 'A rule of the house forbids it' },
  'in-hold': { status: 409, title: 'The hold is not over' },
  stale: { status: 409, title: 'Changed by somebody else' },
  'key-reused': { status: 409, title: 'Key used before' },
  'ahead-of-clock': { status: 422, title: 'Later than the server’s clock' },
  'storage-full': { status: 507, title: 'The disk is full' },
  busy: { status: 503, title: 'The server is busy' },
  internal: { status: 500, title: 'The server failed' },
} satisfies Record<ProblemCode, { status: number; title: string }>

/** The one error of the server: a code of the closed list and a sentence for people. Everything else is a bug. */
export class Problem extends Error {
  constructor(
    readonly code: ProblemCode,
    detail: string,
    readonly extra: { errors?: FieldError[]; current?: unknown; cause?: unknown } = {},
  ) {
    super(detail, { cause: extra.cause })
  }

  get status(): number {
    return kinds[this.code].status
  }

  /** The answer as sent. */
  toBody(): ProblemBody {
    const { errors, current } = this.extra
    return {
      type: `urn:daily-crate:problem:${this.code}`,
      code: this.code,
      title: kinds[this.code].title,
      status: this.status,
      detail: this.message,
      ...(errors ? { errors } : {}),
      ...(current === undefined ? {} : { current }),
    }
  }
}

/** A problem with one field, said beside it. */
export const fieldProblem = (path: string, message: string): Problem => new Problem('invalid-input', message, { errors: [{ path, message }] })
