import { addSystemSchema } from '../../core/room/room.schema'
import { command, read, type Endpoint } from '../http/endpoint'
import type { RoomService } from './room.service'

/** Addresses of the room and its tanks. */
export const roomEndpoints = (room: RoomService): Endpoint[] => [
  read({ path: '/api/room', access: 'device', read: ({ nowMs }) => room.view(nowMs) }),
  read({ path: '/api/tanks/:code', access: 'device', read: ({ params, query, nowMs }) => room.tankView(params.code ?? '', query.entries, nowMs) }),
  command({ method: 'post', path: '/api/systems', access: 'lead', name: 'addSystem', schema: addSystemSchema, run: room.addSystem }),
]
