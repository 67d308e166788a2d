import { useId } from 'react'
import { Link, useSearchParams } from 'react-router'
import { groupBy } from '../../core/collections/groupBy'
import type { RoomView, TankSummary } from '../../core/room/roomView'
import { fishFound, findWords, isFound, isShown, roomShows, type RoomShow } from '../../core/room/roomFilter'
import { useSession } from '../api/session'
import { useRoomView } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { Apart } from '../ui/Apart'
import { TextField } from '../ui/Field'
import { plural } from '../ui/format'
import { Lead } from '../ui/Lead'
import { Nothing, Trouble, Waiting } from '../ui/PageState'
import { withParam } from '../ui/withParam'
import { Rack } from './Rack'
import { labelOf, movingOf, TankSpot } from './TankSpot'
import './room.css'

const showWords: Record<RoomShow, string> = { all: 'All', unchecked: 'Unchecked', watch: 'Watch', held: 'Held', reserved: 'Reserved', empty: 'Empty' }
const showOf = (name: string | null): RoomShow => roomShows.find((each) => each === name) ?? 'all'

/** The racks as they stand, so that one finds the way. */
export function RoomPage() {
  const { room, problem } = useRoomView()
  const [search, setSearch] = useSearchParams()
  const [show, of] = [showOf(search.get('show')), search.get('of') ?? '']
  if (!room) return problem ? <Trouble problem={problem} /> : <Waiting what="the room" />
  if (room.tanks.length === 0) return <EmptyRoom />
  const systems = new Map(room.systems.map((system) => [system.id, system]))
  const found = room.tanks.filter((tank) => isFound(tank, of, systems))
  const shown = found.filter((tank) => isShown(tank, show))
  const moving = movingOf(search)
  const choose = (name: 'show' | 'of', value: string): void => setSearch((before) => withParam(before, name, value || null), { replace: true })
  return (
    <>
      <Lead title="Room" aside={<Filters room={room} of={of} tanks={found} chosen={show} onChoose={choose} />} nav={<RoomNav />}>
        {moving ? (
          <>
            Touch the tank they go to. <Link to={moving.back}>Leave it</Link>
          </>
        ) : of !== '' ? (
          <>
            {of}: {shown.reduce((sum, tank) => sum + fishFound(tank, of), 0)} fish in {plural(shown.length, 'tank')}.
          </>
        ) : (
          <RoomSentence room={room} />
        )}
      </Lead>
      <nav className="rack-jump" aria-label="Racks">
        {[...new Set(shown.map(({ rack }) => rack))].map((rack) => (
          <a key={rack} href={`#rack-${rack}`}>
            {rack}
          </a>
        ))}
      </nav>
      <div className="racks">
        {[...groupBy(shown, (tank) => tank.rack)].map(([rack, tanks]) => (
          <Apart key={rack} what={`Rack ${rack}`} of={tanks}>
            <Rack rack={rack} tanks={tanks} all={room.tanks} systems={room.systems} hasGaps={show === 'all' && of === ''} labelOf={(tank) => `${labelOf(tank)} ${tank.danger ?? ''}`.trim()}>
              {(tank) => <TankSpot tank={tank} moving={moving} />}
            </Rack>
          </Apart>
        ))}
      </div>
      {shown.length === 0 && <Nothing>No tank is like this now.</Nothing>}
    </>
  )
}

/** The room seen otherwise. */
function RoomNav() {
  const { recorder } = useSession()
  return (
    <nav className="room-nav" aria-label="The room otherwise">
      <Link to="/plans">Plans</Link>
      <Link to="/as-of">As of …</Link>
      <Link to="/scan">Scan</Link>
      <Link to="/labels">Labels</Link>
      {recorder.role === 'lead' && <Link to="/arrange">Arrange</Link>}
    </nav>
  )
}

interface FiltersProps {
  room: RoomView
  of: string
  tanks: readonly TankSummary[]
  chosen: RoomShow
  onChoose: (name: 'show' | 'of', value: string) => void
}

/** Which tanks are shown: by how they stand, and by a word for who or what is in them. */
function Filters({ room, of, tanks, chosen, onChoose }: FiltersProps) {
  const names = useId()
  return (
    <div className="filters" role="group" aria-label="Show">
      <TextField label="Show only" isLabelHidden type="search" placeholder="kind, supplier, lot, water" list={names} value={of} onChange={(word) => onChoose('of', word)} />
      <datalist id={names}>
        {findWords(room.tanks, room.systems).map((word) => (
          <option key={word} value={word} />
        ))}
      </datalist>
      {roomShows.map((name) => (
        <Button key={name} aria-pressed={chosen === name} onClick={() => onChoose('show', name === 'all' ? '' : name)}>
          {showWords[name]} {tanks.filter((tank) => isShown(tank, name)).length}
        </Button>
      ))}
    </div>
  )
}

function RoomSentence({ room }: { room: RoomView }) {
  const unchecked = room.tanks.filter((tank) => isShown(tank, 'unchecked'))
  const first = unchecked.find((tank) => tank.flag) ?? unchecked[0]
  if (room.tanks.every(({ fish }) => fish === 0)) return <>No fish are in the books yet. <Link to="/stocktake">Enter what swims here already</Link>.</>
  if (!first) return <>Every stocked tank was checked today. <Link to="/stocktake">Count or sell</Link></>
  return (
    <>
      {unchecked.length} unchecked today. <Link to="/rounds">Walk the round</Link>, or start at <Link to={`/room/${first.code}`}>{first.code}</Link>
      {first.flag ? `: ${first.flag.word}.` : '.'} <Link to="/stocktake">Count or sell</Link>
    </>
  )
}

function EmptyRoom() {
  const { recorder } = useSession()
  return (
    <>
      <Lead title="Room" />
      <Nothing>
        <p>No tanks are entered yet. Racks stand here with their fish once they are.</p>
        {recorder.role === 'lead' ? <Link to="/setup/rack">Add the first rack</Link> : <p>A lead adds them under Setup.</p>}
      </Nothing>
    </>
  )
}
