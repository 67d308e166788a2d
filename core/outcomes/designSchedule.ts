import { mulberry } from './mulberry'
import { shippedOutcomes } from './outcomeRules'

/** Schools in the order in which the crates of one supplier get them. */
export interface ScheduledBlock {
  block: string
  order: string[]
}

const [usualSeed, apart] = [20240, 7919]

/**
 * Draws which crate gets which of two schools: by supplier, in parts with as many of each, once. The same seed gives the same
 * schedule for ever. Source: docs/outcomes.md.
 * @param perBlock - crates of each supplier.
 * @param blockSize - crates of a part, even.
 */
export function designSchedule({ schools: [a, b], blocks, perBlock, blockSize = shippedOutcomes.trialPart, seed = usualSeed }: { schools: readonly [string, string]; blocks: readonly string[]; perBlock: number; blockSize?: number; seed?: number }): { order: ScheduledBlock[] } {
  return {
    order: blocks.map((block, index) => {
      const next = mulberry((seed + apart * index) % 2 ** 32)
      const order: string[] = []
      while (order.length < perBlock) order.push(...part(a, b, blockSize, next))
      return { block, order: order.slice(0, perBlock) }
    }),
  }
}

function part(a: string, b: string, size: number, next: () => number): string[] {
  const drawn = Array.from({ length: size }, (_, at) => (at < size / 2 ? a : b))
  for (let at = size - 1; at > 0; at -= 1) {
    const other = Math.floor(next() * (at + 1))
    ;[drawn[at], drawn[other]] = [drawn[other] as string, drawn[at] as string]
  }
  return drawn
}

export interface SchoolOfTheDay {
  school: string | null
  takesPart: boolean
  why: string
}

/**
 * The school of a trial for one crate. A crate for which either school breaks a house limit never takes part and uses up no
 * place, whichever was next: safety cannot bend the result.
 * @param used - crates of this supplier that had their place already.
 * @param worst - worst ratio to a house limit, by school; 1 and up breaks one.
 */
export function schoolOfTheDay({ schedule, block, used, schools, worst, hasBinder = false }: { schedule: readonly ScheduledBlock[]; block: string; used: number; schools: readonly string[]; worst: Readonly<Record<string, number>>; hasBinder?: boolean }): SchoolOfTheDay {
  const out = (why: string): SchoolOfTheDay => ({ school: null, takesPart: false, why })
  const own = schedule.find((each) => each.block === block)
  if (!own) return out('not in the trial')
  const next = own.order[used]
  if (next === undefined) return out('the schedule is used up')
  if (hasBinder) return out('a binder is at work')
  const over = schools.filter((school) => (worst[school] ?? 0) >= 1)
  return over.length > 0 ? out(`over a house limit: ${over.join(', ')}`) : { school: next, takesPart: true, why: 'by the schedule' }
}
