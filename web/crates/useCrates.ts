import { addressOf } from '../../core/commands/declare'
import type { BoxFacts } from '../../core/crates/box.schema'
import type { EditClaim } from '../../core/crates/claim.schema'
import { cratesApi, deliveryApi, evidenceApi, mailboxApi, type Letter } from '../../core/crates/crates.api'
import type { ChooseTanks } from '../../core/crates/delivery.schema'
import type { AddBag, ChooseTank, CloseCrate, CreateCrate, EditCrate, EditLine, IdentifyLine, ListLine, RecordBags, RemoveLine } from '../../core/crates/crates.schema'
import type { ListField, ListMapping } from '../../core/crates/listMapping'
import type { ListHead } from '../../core/crates/packingListFile'
import type { ReadLine } from '../../core/crates/readPackingList'
import type { BrokenRule } from '../../core/tankChoice/company'
import type { TankSummary } from '../../core/room/roomView'
import { nowMs } from '../api/clock'
import { fetchFile, fetchJson } from '../api/fetchJson'
import { useRoomView } from '../api/sharedReads'
import { useWrite } from '../api/useOutbox'
import { useRead } from '../api/useRead'
import type { Columns } from '../ui/ListColumns'
import type { AgainstRule } from '../ui/RuleRefusal'

const touch = { refusals: 'tray' } as const
const form = { refusals: 'form' } as const

/** One crate as it stands on this device: what the server holds, and what still waits to be sent. Other devices unpack the same crate. */
export function useCrate(crateId: string) {
  const { data, problem, isLoading } = useRead(cratesApi.readCrate, { params: { crateId } }, { everyMs: 2000 })
  return { crate: data, problem, isLoading }
}

/** Crates, newest first: every open one, and so many closed ones. */
export function useCrates(closed: number) {
  const { data, problem } = useRead(cratesApi.readCrates, { query: { closed } }, { keepsPrevious: true })
  return { crates: data?.crates, hasOlder: data?.hasOlder ?? false, problem }
}

/** For each planned tank with fish waiting in bags: the rules that they would break in it. Not settled until the server has answered, or cannot. */
export function useWaiting(crateId: string): { broken: Map<string, BrokenRule[]>; isSettled: boolean } {
  const { data, isLoading } = useRead(cratesApi.readPlacements, { params: { crateId } }, { everyMs: 5000 })
  return { broken: new Map(data?.tanks.map(({ tankId, broken }) => [tankId, broken])), isSettled: !isLoading }
}

/** Tanks a line can be planned for, in rack order. */
export const useTankChoices = (): TankSummary[] => useRoomView().room?.tanks ?? []

/** The columns of a packing list as they were read. */
export type ReadColumns = Columns<ListField>
export interface ListRead {
  lines: (ReadLine & { isNewSpecies: boolean; couldBe: string[] })[]
  notices: string[]
  /** What a list in JSON says of the crate as a whole. */
  head: ListHead | null
  /** Null for a list in JSON, which needs no columns. */
  columns: ReadColumns | null
}

/** Has a packing list read; nothing is kept of it. */
export function readPackingList(file: Blob, { supplier, mapping }: { supplier: string; mapping: ListMapping | null }): Promise<ListRead> {
  const query = { supplier: supplier.slice(0, 80), columns: mapping === null ? '' : Object.entries(mapping).map(([field, column]) => `${field}:${column}`).join() }
  return fetchJson(addressOf(cratesApi.readList, {}, query), { method: 'POST', body: file })
}

/** What has to be ready before a crate comes. */
export const usePreparation = (crateId: string) => useRead(deliveryApi.readPreparation, { params: { crateId } })

/** Lines and tanks to choose among. A plan in the making must not be pulled away by what happens elsewhere; saving says when somebody was faster. */
export const useTankChoice = (crateId: string) => useRead(deliveryApi.readTankChoice, { params: { crateId } }, { isDraft: true })

/** What a supplier is asked to make good. */
export const useClaim = (crateId: string) => useRead(evidenceApi.readClaim, { params: { crateId } })

/** What lies in the suppliers' mailbox. */
export const useMailbox = (): { letters: Letter[]; isSimulated: boolean } => useRead(mailboxApi.readMailbox, {}).data ?? { letters: [], isSimulated: true }
/** The list that a supplier sent, as it came. */
export const readLetter = (id: string): Promise<Blob> => fetchFile(addressOf(mailboxApi.readLetter, { letterId: id }))
/** Puts a letter away once its list is taken in. */
export function useFileLetter() {
  const write = useWrite()
  return (letterId: string) => void write(mailboxApi.fileLetter, { params: { letterId }, label: 'a letter put away', body: {} }, touch)
}

/** The writes of a crate. Touches answer at once and are sent in the background; forms wait for their answer. */
export function useCrateWrites(crateId: string) {
  const write = useWrite()
  const params = { crateId }
  return {
    recordBags: (input: Omit<RecordBags, 'happenedAtMs'>, label: string) => void write(cratesApi.recordBags, { params, label, body: { ...input, happenedAtMs: nowMs() } }, touch),
    undoBags: (bagIds: string[], label: string) => void write(cratesApi.undoBags, { params, label, body: { bagIds, happenedAtMs: nowMs() } }, touch),
    placeBags: (tankId: string | null, label: string, against: AgainstRule | null = null) => write(cratesApi.placeBags, { params, label, body: { tankId, ...(against ?? {}), happenedAtMs: nowMs() } }, form),
    undoPlacement: (placementKey: string) => void write(cratesApi.undoPlacement, { params, label: 'undo of placing', body: { placementKey, happenedAtMs: nowMs() } }, touch),
    addPhoto: (bagId: string, image: string, label: string) => void write(evidenceApi.addPhoto, { params: { crateId, bagId }, label, body: { image, happenedAtMs: nowMs() } }, touch),
    removePhoto: (photoId: string, label: string) => void write(evidenceApi.removePhoto, { params: { crateId, photoId }, label, body: { happenedAtMs: nowMs() } }, touch),
    addBag: (input: Omit<AddBag, 'happenedAtMs'>, label: string) => write(cratesApi.addBag, { params, label, body: { ...input, happenedAtMs: nowMs() } }, touch),
    chooseTank: (lineId: string, choice: ChooseTank) => write(deliveryApi.chooseTank, { params: { crateId, lineId }, label: 'tank of a line', body: choice }, form),
  }
}

/** Corrections to a crate and its lines; they wait for their answer. */
export function useCrateEdits(crateId: string) {
  const write = useWrite()
  const params = { crateId }
  return {
    editCrate: (body: EditCrate) => write(cratesApi.editCrate, { params, label: 'the crate', body }, form),
    addLine: (body: ListLine) => write(cratesApi.addLine, { params, label: `line ${body.species}`, body }, form),
    editLine: (lineId: string, body: EditLine) => write(cratesApi.editLine, { params: { crateId, lineId }, label: `line ${body.species}`, body }, form),
    identifyLine: (lineId: string, body: IdentifyLine) => write(cratesApi.identifyLine, { params: { crateId, lineId }, label: `what ${body.species} is`, body }, form),
    recordBox: (box: BoxFacts, version: number) => write(cratesApi.recordBox, { params, label: 'the box', body: { box, version } }, form),
    closeCrate: (body: CloseCrate) => write(cratesApi.closeCrate, { params, label: 'closing the crate', body }, form),
    reopenCrate: (version: number) => write(cratesApi.reopenCrate, { params, label: 'opening the crate again', body: { version } }, form),
    editClaim: (body: EditClaim) => write(evidenceApi.editClaim, { params, label: 'the claim', body }, form),
    prepareStep: (step: string, isDone: boolean) => write(deliveryApi.prepareStep, { params, label: 'a step of the preparation', body: { step, isDone } }, form),
    chooseTanks: (body: ChooseTanks) => write(deliveryApi.chooseTanks, { params, label: 'tanks of the crate', body }, form),
    removeLine: (lineId: string, body: RemoveLine) => write(cratesApi.removeLine, { params: { crateId, lineId }, label: 'a line off the list', body }, form),
  }
}

/** Takes a crate in. */
export function useCreateCrate() {
  const write = useWrite()
  return (body: CreateCrate) => write(cratesApi.createCrate, { label: `crate from ${body.supplier}`, body }, form)
}
