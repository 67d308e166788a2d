import useSWR from 'swr'
import { withPendingBags, type CrateList, type CrateView, type PendingBagCommand, type WaitingForTank } from '../../core/crates/crateView'
import type { BoxFacts } from '../../core/crates/box.schema'
import type { EditClaim } from '../../core/crates/claim.schema'
import type { ChooseTanks } from '../../core/crates/delivery.schema'
import type { AddBag, CloseCrate, IdentifyLine, ChooseTank, CreateCrate, EditCrate, EditLine, ListLine, RecordBags, RemoveLine } from '../../core/crates/crates.schema'
import type { ListMapping } from '../../core/crates/listMapping'
import type { ReadLine } from '../../core/crates/readPackingList'
import type { BrokenRule } from '../../core/tankChoice/company'
import type { TankSummary } from '../../core/room/roomView'
import { nowMs } from '../api/clock'
import { fetchFile, fetchJson } from '../api/fetchJson'
import { useRoomView } from '../api/sharedReads'
import { usePending, useWrite } from '../api/useOutbox'
import type { AgainstRule } from '../ui/RuleRefusal'
import { crateKey } from './crates.keys'

/** One crate as it stands on this device: what the server holds, and what still waits to be sent. */
export function useCrate(crateId: string) {
  // Other devices unpack the same crate.
  const { data, error, isLoading } = useSWR(crateKey(crateId), () => fetchJson<CrateView>(`/api/crates/${crateId}`), { refreshInterval: 2000 })
  const pending = usePending(['recordBags', 'undoBags', 'placeBags', 'addBag'], `/api/crates/${crateId}/`)
  const crate = data && withPendingBags(data, pending.map(({ command, key, staffId, body }) => ({ command, key, staffId, input: body }) as PendingBagCommand))
  return { crate, problem: error as unknown, isLoading }
}

/** Crates, newest first: every open one, and so many closed ones. */
export function useCrates(closed: number) {
  const { data, error } = useSWR<CrateList, unknown>(['crates', 'list', closed], () => fetchJson<CrateList>(`/api/crates?closed=${closed}`), { keepPreviousData: true })
  return { crates: data?.crates, hasOlder: data?.hasOlder ?? false, problem: error }
}

/** For each planned tank with fish waiting in bags: the rules that they would break in it. Not settled until the server has answered, or cannot. */
export function useWaiting(crateId: string): { broken: Map<string, BrokenRule[]>; isSettled: boolean } {
  const { data, isLoading } = useSWR<{ tanks: WaitingForTank[] }>([...crateKey(crateId), 'placements'], () => fetchJson(`/api/crates/${crateId}/placements`), { refreshInterval: 5000 })
  return { broken: new Map(data?.tanks.map(({ tankId, broken }) => [tankId, broken])), isSettled: !isLoading }
}

/** Tanks a line can be planned for, in rack order. */
export const useTankChoices = (): TankSummary[] => useRoomView().room?.tanks ?? []

/** The columns of a list as they were read. */
export interface ListColumns {
  heading: string[]
  sample: string[][]
  mapping: ListMapping
  isRemembered: boolean
}
export interface ListRead {
  lines: (ReadLine & { isNewSpecies: boolean; couldBe: string[] })[]
  notices: string[]
  /** What a list in JSON says of the crate as a whole. */
  head: { supplier: string | null; packedAtMs: number | null; expectedAtMs: number | null; note: string | null } | null
  /** Null for a list in JSON, which needs no columns. */
  columns: ListColumns | null
}

/** Has a packing list read; nothing is kept of it. */
export function readPackingList(file: Blob, { supplier, mapping }: { supplier: string; mapping: ListMapping | null }): Promise<ListRead> {
  const query = new URLSearchParams({ supplier: supplier.slice(0, 80), columns: mapping === null ? '' : Object.entries(mapping).map(([field, column]) => `${field}:${column}`).join() })
  return fetchJson(`/api/packing-lists/read?${query}`, { method: 'POST', body: file })
}

export interface Letter {
  id: string
  name: string
  bytes: number
  atMs: number
}
/** What lies in the suppliers' mailbox. */
export function useMailbox(): { letters: Letter[]; isSimulated: boolean } {
  const { data } = useSWR<{ letters: Letter[]; isSimulated: boolean }>(['mailbox'], () => fetchJson('/api/mailbox'))
  return data ?? { letters: [], isSimulated: true }
}
/** The list that a supplier sent, as it came. */
export const readLetter = (id: string): Promise<Blob> => fetchFile(`/api/mailbox/${id}`)
/** Puts a letter away once its list is taken in. */
export function useFileLetter() {
  const write = useWrite()
  return (id: string) => void write({ command: 'fileLetter', path: `/api/mailbox/${id}/filing`, label: 'a letter put away', body: {} }, { refusals: 'tray' })
}

/** The writes of a crate. Touches answer at once and are sent in the background; forms wait for their answer. */
export function useCrateWrites(crateId: string) {
  const write = useWrite()
  const path = `/api/crates/${crateId}`
  return {
    recordBags: (input: Omit<RecordBags, 'happenedAtMs'>, label: string) =>
      void write({ command: 'recordBags', path: `${path}/bags`, label, body: { ...input, happenedAtMs: nowMs() } }, { refusals: 'tray' }),
    undoBags: (bagIds: string[], label: string) => void write({ command: 'undoBags', path: `${path}/undone-bags`, label, body: { bagIds, happenedAtMs: nowMs() } }, { refusals: 'tray' }),
    placeBags: (tankId: string | null, label: string, against: AgainstRule | null = null) => write({ command: 'placeBags', path: `${path}/placements`, label, body: { tankId, ...(against ?? {}), happenedAtMs: nowMs() } }, { refusals: 'form' }) as Promise<{ placed: number; left: number }>,
    undoPlacement: (placementKey: string) => void write({ command: 'undoPlacement', path: `${path}/undone-placements`, label: 'undo of placing', body: { placementKey, happenedAtMs: nowMs() } }, { refusals: 'tray' }),
    addPhoto: (bagId: string, image: string, label: string) => void write({ command: 'addPhoto', path: `${path}/bags/${bagId}/photos`, label, body: { image, happenedAtMs: nowMs() } }, { refusals: 'tray' }),
    removePhoto: (photoId: string, label: string) => void write({ command: 'removePhoto', path: `${path}/photos/${photoId}/removal`, label, body: { happenedAtMs: nowMs() } }, { refusals: 'tray' }),
    addBag: (input: Omit<AddBag, 'happenedAtMs'>, label: string) => write({ command: 'addBag', path: `${path}/added-bags`, label, body: { ...input, happenedAtMs: nowMs() } }, { refusals: 'tray' }) as Promise<{ bagId: string; lineId: string; number: number }>,
    chooseTank: (lineId: string, choice: ChooseTank) =>
      write({ command: 'chooseTank', method: 'PUT', path: `${path}/lines/${lineId}/tank`, label: 'tank of a line', body: choice }, { refusals: 'form' }),
  }
}

/** Corrections to a crate and its lines; they wait for their answer. */
export function useCrateEdits(crateId: string) {
  const write = useWrite()
  const path = `/api/crates/${crateId}`
  return {
    editCrate: (body: EditCrate) => write({ command: 'editCrate', method: 'PUT', path, label: 'the crate', body }, { refusals: 'form' }),
    addLine: (body: ListLine) => write({ command: 'addLine', path: `${path}/lines`, label: `line ${body.species}`, body }, { refusals: 'form' }),
    editLine: (lineId: string, body: EditLine) => write({ command: 'editLine', method: 'PUT', path: `${path}/lines/${lineId}`, label: `line ${body.species}`, body }, { refusals: 'form' }),
    identifyLine: (lineId: string, body: IdentifyLine) => write({ command: 'identifyLine', method: 'PUT', path: `${path}/lines/${lineId}/identity`, label: `what ${body.species} is`, body }, { refusals: 'form' }),
    recordBox: (box: BoxFacts, version: number) => write({ command: 'recordBox', method: 'PUT', path: `${path}/box`, label: 'the box', body: { box, version } }, { refusals: 'form' }),
    closeCrate: (body: CloseCrate) => write({ command: 'closeCrate', path: `${path}/closing`, label: 'closing the crate', body }, { refusals: 'form' }),
    reopenCrate: (version: number) => write({ command: 'reopenCrate', path: `${path}/reopening`, label: 'opening the crate again', body: { version } }, { refusals: 'form' }),
    editClaim: (body: EditClaim) => write({ command: 'editClaim', method: 'PUT', path: `${path}/claim`, label: 'the claim', body }, { refusals: 'form' }),
    prepareStep: (step: string, isDone: boolean) => write({ command: 'prepareStep', method: 'PUT', path: `${path}/preparation`, label: 'a step of the preparation', body: { step, isDone } }, { refusals: 'form' }),
    chooseTanks: (body: ChooseTanks) => write({ command: 'chooseTanks', method: 'PUT', path: `${path}/tank-choice`, label: 'tanks of the crate', body }, { refusals: 'form' }),
    removeLine: (lineId: string, body: RemoveLine) => write({ command: 'removeLine', path: `${path}/lines/${lineId}/removal`, label: 'a line off the list', body }, { refusals: 'form' }),
  }
}

/** Takes a crate in. */
export function useCreateCrate() {
  const write = useWrite()
  return (input: CreateCrate) => write({ command: 'createCrate', path: '/api/crates', label: `crate from ${input.supplier}`, body: input }, { refusals: 'form' }) as Promise<{ id: string; number: number }>
}
