import { useState } from 'react'
import { releaseReasons, type ReleaseReason } from '../../core/ledger/movement'
import type { ReleaseFish } from '../../core/ledger/ledger.schema'
import { kindName, type Pool } from '../../core/pools/poolsOf'
import { Button } from '../ui/Button'
import { LotChoice } from '../ui/LotChoice'
import { NumberChoice } from '../ui/NumberChoice'
import { Refused } from '../ui/RuleRefusal'
import { Sheet } from '../ui/Sheet'

interface Props {
  pool: Pool
  isOpen: boolean
  onClose: () => void
  onSell: (input: Omit<ReleaseFish, 'happenedAtMs'> & { happenedAtMs: null }, words: string) => Promise<unknown>
}

/** Fish that leave alive: the number records it. */
export function SellSheet({ pool, isOpen, onClose, onSell }: Props) {
  const [reason, setReason] = useState<ReleaseReason>('sold')
  const [lotIds, setLotIds] = useState<string[]>([])
  const [problem, setProblem] = useState<unknown>(null)
  const name = kindName(pool)
  const sell = (quantity: number): void => {
    setProblem(null)
    void onSell({ speciesId: pool.speciesId, strain: pool.strain, lotIds, quantity, reason, note: null, happenedAtMs: null }, `${quantity} ${name} ${reason}`).then(onClose, setProblem)
  }
  return (
    <Sheet title={`${name}: how many?`} isOpen={isOpen} onClose={onClose}>
      <div className="sell-reasons" role="group" aria-label="They were">
        {releaseReasons.map((each) => (
          <Button key={each} aria-pressed={reason === each} onClick={() => setReason(each)}>
            {each}
          </Button>
        ))}
      </div>
      <NumberChoice label={`Number ${reason}`} most={pool.quantity} onChoose={sell} />
      <LotChoice pool={pool} chosen={lotIds} onChange={setLotIds} />
      <Refused problem={problem} onAgain={() => undefined} />
    </Sheet>
  )
}
