import type { Pool } from '../../core/pools/poolsOf'
import { useSession } from '../api/session'
import { Button } from './Button'
import { lotAge, lotsToName } from './poolWords'

interface Props {
  pool: Pool
  chosen: readonly string[]
  onChange: (lotIds: string[]) => void
}

/** Which lot the fish are of, for whoever knows: one, or those it can only have been. Nobody has to say; nothing for fish of one lot. */
export function LotChoice({ pool, chosen, onChange }: Props) {
  const { timeZone } = useSession()
  const lots = lotsToName(pool)
  if (lots.length < 2) return null
  return (
    <details className="lot-choice">
      <summary>{chosen.length === 0 ? 'which lot, if somebody knows' : `of lot ${lots.filter(({ lotId }) => chosen.includes(lotId)).map(({ lotCode }) => lotCode).join(' or ')}`}</summary>
      <div role="group" aria-label="Lot">
        {lots.map((lot) => (
          <Button key={lot.lotId} aria-pressed={chosen.includes(lot.lotId)} onClick={() => onChange(chosen.includes(lot.lotId) ? chosen.filter((each) => each !== lot.lotId) : [...chosen, lot.lotId])}>
            {lot.lotCode} <small>{lot.quantity > 0 ? `${lot.quantity}, ` : 'perhaps 1, '}{lotAge(lot, timeZone)}, {lot.origin}</small>
          </Button>
        ))}
      </div>
    </details>
  )
}
