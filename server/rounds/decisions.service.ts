import type { Mark } from '../../core/facts/facts'
import { signEpisode } from '../../core/rounds/signDecision'
import { groupBy } from '../../core/collections/groupBy'
import type { DecidedSign, DecideSign } from '../../core/rounds/rounds.schema'
import type { FactsService } from '../facts/facts.service'
import { requireLead, requireMayTakeBack, type CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import { newId } from '../newId'
import type { DecisionsStore } from './decisions.store'

/** A sign as it was seen once. */
export interface SeenSign {
  sign: DecidedSign
  lotId: string | null
  severity: number
  atMs: number
}
const dayMs = 86_400_000

interface Collaborators {
  store: DecisionsStore
  facts: Pick<FactsService, 'requireTank'>
}

/** What people decide of signs: that it is one, so that holds begin again; that it is none; that it is known. */
export function createDecisionsService({ store, facts }: Collaborators) {
  return {
    decideSign({ params, actor, key, nowMs }: CommandContext, { sign, lotId, decision, days, note, happenedAtMs }: DecideSign) {
      const tank = facts.requireTank(params.tankId ?? '', 'tankId', nowMs)
      if (decision !== 'confirmed') requireLead(actor, 'Only a lead says that a sign is none, or known')
      const episode = signEpisode(tank, sign, lotId, nowMs)
      if (!episode) throw fieldProblem('sign', `${sign === 'death' ? 'No fish was found dead' : `"${sign}" was not seen`} here in the last seven days`)
      const { severity, firstMs, lastMs } = episode
      const id = newId()
      store.replace({ tankId: tank.tankId, sign, lotId, decision, firstMs, lastMs }, { undoneById: actor.id, undoneAtMs: nowMs })
      store.insert({ ...{ id, tankId: tank.tankId, lotId, sign, decision, severity, firstMs, lastMs, lastKey: key }, untilMs: decision === 'known' ? happenedAtMs + (days ?? 1) * dayMs : null, note: note?.trim() || null, staffId: actor.id, commandKey: key, happenedAtMs, recordedAtMs: nowMs })
      return { id }
    },

    undoDecision({ params, actor, nowMs }: CommandContext) {
      const row = store.byId(params.decisionId ?? '')
      if (!row || row.undoneAtMs !== null) throw new Problem('conflict', 'There is no such decision, or it was taken back already')
      requireMayTakeBack({ actor, nowMs }, row)
      store.undo(row.id, { undoneById: actor.id, undoneAtMs: nowMs })
      return {}
    },

    /** A look names signs: what was decided of them goes on. */
    seenOn(tankId: string, marks: readonly Mark[], atMs: number, { key }: Pick<CommandContext, 'key'>): void {
      for (const { sign, severity, lotId } of marks) store.seenOn({ tankId, sign, severity, lotId, atMs, key })
    },

    /** What somebody says of signs of one word, however long ago they were seen: of the tank, and of every lot they were seen on. */
    decideSeen({ actor, key, nowMs }: CommandContext, tankId: string, seen: readonly SeenSign[], { decision, note, happenedAtMs }: { decision: 'confirmed' | 'dismissed'; note: string | null | undefined; happenedAtMs: number }): string[] {
      return [...groupBy(seen, ({ lotId }) => lotId ?? '').values()].flatMap((same) => {
        const [first] = same
        if (!first) return []
        const times = same.map(({ atMs }) => atMs)
        const row = { tankId, sign: first.sign, lotId: first.lotId, decision, firstMs: Math.min(...times), lastMs: Math.max(...times) }
        const id = newId()
        store.replace(row, { undoneById: actor.id, undoneAtMs: nowMs })
        store.insert({ id, ...row, severity: Math.max(...same.map(({ severity }) => severity)), lastKey: key, untilMs: null, note: note?.trim() || null, staffId: actor.id, commandKey: key, happenedAtMs, recordedAtMs: nowMs })
        return [id]
      })
    },
  }
}
export type DecisionsService = ReturnType<typeof createDecisionsService>
