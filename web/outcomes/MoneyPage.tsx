import type { SupplierMoney } from '../../core/outcomes/moneyFigures'
import { Button } from '../ui/Button'
import { Lead } from '../ui/Lead'
import { Trouble, Waiting } from '../ui/PageState'
import { Table } from '../ui/Table'
import { OutcomesNav } from './OutcomesNav'
import { saveTable } from './outcomesCsv'
import { useLossMoney } from './useReview'
import './outcomes.css'

const columns: readonly { key: Exclude<keyof SupplierMoney, 'supplier' | 'perLiving' | 'unpricedFish'>; label: string }[] = [
  { key: 'paid', label: 'paid' },
  { key: 'inBag', label: 'dead in the bag' },
  { key: 'missing', label: 'missing' },
  { key: 'wrong', label: 'wrong' },
  { key: 'firstDays', label: 'first week' },
  { key: 'later', label: 'later' },
  { key: 'claimed', label: 'claimed' },
  { key: 'settled', label: 'settled' },
  { key: 'open', label: 'open' },
  { key: 'notClaimed', label: 'not claimed' },
  { key: 'borne', label: 'borne here' },
]

/** What losses cost, by supplier: lines with a price, in the house's one currency. */
export function MoneyPage() {
  const { data: money, problem } = useLossMoney()
  if (!money) return problem ? <Trouble problem={problem} back={{ to: '/outcomes', label: 'Outcomes' }} /> : <Waiting what="the money" />
  const { total } = money
  return (
    <>
      <Lead title="Money" nav={<OutcomesNav />}>
        {total.paid === 0 ? 'No line has a price yet: what losses cost nobody can say.' : `${total.borne.toFixed(2)} of ${total.paid.toFixed(2)} paid was lost and borne here; ${total.settled.toFixed(2)} was made good.`}
      </Lead>
      <div className="money-scroll" tabIndex={0} role="region" aria-label="Money by supplier">
      <Table className="money-table">
        <thead>
          <tr>
            <th scope="col">supplier</th>
            {columns.map(({ key, label }) => (
              <th key={key} scope="col">
                {label}
              </th>
            ))}
            <th scope="col">a living fish</th>
          </tr>
        </thead>
        <tbody>
          {[...money.suppliers, total].map((row) => (
            <tr key={row.supplier} className={row === total ? 'is-total' : undefined}>
              <th scope="row">{row.supplier}</th>
              {columns.map(({ key }) => (
                <td key={key}>{row[key].toFixed(2)}</td>
              ))}
              <td>{row.perLiving === null ? '–' : row.perLiving.toFixed(2)}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      </div>
      <p className="aside-word">
        A living fish: what was paid less what was made good, for each fish alive on day 14 or sold alive before. Refused is what was claimed and neither settled nor open.
        {total.unpricedFish > 0 && ` ${Math.round(total.unpricedFish * 10) / 10} lost, missing or wrong fish stand on lines without a price.`}
      </p>
      <p className="aside-word">
        <Button look="quiet" onClick={() => saveTable([...money.suppliers, total], 'losses-in-money')}>
          this table as a file (CSV)
        </Button>
      </p>
    </>
  )
}
