import type { Ate, Sign } from '../rounds/rounds.schema'
import type { UsualOver } from '../rounds/usualOver'
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

/** What was seen at a look. */
export interface HistoryLook {
  atMs: number
  ate: Ate
  marks: { sign: Sign; severity: number }[]
  /** How many were seen, and of how many; of single kinds together. Null where nobody counted. */
  seen: { fish: number; of: number } | null
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
  /** What was seen at looks, the oldest first. */
  looks: HistoryLook[]
  /** What was usual meanwhile for the fish that stand here now. */
  usual: UsualOver
  readings: ReadingView[]
  bears: Bears[]
}

/** Days that can be looked back at. */
export const historyDays = [14, 60, 365] as const

/** How much of what was offered an answer means, from 0 to 1; null where nobody fed. */
export const appetiteOf: Record<Ate, number | null> = { all: 1, most: 0.75, some: 0.4, none: 0, 'not fed': null }

/**
 * Says how a tank ate, in a sentence.
 * @example appetiteWords([{ atMs: 0, ate: 'all', marks: [], seen: null }]) // 'Ate all at 1 look with food.'
 */
export function appetiteWords(looks: TankHistory['looks']): string {
  const fed = looks.filter(({ ate }) => ate !== 'not fed')
  if (fed.length === 0) return 'Nobody fed at any look.'
  const none = fed.filter(({ ate }) => ate === 'none').length
  const all = fed.filter(({ ate }) => ate === 'all').length
  const at = `${fed.length} ${fed.length === 1 ? 'look' : 'looks'} with food`
  return all === fed.length ? `Ate all at ${at}.` : `Ate all at ${all} of ${at}${none > 0 ? `, nothing at ${none}` : ''}.`
}

/**
 * Says which signs were seen, in a sentence: the most frequent first.
 * @example signsWords([]) // 'No sign at any look.'
 */
export function signsWords(looks: TankHistory['looks']): string {
  const names = oftenest(looks)
  return names.length === 0 ? 'No sign at any look.' : `Seen: ${names.map((sign) => `${sign} at ${looks.filter(({ marks }) => marks.some((mark) => mark.sign === sign)).length}`).join(', ')} of ${looks.length} looks.`
}

/** Signs of these looks, the most frequent first. */
export function oftenest(looks: TankHistory['looks']): Sign[] {
  const times = new Map<Sign, number>()
  for (const { marks } of looks) for (const sign of new Set(marks.map((mark) => mark.sign))) times.set(sign, (times.get(sign) ?? 0) + 1)
  return [...times].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1)).map(([sign]) => sign)
}

/** Says how many showed themselves, in a sentence; empty where nobody counted. */
export function seenWords(looks: TankHistory['looks']): string {
  const counted = looks.flatMap(({ seen }) => seen ?? [])
  const last = counted.at(-1)
  return last ? `Counted at ${counted.length} of ${looks.length} looks, last ${last.fish} of ${last.of} seen.` : ''
}

/** Says how the number went, in a sentence. */
export function countWords(counts: TankHistory['counts']): string {
  const [first, last] = [counts[0]?.fish ?? 0, counts.at(-1)?.fish ?? 0]
  const most = Math.max(0, ...counts.map(({ fish }) => fish))
  return first === last && most === first ? `${first} fish all the time.` : `${first} fish at first, ${last} now, at most ${most}.`
}
