import { dayWords } from '../../core/holds/holdDay'
import type { HoldView } from '../../core/room/roomView'
import type { TankKind } from '../../core/room/room.schema'
import { bookingWords, type Booking } from '../../core/tankChoice/bookings'
import type { TankFlag } from '../../core/room/tankFlag'

interface Props {
  kind: TankKind
  fish: number
  /** Null where nobody asks for checks: nothing is said of them. */
  isUnchecked: boolean | null
  flag: TankFlag | null
  /** Day of the hold; left out where nothing is held. */
  hold?: HoldView | null
  /** Who counts on it: said in words, and the label below the glass says how many are due. */
  bookings?: readonly Booking[]
  /** What stands in its water: a weave over it, and said in words. */
  agents?: readonly string[]
  /** Less high, where many stand together. */
  isLow?: boolean
}

/**
 * The front of a tank: the count stands in the water, a flag on the rim while unchecked, a label strip when there is
 * something to say. At the right glass a scale climbs with the days of a hold, its pointer at today. A tub is wider than high; dashed glass is empty. Always with words for whoever cannot see it.
 */
export function TankGlyph({ kind, fish, isUnchecked, flag, hold = null, bookings = [], agents = [], isLow = false }: Props) {
  const [width, height] = kind === 'tub' ? [104, isLow ? 54 : 58] : [84, isLow ? 54 : 70]
  const right = width - 6
  const bottom = height - 3
  const wave = 't8 0 '.repeat(Math.floor((right - 16) / 8))
  const words = [fish === 0 ? 'empty' : `${fish} fish`, isUnchecked === null ? '' : isUnchecked ? 'unchecked' : 'checked', flag?.word, hold && `held, ${dayWords(hold)}`, agents.length > 0 && `${agents.join(' and ')} in the water`, bookingWords(bookings)?.toLowerCase()].filter(Boolean).join(', ')
  return (
    <svg className={isLow ? 'tank-glyph is-low' : 'tank-glyph'} viewBox={`0 0 ${width} ${height}`} role="img" aria-label={words}>
      {fish > 0 && <path className="water" d={`M7 16 q4 -4 8 0 ${wave} H${right - 1} V${bottom - 5} q0 4 -4 4 H11 q-4 0 -4 -4 Z`} />}
      {agents.length > 0 && <Weave left={8} right={right - 2} top={18} bottom={bottom - 3} />}
      {flag && <path className={`strip ${flag.level}`} d={`M7 ${bottom - 17} H${flag.level === 'harm' ? right - 8 : right - 1} ${flag.level === 'harm' ? 'l7 7' : ''} V${bottom - 5} q0 4 -4 4 H11 q-4 0 -4 -4 Z`} />}
      <path className={fish > 0 ? 'glass' : 'glass is-empty'} d={`M6 5 V${bottom - 5} q0 5 5 5 H${right - 5} q5 0 5 -5 V5`} />
      {fish > 0 && (
        <text className="count" x="14" y={flag ? bottom - (isLow ? 20 : 24) : bottom - 13}>
          {fish}
        </text>
      )}
      {flag && (
        <text className={`strip-word ${flag.level}`} x="12" y={bottom - 5}>
          {flag.word}
        </text>
      )}
      {hold && <HoldScale hold={hold} x={right - 1} top={20} bottom={bottom - 8} />}
      {isUnchecked && <path className="flag" d={`M${right - 20} 0 h13 v13 l-6.5 -5 l-6.5 5 Z`} />}
    </svg>
  )
}

/** A weave over the water of a tank that is treated. */
function Weave({ left, right, top, bottom }: { left: number; right: number; top: number; bottom: number }) {
  const step = 9
  const height = bottom - top
  const count = Math.ceil((right - left + height) / step)
  // Lines both ways, each cut where it meets the glass.
  const lines = Array.from({ length: count }, (_, index) => {
    const x = left + index * step
    const [from, to] = [Math.min(x, right), Math.max(x - height, left)]
    return `M${from} ${top + (x - from)} L${to} ${top + (x - to)} M${left + right - from} ${top + (x - from)} L${left + right - to} ${top + (x - to)}`
  })
  return <path className="weave" d={lines.join(' ')} />
}

/** A rule of days on the right glass, the first day at the bottom, filled up to today. */
function HoldScale({ hold, x, top, bottom }: { hold: HoldView; x: number; top: number; bottom: number }) {
  const at = (day: number): number => bottom - ((bottom - top) * (day - 1)) / Math.max(1, hold.of - 1)
  const today = at(Math.min(hold.day, hold.of))
  // More than a few ticks run into each other at this size.
  const every = Math.ceil(hold.of / 8)
  const ticks = Array.from({ length: Math.floor((hold.of - 1) / every) + 1 }, (_, index) => at(1 + index * every))
  return (
    <g className="hold-scale">
      {ticks.map((y) => (
        <path key={y} className="tick" d={`M${x - 5} ${y} h5`} />
      ))}
      <path className="served" d={`M${x} ${bottom} V${today}`} />
      <path className="pointer" d={`M${x - 2} ${today} l-7 -4 v8 Z`} />
    </g>
  )
}
