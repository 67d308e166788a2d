import { useState } from 'react'
import { lossCauses } from '../../core/ledger/movement'
import type { RecordLoss } from '../../core/ledger/ledger.schema'
import { kindName, poolsOf } from '../../core/pools/poolsOf'
import type { RoundStop } from '../../core/rounds/roundView'
import { Button } from '../ui/Button'
import { LotChoice } from '../ui/LotChoice'
import { Sheet } from '../ui/Sheet'
import { Stepper } from '../ui/Stepper'

interface Props {
  stop: RoundStop
  isOpen: boolean
  onClose: () => void
  onLoss: (loss: Omit<RecordLoss, 'happenedAtMs'>, words: string) => void
}

/** Fish lost on the round: of which kind, how many, and the cause records it. */
export function LossSheet({ stop, isOpen, onClose, onLoss }: Props) {
  const pools = poolsOf(stop.stock)
  const [key, setKey] = useState<string | null>(null)
  const [quantity, setQuantity] = useState(1)
  const [lotIds, setLotIds] = useState<string[]>([])
  const pool = pools.find((each) => each.key === key) ?? pools[0]
  if (!pool) return null
  const choose = (next: string): void => {
    setKey(next)
    setLotIds([])
  }
  const record = (cause: RecordLoss['cause']): void => {
    onLoss({ speciesId: pool.speciesId, strain: pool.strain, lotIds, quantity, cause, note: null }, `${quantity} ${kindName(pool)} lost: ${cause}`)
    setQuantity(1)
    setLotIds([])
    onClose()
  }
  return (
    <Sheet title={`Lost in ${stop.code}`} isOpen={isOpen} onClose={onClose}>
      {pools.length > 1 && (
        <div className="sign-choice" role="group" aria-label="Kind of fish">
          {pools.map((each) => (
            <Button key={each.key} size="hand" aria-pressed={each.key === pool.key} onClick={() => choose(each.key)}>
              {kindName(each)}
            </Button>
          ))}
        </div>
      )}
      <Stepper label="lost" value={quantity} max={pool.quantity} onChange={(next) => setQuantity(Math.max(1, next))} />
      <p>
        of {pool.quantity} {kindName(pool)}. The cause records it:
      </p>
      <div className="sign-choice">
        {lossCauses.map((cause) => (
          <Button key={cause} size="hand" onClick={() => record(cause)}>
            {cause}
          </Button>
        ))}
      </div>
      <LotChoice pool={pool} chosen={lotIds} onChange={setLotIds} />
    </Sheet>
  )
}
