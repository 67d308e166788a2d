import { answers, command, named } from '../commands/declare'
import type { MoveLine } from '../moves/moveWords'
import { addFishSchema, correctCountSchema, findFishSchema, moveFishSchema, recordLossSchema, releaseFishSchema, renameLotSchema, reverseMovementSchema, sayWaterSchema } from './ledger.schema'

type Written = { movementIds: string[] }
const written = answers<Written>

/** What moves fish. */
export const ledgerApi = named({
  /** *against a rule*: override (a lead's reason), isRescue (a keeper alone, fish in distress) */
  moveFish: command({ method: 'post', path: '/api/tanks/:tankId/moves', access: 'keeper', schema: moveFishSchema, touches: ({ tankId }, { toTankId, toolSetId, waterGoesAlong }) => [`tank:${tankId}`, `tank:${toTankId}`, 'rescue', ...(toolSetId || waterGoesAlong ? (['contact'] as const) : [])], answer: written() }),
  recordLoss: command({ method: 'post', path: '/api/tanks/:tankId/losses', access: 'keeper', schema: recordLossSchema, touches: ({ tankId }) => [`tank:${tankId}`], answer: written() }),
  releaseFish: command({ method: 'post', path: '/api/tanks/:tankId/releases', access: 'keeper', schema: releaseFishSchema, touches: ({ tankId }) => [`tank:${tankId}`], answer: written() }),
  correctCount: command({ method: 'post', path: '/api/tanks/:tankId/counts', access: 'keeper', schema: correctCountSchema, touches: ({ tankId }) => [`tank:${tankId}`], answer: written() }),
  /** of those written off here as not found, jumped or unknown, and no more than those */
  findFish: command({ method: 'post', path: '/api/tanks/:tankId/found', access: 'keeper', schema: findFishSchema, touches: ({ tankId }, { foundInTankId }) => [`tank:${tankId}`, ...(foundInTankId ? ([`tank:${foundInTankId}`] as const) : [])], answer: written() }),
  addFish: command({ method: 'post', path: '/api/tanks/:tankId/additions', access: 'keeper', schema: addFishSchema, touches: ({ tankId }) => [`tank:${tankId}`, 'register'], answer: answers<Written & { lotId: string }>() }),
  /** what nobody knew of these lots; 409 where the species book says it */
  sayWater: command({ method: 'put', path: '/api/lots/water', access: 'keeper', schema: sayWaterSchema, touches: () => ['tank', 'crate', 'run'] }),
  /** what its places say of it under the new name, as if it came in */
  renameLot: command({ method: 'put', path: '/api/lots/:lotId/name', access: 'keeper', schema: renameLotSchema, touches: () => ['tank', 'crate', 'bag', 'run', 'register', 'vessel'], answer: answers<{ lines: MoveLine[] }>() }),
  reverseMovement: command({ method: 'post', path: '/api/movements/:movementId/reversal', access: 'keeper', schema: reverseMovementSchema, touches: () => ['tank', 'vessel', 'bag', 'run', 'contact'], answer: written() }),
})
