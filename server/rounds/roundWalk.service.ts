import { sourceKnown } from '../../core/contacts/sourceKnown'
import { roundOrder } from '../../core/rounds/roundOrder'
import type { RoundRules } from '../../core/rounds/roundRules'
import { splitRound } from '../../core/rounds/splitRound'
import { blockOf, type WalkRack, type WalkTank } from '../../core/rounds/walk'
import { changeWords, orderWords } from '../../core/rounds/walkWords'
import type { FloorStore } from '../room/floor.store'
import type { JudgedTank } from './levels.service'
import type { LevelsStore } from './levels.store'

/** The floor is a grid of half metres. */
const stepM = 0.5
/** Rounds whose order is kept; one that was left for longer is ordered anew. */
const mostKept = 8

interface Collaborators {
  floor: Pick<FloorStore, 'racks' | 'sinks'>
  levels: Pick<LevelsStore, 'names' | 'version'>
  rules: () => RoundRules
}
interface StopOnWalk extends WalkTank {
  tankId: string
}
export interface OrderedWalk {
  /** Unchecked tanks as they are walked, each with what is done before it. */
  stops: { tankId: string; part: number; before: string | null }[]
  why: string
}

/** An order as it was found, and what it went by. */
interface KeptWalk {
  floor: string
  spots: ReadonlyMap<string, string>
  order: readonly StopOnWalk[]
  why: string
}

const sumOf = (counts: readonly number[]): number => counts.reduce((sum, count) => sum + count, 0)

/** The order in which the tanks of a round are walked: kept while it holds, so that no tank changes its turn under a hand. */
export function createRoundWalk({ floor, levels, rules }: Collaborators) {
  const kept = new Map<string, KeptWalk>()
  let room: { version: string; racks: WalkRack[]; sinks: { xM: number; yM: number }[]; names: Map<string, string> } | null = null

  function standing() {
    if (room?.version !== levels.version()) {
      const racks = floor.racks().flatMap(({ name, x, y, isTurned }): WalkRack[] => (x === null || y === null ? [] : [{ rack: name, xM: x * stepM, yM: y * stepM, heading: isTurned ? 90 : 0 }]))
      room = { version: levels.version(), racks, sinks: floor.sinks().map(({ x, y }) => ({ xM: x * stepM, yM: y * stepM })), names: levels.names() }
    }
    return room
  }

  const nameOf = (id: string): string => standing().names.get(id) ?? ''

  /** A tank as the walk has it. Its newest lot says where its fish come from. */
  function stopOf({ tank, state }: JudgedTank): StopOnWalk {
    const { tankId, code, rack, shelf, position, water, zoneId, systemId, lots } = tank
    const [newest] = [...lots].sort((a, b) => b.arrivedAtMs - a.arrivedAtMs)
    return { tankId, code, rack, shelf, position, system: water.isAlone ? code : nameOf(systemId), zone: zoneId === null ? null : nameOf(zoneId), state, source: sourceKnown(newest?.origin ?? null) }
  }

  const pieceOf = (stop: WalkTank): string => JSON.stringify([blockOf(stop), stop.zone])

  /** Where a tank stands in the walk: with whom, and in which rack. */
  const spotOf = (stop: WalkTank): string => JSON.stringify([pieceOf(stop), stop.rack, stop.shelf, stop.position])
  const floorOf = (): string => JSON.stringify([standing().racks, standing().sinks])

  /** The order of a round: the one that was found, as long as every tank is still walked with the same others. */
  function found(roundId: string, stops: readonly StopOnWalk[]): KeptWalk {
    const [known, floorNow] = [kept.get(roundId), floorOf()]
    if (known?.floor === floorNow && stops.every((stop) => known.spots.get(stop.tankId) === spotOf(stop))) return known
    const { racks, sinks } = standing()
    const order = roundOrder({ tanks: stops, racks, sinks }, rules())
    const fresh = { floor: floorNow, spots: new Map(stops.map((stop) => [stop.tankId, spotOf(stop)])), order: order.tanks, why: orderWords(order.tanks, order) }
    kept.delete(roundId)
    kept.set(roundId, fresh)
    for (const oldest of kept.keys()) if (kept.size > mostKept) kept.delete(oldest)
    return fresh
  }

  return {
    nameOf,
    /**
     * Orders what is unchecked. A tank that turned sick on the way moves to the end with its water's rest.
     * @param lastOf - the tank that was checked last in a part; undefined before the first.
     * @param partOf - which part of a round that several walk a tank belongs to.
     */
    order(roundId: string, open: readonly JudgedTank[], partOf: (each: JudgedTank) => number, lastOf: (part: number) => JudgedTank | undefined): OrderedWalk {
      const stops = new Map(open.map((each) => [each.tank.tankId, { stop: stopOf(each), part: partOf(each) }]))
      const { order, why } = found(roundId, [...stops.values()].map(({ stop }) => stop))
      const left = order.flatMap(({ tankId }) => stops.get(tankId) ?? [])
      const before = (index: number): StopOnWalk | undefined => {
        const part = left[index]?.part ?? 1
        const last = lastOf(part)
        return left.slice(0, index).findLast((each) => each.part === part)?.stop ?? (last && stopOf(last))
      }
      return { stops: left.map(({ stop, part }, index) => ({ tankId: stop.tankId, part, before: changeWords(before(index), stop) })), why }
    },

    /** Shares what is unchecked out between people, each an unbroken piece of the walk. */
    split(roundId: string, open: readonly JudgedTank[], people: number): string[][] {
      const stops = new Map(open.map((each) => [each.tank.tankId, stopOf(each)]))
      const { order } = found(roundId, [...stops.values()])
      const tanks = order.flatMap(({ tankId }) => stops.get(tankId) ?? [])
      const { racks, sinks } = standing()
      const { counts } = splitRound({ tanks, racks, sinks }, people, rules())
      return counts.map((_, person) => tanks.slice(sumOf(counts.slice(0, person)), sumOf(counts.slice(0, person + 1))).map(({ tankId }) => tankId))
    },
  }
}
export type RoundWalk = ReturnType<typeof createRoundWalk>
