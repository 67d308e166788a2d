import { groupBy } from '../../core/collections/groupBy'
import { tankFlag } from '../../core/room/tankFlag'
import type { RecordCheck } from '../../core/rounds/rounds.schema'
import type { RoundStop, RoundView } from '../../core/rounds/roundView'
import { walkingOrder } from '../../core/rounds/walkingOrder'
import { dayInZone } from '../../core/time/dayInZone'
import type { CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import type { LedgerStore } from '../ledger/ledger.store'
import { newId } from '../newId'
import { withoutPlace, type RoomService } from '../room/room.service'
import type { RoomStore } from '../room/room.store'
import type { RoundsStore } from './rounds.store'

const dayMs = 24 * 3_600_000

interface Collaborators {
  store: RoundsStore
  room: RoomService
  roomStore: RoomStore
  ledger: LedgerStore
}

/** The walk past all tanks. */
export function createRoundsService({ store, room, roomStore, ledger }: Collaborators) {
  return {
    /**
     * The round of today with its stops in walking order, checked or not.
     * @param asked - number of the round as it came in the address; without it the newest of today, or the first.
     */
    view(asked: unknown, nowMs: number): RoundView {
      const on = dayInZone(nowMs, room.zone())
      const newest = Math.max(1, store.newestRound(on))
      const number = typeof asked === 'string' && /^\d{1,2}$/.test(asked) && Number(asked) >= 1 ? Math.min(Number(asked), newest + 1) : newest
      const stock = groupBy(ledger.tankStock(null), (row) => row.placeId)
      const checks = new Map(store.ofRound(on, number).map((check) => [check.tankId, check]))
      const earlier = new Map(roomStore.lastChecks({ on, number }).map((check) => [check.tankId, check]))
      const systems = new Map(roomStore.systems().map((system) => [system.id, system]))
      const lost = room.lostToday(nowMs)
      const tanks = roomStore.tanks()
      const stops = tanks
        .filter((tank) => stock.has(tank.id))
        .map((tank) => {
          const system = systems.get(tank.systemId)
          const lots = (stock.get(tank.id) ?? []).map(withoutPlace)
          const last = earlier.get(tank.id)
          const newestMs = Math.max(...lots.map((lot) => lot.sinceMs))
          const check = checks.get(tank.id) ?? null
          return {
            ...{ tankId: tank.id, code: tank.code, kind: tank.kind, rack: tank.rack, shelf: tank.shelf, position: tank.position, stock: lots, check },
            systemName: system?.name ?? '',
            water: system?.water ?? '',
            lastCheck: last ? { ate: last.ate, signs: last.signs, note: last.note, happenedAtMs: last.happenedAtMs } : null,
            flag: tankFlag({ signs: last?.signs ?? [], ate: last?.ate ?? null, lostToday: lost.get(tank.id) ?? 0 }),
            signs: last?.signs ?? [],
            daysSinceArrival: Math.floor((nowMs - newestMs) / dayMs),
          }
        })
      const ordered = walkingOrder(stops).map(({ rack: _, shelf: __, position: ___, water: ____, signs: _____, daysSinceArrival: ______, ...stop }): RoundStop => stop)
      return { on, number, stops: ordered, emptyTanks: tanks.filter((tank) => !stock.has(tank.id)).map((tank) => tank.code) }
    },

    /** Records one look at one tank. */
    recordCheck({ actor, key, nowMs }: CommandContext, { replacesId, ...input }: RecordCheck) {
      if (!roomStore.tankById(input.tankId)) throw fieldProblem('tankId', 'There is no such tank')
      const id = newId()
      const roundOn = dayInZone(input.happenedAtMs, room.zone())
      store.insert({ id, ...input, roundOn, expected: store.fishIn(input.tankId), staffId: actor.id, commandKey: key, recordedAtMs: nowMs })
      if (replacesId !== null) {
        const old = store.byId(replacesId)
        if (!old || old.tankId !== input.tankId) throw fieldProblem('replacesId', 'This tank has no such check')
        if (old.replacedById) throw new Problem('conflict', 'Somebody else corrected this check meanwhile')
        store.markReplaced(old.id, id)
      }
      return { id }
    },
  }
}
export type RoundsService = ReturnType<typeof createRoundsService>
