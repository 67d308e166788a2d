import { byText } from '../contacts/contact'
import { groupBy } from '../collections/groupBy'
import type { Sign } from './holdEvents'
import { allGroups, type HoldRoom } from './holdRoom'
import type { Hold } from './strand'
import { compareRooms, type WhatIfRow } from './holdWhatIf'

/** Signs of one word in one tank that nobody has decided: they share a decision, each with its own time. */
export interface UndecidedSign {
  tank: string
  word: string
  /** Oldest first. */
  signs: readonly Sign[]
}

/** Holds that wait for somebody's word. */
export const undecidedHolds = (room: HoldRoom): Hold[] => [...allGroups(room)].flatMap(({ strands }) => strands.flatMap(({ hold }) => (hold && hold.undecided.length > 0 ? [hold] : [])))
/** What they wait for: ids of signs and breaches. */
export const undecidedIds = (holds: readonly Hold[]): ReadonlySet<string> => new Set(holds.flatMap(({ undecided }) => undecided))

/** Signs that holds of a room wait for, by tank and word; those that were seen last come first. */
export function undecidedSigns(room: HoldRoom, signs: readonly Sign[]): UndecidedSign[] {
  const noted = undecidedIds(undecidedHolds(room))
  const open = signs.filter(({ id }) => noted.has(id)).sort((a, b) => a.at - b.at || byText(a.id, b.id))
  return [...groupBy(open, ({ tank, word }) => `${word} ${tank}`).values()]
    .flatMap((same): UndecidedSign[] => (same[0] ? [{ tank: same[0].tank, word: same[0].word, signs: same }] : []))
    .sort((a, b) => (b.signs.at(-1)?.at ?? 0) - (a.signs.at(-1)?.at ?? 0) || byText(a.tank, b.tank) || byText(a.word, b.word))
}

/** What it would mean if a sign counted: whose dates move. */
export const ifItCounts = (before: HoldRoom, after: HoldRoom, { signs }: UndecidedSign): WhatIfRow[] => compareRooms(before, after, signs).rows
