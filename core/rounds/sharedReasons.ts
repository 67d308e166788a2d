import { evenCauses, hazardAt } from '../pools/hazard'
import { binomialAtLeast, poissonAtLeast } from '../stats/chance'
import type { LevelAsked, LevelReason, Shown } from './levelReason'
import { signGroups, signRule, type ReadingRule, type RoundRules } from './roundRules'
import type { SeenInTank } from './seenInTank'

const weekH = 168
const shared = (why: LevelReason['why'], what: string, points: number, said?: LevelReason['said']): LevelReason => ({ why, what, lot: null, points, ...(said ? { said } : {}) })
const total = (losses: readonly { quantity: number }[]): number => losses.reduce((sum, { quantity }) => sum + quantity, 0)

/** Deaths: how many, and whether so many die where nothing is wrong. */
export function lossReasons({ lots, losses = [] }: LevelAsked, { level }: RoundRules): LevelReason[] {
  const isEven = ({ cause }: { cause: string | null }): boolean => (evenCauses as readonly (string | null)[]).includes(cause)
  const within = (hours: number, even: boolean): number => total(losses.filter((loss) => loss.hoursAgo <= hours && isEven(loss) === even))
  const usualADay = Math.max(0.001, lots.reduce((sum, { fish, days }) => sum + fish * level.usualLossPerDay * hazardAt(days), 0))
  const chances = level.lossWindowsDays.map((days) => {
    const died = within(days * 24, false)
    return died < level.lossLeast ? 1 : poissonAtLeast(died, usualADay * days)
  })
  const chance = Math.min(1, ...chances)
  const [recent, week, even] = [within(level.lossRecentH, false), within(weekH, false), within(level.lossRecentH, true)]
  const beyond = chance < level.lossVeryRare ? level.lossVeryRarePoints : chance < level.lossRare ? level.lossRarePoints : 0
  return [
    ...(beyond > 0 ? [shared('losses beyond usual', String(week), beyond)] : recent > 0 ? [shared('loss', String(recent), level.lossRecent)] : week > 0 ? [shared('loss', String(week), level.lossWeek)] : []),
    ...(even > 0 ? [shared('jumped or eaten', String(even), level.lossOther)] : []),
  ]
}

/** Fish that do not show themselves: the worst kind counts. */
export function unseenReasons({ unseen = [] }: LevelAsked, { level }: RoundRules): LevelReason[] {
  const [worst] = unseen.map(({ verdict }) => shared('unseen', verdict, level.unseen[verdict] ?? 0)).sort((a, b) => b.points - a.points)
  return worst && worst.points > 0 ? [worst] : []
}

/** Readings at or past a limit, and those on their way there. */
export function readingReasons(asked: LevelAsked, rules: RoundRules): LevelReason[] {
  return rules.readings.flatMap((rule): LevelReason[] => {
    const target = asked.targets?.[rule.kind] ?? null
    if ((rule.relative && target === null) || (rule.kind === 'nh3N' && asked.hasBinder)) return []
    const values = (asked.readings ?? []).filter(({ kind }) => kind === rule.kind).sort((a, b) => a.hoursAgo - b.hoursAgo)
    return readingReason(rule, rule.relative ? (target ?? 0) : 0, values, rules)
  })
}

type Value = { hoursAgo: number; value: number }

function readingReason({ kind, low, high, sd }: ReadingRule, base: number, values: readonly Value[], { level }: RoundRules): LevelReason[] {
  const isPast = (value: number, lowest: number | undefined, highest: number | undefined): boolean => (lowest !== undefined && value <= base + lowest) || (highest !== undefined && value >= base + highest)
  const [newest] = values
  if (newest && newest.hoursAgo <= level.readingFreshH) {
    if (isPast(newest.value, low?.[0], high?.[1])) return [shared('reading', kind, level.readingAct, { value: newest.value })]
    if (isPast(newest.value, low?.[1], high?.[0])) return [shared('reading', kind, level.readingWatch, { value: newest.value })]
  }
  const line = drift(values.filter(({ hoursAgo }) => hoursAgo <= level.driftDays * 24), sd, level)
  if (line === null) return []
  const isRising = line.slope > 0
  return isPast(line.ahead, isRising ? undefined : low?.[1], isRising ? high?.[0] : undefined) ? [shared('drift', kind, level.drift, { isRising })] : []
}

/** The line through readings of the last days, where it rises or falls by more than the instrument's spread explains; null otherwise. */
function drift(values: readonly Value[], sd: number, { driftLeast, driftZ, driftAheadH }: RoundRules['level']): { slope: number; ahead: number } | null {
  if (values.length < driftLeast) return null
  const mean = (of: (value: Value) => number): number => values.reduce((sum, value) => sum + of(value), 0) / values.length
  const [meanH, meanValue] = [mean(({ hoursAgo }) => -hoursAgo), mean(({ value }) => value)]
  const sxx = values.reduce((sum, { hoursAgo }) => sum + (-hoursAgo - meanH) ** 2, 0)
  if (sxx === 0) return null
  const slope = values.reduce((sum, { hoursAgo, value }) => sum + (-hoursAgo - meanH) * (value - meanValue), 0) / sxx
  return Math.abs(slope) > (driftZ * sd) / Math.sqrt(sxx) ? { slope, ahead: meanValue + slope * (driftAheadH - meanH) } : null
}

/** What a tank shows to others on its water: groups of the last days, and that its water is in doubt. */
export function showsOf(seen: SeenInTank, isHungry: boolean, rules: RoundRules): Shown[] {
  const { level } = rules
  const groups = new Set(seen.outsideWithin(level.neighbourH).map(({ sign }) => signRule(rules, sign).group))
  const isWater = isHungry || seen.outsideWithin(level.waterH).some(({ sign }) => signRule(rules, sign).isWater)
  return [...(['skin', 'gills', 'wasting'] as const).filter((group) => groups.has(group)), ...(isWater ? (['water'] as const) : [])]
}

/** What other tanks on the same water show, beside what this one does. */
export function waterReasons({ neighbours = [], stockedOnWater = 1 }: LevelAsked, shows: readonly Shown[], { level }: RoundRules): LevelReason[] {
  const [worst] = (['gills', 'skin'] as const)
    .map((group) => {
      const showing = neighbours.filter((each) => each.shows.includes(group))
      const lookOut = showing.length >= level.neighbourLookFrom || showing.some(({ isAct }) => isAct) ? level.neighbourLook : 0
      const own = showing.length === 0 ? 0 : showing.length === 1 ? level.neighbourOne : level.neighbourMore
      return shared('neighbour', group, shows.includes(group) ? own : lookOut, { tanks: showing.map(({ tank }) => tank) })
    })
    .sort((a, b) => b.points - a.points)
  const doubtful = neighbours.filter((each) => each.shows.includes('water'))
  const isOwn = shows.includes('water')
  const count = doubtful.length + (isOwn ? 1 : 0)
  const isRare = count >= level.waterLeast && binomialAtLeast(count, stockedOnWater, level.waterUsual) < level.waterRare
  return [...(worst && worst.points > 0 ? [worst] : []), ...(isRare ? [shared('whole water', String(count), isOwn ? level.waterWide : level.neighbourLook, { tanks: doubtful.map(({ tank }) => tank) })] : [])]
}

/** A lot in its hold beside signs that may belong to it. */
export function holdReasons({ lots }: LevelAsked, shows: readonly Shown[], { level }: RoundRules): LevelReason[] {
  const first = signGroups.toSorted().find((group) => shows.includes(group))
  return first && lots.some(({ inHold }) => inHold) ? [shared('hold', first, level.hold)] : []
}
