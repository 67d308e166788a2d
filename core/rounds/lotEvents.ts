import type { LotFacts, TankFacts } from '../facts/facts'
import { hoursAgo } from '../time/hoursAgo'
import type { CourseEvent } from './expectedCourse'

const hourMs = 3_600_000
/** A lot that is in its tank so soon after a run, or after it arrived, was not moved besides. */
const sameMs = 2 * hourMs
const handledMs = 24 * hourMs
/** A dose after so long begins a treatment anew. */
const courseDays = 7

/** A run on the bench, or a bath, as far as the fish feel it. */
export interface RunOfLot {
  kind: 'acclimation' | 'bath' | 'dip' | 'look'
  /** How it was done; null for a bath. */
  schoolKey: string | null
  /** Came from a bag, not from a tank of the house. */
  isDelivery: boolean
  isCrossing: boolean
  /** When the lights come up after it; null where they were on. */
  darkUntilMs: number | null
  startedAtMs: number
  /** When the fish were in their tank; null while it goes on. */
  outAtMs: number | null
}

/**
 * What happened to a lot after which some signs are usual for a while: how it came, moved, was bathed or treated, and who
 * came to it. Times are hours before `nowMs`.
 */
export function lotEvents(lot: Pick<LotFacts, 'lotId' | 'sinceMs' | 'arrivedAtMs' | 'isBeforeBooks' | 'doses'>, tank: Pick<TankFacts, 'lots'>, runs: readonly RunOfLot[], nowMs: number): CourseEvent[] {
  const ago = (atMs: number): number => hoursAgo(atMs, nowMs)
  const ofRuns = runs.filter(({ kind }) => kind !== 'look').flatMap((run) => runEvents(run, ago))
  const isCovered = (atMs: number): boolean => runs.some(({ startedAtMs, outAtMs }) => atMs >= startedAtMs - sameMs && atMs <= (outAtMs ?? nowMs) + sameMs)
  const arrived = lot.isBeforeBooks || runs.some(({ isDelivery, kind }) => isDelivery && kind === 'acclimation') ? [] : [{ event: 'arrival' as const, hoursAgo: ago(lot.arrivedAtMs) }]
  const isMoved = lot.sinceMs - lot.arrivedAtMs > handledMs && !isCovered(lot.sinceMs)
  const newestMs = Math.max(...tank.lots.map(({ sinceMs }) => sinceMs))
  return [
    ...ofRuns,
    ...arrived,
    ...(isMoved ? [{ event: 'move' as const, hoursAgo: ago(lot.sinceMs) }] : []),
    // Whoever came last is new to the others, and they to it.
    ...(tank.lots.length > 1 ? [{ event: 'company' as const, hoursAgo: ago(newestMs) }] : []),
    ...treatments(lot.doses).map((atMs) => ({ event: 'treatment' as const, hoursAgo: ago(atMs) })),
  ]
}

function runEvents({ kind, schoolKey, isDelivery, isCrossing, darkUntilMs, startedAtMs, outAtMs }: RunOfLot, ago: (atMs: number) => number): CourseEvent[] {
  const when = { hoursAgo: outAtMs === null ? 0 : ago(outAtMs), startedHoursAgo: ago(startedAtMs) }
  if (kind !== 'acclimation') return [{ event: 'bath', ...when }]
  return [
    { event: isDelivery ? 'arrival' : 'move', school: schoolKey, ...when },
    ...(isCrossing ? [{ event: 'crossing' as const, school: schoolKey, ...when }] : []),
    ...(darkUntilMs === null || outAtMs === null ? [] : [{ event: 'dark' as const, hoursAgo: ago(darkUntilMs), startedHoursAgo: ago(outAtMs) }]),
  ]
}

/** When treatments began or were raised. A dose that only keeps a level explains nothing: else a refusal would be usual as long as one doses. */
function treatments(doses: LotFacts['doses']): number[] {
  return doses.filter(({ what, value, atMs }) => {
    const before = doses.filter((dose) => dose.what === what && dose.atMs < atMs && atMs - dose.atMs <= courseDays * 24 * hourMs)
    return before.every((dose) => dose.value < value)
  }).map(({ atMs }) => atMs)
}
