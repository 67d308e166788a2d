import { shippedMatrix } from '../../core/dosing/agents'
import { policyFor } from '../../core/holds/policyFor'
import type { HoldPolicy } from '../../core/holds/policy'
import type { Thing } from '../../core/commands/things'
import { agentId } from './heldHistory.store'
import type { HoldBooksStore, NewLotRow } from './holdBooks.store'

interface Collaborators {
  books: HoldBooksStore
  policies: () => ReadonlyMap<string, HoldPolicy>
  judgePairings: (staffId: string, key: string, nowMs: number) => void
}
/** Hold groups of the table of refusals, by how the species book calls them. */
const groupNames: Readonly<Record<string, string>> = { 'seahorse or pipefish': 'seahorsePipefish', scorpionfish: 'lionfish', 'puffer or boxfish': 'puffer', 'shark or ray': 'sharkRay', 'soft-water fish': 'softWaterFish' }
const groupOf = (name: string): string => groupNames[name] ?? name
/** Below this alkalinity copper and its like are stronger; below this salinity sea water is lowered. */
const [softMeqL, loweredPpt] = [1, 20]

/** What stands in a water, by the names of the table of refusals. */
function contentsOf({ water, agents, alkalinityMeqL, salinityPpt }: NewLotRow): string[] {
  const isLowered = water === 'marine' && salinityPpt !== null && salinityPpt < loweredPpt
  const present = agents.map((agent) => `with:${agentId(agent)}`).filter((condition) => condition in shippedMatrix)
  return [...present, ...(alkalinityMeqL !== null && alkalinityMeqL < softMeqL ? ['softWater'] : []), ...(isLowered ? ['loweredSalinity'] : [])]
}

/**
 * Keeps beside every write what holds will be played by: which hold a new lot begins, and which water a tank belongs to. In
 * the transaction of the write itself, so that neither is ever missing.
 */
export function createHoldKeeping({ books, policies, judgePairings }: Collaborators) {
  /** Fish out of a bag begin the hold that the house's rules choose; others begin none by themselves. */
  function begin(row: NewLotRow, key: string, nowMs: number): void {
    const groups = row.isKnown ? row.groups.map(groupOf) : []
    const [group = row.isKnown ? 'other' : null, ...otherGroups] = groups
    const chosen = row.isFromBag ? policyFor(books.rules().rules, { water: row.water, group, otherGroups, supplier: row.supplier, origin: row.origin, isWeak: row.isWeak }, contentsOf(row), policies()) : { policy: null, rule: null, skipped: [] }
    books.begin({ lotId: row.lotId, policyId: chosen.policy, rule: chosen.rule, skipped: chosen.skipped, commandKey: key, recordedAtMs: nowMs })
  }

  function keepWaters(nowMs: number): void {
    for (const { tankId, waterId, isFirst } of books.newWaters()) books.keepWater({ tankId, waterId, sinceMs: isFirst ? 0 : nowMs })
  }

  return {
    keepWaters,
    /** After a command, before its transaction ends. */
    after({ key, staffId, nowMs }: { key: string; staffId: string; nowMs: number }, touched: readonly Thing[]): void {
      if (touched.some((thing) => thing.startsWith('register'))) keepWaters(nowMs)
      for (const row of books.cameBy(key)) begin(row, key, nowMs)
      if (touched.some((thing) => /^(look|tank)\b/.test(thing))) judgePairings(staffId, key, nowMs)
    },
  }
}
export type HoldKeeping = ReturnType<typeof createHoldKeeping>
