import { useState } from 'react'
import { Link } from 'react-router'
import type { LarderFood } from '../../core/kitchen/larder'
import { Button } from '../ui/Button'
import { plural, signed } from '../ui/format'
import { Lead } from '../ui/Lead'
import { Trouble, Waiting } from '../ui/PageState'
import { StockForm } from '../ui/StockForm'
import { useFormat } from '../ui/useFormat'
import { pieces, pieceWords } from './kitchenWords'
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
            {open === food.foodId && <Counted food={food} />}
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

/** Counts a food, and shows how its stock came to be. */
function Counted({ food: { foodId, food, kind, changes } }: { food: LarderFood }) {
  const { changeStock } = useKitchenWrites()
  const format = useFormat()
  return (
    <>
      <StockForm called={`${pieceWords(kind)} of ${food}`} onChange={(change) => changeStock(foodId, food, change)} />
      {changes.length > 0 && (
        <ul aria-label={`Changes of ${food}`}>
          {changes.map(({ pieces: change, after, why, by, atMs }) => (
            <li key={`${atMs} ${after} ${why}`}>
              <small>
                {format.moment(atMs)} {why} {signed(change)}, {after} left, {by}
              </small>
            </li>
          ))}
        </ul>
      )}
    </>
  )
}
