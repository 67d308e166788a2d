import { groupBy } from '../../core/collections/groupBy'
import { dayWords } from '../../core/holds/holdDay'
import { gatesWords } from '../../core/holds/holdWords'
import type { HeldLot } from '../../core/today/todayView'

/** How far a hold is and what it waits for beside its days; one that is ready waits for somebody to let its fish go. */
function stateWords({ day, of, isServed, waitsFor }: HeldLot): string {
  if (isServed) return 'ready: let them go'
  const gates = waitsFor.includes('decision') ? 'a decision' : day > of ? gatesWords(waitsFor) : null
  return `${dayWords({ day, of })}${gates === null ? '' : `, waits for ${gates}`}`
}

/** Held lots under what is said of them, so that it is said once: ready first, then those who have served most. */
export function heldInWords(holds: readonly HeldLot[]): [words: string, lots: HeldLot[]][] {
  const rank = ({ isServed, day, of }: HeldLot): number => (isServed ? -1 : of - day)
  return [...groupBy([...holds].sort((a, b) => rank(a) - rank(b)), stateWords)]
}
