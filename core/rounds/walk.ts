import { shippedRoundRules, type RoundRules } from './roundRules'
import { roundStates, type RoundState } from './roundState'
import { naturally } from '../words/naturally'

/** A tank as the walk passes it. */
export interface WalkTank {
  code: string
  rack: string
  shelf: number
  /** Along the rack, from 1. */
  position: number
  /** Its water. */
  system: string
  zone: string | null
  state: RoundState
  /** Where its newest fish come from; null when nobody knows. */
  source: string | null
}
/** A rack on the floor: where one stands before its first bay, and which way the others follow. */
export interface WalkRack {
  rack: string
  xM: number
  yM: number
  bayM?: number
  /** 0 along x, 90 along y, 180 and 270 back. */
  heading?: number
}
export interface Point {
  xM: number
  yM: number
}
export interface WalkAsked<T extends WalkTank = WalkTank> {
  tanks: readonly T[]
  racks?: readonly WalkRack[]
  /** Where hands are washed. */
  sinks?: readonly Point[]
}

/** The walk as the search sees it: tanks by number, what each step costs, and what must be walked in one piece. */
export interface Walk {
  size: number
  /** Seconds from a tank to another, row by row. */
  cost: Float64Array
  /** 1 where hands are washed and tools changed on the way. */
  isChange: Uint8Array
  /** Number of the piece that a tank is walked in; pieces are numbered by state. */
  block: Int32Array
  /** How doubtful each piece is: 0 settled to 3 sick. */
  blockState: Int32Array
  zone: Int32Array
}

/** What is walked in one piece: all settled tanks; new ones by where they come from; doubtful ones by water. */
export function blockOf({ state, source, system }: Pick<WalkTank, 'state' | 'source' | 'system'>): string {
  if (state === 'settled') return 'settled'
  return state === 'new' ? `new ${source ?? ''}` : `${state} ${system}`
}

const numbered = (keys: readonly string[]): Int32Array => {
  const all = [...new Set(keys)]
  return Int32Array.from(keys, (key) => all.indexOf(key))
}

/** Lays out what the search needs to know. */
export function layOut({ tanks, racks = [], sinks = [] }: WalkAsked, rules: RoundRules = shippedRoundRules): Walk {
  const byState = tanks.map((tank) => `${roundStates.indexOf(tank.state)} ${blockOf(tank)}`)
  const blocks = [...new Set(byState)].sort()
  const block = Int32Array.from(byState, (key) => blocks.indexOf(key))
  const zone = numbered(tanks.map((tank) => tank.zone ?? ''))
  const points = standingPoints(tanks, racks, rules)
  const size = tanks.length
  const [cost, isChange] = [new Float64Array(size * size), new Uint8Array(size * size)]
  const { metresPerS, shelfS, washS, toolsS } = rules.walk
  const toSinks = points.map((point) => sinks.map((sink) => metres(point, sink)))
  for (let from = 0; from < size; from++)
    for (let to = from + 1; to < size; to++) {
      const [a, b] = [points[from] as Point, points[to] as Point]
      const isClean = block[from] === block[to] && zone[from] === zone[to]
      const way = isClean || sinks.length === 0 ? metres(a, b) : bestSink(toSinks[from] as number[], toSinks[to] as number[])
      const seconds = way / metresPerS + shelfS * Math.abs((tanks[from]?.shelf ?? 0) - (tanks[to]?.shelf ?? 0)) + (isClean ? 0 : washS + toolsS)
      cost[from * size + to] = cost[to * size + from] = seconds
      isChange[from * size + to] = isChange[to * size + from] = isClean ? 0 : 1
    }
  return { size, cost, isChange, block, zone, blockState: Int32Array.from(blocks, (key) => Number(key[0])) }
}

const metres = (a: Point, b: Point): number => Math.abs(a.xM - b.xM) + Math.abs(a.yM - b.yM)

function bestSink(from: readonly number[], to: readonly number[]): number {
  let best = Infinity
  for (let sink = 0; sink < from.length; sink++) best = Math.min(best, (from[sink] ?? 0) + (to[sink] ?? 0))
  return best
}

/** Where one stands before each tank. Racks that nobody placed on the floor stand side by side in the order of their names. */
function standingPoints(tanks: readonly WalkTank[], racks: readonly WalkRack[], { walk: { bayM, aisleM } }: RoundRules): Point[] {
  const placed = new Map(racks.map((rack) => [rack.rack, rack]))
  const others = [...new Set(tanks.map(({ rack }) => rack))].filter((rack) => !placed.has(rack)).sort(naturally)
  return tanks.map(({ rack, position }) => {
    const { xM, yM, heading = 0, bayM: ownBayM = bayM } = placed.get(rack) ?? { xM: 0, yM: aisleM * others.indexOf(rack) }
    const [alongM, turn] = [(position - 1) * ownBayM, (heading * Math.PI) / 180]
    return { xM: xM + alongM * Math.round(Math.cos(turn)), yM: yM + alongM * Math.round(Math.sin(turn)) }
  })
}

export interface WalkLength {
  /** Hands never go back to a cleaner state, and every piece is walked at once. */
  isValid: boolean
  /** Walking, washing and changing tools; not the work at the tanks. */
  seconds: number
  changes: number
}

/** Adds up a walk by tank numbers. */
export function lengthOf({ size, cost, isChange, block, blockState }: Walk, order: ArrayLike<number>): WalkLength {
  let [seconds, changes, isValid] = [0, 0, true]
  const left = new Set<number>()
  for (let step = 1; step < order.length; step++) {
    const [from, to] = [order[step - 1] as number, order[step] as number]
    seconds += cost[from * size + to] as number
    changes += isChange[from * size + to] as number
    const [here, next] = [block[from] as number, block[to] as number]
    if (here === next) continue
    left.add(here)
    if (left.has(next) || (blockState[next] as number) < (blockState[here] as number)) isValid = false
  }
  return { isValid, seconds, changes }
}

/**
 * How long a walk takes and whether it keeps clean hands clean. Source: docs/rounds.md.
 * @param order - codes of the tanks.
 * @returns null where the order does not name every tank once.
 */
export function walkLength(asked: WalkAsked, order: readonly string[], rules: RoundRules = shippedRoundRules): WalkLength | null {
  const index = new Map(asked.tanks.map(({ code }, tank) => [code, tank]))
  const numbers = order.map((code) => index.get(code) ?? -1)
  if (numbers.length !== asked.tanks.length || new Set(numbers).size !== numbers.length || numbers.includes(-1)) return null
  return lengthOf(layOut(asked, rules), numbers)
}
