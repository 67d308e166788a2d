import { dosingLimits } from './agents'
import { writtenDay, zoneDays } from '../time/zoneDays'

interface Matched {
  T: number
  S: number
}
export interface TransfersAsked {
  /** The minute the fish came into the first tank; whole minutes of the epoch, as all here. */
  start: number
  /** In turn, the first is the entry. */
  tanks: readonly string[]
  transfers?: number
  everyH?: number
  lateH?: number
  cleanDryH?: number
  done?: readonly number[]
  now: number
  timeZone: string
  match?: { from: Matched; to: Matched } | null
}
export interface TransferRow {
  k: number
  due: number
  on: string
  from: string
  to: string
  /** When the tank they go to is clean and dry; null where it was not used. */
  readyFrom: number | null
  isDry: boolean
}
export interface TransferSchedule {
  /** Transfers that count. */
  served: number
  status: 'finished' | 'start again' | 'due' | 'on time'
  rows: TransferRow[]
  problems: string[]
}
const hour = 60
/** Young parasites of marine white spot may swim from here on. */
const longestH = 72

function problemsOf(tanks: readonly string[], everyH: number, match: TransfersAsked['match']): string[] {
  const found: [boolean, string][] = [
    [new Set(tanks).size < 2, 'one tank only'],
    [everyH > longestH, 'longer than 72 h'],
    [match != null && Math.abs(match.from.S - match.to.S) > dosingLimits.matchPpt, 'salinity'],
    [match != null && Math.abs(match.from.T - match.to.T) > dosingLimits.matchC, 'temperature'],
  ]
  return found.flatMap(([isSo, words]) => (isSo ? [words] : [])).sort()
}

/**
 * When fish are moved from tank to tank so that what swims off them finds nobody: against marine white spot only. One that
 * comes too late is a new entry; counting begins again with it.
 * Source: Colorni 1987, docs/regimens.md#transfers.
 */
export function transferSchedule({ start, tanks, transfers = dosingLimits.transfers, everyH = dosingLimits.transferEveryH, lateH = dosingLimits.transferLateH, cleanDryH = dosingLimits.transferCleanDryH, done = [], now, timeZone, match }: TransfersAsked): TransferSchedule {
  const { dayOf } = zoneDays(timeZone)
  const left = new Map<string, number>()
  const at = (nth: number): string => tanks[nth % tanks.length] ?? ''
  let [served, last, nth] = [0, start, 0]
  const goOn = (minute: number): void => {
    left.set(at(nth), minute)
    ;[last, nth] = [minute, nth + 1]
  }
  for (const minute of [...done].sort((a, b) => a - b)) {
    served = minute - last > (everyH + lateH) * hour ? 0 : served + 1
    goOn(minute)
  }
  const rows: TransferRow[] = []
  for (let k = served + 1; k <= transfers; k += 1) {
    const [due, to] = [last + everyH * hour, at(nth + 1)]
    const used = left.get(to)
    const readyFrom = used === undefined ? null : used + cleanDryH * hour
    rows.push({ k, due, on: writtenDay(dayOf(due)), from: at(nth), to, readyFrom, isDry: readyFrom === null || readyFrom <= due })
    goOn(due)
  }
  const [first] = rows
  const status = !first ? 'finished' : now > first.due + lateH * hour ? 'start again' : now > first.due ? 'due' : 'on time'
  return { served, status, rows, problems: problemsOf(tanks, everyH, match) }
}
