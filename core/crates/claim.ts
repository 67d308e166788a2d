import { totalBags, type BagView, type CrateView } from './crateView'
import type { CrateSummary } from './crateSummary'

export const claimStates = ['draft', 'sent', 'settled'] as const
export type ClaimState = (typeof claimStates)[number]

const hourMs = 3_600_000

/** How long a claim may still be made. */
export interface ClaimClock {
  endsAtMs: number
  /** Below zero once the window is shut. */
  leftMs: number
}

/**
 * Says when the claim window of a crate shuts: so many hours after arrival, as agreed with its supplier.
 * @returns null while nothing arrived, or when no window was agreed.
 */
export function claimClock(arrivedAtMs: number | null, windowHours: number | null, nowMs: number): ClaimClock | null {
  if (arrivedAtMs === null || windowHours === null) return null
  const endsAtMs = arrivedAtMs + windowHours * hourMs
  return { endsAtMs, leftMs: endsAtMs - nowMs }
}

/** A crate with something to claim, and the time that is left for it. */
export interface OpenClaim extends ClaimClock {
  crateId: string
  number: number
  supplier: string
  dead: number
  /** Fish missing in the bags that were opened. */
  missing: number
}

/** The claim of a crate that is still to be sent, while its window is open; at most one. */
export function openClaim({ id, number, supplier, arrivedAtMs, claimWindowHours, claimState, dead, missing }: CrateSummary, nowMs: number): OpenClaim[] {
  const clock = claimClock(arrivedAtMs, claimWindowHours, nowMs)
  const isOpen = clock !== null && clock.leftMs > 0 && dead + missing > 0 && claimState !== 'sent' && claimState !== 'settled'
  return isOpen ? [{ crateId: id, number, supplier, dead, missing, ...clock }] : []
}

/** One bag of which fish are claimed. */
export interface ClaimBag {
  bagId: string
  number: number
  listed: number
  alive: number
  dead: number
  /** Fish the list promised and the bag did not hold; 0 when it held more. */
  missing: number
  mishap: string | null
  happenedAtMs: number
  staffName: string
  readings: string[]
  note: string | null
  photoIds: string[]
}

/** What is claimed of one line. */
export interface ClaimLine {
  lineId: string
  species: string
  lotCode: string
  listed: number
  dead: number
  missing: number
  /** Fish that were other than listed; all living fish of bags so marked. */
  wrong: number
  priceEach: number | null
  /** Null while no price is known. */
  amount: number | null
  bags: ClaimBag[]
}

export interface ClaimSheet {
  lines: ClaimLine[]
  dead: number
  missing: number
  wrong: number
  /** Sum over the lines whose price is known. */
  amount: number
  /** Lines with something to claim and no price. */
  unpriced: number
}

/** Where a claim stands. */
export interface ClaimStanding {
  state: ClaimState
  note: string | null
  sentAtMs: number | null
  settledAtMs: number | null
  settledAmount: number | null
  /** 0 before anything was kept of it. */
  version: number
}
export interface ClaimView extends ClaimStanding {
  /** What the supplier wants to see; null when nothing is agreed. */
  rules: string | null
  sheet: ClaimSheet
}

/**
 * Gathers what can be claimed of a crate: dead and missing by line, from the bags that were opened. Fish too many in one
 * bag of a line make up for fish short in another, because a supplier counts by line.
 */
export function claimSheet(crate: CrateView): ClaimSheet {
  const lines = crate.lines.flatMap((line): ClaimLine[] => {
    const bags = crate.bags.filter((bag) => bag.lineId === line.id && bag.record !== null)
    const totals = totalBags(bags)
    const missing = Math.max(0, totals.short - totals.extra)
    const wrong = bags.reduce((sum, bag) => sum + (bag.record?.mishap === 'wrong species' ? bag.record.alive : 0), 0)
    if (totals.dead + missing + wrong === 0) return []
    const claimed = totals.dead + missing + wrong
    const { id: lineId, species, lotCode, priceEach, count } = line
    const amount = priceEach === null ? null : cents(priceEach * claimed)
    return [{ lineId, species, lotCode, listed: count || totals.listed, dead: totals.dead, missing, wrong, priceEach, amount, bags: bags.filter(isClaimed).map(claimBag) }]
  })
  const sum = (of: (line: ClaimLine) => number): number => lines.reduce((total, line) => total + of(line), 0)
  return { lines, dead: sum((line) => line.dead), missing: sum((line) => line.missing), wrong: sum((line) => line.wrong), amount: cents(sum((line) => line.amount ?? 0)), unpriced: lines.filter((line) => line.amount === null).length }
}

const cents = (amount: number): number => Math.round(amount * 100) / 100

const isClaimed = ({ record, listed }: BagView): boolean => record !== null && (record.dead > 0 || record.alive + record.dead < listed || record.mishap === 'wrong species')

function claimBag({ id, number, listed, record, photos }: BagView): ClaimBag {
  if (!record) throw new RangeError('a claim speaks of opened bags only')
  const { alive, dead, mishap = null, happenedAtMs, staffName, note, skinTempC, waterTempC, salinityPpt, ph, ammoniaMgL, hasBinder, concerns } = record
  const readings = [
    reading('skin', skinTempC, '°C'),
    reading('water', waterTempC, '°C'),
    reading('salinity', salinityPpt, 'ppt'),
    reading('pH', ph, ''),
    reading('ammonia', ammoniaMgL, 'mg/L as N'),
    hasBinder ? 'binder in the water' : null,
    concerns.length > 0 ? `look at ${concerns.join(', ')}` : null,
  ].filter((each) => each !== null)
  return { bagId: id, number, listed, alive, dead, missing: Math.max(0, listed - alive - dead), mishap, happenedAtMs, staffName, readings, note, photoIds: photos }
}

const reading = (name: string, value: number | null | undefined, unit: string): string | null => (value === null || value === undefined ? null : `${name} ${value}${unit ? ` ${unit}` : ''}`)
