import { useState } from 'react'
import type { MovedFish, Sex } from '../../core/moves/moves.schema'
import { kindName, type Pool } from '../../core/pools/poolsOf'
import { Button } from '../ui/Button'
import { TextField } from '../ui/Field'
import { LotChoice } from '../ui/LotChoice'
import { NumberChoice } from '../ui/NumberChoice'
import { Problem } from '../ui/Notice'

export type Picks = Record<string, MovedFish>

interface Props {
  pools: readonly Pool[]
  picks: Picks
  /** The kind whose number is being said. */
  open: string | null
  onOpen: (key: string | null) => void
  onPick: (key: string, fish: MovedFish | null) => void
  /** What is wrong, by kind. */
  problems: Readonly<Record<string, string>>
}

/** Which fish go, of one kind or of several: a touch each for small numbers. */
export function FishPicker({ pools, picks, open, onOpen, onPick, problems }: Props) {
  return (
    <ul className="fish-picker" aria-label="Which fish">
      {pools.map((pool) => {
        const picked = picks[pool.key]
        const isOpen = open === pool.key
        return (
          <li key={pool.key}>
            <div className="picked-line">
              <span>
                <strong className={picked ? 'picked-count' : 'picked-count is-none'}>{picked?.quantity ?? '–'}</strong> of {pool.quantity} {kindName(pool)}
                {picked && (picked.chosen?.length ?? 0) > 0 && <small> {chosenWords(picked)}</small>}
              </span>
              <Button look="quiet" aria-expanded={isOpen} onClick={() => onOpen(isOpen ? null : pool.key)}>
                {isOpen ? 'done' : picked ? 'change' : 'these too'}
              </Button>
            </div>
            <Problem>{problems[pool.key]}</Problem>
            {isOpen && <OpenKind pool={pool} picked={picked} onPick={(fish, isDone) => (onPick(pool.key, fish), isDone && onOpen(null))} />}
          </li>
        )
      })}
    </ul>
  )
}

const chosenWords = ({ chosen = [] }: MovedFish): string => chosen.map(({ sex, mark }) => [sex, mark].filter(Boolean).join(' ') || 'one').join(', ')

function OpenKind({ pool, picked, onPick }: { pool: Pool; picked: MovedFish | undefined; onPick: (fish: MovedFish | null, isDone: boolean) => void }) {
  const fish = picked ?? { speciesId: pool.speciesId, strain: pool.strain, lotIds: [], quantity: 0 }
  // Who was chosen one by one goes with them, as far as so many go.
  const set = (quantity: number): void => onPick({ ...fish, quantity, chosen: (fish.chosen ?? []).slice(0, quantity) }, true)
  return (
    <div className="open-kind">
      <NumberChoice label={`How many ${kindName(pool)}`} most={pool.quantity} onChoose={set} />
      <div className="entry-buttons">
        <Button size="hand" onClick={() => set(pool.quantity)}>
          all {pool.quantity}
        </Button>
        {picked && (
          <Button size="hand" onClick={() => onPick(null, true)}>
            none
          </Button>
        )}
      </div>
      {picked && (
        <>
          <LotChoice pool={pool} chosen={fish.lotIds ?? []} onChange={(lotIds) => onPick({ ...fish, lotIds }, false)} />
          <Chosen fish={fish} onChange={(chosen) => onPick({ ...fish, chosen, quantity: Math.max(fish.quantity, chosen.length) }, false)} most={pool.quantity} />
        </>
      )}
    </div>
  )
}

/** Certain ones, by sex and mark: a pair, the one with the torn fin. */
function Chosen({ fish, most, onChange }: { fish: MovedFish; most: number; onChange: (chosen: NonNullable<MovedFish['chosen']>) => void }) {
  const [mark, setMark] = useState('')
  const chosen = fish.chosen ?? []
  const add = (sex: Sex | null): void => {
    onChange([...chosen, { sex, mark: mark.trim() || null }])
    setMark('')
  }
  return (
    <details className="chosen" open={chosen.length > 0}>
      <summary>{chosen.length > 0 ? `chosen: ${chosenWords(fish)}` : 'certain ones'}</summary>
      <div className="chosen-row">
        <TextField label="Mark" isLabelHidden size="hand" maxLength={80} placeholder="mark, such as a torn fin" value={mark} onChange={setMark} />
        {([['male', 'a male'], ['female', 'a female'], [null, 'this one']] as const).map(([sex, words]) => (
          <Button key={words} size="hand" disabled={chosen.length >= most} onClick={() => add(sex)}>
            {words}
          </Button>
        ))}
        {chosen.length > 0 && (
          <Button look="quiet" onClick={() => onChange(chosen.slice(0, -1))}>
            not the last
          </Button>
        )}
      </div>
    </details>
  )
}
