import { outcomeRules, type OutcomeRules } from './outcomeRules'

/** Chance to die on a day, by days since opening; house guidance until the room's own fish say otherwise. */
export const hazardTable: readonly { from: number; to: number | null; perFishDay: number }[] = [
  { from: 0, to: 1, perFishDay: 0.01 },
  { from: 2, to: 3, perFishDay: 0.006 },
  { from: 4, to: 7, perFishDay: 0.003 },
  { from: 8, to: 14, perFishDay: 0.002 },
  { from: 15, to: 30, perFishDay: 0.001 },
  { from: 31, to: null, perFishDay: 0.0005 },
]
/** Share of the fish of a crate that is usually dead in the bag. */
export const usualInBagShare = 0.01
/** The room's own losses are learned from this window, which ends before an outbreak could hide itself. */
export const historyDays = { window: 365, endsBefore: 28 }

/** What the room saw of one row of the table: deaths and days that fish lived through. */
export interface HazardSeen {
  from: number
  dead: number
  fishDays: number
}
export interface Hazard {
  from: number
  perFishDay: number
}

/** The table, drawn towards what the room saw of its own fish. */
export function hazardsOf(history: readonly HazardSeen[] = [], { hazardWeight }: Pick<OutcomeRules, 'hazardWeight'>): Hazard[] {
  return hazardTable.map(({ from, perFishDay }) => {
    const seen = history.find((each) => each.from === from)
    return { from, perFishDay: ((seen?.dead ?? 0) + hazardWeight * perFishDay) / ((seen?.fishDays ?? 0) + hazardWeight) }
  })
}

/** Which row of the table a day since opening falls into. */
export function hazardRow(day: number): number {
  let row = 0
  while (row + 1 < hazardTable.length && day >= (hazardTable[row + 1]?.from ?? Infinity)) row += 1
  return row
}

/** How much more easily a species dies than all: its deaths against those to be expected, few deaths drawn towards 1. */
export const factorOf = (dead: number, expected: number, { factorWeight }: Pick<OutcomeRules, 'factorWeight'>): number => (dead + factorWeight) / (expected + factorWeight)

/**
 * Losses to be expected of fish on one day: a delivery must not ring an alarm by being one. Source: docs/outcomes.md.
 * @param stock - fish by days since their opening; `factor` of their species, 1 when missing.
 */
export function expectedLosses({ stock, history, limits }: { stock: readonly { day: number; fish: number; factor?: number }[]; history?: readonly HazardSeen[]; limits?: Partial<OutcomeRules> }): { hazards: Hazard[]; expected: number } {
  const hazards = hazardsOf(history, outcomeRules(limits))
  return { hazards, expected: stock.reduce((sum, { day, fish, factor = 1 }) => sum + fish * factor * (hazards[hazardRow(day)]?.perFishDay ?? 0), 0) }
}
