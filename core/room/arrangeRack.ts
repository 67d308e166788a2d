import { byText } from '../contacts/contact'

export interface Rack {
  rack: string
  shelves: number
  perShelf: number
}
/** Where a tank stands: shelves from the top, positions from the left, both from 1. */
export interface Spot {
  rack: string
  shelf: number
  position: number
}
export interface PlacedTank extends Spot {
  id: string
}

/** How a tank makes room for itself: it changes places with who stands there, or the row moves right. */
export const arrangeModes = ['swap', 'insert'] as const
export type ArrangeMode = (typeof arrangeModes)[number]

/** A tank is put somewhere: a spot, or slots from the left and the top of a rack as it was dropped. */
export type Arranging = { id: string; rack: string; mode?: ArrangeMode } & ({ shelf: number; position: number } | { x: number; y: number })

export interface Arranged {
  refused: null | 'unknown' | 'off the rack' | 'full'
  /** Tanks that stand elsewhere after it, by id. */
  moved: PlacedTank[]
  /** The same with their old places. */
  undo: PlacedTank[]
}

const refusal = (refused: Arranged['refused']): Arranged => ({ refused, moved: [], undo: [] })
const within = (value: number, most: number): number => Math.min(most, Math.max(1, value))

/**
 * Puts a tank into another place of the racks. Its code never changes with its place: it is tape on the glass.
 * @param racks - the racks with their size.
 * @param tanks - tanks in use, each in a spot of its own.
 * @returns which tanks stand elsewhere then, or why not.
 * @example arrangeRack(racks, tanks, { id: 'D', rack: 'R1', x: 1.4, y: -0.3 }) // dropped on B: they change places
 */
export function arrangeRack(racks: readonly Rack[], tanks: readonly PlacedTank[], op: Arranging): Arranged {
  const rack = racks.find((each) => each.rack === op.rack)
  const tank = tanks.find(({ id }) => id === op.id)
  if (!rack || !tank) return refusal('unknown')
  const [shelf, position] = 'x' in op ? [within(Math.floor(op.y) + 1, rack.shelves), within(Math.floor(op.x) + 1, rack.perShelf)] : [op.shelf, op.position]
  if (shelf < 1 || shelf > rack.shelves || position < 1 || position > rack.perShelf) return refusal('off the rack')
  const spot = { rack: rack.rack, shelf, position }
  return op.mode === 'insert' ? insert(rack, tanks, tank, spot) : swap(tanks, tank, spot)
}

const stands = (tanks: readonly PlacedTank[], { rack, shelf, position }: Spot): PlacedTank | undefined => tanks.find((each) => each.rack === rack && each.shelf === shelf && each.position === position)
const isSpot = (a: Spot, b: Spot): boolean => a.rack === b.rack && a.shelf === b.shelf && a.position === b.position

function swap(tanks: readonly PlacedTank[], tank: PlacedTank, spot: Spot): Arranged {
  const there = stands(tanks, spot)
  return changes([[tank, spot], ...(there && there.id !== tank.id ? [[there, tank] as const] : [])])
}

/** The row from the spot on moves right up to its first gap; the old place of the tank itself is one. */
function insert({ perShelf }: Rack, tanks: readonly PlacedTank[], tank: PlacedTank, spot: Spot): Arranged {
  const pushed: [PlacedTank, Spot][] = []
  for (let position = spot.position; position <= perShelf; position += 1) {
    const there = stands(tanks, { ...spot, position })
    if (!there || there.id === tank.id) return changes([[tank, spot], ...pushed])
    pushed.push([there, { ...spot, position: position + 1 }])
  }
  return refusal('full')
}

function changes(all: readonly (readonly [PlacedTank, Spot])[]): Arranged {
  const changed = all.filter(([tank, spot]) => !isSpot(tank, spot)).sort(([a], [b]) => byText(a.id, b.id))
  const placed = ({ id }: PlacedTank, { rack, shelf, position }: Spot): PlacedTank => ({ id, rack, shelf, position })
  return { refused: null, moved: changed.map(([tank, spot]) => placed(tank, spot)), undo: changed.map(([tank]) => placed(tank, tank)) }
}
