import { ledgerApi } from '../../core/ledger/ledger.api'
import { serve, type Endpoint } from '../http/endpoint'
import type { LedgerService } from './ledger.service'

/** Answers for what moves fish. */
export function ledgerEndpoints({ moveFish, recordLoss, releaseFish, correctCount, findFish, addFish, sayWater, renameLot, reverseMovement }: LedgerService): Endpoint[] {
  return serve(ledgerApi, { moveFish, recordLoss, releaseFish, correctCount, findFish, addFish, sayWater, renameLot, reverseMovement })
}
