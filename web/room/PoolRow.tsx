import { useState } from 'react'
import { kindKey, kindName, type Pool } from '../../core/pools/poolsOf'
import type { StockView } from '../../core/ledger/stockView'
import type { MoveLine } from '../../core/moves/moveWords'
import type { TankView } from '../../core/room/roomView'
import { useSession } from '../api/session'
import { Button, ButtonLink } from '../ui/Button'
import { HandlingNotes } from '../ui/HandlingNotes'
import type { Done } from '../ui/JustDone'
import { lotAge, lotsToName, lotsWords } from '../ui/poolWords'
import { SellSheet } from './SellSheet'
import { CountForm, LossForm, RenameForm } from './TankForms'
import type { TankWrites } from './useRoom'

const forms = { loss: 'lost', count: 'count', name: 'another kind' } as const
type Form = keyof typeof forms

interface Props {
  tank: TankView
  pool: Pool
  writes: TankWrites
  /** Says that something was recorded, so that it can be taken back, also when no fish of the kind are left. */
  onDone: (done: Done) => void
  /** What the tank says of fish that are known to be something else now. */
  onTell: (lines: MoveLine[]) => void
}

/** Fish of one kind, whichever lots they are of: what happens most in one touch and in two, the rest behind a third. */
export function PoolRow({ tank, pool, writes, onDone, onTell }: Props) {
  const { timeZone } = useSession()
  const [open, setOpen] = useState<'more' | 'sold' | Form | null>(null)
  const close = (): void => setOpen(null)
  const [name, lots] = [kindName(pool), lotsToName(pool)]
  const note = (words: string, cardTo?: string) => ({ movementIds }: { movementIds: string[] }): void => onDone({ words, movementId: movementIds[0] ?? '', ...(cardTo ? { cardTo } : {}) })
  const died = (): void => void writes.died(pool).then(note(`1 ${name} died`), () => undefined)
  const isMore = open !== null && open !== 'sold'
  return (
    <li className="stock">
      <p className="lot-line">
        <strong className="lot-count">{pool.quantity}</strong>
        <span>
          <strong>{name}</strong>
          <small>{lotsWords(pool, timeZone)}</small>
        </span>
      </p>
      <HandlingNotes of={pool.lots.slice(0, 1)} />
      <div className="stock-actions" role="group" aria-label={`What happened to ${name}`}>
        <Button size="hand" onClick={died}>
          1 died
        </Button>
        <Button size="hand" aria-expanded={open === 'sold'} onClick={() => setOpen('sold')}>
          sold
        </Button>
        <ButtonLink to={`/room/${tank.code}/move?kind=${encodeURIComponent(kindKey(pool))}`} size="hand">
          move
        </ButtonLink>
        <Button size="hand" aria-expanded={isMore} onClick={() => setOpen(isMore ? null : 'more')}>
          count …
        </Button>
      </div>
      {isMore && (
        <div className="stock-actions is-more" role="group" aria-label={`More of ${name}`}>
          {(Object.keys(forms) as Form[]).map((form) => (
            <Button key={form} size="hand" aria-expanded={open === form} onClick={() => setOpen(open === form ? 'more' : form)}>
              {forms[form]}
            </Button>
          ))}
          <ButtonLink to={`/room/${tank.code}/card?kind=${encodeURIComponent(kindKey(pool))}`} size="hand">
            take-along card
          </ButtonLink>
          <ToBench lotId={pool.lots[0].lotId} tankId={tank.id} isOfKind />
        </div>
      )}
      {open === 'loss' && <LossForm tank={tank} pool={pool} writes={writes} onDone={close} />}
      {open === 'count' && <CountForm tank={tank} pool={pool} writes={writes} onDone={close} />}
      {open === 'name' && <RenameForm tank={tank} pool={pool} writes={writes} onDone={close} onTell={onTell} />}
      {open === 'more' && lots.length > 1 && <Lots lots={lots} tankId={tank.id} />}
      <SellSheet tankId={tank.id} pool={pool} isOpen={open === 'sold'} onClose={close} onSell={(input, words) => writes.releaseFish(input).then(note(words, `/room/${tank.code}/card?kind=${encodeURIComponent(kindKey(pool))}&fish=${input.quantity}`))} />
    </li>
  )
}

/** Some fish of a kind, or of one lot that somebody knows, go on the bench. */
const ToBench = ({ lotId, tankId, isOfKind = false }: { lotId: string; tankId: string; isOfKind?: boolean }) => (
  <ButtonLink to={`/bench/compare?lot=${lotId}&from=${tankId}${isOfKind ? '&kind=1' : ''}`} size="hand">
    to the bench
  </ButtonLink>
)

/** The lots behind a kind of fish; what the books take them to be, where nobody could see it. */
function Lots({ lots, tankId }: { lots: readonly StockView[]; tankId: string }) {
  const { timeZone } = useSession()
  return (
    <ul className="pool-lots">
      {lots.map((lot) => (
        <li key={lot.lotId}>
          <span>
            <strong>{lot.quantity > 0 ? lot.quantity : 'perhaps 1'}</strong> of lot {lot.lotCode}
            <small>
              {lot.origin} · {lotAge(lot, timeZone)}
            </small>
          </span>
          {lot.quantity > 0 && <ToBench lotId={lot.lotId} tankId={tankId} />}
        </li>
      ))}
    </ul>
  )
}
