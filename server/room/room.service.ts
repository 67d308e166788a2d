import { TZDate } from '@date-fns/tz'
import { startOfDay } from 'date-fns'
import { groupBy } from '../../core/collections/groupBy'
import { planTankCodes } from '../../core/room/planTankCodes'
import type { AddSystem } from '../../core/room/room.schema'
import { dangerOf } from '../../core/species/handling'
import { countFish, type StockView } from '../../core/ledger/stockView'
import type { HoldView, MovementView, RoomView, TankSummary, TankView } from '../../core/room/roomView'
import type { Booking } from '../../core/tankChoice/bookings'
import { tankFlag } from '../../core/room/tankFlag'
import type { CheckView } from '../../core/rounds/roundView'
import { dayInZone } from '../../core/time/dayInZone'
import type { CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import { isBagEntry } from '../ledger/ledger.service'
import type { LedgerStore, MovementRow } from '../ledger/ledger.store'
import { newId } from '../newId'
import type { RoomStore, TankRow } from './room.store'

const timelinePage = 40
/** Nobody reads further back on one screen. */
const mostEntries = 5000

interface Collaborators {
  store: RoomStore
  ledger: LedgerStore
  checksAt: (tankId: string, limit: number) => CheckView[]
  holdsByTank: (nowMs: number, only: string | null) => Map<string, HoldView>
  bookings: () => Map<string, Booking[]>
}

/** What the room looks like: racks, tanks, and the story of each tank. */
export function createRoomService({ store, ledger, checksAt, holdsByTank, bookings }: Collaborators) {
  const zone = (): string => store.room()?.timeZone ?? 'UTC'

  const lostToday = (nowMs: number): Map<string, number> => ledger.lostSince(startOfDay(new TZDate(nowMs, zone())).getTime())

  /** Sums tanks up: all of the room, or `only` one, for which nothing else is read. */
  function summarise(tanks: TankRow[], nowMs: number, only: string | null = null): TankSummary[] {
    const today = dayInZone(nowMs, zone())
    const lost = lostToday(nowMs)
    const checks = new Map(store.lastChecks(null, only).map((check) => [check.tankId, check]))
    const holds = holdsByTank(nowMs, only)
    const booked = bookings()
    const stock = groupBy(ledger.tankStock(only), (row) => row.placeId)
    return tanks.map((tank) => {
      const lots = stock.get(tank.id) ?? []
      const check = checks.get(tank.id)
      const { id, code, kind, systemId, rack, shelf, position } = tank
      return {
        ...{ id, code, kind, systemId, rack, shelf, position },
        fish: countFish(lots),
        mainSpecies: lots[0]?.species ?? null,
        speciesCount: new Set(lots.map((lot) => lot.species)).size,
        danger: lots.map(({ handling }) => dangerOf(handling)).find((each) => each !== null) ?? null,
        hold: holds.get(tank.id) ?? null,
        bookings: booked.get(tank.id) ?? [],
        isCheckedToday: check?.roundOn === today,
        lastCheckAtMs: check?.happenedAtMs ?? null,
        flag: tankFlag({ signs: check?.signs ?? [], ate: check?.ate ?? null, lostToday: lost.get(tank.id) ?? 0 }),
      }
    })
  }

  function requireTank(id: string): TankRow {
    const tank = store.tankById(id)
    if (!tank) throw new Problem('not-found', 'There is no such tank')
    return tank
  }

  /** The newest movements and checks of a tank, newest first, and whether there are older ones. */
  function timeline(tankId: string, entries: number): Pick<TankView, 'timeline' | 'hasOlder'> {
    const all = [...ledger.rowsAt(tankId, entries + 1).map((row) => toMovementView(row, tankId)), ...checksAt(tankId, entries + 1)].sort(
      (a, b) => b.happenedAtMs - a.happenedAtMs || b.recordedAtMs - a.recordedAtMs,
    )
    return { timeline: all.slice(0, entries), hasOlder: all.length > entries }
  }

  return {
    requireTank,
    summarise,
    zone,
    lostToday,

    /** The racks as they stand. */
    view: (nowMs: number): RoomView => ({ name: store.room()?.name ?? '', systems: store.systems(), tanks: summarise(store.tanks(), nowMs) }),

    /** One tank by its code, with as many of its newest entries as asked for. */
    tankView(code: string, asked: unknown, nowMs: number): TankView {
      const tank = store.tankByCode(code.toUpperCase())
      if (!tank) throw new Problem('not-found', `There is no tank ${code} in this room`)
      const entries = typeof asked === 'string' && /^\d{1,5}$/.test(asked) ? Math.min(Number(asked), mostEntries) : timelinePage
      const summary = summarise([tank], nowMs, tank.id)[0]
      const system = store.systems().find((each) => each.id === tank.systemId)
      if (!summary || !system) throw new Problem('internal', 'The tank has no system')
      const { id, kind, netVolumeL } = tank
      const stock = ledger.tankStock(id).map(withoutPlace)
      return { id, code: tank.code, kind, netVolumeL, system, stock, hold: summary.hold, bookings: summary.bookings, flag: summary.flag, isCheckedToday: summary.isCheckedToday, ...timeline(id, entries) }
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

/** Drops the place from a stock row. */
export function withoutPlace({ placeId: _, ...row }: StockView & { placeId: string }): StockView {
  return row
}

function toMovementView(row: MovementRow, tankId: string): MovementView {
  const { id, kind, quantity, lotCode, species, happenedAtMs, recordedAtMs, staffName, commandKey, cause, reason, note, reversedById, reversesId } = row
  return {
    ...{ type: 'movement', id, kind, quantity, lotCode, species, happenedAtMs, recordedAtMs, staffName, commandKey, cause, reason, note, reversedById, reversesId },
    from: row.fromName,
    to: row.toName,
    change: row.toPlaceId === tankId ? quantity : -quantity,
    crate: row.crateId === null || row.crateNumber === null ? null : { id: row.crateId, number: row.crateNumber },
    fixedBecause: fixedBecause(row),
  }
}

function fixedBecause(row: MovementRow): string | null {
  if (row.reversedById) return 'Taken back already.'
  if (row.kind === 'reversal') return 'A reversal is not taken back itself.'
  if (row.run !== null) return `Part of run ${row.run} on the bench: move the fish or correct the count.`
  return isBagEntry(row) ? 'Part of a bag’s record: undo the bag in Unpack.' : null
}
