import { byText } from '../contacts/contact'
import type { PlacedTank, Rack } from './arrangeRack'
import type { TankKind, Water } from './room.schema'

/** A place on the floor, in steps of half a metre from the left and the back wall. */
export interface FloorSpot {
  x: number
  y: number
}

/** A rack and where it stands; nowhere yet where x and y are null. */
export interface FloorRack extends Rack {
  x: number | null
  y: number | null
  isTurned: boolean
  /** Zones and waters of its tanks, each once. */
  zones: string[]
  waters: Water[]
  /** 0 for one that nobody placed or measured. */
  version: number
}

export interface FloorTank extends PlacedTank {
  code: string
  kind: TankKind
  fish: number
  version: number
}

export interface FloorView {
  racks: FloorRack[]
  tanks: FloorTank[]
  sinks: FloorSpot[]
}

/**
 * Orders racks as one walks by them: from the first sink to the nearest, and from each to the next nearest. Racks that
 * nobody placed come last, by name.
 * @example walkRacks([{ rack: 'B', x: 9, y: 0 }, { rack: 'A', x: 2, y: 0 }], [{ x: 0, y: 0 }]) // ['A', 'B']
 */
export function walkRacks(racks: readonly { rack: string; x: number | null; y: number | null }[], sinks: readonly FloorSpot[]): string[] {
  const byName = [...racks].sort((a, b) => byText(a.rack, b.rack))
  const left = byName.flatMap(({ rack, x, y }) => (x === null || y === null ? [] : [{ rack, x, y }]))
  const order: string[] = []
  let here: FloorSpot = sinks[0] ?? { x: 0, y: 0 }
  while (left.length > 0) {
    const far = left.map(({ x, y }) => Math.hypot(x - here.x, y - here.y))
    const [next] = left.splice(far.indexOf(Math.min(...far)), 1)
    if (!next) break
    order.push(next.rack)
    here = next
  }
  return [...order, ...byName.filter(({ x, y }) => x === null || y === null).map(({ rack }) => rack)]
}

/** A rack at least as large as what stands in it. */
export const rackAround = (rack: string, tanks: readonly PlacedTank[]): Rack => {
  const own = tanks.filter((tank) => tank.rack === rack)
  return { rack, shelves: Math.max(1, ...own.map(({ shelf }) => shelf)), perShelf: Math.max(1, ...own.map(({ position }) => position)) }
}
