import type { TankKind } from '../../core/room/room.schema'
import type { TankFlag } from '../../core/room/tankFlag'

interface Props {
  kind: TankKind
  fish: number
  isUnchecked: boolean
  flag: TankFlag | null
}

/**
 * The front of a tank: the count stands in the water, a flag on the rim while unchecked, a label strip when there is
 * something to say. A tub is wider than high; dashed glass is empty. Always with words for whoever cannot see it.
 */
export function TankGlyph({ kind, fish, isUnchecked, flag }: Props) {
  const [width, height] = kind === 'tub' ? [104, 58] : [84, 70]
  const right = width - 6
  const bottom = height - 3
  const wave = 't8 0 '.repeat(Math.floor((right - 16) / 8))
  const words = [fish === 0 ? 'empty' : `${fish} fish`, isUnchecked ? 'unchecked' : 'checked', flag?.word].filter(Boolean).join(', ')
  return (
    <svg className="tank-glyph" viewBox={`0 0 ${width} ${height}`} role="img" aria-label={words}>
      {fish > 0 && <path className="water" d={`M7 16 q4 -4 8 0 ${wave} H${right - 1} V${bottom - 5} q0 4 -4 4 H11 q-4 0 -4 -4 Z`} />}
      {flag && <path className={`strip ${flag.level}`} d={`M7 ${bottom - 17} H${flag.level === 'harm' ? right - 8 : right - 1} ${flag.level === 'harm' ? 'l7 7' : ''} V${bottom - 5} q0 4 -4 4 H11 q-4 0 -4 -4 Z`} />}
      <path className={fish > 0 ? 'glass' : 'glass is-empty'} d={`M6 5 V${bottom - 5} q0 5 5 5 H${right - 5} q5 0 5 -5 V5`} />
      {fish > 0 && (
        <text className="count" x="14" y={flag ? bottom - 24 : bottom - 13}>
          {fish}
        </text>
      )}
      {flag && (
        <text className={`strip-word ${flag.level}`} x="12" y={bottom - 5}>
          {flag.word}
        </text>
      )}
      {isUnchecked && <path className="flag" d={`M${right - 20} 0 h13 v13 l-6.5 -5 l-6.5 5 Z`} />}
    </svg>
  )
}
