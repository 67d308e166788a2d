import type { LevelReason } from './levelReason'
import { signGroups, signRule, type RoundRules, type SignGroup } from './roundRules'
import type { OutsideSign, Scope, SeenInTank } from './seenInTank'

/** Looks of one day and the next are not always a day apart: so many hours less still count as one. */
const daySlackH = 4
const daysOf = (hours: number): number => Math.floor((hours + daySlackH) / 24)
/** Groups whose signs speak together. */
const together = ['gills', 'skin'] as const

/** What was seen of the tank or of one lot: each sign once, where it weighs most. */
export function signReasons(seen: SeenInTank, scope: Scope, rules: RoundRules): LevelReason[] {
  const best = new Map<string, LevelReason>()
  for (const each of seen.outside.filter(({ lot }) => lot === scope)) {
    const reason = signReason(seen, each, rules)
    if (reason.points > (best.get(each.sign)?.points ?? 0)) best.set(each.sign, reason)
  }
  return [...best.values()]
}

function signReason(seen: SeenInTank, each: OutsideSign, rules: RoundRules): LevelReason {
  const { level } = rules
  const rule = signRule(rules, each.sign)
  const weight = each.severity > 1 ? rule.clear : rule.slight
  const dayRunning = 1 + daysOf(runningH(seen, each, rules))
  const more = rule.isSlow || rule.isGrave || dayRunning === 1 ? 0 : dayRunning === 2 ? level.secondDay : level.thirdDay
  const olderH = each.look.hoursAgo - (seen.newest?.hoursAgo ?? 0)
  const memoryH = rule.isLasting ? level.lastingMemoryH : level.memoryH
  const remembered = each.look === seen.newest ? 1 : olderH <= memoryH ? level.memoryShare : 0
  return { why: 'sign', what: each.sign, lot: each.lot, points: (weight + Math.min(weight, more)) * remembered, said: { severity: each.severity, dayRunning, rememberedH: olderH } }
}

/** For how long a sign was recorded of the same fish, usual or not, without a look between that does not name it. What comes and goes may be missed for a week. */
function runningH(seen: SeenInTank, { sign, lot, look }: OutsideSign, rules: RoundRules): number {
  const upTo = seen.looks.slice(seen.looks.indexOf(look))
  const isNamed = ({ signs }: { signs: OutsideSign['look']['signs'] }): boolean => signs.some((each) => each.sign === sign && (each.lot ?? null) === lot)
  const within = upTo.filter(({ hoursAgo }) => hoursAgo - look.hoursAgo <= rules.level.lastingMemoryH)
  const gap = upTo.findIndex((each) => !isNamed(each))
  const first = signRule(rules, sign).isLasting ? within.findLast(isNamed) : upTo[(gap === -1 ? upTo.length : gap) - 1]
  return (first ?? look).hoursAgo - look.hoursAgo
}

/** What speaks of one lot beyond its single signs: signs that go together, what it ate, and whether other lots show the same. */
export function lotReasons(seen: SeenInTank, lot: string, rules: RoundRules): LevelReason[] {
  const { level } = rules
  const recent = seen.outsideWithin(level.neighbourH)
  const mine = recent.filter((each) => each.lot === lot || each.lot === null)
  const ofGroup = (signs: readonly OutsideSign[], group: SignGroup): OutsideSign[] => signs.filter(({ sign }) => signRule(rules, sign).group === group)
  const joined = together.find((group) => new Set(ofGroup(mine, group).map(({ sign }) => sign)).size > 1)
  const isShown = (group: SignGroup, isOwn: boolean): boolean => ofGroup(recent, group).some((each) => each.lot !== null && (each.lot === lot) === isOwn)
  const several = signGroups.toSorted().find((group) => isShown(group, true) && isShown(group, false))
  return [
    ...(joined ? [{ why: 'go together', what: joined, lot, points: level.together } as const] : []),
    ...(several ? [{ why: 'in several lots', what: several, lot, points: level.inTank } as const] : []),
    ...appetiteReasons(seen, lot, rules),
  ]
}

/** A refusal that nothing explains, weightier each day. */
function appetiteReasons(seen: SeenInTank, lot: string, { level }: RoundRules): LevelReason[] {
  const answers = seen.answersOf(lot)
  const isRefusal = ({ ate, course }: (typeof answers)[number]): boolean => (ate === 'none' ? course.ateNoneLeftH <= 0 : ate === 'some' && course.ateSomeLeftH <= 0)
  const end = answers.findIndex((answer) => !isRefusal(answer))
  const run = end === -1 ? answers : answers.slice(0, end)
  const [newest, oldest] = [run[0], run.at(-1)]
  if (!newest || !oldest) return []
  const days = daysOf(oldest.look.hoursAgo - newest.look.hoursAgo)
  const points = newest.ate === 'none' ? Math.min(level.ateNoneMost, level.ateNone + level.ateNonePerDay * days) : Math.min(level.ateSomeMost, level.ateSome + level.ateSomePerDay * days)
  return [{ why: 'appetite', what: newest.ate, lot, points, said: { day: days + 1 } }]
}
