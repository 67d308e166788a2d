import { shippedRoundRules, type RoundRules } from '../rounds/roundRules'

const guidance = 'house guidance'

/** Where a limit of the round stands in its rules: group and field. */
type Path = readonly ['species' | 'level' | 'unseen' | 'notEating' | 'walk', string]
const at = ([group, field]: Path): number => (shippedRoundRules[group] as unknown as Readonly<Record<string, number>>)[field] as number

function limit<const P extends Path>(path: P, label: string, unit: string, [min, max]: readonly [number, number], about: string, source = guidance) {
  return { label, unit, standard: at(path), min, max, source, about, group: 'rounds' as const, path }
}
const points = [0, 30] as const
const hours = [1, 720] as const
const share = [0.001, 0.999] as const

/** The single numbers behind the round; the lists of its rules (signs, courses, readings, lures) are data of their own. */
export const roundLimits = {
  usualShareSeen: limit(['species', 'shareSeen'], 'Share seen, species unknown', 'share', share, 'Of a settled group, at one look, where the species book does not say.'),
  usualFirstMealDays: limit(['species', 'firstMealDays'], 'First meal, species unknown', 'days', [0, 60], 'Usual days to the first meal, where the species book does not say.'),
  hiderBelow: limit(['species', 'hiderBelow'], 'Hides by habit below', 'share', share, 'Kinds of which usually fewer are seen hide by habit: hiding is no sign of theirs.'),
  watchFrom: limit(['level', 'watchFrom'], 'Watch from', 'points', [0.5, 30], 'Somebody looks again today.'),
  actFrom: limit(['level', 'actFrom'], 'Act from', 'points', [1, 60], 'Somebody acts now.'),
  signMemoryHours: limit(['level', 'memoryH'], 'A sign is remembered', 'h', hours, 'How long before the newest look a sign still counts.'),
  lastingMemoryHours: limit(['level', 'lastingMemoryH'], 'A sign that comes and goes is remembered', 'h', hours, 'The same of spots, film and rubbing.'),
  memoryShare: limit(['level', 'memoryShare'], 'Weight of a remembered sign', 'share', [0, 1], 'Of what it would weigh at the newest look.'),
  secondDayPoints: limit(['level', 'secondDay'], 'A sign’s second day', 'points', points, 'Added on the second day running, never more than the sign itself.'),
  thirdDayPoints: limit(['level', 'thirdDay'], 'A sign’s third day', 'points', points, 'Added from the third day running on.'),
  ateNonePoints: limit(['level', 'ateNone'], 'Ate none', 'points', points, 'On the first day that nothing explains it.'),
  ateNonePerDayPoints: limit(['level', 'ateNonePerDay'], 'Ate none, each day more', 'points', points, 'For each further day.'),
  ateNoneMostPoints: limit(['level', 'ateNoneMost'], 'Ate none, at most', 'points', points, 'However long it goes on.'),
  ateSomePoints: limit(['level', 'ateSome'], 'Ate some', 'points', points, 'On the first day that nothing explains it.'),
  ateSomePerDayPoints: limit(['level', 'ateSomePerDay'], 'Ate some, each day more', 'points', points, 'For each further day.'),
  ateSomeMostPoints: limit(['level', 'ateSomeMost'], 'Ate some, at most', 'points', points, 'However long it goes on.'),
  lossRecentHours: limit(['level', 'lossRecentH'], 'A loss is recent', 'h', hours, 'How long a loss weighs in full.'),
  lossRecentPoints: limit(['level', 'lossRecent'], 'A recent loss', 'points', points, 'Fish found dead within that time.'),
  lossWeekPoints: limit(['level', 'lossWeek'], 'A loss of this week', 'points', points, 'Fish found dead within a week.'),
  lossOtherPoints: limit(['level', 'lossOther'], 'Jumped or eaten', 'points', points, 'Losses that are no illness.'),
  usualLossPerDay: limit(['level', 'usualLossPerDay'], 'Usual losses', 'share a day', [0.00001, 0.05], 'Of settled fish; new ones die more easily. Losses beyond it are counted against chance.'),
  lossLeast: limit(['level', 'lossLeast'], 'Losses counted against chance from', 'fish', [1, 50], 'One death is chance.'),
  lossRareChance: limit(['level', 'lossRare'], 'Losses are rare below', 'chance', share, 'Chance of so many where nothing is wrong.'),
  lossRarePoints: limit(['level', 'lossRarePoints'], 'Rare losses', 'points', points, 'More than is usual.'),
  lossVeryRareChance: limit(['level', 'lossVeryRare'], 'Losses are very rare below', 'chance', [0.00001, 0.5], 'Chance of so many where nothing is wrong.'),
  lossVeryRarePoints: limit(['level', 'lossVeryRarePoints'], 'Very rare losses', 'points', points, 'Far more than is usual.'),
  readingWatchPoints: limit(['level', 'readingWatch'], 'A reading past its watch limit', 'points', points, 'At or beyond it.'),
  readingActPoints: limit(['level', 'readingAct'], 'A reading past its act limit', 'points', points, 'At or beyond it.'),
  driftPoints: limit(['level', 'drift'], 'A reading on its way to a limit', 'points', points, 'Where it rises or falls by more than its instrument’s spread.'),
  readingFreshHours: limit(['level', 'readingFreshH'], 'A reading is fresh', 'h', hours, 'How long it speaks for its water.'),
  driftDays: limit(['level', 'driftDays'], 'A drift is read over', 'days', [1, 60], 'Readings of so many days make its line.'),
  driftLeast: limit(['level', 'driftLeast'], 'A drift is read from', 'readings', [3, 50], 'Fewer make no line.'),
  driftSureness: limit(['level', 'driftZ'], 'A drift is sure from', 'spreads', [0.1, 5], 'How many standard errors its slope has to lie off zero.', '95 % one-sided point of the normal distribution'),
  driftAheadHours: limit(['level', 'driftAheadH'], 'A drift is looked ahead', 'h', hours, 'Where its line stands by then.'),
  neighbourHours: limit(['level', 'neighbourH'], 'Signs of neighbours count for', 'h', hours, 'Before the newest look; also of what goes together and of the hold.'),
  neighbourOnePoints: limit(['level', 'neighbourOne'], 'The same on one neighbour', 'points', points, 'Another tank on this water shows the same group of signs.'),
  neighbourMorePoints: limit(['level', 'neighbourMore'], 'The same on several neighbours', 'points', points, 'Two or more.'),
  neighbourLookPoints: limit(['level', 'neighbourLook'], 'On neighbours only', 'points', points, 'This tank shows nothing, the water is in doubt.'),
  neighbourLookFrom: limit(['level', 'neighbourLookFrom'], 'On neighbours only, from', 'tanks', [1, 50], 'So many neighbours, or one that has to be acted on.'),
  waterHours: limit(['level', 'waterH'], 'Signs of water count for', 'h', hours, 'Before the newest look.'),
  waterLeast: limit(['level', 'waterLeast'], 'A whole water from', 'tanks', [2, 50], 'Fewer are no whole water.'),
  waterUsualShare: limit(['level', 'waterUsual'], 'Tanks with a sign of water, usually', 'share', share, 'On any day, where nothing is wrong.'),
  waterRareChance: limit(['level', 'waterRare'], 'A whole water below', 'chance', [0.00001, 0.5], 'Chance of so many tanks at once where nothing is wrong.'),
  waterWidePoints: limit(['level', 'waterWide'], 'A whole water', 'points', points, 'For a tank that shows something itself.'),
  inTankPoints: limit(['level', 'inTank'], 'The same in several lots', 'points', points, 'Of one tank.'),
  togetherPoints: limit(['level', 'together'], 'Signs that go together', 'points', points, 'Two different ones of gills, or of skin.'),
  ownAnswerHours: limit(['level', 'ownAnswerH'], 'A lot’s own answer holds', 'h', hours, 'How long it stands against what the whole tank ate.'),
  holdPoints: limit(['level', 'hold'], 'In a hold', 'points', points, 'A sign that may belong to it.'),
  unseenLossPerDay: limit(['unseen', 'lossPerDay'], 'Fish that vanish', 'share a day', [0.00001, 0.05], 'Each by itself, before anybody looked.'),
  disasterPerDay: limit(['unseen', 'disasterPerDay'], 'Several vanish at once', 'chance a day', [0, 0.05], 'A jump, a pump, a thief.'),
  disasterMost: limit(['unseen', 'disasterMost'], 'Several vanish at once, at most', 'chance', [0, 0.5], 'However long nobody counted.'),
  hiddenShare: limit(['unseen', 'hiddenShare'], 'Hides for days', 'share', [0, 0.9], 'Of fish that are seldom seen.'),
  hiddenFadeDays: limit(['unseen', 'hiddenFadeDays'], 'Hiding fades over', 'days', [0.1, 100], 'Fast for kinds that are usually seen.'),
  seenSureness: limit(['unseen', 'sureness'], 'Sureness of the share seen', 'looks', [1, 200], 'How many looks it is worth.'),
  unseenLooksDays: limit(['unseen', 'looksDays'], 'Counts are used for', 'days', [1, 60], 'Older ones say nothing more.'),
  unseenLooksMost: limit(['unseen', 'looksMost'], 'Counts used, at most', 'looks', [1, 50], 'The newest.'),
  unseenMergeHours: limit(['unseen', 'mergeH'], 'Counts taken as one', 'h', [0, 48], 'Those so close together are one look.'),
  lookForItChance: limit(['unseen', 'lookForIt'], 'Look for it from', 'chance', share, 'That at least one is gone.'),
  writeOffChance: limit(['unseen', 'writeOff'], 'A write-off is asked about from', 'chance', share, 'That so many are gone. A person decides, after a search.'),
  writeOffLooks: limit(['unseen', 'writeOffLooks'], 'A write-off is asked about after', 'looks', [1, 50], 'Fewer counts prove too little.'),
  unseenOddsTimes: limit(['unseen', 'oddsTimes'], 'Counts speak from', 'times the odds', [1, 100], 'Before that only the calendar does.'),
  fewSeenChance: limit(['unseen', 'fewChance'], 'Fewer than usual below', 'chance', share, 'Chance of seeing so few, were all there.'),
  laterMealDays: limit(['notEating', 'laterDays'], 'Not eating after a meal here', 'days', [0.1, 60], 'Days without another before a lot is listed.'),
  moveMealShare: limit(['notEating', 'moveShare'], 'First meal after a move', 'share', [0, 1], 'Of the species’ usual days after an arrival.'),
  mealLeastHours: limit(['notEating', 'leastH'], 'Not eating, at least', 'h', hours, 'No lot is listed sooner.'),
  walkMetresPerS: limit(['walk', 'metresPerS'], 'Walking', 'm/s', [0.1, 3], 'In a narrow room, looking.'),
  shelfSeconds: limit(['walk', 'shelfS'], 'Another shelf', 's', [0, 60], 'Up or down by one.'),
  washSeconds: limit(['walk', 'washS'], 'Washing hands', 's', [0, 600], 'Before other water or another zone.'),
  toolsSeconds: limit(['walk', 'toolsS'], 'Changing tools', 's', [0, 600], 'Before other water or another zone.'),
  tankSeconds: limit(['walk', 'tankS'], 'A look at a tank', 's', [1, 600], 'Splits a round between people.'),
  bayMetres: limit(['walk', 'bayM'], 'From tank to tank', 'm', [0.1, 5], 'Along a rack.'),
  aisleMetres: limit(['walk', 'aisleM'], 'From rack to rack', 'm', [0.1, 20], 'Where nobody placed them on the floor.'),
} as const

export type RoundLimitKey = keyof typeof roundLimits

/** The rules of the round with the house’s own numbers in them. */
export function rulesWith(limits: Readonly<Record<RoundLimitKey, number>>, rules: RoundRules = shippedRoundRules): RoundRules {
  const own = { species: { ...rules.species }, level: { ...rules.level }, unseen: { ...rules.unseen }, notEating: { ...rules.notEating }, walk: { ...rules.walk } }
  for (const [key, { path: [group, field] }] of Object.entries(roundLimits)) (own[group] as unknown as Record<string, number>)[field] = limits[key as RoundLimitKey]
  return { ...rules, ...own }
}
