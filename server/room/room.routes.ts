import { roomApi } from '../../core/room/room.api'
import { serve, type Endpoint } from '../http/endpoint'
import type { FloorService } from './floor.service'
import type { PastService } from './past.service'
import type { RoomService } from './room.service'

/** Answers for the room and its tanks. */
export const roomEndpoints = (room: RoomService, past: PastService, floor: FloorService): Endpoint[] =>
  serve(roomApi, {
    readRoom: ({ nowMs }) => room.view(nowMs),
    readRoomThen: ({ query: { at, clock }, nowMs }) => past.view(at ?? nowMs, clock === 'books' ? 'books' : 'happened', nowMs),
    readTank: ({ params, query, nowMs }) => room.tankView(params.code, query.entries, nowMs),
    readFloor: ({ nowMs }) => floor.view(nowMs),
    ...{ arrangeTanks: floor.arrangeTanks, arrangeRacks: floor.arrangeRacks, placeSinks: floor.placeSinks },
    addSystem: room.addSystem,
  })
