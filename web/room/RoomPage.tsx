import { useState, type CSSProperties, type DragEvent } from 'react'
import { Link, useNavigate, useSearchParams } from 'react-router'
import { groupBy } from '../../core/collections/groupBy'
import type { RoomView, SystemView, TankSummary } from '../../core/room/roomView'
import { useSession } from '../api/session'
import { useRoomView } from '../api/sharedReads'
import { dueWords } from '../../core/tankChoice/bookings'
import { Button } from '../ui/Button'
import { Apart } from '../ui/Apart'
import { Lead } from '../ui/Lead'
import { Nothing, Trouble, Waiting } from '../ui/PageState'
import { TankGlyph } from '../ui/TankGlyph'
import { useUnits, type Units } from '../ui/useUnits'
import { rackSize } from './rackSize'
import './room.css'

const filters = {
  all: { label: 'All', keeps: () => true },
  unchecked: { label: 'Unchecked', keeps: (tank: TankSummary) => tank.fish > 0 && !tank.isCheckedToday },
  watch: { label: 'Watch', keeps: (tank: TankSummary) => tank.flag !== null },
  empty: { label: 'Empty', keeps: (tank: TankSummary) => tank.fish === 0 },
} as const
type FilterName = keyof typeof filters
const isFilter = (name: string | null): name is FilterName => name !== null && name in filters

/** Another filter leaves what else the address says. */
function withFilter(before: URLSearchParams, name: FilterName): URLSearchParams {
  const next = new URLSearchParams(before)
  if (name === 'all') next.delete('show')
  else next.set('show', name)
  return next
}

/** The racks as they stand, so that one finds the way. */
export function RoomPage() {
  const { room, problem } = useRoomView()
  const [search, setSearch] = useSearchParams()
  const asked = search.get('show')
  const filter: FilterName = isFilter(asked) ? asked : 'all'
  if (!room) return problem ? <Trouble problem={problem} /> : <Waiting what="the room" />
  if (room.tanks.length === 0) return <EmptyRoom />
  const shown = room.tanks.filter(filters[filter].keeps)
  const moving = movingOf(search)
  return (
    <>
      <Lead title="Room" aside={<Filters tanks={room.tanks} chosen={filter} onChoose={(name) => setSearch((before) => withFilter(before, name), { replace: true })} />}>
        {moving ? (
          <>
            Touch the tank they go to. <Link to={moving.back}>Leave it</Link>
          </>
        ) : (
          <RoomSentence room={room} />
        )}
      </Lead>
      <div className="racks">
        {[...groupBy(shown, (tank) => tank.rack)].map(([rack, tanks]) => (
          <Apart key={rack} what={`Rack ${rack}`} of={tanks}>
            <Rack rack={rack} tanks={tanks} room={room} moving={moving} />
          </Apart>
        ))}
      </div>
      {shown.length === 0 && <Nothing>No tank is like this now.</Nothing>}
    </>
  )
}

function Filters({ tanks, chosen, onChoose }: { tanks: readonly TankSummary[]; chosen: FilterName; onChoose: (name: FilterName) => void }) {
  return (
    <div className="filters" role="group" aria-label="Show">
      {(Object.keys(filters) as FilterName[]).map((name) => (
        <Button key={name} aria-pressed={chosen === name} onClick={() => onChoose(name)}>
          {filters[name].label} {tanks.filter(filters[name].keeps).length}
        </Button>
      ))}
    </div>
  )
}

function RoomSentence({ room }: { room: RoomView }) {
  const unchecked = room.tanks.filter(filters.unchecked.keeps)
  const first = unchecked.find((tank) => tank.flag) ?? unchecked[0]
  if (room.tanks.every(({ fish }) => fish === 0)) return <>No fish are in the books yet. <Link to="/stocktake">Enter what swims here already</Link>.</>
  if (!first) return <>Every stocked tank was checked today. <Link to="/stocktake">Count or sell</Link> <Link to="/plans">Plans</Link></>
  return (
    <>
      {unchecked.length} unchecked today. <Link to="/rounds">Walk the round</Link>, or start at <Link to={`/room/${first.code}`}>{first.code}</Link>
      {first.flag ? `: ${first.flag.word}.` : '.'} <Link to="/stocktake">Count or sell</Link> <Link to="/plans">Plans</Link>
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

/** A rack with its shelves, as wide and high as it stands there; the line under its tanks is the water they share. */
function Rack({ rack, tanks, room, moving }: { rack: string; tanks: TankSummary[]; room: RoomView; moving: Moving | null }) {
  const { show } = useUnits()
  const systems = room.systems.filter((system) => tanks.some((tank) => tank.systemId === system.id))
  const waters = systems.map((system) => waterWords(system, rack, room.tanks.filter((tank) => tank.systemId === system.id), show))
  const isApart = systems.length > 0 && systems.every(({ sharing }) => sharing === 'each its own')
  const shelves = [...groupBy(tanks, (tank) => tank.shelf)]
  const name = systems.map((system) => system.name).join(' and ')
  const { across, rows } = rackSize(`${rack} ${name}`, waters, shelves.map(([, onShelf]) => onShelf.map((tank) => `${labelOf(tank)} ${tank.danger ?? ''}`.trim())))
  return (
    <section className={`rack ${systems[0]?.water ?? ''}${isApart ? ' is-apart' : ''}`} style={{ '--across': across, '--rows': rows } as CSSProperties} aria-label={`Rack ${rack}`}>
      <h2>
        <strong>{rack}</strong> {name}
      </h2>
      {systems.map(({ id, water, sharing }, index) => (
        <p key={id} className={`sump ${water}${sharing === 'each its own' ? ' is-apart' : ''}`}>
          {waters[index]}
        </p>
      ))}
      {shelves.map(([shelf, onShelf]) => (
        <ul key={shelf} className="shelf">
          {onShelf.map((tank) => (
            <TankSpot key={tank.id} tank={tank} moving={moving} />
          ))}
        </ul>
      ))}
    </section>
  )
}

/** Which water the tanks of a rack hang on, and with whom. */
function waterWords({ water, sharing, sumpL }: SystemView, rack: string, tanks: readonly TankSummary[], show: Units['show']): string {
  const others = [...new Set(tanks.map((tank) => tank.rack))].filter((each) => each !== rack)
  const isShared = tanks.length > 1 && sharing !== 'each its own'
  const whose = isShared ? (others.length > 0 ? `one with ${others.join(' and ')}` : 'one water') : tanks.length > 1 ? 'each its own' : 'its own'
  return [`${water}, ${whose}`, sumpL ? `sump ${show('volume', sumpL)}` : '', isShared && sharing === null ? 'nobody said so: see Setup, Systems' : ''].filter(Boolean).join(', ')
}

/** Who lives in a tank, and who is due there. */
function labelOf({ mainSpecies, speciesCount, bookings }: TankSummary): string {
  const lives = mainSpecies ? `${mainSpecies}${speciesCount > 1 ? ` +${speciesCount - 1}` : ''}` : bookings.length > 0 ? '' : 'empty'
  return [lives, dueWords(bookings)].filter(Boolean).join(', ')
}

/** Fish that are on their way: they stand in one tank, and the next that is touched is where they go. */
interface Moving {
  from: string
  /** Where one goes on once the tank was touched; its id is put at the end. */
  to: string
  back: string
}

function movingOf(search: URLSearchParams): Moving | null {
  const [from, fish] = [search.get('from'), search.get('fish')]
  if (from === null) return null
  const page = `/room/${encodeURIComponent(from)}/move?${fish === null ? '' : `fish=${encodeURIComponent(fish)}&`}`
  return { from, to: `${page}to=tank:`, back: `/room/${encodeURIComponent(from)}` }
}

const dragged = 'application/x-tank-code'

/** A tank where it stands. Dragged onto another one, its fish are to go there. */
function TankSpot({ tank, moving }: { tank: TankSummary; moving: Moving | null }) {
  const navigate = useNavigate()
  const [isOver, setOver] = useState(false)
  const onDrop = (event: DragEvent): void => {
    const from = event.dataTransfer.getData(dragged)
    setOver(false)
    if (from === '' || from === tank.code) return
    event.preventDefault()
    void navigate(`/room/${from}/move?to=tank:${tank.id}`)
  }
  const onDragOver = (event: DragEvent): void => {
    if (!event.dataTransfer.types.includes(dragged)) return
    event.preventDefault()
    setOver(true)
  }
  return (
    <li>
      <Link
        to={moving && moving.from !== tank.code ? `${moving.to}${tank.id}` : `/room/${tank.code}`}
        className={isOver ? 'tank-spot is-over' : 'tank-spot'}
        draggable={tank.fish > 0}
        onDragStart={(event) => event.dataTransfer.setData(dragged, tank.code)}
        onDragOver={onDragOver}
        onDragLeave={() => setOver(false)}
        onDrop={onDrop}
      >
        <span className="tank-code">{tank.code}</span>
        <TankGlyph isLow kind={tank.kind} fish={tank.fish} hold={tank.hold} bookings={tank.bookings} isUnchecked={tank.fish > 0 && !tank.isCheckedToday} flag={tank.flag} />
        <span className="tank-label">
          {labelOf(tank)} {tank.danger && <span className="danger-word">{tank.danger}</span>}
        </span>
      </Link>
    </li>
  )
}
