import { kindKey, kindName } from '../../core/pools/poolsOf'
import { noFish, type PlannedSale, type SaleAnswer } from '../../core/sales/planSales'
import type { KindForSale } from '../../core/sales/salesView'
import { likeliestFirst } from '../../core/sales/tanksForSale'
import { Button } from '../ui/Button'
import { ChoiceField } from '../ui/Field'

interface Props {
  planned: readonly PlannedSale[]
  kinds: readonly KindForSale[]
  onAnswer: (key: string, answer: SaleAnswer) => void
}

/** What was sold, row by row: which fish that is, and from which tank. */
export function SaleRows({ planned, kinds, onAnswer }: Props) {
  return (
    <ul className="sale-rows">
      {planned.map((each) => (
        <SaleRow key={each.row.key} planned={each} kinds={kinds} onAnswer={(answer) => onAnswer(each.row.key, answer)} />
      ))}
    </ul>
  )
}

function SaleRow({ planned: { row, kind, state, parts, left }, kinds, onAnswer }: { planned: PlannedSale; kinds: readonly KindForSale[]; onAnswer: (answer: SaleAnswer) => void }) {
  const isOpen = state === 'which fish' || state === 'none here' || state === 'too few'
  const codeOf = (tankId: string): string => kind?.tanks.find((tank) => tank.tankId === tankId)?.code ?? ''
  return (
    <li className={isOpen ? 'is-open' : state === 'ready' ? undefined : 'is-left'}>
      <strong className="sold-count">{row.count}</strong>
      <span>
        <strong>{row.item}</strong>
        <small>
          row {row.row}, {row.on}
          {row.receipt && `, receipt ${row.receipt}`}
        </small>
        {state === 'too few' && kind && <small role="alert">only {left} {kindName(kind)} are in the books: count them, or write down what came in</small>}
        {state === 'none here' && <small role="alert">none of these are in the books now</small>}
        {state === 'booked already' && <small>one just like it was booked before</small>}
      </span>
      {state === 'booked already' ? (
        <Button onClick={() => onAnswer({ isAgain: true })}>another one: book it</Button>
      ) : (
        <ChoiceField label={`what ${row.item} is`} isLabelHidden value={kind ? kindKey(kind) : state === 'no fish' ? noFish : ''} onChange={(means) => onAnswer({ means })}>
          {!kind && state !== 'no fish' && <option value="">which fish is it?</option>}
          {kinds.map((each) => (
            <option key={kindKey(each)} value={kindKey(each)}>
              {kindName(each)}
            </option>
          ))}
          <option value={noFish}>no fish</option>
        </ChoiceField>
      )}
      {state === 'ready' && kind && (
        <ChoiceField label={`tank that ${row.item} came from`} isLabelHidden hint={parts.length > 1 ? parts.map(({ tankId, quantity }) => `${quantity} ${codeOf(tankId)}`).join(', ') : ''} value={parts[0]?.tankId ?? ''} onChange={(tankId) => onAnswer({ tankId })}>
          {likeliestFirst(kind.tanks).map(({ tankId, code, fish, isHeld }) => (
            <option key={tankId} value={tankId}>
              {code}, {fish}{isHeld ? ', in its hold' : ''}
            </option>
          ))}
        </ChoiceField>
      )}
    </li>
  )
}
