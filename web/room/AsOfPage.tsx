import { useEffect, useState } from 'react'
import { Form } from 'react-bootstrap'
import { Link, useSearchParams } from 'react-router'
import { groupBy } from '../../core/collections/groupBy'
import type { RoomClock } from '../../core/room/roomAsOf'
import { sinceWords, type RoomThen, type TankThen } from '../../core/room/roomThen'
import { nowMs } from '../api/clock'
import { useRoomView } from '../api/sharedReads'
import { Apart } from '../ui/Apart'
import { Button } from '../ui/Button'
import { Lead } from '../ui/Lead'
import { Notice } from '../ui/Notice'
import { Nothing, Trouble, Waiting } from '../ui/PageState'
import { TankGlyph } from '../ui/TankGlyph'
import { useFormat } from '../ui/useFormat'
import { withParam } from '../ui/withParam'
import { Rack } from './Rack'
import { useRoomThen } from './useRoom'

const hourMs = 3_600_000
const dayMs = 24 * hourMs
/** A slider that is dragged asks once it rests. */
const restMs = 120

/** The room as of a moment: who stood where, and what has changed since. */
export function AsOfPage() {
  const [search, setSearch] = useSearchParams()
  const clock: RoomClock = search.get('clock') === 'books' ? 'books' : 'happened'
  const asked = Number(search.get('at'))
  const [atMs, setAt] = useState(Number.isFinite(asked) && asked > 0 ? asked : null)
  const { then, problem } = useRoomThen(asked > 0 ? asked : null, clock)
  const { room } = useRoomView()
  useEffect(() => {
    if (atMs === null) return
    const timer = setTimeout(() => setSearch((before) => withParam(before, 'at', String(atMs)), { replace: true }), restMs)
    return () => clearTimeout(timer)
  }, [atMs, setSearch])
  if (!then || !room) return problem ? <Trouble problem={problem} /> : <Waiting what="the room as it was" />
  if (then.fromMs === null) return <Nothing>No fish are in the books yet.</Nothing>
  // A tank that is out of use hangs on no system any more.
  const systemIds = new Map(room.tanks.map(({ id, systemId }) => [id, systemId]))
  const chooseClock = (next: RoomClock): void => setSearch((before) => withParam(before, 'clock', next), { replace: true })
  return (
    <>
      <Lead title="Room as of" aside={<Clocks chosen={clock} onChoose={chooseClock} />}>
        <AsOfSentence then={then} />
      </Lead>
      <Slider fromMs={then.fromMs} atMs={atMs ?? then.atMs} onChange={setAt} />
      {then.below.length > 0 && (
        <Notice level="watch">
          More left than had come by then, so a date is wrong: {then.below.map(({ place, species, n }) => `${-n} ${species} from ${place}`).join(', ')}.
        </Notice>
      )}
      <div className="racks">
        {[...groupBy(then.tanks, ({ rack }) => rack)].map(([rack, tanks]) => (
          <Apart key={rack} what={`Rack ${rack}`} of={tanks}>
            <Rack rack={rack} tanks={tanks.map((tank) => ({ ...tank, systemId: systemIds.get(tank.id) ?? '' }))} all={room.tanks} systems={room.systems} hasGaps labelOf={labelThen}>
              {(tank) => <SpotThen tank={tank} />}
            </Rack>
          </Apart>
        ))}
      </div>
    </>
  )
}

function AsOfSentence({ then }: { then: RoomThen }) {
  const format = useFormat()
  const fish = then.tanks.reduce((sum, tank) => sum + tank.fish, 0)
  const since = sinceWords(then.since)
  return (
    <>
      {format.moment(then.atMs)}: {fish} fish in {then.tanks.filter((tank) => tank.fish > 0).length} tanks{then.elsewhere > 0 ? `, ${then.elsewhere} in bags, buckets and boxes` : ''}. {since === '' ? 'Nothing has changed since.' : `Since then ${since}.`} <Link to="/room">Now</Link>
    </>
  )
}

function Clocks({ chosen, onChoose }: { chosen: RoomClock; onChoose: (clock: RoomClock) => void }) {
  return (
    <div className="filters" role="group" aria-label="By which clock">
      <Button aria-pressed={chosen === 'happened'} onClick={() => onChoose('happened')}>
        as it was
      </Button>
      <Button aria-pressed={chosen === 'books'} onClick={() => onChoose('books')}>
        as the books said
      </Button>
    </div>
  )
}

/** Any moment from the first entry to now. */
function Slider({ fromMs, atMs, onChange }: { fromMs: number; atMs: number; onChange: (atMs: number) => void }) {
  const format = useFormat()
  const [first, last] = [Math.floor(fromMs / hourMs) * hourMs, nowMs()]
  const within = (value: number): number => Math.min(last, Math.max(first, value))
  return (
    <div className="as-of">
      <Button size="hand" onClick={() => onChange(within(atMs - dayMs))}>
        a day back
      </Button>
      <Form.Range aria-label="Moment" min={first} max={last} step={hourMs} value={within(atMs)} aria-valuetext={format.moment(atMs)} onChange={(event) => onChange(Number(event.currentTarget.value))} />
      <Button size="hand" onClick={() => onChange(within(atMs + dayMs))}>
        a day on
      </Button>
    </div>
  )
}

const changeWords = ({ changes }: TankThen): string => changes.map(({ species, then, now }) => `${species} ${then} to ${now}`).join(', ')
const labelThen = (tank: TankThen): string => [tank.mainSpecies ? `${tank.mainSpecies}${tank.speciesCount > 1 ? ` +${tank.speciesCount - 1}` : ''}` : 'empty', tank.changes.length > 0 ? changedShort(tank) : ''].filter(Boolean).join(', ')
/** The largest change, as the label has room for it. */
const changedShort = ({ changes: [largest, ...others] }: TankThen): string => (largest ? `${largest.now === 0 ? 'gone since' : `${largest.now} now`}${others.length > 0 ? ` +${others.length}` : ''}` : '')

function SpotThen({ tank }: { tank: TankThen }) {
  return (
    <Link to={`/room/${tank.code}`} className={`tank-spot ${tank.changes.length > 0 ? 'is-changed' : ''}`}>
      <span className="tank-code">{tank.code}</span>
      <TankGlyph isLow kind={tank.kind} fish={tank.fish} isUnchecked={null} flag={null} />
      <span className="tank-label">
        {tank.isRetired ? 'no longer in use, ' : ''}
        {labelThen(tank)}
        {tank.changes.length > 0 && <span className="visually-hidden">, since then {changeWords(tank)}</span>}
      </span>
    </Link>
  )
}
