import type { Ate } from '../rounds/rounds.schema'
import type { ReadingKind } from './glass.schema'

/** A figure somebody read. */
export interface ReadingView {
  seq: number
  what: ReadingKind
  value: number
  instrument: string | null
  atMs: number
  by: string
}

/** A range that all who live there bear; null where the book does not say. */
export interface Bears {
  what: ReadingKind
  min: number | null
  max: number | null
}

/** How a tank fared over some days. */
export interface TankHistory {
  tankId: string
  /** Every tank on its water, itself among them: what is read at one holds for all. */
  waterTankIds: string[]
  fromMs: number
  toMs: number
  /** Fish in it, from each moment on; the first at `fromMs`. */
  counts: { atMs: number; fish: number }[]
  /** How they ate, the oldest first. */
  ate: { atMs: number; ate: Ate; signs: number }[]
  readings: ReadingView[]
  bears: Bears[]
}

/** Days that can be looked back at. */
export const historyDays = [14, 60, 365] as const

/** How much of what was offered an answer means, from 0 to 1; null where nobody fed. */
export const appetiteOf: Record<Ate, number | null> = { all: 1, most: 0.75, some: 0.4, none: 0, 'not fed': null }

/**
 * Says how a tank ate, in a sentence.
 * @example appetiteWords([{ atMs: 0, ate: 'all', signs: 0 }]) // 'Ate all at 1 look with food.'
 */
export function appetiteWords(looks: TankHistory['ate']): string {
  const fed = looks.filter(({ ate }) => ate !== 'not fed')
  if (fed.length === 0) return 'Nobody fed at any look.'
  const none = fed.filter(({ ate }) => ate === 'none').length
  const all = fed.filter(({ ate }) => ate === 'all').length
  const at = `${fed.length} ${fed.length === 1 ? 'look' : 'looks'} with food`
  return all === fed.length ? `Ate all at ${at}.` : `Ate all at ${all} of ${at}${none > 0 ? `, nothing at ${none}` : ''}.`
}

/** Says how the number went, in a sentence. */
export function countWords(counts: TankHistory['counts']): string {
  const [first, last] = [counts[0]?.fish ?? 0, counts.at(-1)?.fish ?? 0]
  const most = Math.max(0, ...counts.map(({ fish }) => fish))
  return first === last && most === first ? `${first} fish all the time.` : `${first} fish at first, ${last} now, at most ${most}.`
}
