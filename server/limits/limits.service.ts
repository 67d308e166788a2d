import { eq } from 'drizzle-orm'
import { houseLimitKeys, houseLimits, isLimitKey, type ChangeLimit, type Limits, type LimitView } from '../../core/limits/houseLimits'
import { rulesWith } from '../../core/limits/roundLimits'
import type { RoundRules } from '../../core/rounds/roundRules'
import { changesBetween, type AuditStore } from '../audit/audit.store'
import type { Database } from '../db/open'
import type { CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import { staff } from '../staff/staff.table'
import { houseLimit } from './limits.table'

/**
 * The house's numbers: the standard until a lead changes one.
 * @param lists - the lists behind the round as the house has them; its numbers go over them.
 */
export function createLimitsService({ orm, version }: Pick<Database, 'orm' | 'version'>, audit: AuditStore, lists: () => RoundRules) {
  const changed = () => new Map(orm.select({ key: houseLimit.key, value: houseLimit.value, source: houseLimit.source, version: houseLimit.version, changedBy: staff.name, changedAtMs: houseLimit.changedAtMs }).from(houseLimit).innerJoin(staff, eq(staff.id, houseLimit.changedById)).all().map((row) => [row.key, row]))

  function views(): LimitView[] {
    const rows = changed()
    return houseLimitKeys.map((key) => {
      const { value, source, version, changedBy, changedAtMs } = rows.get(key) ?? { value: houseLimits[key].standard, source: houseLimits[key].source, version: 0, changedBy: null, changedAtMs: null }
      return { key, value, source, version, changedBy, changedAtMs }
    })
  }

  let known: { version: string; limits: Limits; rules: RoundRules } | null = null

  /** The numbers in force; read once until something is written, since a screen asks for them at every lot. */
  function current() {
    if (known?.version !== version()) {
      const limits = Object.fromEntries(views().map(({ key, value }) => [key, value])) as Limits
      known = { version: version(), limits, rules: rulesWith(limits, lists()) }
    }
    return known
  }

  return {
    list: (): { limits: LimitView[] } => ({ limits: views() }),
    inForce: (): Limits => current().limits,
    /** The rules of the round, with the house's own numbers in them. */
    roundRules: (): RoundRules => current().rules,

    /** Sets a limit, with where the number comes from. */
    change(context: CommandContext, { value, source, version }: ChangeLimit) {
      const key = context.params.key ?? ''
      if (!isLimitKey(key)) throw new Problem('not-found', 'There is no such limit')
      const limit = houseLimits[key]
      if (value < limit.min || value > limit.max) throw fieldProblem('value', `${limit.label} must be between ${limit.min} and ${limit.max} ${limit.unit}`.trim())
      const now = views().find((view) => view.key === key) as LimitView
      if (now.version !== version) throw new Problem('stale', 'Somebody else changed this limit meanwhile', { current: now })
      const row = { value, source: source ?? now.source, version: version + 1, changedById: context.actor.id, changedAtMs: context.nowMs }
      orm.insert(houseLimit).values({ key, ...row }).onConflictDoUpdate({ target: houseLimit.key, set: row }).run()
      audit.insert({ atMs: context.nowMs, staffId: context.actor.id, action: 'edited', subject: `limit ${limit.label}`, changes: changesBetween({ value: now.value, source: now.source }, { value, source: row.source }), commandKey: context.key })
      return { version: version + 1 }
    },
  }
}
export type LimitsService = ReturnType<typeof createLimitsService>
