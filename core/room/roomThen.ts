import type { MovementKind } from '../ledger/movement'
import type { RoomClock } from './roomAsOf'
import type { TankKind } from './room.schema'

/** A tank as it was, where it stands now. */
export interface TankThen {
  id: string
  code: string
  kind: TankKind
  rack: string
  shelf: number
  position: number
  isRetired: boolean
  fish: number
  mainSpecies: string | null
  speciesCount: number
  /** Kinds whose number is another one now, the largest change first. */
  changes: { species: string; then: number; now: number }[]
}

/** Fish that were booked since a moment, by what happened to them. */
export type Since = Partial<Record<MovementKind, number>>

/** The room as of a moment. */
export interface RoomThen {
  atMs: number
  clock: RoomClock
  /** When the books begin; null while they are empty. */
  fromMs: number | null
  tanks: TankThen[]
  /** Fish that stood in bags, buckets and boxes. */
  elsewhere: number
  /** What happened since, by the same clock. */
  since: Since
  /** Dates that cannot be: more left a place than had come. */
  below: { place: string; species: string; n: number }[]
}

/**
 * Says in words what happened since a moment.
 * @example sinceWords({ arrive: 180, loss: 3 }) // '180 came, 3 died'
 */
export function sinceWords(since: Since): string {
  const count = (...kinds: MovementKind[]): number => kinds.reduce((sum, kind) => sum + (since[kind] ?? 0), 0)
  const parts: [number, string][] = [[count('arrive', 'born'), 'came'], [count('loss', 'dead-in-bag'), 'died or were missed'], [count('release'), 'left alive'], [count('move'), 'were moved'], [count('count-correction'), 'by counts'], [count('reversal'), 'taken back']]
  return parts.filter(([n]) => n > 0).map(([n, words]) => `${n} ${words}`).join(', ')
}
