/** A worked case of the specification. */
export interface WorkedCase {
  id: string
  fn: string
  inputs: unknown
  expected: unknown
  /** How near its figures are promised. */
  tolerance?: number
}

/** Worked cases, as they stand in core/fixtures, as rows of a test. */
export const casesOf = (json: string): (readonly [id: string, fn: string, worked: WorkedCase])[] => (JSON.parse(json) as WorkedCase[]).map((each) => [each.id, each.fn, each] as const)

/** What the core answers under a name of the specification. */
export const answerOf = (acceptance: object, fn: string, inputs: unknown): unknown => (acceptance as Record<string, (inputs: unknown) => unknown>)[fn]?.(inputs)

/** Figures as near as the worked cases promise, everything else as it is. */
export const rounded = (value: unknown, tolerance = 1e-6): unknown => JSON.parse(JSON.stringify(value, (_key, each: unknown) => (typeof each === 'number' ? Math.round(each / tolerance) * tolerance : each)))
