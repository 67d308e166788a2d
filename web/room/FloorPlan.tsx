import { DndContext, KeyboardSensor, PointerSensor, useDraggable, useSensor, useSensors, type Active, type Announcements, type DragEndEvent } from '@dnd-kit/core'
import type { FloorRack, FloorView } from '../../core/room/floor'
import { Button } from '../ui/Button'
import type { useArranging } from './useArranging'

/** Half a metre of floor on the screen, px. */
const stepPx = 28
/** Steps shown at least; more where racks stand further off. */
const least = { across: 24, down: 12 }

interface Props {
  floor: FloorView
  arranging: ReturnType<typeof useArranging>
}

/** Steps that a rack covers. */
const footprint = ({ perShelf, isTurned }: FloorRack): { across: number; down: number } => {
  const long = Math.max(2, Math.min(12, Math.ceil(perShelf * 0.9)))
  return isTurned ? { across: 1, down: long } : { across: long, down: 1 }
}

/** The floor from above: racks, turned or not, and sinks. What nobody placed yet lies below it. */
export function FloorPlan({ floor, arranging }: Props) {
  const placed = floor.racks.filter(({ x }) => x !== null)
  const loose = floor.racks.filter(({ x }) => x === null)
  const across = Math.max(least.across, ...placed.map((rack) => (rack.x ?? 0) + footprint(rack).across + 2), ...floor.sinks.map(({ x }) => x + 3))
  const down = Math.max(least.down, ...placed.map((rack) => (rack.y ?? 0) + footprint(rack).down + 2), ...floor.sinks.map(({ y }) => y + 3))
  // A rack that is put down lies below all others.
  const below = Math.max(1, ...placed.map((rack) => (rack.y ?? 0) + footprint(rack).down + 1))
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }), useSensor(KeyboardSensor, { coordinateGetter: byStep }))
  const onDragEnd = ({ active, delta }: DragEndEvent): void => {
    const { rack, sink, from } = onFloorOf(floor, active)
    const to = shifted(from, delta)
    if (to.x === from.x && to.y === from.y) return
    if (rack) arranging.change(rack, to)
    else arranging.sinks(floor.sinks.map((each, index) => (index === sink ? to : each)))
  }
  return (
    <>
      <DndContext sensors={sensors} onDragEnd={onDragEnd} accessibility={{ announcements: announcementsOf(floor) }}>
        <div className="floor-scroll">
          <div className="floor" role="group" aria-label="Floor" style={{ width: across * stepPx, height: down * stepPx, backgroundSize: `${stepPx}px ${stepPx}px` }}>
            {zonesOf(placed).map(({ zone, ...area }) => (
              <div key={zone} className="floor-zone" style={boxOf(area)}>
                {zone}
              </div>
            ))}
            {placed.map((rack) => (
              <OnFloor key={rack.rack} id={`rack:${rack.rack}`} label={`Rack ${rack.rack}`} className={`floor-rack ${rack.waters[0] ?? ''}`} at={{ x: rack.x ?? 0, y: rack.y ?? 0, ...footprint(rack) }}>
                {rack.rack}
              </OnFloor>
            ))}
            {floor.sinks.map((sink, index) => (
              <OnFloor key={index} id={`sink:${index}`} label={`Sink ${index + 1}`} className="floor-sink" at={{ ...sink, across: 1, down: 1 }}>
                sink
              </OnFloor>
            ))}
          </div>
        </div>
      </DndContext>
      <div className="floor-tools">
        {loose.length > 0 && (
          <div className="entry-buttons" role="group" aria-label="Racks without a place">
            {loose.map((rack) => (
              <Button key={rack.rack} onClick={() => arranging.change(rack, { x: 1, y: below })}>
                put {rack.rack} down
              </Button>
            ))}
          </div>
        )}
        <div className="entry-buttons" role="group" aria-label="Turn, take away">
          <Button onClick={() => arranging.sinks([...floor.sinks, { x: 0, y: 0 }])}>+ sink</Button>
          {floor.sinks.length > 0 && <Button onClick={() => arranging.sinks(floor.sinks.slice(0, -1))}>– sink</Button>}
          {placed.map((rack) => (
            <Button key={rack.rack} look="quiet" onClick={() => arranging.change(rack, { isTurned: !rack.isTurned })}>
              turn {rack.rack}
            </Button>
          ))}
        </div>
      </div>
    </>
  )
}

interface Area {
  x: number
  y: number
  across: number
  down: number
}
const boxOf = ({ x, y, across, down }: Area) => ({ left: x * stepPx, top: y * stepPx, width: across * stepPx, height: down * stepPx })

interface Spot {
  x: number
  y: number
}

/** What is dragged (*rack:R1*, *sink:0*), and the step it stands on. */
function onFloorOf(floor: FloorView, { id }: Pick<Active, 'id'>): { rack: FloorRack | undefined; sink: number; name: string; from: Spot } {
  const [what, ...rest] = String(id).split(':')
  const key = rest.join(':')
  const rack = what === 'rack' ? floor.racks.find((each) => each.rack === key) : undefined
  const from = rack ?? floor.sinks[Number(key)]
  return { rack, sink: Number(key), name: rack ? rack.rack : `Sink ${Number(key) + 1}`, from: { x: from?.x ?? 0, y: from?.y ?? 0 } }
}

/** Whole steps on from there; the floor ends at its left and upper wall. */
const shifted = ({ x, y }: Spot, moved: Spot): Spot => ({ x: Math.max(0, x + Math.round(moved.x / stepPx)), y: Math.max(0, y + Math.round(moved.y / stepPx)) })

/** What is told to whoever cannot see it: the step on which it would stand, at every step. */
function announcementsOf(floor: FloorView): Announcements {
  const at = (active: Active): string => {
    const { name, from } = onFloorOf(floor, active)
    const { initial, translated } = active.rect.current
    const { x, y } = initial && translated ? shifted(from, { x: translated.left - initial.left, y: translated.top - initial.top }) : from
    return `${name}: ${x} across, ${y} down`
  }
  return {
    onDragStart: ({ active }) => `${at(active)}, taken`,
    onDragMove: ({ active }) => at(active),
    onDragOver: () => undefined,
    onDragEnd: ({ active }) => `${at(active)}, set`,
    onDragCancel: ({ active }) => `${onFloorOf(floor, active).name} left where it was`,
  }
}

/** A zone is one body around its racks: nothing wet goes out of it. */
function zonesOf(placed: readonly FloorRack[]): (Area & { zone: string })[] {
  const names = [...new Set(placed.flatMap(({ zones }) => zones))]
  return names.map((zone) => {
    const racks = placed.filter(({ zones }) => zones.includes(zone)).map((rack) => ({ x: rack.x ?? 0, y: rack.y ?? 0, ...footprint(rack) }))
    const [left, top] = [Math.min(...racks.map(({ x }) => x)), Math.min(...racks.map(({ y }) => y))]
    return { zone, x: left - 0.35, y: top - 0.75, across: Math.max(...racks.map(({ x, across }) => x + across)) - left + 0.7, down: Math.max(...racks.map(({ y, down }) => y + down)) - top + 1.1 }
  })
}

const arrows: Partial<Record<string, readonly [number, number]>> = { ArrowLeft: [-stepPx, 0], ArrowRight: [stepPx, 0], ArrowUp: [0, -stepPx], ArrowDown: [0, stepPx] }
const byStep = (event: KeyboardEvent, { currentCoordinates: { x, y } }: { currentCoordinates: { x: number; y: number } }): { x: number; y: number } | undefined => {
  const step = arrows[event.code]
  if (!step) return undefined
  event.preventDefault()
  return { x: x + step[0], y: y + step[1] }
}

interface OnFloorProps {
  id: string
  label: string
  className: string
  at: Area
  children: string
}

function OnFloor({ id, label, className, at, children }: OnFloorProps) {
  const { attributes, listeners, setNodeRef, transform } = useDraggable({ id })
  return (
    <Button
      ref={setNodeRef}
      look="bare"
      className={className}
      {...listeners}
      {...attributes}
      aria-label={label}
      style={{ ...boxOf(at), ...(transform ? { transform: `translate(${Math.round(transform.x / stepPx) * stepPx}px, ${Math.round(transform.y / stepPx) * stepPx}px)` } : {}) }}
    >
      {children}
    </Button>
  )
}
