import { useState } from 'react'
import { contactsApi } from '../../core/contacts/contacts.api'
import type { SaidKind } from '../../core/contacts/contacts.schema'
import { cratesApi } from '../../core/crates/crates.api'
import { ledgerApi } from '../../core/ledger/ledger.api'
import type { AddFish, CorrectCount, RecordLoss, ReleaseFish, RenameLot } from '../../core/ledger/ledger.schema'
import type { FightHarm } from '../../core/moves/fightWeight'
import { movesApi } from '../../core/moves/moves.api'
import type { MoveLine } from '../../core/moves/moveWords'
import type { RoomClock } from '../../core/room/roomAsOf'
import { glassApi } from '../../core/room/glass.api'
import type { MissingFish, StoryKind } from '../../core/room/roomView'
import type { Pool } from '../../core/pools/poolsOf'
import { roomApi, timelinePage } from '../../core/room/room.api'
import { nowMs } from '../api/clock'
import { useIntroductions, useVessels } from '../api/sharedReads'
import { useWrite } from '../api/useOutbox'
import { useRead } from '../api/useRead'

/** One tank with its timeline, as far back as asked. */
export function useTank(code: string, only: StoryKind) {
  const [entries, setEntries] = useState(timelinePage)
  const { data, problem } = useRead(roomApi.readTank, { params: { code }, query: { entries, ...(only === 'all' ? {} : { only }) } }, { keepsPrevious: true })
  // While another tank is being read, the one before must not stand under its name.
  const tank = data?.code === code.toUpperCase() ? data : undefined
  return { tank, problem, showOlder: () => setEntries(entries + timelinePage) }
}

/** How a tank fared over some days. */
export function useTankHistory(code: string, days: number) {
  const { data } = useRead(glassApi.readTankHistory, { params: { code }, query: { days } }, { keepsPrevious: true })
  return { history: data }
}

/** The room as of a moment; now where none is asked for. */
export function useRoomThen(atMs: number | null, clock: RoomClock) {
  const { data, problem } = useRead(roomApi.readRoomThen, { query: { ...(atMs === null ? {} : { at: atMs }), clock } }, { keepsPrevious: true })
  return { then: data, problem }
}

/** What a take-along card from a tank can say. */
export function useCard(code: string) {
  const { data, problem } = useRead(cratesApi.readCard, { params: { code } })
  return { card: data, problem }
}

/** What else belongs to a tank: vessels with its water, newcomers on their way in. */
export function useOfTank(tankId: string) {
  const [introductions, { vessels = [] }] = [useIntroductions(), useVessels()]
  return { vessels: vessels.filter(({ tank, fish }) => tank?.id === tankId && fish.length > 0), introductions: introductions.filter(({ tank }) => tank.id === tankId) }
}

/** What speaks against fish of a kind leaving the house, asked of one of them before anybody says how many; null until that is known. */
export function useSendOutCheck(tankId: string, { speciesId, strain }: Pool, lotIds: readonly string[], isOpen: boolean): MoveLine[] | null {
  const { data } = useRead(movesApi.readMoveCheck, isOpen ? { query: { from: `tank:${tankId}`, to: 'outside', fish: JSON.stringify([{ speciesId, strain, lotIds, quantity: 1 }]) } } : null, { keepsPrevious: true })
  return data?.lines.filter(({ level }) => level === 'lead' || level === 'warn') ?? null
}

type Timed<T> = Omit<T, 'happenedAtMs'> & { happenedAtMs: number | null }

/** The writes of a tank. All wait for the server's word, because the form says beside the field what does not fit. */
export function useTankWrites(tankId: string) {
  const write = useWrite()
  const form = { refusals: 'form' } as const
  const params = { tankId }
  const timed = <T extends { happenedAtMs: number | null }>(input: T) => ({ ...input, happenedAtMs: input.happenedAtMs ?? nowMs() })
  return {
    /** One was found dead: whoever it was, the books take it to be some lot's. Nobody waits for the answer. */
    died: ({ species, speciesId, strain }: Pool) => write(ledgerApi.recordLoss, { params, label: `1 ${species} died`, body: { speciesId, strain, quantity: 1, cause: 'found dead', note: null, happenedAtMs: nowMs() } }, { refusals: 'tray' }),
    recordLoss: (input: Timed<RecordLoss>) => write(ledgerApi.recordLoss, { params, label: `loss of ${input.quantity}`, body: timed(input) }, form),
    releaseFish: (input: Timed<ReleaseFish>) => write(ledgerApi.releaseFish, { params, label: `${input.quantity} ${input.reason}`, body: timed(input) }, form),
    correctCount: (input: Timed<CorrectCount>) => write(ledgerApi.correctCount, { params, label: `count of ${input.counted}`, body: timed(input) }, form),
    findFish: ({ speciesId, strain, species }: MissingFish, quantity: number, foundInTankId: string | null) => write(ledgerApi.findFish, { params, label: `${quantity} ${species} found again`, body: { speciesId, strain, quantity, ...(foundInTankId === null ? {} : { foundInTankId }), happenedAtMs: nowMs() } }, form),
    renameLot: (lotId: string, input: Timed<RenameLot>) => write(ledgerApi.renameLot, { params: { lotId }, label: `named ${input.species}`, body: timed(input) }, form),
    /** Something of this water came into another, or of that into this. */
    breach: (kind: SaidKind, toTankId: string) => write(contactsApi.recordContact, { label: kind, body: { kind, fromTankId: tankId, toTankId, litres: null, note: null, happenedAtMs: nowMs() } }, form),
    recordFight: (a: Pool, b: Pool, harm: FightHarm) => write(movesApi.recordFight, { params, label: `${a.species} ${harm} ${b.species}`, body: { speciesAId: a.speciesId, speciesBId: b.speciesId, harm, happenedAtMs: nowMs() } }, form),
    undoFight: (fightId: string) => write(movesApi.undoFight, { params: { fightId }, label: 'taking back', body: { happenedAtMs: nowMs() } }, form),
    /** The tank was emptied, sterilised and filled anew. */
    clearWater: () => write(contactsApi.clearWater, { params, label: 'sterilised and filled anew', body: { note: null, happenedAtMs: nowMs() } }, form),
    undoContact: (contactId: string) => write(contactsApi.undoContact, { params: { contactId }, label: 'taking back', body: { happenedAtMs: nowMs() } }, form),
    addFish: (input: Timed<AddFish>) => write(ledgerApi.addFish, { params, label: `${input.quantity} ${input.species}`, body: timed(input) }, form),
    /** `isWhole`: with all that was recorded in the same touch. */
    reverseMovement: (movementId: string, reason: string | null, isWhole = false) => write(ledgerApi.reverseMovement, { params: { movementId }, label: 'taking back', body: { ...(isWhole ? { isWhole } : {}), reason, happenedAtMs: nowMs() } }, form),
  }
}
export type TankWrites = ReturnType<typeof useTankWrites>
