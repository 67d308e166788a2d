import type { RunView } from '../../core/bench/benchView'
import type { CountOut } from '../../core/bench/bench.schema'
import { lossCauses, outsidePlaceId, type LossCause } from '../../core/ledger/movement'
import { fieldProblem, Problem } from '../http/problem'
import type { Entry } from '../ledger/entries'

export type Count = CountOut['counts'][number]

/** Where fish of a run stand: its vessel, or the bags it began with. */
export interface Standing {
  placeId: string
  lotId: string
  quantity: number
}

/** Counts of fish that are there and say what became of every difference; says beside the field what does not fit. */
export function checkCounts(run: RunView, counts: readonly Count[]): void {
  const booked = new Map(run.standing.map(({ lotId, quantity }) => [lotId, quantity]))
  if (booked.size === 0) throw new Problem('conflict', 'No fish of this run stand in bags or vessel any more; end the run instead')
  counts.forEach(({ lotId, alive, dead, missing = 0, difference = null }, index) => {
    const here = booked.get(lotId)
    if (here === undefined) throw fieldProblem(`counts[${index}]`, 'No fish of this lot are on this run')
    if (missing > 0 && alive + dead + missing > here) throw fieldProblem(`counts[${index}].missing`, `The books have ${here}; ${alive + dead} were counted, so at most ${Math.max(0, here - alive - dead)} are missing`)
    if (missing > 0 && !difference) throw fieldProblem(`counts[${index}].difference`, `Say what became of the ${missing}, as far as anybody knows`)
    if (alive + dead > here && difference !== 'counted wrong before') throw fieldProblem(`counts[${index}].difference`, `The books have ${here} and ${alive + dead} were counted: say that they were counted wrong before, or count again`)
  })
  if (counts.every(({ alive, dead, missing = 0 }) => alive + dead + missing === 0)) throw fieldProblem('counts', 'Nobody was counted out')
}

/** Marks fish that were missing at a count, so that they are told from those found dead. */
export const missingReason = (run: number): string => `missing when counted out of run ${run}`

/** How fish are written off that were missing at a count. */
export const missingEntry = (run: number, difference: string | null): Pick<Entry, 'kind' | 'cause' | 'reason'> => (isLossCause(difference) ? { kind: 'loss', cause: difference, reason: missingReason(run) } : { kind: 'count-correction', reason: `counted out of run ${run}: ${difference}` })

/**
 * Writes a count of one lot as movements: fish that are more come in first, the dead and the missing go out with their
 * cause, the living go where they go. Whoever is not counted stays where they are.
 */
export function entriesOfCount(run: RunView, left: readonly Standing[], { lotId, alive, dead, missing = 0, difference = null }: Count, input: CountOut, toPlaceId: string): Entry[] {
  const { happenedAtMs } = input
  const places = left.filter((each) => each.lotId === lotId).map((each) => ({ ...each }))
  const first = places[0]
  if (!first) return []
  const entries: Entry[] = []
  const more = alive + dead - places.reduce((sum, { quantity }) => sum + quantity, 0)
  if (more > 0) {
    entries.push({ kind: 'count-correction', lotId, fromPlaceId: outsidePlaceId, toPlaceId: first.placeId, quantity: more, reason: `counted out of run ${run.number}: ${difference}`, happenedAtMs })
    first.quantity += more
  }
  const take = (quantity: number, entry: Pick<Entry, 'kind' | 'toPlaceId'> & Partial<Entry>): void => {
    let open = quantity
    for (const row of places) {
      const part = Math.min(open, row.quantity)
      if (part > 0) entries.push({ lotId, fromPlaceId: row.placeId, quantity: part, happenedAtMs, ...entry })
      row.quantity -= part
      open -= part
    }
  }
  take(dead, { kind: 'loss', toPlaceId: outsidePlaceId, cause: input.cause, note: input.note })
  take(missing, { ...missingEntry(run.number, difference), toPlaceId: outsidePlaceId })
  take(alive, toPlaceId === outsidePlaceId ? { kind: 'release', toPlaceId, reason: 'sent out', note: run.toOutside } : { kind: 'move', toPlaceId })
  return entries
}

const isLossCause = (cause: string | null): cause is LossCause => (lossCauses as readonly (string | null)[]).includes(cause)
