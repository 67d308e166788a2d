import { useState } from 'react'
import { Link } from 'react-router'
import type { LarderFood } from '../../core/kitchen/larder'
import type { ChangeFoodStock } from '../../core/kitchen/kitchen.schema'
import { sentenceOf } from '../api/ApiProblem'
import { Button } from '../ui/Button'
import { TextField } from '../ui/Field'
import { plural } from '../ui/format'
import { Lead } from '../ui/Lead'
import { Trouble, Waiting } from '../ui/PageState'
import { useFormat } from '../ui/useFormat'
import { pieces } from './kitchenWords'
import { useKitchenWrites, useLarder } from './useKitchen'
import './kitchen.css'

/** Foods with what is in the house: counted, come in, thrown away; what goes with a feed comes off by itself. */
export function LarderPage() {
  const { larder, problem } = useLarder()
  const [open, setOpen] = useState<string | null>(null)
  if (!larder) return problem ? <Trouble problem={problem} back={{ to: '/kitchen', label: 'Kitchen' }} /> : <Waiting what="the foods" />
  const { foods, orderDays } = larder
  const out = foods.filter(({ isToOrder }) => isToOrder)
  return (
    <>
      <Lead title="Stock of foods" aside={<Link to="/kitchen">Kitchen</Link>}>
        {foods.length === 0 ? 'No food is entered yet: Setup, Foods.' : out.length > 0 ? `To order: ${out.map(({ food }) => food).join(', ')}.` : `Everything that is counted lasts for ${plural(orderDays, 'day')} or more.`}
      </Lead>
      <ul className="record-list">
        {foods.map((food) => (
          <li key={food.foodId} className="record">
            <Button look="bare" className="record-row" aria-expanded={open === food.foodId} onClick={() => setOpen(open === food.foodId ? null : food.foodId)}>
              <span>
                <strong>{food.food}</strong>
                <small>{lastsWords(food)}</small>
              </span>
              <span>{food.pieces === null ? 'not counted' : pieces(food.pieces, food.kind)}</span>
            </Button>
            {open === food.foodId && <StockForm food={food} />}
          </li>
        ))}
      </ul>
    </>
  )
}

function lastsWords({ perDay, lastsDays, isToOrder, pieces: left }: LarderFood): string {
  const goes = perDay === null ? 'none went in two weeks' : `${perDay < 9.95 ? perDay.toFixed(1) : perDay.toFixed(0)} go in a day`
  if (left === 0) return `none left, to order; ${goes}`
  return lastsDays === null ? goes : `${goes}, lasts ${plural(Math.floor(lastsDays), 'day')}${isToOrder ? ': to order' : ''}`
}

const whys: readonly { why: ChangeFoodStock['why']; label: string }[] = [
  { why: 'bought', label: 'came in' },
  { why: 'counted', label: 'are there' },
  { why: 'thrown away', label: 'thrown away' },
]

function StockForm({ food: { foodId, food, kind, changes } }: { food: LarderFood }) {
  const { changeStock } = useKitchenWrites()
  const [typed, setTyped] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const format = useFormat()
  const send = (why: ChangeFoodStock['why']): void => {
    if (!/^\d{1,6}$/.test(typed.trim())) return setProblem(`How many ${pieces(2, kind).replace(/^2 /, '')}? A whole number`)
    setProblem(null)
    void changeStock(foodId, food, { why, pieces: Number(typed) }).then(() => setTyped(''), (error: unknown) => setProblem(sentenceOf(error)))
  }
  return (
    <div className="entry-form">
      <TextField label={`How many ${pieces(2, kind).replace(/^2 /, '')} of ${food}`} inputMode="numeric" size="hand" value={typed} onChange={setTyped} problem={problem} />
      <div className="larder-forms">
        {whys.map(({ why, label }) => (
          <Button key={why} size="hand" onClick={() => send(why)}>
            {label}
          </Button>
        ))}
      </div>
      {changes.length > 0 && (
        <ul aria-label={`Changes of ${food}`}>
          {changes.map(({ pieces: change, after, why, by, atMs }) => (
            <li key={`${atMs} ${after} ${why}`}>
              <small>
                {format.moment(atMs)} {why} {change > 0 ? `+${change}` : change < 0 ? `−${-change}` : '±0'}, {after} left, {by}
              </small>
            </li>
          ))}
        </ul>
      )}
    </div>
  )
}
