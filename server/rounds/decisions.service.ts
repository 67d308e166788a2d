import type { Mark } from '../../core/facts/facts'
import { signEpisode } from '../../core/rounds/signDecision'
import type { DecideSign } from '../../core/rounds/rounds.schema'
import type { FactsService } from '../facts/facts.service'
import { requireFreshPin, type CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import { newId } from '../newId'
import type { DecisionsStore } from './decisions.store'

const dayMs = 86_400_000
/** For so long whoever decided takes it back; later a lead does. */
const ownUndoMs = dayMs

interface Collaborators {
  store: DecisionsStore
  facts: Pick<FactsService, 'inUse' | 'requireTank'>
}

/** What people decide of signs: that it is one, so that holds begin again; that it is none; that it is known. */
export function createDecisionsService({ store, facts }: Collaborators) {
  const tanksOn = (waterId: string, nowMs: number): string[] => facts.inUse(nowMs).filter(({ water }) => water.id === waterId).map(({ tankId }) => tankId)

  return {
    decideSign({ params, actor, key, nowMs }: CommandContext, { sign, lotId, decision, days, note, happenedAtMs }: DecideSign) {
      const tank = facts.requireTank(params.tankId ?? '', 'tankId', nowMs)
      if (decision !== 'confirmed') {
        if (actor.role !== 'lead') throw new Problem('not-allowed', 'Only a lead says that a sign is none, or known')
        requireFreshPin(actor)
      }
      const episode = signEpisode(tank, sign, lotId, nowMs)
      if (!episode) throw fieldProblem('sign', `${sign === 'death' ? 'No fish was found dead' : `"${sign}" was not seen`} here in the last seven days`)
      const { severity, firstMs, lastMs } = episode
      const id = newId()
      store.replace({ tankId: tank.tankId, sign, lotId, decision }, { undoneById: actor.id, undoneAtMs: nowMs })
      store.insert({ ...{ id, tankId: tank.tankId, lotId, sign, decision, severity, firstMs, lastMs, lastKey: key }, untilMs: decision === 'known' ? happenedAtMs + (days ?? 1) * dayMs : null, note: note?.trim() || null, staffId: actor.id, commandKey: key, happenedAtMs, recordedAtMs: nowMs })
      if (decision === 'confirmed') store.reach(id, tanksOn(tank.water.id, nowMs), lastMs)
      return { id }
    },

    undoDecision({ params, actor, nowMs }: CommandContext) {
      const row = store.byId(params.decisionId ?? '')
      if (!row || row.undoneAtMs !== null) throw new Problem('conflict', 'There is no such decision, or it was taken back already')
      const isOwn = row.staffId === actor.id && nowMs - row.recordedAtMs <= ownUndoMs
      if (!isOwn && actor.role !== 'lead') throw new Problem('not-allowed', 'A lead takes this back, since a hold hangs on it')
      store.undo(row.id, { undoneById: actor.id, undoneAtMs: nowMs })
      return {}
    },

    /** A look names signs: what was decided of them goes on. */
    seenOn(tankId: string, marks: readonly Mark[], atMs: number, { key, nowMs }: Pick<CommandContext, 'key' | 'nowMs'>): void {
      const goOn = marks.flatMap(({ sign, severity, lotId }) => store.seenOn({ tankId, sign, severity, lotId, atMs, key }))
      const confirmed = goOn.filter(({ decision }) => decision === 'confirmed')
      if (confirmed.length === 0) return
      const onWater = tanksOn(facts.requireTank(tankId, 'tankId', nowMs).water.id, nowMs)
      for (const { id } of confirmed) store.reach(id, onWater, atMs)
    },
  }
}
export type DecisionsService = ReturnType<typeof createDecisionsService>
