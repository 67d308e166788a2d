import { shippedOutcomes, type OutcomeRules } from '../outcomes/outcomeRules'

const guidance = 'house guidance'
const usual = 'usual in statistics'

function limit<const P extends keyof OutcomeRules>(path: P, label: string, unit: string, [min, max]: readonly [number, number], about: string, source = guidance) {
  return { label, unit, standard: shippedOutcomes[path], min, max, source, about, group: 'outcomes' as const, path }
}
const share = [0.001, 0.999] as const
const hours = [1, 720] as const

/** The numbers behind Outcomes. */
export const outcomeLimits = {
  crateLikeness: limit('icc', 'Likeness of crate mates', 'correlation', [0, 0.5], 'How alike fish of one crate die; the monthly sheet prints the room’s own.', `${guidance}; published litters have 0.25`),
  likenessInBands: limit('priorCrates', 'Weight of it in bands', 'crates', [1, 50], 'Three crates cannot tell their own spread.', `${guidance}, by simulation`),
  likenessInEstimates: limit('iccPriorCrates', 'Weight of it in the room’s own', 'crates', [1, 200], 'How many crates it takes before the room’s own likeness outweighs it.', `${guidance}, by simulation`),
  leastCrates: limit('minCrates', 'Crates of a group, at least', 'crates', [2, 50], 'Fewer are too few to tell.'),
  leastDeaths: limit('minDeaths', 'Deaths in both groups, at least', 'deaths', [1, 100], 'Fewer are too few to tell.'),
  clearUpTo: limit('clear', 'Clear up to', 'q', [0.0001, 0.2], 'Of what a page calls clear so many are chance.', usual),
  likelyUpTo: limit('likely', 'Likely up to', 'q', [0.001, 0.5], 'Of what a page calls likely so many are chance.', usual),
  leansUpTo: limit('leans', 'Leans to up to', 'q', [0.01, 0.9], 'Of what a page says leans so many are chance.'),
  marginThatMatters: limit('marginShare', 'A difference that matters', 'share of fish', share, 'Groups whose difference surely lies within it are about the same.'),
  mixThatMatters: limit('mixShare', 'A difference that a mix turns', 'share of fish', share, 'Smaller ones are not called turned round.'),
  comparableFrom: limit('comparableShare', 'Like for like from', 'share of fish', share, 'So many fish of both groups must have their like in the other.'),
  attributedUpTo: limit('attributedShare', 'Attributed deaths up to', 'share of deaths', share, 'Above it no more than “leans to” is said.'),
  oneSchoolFrom: limit('oneSchoolShare', 'A lot is of one school from', 'share of fish', [0.5, 1], 'Otherwise it is mixed, and left out.'),
  outcomeDay: limit('mainDay', 'Survival is told to day', 'day', [1, 120], 'The day that screens begin with.', 'shop hold, usual in the trade'),
  firstDaysUpTo: limit('firstDays', 'First days', 'days', [0, 14], 'Deaths up to then have the pattern of the first days.', 'usual in the trade'),
  lateDaysFrom: limit('lateFrom', 'Late deaths from', 'day', [1, 60], 'Gasping, eating and without spots, from this day on.', 'usual in the trade, one to two weeks later'),
  lateDaysTo: limit('lateTo', 'Late deaths until', 'day', [2, 120], 'Gasping, eating and without spots, up to this day.', 'usual in the trade, one to two weeks later'),
  lookCountsHours: limit('lookHours', 'A look counts for a death', 'h', hours, 'Where nobody looked within it, the pattern is “not looked at”.'),
  signCountsHours: limit('signHours', 'A sign counts for a death', 'h', hours, 'Spots, film, wounds, fins and chasing.'),
  shortTransitHours: limit('transitShortH', 'Short transit under', 'h', [0.5, 48], 'From packing to the first bag.'),
  dayTransitHours: limit('transitDayH', 'Transit of a day under', 'h', [1, 100], 'From packing to the first bag.'),
  longTransitHours: limit('transitLongH', 'Long transit from', 'h', [2, 200], 'From packing to the first bag.', `${guidance}; the limit of a long time in the bag`),
  alarmWatchShare: limit('watchShare', 'Losses are watched from', 'share of an alarm', share, 'Of the score that rings.'),
  suddenFrom: limit('suddenLeast', 'Sudden from', 'fish', [2, 50], 'Fewer in one step ring nothing by themselves.'),
  systemAlarmTimes: limit('systemRatio', 'Alarm of a water at', 'times the usual', [1.2, 10], 'Losses it is set to find.'),
  systemSpread: limit('systemDispersion', 'Spread of losses of a water', 'times their mean', [1.05, 10], 'How unevenly losses fall on days; the monthly sheet prints what was measured.'),
  systemFalseYearly: limit('systemFalseAlarms', 'False alarms of waters', 'a year', [0.2, 50], 'Over all waters.'),
  crateAlarmTimes: limit('crateRatio', 'Alarm of a supplier or species at', 'times the usual', [1.2, 10], 'Losses it is set to find.'),
  crateSpread: limit('crateDispersion', 'Spread of losses of crates', 'times their mean', [1.05, 20], 'How unevenly losses fall on crates.'),
  supplierFalseYearly: limit('supplierFalseAlarms', 'False alarms of suppliers', 'a year', [0.2, 50], 'Over all suppliers.'),
  speciesFalseYearly: limit('speciesFalseAlarms', 'False alarms of species', 'a year', [0.2, 50], 'Over all species.'),
  usualLossWeight: limit('hazardWeight', 'Weight of the usual losses', 'fish-days', [10, 1_000_000], 'How many fish-days of the room outweigh the shipped table.'),
  speciesLossWeight: limit('factorWeight', 'Weight of a usual species', 'deaths', [0.5, 200], 'How many deaths it takes before a species counts as unlike the others.'),
  hintPointsTo: limit('pointsTo', 'A hint points to a cause from', 'times likelier', [2, 20], 'Only with evidence of two kinds.'),
  hintFits: limit('fits', 'A hint fits a cause from', 'times likelier', [1.1, 20], 'Less is not shown.'),
  hintLead: limit('lead', 'A hint leads by', 'times likelier', [1, 20], 'Ahead of the next one.'),
  hintMost: limit('hintCap', 'A hint is worth at most', 'times likelier', [2, 1000], 'These are guesses, and depend on one another.'),
  trialPartCrates: limit('trialPart', 'Crates of a part of a trial', 'crates', [2, 12], 'As many of each school in each part; an even number.'),
  trialLooksPlanned: limit('trialLooks', 'Looks of a trial', 'looks', [1, 4], 'At set shares of its crates.', 'usual in trials'),
  trialPauseShare: limit('pauseShare', 'A trial pauses from', 'share lost in 3 days', [0.05, 1], 'Of one crate. A lead decides.', `${guidance}, welfare first`),
} as const

export type OutcomeLimitKey = keyof typeof outcomeLimits

/** The rules of Outcomes with the house’s own numbers in them. */
export const outcomeRulesOf = (limits: Readonly<Record<OutcomeLimitKey, number>>): OutcomeRules =>
  ({ ...shippedOutcomes, ...Object.fromEntries(Object.entries(outcomeLimits).map(([key, { path }]) => [path, limits[key as OutcomeLimitKey]])) })
