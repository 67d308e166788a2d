import { ledgerApi } from '../../core/ledger/ledger.api'
import type { Water } from '../../core/room/room.schema'
import { useWrite } from '../api/useOutbox'

/** Says which water lots live in whose species the book does not know. */
export function useSayWater() {
  const write = useWrite()
  return (lotIds: string[], water: Water, label: string) => write(ledgerApi.sayWater, { label, body: { lotIds, water } }, { refusals: 'form' })
}
