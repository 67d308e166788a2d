import { handoverSections } from '../../core/handover/handoverSections'
import type { HandoverDue, HandoverView } from '../../core/handover/handoverView'
import { lastHere } from '../../core/handover/lastHere'
import type { LeaveWord, ReadHandover } from '../../core/handover/handover.schema'
import type { RescueView } from '../../core/today/todayView'
import type { FactsService } from '../facts/facts.service'
import type { Actor, CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import { newId } from '../newId'
import type { HandoverStore } from './handover.store'

/** How far back anything is looked for. */
const fromMs = 15 * 86_400_000

interface Collaborators {
  store: HandoverStore
  facts: Pick<FactsService, 'inUse'>
  rescues: () => readonly RescueView[]
}

/** What happened since somebody was last here: what others did, and the words that they left. */
export function createHandoverService({ store, facts, rescues }: Collaborators) {
  /** Since when somebody has to read: they were away before that, or had read until then. */
  function sinceOf({ id }: Pick<Actor, 'id'>, nowMs: number): { sinceMs: number; isRead: boolean } {
    const hereMs = lastHere([...store.timesOf(id, nowMs - fromMs)], nowMs)
    const readMs = store.readUntil(id)
    // What was read from this very visit on is read; another absence begins anew.
    return readMs !== null && readMs > hereMs ? { sinceMs: readMs, isRead: true } : { sinceMs: hereMs, isRead: false }
  }

  return {
    view(actor: Actor, nowMs: number): HandoverView {
      const { sinceMs } = sinceOf(actor, nowMs)
      const against = [
        ...store.breaches(sinceMs, actor.id).map(({ kind, note, by }) => ({ words: note === null ? kind : `${kind}: ${note}`, to: '/contacts', by })),
        ...rescues().filter(({ atMs, staffName }) => atMs > sinceMs && staffName !== actor.name).map(({ species, tankCode, rules, reason, staffName }) => ({ words: `${species} into ${tankCode} against ${rules}: ${reason}`, to: `/room/${tankCode}`, by: staffName })),
      ]
      const happened = { moved: store.moved(sinceMs, actor.id), tanks: facts.inUse(nowMs), pins: store.pins(sinceMs, actor.id), runs: store.runs(sinceMs, actor.id), chores: store.chores(sinceMs, actor.id), fed: store.fed(sinceMs, actor.id), against, written: store.written(sinceMs, actor.id) }
      return { sinceMs, untilMs: nowMs, notes: [...store.words(sinceMs, actor.id), ...store.wordsOf(actor.id, nowMs - 3 * 86_400_000)].sort((a, b) => b.atMs - a.atMs), sections: handoverSections(happened, sinceMs) }
    },
    due(actor: Actor, nowMs: number): HandoverDue {
      const { sinceMs, isRead } = sinceOf(actor, nowMs)
      return { sinceMs, isDue: !isRead && store.hasOthers(actor.id), notes: store.words(sinceMs, actor.id).length }
    },
    tickHandover({ actor, key, nowMs }: CommandContext, { untilMs }: ReadHandover) {
      if (untilMs > nowMs + 60_000) throw fieldProblem('untilMs', 'Nobody has read what is still to come')
      store.insertRead({ id: newId(), staffId: actor.id, untilMs, commandKey: key, atMs: nowMs })
      return {}
    },
    leaveWord({ actor, key, nowMs }: CommandContext, { words }: LeaveWord) {
      const id = newId()
      store.insertWord({ id, words: words.trim(), staffId: actor.id, commandKey: key, atMs: nowMs })
      return { id }
    },
    takeWordOff({ params, actor, nowMs }: CommandContext) {
      const word = store.word(params.wordId ?? '')
      if (!word || word.removedAtMs !== null) throw new Problem('not-found', 'This note was taken off already')
      if (word.staffId !== actor.id && actor.role !== 'lead') throw new Problem('not-allowed', 'Only a lead takes off what somebody else wrote')
      store.removeWord(word.id, { removedById: actor.id, removedAtMs: nowMs })
      return {}
    },
  }
}
export type HandoverService = ReturnType<typeof createHandoverService>
