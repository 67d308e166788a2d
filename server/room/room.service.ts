import { groupBy } from '../../core/collections/groupBy'
import { lastLook, longestHold, stockOf } from '../../core/facts/askFacts'
import { dayStartIn } from './dayStartIn'
import type { LevelsService } from '../rounds/levels.service'
import type { StopsService } from '../rounds/stops.service'
import type { TankFacts } from '../../core/facts/facts'
import { planTankCodes } from '../../core/room/planTankCodes'
import type { Label } from '../../core/room/label'
import type { AddSystem } from '../../core/room/room.schema'
import { dangerOf } from '../../core/species/handling'
import { countFish } from '../../core/ledger/stockView'
import type { MovementKind } from '../../core/ledger/movement'
import type { MovementView, RoomView, StoryKind, TankSummary, TankView } from '../../core/room/roomView'
import type { Booking } from '../../core/tankChoice/bookings'
import type { CheckView } from '../../core/rounds/roundView'
import { dayInZone } from '../../core/time/dayInZone'
import type { FactsService } from '../facts/facts.service'
import type { CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import { isBagEntry } from '../ledger/ledger.service'
import type { LedgerStore, MovementRow } from '../ledger/ledger.store'
import { newId } from '../newId'
import type { PoolsStore } from '../pools/pools.store'
import type { GlassService } from './glass.service'
import type { RoomStore, TankRow } from './room.store'


/** What was written off longer ago hardly comes to light. */
const missingDays = 90

/** Movements that each choice of a story shows. */
const kindsOf: Record<Exclude<StoryKind, 'looks'>, readonly MovementKind[] | null> = { all: null, moves: ['move', 'arrive', 'born', 'release'], losses: ['loss', 'dead-in-bag'], counts: ['count-correction', 'reversal'] }

interface Collaborators {
  store: RoomStore
  facts: Pick<FactsService, 'inUse' | 'tank'>
  ledger: LedgerStore
  flagOf: LevelsService['flagOf']
  judgedOf: StopsService['of']
  pools: Pick<PoolsStore, 'sharesAt' | 'missingAt'>
  checksAt: (tankId: string, limit: number) => CheckView[]
  bookings: (nowMs: number) => Map<string, Booking[]>
  /** What hangs on a tank. */
  glass: GlassService['of']
}

/** What the room looks like: racks, tanks, and the story of each tank. */
export function createRoomService({ store, facts, ledger, pools, checksAt, bookings, glass, flagOf, judgedOf }: Collaborators) {
  const zone = (): string => store.room()?.timeZone ?? 'UTC'

  /** When today began in the room. */
  const dayStart = (nowMs: number): number => dayStartIn(nowMs, zone())

  /** What tanks are held against now, asked once for all of them. */
  function now(nowMs: number) {
    const timeZone = zone()
    return { nowMs, timeZone, on: dayInZone(nowMs, timeZone), booked: bookings(nowMs) }
  }

  /** Sums a tank up as its glass shows it. */
  function summarise(tank: TankFacts, { nowMs, on, booked }: ReturnType<typeof now>): TankSummary {
    const { tankId: id, code, kind, systemId, rack, shelf, position, lots, agents } = tank
    const look = lastLook(tank)
    return {
      ...{ id, code, kind, systemId, rack, shelf, position },
      fish: countFish(lots),
      lots: lots.map(({ lotCode, species, origin, quantity }) => ({ code: lotCode, species, origin, fish: quantity })),
      agents,
      mainSpecies: lots[0]?.species ?? null,
      speciesCount: new Set(lots.map((lot) => lot.species)).size,
      danger: lots.map(({ book }) => dangerOf(book.handling)).find((each) => each !== null) ?? null,
      hold: longestHold(tank),
      bookings: booked.get(id) ?? [],
      isCheckedToday: look?.on === on,
      lastCheckAtMs: look?.atMs ?? null,
      flag: flagOf(tank, nowMs),
    }
  }

  function requireTank(id: string): TankRow {
    const tank = store.tankById(id)
    if (!tank) throw new Problem('not-found', 'There is no such tank')
    return tank
  }

  /** The newest movements and checks of a tank, newest first, and whether there are older ones. */
  function timeline(tankId: string, entries: number, only: StoryKind): Pick<TankView, 'timeline' | 'hasOlder'> {
    const rows = only === 'looks' ? [] : ledger.rowsAt(tankId, entries + 1, kindsOf[only])
    const shares = groupBy(pools.sharesAt(tankId, [...new Set(rows.flatMap(({ eventId }) => eventId ?? []))]), ({ eventId }) => eventId)
    const all = [...rows.map((row) => toMovementView(row, tankId, shares.get(row.eventId ?? '') ?? [])), ...(only === 'all' || only === 'looks' ? checksAt(tankId, entries + 1) : [])].sort(
      (a, b) => b.happenedAtMs - a.happenedAtMs || b.recordedAtMs - a.recordedAtMs,
    )
    return { timeline: all.slice(0, entries), hasOlder: all.length > entries }
  }

  return {
    requireTank,
    zone,
    dayStart,

    /** The racks as they stand. */
    view(nowMs: number): RoomView {
      const [tanks, today] = [facts.inUse(nowMs), now(nowMs)]
      return { name: store.room()?.name ?? '', on: today.on, systems: store.systems(), tanks: tanks.map((tank) => summarise(tank, today)) }
    },

    /** One tank by its code, with as many of its newest entries as asked for. */
    tankView(code: string, entries: number, only: StoryKind, nowMs: number): TankView {
      const tank = store.tankByCode(code.toUpperCase())
      if (!tank) throw new Problem('not-found', `There is no tank ${code} in this room`)
      const known = facts.tank(tank.id, nowMs)
      const system = store.systems().find((each) => each.id === tank.systemId)
      if (!known || !system) throw new Problem('internal', 'The tank has no system')
      const today = now(nowMs)
      const { hold, bookings: booked, flag, isCheckedToday } = summarise(known, today)
      const { id, kind, netVolumeL } = tank
      return { id, code: tank.code, kind, netVolumeL, system, stock: stockOf(known), hold, bookings: booked, flag, judged: judgedOf(known, nowMs), on: today.on, isCheckedToday, missing: pools.missingAt(id, nowMs - missingDays * 86_400_000), ...glass(known, nowMs), ...timeline(id, entries, only) }
    },

    /** Labels of tanks in use, of all racks or of some; none where no tank stands there. */
    labels(racks: readonly string[], nowMs: number): { room: string; labels: Label[] } {
      const systems = new Map(store.systems().map(({ id, name }) => [id, name]))
      const labels = facts.inUse(nowMs).filter(({ rack }) => racks.length === 0 || racks.includes(rack)).map(({ code, systemId, rack, shelf, position }) => ({ code, words: `${systems.get(systemId) ?? ''}\nrack ${rack}, shelf ${shelf}, place ${position}` }))
      if (labels.length === 0) throw new Problem('not-found', 'No tank stands there')
      return { room: store.room()?.name ?? '', labels }
    },

    /** Adds a system with a rack of tanks. */
    addSystem({ nowMs: _ }: CommandContext, input: AddSystem) {
      const name = input.name.trim()
      if (store.systemByName(name)) throw fieldProblem('name', `There is a system called ${name} already`)
      const there = store.tanksOfRack(input.rack)
      const planned = planTankCodes(input.rack, input.tankCount, input.perShelf, { tanks: there.length, shelves: Math.max(0, ...there.map((tank) => tank.shelf)) })
      const systemId = newId()
      store.insertSystem({ id: systemId, name, water: input.water, sharing: input.sharing, sumpL: input.sumpL })
      const tanks = planned.map((spot) => {
        const id = newId()
        ledger.insertPlace(id, 'tank')
        store.insertTank({ id, systemId, ...spot, rack: input.rack, kind: input.tankKind, netVolumeL: input.netVolumeL })
        return { id, code: spot.code }
      })
      return { systemId, tanks }
    },
  }
}
export type RoomService = ReturnType<typeof createRoomService>

function toMovementView(row: MovementRow, tankId: string, shares: readonly { lotCode: string; share: number }[]): MovementView {
  const { id, kind, quantity, lotCode, species, happenedAtMs, recordedAtMs, staffName, commandKey, cause, reason, note, reversedById, reversesId, shortfall, chosen } = row
  return {
    ...{ type: 'movement', id, kind, quantity, lotCode, species, happenedAtMs, recordedAtMs, staffName, commandKey, cause, reason, note, reversedById, reversesId, shortfall, chosen },
    from: row.fromName,
    to: row.toName,
    change: row.toPlaceId === tankId ? quantity : -quantity,
    crate: row.crateId === null || row.crateNumber === null ? null : { id: row.crateId, number: row.crateNumber },
    fixedBecause: fixedBecause(row),
    pool: row.eventId === null || row.how === null ? null : { eventId: row.eventId, how: row.how, isSwap: row.isSwap === 1, shares: shares.map(({ lotCode: code, share }) => ({ lotCode: code, share: share / shares.reduce((sum, each) => sum + each.share, 0) })) },
  }
}

function fixedBecause(row: MovementRow): string | null {
  if (row.reversedById) return 'Taken back already.'
  if (row.kind === 'reversal') return 'A reversal is not taken back itself.'
  if (row.run !== null) return `Part of run ${row.run} on the bench: move the fish or correct the count.`
  if (row.introduction !== null) return `Part of introduction ${row.introduction} on the bench: take it back there.`
  return isBagEntry(row) ? 'Part of a bag’s record: undo the bag in Unpack.' : null
}
