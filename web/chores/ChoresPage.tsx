import { useState } from 'react'
import { Link } from 'react-router'
import type { ChoreAtPlace, ChoresView } from '../../core/chores/choreView'
import { ruleWords } from '../../core/chores/choreWords'
import { groupBy } from '../../core/collections/groupBy'
import { sentenceOf } from '../api/ApiProblem'
import { useSession } from '../api/session'
import { Button, ButtonLink } from '../ui/Button'
import { InUnits } from '../ui/InUnits'
import { Lead } from '../ui/Lead'
import { Problem } from '../ui/Notice'
import { Trouble, Waiting } from '../ui/PageState'
import { RowSection } from '../ui/Rows'
import { StockForm } from '../ui/StockForm'
import { plural } from '../ui/format'
import { useFormat } from '../ui/useFormat'
import { useChores, useChoreWrites, type ChoreWrites } from './useChores'
import './chores.css'

/** What comes round today: counted before the walk to the store room, done by place, with who did it. */
export function ChoresPage() {
  const { chores, problem } = useChores()
  const { recorder } = useSession()
  const format = useFormat()
  if (!chores) return problem ? <Trouble problem={problem} back={{ to: '/today', label: 'Today' }} /> : <Waiting what="the chores" />
  const { due, carry, later } = chores
  const late = due.filter(({ lateDays }) => lateDays > 0).length
  return (
    <div className="chores">
      <Lead title="Chores" aside={recorder.role === 'lead' && <ButtonLink to="/chores/new">Another chore</ButtonLink>}>
        {leadWords(chores, late)}
      </Lead>
      <div className="work-columns">
        <div>
          <Due chores={chores} />
        </div>
        <div>
          <RowSection title="To carry" count={carry.reduce((sum, { count }) => sum + count, 0)}>
            {carry.map(({ item, count, onHand, missing }) => (
              <li key={item} className="record carry-row">
                <strong className="carry-count">{count}</strong> {item}
                <small className={missing > 0 ? 'danger-word' : undefined}>{onHand === null ? 'not counted' : missing > 0 ? `${missing} missing in the store room` : `${onHand} in the store room`}</small>
              </li>
            ))}
          </RowSection>
          <Supplies chores={chores} />
          <RowSection title="Comes next" count={later.length}>
            {later.slice(0, 12).map(({ choreId, chore, place, dueOn }) => (
              <li key={`${choreId} ${place}`} className="record">
                <strong>{chore}</strong> {place} <small>{dueOn === null ? 'once enough fish have come' : format.day(Date.parse(`${dueOn}T12:00:00Z`))}</small>
              </li>
            ))}
          </RowSection>
          {recorder.role === 'lead' && <SetUp chores={chores} />}
        </div>
      </div>
    </div>
  )
}

function leadWords({ due, carry, chores }: ChoresView, late: number): string {
  if (chores.length === 0) return 'No chore is set up yet: filter bags, wipes, water changes, lamps, visits.'
  if (due.length === 0) return 'Nothing is due today.'
  const what = `${plural(due.length, 'place')} to do${late > 0 ? `, ${late} of them late` : ''}`
  return carry.length > 0 ? `${what}. Carry ${carry.map(({ item, count }) => `${count} × ${item}`).join(', ')}.` : `${what}.`
}

/** What is due, chore by chore, and what was done today. */
function Due({ chores: { due, done } }: { chores: ChoresView }) {
  const writes = useChoreWrites()
  const format = useFormat()
  const [problem, setProblem] = useState<string | null>(null)
  const attempt = (write: Promise<unknown>): void => void write.then(() => setProblem(null), (error: unknown) => setProblem(sentenceOf(error)))
  return (
    <>
      <Problem>{problem}</Problem>
      {[...groupBy(due, ({ choreId }) => choreId)].map(([choreId, places]) => (
        <div key={choreId} id={`chore-${choreId}`}>
          <RowSection title={places[0]?.chore ?? ''} count={places.length}>
            {places.map((place) => (
              <DueRow key={place.placeId} at={place} writes={writes} onAttempt={attempt} />
            ))}
          </RowSection>
        </div>
      ))}
      <RowSection title="Done today" count={done.length}>
        {done.map(({ doneId, chore, place, by, atMs }) => (
          <li key={doneId} className="record chore-row">
            <span>
              <strong>{chore}</strong> {place}
              <small>
                {by} {format.time(atMs)}
              </small>
            </span>
            <Button aria-label={`take back: ${chore}, ${place}`} onClick={() => attempt(writes.undo(doneId))}>
              take back
            </Button>
          </li>
        ))}
      </RowSection>
    </>
  )
}

function DueRow({ at, writes, onAttempt }: { at: ChoreAtPlace; writes: ChoreWrites; onAttempt: (write: Promise<unknown>) => void }) {
  const { choreId, placeId, chore, place, tankCode, lateDays, words, uses, fish, note } = at
  return (
    <li className={lateDays > 0 ? 'record chore-row is-late' : 'record chore-row'}>
      <span>
        <strong>{tankCode === null ? place : <Link to={`/room/${tankCode}`}>{place}</Link>}</strong>
        {lateDays > 0 && <em className="late-word"> {plural(lateDays, 'day')} late</em>}
        {words && (
          <small>
            <InUnits>{words}</InUnits>
          </small>
        )}
        {uses.length > 0 && <small>{uses.map(({ item, count }) => `${count} × ${item}`).join(', ')}</small>}
        {fish.map(({ fromCode, species, quantity, there, to }) => (
          <small key={`${fromCode} ${species}`}>
            <Link to={to}>
              {quantity} {species} from {fromCode}
            </Link>
            {there < quantity && <b className="danger-word"> only {there} there</b>}
          </small>
        ))}
        {note && <small>{note}</small>}
      </span>
      <Button size="hand" aria-label={`done: ${chore}, ${place}`} onClick={() => onAttempt(writes.done(choreId, placeId, `${chore}, ${place}`))}>
        done
      </Button>
    </li>
  )
}

/** What is in the store room. */
function Supplies({ chores: { supplies } }: { chores: ChoresView }) {
  const [open, setOpen] = useState<string | null>(null)
  const { changeSupplies } = useChoreWrites()
  return (
    <RowSection title="Store room" count={supplies.length}>
      {supplies.map(({ item, pieces }) => (
        <li key={item} className="record">
          <Button look="bare" className="record-row" aria-expanded={open === item} onClick={() => setOpen(open === item ? null : item)}>
            <span>{item}</span>
            <span>{pieces ?? 'not counted'}</span>
          </Button>
          {open === item && <StockForm called={item} onChange={(change) => changeSupplies({ item, ...change })} />}
        </li>
      ))}
    </RowSection>
  )
}

/** Every chore, for whoever sets them up. */
const SetUp = ({ chores: { chores } }: { chores: ChoresView }) => (
  <RowSection title="Set up" count={chores.length}>
    {chores.map(({ id, name, rule, places }) => (
      <li key={id} className="record">
        <Link to={`/chores/${id}`}>
          <strong>{name}</strong>
        </Link>{' '}
        <small>
          {ruleWords(rule)}, {plural(places.length, 'place')}
        </small>
      </li>
    ))}
  </RowSection>
)
