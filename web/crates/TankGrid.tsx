import { useDroppable } from '@dnd-kit/core'
import { bookingWords, dueWords } from '../../core/tankChoice/bookings'
import { costsOf, rulesAgainst } from '../../core/tankChoice/explainChoice'
import type { Prepared } from '../../core/tankChoice/prepareChoice'
import { scoreChoice } from '../../core/tankChoice/scoreChoice'
import type { Choice } from '../../core/tankChoice/tankChoice'
import { Button } from '../ui/Button'
import { InUnits } from '../ui/InUnits'
import { points, rulesWords } from './planWords'

/** All tanks as they would stand: drop a line on one, or open a line to see which are possible. */
export function TankGrid({ prepared, choice, openLine, onPlace }: { prepared: Prepared; choice: Choice; openLine: number | null; onPlace: (line: number, tank: number) => void }) {
  return (
    <ul className="plan-tanks" aria-label="Tanks">
      {prepared.input.tanks.map((tank, index) => (
        <PlanTank key={tank.id} prepared={prepared} choice={choice} tank={index} isForbidden={openLine !== null && rulesAgainst(prepared, choice, openLine, index).length > 0} onPick={openLine === null ? null : () => onPlace(openLine, index)} />
      ))}
    </ul>
  )
}

function PlanTank({ prepared, choice, tank, isForbidden, onPick }: { prepared: Prepared; choice: Choice; tank: number; isForbidden: boolean; onPick: (() => void) | null }) {
  const { setNodeRef, isOver, active } = useDroppable({ id: String(tank) })
  const place = prepared.input.tanks[tank]
  const coming = choice.flatMap((at, line) => (at === tank ? [prepared.input.lines[line]?.count ?? 0] : [])).reduce((sum, count) => sum + count, 0)
  const standing = place?.occupants.reduce((sum, { quantity, booked }) => sum + (booked === undefined ? quantity : 0), 0) ?? 0
  const reserved = place?.bookings && place.bookings.length > 0 ? place.bookings : null
  const dragged = active === null ? null : Number(active.id)
  const against = isOver && dragged !== null ? rulesAgainst(prepared, choice, dragged, tank) : []
  const isNo = isForbidden || (dragged !== null && rulesAgainst(prepared, choice, dragged, tank).length > 0)
  const counts = `${standing > 0 ? standing : ''}${coming > 0 ? `+${coming}` : ''}`
  const taken = dueWords(place?.bookings ?? [])
  // Begins with what is seen, so that whoever speaks to the screen says what they read.
  const label = `${[place?.code, counts, taken, isNo ? 'no' : ''].filter(Boolean).join(' ')}: ${standing} fish${coming > 0 ? `, ${coming} planned` : ''}${reserved ? `. ${bookingWords(reserved)}` : ''}${isNo ? ', breaks a rule' : ''}`
  const names = ['plan-tank', standing + coming === 0 ? 'is-empty' : '', coming > 0 ? 'is-planned' : '', reserved ? 'is-reserved' : '', isNo ? 'is-forbidden' : '', isOver ? 'is-over' : ''].filter(Boolean).join(' ')
  return (
    <li ref={setNodeRef} className={names}>
      <Button look="bare" disabled={onPick === null} onClick={onPick ?? undefined} aria-label={label}>
        <span>{place?.code}</span> <strong>{counts}</strong> {taken && <small className="booked">{taken}</small>} {isNo && <small>no</small>}
      </Button>
      {isOver && dragged !== null && (
        <small className="over-words">
          <InUnits>{against.length > 0 ? rulesWords(against) : costWords(prepared, choice, dragged, tank)}</InUnits>
        </small>
      )}
    </li>
  )
}

/** What dropping a line on a tank would cost more, or save. */
function costWords(prepared: Prepared, choice: Choice, line: number, tank: number): string {
  const more = scoreChoice(prepared, choice.with(line, tank)).total - scoreChoice(prepared, choice).total
  const causes = costsOf(prepared, choice, line, tank).map(({ why }) => why)
  const change = choice[line] === null ? 'possible' : `${more >= 0 ? '+' : '−'}${points(Math.abs(more))} points`
  return [change, ...causes].join(', ')
}
