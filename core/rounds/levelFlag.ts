import { stripWord, type TankFlag } from '../room/tankFlag'
import type { LevelReason } from './levelReason'
import type { Sign } from './rounds.schema'
import type { TankLevel } from './tankLevel'

/**
 * The word on the strip of a tank, by its level: the weightiest reason in the ten letters the glass has room for. Fish that
 * were lost today stand there until midnight, whatever their weight.
 */
export function levelFlag({ level, reasons }: Pick<TankLevel, 'level' | 'reasons'>, lostToday = 0): TankFlag | null {
  const first = telling(reasons)
  if (level === 'quiet' || !first) return lostToday > 0 ? { level: 'watch', word: `${lostToday} lost` } : null
  return { level: level === 'act' ? 'harm' : 'watch', word: wordOf(first) }
}

/** What only adds to another reason says nothing by itself; of two that weigh the same, what was seen here is told. */
function telling(reasons: readonly LevelReason[]): LevelReason | undefined {
  const own = reasons.filter(({ why }) => !['hold', 'go together', 'in several lots'].includes(why))
  const most = Math.max(0, ...own.map(({ points }) => points))
  return own.find(({ why, points }) => why === 'sign' && points === most) ?? own[0] ?? reasons[0]
}

function wordOf({ why, what }: LevelReason): string {
  switch (why) {
    case 'sign':
      return stripWord(what as Sign)
    case 'appetite':
      return `ate ${what}`
    case 'loss':
    case 'losses beyond usual':
    case 'jumped or eaten':
      return `${what} lost`
    case 'unseen':
      return 'unseen'
    case 'reading':
    case 'drift':
      return ({ tempC: 'warmth', salinityPpt: 'salinity', ph: 'pH', nh3N: 'ammonia', nitriteN: 'nitrite', nitrateN: 'nitrate', oxygenMgL: 'oxygen' } as Record<string, string>)[what] ?? what
    case 'neighbour':
    case 'whole water':
      return 'its water'
    default:
      return what
  }
}
