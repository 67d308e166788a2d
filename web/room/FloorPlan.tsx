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
  const things = thingsOn(floor, arranging)
  const onDragEnd = ({ active, delta }: DragEndEvent): void => {
    const thing = things.get(active.id)
    if (!thing) return
    const to = shifted(thing, delta)
    if (to.x !== thing.x || to.y !== thing.y) thing.put(to)
  }
  return (
    <>
      <DndContext sensors={sensors} onDragEnd={onDragEnd} accessibility={{ announcements: announcementsOf(things) }}>
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

interface Spot {
  x: number
  y: number
}
interface Area extends Spot {
  across: number
  down: number
}
const boxOf = ({ x, y, across, down }: Area) => ({ left: x * stepPx, top: y * stepPx, width: across * stepPx, height: down * stepPx })

/** What can be dragged, and the step it stands on. */
interface Thing extends Spot {
  name: string
  put: (to: Spot) => void
}
/** Racks and sinks by what they are called while they are dragged. */
const thingsOn = ({ racks, sinks }: FloorView, arranging: Props['arranging']): ReadonlyMap<string | number, Thing> =>
  new Map([
    ...racks.map((rack): [string, Thing] => [`rack:${rack.rack}`, { name: rack.rack, x: rack.x ?? 0, y: rack.y ?? 0, put: (to) => arranging.change(rack, to) }]),
    ...sinks.map((sink, index): [string, Thing] => [`sink:${index}`, { name: `Sink ${index + 1}`, ...sink, put: (to) => arranging.sinks(sinks.map((each, at) => (at === index ? to : each))) }]),
  ])

/** Whole steps on from there; the floor ends at its left and upper wall. */
const shifted = ({ x, y }: Spot, moved: Spot): Spot => ({ x: Math.max(0, x + Math.round(moved.x / stepPx)), y: Math.max(0, y + Math.round(moved.y / stepPx)) })

/** What is told to whoever cannot see it: the step on which it would stand, at every step. */
function announcementsOf(things: ReadonlyMap<string | number, Thing>): Announcements {
  const at = ({ id, rect: { current: { initial, translated } } }: Active): string => {
    const thing = things.get(id)
    if (!thing) return 'it is gone'
    const { x, y } = initial && translated ? shifted(thing, { x: translated.left - initial.left, y: translated.top - initial.top }) : thing
    return `${thing.name}: ${x} across, ${y} down`
  }
  return {
    onDragStart: ({ active }) => `${at(active)}, taken`,
    onDragMove: ({ active }) => at(active),
    onDragOver: () => undefined,
    onDragEnd: ({ active }) => `${at(active)}, set`,
    onDragCancel: ({ active }) => `${things.get(active.id)?.name ?? 'it'} left where it was`,
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
