import type { CSSProperties, ReactNode } from 'react'
import { groupBy } from '../../core/collections/groupBy'
import type { SystemView } from '../../core/room/roomView'
import { useUnits, type Units } from '../ui/useUnits'
import { rackSize } from './rackSize'
import './room.css'

/** A tank as far as its place goes. */
export interface Placed {
  id: string
  systemId: string
  rack: string
  shelf: number
  position: number
}

interface Props<T extends Placed> {
  rack: string
  tanks: readonly T[]
  /** Every tank of the room: a water may reach into other racks. */
  all: readonly Placed[]
  systems: readonly SystemView[]
  /** What stands below a tank. */
  labelOf: (tank: T) => string
  /** Whether gaps between tanks are drawn, which a choice of tanks has not. */
  hasGaps: boolean
  children: (tank: T) => ReactNode
}

/** A rack with its shelves, as wide and high as it stands there; the line under its tanks is the water they share. */
export function Rack<T extends Placed>({ rack, tanks, all, systems: known, labelOf, hasGaps, children }: Props<T>) {
  const { show } = useUnits()
  const systems = known.filter((system) => tanks.some((tank) => tank.systemId === system.id))
  const waters = systems.map((system) => waterWords(system, rack, all.filter((tank) => tank.systemId === system.id), show))
  const isApart = systems.length > 0 && systems.every(({ sharing }) => sharing === 'each its own')
  const shelves = shelvesOf(tanks, hasGaps)
  const name = systems.map((system) => system.name).join(' and ')
  const { across, rows } = rackSize(`${rack} ${name}`, waters, shelves.map(({ spots }) => spots.map((tank) => (tank === null ? '' : labelOf(tank)))))
  return (
    <section className={`rack ${systems[0]?.water ?? ''}${isApart ? ' is-apart' : ''}`} style={{ '--across': across, '--rows': rows } as CSSProperties} aria-label={`Rack ${rack}`} id={`rack-${rack}`}>
      <h2>
        <strong>{rack}</strong> {name}
      </h2>
      {systems.map(({ id, water, sharing }, index) => (
        <p key={id} className={`sump ${water}${sharing === 'each its own' ? ' is-apart' : ''}`}>
          {waters[index]}
        </p>
      ))}
      {shelves.map(({ shelf, spots }) => (
        <ul key={shelf} className="shelf">
          {spots.map((tank, index) => (tank === null ? <li key={`gap ${index}`} className="gap" aria-hidden /> : <li key={tank.id}>{children(tank)}</li>))}
        </ul>
      ))}
    </section>
  )
}

/** Tanks by shelf from the left; null where nothing stands between two. */
function shelvesOf<T extends Placed>(tanks: readonly T[], hasGaps: boolean): { shelf: number; spots: (T | null)[] }[] {
  return [...groupBy(tanks, ({ shelf }) => shelf)]
    .sort(([a], [b]) => a - b)
    .map(([shelf, onShelf]) => {
      const inOrder = [...onShelf].sort((a, b) => a.position - b.position)
      const last = inOrder.at(-1)?.position ?? 0
      // A position far off is a slip of the pen, not a shelf of a thousand tanks.
      const isNear = hasGaps && last <= inOrder.length * 2 + 4
      return { shelf, spots: isNear ? Array.from({ length: last }, (_, index) => inOrder.find(({ position }) => position === index + 1) ?? null) : inOrder }
    })
}

/** Which water the tanks of a rack hang on, and with whom. */
function waterWords({ water, sharing, sumpL }: SystemView, rack: string, tanks: readonly Placed[], show: Units['show']): string {
  const others = [...new Set(tanks.map((tank) => tank.rack))].filter((each) => each !== rack)
  const isShared = tanks.length > 1 && sharing !== 'each its own'
  const whose = isShared ? (others.length > 0 ? `one with ${others.join(' and ')}` : 'one water') : tanks.length > 1 ? 'each its own' : 'its own'
  return [`${water}, ${whose}`, sumpL ? `sump ${show('volume', sumpL)}` : '', isShared && sharing === null ? 'nobody said so: see Setup, Systems' : ''].filter(Boolean).join(', ')
}
