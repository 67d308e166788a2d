import { rackAround, type FloorRack, type FloorView } from '../../core/room/floor'
import type { ArrangeRacks, ArrangeTanks, PlaceSinks } from '../../core/room/floor.schema'
import { countFish } from '../../core/ledger/stockView'
import type { Water } from '../../core/room/room.schema'
import type { AuditStore } from '../audit/audit.store'
import type { FactsService } from '../facts/facts.service'
import type { CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import type { FloorStore } from './floor.store'

interface Collaborators {
  store: FloorStore
  facts: Pick<FactsService, 'all'>
  audit: AuditStore
}

const belongingsOf = (rack: string, all: readonly { rack: string; zone: string | null; water: Water }[]): Pick<FloorRack, 'zones' | 'waters'> => {
  const own = all.filter((each) => each.rack === rack)
  return { zones: [...new Set(own.flatMap(({ zone }) => zone ?? []))], waters: [...new Set(own.map(({ water }) => water))] }
}

const spotWords = ({ rack, shelf, position }: { rack: string; shelf: number; position: number }): string => `${rack}, shelf ${shelf}, place ${position}`

/** Where racks stand on the floor, and tanks in the racks. */
export function createFloorService({ store, facts, audit }: Collaborators) {
  /** Every rack that a tank stands in or that somebody placed, at least as large as what stands in it. */
  function racks(): FloorRack[] {
    const [tanks, rows, belongings] = [store.tanks(), store.racks(), store.belongings()]
    const names = [...new Set([...rows.map(({ name }) => name), ...tanks.map(({ rack }) => rack)])]
    return names.sort((a, b) => a.localeCompare(b, 'en', { numeric: true })).map((name) => {
      const [around, row] = [rackAround(name, tanks), rows.find((each) => each.name === name)]
      return { ...around, shelves: Math.max(around.shelves, row?.shelves ?? 0), perShelf: Math.max(around.perShelf, row?.perShelf ?? 0), x: row?.x ?? null, y: row?.y ?? null, isTurned: row?.isTurned === 1, ...belongingsOf(name, belongings), version: row?.version ?? 0 }
    })
  }

  return {
    view(nowMs: number): FloorView {
      const known = facts.all(nowMs)
      return { racks: racks(), sinks: store.sinks(), tanks: store.tanks().map((tank) => ({ ...tank, fish: countFish(known.get(tank.id)?.lots ?? []) })) }
    },

    /**
     * Puts tanks into other places, all of them or none.
     * @throws Problem `stale` where somebody else put one of them elsewhere meanwhile.
     */
    arrangeTanks({ actor, key, nowMs }: CommandContext, { tanks: placed }: ArrangeTanks) {
      const there = store.tanks()
      const [size, before] = [racks(), new Map(there.map((tank) => [tank.id, tank]))]
      placed.forEach(({ id, rack, shelf, position, version }, index) => {
        const tank = before.get(id)
        const into = size.find((each) => each.rack === rack)
        if (!tank) throw fieldProblem(`tanks[${index}].id`, 'There is no such tank')
        if (tank.version !== version) throw new Problem('stale', `Somebody else changed ${tank.code} meanwhile`, { current: tank })
        if (!into) throw fieldProblem(`tanks[${index}].rack`, `There is no rack ${rack}`)
        if (shelf > into.shelves || position > into.perShelf) throw fieldProblem(`tanks[${index}].position`, `${rack} has ${into.shelves} shelves of ${into.perShelf}`)
      })
      if (new Set(placed.map(({ id }) => id)).size < placed.length) throw fieldProblem('tanks', 'A tank is named twice')
      const after = there.map((tank) => placed.find(({ id }) => id === tank.id) ?? tank)
      const taken = after.find((tank, index) => after.findIndex((other) => spotWords(other) === spotWords(tank)) < index)
      if (taken) throw fieldProblem('tanks', `Two tanks cannot stand on ${spotWords(taken)}`)
      store.placeTanks(placed)
      for (const { version: _, ...spot } of placed) {
        const tank = before.get(spot.id)
        if (tank) audit.insert({ atMs: nowMs, staffId: actor.id, action: 'moved', subject: `tank ${tank.code}`, changes: { place: [spotWords(tank), spotWords(spot)] }, commandKey: key })
      }
      return {}
    },

    arrangeRacks({ actor, key, nowMs }: CommandContext, { racks: placed }: ArrangeRacks) {
      const [there, tanks] = [racks(), store.tanks()]
      placed.forEach(({ rack: name, shelves, perShelf, x, y, isTurned, version }, index) => {
        const now = there.find(({ rack }) => rack === name)
        const least = rackAround(name, tanks)
        if (!now) throw fieldProblem(`racks[${index}].rack`, `There is no rack ${name}`)
        if (now.version !== version) throw new Problem('stale', `Somebody else changed rack ${name} meanwhile`, { current: now })
        if (shelves < least.shelves || perShelf < least.perShelf) throw fieldProblem(`racks[${index}].shelves`, `Tanks stand on ${least.shelves} shelves of ${least.perShelf} there`)
        if ((x === null) !== (y === null)) throw fieldProblem(`racks[${index}].x`, 'Say both, or neither')
        store.keepRack({ name, shelves, perShelf, x, y, isTurned: Number(isTurned), version: version + 1 })
        audit.insert({ atMs: nowMs, staffId: actor.id, action: 'placed', subject: `rack ${name}`, changes: { size: [`${now.shelves} by ${now.perShelf}`, `${shelves} by ${perShelf}`], place: [now.x === null ? null : `${now.x}, ${now.y}`, x === null ? null : `${x}, ${y}`] }, commandKey: key })
      })
      return {}
    },

    placeSinks({ actor, key, nowMs }: CommandContext, { sinks }: PlaceSinks) {
      const before = store.sinks()
      store.keepSinks(sinks)
      audit.insert({ atMs: nowMs, staffId: actor.id, action: 'placed', subject: 'sinks', changes: { sinks: [before.length, sinks.length] }, commandKey: key })
      return {}
    },
  }
}
export type FloorService = ReturnType<typeof createFloorService>
