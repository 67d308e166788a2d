/** The closed list of things that can go wrong on the wire; the server maps each to one HTTP status. */
export const problemCodes = [
  'malformed-request',
  'invalid-input',
  'too-large',
  'signed-out',
  'unidentified',
  'not-allowed',
  'too-many-tries',
  'not-found',
  'conflict',
  'breaks-rule',
  'in-hold',
  'stale',
  'key-reused',
  'ahead-of-clock',
  'storage-full',
  'busy',
  'internal',
] as const
export type ProblemCode = (typeof problemCodes)[number]

/** One complaint about one field; `path` is the field's name as sent, `row`/`column` for lists read from a file. */
export interface FieldError {
  path: string
  message: string
  row?: number
  column?: string
}

/** Body of an `application/problem+json` answer (RFC 9457). `detail` is a sentence for people. */
export interface ProblemBody {
  type: string
  code: ProblemCode
  title: string
  status: number
  detail: string
  errors?: FieldError[]
  /** For `stale` and `conflict`: what the server holds now; for `breaks-rule`: the rules (`RuleRefusal`); for `in-hold`: the lots (`HeldLot`). */
  current?: unknown
}
