import { readMoveRules, withChanges } from '../../core/moves/houseMoveRules'
import { shippedMoveRules, type MoveRules } from '../../core/moves/moveRules'
import type { ChangeMoveRules } from '../../core/moves/moves.schema'
import type { MoveRulesView } from '../../core/moves/moveView'
import type { AuditStore } from '../audit/audit.store'
import type { CommandContext } from '../http/endpoint'
import { parsedField } from '../http/parsedField'
import { fieldProblem, Problem } from '../http/problem'
import type { MovesStore } from './moves.store'

interface Collaborators {
  store: Pick<MovesStore, 'rule' | 'keepRule'>
  /** Names what the books hold. */
  version: () => string
  audit: AuditStore
}

/** The numbers of moves: as shipped, until a lead changes one. */
export function createMoveRulesService({ store, version, audit }: Collaborators) {
  let known: { version: string; rules: MoveRules } | null = null
  return {
    /** The rules in force; read once until something is written. */
    inForce(): MoveRules {
      if (known?.version !== version()) known = { version: version(), rules: withChanges(store.rule()?.changes ?? {}) }
      return known.rules
    },

    view(): MoveRulesView {
      const { changes = {}, version: now = 0, changedBy = null, changedAtMs = null } = store.rule() ?? {}
      return { shipped: shippedMoveRules, changes, version: now, changedBy, changedAtMs }
    },

    /** Sets what the house wants to be other than shipped. */
    change(context: CommandContext, { rules, version: seen }: ChangeMoveRules) {
      const now = store.rule()
      if ((now?.version ?? 0) !== seen) throw new Problem('stale', 'Somebody else changed these rules meanwhile', { current: this.view() })
      const read = readMoveRules(parsedField('rules', rules))
      if (!read.ok) throw fieldProblem('rules', `${read.problems.slice(0, 5).join('. ')}.`)
      store.keepRule({ changes: read.changes, version: seen + 1, changedById: context.actor.id, changedAtMs: context.nowMs })
      audit.insert({ atMs: context.nowMs, staffId: context.actor.id, action: 'edited', subject: 'rules of moves', changes: { rules: [JSON.stringify(now?.changes ?? {}), JSON.stringify(read.changes)] }, commandKey: context.key })
      return { version: seen + 1 }
    },
  }
}
export type MoveRulesService = ReturnType<typeof createMoveRulesService>
