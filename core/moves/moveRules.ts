/** How grave a reason of the move check is. *impossible* is what the books cannot do; from *lead* on a lead has to say why. */
export const moveLevels = ['impossible', 'lead', 'warn', 'note'] as const
export type MoveLevel = (typeof moveLevels)[number]

/** Whether two sources that have not passed a pairing may meet. */
export const sourcesRules = ['lead', 'warn', 'off'] as const
export type SourcesRule = (typeof sourcesRules)[number]

/**
 * The numbers behind contacts, moves, catching and introductions: house guidance where nothing else is said. A house
 * changes single ones by one JSON object in Setup (docs/moves.md).
 */
export const shippedMoveRules = {
  traceBackDays: 28,
  traceBeforeDays: 14,
  traceHops: 2,
  /** Sources that stood together for so long have met; usual in the trade are weeks. */
  metDays: 28,
  sourcesRule: 'lead' as SourcesRule,
  movedLatelyHours: 48,
  fightHalfLifeDays: 60,
  fightWarn: 0.5,
  /** Newcomers below this share of a resident's length are left alone: usual in the trade, the number ours. */
  juvenileShare: 0.5,
  moveLooks: [60, 1440],
  dominantLooks: [120, 1440, 4320],
  vesselLeastMinutes: 15,
  vesselFillShare: 0.8,
  liftsPerDay: 5,
  catchSure: 0.7,
  catchSpoilt: 0.5,
  catchBase: { net: 0.6, cup: 0.45, bag: 0.4 },
  catchMost: { net: 10, cup: 1, bag: 2 },
  fearPerLift: 0.75,
  catchLeast: 0.02,
  catchBest: 0.9,
  catchTall: 0.8,
  tallCm: 50,
  catchRounded: 0.85,
  catchSomeDecor: 0.9,
  catchHeavyDecor: 0.6,
  catchWary: 0.75,
  catchFineMesh: 0.85,
  catchChosen: 0.85,
  catchSchool: 1.1,
  schoolFrom: 6,
  catchHiddenLeast: 0.3,
  catchDaysMost: 9,
  cupMostCm: 12,
  fineBelowCm: 2.5,
  mediumBelowCm: 6,
  holesBelowCm: 3,
  netLeastCm: 10,
  netPerLength: 3,
  netMostOfTank: 0.8,
  dominantShare: 0.85,
  subdominantShare: 0.5,
  introMostOut: 4,
  /** A big change is usual in the trade. */
  introChangeShare: 0.4,
  changeLPerMin: 6,
  fillMinutes: 5,
  perFishMinutes: 5,
  rearrangeMinutes: 15,
  settleMinutes: 30,
  subSettleMinutes: 15,
  introLooks: [15, 120, 1440, 2880, 4320],
  mirrorMinutes: 120,
  dividerDays: 3,
  introCalmHours: 72,
  introLooksApartHours: 12,
  introMostBoxes: 2,
  introMostDays: 14,
  /** How fast fish grow towards their full length where nobody measured twice: share of what is missing, per day. */
  growthPerDay: 0.006,
  growthMostPerDay: 0.03,
  /** Two lengths so far apart tell the growth of a lot. */
  sizeFitDays: 14,
  /** A reading that is older says nothing to a plan. */
  planReadingHours: 48,
  /** Weight by length, g/cm³: the condition factor 100 W/L³ is commonly 1 to 2; very thin and very deep fish lie outside. */
  gramsPerCm3: 0.015,
  /** Levels of single reasons as a house wants them, *off* included; hard ones never change. */
  levels: {} as Readonly<Record<string, 'note' | 'warn' | 'lead' | 'off'>>,
} as const

type Widened<Value> = Value extends number ? number : Value extends readonly number[] ? readonly number[] : Value extends Record<string, number> ? { readonly [Key in keyof Value]: number } : Value
export type MoveRules = { readonly [Key in keyof typeof shippedMoveRules]: Widened<(typeof shippedMoveRules)[Key]> }
