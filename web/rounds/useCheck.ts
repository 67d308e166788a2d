import type { KindCount, Mark, OwnAnswer } from '../../core/facts/facts'
import type { Ate, Sign } from '../../core/rounds/rounds.schema'
import type { RoundStop } from '../../core/rounds/roundView'
import { useKept } from '../ui/useKept'

/** What somebody found at a tank, before it is recorded. */
export interface Found {
  ate: Ate
  marks: Mark[]
  answers: OwnAnswer[]
  counts: KindCount[]
  seen: number | null
  note: string | null
}
const well: Found = { ate: 'all', marks: [], answers: [], counts: [], seen: null, note: null }

/** Signs that were marked, each once. */
export const signsOf = ({ marks }: Pick<Found, 'marks'>): Sign[] => [...new Set(marks.map(({ sign }) => sign))]

/** A look as the server is told it. */
export const recorded = ({ marks, ...found }: Found) => ({ ...found, signs: signsOf({ marks }), marks: marks.map((mark) => ({ ...mark, severity: mark.severity > 1 ? 2 : 1 })) })

/** What is half entered at a tank of a round: kept on the device until it is recorded, as it was recorded before where it was. */
export function useCheck(stop: Pick<RoundStop, 'tankId' | 'check'>, roundId: string) {
  // Devices of an earlier version kept other fields under another name.
  const [kept, keep] = useKept<Found>(`crate.look.${stop.tankId}.${roundId}`)
  const found = kept ?? (stop.check ? { ate: stop.check.ate, marks: stop.check.marks, answers: stop.check.answers, counts: stop.check.counts, seen: stop.check.seen, note: stop.check.note } : well)
  return { found, change: (part: Partial<Found>): void => keep({ ...found, ...part }), forget: (): void => keep(null) }
}
