import { clockOf, type HoldClock } from './holdClock'
import { departuresOf, standsIn, waterState, type Departure, type Group, type HoldRoom } from './holdRoom'
import type { WaterState } from './waterState'

interface Read<Told> {
  day: number | null
  waters: readonly WaterState[]
  departures: readonly Departure[] | undefined
  told: Told
}

/**
 * Reads something of the groups of rooms, and remembers it: what a clock goes by is never changed in place, so one whose
 * fish, water and day are those of before says what it said before.
 */
export function createGroupReader<Told>(read: (room: HoldRoom, group: Group) => Told): (room: HoldRoom, group: Group) => Told {
  const reads = new WeakMap<Group, Read<Told>>()
  return (room, group) => {
    const { lot, place, strands } = group
    const [waters, departures, known] = [strands.map((strand) => waterState(room, standsIn(room, place, strand))), departuresOf(room, lot, place), reads.get(group)]
    if (known?.day === room.day && known.departures === departures && known.waters.length === waters.length && known.waters.every((water, index) => water === waters[index])) return known.told
    const told = read(room, group)
    reads.set(group, { day: room.day, waters, departures, told })
    return told
  }
}

/** Reads clocks of rooms. */
export const createClockReader = (): ((room: HoldRoom, group: Group) => HoldClock) => createGroupReader((room, { lot, place }) => clockOf(room, lot, place))
