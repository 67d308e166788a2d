import { minuteOf } from '../../core/contacts/contact'
import { agentId, goneAfterDays, shippedAgents, shippedMatrix } from '../../core/dosing/agents'
import { agentsIn, clearWater, withDose, withoutAgents } from '../../core/holds/waterState'
import { zoneDays } from '../../core/time/zoneDays'
import { policyFor } from '../../core/holds/policyFor'
import type { HoldPolicy } from '../../core/holds/policy'
import type { Thing } from '../../core/commands/things'
import { holdGroupsOf } from '../../core/species/holdGroups'
import type { HoldBooksStore, NewLotRow } from './holdBooks.store'

interface Collaborators {
  books: HoldBooksStore
  policies: () => ReadonlyMap<string, HoldPolicy>
  zone: () => string
  judgePairings: (staffId: string, key: string, nowMs: number) => void
}
/** Below this alkalinity copper and its like are stronger; below this salinity sea water is lowered. */
const [softMeqL, loweredPpt] = [1, 20]

/** What stands in a water, by the names of the table of refusals. */
function contentsOf({ water, alkalinityMeqL, salinityPpt }: NewLotRow, agents: readonly string[]): string[] {
  const isLowered = water === 'marine' && salinityPpt !== null && salinityPpt < loweredPpt
  const present = agents.map((agent) => `with:${agent}`).filter((condition) => condition in shippedMatrix)
  return [...present, ...(alkalinityMeqL !== null && alkalinityMeqL < softMeqL ? ['softWater'] : []), ...(isLowered ? ['loweredSalinity'] : [])]
}

/**
 * Keeps beside every write what holds will be played by: which hold a new lot begins, and which water a tank belongs to. In
 * the transaction of the write itself, so that neither is ever missing.
 */
export function createHoldKeeping({ books, policies, zone, judgePairings }: Collaborators) {
  /** Agents in the water of a tank, by what was written down of it: clocks are not asked, since this write is not in them yet. */
  function agentsAt(tankId: string, nowMs: number): string[] {
    const { dayOf } = zoneDays(zone())
    const [day, minute] = [dayOf(minuteOf(nowMs)), minuteOf(nowMs)]
    const state = books.putInto(tankId).filter(({ atMs }) => minuteOf(atMs) <= minute).reduce((water, { of, agent, atMs }) => (of === 'cleared' ? withoutAgents(water, [agentId(agent)]) : withDose(water, agentId(agent), dayOf(minuteOf(atMs)))), clearWater)
    return agentsIn(state, day, goneAfterDays(shippedAgents))
  }

  /** Fish out of a bag begin the hold that the house's rules choose; others begin none by themselves. */
  function begin(row: NewLotRow, key: string, nowMs: number): void {
    const [group = null, ...others] = holdGroupsOf(row.groups, row.animal, row.isKnown)
    const otherGroups = others.filter((each) => each !== null)
    const chosen = row.isFromBag ? policyFor(books.rules().rules, { water: row.water, group, otherGroups, supplier: row.supplier, origin: row.origin, isWeak: row.isWeak }, row.tankId === null ? contentsOf(row, []) : [...contentsOf(row, agentsAt(row.tankId, nowMs)), ...books.contentsAt(row.tankId, nowMs)], policies()) : { policy: null, rule: null, skipped: [] }
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
