/** Fish of one lot that went on one day since its opening: so many died, so many went out of sight alive. */
export interface Exit {
  day: number
  dead: number
  gone: number
  /** The outbreak these deaths belong to: fish of five crates in one sick water are one event. */
  event?: string | undefined
}

/**
 * What the figures of Outcomes are made of: a lot, its crate, and when its fish went. `n` are alive at opening; whoever is
 * not in `out` goes out of sight on `until`. On one day deaths come before departures.
 */
export interface LossRow {
  lot?: string | undefined
  /** What is independent: fish of one crate travelled, waited and were opened together. */
  crate: string
  group?: string | undefined
  /** What it is like, finest first: like is compared with like. */
  strata?: readonly string[] | undefined
  n: number
  /** Sorted by day, one a day at most; fish may be fractions where a death was attributed. */
  out: readonly Exit[]
  /** Missing: the day of the last row of `out`, else 0. */
  until?: number | undefined
  /** Deaths in it that were attributed, not seen. */
  shared?: number | undefined
}

/** The day on which whoever is left goes out of sight. */
export const lastDayOf = ({ until, out }: { until?: number | undefined; out: readonly { day: number }[] }): number => until ?? out.at(-1)?.day ?? 0

/** Deaths of a row up to a day, that day included. */
export const deadBy = (row: Pick<LossRow, 'out'>, day = Infinity): number => row.out.reduce((sum, exit) => (exit.day <= day ? sum + exit.dead : sum), 0)
