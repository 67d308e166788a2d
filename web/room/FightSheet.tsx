import { useState } from 'react'
import { fightHarms, type FightHarm } from '../../core/moves/fightWeight'
import { kindName, type Pool } from '../../core/pools/poolsOf'
import { sentenceOf } from '../api/ApiProblem'
import { Button } from '../ui/Button'
import { Problem } from '../ui/Notice'
import { Sheet } from '../ui/Sheet'

interface Props {
  pools: readonly Pool[]
  isOpen: boolean
  onClose: () => void
  onSay: (a: Pool, b: Pool, harm: FightHarm, words: string) => Promise<unknown>
}

/** Who fought whom, and what it did: it is remembered where these kinds are to meet again. */
export function FightSheet({ pools, isOpen, onClose, onSay }: Props) {
  const [harm, setHarm] = useState<FightHarm>('chased')
  const [first, setFirst] = useState<Pool | null>(null)
  const [problem, setProblem] = useState<unknown>(null)
  const close = (): void => {
    setFirst(null)
    onClose()
  }
  const say = (a: Pool, b: Pool): void => void onSay(a, b, harm, `${kindName(a)} ${harm} ${kindName(b)}`).then(close, setProblem)
  const choose = (pool: Pool): void => (first ? say(first, pool) : pools.length === 1 ? say(pool, pool) : setFirst(pool))
  return (
    <Sheet title={first ? `${kindName(first)} ${harm} whom?` : 'Who fought?'} isOpen={isOpen} onClose={close}>
      <div className="sell-reasons" role="group" aria-label="It">
        {fightHarms.map((each) => (
          <Button key={each} aria-pressed={harm === each} onClick={() => setHarm(each)}>
            {each}
          </Button>
        ))}
      </div>
      <div className="stock-actions" role="group" aria-label="Fish">
        {pools.map((pool) => (
          <Button key={pool.key} size="hand" onClick={() => choose(pool)}>
            {kindName(pool)}
          </Button>
        ))}
      </div>
      {problem !== null && <Problem>{sentenceOf(problem)}</Problem>}
    </Sheet>
  )
}
