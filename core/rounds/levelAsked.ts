import type { LotFacts, Look, Measured, TankFacts } from '../facts/facts'
import { groupBy } from '../collections/groupBy'
import { kindKey } from '../pools/poolsOf'
import { hoursAgo } from '../time/hoursAgo'
import { unionisedMgL } from '../water/ammonia'
import { expectedCourse, type CourseEvent, type CourseSpecies } from './expectedCourse'
import type { LevelAsked } from './levelReason'
import { lotEvents, type RunOfLot } from './lotEvents'
import { missingProbability, type Missing } from './missing'
import type { JudgedReading, RoundRules } from './roundRules'
import type { LookAtTank } from './seenInTank'
import { knownSigns } from './signDecision'

const [hourMs, dayMs] = [3_600_000, 86_400_000]

/** What is gathered of a tank beside its facts. */
export interface AboutTank {
  nowMs: number
  /** Whole days since a lot arrived. */
  daysOf: (lot: LotFacts) => number
  runsOf: (lotId: string) => readonly RunOfLot[]
  /** When fish of a lot were last counted here, as a count that was booked; null when never. */
  countedAtMs: (lotId: string) => number | null
  /** What was read on its water, at any of its tanks. */
  readings: readonly Measured[]
  stockedOnWater: number
  soldLately: boolean
}

/** What the species book says of a lot at a look. */
export const speciesOf = ({ book: { firstMealDays, ways } }: Pick<LotFacts, 'book'>): CourseSpecies => ({ firstMealDays, shareSeen: ways?.shareSeen, tolerance: ways?.tolerance, habits: ways?.habits })

/** A kind of fish in a tank, of which not all were seen. */
export interface UnseenKind extends Missing {
  /** Names the kind: any of its lots. */
  lotId: string
  species: string
  fish: number
  shareSeen: number
}

/** A look as the rules of the round have it. */
export const lookAtTank = ({ atMs, marks, answers, ate }: Pick<Look, 'atMs' | 'marks' | 'answers' | 'ate'>, nowMs: number): LookAtTank => ({
  hoursAgo: hoursAgo(atMs, nowMs),
  signs: marks.map(({ sign, severity, lotId }) => ({ sign, severity, lot: lotId })),
  ate: [{ ate }, ...answers.map((own) => ({ ate: own.ate, lot: own.lotId }))],
})

/** Looks at the fish that are there: what was seen of others before them says nothing of them. Ten days are enough. */
function looksAtThem({ lots, looks }: Pick<TankFacts, 'lots' | 'looks'>): Look[] {
  const sinceMs = Math.min(...lots.map((lot) => lot.sinceMs))
  return looks.filter(({ atMs }) => atMs >= sinceMs && (looks[0]?.atMs ?? atMs) - atMs <= 10 * dayMs)
}

/**
 * Puts together what the level of a tank is judged by, from what is recorded. Neighbours are left to whoever knows their
 * levels.
 */
export function levelAsked(tank: TankFacts, about: AboutTank, rules: RoundRules): { asked: LevelAsked; unseen: UnseenKind[] } {
  const { nowMs } = about
  const events = new Map(tank.lots.map((lot) => [lot.lotId, lotEvents(lot, tank, about.runsOf(lot.lotId), nowMs)]))
  const eventsOf = ({ lotId }: LotFacts): CourseEvent[] => events.get(lotId) ?? []
  const unseen = unseenKinds(tank, about, eventsOf, rules)
  return {
    unseen,
    asked: {
      lots: tank.lots.map((lot) => ({ lot: lot.lotId, fish: lot.quantity, days: about.daysOf(lot), inHold: lot.hold?.isServed === false, species: speciesOf(lot), events: eventsOf(lot) })),
      purpose: tank.purpose,
      stockedOnWater: about.stockedOnWater,
      rounds: looksAtThem(tank).map((look) => lookAtTank(look, nowMs)),
      losses: tank.losses.map(({ atMs, quantity, cause }) => ({ hoursAgo: hoursAgo(atMs, nowMs), quantity, cause })),
      unseen,
      readings: judgedReadings(tank, about.readings, nowMs),
      // While it is lowered on purpose its regimen says what is next.
      targets: { tempC: tank.water.tempC, ph: tank.water.ph, salinityPpt: tank.water.salinityPpt === (tank.water.houseSalinityPpt ?? tank.water.salinityPpt) ? tank.water.salinityPpt : null },
      accepted: knownSigns(tank, nowMs),
      soldLately: about.soldLately,
    },
  }
}

/** Kinds that were counted lately, and how likely one of them is gone. */
function unseenKinds(tank: TankFacts, { nowMs, countedAtMs }: AboutTank, eventsOf: (lot: LotFacts) => CourseEvent[], rules: RoundRules): UnseenKind[] {
  const kinds = [...groupBy(tank.lots, ({ speciesId, noted }) => kindKey({ speciesId, strain: noted.strain })).values()]
  return kinds.flatMap((lots): UnseenKind[] => {
    const quantity = lots.reduce((sum, lot) => sum + lot.quantity, 0)
    const lotIds = lots.map(({ lotId }) => lotId)
    const placedMs = Math.min(...lots.map((lot) => Math.max(lot.sinceMs, countedAtMs(lot.lotId) ?? -Infinity)))
    const looks = tank.looks.flatMap((look) => {
      const seen = look.counts.find(({ lotId }) => lotIds.includes(lotId))?.seen ?? (kinds.length === 1 ? look.seen : null)
      return seen === null || look.atMs < placedMs ? [] : [{ hoursAgo: hoursAgo(look.atMs, nowMs), seen }]
    })
    if (looks.length === 0) return []
    const shareSeen = Math.min(...lots.map((lot) => expectedCourse(eventsOf(lot), speciesOf(lot), rules).shareSeen))
    return [{ lotId: lotIds[0] ?? '', species: lots[0]?.species ?? '', fish: quantity, shareSeen, ...missingProbability({ fish: quantity, shareSeen, daysSinceFull: hoursAgo(placedMs, nowMs) / 24, looks }, rules) }]
  })
}

/** Salt and warmth move the balance little beside pH: where nobody read them, the water's own, or these. */
const usualC = 25
const aroundMs = 48 * hourMs

/** Readings as they are judged. Ammonia counts by its un-ionised part at the pH that was read around then, or the water's own; where nobody knows a pH it is not judged. */
function judgedReadings({ water }: TankFacts, readings: readonly Measured[], nowMs: number): NonNullable<LevelAsked['readings']> {
  const near = (what: string, atMs: number): number | null => {
    const [closest] = readings.filter((each) => each.what === what && Math.abs(each.atMs - atMs) <= aroundMs).sort((a, b) => Math.abs(a.atMs - atMs) - Math.abs(b.atMs - atMs))
    return closest?.value ?? null
  }
  return readings.flatMap(({ what, value, atMs }) => {
    const at = hoursAgo(atMs, nowMs)
    if (what === 'ammoniaMgL') {
      const ph = near('ph', atMs) ?? water.ph
      return ph === null ? [] : [{ kind: 'nh3N' as const, hoursAgo: at, value: unionisedMgL(value, ph, near('tempC', atMs) ?? water.tempC ?? usualC, near('salinityPpt', atMs) ?? water.salinityPpt ?? 0) }]
    }
    const kind = ({ tempC: 'tempC', ph: 'ph', salinityPpt: 'salinityPpt', freeAmmoniaMgL: 'nh3N', nitriteMgL: 'nitriteN', nitrateMgL: 'nitrateN' } as Record<string, JudgedReading>)[what]
    return kind === undefined ? [] : [{ kind, hoursAgo: at, value }]
  })
}
