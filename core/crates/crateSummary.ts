import type { ClaimState } from './claim'

/** What a crate is, without what is in it. */
export interface CrateHead {
  id: string
  number: number
  supplier: string
  expectedAtMs: number | null
  packedAtMs: number | null
  /** When the first bag was opened; null before. */
  arrivedAtMs: number | null
  /** Hours after arrival within which its supplier takes claims; null when not agreed. */
  claimWindowHours: number | null
  claimState: ClaimState | null
  closedAtMs: number | null
}

export interface CrateSummary extends CrateHead {
  lineCount: number
  bagCount: number
  openedCount: number
  listed: number
  alive: number
  dead: number
  /** Fish missing against the list, added up by line over the bags that were opened. */
  missing: number
  inBags: number
}

export type CrateStage = 'due' | 'opening' | 'placing' | 'done' | 'closed'

/** Names where a crate stands, from its totals alone. */
export function crateStage({ bags, opened, inBags }: { bags: number; opened: number; inBags: number }, closedAtMs: number | null): CrateStage {
  if (closedAtMs !== null) return 'closed'
  if (opened === 0) return 'due'
  if (opened < bags) return 'opening'
  return inBags > 0 ? 'placing' : 'done'
}

/** Names where a crate stands, from its summary. */
export const summaryStage = ({ bagCount, openedCount, inBags, closedAtMs }: CrateSummary): CrateStage => crateStage({ bags: bagCount, opened: openedCount, inBags }, closedAtMs)
