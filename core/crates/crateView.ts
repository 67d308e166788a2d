import type { Pending } from '../commands/pending'
import type { BoxFacts } from './box.schema'
import { noHandling, type Handling } from '../species/handling'
import { notKept, type KeptIn, type TankFigures } from '../species/keptIn'
import type { BrokenRule } from '../tankChoice/company'
import type { CrateHead, CrateSummary } from './crateSummary'
import { unidentified, type AddBag, type PlaceBags, type RecordBags, type UndoBags } from './crates.schema'
import type { LineDetails } from './lineDetails'
import type { ToldOfLine, ToldWater } from './told.schema'

/** What was found in a bag. */
export type BagFindings = Omit<RecordBags, 'bagIds' | 'happenedAtMs'>

/** What was found in a bag, with who and when. */
export interface BagRecordView extends BagFindings {
  staffId: string
  staffName: string
  happenedAtMs: number
  /** Key of the command that wrote it; several bags share one when they were "the same". */
  commandKey: string
}

export interface BagView {
  id: string
  lineId: string
  /** Number in the crate, 1 and up. */
  number: number
  /** Fish the list promises for this bag. */
  listed: number
  /** Null while unopened. */
  record: BagRecordView | null
  /** Fish standing in the bag now. */
  inBag: number
  /** The run of the bench it is on; null when it is on none. */
  runId: string | null
  /** Ids of its pictures, oldest first. */
  photos: string[]
}

export interface LineView extends LineDetails {
  id: string
  position: number
  species: string
  count: number
  lotId: string
  lotCode: string
  tank: { id: string; code: string } | null
  /** What the water of that tank stands at. */
  tankWater: TankFigures
  /** What the species is kept in, by the book. */
  kept: KeptIn
  /** Kind of animal, by the book; null where it does not say. */
  animal: string | null
  /** What to mind with these fish in the hand. */
  handling: Handling
  /** What the sender did with them, as their list says. */
  told: ToldOfLine | null
  /** What the species is mistaken for, by the book. */
  lookAlikes: string[]
  version: number
}

export interface CrateView extends CrateHead {
  note: string | null
  version: number
  carrier: string | null
  /** Water the fish came out of, as the sender's list says of this crate; null where it says nothing. */
  shippingWater: ToldWater | null
  /** How the sender would take them in. */
  method: string | null
  /** False for a crate that came without a list. */
  hasList: boolean
  box: BoxFacts | null
  boxVersion: number
  /** Why it was closed with fish still in bags; null otherwise. */
  closedBecause: string | null
  lines: LineView[]
  /** Where fish went out of their bags, as far as it was not taken back. */
  went: WentView[]
  bags: BagView[]
  /** The newest placing that stands, as far as it was not taken back; null when there is none. */
  lastPlacement: PlacementView | null
}

export interface WentView {
  lineId: string
  tankCode: string
  fish: number
}

/** A planned tank with fish waiting for it, and the rules that they would break in it. */
export interface WaitingForTank {
  tankId: string
  broken: BrokenRule[]
}

export interface PlacementView {
  /** Key of the command that placed the fish. */
  key: string
  staffId: string
  fish: number
}

/** Crates as a list shows them, the newest first. */
export interface CrateList {
  crates: CrateSummary[]
  /** Whether there are closed crates older than these. */
  hasOlder: boolean
}

/** Closed crates on one page. */
export const closedPage = 25

export interface BagTotals {
  bags: number
  opened: number
  /** Fish promised for all bags. */
  listed: number
  alive: number
  dead: number
  /** Fish fewer than the list in opened bags, added up bag by bag. */
  short: number
  /** Fish more than the list in opened bags, added up bag by bag. */
  extra: number
  inBags: number
  placed: number
}

/** Adds up any set of bags: a crate, a line, a tank's share. Shorts and extras are kept apart, so that one cannot hide the other. */
export function totalBags(bags: readonly BagView[]): BagTotals {
  const totals: BagTotals = { bags: bags.length, opened: 0, listed: 0, alive: 0, dead: 0, short: 0, extra: 0, inBags: 0, placed: 0 }
  for (const { record, listed, inBag } of bags) {
    totals.listed += listed
    if (!record) continue
    const found = record.alive + record.dead
    totals.opened += 1
    totals.alive += record.alive
    totals.dead += record.dead
    totals.short += Math.max(0, listed - found)
    totals.extra += Math.max(0, found - listed)
    totals.inBags += inBag
    totals.placed += record.alive - inBag
  }
  return totals
}

/** Commands that a crate shows before they are answered. */
export type PendingBagCommand = { key: string; staffId: string } & (
  | { command: 'recordBags'; input: RecordBags }
  | { command: 'undoBags'; input: UndoBags }
  | { command: 'placeBags'; input: PlaceBags }
  | { command: 'addBag'; input: AddBag }
)
const bagCommands: readonly string[] = ['recordBags', 'undoBags', 'placeBags', 'addBag'] satisfies PendingBagCommand['command'][]

/** Shows a crate with the bags that wait on this device. Commands the server already knows change nothing. */
export function withPendingBags(crate: CrateView, pending: readonly Pending[]): CrateView {
  return pending.filter(({ command, params }) => bagCommands.includes(command) && params.crateId === crate.id).reduce((shown, entry) => applyToCrate(shown, entry as PendingBagCommand), crate)
}

function applyToCrate(crate: CrateView, entry: PendingBagCommand): CrateView {
  if (entry.command === 'addBag') return withAddedBags(crate, entry)
  const bags = crate.bags.map((bag) => applyToBag(crate, bag, entry))
  const fish = totalBags(crate.bags).inBags - totalBags(bags).inBags
  const isNewPlacing = entry.command === 'placeBags' && fish > 0
  return { ...crate, bags, lastPlacement: isNewPlacing ? { key: entry.key, staffId: entry.staffId, fish } : crate.lastPlacement }
}

/** Bags that were counted in on this device and that the server has not heard of yet. */
function withAddedBags(crate: CrateView, { key, staffId, input }: Extract<PendingBagCommand, { command: 'addBag' }>): CrateView {
  const { species, lineId: known = null, bagIds = [], happenedAtMs, ...found } = input
  if (bagIds.length === 0 || crate.bags.some(({ id }) => bagIds.includes(id))) return crate
  const lineId = known ?? `pending-${key}`
  const first = Math.max(0, ...crate.bags.map(({ number }) => number)) + 1
  const record = { ...plainFindings, ...found, staffId, staffName: '', happenedAtMs, commandKey: key }
  const bags = bagIds.map((id, index): BagView => ({ id, lineId, number: first + index, listed: found.alive + found.dead, record, inBag: found.alive, runId: null, photos: [] }))
  const line: LineView = { ...unknownLine, id: lineId, position: crate.lines.length + 1, species: species ?? unidentified }
  return { ...crate, bags: [...crate.bags, ...bags], lines: crate.lines.some(({ id }) => id === lineId) ? crate.lines : [...crate.lines, line] }
}

/** A bag of which nothing was said but its count. */
export const plainFindings = { concerns: [], body: null, skinTempC: null, waterTempC: null, salinityPpt: null }
const unknownLine = { count: 0, lotId: '', lotCode: '', tank: null, told: null, tankWater: {}, kept: notKept, animal: null, handling: noHandling, lookAlikes: [], version: 1, origin: null, strain: null, identity: null, promisedTo: null, billed: null, sizeCm: null, priceEach: null, capture: null, ateBefore: null, note: null }

function applyToBag(crate: CrateView, bag: BagView, entry: Exclude<PendingBagCommand, { command: 'addBag' }>): BagView {
  switch (entry.command) {
    case 'recordBags': {
      if (bag.record || !entry.input.bagIds.includes(bag.id)) return bag
      const { bagIds: _, ...found } = entry.input
      return { ...bag, inBag: found.alive, record: { ...found, staffId: entry.staffId, staffName: '', commandKey: entry.key } }
    }
    case 'undoBags':
      return entry.input.bagIds.includes(bag.id) ? { ...bag, record: null, inBag: 0 } : bag
    case 'placeBags': {
      const tankId = crate.lines.find((line) => line.id === bag.lineId)?.tank?.id
      const goes = tankId !== undefined && bag.runId === null && (entry.input.tankId === null || entry.input.tankId === tankId)
      return goes ? { ...bag, inBag: 0 } : bag
    }
  }
}
