import { groupBy } from '../../core/collections/groupBy'
import { minuteOf } from '../../core/contacts/contact'
import type { TankFacts } from '../../core/facts/facts'
import { isExpected } from '../../core/holds/facts'
import type { EndPairing, StartPairing } from '../../core/holds/holds.schema'
import type { Pairable, PairingView } from '../../core/holds/holdsView'
import { nextLook } from '../../core/holds/holdDue'
import { pairingWords } from '../../core/holds/holdWords'
import { signEvents } from '../../core/holds/lookEvents'
import { pairingEvidence, type PairingProof } from '../../core/holds/pairingEvidence'
import { askingWords } from '../../core/holds/shippedHolds'
import type { OpenPairing } from '../../core/moves/move'
import type { FactsService } from '../facts/facts.service'
import { requireLead, type CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import { newId } from '../newId'
import type { HoldsService } from './holds.service'
import type { PairingResult } from './holds.table'
import type { PairingsStore, PairingStands } from './pairings.store'

const hourMs = 3_600_000
/** A look counts as the planned one so many hours around it. */
const besideH = 12
/** Those that ended longer ago are not shown; those that began longer ago ask nothing any more. */
const [shownDays, openDays] = [60, 400]

interface Collaborators {
  store: PairingsStore
  holds: HoldsService
  facts: Pick<FactsService, 'inUse' | 'requireTank'>
}
interface Look {
  h: number
  isSign: boolean
  atMs: number
}

/** Pairings: a few fish of two groups stand together apart, are looked at, and prove so much. */
export function createPairings({ store, holds, facts }: Collaborators) {
  /** Looks at the tank since it began; a sign that was to be expected, or is none, is no sign. */
  function looksAt({ tankId, startedAtMs }: PairingStands, nowMs: number): Look[] {
    const room = holds.rooms.at(nowMs)
    const rows = [...holds.history.signs(startedAtMs), ...holds.history.deaths(startedAtMs)].filter((row) => row.tankId === tankId)
    const decisions = groupBy(holds.history.decisions(startedAtMs), (row) => row.tankId)
    const signs = signEvents(rows, decisions).filter((sign) => sign.decision !== 'dismissed' && askingWords.includes(sign.word) && !isExpected(room, sign, sign.at))
    const shown = new Set(signs.map(({ at }) => at))
    const hOf = (atMs: number): number => (atMs - startedAtMs) / hourMs
    const looks = store.looks(tankId, startedAtMs).map((atMs): Look => ({ atMs, h: hOf(atMs), isSign: shown.has(minuteOf(atMs)) }))
    const dead = signs.filter(({ word }) => word === 'death').map(({ at }): Look => ({ atMs: at * 60_000, h: hOf(at * 60_000), isSign: true }))
    return [...looks, ...dead].sort((a, b) => a.h - b.h)
  }

  const proofOf = ({ fishA, fishB, pairedA, pairedB, looksH, startedAtMs }: PairingStands, looks: readonly Look[], nowMs: number): PairingProof =>
    pairingEvidence({ a: { n: fishA, paired: pairedA }, b: { n: fishB, paired: pairedB }, looks, nowH: (nowMs - startedAtMs) / hourMs, looksH })

  /** How it stands by its looks, and the look that decided it. */
  function verdictOf(row: PairingStands, nowMs: number): { result: PairingResult; atMs: number } {
    const looks = looksAt(row, nowMs)
    for (const [index, { atMs }] of looks.entries()) {
      const { verdict } = proofOf(row, looks.slice(0, index + 1), nowMs)
      // What came first stands: what is seen in the tank later is another story.
      if (verdict !== 'running') return { result: verdict, atMs }
    }
    return { result: 'running', atMs: row.startedAtMs }
  }

  function viewOf(row: PairingStands, codeOf: (tankId: string) => string, nameOf: (lotId: string) => string, nowMs: number): PairingView {
    const untilMs = row.result === 'running' ? nowMs : (row.atMs ?? nowMs)
    const looks = looksAt(row, nowMs).filter(({ atMs }) => atMs <= untilMs)
    const proof = proofOf(row, looks, nowMs)
    const last = looks.filter(({ isSign }) => !isSign).at(-1)
    return {
      ...{ id: row.id, tankId: row.tankId, tankCode: codeOf(row.tankId), lots: [nameOf(row.lotA), nameOf(row.lotB)], state: row.result, startedAtMs: row.startedAtMs, reason: row.reason },
      fish: [{ paired: row.pairedA, of: row.fishA }, { paired: row.pairedB, of: row.fishB }],
      words: pairingWords(proof, Math.floor((last?.h ?? 0) / 24)),
      looks: row.looksH.map((h) => {
        const isMade = looks.some((look) => Math.abs(look.h - h) <= besideH)
        return { h, dueAtMs: row.startedAtMs + h * hourMs, isMade, isMissed: !isMade && proof.missing.includes(h) }
      }),
    }
  }

  const recent = (nowMs: number): PairingStands[] => store.since(nowMs - openDays * 24 * hourMs)

  return {
    /** Lots that stay apart: their pairing runs, or failed. */
    open: (nowMs: number): OpenPairing[] => recent(nowMs).flatMap(({ lotA, lotB, tankId, result }) => (result === 'running' || result === 'failed' ? [{ lots: [lotA, lotB] as const, tankId, state: result === 'running' ? ('pairing' as const) : ('failed' as const) }] : [])),

    list(codeOf: (tankId: string) => string, nameOf: (lotId: string) => string, nowMs: number): PairingView[] {
      const shown = recent(nowMs).filter(({ result, atMs }) => result === 'running' || result === 'failed' || nowMs - (atMs ?? 0) <= shownDays * 24 * hourMs)
      return shown.map((row) => viewOf(row, codeOf, nameOf, nowMs)).sort((a, b) => Number(b.state === 'running') - Number(a.state === 'running') || b.startedAtMs - a.startedAtMs)
    },

    /** Looks that pairings ask for about now, by tank, in words for the card of the round. */
    askedAt(nowMs: number): { tankId: string; words: string }[] {
      return recent(nowMs).filter(({ result }) => result === 'running').flatMap((row) => {
        const { looks } = viewOf(row, () => '', () => '', nowMs)
        const next = nextLook(looks)
        return next && next.dueAtMs - nowMs <= besideH * hourMs ? [{ tankId: row.tankId, words: `a pairing asks for its look ${next.nth} of ${looks.length}: every fish of both groups` }] : []
      })
    },

    /** Tanks of their own water in which several lots stand, and no pairing runs. */
    pairable(nowMs: number): Pairable[] {
      const taken = new Set(recent(nowMs).flatMap(({ tankId, result }) => (result === 'running' ? [tankId] : [])))
      const isApart = ({ tankId, water, lots }: TankFacts): boolean => water.isAlone && lots.length > 1 && !taken.has(tankId)
      return facts.inUse(nowMs).filter(isApart).map(({ tankId, code, lots }) => ({ tankId, tankCode: code, lots: lots.map(({ lotId, lotCode, species, quantity }) => ({ lotId, name: `${species} ${lotCode}`, fish: quantity })) }))
    },

    startPairing({ actor, key, nowMs }: CommandContext, { tankId, lotA, lotB, looksH, happenedAtMs }: StartPairing) {
      const tank = facts.requireTank(tankId, 'tankId', nowMs)
      if (recent(nowMs).some((row) => row.result === 'running' && row.tankId === tankId)) throw fieldProblem('tankId', `A pairing runs in ${tank.code} already`)
      const [a, b] = [store.fishOf(lotA, tankId), store.fishOf(lotB, tankId)]
      if (a.here < 1) throw fieldProblem('lotA', `None of these fish stand in ${tank.code}`)
      if (b.here < 1) throw fieldProblem('lotB', `None of these fish stand in ${tank.code}`)
      const id = newId()
      store.insert({ id, tankId, lotA, lotB, fishA: a.all, fishB: b.all, pairedA: a.here, pairedB: b.here, looksH: [...looksH].sort((one, other) => one - other), startedAtMs: happenedAtMs, staffId: actor.id, commandKey: key, recordedAtMs: nowMs })
      return { id }
    },

    /** Given up it blocks no move any more: a lead says why. */
    endPairing({ actor, key, params, nowMs }: CommandContext, { reason, happenedAtMs }: EndPairing) {
      requireLead(actor, 'Only a lead gives a pairing up: nothing keeps the groups apart then')
      const row = store.byId(params.pairingId ?? '')
      if (!row || row.result === 'given up') throw new Problem('conflict', 'There is no such pairing, or it was given up already')
      store.insertResult({ pairingId: row.id, result: 'given up', atMs: happenedAtMs, reason: reason.trim(), staffId: actor.id, commandKey: key, recordedAtMs: nowMs })
      return {}
    },

    /** After a look, or a word about a sign: writes down what a pairing came to, in the same transaction. */
    judge(staffId: string, key: string, nowMs: number): void {
      for (const row of recent(nowMs)) {
        if (row.result === 'given up') continue
        const { result, atMs } = verdictOf(row, nowMs)
        if (result !== row.result) store.insertResult({ pairingId: row.id, result, atMs: result === 'running' ? (row.atMs ?? atMs) : atMs, reason: null, staffId, commandKey: key, recordedAtMs: nowMs })
      }
    },
  }
}
export type PairingsService = ReturnType<typeof createPairings>
