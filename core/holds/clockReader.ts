import { clockOf, type HoldClock } from './holdClock'
import { groupKey, standsIn, waterState, type Departure, type Group, type HoldRoom } from './holdRoom'
import type { WaterState } from './waterState'

interface Read {
  day: number | null
  waters: readonly WaterState[]
  departures: readonly Departure[] | undefined
  clock: HoldClock
}

/**
 * Reads clocks of rooms, and remembers them: what a clock goes by is never changed in place, so one whose fish, water and
 * day are those of before is the one of before.
 */
export function createClockReader(): (room: HoldRoom, group: Group) => HoldClock {
  const reads = new WeakMap<Group, Read>()
  return (room, group) => {
    const { lot, place, strands } = group
    const [waters, departures, known] = [strands.map((strand) => waterState(room, standsIn(room, place, strand))), room.departures.get(groupKey(lot, place)), reads.get(group)]
    if (known?.day === room.day && known.departures === departures && known.waters.length === waters.length && known.waters.every((water, index) => water === waters[index])) return known.clock
    const clock = clockOf(room, lot, place)
    reads.set(group, { day: room.day, waters, departures, clock })
    return clock
  }
}
