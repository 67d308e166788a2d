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

/** A rack at least as large as what stands in it. */
export const rackAround = (rack: string, tanks: readonly PlacedTank[]): Rack => {
  const own = tanks.filter((tank) => tank.rack === rack)
  return { rack, shelves: Math.max(1, ...own.map(({ shelf }) => shelf)), perShelf: Math.max(1, ...own.map(({ position }) => position)) }
}
