import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import type { Difference } from '../../core/stocktake/differences'
import type { DifferenceReason } from '../../core/stocktake/stocktake.schema'
import type { StocktakeView } from '../../core/stocktake/stocktakeView'
import { kindName } from '../../core/pools/poolsOf'
import { sentenceOf } from '../api/ApiProblem'
import { Button, ButtonLink } from '../ui/Button'
import { ChoiceField } from '../ui/Field'
import { plural, signed } from '../ui/format'
import { Lead } from '../ui/Lead'
import { Problem } from '../ui/Notice'
import { Nothing, Trouble, Waiting } from '../ui/PageState'
import { useFormat } from '../ui/useFormat'
import { useStocktake, useStocktakeWrites, type StocktakeWrites } from './useStocktake'
import './stocktake.css'

/** The count beside the books: what differs, why that likely is, and all of it booked or taken back in one. */
export function ReviewPage() {
  const { stocktake, problem } = useStocktake()
  const writes = useStocktakeWrites(stocktake?.id ?? '')
  if (stocktake === undefined) return problem ? <Trouble problem={problem} /> : <Waiting what="the stocktake" />
  if (stocktake === null) return <Nothing>Nothing was counted yet. <Link to="/stocktake">Count the room</Link></Nothing>
  return stocktake.booked ? <Booked stocktake={stocktake} booked={stocktake.booked} writes={writes} /> : <Draft key={stocktake.id} stocktake={stocktake} writes={writes} />
}

const keyOf = ({ tankId, speciesId, strain, reason, quantity }: Difference): string => JSON.stringify([tankId, speciesId, strain, reason, quantity])

function Draft({ stocktake, writes }: { stocktake: StocktakeView; writes: StocktakeWrites }) {
  const { tanks, differences, kind } = stocktake
  const navigate = useNavigate()
  const [chosen, setChosen] = useState<Record<string, DifferenceReason>>({})
  const [problem, setProblem] = useState<unknown>(null)
  const [isBusy, setBusy] = useState(false)
  const left = tanks.filter(({ countedAtMs }) => countedAtMs === null)
  const reasonOf = (each: Difference): DifferenceReason => chosen[keyOf(each)] ?? each.reason
  const book = (): void => {
    setBusy(true)
    setProblem(null)
    // Fish that somebody takes to be something else than moved are missing in the one tank, and more in the other.
    const parts = differences.flatMap((each) => {
      const { tankId, speciesId, strain, way, quantity, toTankId } = each
      const reason = reasonOf(each)
      const one = { tankId, speciesId, strain, way, quantity, reason, toTankId: reason === 'moved' ? toTankId : null }
      return each.reason === 'moved' && reason !== 'moved' && toTankId !== null ? [one, { ...one, tankId: toTankId, way: 'more' as const, reason: 'unknown' as const }] : [one]
    })
    void writes.book(parts).catch(setProblem).finally(() => setBusy(false))
  }
  const drop = (): void => void writes.drop().then(() => navigate('/stocktake'), setProblem)
  return (
    <>
      <Lead title="Counted, beside the books" aside={<ButtonLink to="/stocktake/walk" look="quiet">go on counting</ButtonLink>}>
        {plural(tanks.length - left.length, 'tank')} counted{left.length > 0 ? `, ${left.length} not: they stay as the books have them` : ''}. {differences.length === 0 ? 'Nothing differs from the books.' : `${plural(differences.length, 'difference')}: nothing is booked yet.`}
      </Lead>
      <Differences differences={differences} kind={kind} reasonOf={reasonOf} onReason={(each, reason) => setChosen({ ...chosen, [keyOf(each)]: reason })} />
      <div className="entry-buttons">
        <Button look="act" size="hand" disabled={isBusy || differences.length === 0} onClick={book}>
          Book {plural(differences.length, 'difference')}
        </Button>
        <Button look="quiet" onClick={drop}>
          leave this stocktake
        </Button>
      </div>
      <Problem>{problem === null ? null : sentenceOf(problem)}</Problem>
      {left.length > 0 && <p className="aside-word not-counted">Not counted: {left.map(({ code }, index) => <span key={code}>{index > 0 && ', '}<Link to={`/stocktake/walk?tank=${code}`}>{code}</Link></span>)}.</p>}
    </>
  )
}

interface ListProps {
  differences: readonly Difference[]
  kind: StocktakeView['kind']
  reasonOf: (difference: Difference) => DifferenceReason
  /** Null where they are booked already. */
  onReason: ((difference: Difference, reason: DifferenceReason) => void) | null
}

function Differences({ differences, kind, reasonOf, onReason }: ListProps) {
  if (differences.length === 0) return null
  return (
    <ul className="differences" aria-label="Differences">
      {differences.map((each) => (
        <li key={keyOf(each)}>
          <Link to={onReason ? `/stocktake/walk?tank=${each.tankCode}` : `/room/${each.tankCode}`}>{each.tankCode}</Link>
          <strong className="differs-by">{signed(each.way === 'more' ? each.quantity : -each.quantity)}</strong>
          <span>
            <strong>{kindName(each)}</strong>
            <small>
              books {each.booked}, counted {each.counted}
            </small>
          </span>
          {onReason && each.choices.length > 1 ? (
            <ChoiceField label={`${kind === 'count' ? 'likely ' : ''}reason for ${each.tankCode} ${each.species}`} isLabelHidden value={reasonOf(each)} onChange={(reason) => onReason(each, reason as DifferenceReason)}>
              {each.choices.map((reason) => (
                <option key={reason} value={reason}>
                  {wordsOf(reason, each)}
                </option>
              ))}
            </ChoiceField>
          ) : (
            <span className="because">{wordsOf(reasonOf(each), each)}</span>
          )}
        </li>
      ))}
    </ul>
  )
}

const wordsOf = (reason: DifferenceReason, { toTankCode }: Difference): string => (reason === 'moved' && toTankCode ? `moved to ${toTankCode}` : reason)

function Booked({ stocktake: { differences, kind, booked: _ }, booked, writes }: { stocktake: StocktakeView; booked: NonNullable<StocktakeView['booked']>; writes: StocktakeWrites }) {
  const format = useFormat()
  const [problem, setProblem] = useState<unknown>(null)
  return (
    <>
      <Lead title="Counted and booked" aside={<ButtonLink to="/room" look="quiet">to the room</ButtonLink>}>
        {plural(differences.length, 'difference')} booked on {format.moment(booked.atMs)} by {booked.staffName}.
      </Lead>
      <Differences differences={differences} kind={kind} reasonOf={({ reason }) => reason} onReason={null} />
      <div className="entry-buttons">
        <ButtonLink look="act" size="hand" to="/room">
          To the room
        </ButtonLink>
        <Button size="hand" onClick={() => void writes.unbook().then(() => setProblem(null), setProblem)}>
          Take all of it back
        </Button>
      </div>
      <Problem>{problem === null ? null : sentenceOf(problem)}</Problem>
    </>
  )
}
