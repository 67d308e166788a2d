import { actProposals, type ActProposal } from './actProposals'
import { byWeight, type LevelAsked, type LevelReason, type Shown, type TankLevelName } from './levelReason'
import { shippedRoundRules, signRule, type RoundRules } from './roundRules'
import { seenInTank } from './seenInTank'
import { holdReasons, lossReasons, readingReasons, showsOf, unseenReasons, waterReasons } from './sharedReasons'
import { lotReasons, signReasons } from './signReasons'

export interface TankLevel {
  level: TankLevelName
  points: number
  lots: { lot: string; level: TankLevelName; points: number }[]
  /** The weightiest first. */
  reasons: LevelReason[]
  /** What other tanks on its water are judged by. */
  shows: Shown[]
  act: ActProposal[]
}

/**
 * Judges what was seen in a tank against what was to be expected: quiet, watch (somebody looks again today) or act (now).
 * A sign or a loss more never lowers it; a grave sign of the newest look is always act. It names no disease and is no
 * health certificate. Source: docs/rounds.md, house guidance.
 */
export function tankLevel(asked: LevelAsked, rules: RoundRules = shippedRoundRules): TankLevel {
  const { lots, rounds, accepted = [] } = asked
  const seen = seenInTank(lots, rounds, accepted, rules)
  const tankSigns = signReasons(seen, null, rules)
  const own = lots.map(({ lot }) => ({ lot, reasons: [...signReasons(seen, lot, rules), ...lotReasons(seen, lot, rules)] }))
  const shows = showsOf(seen, own.some(({ reasons }) => reasons.some(({ why }) => why === 'appetite')), rules)
  const shared = [...lossReasons(asked, rules), ...unseenReasons(asked, rules), ...readingReasons(asked, rules), ...waterReasons(asked, shows, rules), ...holdReasons(asked, shows, rules)]

  const graves = (seen.newest?.signs ?? []).filter(({ sign }) => signRule(rules, sign).isGrave)
  const judged = own.map(({ lot, reasons }) => {
    const points = sum([...tankSigns, ...reasons, ...shared])
    return { lot, level: levelOf(points, graves.some((grave) => (grave.lot ?? null) === null || grave.lot === lot), rules), points }
  })
  const points = judged.length === 0 ? sum([...tankSigns, ...shared]) : Math.max(...judged.map((each) => each.points))
  const level = levelOf(points, graves.length > 0, rules)
  const reasons = [...tankSigns, ...own.flatMap((each) => each.reasons), ...shared].filter((reason) => reason.points > 0).sort(byWeight)
  return { level, points, lots: judged, reasons, shows, act: level === 'act' ? actProposals(asked, reasons, shows, graves.length > 0, rules) : [] }
}

const sum = (reasons: readonly LevelReason[]): number => reasons.reduce((total, { points }) => total + points, 0)

const levelOf = (points: number, isGrave: boolean, { level }: RoundRules): TankLevelName => (isGrave || points >= level.actFrom ? 'act' : points >= level.watchFrom ? 'watch' : 'quiet')
