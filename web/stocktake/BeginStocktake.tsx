import { useState } from 'react'
import { useNavigate } from 'react-router'
import type { StocktakeKind } from '../../core/stocktake/stocktake.schema'
import type { StocktakeView } from '../../core/stocktake/stocktakeView'
import { sentenceOf } from '../api/ApiProblem'
import { useRoomView } from '../api/sharedReads'
import { Button, ButtonLink } from '../ui/Button'
import { Lead } from '../ui/Lead'
import { Problem } from '../ui/Notice'
import { useFormat } from '../ui/useFormat'
import { useStocktakeWrites } from './useStocktake'

/** Before the room is counted: why it is, and how. */
export function BeginStocktake({ last }: { last: StocktakeView | null }) {
  const { begin } = useStocktakeWrites('')
  const format = useFormat()
  const { room } = useRoomView()
  // Whoever has fish in the books holds the books against them.
  const hasBooks = room?.tanks.some(({ fish }) => fish > 0) ?? false
  const navigate = useNavigate()
  const [problem, setProblem] = useState<string | null>(null)
  const start = (kind: StocktakeKind): void => void begin(kind).then(() => navigate('/stocktake/walk'), (error: unknown) => setProblem(sentenceOf(error)))
  return (
    <>
      <Lead title="Count or sell" aside={<ButtonLink to="/room" look="quiet">to the room</ButtonLink>}>
        {last?.booked ? `Counted last on ${format.moment(last.booked.atMs)} by ${last.booked.staffName}. ` : ''}
        Nothing is booked before you have looked at it as a whole.
      </Lead>
      <div className="stocktake-begin">
        <section aria-label="Against the books">
          <h2>Against the books</h2>
          <p>Tank by tank along the racks. What is counted stands beside what the books say. A tank that is as booked takes one touch.</p>
          <Button look={hasBooks ? 'act' : 'plain'} size="hand" onClick={() => start('count')}>
            Begin a stocktake
          </Button>
        </section>
        <section aria-label="What swims here already">
          <h2>What swims here already</h2>
          <p>For fish that stood here before the books began: no hold begins for them, and nobody has to know since when they are here.</p>
          <Button look={hasBooks ? 'plain' : 'act'} size="hand" onClick={() => start('opening')}>
            Walk the racks
          </Button>
          <ButtonLink to="/stocktake/list" look="quiet">
            or take in a list (CSV)
          </ButtonLink>
        </section>
        <section aria-label="What was sold">
          <h2>What was sold</h2>
          <p>One fish is sold on its tank’s page in two touches. A day’s sales come out of the till as a list.</p>
          <ButtonLink to="/sales" size="hand">
            Sales from the till
          </ButtonLink>
        </section>
      </div>
      <Problem>{problem}</Problem>
      {last?.booked && (
        <p>
          <ButtonLink to="/stocktake/review">What was booked</ButtonLink>
        </p>
      )}
    </>
  )
}
