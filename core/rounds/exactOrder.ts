import type { Walk } from './walk'

/** From so many tanks on the shortest walk is looked for, not found for sure. */
export const mostExact = 12

/**
 * The shortest valid walk: for every set of tanks walked and the last of them, the shortest way there (Held and Karp 1962).
 * A step stays in its piece, or leaves a finished one for a tank of which every cleaner state is finished.
 * @param walk - at most `mostExact` tanks.
 */
export function exactOrder({ size, cost, block, blockState }: Walk): number[] {
  if (size === 0) return []
  const all = (1 << size) - 1
  const best = new Float64Array((all + 1) * size).fill(Infinity)
  const before = new Int8Array((all + 1) * size).fill(-1)
  const members = Int32Array.from(blockState, (_, each) => maskOf(size, (tank) => block[tank] === each))
  const stateOf = (tank: number): number => blockState[block[tank] as number] as number
  const cleaner = Int32Array.from({ length: size }, (_, tank) => maskOf(size, (other) => stateOf(other) < stateOf(tank)))
  for (let tank = 0; tank < size; tank++) if (cleaner[tank] === 0) best[(1 << tank) * size + tank] = 0
  for (let walked = 1; walked <= all; walked++)
    for (let last = 0; last < size; last++) {
      const soFar = best[walked * size + last] as number
      if (soFar === Infinity) continue
      const piece = members[block[last] as number] as number
      const isFinished = (walked & piece) === piece
      for (let next = 0; next < size; next++) {
        if (walked & (1 << next)) continue
        if (block[next] !== block[last] && !(isFinished && (walked & (cleaner[next] as number)) === cleaner[next])) continue
        const to = (walked | (1 << next)) * size + next
        const seconds = soFar + (cost[last * size + next] as number)
        if (seconds < (best[to] as number)) [best[to], before[to]] = [seconds, last]
      }
    }
  return walkedBack(best, before, size, all)
}

const maskOf = (size: number, isIn: (tank: number) => boolean): number => {
  let mask = 0
  for (let tank = 0; tank < size; tank++) if (isIn(tank)) mask |= 1 << tank
  return mask
}

function walkedBack(best: Float64Array, before: Int8Array, size: number, all: number): number[] {
  let last = 0
  // Of two that are as short, the one that ends later in the list: people begin at its beginning.
  for (let tank = 1; tank < size; tank++) if ((best[all * size + tank] as number) <= (best[all * size + last] as number)) last = tank
  const order: number[] = []
  for (let walked = all; last >= 0; ) {
    order.unshift(last)
    const previous = before[walked * size + last] as number
    walked &= ~(1 << last)
    last = previous
  }
  return order
}
