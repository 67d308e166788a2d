import { ateAnswers, type Ate } from '../../core/rounds/rounds.schema'
import type { RoundStop } from '../../core/rounds/roundView'
import { kindName, poolsOf, type Pool } from '../../core/pools/poolsOf'
import { ateWords } from '../ui/ateWords'
import { Button } from '../ui/Button'
import { Sheet } from '../ui/Sheet'
import { Stepper } from '../ui/Stepper'
import type { Found } from './useCheck'

interface Props {
  stop: RoundStop
  found: Found
  isOpen: boolean
  onClose: () => void
  onChange: (part: Partial<Found>) => void
}

/** Kind by kind: how it ate where the others ate otherwise, and how many of it were seen. */
export function KindSheet({ stop, found, isOpen, onClose, onChange }: Props) {
  const lotsOf = ({ lots }: Pool): string[] => lots.filter(({ quantity }) => quantity > 0).map(({ lotId }) => lotId)
  const eat = (pool: Pool, ate: Ate): void => {
    const ids = lotsOf(pool)
    const others = found.answers.filter(({ lotId }) => !ids.includes(lotId))
    onChange({ answers: ateOf(pool) === ate ? others : [...others, ...ids.map((lotId) => ({ lotId, ate }))] })
  }
  const ateOf = (pool: Pool): Ate | null => found.answers.find(({ lotId }) => lotsOf(pool).includes(lotId))?.ate ?? null
  const seenOf = (pool: Pool): number | null => found.counts.find(({ lotId }) => lotsOf(pool).includes(lotId))?.seen ?? null
  const count = (pool: Pool, seen: number | null): void => {
    const others = found.counts.filter(({ lotId }) => !lotsOf(pool).includes(lotId))
    onChange({ counts: seen === null ? others : [...others, { lotId: lotsOf(pool)[0] ?? '', seen }] })
  }
  return (
    <Sheet title={`Kind by kind in ${stop.code}`} isOpen={isOpen} onClose={onClose}>
      {poolsOf(stop.stock).map((pool) => (
        <section key={pool.key} className="one-kind" aria-label={kindName(pool)}>
          <h3>
            {pool.quantity} {kindName(pool)}
          </h3>
          <div className="answers" role="group" aria-label={`How ${kindName(pool)} ate`}>
            {ateAnswers.map((ate) => (
              <Button key={ate} size="hand" aria-pressed={ateOf(pool) === ate} onClick={() => eat(pool, ate)}>
                {ateWords[ate]}
              </Button>
            ))}
          </div>
          {seenOf(pool) === null ? (
            <Button size="hand" onClick={() => count(pool, pool.quantity)}>
              count {kindName(pool)}
            </Button>
          ) : (
            <Stepper label={`seen of ${kindName(pool)}`} value={seenOf(pool) ?? 0} max={20_000} onChange={(seen) => count(pool, seen)} />
          )}
        </section>
      ))}
      <Button look="act" size="hand" onClick={onClose}>
        <strong>Back to {stop.code}</strong>
      </Button>
    </Sheet>
  )
}
