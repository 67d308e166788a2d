import { useState, type DragEvent } from 'react'
import { Link, useNavigate } from 'react-router'
import type { TankSummary } from '../../core/room/roomView'
import { dueWords } from '../../core/tankChoice/bookings'
import { TankGlyph } from '../ui/TankGlyph'

/** Who lives in a tank, and who is due there. */
export function labelOf({ mainSpecies, speciesCount, bookings }: TankSummary): string {
  const lives = mainSpecies ? `${mainSpecies}${speciesCount > 1 ? ` +${speciesCount - 1}` : ''}` : bookings.length > 0 ? '' : 'empty'
  return [lives, dueWords(bookings)].filter(Boolean).join(', ')
}

/** Fish that are on their way: they stand in one tank, and the next that is touched is where they go. */
export interface Moving {
  from: string
  /** Where one goes on once the tank was touched; its id is put at the end. */
  to: string
  back: string
}

export function movingOf(search: URLSearchParams): Moving | null {
  const [from, fish] = [search.get('from'), search.get('fish')]
  if (from === null) return null
  const page = `/room/${encodeURIComponent(from)}/move?${fish === null ? '' : `fish=${encodeURIComponent(fish)}&`}`
  return { from, to: `${page}to=tank:`, back: `/room/${encodeURIComponent(from)}` }
}

const dragged = 'application/x-tank-code'

/** A tank where it stands. Dragged onto another one, its fish are to go there. */
export function TankSpot({ tank, moving }: { tank: TankSummary; moving: Moving | null }) {
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
      <TankGlyph isLow kind={tank.kind} fish={tank.fish} hold={tank.hold} bookings={tank.bookings} agents={tank.agents} isUnchecked={tank.fish > 0 && !tank.isCheckedToday} flag={tank.flag} />
      <span className="tank-label">
        {labelOf(tank)} {tank.danger && <span className="danger-word">{tank.danger}</span>}
      </span>
    </Link>
  )
}
