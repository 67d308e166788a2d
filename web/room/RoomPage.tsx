import { Link, useSearchParams } from 'react-router'
import { groupBy } from '../../core/collections/groupBy'
import type { RoomView, SystemView, TankSummary } from '../../core/room/roomView'
import { useSession } from '../api/session'
import { useRoomView } from '../api/sharedReads'
import { dueWords } from '../../core/tankChoice/bookings'
import { plural } from '../ui/format'
import { Apart } from '../ui/Apart'
import { Lead } from '../ui/Lead'
import { Nothing, Trouble, Waiting } from '../ui/PageState'
import { TankGlyph } from '../ui/TankGlyph'
import { useUnits } from '../ui/useUnits'

const filters = {
  all: { label: 'All', keeps: () => true },
  unchecked: { label: 'Unchecked', keeps: (tank: TankSummary) => tank.fish > 0 && !tank.isCheckedToday },
  watch: { label: 'Watch', keeps: (tank: TankSummary) => tank.flag !== null },
  empty: { label: 'Empty', keeps: (tank: TankSummary) => tank.fish === 0 },
} as const
type FilterName = keyof typeof filters
const isFilter = (name: string | null): name is FilterName => name !== null && name in filters

/** The racks as they stand, so that one finds the way. */
export function RoomPage() {
  const { room, problem } = useRoomView()
  const [search, setSearch] = useSearchParams()
  const asked = search.get('show')
  const filter: FilterName = isFilter(asked) ? asked : 'all'
  if (!room) return problem ? <Trouble problem={problem} /> : <Waiting what="the room" />
  if (room.tanks.length === 0) return <EmptyRoom />
  const shown = room.tanks.filter(filters[filter].keeps)
  return (
    <>
      <Lead title="Room">
        <RoomSentence room={room} />
      </Lead>
      <div className="filters" role="group" aria-label="Show">
        {(Object.keys(filters) as FilterName[]).map((name) => (
          <button key={name} type="button" aria-pressed={filter === name} onClick={() => setSearch(name === 'all' ? {} : { show: name }, { replace: true })}>
            {filters[name].label} {room.tanks.filter(filters[name].keeps).length}
          </button>
        ))}
      </div>
      <div className="racks">
        {[...groupBy(shown, (tank) => tank.rack)].map(([rack, tanks]) => (
          <Apart key={rack} what={`Rack ${rack}`} of={tanks}>
            <Rack rack={rack} tanks={tanks} room={room} />
          </Apart>
        ))}
      </div>
      {shown.length === 0 && <Nothing>No tank is like this now.</Nothing>}
    </>
  )
}

function RoomSentence({ room }: { room: RoomView }) {
  const unchecked = room.tanks.filter(filters.unchecked.keeps)
  const first = unchecked.find((tank) => tank.flag) ?? unchecked[0]
  if (!first) return <>Every stocked tank was checked today.</>
  return (
    <>
      {plural(unchecked.length, 'tank is', 'tanks are')} unchecked today. <Link to="/rounds">Walk the round</Link>, or start at <Link to={`/room/${first.code}`}>{first.code}</Link>
      {first.flag ? `: ${first.flag.word} last time.` : '.'}
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

/** A rack with its shelves; under it one pipe for each body of water it hangs on. */
function Rack({ rack, tanks, room }: { rack: string; tanks: TankSummary[]; room: RoomView }) {
  const systems = room.systems.filter((system) => tanks.some((tank) => tank.systemId === system.id))
  const isApart = systems.length > 0 && systems.every(({ sharing }) => sharing === 'each its own')
  return (
    <section className={`rack ${systems[0]?.water ?? ''}${isApart ? ' is-apart' : ''}`} aria-label={`Rack ${rack}`}>
      <h2>
        <strong>{rack}</strong> {systems.map(({ name }) => name).join(' and ')}
      </h2>
      {[...groupBy(tanks, (tank) => tank.shelf)].map(([shelf, onShelf]) => (
        <div key={shelf} className="shelf">
          <ul>
            {onShelf.map((tank) => (
              <TankSpot key={tank.id} tank={tank} />
            ))}
          </ul>
        </div>
      ))}
      {systems.map((system) => (
        <Sump key={system.id} system={system} tanks={room.tanks.filter((tank) => tank.systemId === system.id)} />
      ))}
    </section>
  )
}

function Sump({ system, tanks }: { system: SystemView; tanks: TankSummary[] }) {
  const units = useUnits()
  const racks = [...new Set(tanks.map((tank) => tank.rack))]
  return (
    <p className={`sump ${system.water}${tanks.length > 1 && system.sharing === 'each its own' ? ' is-apart' : ''}`}>
      {system.water} water, {tanks.length === 1 || system.sharing === 'each its own' ? `${tanks.length === 1 ? 'of its own' : 'each tank has its own'}` : `shared by ${plural(tanks.length, 'tank')}${racks.length > 1 ? ` in ${racks.join(' and ')}` : ''}${system.sharing === null ? ' (nobody said; see Setup, Systems)' : ''}`}
      {system.sumpL ? `, sump ${units.show('volume', system.sumpL)}` : ''}
    </p>
  )
}

function TankSpot({ tank }: { tank: TankSummary }) {
  const due = dueWords(tank.bookings)
  const more = tank.speciesCount > 1 ? ` +${tank.speciesCount - 1}` : ''
  return (
    <li>
      <Link to={`/room/${tank.code}`} className="tank-spot">
        <span className="tank-code">{tank.code}</span>
        <TankGlyph kind={tank.kind} fish={tank.fish} hold={tank.hold} bookings={tank.bookings} isUnchecked={tank.fish > 0 && !tank.isCheckedToday} flag={tank.flag} />
        <span className="tank-label">{tank.mainSpecies ? `${tank.mainSpecies}${more}` : tank.bookings.length > 0 ? '' : 'empty'}{due && <small className="due-word">{due}</small>}</span>
        {tank.danger && <span className="danger-word">{tank.danger}</span>}
      </Link>
    </li>
  )
}
