import { storyKinds } from '../../core/room/roomView'
import { roomApi } from '../../core/room/room.api'
import { serve, type Endpoint } from '../http/endpoint'
import { programAtMost } from '../program'
import type { FloorService } from './floor.service'
import type { PastService } from './past.service'
import type { RoomService } from './room.service'

const writeLabels = programAtMost('room/labelsMain', 1, 'Labels are being written already; wait a few seconds')

/** Answers for the room and its tanks. */
export const roomEndpoints = (room: RoomService, past: PastService, floor: FloorService, now: () => number): Endpoint[] =>
  serve(roomApi, {
    readRoom: ({ nowMs }) => room.view(nowMs),
    readRoomThen: ({ query: { at, clock }, nowMs }) => past.view(at ?? nowMs, clock === 'books' ? 'books' : 'happened', nowMs),
    readTank: ({ params, query, nowMs }) => room.tankView(params.code, query.entries, storyKinds.find((kind) => kind === query.only) ?? 'all', nowMs),
    readFloor: ({ nowMs }) => floor.view(nowMs),
    ...{ arrangeTanks: floor.arrangeTanks, arrangeRacks: floor.arrangeRacks, placeSinks: floor.placeSinks },
    async labelsFile(request, response) {
      const racks = [request.query.rack].flat().filter((each): each is string => typeof each === 'string')
      const paper = { ...room.labels(racks, now()), origin: `${request.protocol}://${request.get('Host')}` }
      response.attachment('labels.pdf').type('application/pdf').send(await writeLabels(paper))
    },
    addSystem: room.addSystem,
  })
