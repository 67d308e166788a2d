import { roomApi } from '../../core/room/room.api'
import { serve, type Endpoint } from '../http/endpoint'
import type { RoomService } from './room.service'

/** Answers for the room and its tanks. */
export const roomEndpoints = (room: RoomService): Endpoint[] =>
  serve(roomApi, { readRoom: ({ nowMs }) => room.view(nowMs), readTank: ({ params, query, nowMs }) => room.tankView(params.code, query.entries, nowMs), addSystem: room.addSystem })
