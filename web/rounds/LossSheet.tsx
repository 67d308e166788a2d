import { useState } from 'react'
import { lossCauses } from '../../core/ledger/movement'
import type { RecordLoss } from '../../core/ledger/ledger.schema'
import type { RoundStop } from '../../core/rounds/roundView'
import { Button } from '../ui/Button'
import { Sheet } from '../ui/Sheet'
import { Stepper } from '../ui/Stepper'

interface Props {
  stop: RoundStop
  isOpen: boolean
  onClose: () => void
  onLoss: (loss: Omit<RecordLoss, 'happenedAtMs'>, label: string) => void
}

/** Dead fish found on the round: which lot, how many, and the cause records it. */
export function LossSheet({ stop, isOpen, onClose, onLoss }: Props) {
  const [lotId, setLotId] = useState(stop.stock[0]?.lotId ?? '')
  const [quantity, setQuantity] = useState(1)
  const lot = stop.stock.find((each) => each.lotId === lotId) ?? stop.stock[0]
  if (!lot) return null
  const record = (cause: RecordLoss['cause']): void => {
    onLoss({ lotId: lot.lotId, quantity, cause, note: null }, `${quantity} ${lot.species} lost in ${stop.code}`)
    setQuantity(1)
    onClose()
  }
  return (
    <Sheet title={`Lost in ${stop.code}`} isOpen={isOpen} onClose={onClose}>
      {stop.stock.length > 1 && (
        <div className="sign-choice" role="group" aria-label="Lot">
          {stop.stock.map((each) => (
            <Button key={each.lotId} size="hand" aria-pressed={each.lotId === lot.lotId} onClick={() => setLotId(each.lotId)}>
              {each.species} {each.lotCode}
            </Button>
          ))}
        </div>
      )}
      <Stepper label="lost" value={quantity} max={lot.quantity} onChange={(next) => setQuantity(Math.max(1, next))} />
      <p>of {lot.quantity} {lot.species}. The cause records it:</p>
      <div className="sign-choice">
        {lossCauses.map((cause) => (
          <Button key={cause} size="hand" onClick={() => record(cause)}>
            {cause}
          </Button>
        ))}
      </div>
    </Sheet>
  )
}
