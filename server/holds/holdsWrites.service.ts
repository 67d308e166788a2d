import { agentId } from '../../core/dosing/agents'
import type { HoldClock } from '../../core/holds/holdClock'
import { groupOf, waterOf, waterState } from '../../core/holds/holdRoom'
import type { ChangeHold, DecideBreach, DecideHeldSign, EndHolds, LengthenHold, RecordBody, RecordCleared } from '../../core/holds/holds.schema'
import { agentsIn } from '../../core/holds/waterState'
import { daysBetween } from '../../core/time/daysBetween'
import type { DecidedSign } from '../../core/rounds/rounds.schema'
import type { FactsService } from '../facts/facts.service'
import { requireLead, requireMayTakeBack, type CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import { lastId, newId } from '../newId'
import type { DecisionsService } from '../rounds/decisions.service'
import type { HoldBooksStore } from './holdBooks.store'
import type { HoldsService } from './holds.service'
import type { HoldEntryKind } from './holds.table'

interface Collaborators {
  books: HoldBooksStore
  holds: HoldsService
  facts: Pick<FactsService, 'requireTank'>
  decisions: Pick<DecisionsService, 'decideSeen'>
  /** How fish of a lot in a place are called. */
  nameOf: (lotId: string, place: string, nowMs: number) => string
  isBreach: (contactId: string) => boolean
}
interface Named {
  lotId: string
  placeId: string
}

/** What people do to holds: decide, end, begin another, make longer, say what they saw. */
export function createHoldsWrites({ books, holds, facts, decisions, nameOf, isBreach }: Collaborators) {
  /** Clocks of fish that somebody named; beside the field where they stand nowhere. */
  function named(fish: readonly Named[], nowMs: number): (Named & { clock: HoldClock })[] {
    const room = holds.rooms.at(nowMs)
    return fish.map((each, index) => {
      const group = groupOf(room, each.lotId, holds.placeOf(room, each.placeId))
      if (!group) throw fieldProblem(`fish[${index}]`, 'These fish do not stand there')
      return { ...each, clock: holds.readClock(room, group) }
    })
  }
  const isRunning = ({ clock }: { clock: HoldClock }): boolean => clock.status === 'holding' || clock.status === 'ready'

  function insert({ actor, key, nowMs }: CommandContext, kind: HoldEntryKind, row: { placeId: string; lotId: string | null; happenedAtMs: number } & Partial<Parameters<HoldBooksStore['insertEntry']>[0]>): string {
    const id = kind === 'cleared' ? lastId() : newId()
    books.insertEntry({ policyId: null, phase: null, days: null, word: null, reason: null, shortDays: null, shortGates: null, ...row, id, kind, staffId: actor.id, commandKey: key, recordedAtMs: nowMs })
    return id
  }

  return {
    decideHeldSign(context: CommandContext, { tankId, word, decision, note, happenedAtMs }: DecideHeldSign) {
      if (decision === 'dismissed') requireLead(context.actor, 'Only a lead says that a sign is none')
      const seen = holds.openSigns(context.nowMs).filter((sign) => sign.tankId === tankId && sign.sign === word)
      if (seen.length === 0) throw fieldProblem('word', 'No hold waits for this any more')
      return { ids: decisions.decideSeen(context, tankId, seen.map(({ sign, lotId, severity, atMs }) => ({ sign: sign as DecidedSign, lotId: sign === 'death' ? null : lotId, severity, atMs })), { decision, note, happenedAtMs }) }
    },

    decideBreach(context: CommandContext, { decision, note }: DecideBreach) {
      if (decision === 'dismissed') requireLead(context.actor, 'Only a lead says that nothing came across')
      const contactId = context.params.contactId ?? ''
      if (!isBreach(contactId)) throw new Problem('not-found', 'There is no such breach')
      const id = newId()
      books.undoBreach(contactId, { undoneById: context.actor.id, undoneAtMs: context.nowMs })
      books.decideBreach({ id, contactId, decision, note: note?.trim() || null, staffId: context.actor.id, commandKey: context.key, recordedAtMs: context.nowMs })
      return { id }
    },

    endHolds(context: CommandContext, { fish, reason, happenedAtMs }: EndHolds) {
      const rows = named(fish, context.nowMs).filter(isRunning)
      if (rows.length === 0) throw new Problem('conflict', 'Their hold is over already')
      const early = rows.filter(({ clock }) => clock.status !== 'ready')
      const why = reason?.trim() ?? ''
      if (early.length > 0) {
        requireLead(context.actor, `${early.map(({ lotId, placeId }) => nameOf(lotId, placeId, context.nowMs)).join(', ')} not ready: only a lead ends a hold before its time`)
        if (why === '') throw fieldProblem('reason', 'Say why it ends before its time')
      }
      return { ids: rows.map(({ lotId, placeId, clock }) => insert(context, 'end', { placeId, lotId, happenedAtMs, reason: why || null, shortDays: shortDays(clock, holds.dayOn(context.nowMs)), shortGates: clock.waitsFor.filter((gate) => gate !== 'days') })) }
    },

    changeHold(context: CommandContext, { fish, policyId, phase, reason, happenedAtMs }: ChangeHold) {
      const policy = holds.rules().policies.get(policyId)
      if (!policy || books.policy(policyId)?.retiredAtMs != null) throw fieldProblem('policyId', 'There is no such policy')
      if (phase !== null && phase !== undefined && !policy.phases.some(({ id }) => id === phase)) throw fieldProblem('phase', `${policy.name} has no such phase`)
      const rows = named(fish, context.nowMs)
      if (rows.some(isRunning)) requireLead(context.actor, 'Only a lead puts fish whose hold runs under another policy')
      return { ids: rows.map(({ lotId, placeId }) => insert(context, 'policy', { placeId, lotId, happenedAtMs, policyId, phase: phase ?? null, reason: reason.trim() })) }
    },

    lengthenHold(context: CommandContext, { fish, days, reason, happenedAtMs }: LengthenHold) {
      const rows = named(fish, context.nowMs).filter(isRunning)
      if (rows.length === 0) throw new Problem('conflict', 'Their hold is over already')
      return { ids: rows.map(({ lotId, placeId }) => insert(context, 'lengthen', { placeId, lotId, happenedAtMs, days, reason: reason.trim() })) }
    },

    recordBody(context: CommandContext, { tankId, lotId, state, happenedAtMs }: RecordBody) {
      facts.requireTank(tankId, 'tankId', context.nowMs)
      if (lotId) named([{ lotId, placeId: tankId }], context.nowMs)
      return { id: insert(context, 'body', { placeId: tankId, lotId: lotId ?? null, happenedAtMs, word: state }) }
    },

    recordCleared(context: CommandContext, { tankId, agent, happenedAtMs }: RecordCleared) {
      facts.requireTank(tankId, 'tankId', context.nowMs)
      const room = holds.rooms.at(context.nowMs)
      const known = agentId(agent)
      if (!agentsIn(waterState(room, waterOf(room, tankId)), room.day ?? 0, holds.rules().goneAfter).includes(known)) throw fieldProblem('agent', 'It is not in this water')
      return { id: insert(context, 'cleared', { placeId: tankId, lotId: null, happenedAtMs, word: known }) }
    },

    undoHoldEntry(context: CommandContext) {
      const { actor, params, nowMs } = context
      const row = books.entry(params.entryId ?? '')
      if (!row || row.undoneAtMs !== null) throw new Problem('conflict', 'There is no such entry, or it was taken back already')
      requireMayTakeBack(context, row)
      books.undoEntry(row.id, { undoneById: actor.id, undoneAtMs: nowMs })
      return {}
    },
  }
}
export type HoldsWrites = ReturnType<typeof createHoldsWrites>

/** Days that a clock still asks for. */
const shortDays = ({ earliest }: HoldClock, today: string): number => (earliest === null ? 0 : Math.max(0, daysBetween(today, earliest)))
