import { chooseTankSchema, createCrateSchema, placeBagsSchema, recordBagsSchema, undoBagsSchema, undoPlacementSchema } from '../../core/crates/crates.schema'
import { command, plain, read, type Endpoint } from '../http/endpoint'
import type { CratesService } from './crates.service'

/** Addresses of crates, their lists and bags. */
export const cratesEndpoints = (crates: CratesService): Endpoint[] => [
  read({ path: '/api/crates', access: 'device', read: crates.list }),
  read({ path: '/api/crates/:crateId', access: 'device', read: ({ params }) => crates.view(params.crateId ?? '') }),
  // A file goes in as its bytes, because only they tell how it is encoded. Nothing is written.
  plain({ method: 'post', path: '/api/packing-lists/read', access: 'device', handle: (request, response) => void response.json(crates.readList(request.body instanceof Uint8Array ? request.body : new Uint8Array())) }),
  command({ method: 'post', path: '/api/crates', access: 'keeper', name: 'createCrate', schema: createCrateSchema, run: crates.createCrate }),
  command({ method: 'put', path: '/api/crates/:crateId/lines/:lineId/tank', access: 'keeper', name: 'chooseTank', schema: chooseTankSchema, run: crates.chooseTank }),
  command({ method: 'post', path: '/api/crates/:crateId/bags', access: 'keeper', name: 'recordBags', schema: recordBagsSchema, run: crates.recordBags }),
  command({ method: 'post', path: '/api/crates/:crateId/undone-bags', access: 'keeper', name: 'undoBags', schema: undoBagsSchema, run: crates.undoBags }),
  command({ method: 'post', path: '/api/crates/:crateId/placements', access: 'keeper', name: 'placeBags', schema: placeBagsSchema, run: crates.placeBags }),
  command({ method: 'post', path: '/api/crates/:crateId/undone-placements', access: 'keeper', name: 'undoPlacement', schema: undoPlacementSchema, run: crates.undoPlacement }),
]
