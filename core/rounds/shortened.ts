import type { Walk } from './walk'

const nearestMost = 8
const movedMost = 3
const passesMost = 10
/** Less is rounding, not a shorter way. */
const worthS = 1e-9

/** A walk that is being shortened: which tank stands at each step, and the other way round. */
interface Tour {
  walk: Walk
  order: Int32Array
  at: Int32Array
  /** Where each piece begins, and where the last one ends. */
  starts: number[]
}

/**
 * Shortens a valid walk by turning stretches round (2-opt, Croes 1958) and moving up to three tanks (Or 1976) inside a
 * piece, and by the order and direction of pieces inside a state and of zones inside a piece. Only steps that shorten are
 * taken, so that it ends, valid.
 */
export function shortened(walk: Walk, first: readonly number[]): Int32Array {
  const near = nearest(walk)
  const tour: Tour = { walk, order: Int32Array.from(first), at: new Int32Array(walk.size), starts: [] }
  renumber(tour)
  for (let pass = 0; pass < passesMost; pass++) {
    const isShorter = [improveTanks(tour, near), improveEnds(tour), improveUnits(tour, unitsOfStates(tour)), ...zoneUnits(tour).map((units) => improveUnits(tour, units))].some(Boolean)
    if (!isShorter) break
  }
  return tour.order
}

function renumber(tour: Tour): void {
  const { order, at, walk } = tour
  order.forEach((tank, step) => (at[tank] = step))
  tour.starts = []
  for (let step = 0; step < order.length; step++) if (step === 0 || walk.block[order[step] as number] !== walk.block[order[step - 1] as number]) tour.starts.push(step)
}

/** Seconds between what stands at two steps; beyond either end of the walk nothing is walked. */
function between({ walk: { size, cost }, order }: Tour, from: number, to: number): number {
  if (from < 0 || to < 0 || from >= size || to >= size) return 0
  return cost[(order[from] as number) * size + (order[to] as number)] as number
}

/** The nearest tanks of the same piece. */
function nearest({ size, cost, block }: Walk): Int32Array[] {
  return Array.from({ length: size }, (_, tank) => {
    const found: number[] = []
    const far = (): number => (found.length < nearestMost ? Infinity : (cost[tank * size + (found.at(-1) as number)] as number))
    for (let other = 0; other < size; other++) {
      const seconds = cost[tank * size + other] as number
      if (other === tank || block[other] !== block[tank] || seconds >= far()) continue
      let place = found.length
      while (place > 0 && (cost[tank * size + (found[place - 1] as number)] as number) > seconds) place--
      found.splice(place, 0, other)
      if (found.length > nearestMost) found.pop()
    }
    return Int32Array.from(found)
  })
}

/** Looks at every tank, and again at those beside what was changed, until nothing helps. */
function improveTanks(tour: Tour, near: readonly Int32Array[]): boolean {
  const waits = [...tour.order]
  const isWaiting = new Uint8Array(tour.walk.size).fill(1)
  let isShorter = false
  const wake = (step: number): void => {
    const tank = tour.order[step]
    if (tank === undefined || isWaiting[tank]) return
    isWaiting[tank] = 1
    waits.push(tank)
  }
  for (let next = 0; next < waits.length; next++) {
    const tank = waits[next] as number
    isWaiting[tank] = 0
    const changed = turnBeside(tour, tank, near[tank] as Int32Array) ?? moveBeside(tour, tank, near[tank] as Int32Array)
    if (!changed) continue
    isShorter = true
    for (const step of changed) for (const beside of [step - 1, step, step + 1]) wake(beside)
  }
  return isShorter
}

/** Turns a stretch round so that a near tank follows or precedes this one. Returns the steps whose neighbours changed. */
function turnBeside(tour: Tour, tank: number, near: Int32Array): number[] | null {
  const { at, walk: { size, cost } } = tour
  const here = at[tank] as number
  for (const other of near) {
    const there = at[other] as number
    const seconds = cost[tank * size + other] as number
    if (seconds < between(tour, here, here + 1) && turn(tour, Math.min(here, there) + 1, Math.max(here, there))) return [Math.min(here, there) + 1, Math.max(here, there)]
    if (seconds < between(tour, here - 1, here) && turn(tour, Math.min(here, there), Math.max(here, there) - 1)) return [Math.min(here, there), Math.max(here, there) - 1]
  }
  return null
}

/** Turns the steps from one to another round where that shortens the walk. */
function turn(tour: Tour, from: number, to: number): boolean {
  if (from >= to) return false
  const saved = between(tour, from - 1, from) + between(tour, to, to + 1) - between(tour, from - 1, to) - between(tour, from, to + 1)
  if (saved <= worthS) return false
  reverse(tour, from, to)
  return true
}

function reverse({ order, at }: Tour, from: number, to: number): void {
  order.subarray(from, to + 1).reverse()
  for (let step = from; step <= to; step++) at[order[step] as number] = step
}

/** Moves this tank, alone or with one or two of its neighbours, beside a near one, either way round. */
function moveBeside(tour: Tour, tank: number, near: Int32Array): number[] | null {
  const { at, order, walk } = tour
  const here = at[tank] as number
  const isPiece = (step: number): boolean => order[step] !== undefined && walk.block[order[step] as number] === walk.block[tank]
  for (let length = 1; length <= movedMost; length++)
    for (const from of length === 1 ? [here] : [here, here - length + 1]) {
      const to = from + length - 1
      if (from < 0 || !isPiece(from) || !isPiece(to)) continue
      for (const other of near) {
        const there = at[other] as number
        if (there >= from && there <= to) continue
        for (const after of [there, there - 1]) if (moveAfter(tour, from, to, after)) return [from, to, after, after + 1, at[tank] as number]
      }
    }
  return null
}

/** Moves a stretch to behind a step, where that shortens the walk. */
function moveAfter(tour: Tour, from: number, to: number, after: number): boolean {
  if (after >= from - 1 && after <= to) return false
  const { order, at } = tour
  const out = between(tour, from - 1, from) + between(tour, to, to + 1) - between(tour, from - 1, to + 1)
  const gap = between(tour, after, after + 1)
  const [same, turned] = [between(tour, after, from) + between(tour, to, after + 1), between(tour, after, to) + between(tour, from, after + 1)]
  if (out + gap - Math.min(same, turned) <= worthS) return false
  const stretch = order.slice(from, to + 1)
  if (turned < same) stretch.reverse()
  const [low, high] = after < from ? [after + 1, to] : [from, after]
  if (after < from) order.copyWithin(after + 1 + stretch.length, after + 1, from)
  else order.copyWithin(from, to + 1, after + 1)
  order.set(stretch, after < from ? after + 1 : after - stretch.length + 1)
  for (let step = low; step <= high; step++) at[order[step] as number] = step
  return true
}

/** Turns beginnings and ends of pieces round: where a piece is entered and left hangs on its neighbours, which are not near. */
function improveEnds(tour: Tour): boolean {
  let isShorter = false
  tour.starts.forEach((start, piece) => {
    const end = (tour.starts[piece + 1] ?? tour.walk.size) - 1
    for (let step = start; step <= end; step++) isShorter = [turn(tour, start, step), turn(tour, step, end)].some(Boolean) || isShorter
  })
  return isShorter
}

/** Stretches that may change places: first step, and the step behind the last. */
type Units = { from: number; to: number }[]

/** Pieces of each state, where it has more than one. */
function unitsOfStates({ starts, walk, order }: Tour): Units[] {
  const states = new Map<number, Units>()
  starts.forEach((from, index) => {
    const state = walk.blockState[walk.block[order[from] as number] as number] as number
    states.set(state, [...(states.get(state) ?? []), { from, to: (starts[index + 1] ?? walk.size) - 1 }])
  })
  return [...states.values()]
}

/** Runs of one zone inside each piece that has more than one. */
function zoneUnits({ starts, walk, order }: Tour): Units[][] {
  return starts.flatMap((start, index) => {
    const end = (starts[index + 1] ?? walk.size) - 1
    const units: Units = []
    for (let step = start; step <= end; step++) {
      const last = units.at(-1)
      if (last && walk.zone[order[step] as number] === walk.zone[order[last.from] as number]) last.to = step
      else units.push({ from: step, to: step })
    }
    return units.length > 1 ? [[units]] : []
  })
}

/** Turns units round and puts them elsewhere among their own, where that shortens the walk. */
function improveUnits(tour: Tour, lists: Units[]): boolean {
  let isShorter = false
  for (const units of lists)
    for (let isNews = true; isNews; ) {
      isNews = units.some(({ from, to }) => turn(tour, from, to)) || (units.length > 1 && moveUnit(tour, units))
      isShorter ||= isNews
    }
  renumber(tour)
  return isShorter
}

function moveUnit(tour: Tour, units: Units): boolean {
  for (const { from, to } of units)
    for (const other of units)
      for (const after of [other.to, other.from - 1])
        if (moveAfter(tour, from, to, after)) {
          regroup(units, from, to, after)
          return true
        }
  return false
}

/** Where units stand after one of them was moved behind a step. */
function regroup(units: Units, from: number, to: number, after: number): void {
  const length = to - from + 1
  for (const unit of units) {
    const [isMoved, isBetween] = [unit.from === from, after < from ? unit.from > after && unit.from < from : unit.from > to && unit.from <= after]
    const shift = isMoved ? (after < from ? after + 1 - from : after - to) : isBetween ? (after < from ? length : -length) : 0
    unit.from += shift
    unit.to += shift
  }
  units.sort((a, b) => a.from - b.from)
}
