import { lookBefore } from '../../core/facts/askFacts'
import { marksOf, observedAt } from '../../core/facts/observation'
import type { Limits } from '../../core/limits/houseLimits'
import { roundIdOf, roundOfId, type RoundOf } from '../../core/rounds/roundId'
import type { CloseRound, LeaveRound, RecordCheck, SplitRound } from '../../core/rounds/rounds.schema'
import type { RoundStop, RoundView } from '../../core/rounds/roundView'
import { dayInZone } from '../../core/time/dayInZone'
import { listed } from '../db/listed'
import type { FactsService } from '../facts/facts.service'
import type { CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import { newId } from '../newId'
import type { RoomService } from '../room/room.service'
import type { RoomStore } from '../room/room.store'
import type { DecisionsService } from './decisions.service'
import type { JudgedTank, LevelsService } from './levels.service'
import type { RoundWalk } from './roundWalk.service'
import type { RoundsStore } from './rounds.store'
import type { StopsService } from './stops.service'

const hourMs = 3_600_000

interface Collaborators {
  store: RoundsStore
  walk: Pick<RoundWalk, 'order' | 'split'>
  levels: Pick<LevelsService, 'all'>
  stops: Pick<StopsService, 'all'>
  decisions: Pick<DecisionsService, 'seenOn'>
  room: Pick<RoomService, 'zone'>
  roomStore: RoomStore
  facts: Pick<FactsService, 'all' | 'inUse'>
  limits(): Pick<Limits, 'roundOpenHours'>
}

/** The part a tank is walked in: what is sick, or came since, is with whoever goes last. */
function partOfTank(parts: readonly string[][], tankId: string, isSick: boolean): number {
  const part = parts.findIndex((tanks) => tanks.includes(tankId)) + 1
  return parts.length === 0 ? 1 : isSick || part === 0 ? parts.length : part
}

/** The walk past all tanks. */
export function createRoundsService({ store, walk, levels, stops, decisions, room, roomStore, facts, limits }: Collaborators) {
  const today = (nowMs: number): string => dayInZone(nowMs, room.zone())
  const named = (of: RoundOf): RoundOf & { id: string } => ({ id: roundIdOf(of), ...of })
  /** The round that would be begun now. */
  const next = (nowMs: number): RoundOf => ({ on: today(nowMs), number: store.newestRound(today(nowMs)) + 1 })
  const isFinished = (of: RoundOf, nowMs: number): boolean => {
    const checked = new Set(store.ofRound(of.on, of.number).map(({ tankId }) => tankId))
    return [...facts.all(nowMs).values()].every(({ tankId, lots }) => lots.length === 0 || checked.has(tankId))
  }

  /** The newest of today, or the first; one from before midnight as long as it goes on. */
  function current(nowMs: number): RoundOf & { id: string } {
    const on = today(nowMs)
    const last = store.lastRound(nowMs - limits().roundOpenHours * hourMs)
    const goesOn = last !== null && last.on < on && last.closedAtMs === null && !isFinished(last, nowMs)
    return goesOn ? named({ on: last.on, number: last.number }) : named({ on, number: Math.max(1, store.newestRound(on)) })
  }

  /** A round that was begun, or the next one; null for any other. */
  function askedFor(asked: string | null, nowMs: number): (RoundOf & { id: string }) | null {
    const of = asked === null ? null : roundOfId(asked)
    return of && (store.round(roundIdOf(of)) !== null || roundIdOf(of) === roundIdOf(next(nowMs))) ? named(of) : null
  }

  /** Who recorded last, who left it, who closed it. */
  function standing(id: string): Pick<RoundView, 'last' | 'left' | 'closed'> {
    const row = store.round(id)
    const by = (atMs: number | null | undefined, staffId: string | null | undefined) => (atMs && staffId ? { atMs, staffId, staffName: store.nameOf(staffId) } : null)
    return { last: by(row?.lastAtMs, row?.lastById), left: by(row?.leftAtMs, row?.leftById), closed: by(row?.closedAtMs, row?.closedById) }
  }

  /** The round a check belongs to. It is the one it was entered in, though it may be sent on another day. */
  function roundOf(roundId: string | undefined, { roundNumber, happenedAtMs }: Pick<RecordCheck, 'roundNumber' | 'happenedAtMs'>): RoundOf {
    const on = dayInZone(happenedAtMs, room.zone())
    if (roundId === undefined) return { on, number: roundNumber }
    const of = roundOfId(roundId)
    if (!of || of.on > on) throw fieldProblem('roundId', 'There is no such round')
    return of
  }

  function requireRound({ params }: CommandContext) {
    const found = store.round(params.roundId ?? '')
    if (!found) throw new Problem('not-found', 'This round was not begun')
    return found
  }

  /** Who walks which tanks; none where nobody shared it out. */
  const partsOf = (id: string): string[][] => listed<string[]>(store.round(id)?.parts ?? null)

  /** The check of this tank that is corrected, by its id or by the key it was sent with; by one other, once. */
  function requireReplaced(named: string, tankId: string) {
    const old = store.byId(store.idSentWith(named) ?? named)
    if (!old || old.tankId !== tankId) throw fieldProblem('replacesId', 'This tank has no such check')
    if (old.replacedById) throw new Problem('conflict', 'Somebody else corrected this check meanwhile')
    return old
  }

  return {
    /** Shares out what is unchecked between so many people, or takes that back. */
    splitRound({ params, actor, nowMs }: CommandContext, { people, happenedAtMs }: SplitRound) {
      const of = askedFor(params.roundId ?? '', nowMs)
      if (!of) throw new Problem('not-found', 'There is no such round')
      const checked = new Set(store.ofRound(of.on, of.number).map(({ tankId }) => tankId))
      const open = [...levels.all(nowMs).values()].filter(({ tank }) => !checked.has(tank.tankId))
      // It has begun: whoever opens it on another device finds it shared out.
      store.goOn({ ...of, atMs: happenedAtMs, staffId: actor.id })
      store.share(of.id, people === 1 ? null : JSON.stringify(walk.split(of.id, open, people)))
      return {}
    },

    /** Somebody leaves a round before its end; whoever records in it next goes on with it. */
    leaveRound(context: CommandContext, { happenedAtMs }: LeaveRound) {
      const { id, closedAtMs } = requireRound(context)
      if (closedAtMs === null) store.leave(id, { leftAtMs: happenedAtMs, leftById: context.actor.id })
      return {}
    },

    /** Ends a round, whatever was not checked in it, or opens it again. Whoever ended it first did. */
    closeRound(context: CommandContext, { isClosed, happenedAtMs }: CloseRound) {
      const { id, closedAtMs } = requireRound(context)
      if (isClosed !== (closedAtMs !== null)) store.close(id, isClosed ? { closedAtMs: happenedAtMs, closedById: context.actor.id } : { closedAtMs: null, closedById: null })
      return {}
    },

    /**
     * A round with its stops in walking order, checked or not.
     * @param asked - name of the round as it came in the address; without it the one that is walked now: of today, or one that
     *   was begun before midnight and goes on.
     */
    view(asked: string | null, nowMs: number): RoundView {
      const { id, on, number } = askedFor(asked, nowMs) ?? current(nowMs)
      const checks = store.ofRound(on, number)
      const [judged, cards] = [levels.all(nowMs), stops.all(nowMs)]
      const checkOf = new Map(checks.map((check) => [check.tankId, check]))
      const seen = checks.flatMap(({ tankId }) => judged.get(tankId) ?? [])
      const parts = partsOf(id)
      const partOf = ({ tank, state }: JudgedTank): number => partOfTank(parts, tank.tankId, state === 'sick')
      const walked = walk.order(id, [...judged.values()].filter(({ tank }) => !checkOf.has(tank.tankId)), partOf, (part) => seen.findLast((each) => partOf(each) === part))
      const inOrder = [...seen.map((each) => ({ tankId: each.tank.tankId, part: partOf(each), before: null })), ...walked.stops]
      const ordered = inOrder.flatMap(({ tankId, part, before }): RoundStop[] => {
        const [card, tank] = [cards.get(tankId), judged.get(tankId)?.tank]
        if (!card || !tank) return []
        const [check, last] = [checkOf.get(tankId), lookBefore(tank, { on, number })]
        const marks = check ? (tank.looks.find((look) => look.id === check.id)?.marks ?? []) : []
        return [{ ...card, part, before, check: check ? { ...check, marks } : null, lastCheck: last ? { ate: last.ate, signs: last.signs, answers: last.answers, counts: last.counts, note: last.note, happenedAtMs: last.atMs } : null }]
      })
      return { ...standing(id), id, on, number, nextId: roundIdOf(next(nowMs)), people: Math.max(1, parts.length), stops: ordered, why: walked.why, emptyTanks: facts.inUse(nowMs).filter(({ lots }) => lots.length === 0).map(({ code }) => code) }
    },

    /** Records one look at one tank, and one by one what it says. */
    recordCheck({ actor, key, nowMs }: CommandContext, { replacesId, roundId, marks = [], answers = [], counts = [], ...input }: RecordCheck) {
      if (!roomStore.tankById(input.tankId)) throw fieldProblem('tankId', 'There is no such tank')
      if (marks.some(({ lotId }) => lotId !== null && !store.hasFish(lotId))) throw fieldProblem('marks', 'A mark names a lot that is not in the books')
      for (const [path, rows] of Object.entries({ answers, counts })) if (rows.some(({ lotId }) => !store.hasFish(lotId))) throw fieldProblem(path, 'A lot is not in the books')
      const old = replacesId === null ? null : requireReplaced(replacesId, input.tankId)
      const id = newId()
      const of = roundOf(roundId, input)
      const by = { staffId: actor.id, commandKey: key, recordedAtMs: nowMs }
      store.goOn({ id: roundIdOf(of), ...of, atMs: input.happenedAtMs, staffId: actor.id })
      store.insert({ id, ...input, answers: answers.length > 0 ? JSON.stringify(answers) : null, counts: counts.length > 0 ? JSON.stringify(counts) : null, roundOn: of.on, roundNumber: of.number, expected: store.fishIn(input.tankId), ...by })
      const [seq = 0] = observedAt({ ...input, marks, answers, counts }).map((each) => store.observe({ ...each, tankId: input.tankId, checkId: id, happenedAtMs: input.happenedAtMs, ...by }))
      if (old) store.markReplaced(old, { id, seq })
      if (input.signs.length > 0) decisions.seenOn(input.tankId, marksOf({ ...input, marks }), input.happenedAtMs, { key })
      return { id }
    },
  }
}
export type RoundsService = ReturnType<typeof createRoundsService>
