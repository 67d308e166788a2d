import { addFishSchema, correctCountSchema, moveFishSchema, recordLossSchema, releaseFishSchema, reverseMovementSchema, sayWaterSchema } from '../../core/ledger/ledger.schema'
import { command, type Endpoint } from '../http/endpoint'
import type { LedgerService } from './ledger.service'

/** Addresses that move fish. */
export const ledgerEndpoints = (ledger: LedgerService): Endpoint[] => [
  command({ method: 'post', path: '/api/tanks/:tankId/moves', access: 'keeper', name: 'moveFish', schema: moveFishSchema, run: ledger.moveFish }),
  command({ method: 'post', path: '/api/tanks/:tankId/losses', access: 'keeper', name: 'recordLoss', schema: recordLossSchema, run: ledger.recordLoss }),
  command({ method: 'post', path: '/api/tanks/:tankId/releases', access: 'keeper', name: 'releaseFish', schema: releaseFishSchema, run: ledger.releaseFish }),
  command({ method: 'post', path: '/api/tanks/:tankId/counts', access: 'keeper', name: 'correctCount', schema: correctCountSchema, run: ledger.correctCount }),
  command({ method: 'post', path: '/api/tanks/:tankId/additions', access: 'keeper', name: 'addFish', schema: addFishSchema, run: ledger.addFish }),
  command({ method: 'put', path: '/api/lots/water', access: 'keeper', name: 'sayWater', schema: sayWaterSchema, run: ledger.sayWater }),
  command({ method: 'post', path: '/api/movements/:movementId/reversal', access: 'keeper', name: 'reverseMovement', schema: reverseMovementSchema, run: ledger.reverseMovement }),
]
