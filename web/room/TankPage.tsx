import { useState } from 'react'
import { useParams } from 'react-router'
import { countFish, type StockView } from '../../core/ledger/stockView'
import { bookingWords } from '../../core/tankChoice/bookings'
import type { TankView } from '../../core/room/roomView'
import { Button, ButtonLink } from '../ui/Button'
import { plural } from '../ui/format'
import { Apart } from '../ui/Apart'
import { HandlingNotes } from '../ui/HandlingNotes'
import { Lead } from '../ui/Lead'
import { Nothing, Trouble, Waiting } from '../ui/PageState'
import { TankGlyph } from '../ui/TankGlyph'
import { useFormat } from '../ui/useFormat'
import { useUnits } from '../ui/useUnits'
import { AddForm, CountForm, LossForm, MoveForm, ReleaseForm } from './TankForms'
import { Timeline } from './Timeline'
import { useTank, useTankWrites, type TankWrites } from './useRoom'
import './room.css'
import './tank.css'

/** One tank: who lives in it, what can be done, and its story. */
export function TankPage() {
  const { code = '' } = useParams()
  const { tank, problem, showOlder } = useTank(code)
  const units = useUnits()
  const writes = useTankWrites(tank?.id ?? '')
  if (!tank) return problem ? <Trouble problem={problem} back={{ to: '/room', label: 'The room' }} /> : <Waiting what="the tank" />
  return (
    <>
      <div className="tank-head">
        <TankGlyph kind={tank.kind} fish={countFish(tank.stock)} hold={tank.hold} bookings={tank.bookings} isUnchecked={countFish(tank.stock) > 0 && !tank.isCheckedToday} flag={tank.flag} />
        <Lead title={tank.code} aside={`${tank.system.name}, ${tank.system.water} water${tank.netVolumeL ? `, ${units.show('volume', tank.netVolumeL)}` : ''}`}>
          <TankSentence tank={tank} />
        </Lead>
      </div>
      <Apart what="The fish of this tank" of={tank}>
        <StockList key={tank.id} tank={tank} writes={writes} />
      </Apart>
      <Apart what="Its story" of={tank}>
        <Timeline entries={tank.timeline} hasOlder={tank.hasOlder} onOlder={showOlder} onReverse={writes.reverseMovement} />
      </Apart>
    </>
  )
}

function TankSentence({ tank }: { tank: TankView }) {
  const reserved = bookingWords(tank.bookings)
  if (tank.stock.length === 0) return <>Empty.{reserved && ` ${reserved}.`}</>
  const checked = tank.isCheckedToday ? 'Checked today.' : 'Not checked today.'
  return (
    <>
      {plural(countFish(tank.stock), 'fish', 'fish')} of {plural(tank.stock.length, 'lot')}. {checked}
      {tank.flag ? ` Last: ${tank.flag.word}.` : ''}
      {tank.hold ? ` Held: day ${tank.hold.day} of ${tank.hold.of}.` : ''}
      {reserved && ` ${reserved}.`}
    </>
  )
}

const actions = { move: 'move', loss: 'lost', release: 'sold or given', count: 'count' } as const
type Action = keyof typeof actions

function StockList({ tank, writes }: { tank: TankView; writes: TankWrites }) {
  const [open, setOpen] = useState<{ lotId: string; action: Action } | 'add' | null>(null)
  const close = (): void => setOpen(null)
  return (
    <section aria-label="Fish in this tank">
      {tank.stock.length === 0 && <Nothing>No fish stand in this tank. They come by a crate, a move, or are entered below.</Nothing>}
      <ul className="stock-list">
        {tank.stock.map((lot) => (
          <li key={lot.lotId} className="stock">
            <LotLine lot={lot} />
            <HandlingNotes of={[lot]} />
            <div className="stock-actions" role="group" aria-label={`What happened to ${lot.species} ${lot.lotCode}`}>
              <ButtonLink to={`/bench/compare?lot=${lot.lotId}&from=${tank.id}`} size="hand">
                to the bench
              </ButtonLink>
              {(Object.keys(actions) as Action[]).map((action) => {
                const isOpen = open !== null && open !== 'add' && open.lotId === lot.lotId && open.action === action
                return (
                  <Button key={action} size="hand" aria-expanded={isOpen} onClick={() => setOpen(isOpen ? null : { lotId: lot.lotId, action })}>
                    {actions[action]}
                  </Button>
                )
              })}
            </div>
            {open !== null && open !== 'add' && open.lotId === lot.lotId && <ActionForm key={open.action} action={open.action} tank={tank} lot={lot} writes={writes} onDone={close} />}
          </li>
        ))}
      </ul>
      {open === 'add' ? (
        <AddForm writes={writes} onDone={close} />
      ) : (
        <Button look="quiet" onClick={() => setOpen('add')}>
          + fish born here, or already here
        </Button>
      )}
    </section>
  )
}

function LotLine({ lot }: { lot: StockView }) {
  const format = useFormat()
  return (
    <p className="lot-line">
      <strong className="lot-count">{lot.quantity}</strong>
      <span>
        <strong>{lot.species}</strong>
        <small>
          lot {lot.lotCode} · {lot.origin} · here since {format.day(lot.sinceMs)}
        </small>
      </span>
    </p>
  )
}

function ActionForm({ action, ...props }: { action: Action; tank: TankView; lot: StockView; writes: TankWrites; onDone: () => void }) {
  if (action === 'move') return <MoveForm {...props} />
  if (action === 'loss') return <LossForm {...props} />
  if (action === 'release') return <ReleaseForm {...props} />
  return <CountForm {...props} />
}
