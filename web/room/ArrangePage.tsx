import { DndContext, KeyboardCode, KeyboardSensor, PointerSensor, useDraggable, useDroppable, useSensor, useSensors, type DragEndEvent, type KeyboardCoordinateGetter } from '@dnd-kit/core'
import { useEffect, useRef, useState } from 'react'
import { Link } from 'react-router'
import { arrangeModes } from '../../core/room/arrangeRack'
import { rackAround, type FloorRack, type FloorTank, type FloorView } from '../../core/room/floor'
import { useSession } from '../api/session'
import { Apart } from '../ui/Apart'
import { Button } from '../ui/Button'
import { Lead } from '../ui/Lead'
import { Problem } from '../ui/Notice'
import { Nothing, Trouble, Waiting } from '../ui/PageState'
import { TankGlyph } from '../ui/TankGlyph'
import { FloorPlan } from './FloorPlan'
import { useArranging, useFloor } from './useArranging'
import './arrange.css'

/** Tanks are put where they stand, and racks where they stand on the floor. */
export function ArrangePage() {
  const { recorder } = useSession()
  const { floor, problem } = useFloor()
  if (recorder.role !== 'lead') return <Nothing>A lead arranges the racks.</Nothing>
  if (!floor) return problem ? <Trouble problem={problem} /> : <Waiting what="the racks" />
  return <Arrange floor={floor} />
}

const modeWords = { swap: 'they change places', insert: 'the row moves right' } as const
const spotId = (rack: string, shelf: number, position: number): string => `${rack} ${shelf} ${position}`

function Arrange({ floor }: { floor: FloorView }) {
  const arranging = useArranging(floor)
  const [isOnFloor, setOnFloor] = useState(false)
  const { mode, done, problem, isBusy } = arranging
  const last = done.at(-1)
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }), useSensor(KeyboardSensor, { coordinateGetter: bySlots, keyboardCodes: { start: [KeyboardCode.Space, KeyboardCode.Enter], cancel: [KeyboardCode.Esc], end: [KeyboardCode.Space, KeyboardCode.Enter] } }))
  const onDragEnd = ({ active, over }: DragEndEvent): void => {
    const tank = floor.tanks.find(({ id }) => id === active.id)
    const [rack = '', shelf, position] = String(over?.id ?? '').split(' ')
    if (tank && over && !isBusy) arranging.put(tank, { rack, shelf: Number(shelf), position: Number(position) })
  }
  return (
    <>
      <Lead
        title="Arrange"
        aside={
          <div className="filters" role="group" aria-label="What is arranged">
            <Button aria-pressed={!isOnFloor} onClick={() => setOnFloor(false)}>
              tanks
            </Button>
            <Button aria-pressed={isOnFloor} onClick={() => setOnFloor(true)}>
              floor
            </Button>
          </div>
        }
      >
        {isOnFloor ? 'Drag racks to where they stand; the round is walked by them from the first sink.' : 'Drag a tank to its place, or go by keys: Enter takes it, arrows move it, Enter sets it, Escape leaves it. Codes stay on the glass.'} <Link to="/room">Done</Link>
      </Lead>
      <div className="arrange-bar">
        {!isOnFloor && (
          <div className="filters" role="group" aria-label="Where a tank stands already">
            {arrangeModes.map((each) => (
              <Button key={each} aria-pressed={mode === each} onClick={() => arranging.setMode(each)}>
                {modeWords[each]}
              </Button>
            ))}
          </div>
        )}
        {last && !isOnFloor && (
          <p role="status">
            {last.words}.{' '}
            <Button disabled={isBusy} onClick={arranging.undo}>
              take it back
            </Button>
          </p>
        )}
        <Problem>{problem}</Problem>
      </div>
      {isOnFloor ? (
        <FloorPlan floor={floor} arranging={arranging} />
      ) : (
        <DndContext sensors={sensors} onDragEnd={onDragEnd} accessibility={{ announcements: announcementsOf(floor) }}>
          <div className="arrange-racks">
            {floor.racks.map((rack) => (
              <Apart key={rack.rack} what={`Rack ${rack.rack}`} of={rack}>
                <ArrangedRack rack={rack} tanks={floor.tanks.filter((tank) => tank.rack === rack.rack)} movedId={last?.tankId ?? null} onGrow={(more) => arranging.change(rack, more)} />
              </Apart>
            ))}
          </div>
        </DndContext>
      )}
    </>
  )
}

/** What is told to whoever cannot see it. */
function announcementsOf(floor: FloorView) {
  const code = (id: string | number): string => floor.tanks.find((tank) => tank.id === id)?.code ?? ''
  const place = (id: string | number): string => {
    const [rack, shelf, position] = String(id).split(' ')
    return `${rack}, shelf ${shelf}, place ${position}`
  }
  return {
    onDragStart: ({ active }: { active: { id: string | number } }) => `${code(active.id)} taken`,
    onDragOver: ({ over }: { over: { id: string | number } | null }) => (over ? place(over.id) : 'off the racks'),
    onDragEnd: ({ active, over }: { active: { id: string | number }; over: { id: string | number } | null }) => (over ? `${code(active.id)} set: ${place(over.id)}` : `${code(active.id)} left where it was`),
    onDragCancel: ({ active }: { active: { id: string | number } }) => `${code(active.id)} left where it was`,
  }
}

const steps: Partial<Record<string, readonly [across: number, down: number]>> = { [KeyboardCode.Left]: [-1, 0], [KeyboardCode.Right]: [1, 0], [KeyboardCode.Up]: [0, -1], [KeyboardCode.Down]: [0, 1] }

/** Arrows move by one slot, and at the edge of a rack to the nearest slot of the next one that way. */
const bySlots: KeyboardCoordinateGetter = (event, { context: { over, active, droppableRects, collisionRect }, currentCoordinates }) => {
  const step = steps[event.code]
  if (!step || !collisionRect || !active) return undefined
  event.preventDefault()
  const here = over ? droppableRects.get(over.id) : collisionRect
  if (!here) return undefined
  const [x, y] = [here.left + here.width / 2, here.top + here.height / 2]
  const beside = [...droppableRects].flatMap(([id, rect]) => {
    const [dx, dy] = [rect.left + rect.width / 2 - x, rect.top + rect.height / 2 - y]
    const ahead = dx * step[0] + dy * step[1]
    const aside = Math.abs(dx * step[1]) + Math.abs(dy * step[0])
    return ahead > rect.width / 4 ? [{ id, rect, far: ahead + aside * 3 }] : []
  })
  const [next] = beside.sort((a, b) => a.far - b.far)
  if (!next) return undefined
  return { x: currentCoordinates.x + (next.rect.left + next.rect.width / 2 - (collisionRect.left + collisionRect.width / 2)), y: currentCoordinates.y + (next.rect.top + next.rect.height / 2 - (collisionRect.top + collisionRect.height / 2)) }
}

function ArrangedRack({ rack: { rack, shelves, perShelf }, tanks, movedId, onGrow }: { rack: FloorRack; tanks: readonly FloorTank[]; movedId: string | null; onGrow: (more: { shelves?: number; perShelf?: number }) => void }) {
  const least = rackAround(rack, tanks)
  return (
    <section className="arranged" aria-label={`Rack ${rack}`}>
      <h2>
        <strong>{rack}</strong>
        <Button look="quiet" onClick={() => onGrow({ shelves: shelves + 1 })}>
          + shelf
        </Button>
        <Button look="quiet" onClick={() => onGrow({ perShelf: perShelf + 1 })}>
          + place
        </Button>
        {(shelves > least.shelves || perShelf > least.perShelf) && (
          <Button look="quiet" onClick={() => onGrow({ shelves: least.shelves, perShelf: least.perShelf })}>
            as its tanks
          </Button>
        )}
      </h2>
      {Array.from({ length: shelves }, (_, shelf) => (
        <div key={shelf} className="arranged-shelf" style={{ gridTemplateColumns: `repeat(${perShelf}, minmax(3.6rem, 5.5rem))` }}>
          {Array.from({ length: perShelf }, (_, position) => (
            <Slot key={position} id={spotId(rack, shelf + 1, position + 1)} tank={tanks.find((each) => each.shelf === shelf + 1 && each.position === position + 1)} movedId={movedId} />
          ))}
        </div>
      ))}
    </section>
  )
}

function Slot({ id, tank, movedId }: { id: string; tank: FloorTank | undefined; movedId: string | null }) {
  const { setNodeRef, isOver } = useDroppable({ id })
  return (
    <div ref={setNodeRef} className={`slot ${isOver ? 'is-over' : ''}`}>
      {tank && <DraggedTank key={tank.id} tank={tank} isMoved={tank.id === movedId} />}
    </div>
  )
}

function DraggedTank({ tank, isMoved }: { tank: FloorTank; isMoved: boolean }) {
  const button = useRef<HTMLButtonElement | null>(null)
  const { attributes, listeners, setNodeRef, transform, isDragging } = useDraggable({ id: tank.id })
  // Whoever goes by keys goes on from where the tank stands now.
  useEffect(() => {
    if (isMoved) button.current?.focus()
  }, [isMoved])
  const keep = (element: HTMLButtonElement | null): void => {
    button.current = element
    setNodeRef(element)
  }
  return (
    <Button ref={keep} look="bare" className={`slot-tank ${isDragging ? 'is-dragging' : ''}`} style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : undefined} {...listeners} {...attributes} aria-label={`${tank.code}, ${tank.fish} fish`}>
      <span className="tank-code">{tank.code}</span>
      <TankGlyph isLow kind={tank.kind} fish={tank.fish} isUnchecked={null} flag={null} />
    </Button>
  )
}
