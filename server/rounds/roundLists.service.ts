import { eq } from 'drizzle-orm'
import { shippedRoundRules, type RoundRules } from '../../core/rounds/roundRules'
import { listsOf, readRoundLists, withLists, type ChangeRoundLists, type RoundListChanges, type RoundListsView } from '../../core/rounds/roundLists.schema'
import type { AuditStore } from '../audit/audit.store'
import type { Database } from '../db/open'
import type { CommandContext } from '../http/endpoint'
import { parsedField } from '../http/parsedField'
import { fieldProblem, Problem } from '../http/problem'
import { staff } from '../staff/staff.table'
import { roundList } from './roundLists.table'

/** The lists behind the round: as shipped, until a lead changes an entry. */
export function createRoundListsService({ orm, version }: Pick<Database, 'orm' | 'version'>, audit: AuditStore) {
  let known: { version: string; rules: RoundRules } | null = null
  const row = () => orm.select({ changes: roundList.changes, version: roundList.version, changedBy: staff.name, changedAtMs: roundList.changedAtMs }).from(roundList).innerJoin(staff, eq(staff.id, roundList.changedById)).get() ?? null
  const changesOf = (kept: string | undefined): RoundListChanges => (kept === undefined ? {} : (JSON.parse(kept) as RoundListChanges))

  function view(): RoundListsView {
    const { changes, version: now = 0, changedBy = null, changedAtMs = null } = row() ?? {}
    return { shipped: listsOf(shippedRoundRules), changes: changesOf(changes), version: now, changedBy, changedAtMs }
  }

  return {
    view,
    /** The rules in force but for the house's single numbers; read once until something is written. */
    inForce(): RoundRules {
      if (known?.version !== version()) known = { version: version(), rules: withLists(changesOf(row()?.changes)) }
      return known.rules
    },

    /** Sets what the house wants to be other than shipped. */
    changeRoundLists(context: CommandContext, { rules, version: seen }: ChangeRoundLists) {
      const now = row()
      if ((now?.version ?? 0) !== seen) throw new Problem('stale', 'Somebody else changed these lists meanwhile', { current: view() })
      const read = readRoundLists(parsedField('rules', rules))
      if (!read.ok) throw fieldProblem('rules', `${read.problems.slice(0, 5).join('. ')}.`)
      const kept = { changes: JSON.stringify(read.changes), version: seen + 1, changedById: context.actor.id, changedAtMs: context.nowMs }
      orm.insert(roundList).values({ id: 1, ...kept }).onConflictDoUpdate({ target: roundList.id, set: kept }).run()
      audit.insert({ atMs: context.nowMs, staffId: context.actor.id, action: 'edited', subject: 'lists of the round', changes: { lists: [now?.changes ?? '{}', kept.changes] }, commandKey: context.key })
      return { version: seen + 1 }
    },
  }
}
export type RoundListsService = ReturnType<typeof createRoundListsService>
