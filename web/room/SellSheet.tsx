import { useState } from 'react'
import { releaseReasons, type ReleaseReason } from '../../core/ledger/movement'
import type { ReleaseFish } from '../../core/ledger/ledger.schema'
import type { MoveLine } from '../../core/moves/moveWords'
import { kindName, type Pool } from '../../core/pools/poolsOf'
import { ApiProblem, sentenceOf } from '../api/ApiProblem'
import { Button } from '../ui/Button'
import { CheckLines } from '../ui/CheckLines'
import { TextField } from '../ui/Field'
import { LotChoice } from '../ui/LotChoice'
import { NumberChoice } from '../ui/NumberChoice'
import { Problem } from '../ui/Notice'
import { Sheet } from '../ui/Sheet'
import { useSendOutCheck } from './useRoom'

interface Props {
  tankId: string
  pool: Pool
  isOpen: boolean
  onClose: () => void
  onSell: (input: Omit<ReleaseFish, 'happenedAtMs'> & { happenedAtMs: null }, words: string) => Promise<unknown>
}

/** Fish that leave alive: what speaks against it stands above the numbers, and the number records it. */
export function SellSheet({ tankId, pool, isOpen, onClose, onSell }: Props) {
  const [reason, setReason] = useState<ReleaseReason>('sold')
  const [lotIds, setLotIds] = useState<string[]>([])
  const [problem, setProblem] = useState<unknown>(null)
  const name = kindName(pool)
  const against = useSendOutCheck(tankId, pool, lotIds, isOpen)
  const [asked, setAsked] = useState<number | null>(null)
  const sell = (quantity: number, heldBecause?: string): void => {
    setProblem(null)
    setAsked(quantity)
    const held = heldBecause === undefined ? {} : { heldBecause }
    void onSell({ speciesId: pool.speciesId, strain: pool.strain, lotIds, quantity, reason, ...held, note: null, happenedAtMs: null }, `${quantity} ${name} ${reason}`).then(onClose, setProblem)
  }
  const isHeld = problem instanceof ApiProblem && problem.code === 'in-hold'
  return (
    <Sheet title={`${name}: how many?`} isOpen={isOpen} onClose={onClose}>
      <div className="sell-reasons" role="group" aria-label="They were">
        {releaseReasons.map((each) => (
          <Button key={each} aria-pressed={reason === each} onClick={() => setReason(each)}>
            {each}
          </Button>
        ))}
      </div>
      {isHeld ? <InHold words={problem.message} onAgain={(because) => asked !== null && sell(asked, because)} /> : <Against lines={against} />}
      <NumberChoice label={`Number ${reason}`} most={pool.quantity} onChoose={sell} />
      <LotChoice pool={pool} chosen={lotIds} onChange={setLotIds} />
      {!isHeld && problem !== null && <Problem>{sentenceOf(problem)}</Problem>}
    </Sheet>
  )
}

/** What speaks against it; its room is kept while that is asked, so that no number moves under a finger. */
const Against = ({ lines }: { lines: readonly MoveLine[] | null }) => (
  <div className="sell-check" role="status">
    {lines !== null && (lines.length === 0 ? <p>Nothing speaks against it.</p> : <CheckLines lines={lines} />)}
  </div>
)

/** Fish whose hold is not over may go all the same, with a reason; how many days were short stays in the books. */
function InHold({ words, onAgain }: { words: string; onAgain: (because: string) => void }) {
  const [because, setBecause] = useState('')
  return (
    <section className="rule-refusal" aria-label="In its hold">
      <p role="alert">{words}.</p>
      <div className="against-rule">
        <TextField label="Why all the same" isLabelHidden size="hand" maxLength={500} placeholder="why all the same" value={because} onChange={setBecause} />
        <Button size="hand" disabled={because.trim() === ''} onClick={() => onAgain(because.trim())}>
          All the same <small>the days it is short are kept</small>
        </Button>
      </div>
    </section>
  )
}
