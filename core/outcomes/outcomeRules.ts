/**
 * Everything in Outcomes that is judgement and no law of nature; a house may change each of them. Sources stand in
 * docs/outcomes.md and beside each limit in Setup.
 */
export interface OutcomeRules {
  /** How alike fish of one crate die: correlation of crate mates; and its weight in crates, in a band and in an estimate of it. */
  icc: number
  priorCrates: number
  iccPriorCrates: number
  /** A group of fewer crates, or two groups with fewer deaths, are too few to tell. */
  minCrates: number
  minDeaths: number
  /** q up to which a difference is clear, is likely, or leans to one side. */
  clear: number
  likely: number
  leans: number
  /** Share of fish that matters, and that counts against a mix. */
  marginShare: number
  mixShare: number
  /** Share of the fish that must have their like in the other group; of deaths that may be attributed; of a lot that is of one school. */
  comparableShare: number
  attributedShare: number
  oneSchoolShare: number
  mainDay: number
  /** Patterns of death: the first days, and from when until when a death is late. */
  firstDays: number
  lateFrom: number
  lateTo: number
  /** Hours for which a look, and a sign, is held against a death. */
  lookHours: number
  signHours: number
  /** Hours from packing to the first bag, at which its classes part. */
  transitShortH: number
  transitDayH: number
  transitLongH: number
  /** Alarms: share of the threshold from which a stream is watched; fish below which nothing is sudden. */
  watchShare: number
  suddenLeast: number
  systemRatio: number
  systemDispersion: number
  systemFalseAlarms: number
  crateRatio: number
  crateDispersion: number
  supplierFalseAlarms: number
  speciesFalseAlarms: number
  /** Weight of the table of hazards, in fish-days; of a species' factor, in deaths. */
  hazardWeight: number
  factorWeight: number
  /** Hints: likeness ratio that points to a cause, that fits one, by which it leads; and the largest that counts. */
  pointsTo: number
  fits: number
  lead: number
  hintCap: number
  /** Trials: crates in a part of the schedule, looks taken, share lost that pauses one. */
  trialPart: number
  trialLooks: number
  pauseShare: number
}

export const shippedOutcomes: OutcomeRules = {
  ...{ icc: 0.1, priorCrates: 4, iccPriorCrates: 10, minCrates: 3, minDeaths: 5, clear: 0.01, likely: 0.05, leans: 0.2, marginShare: 0.05, mixShare: 0.02 },
  ...{ comparableShare: 0.5, attributedShare: 0.2, oneSchoolShare: 0.9, mainDay: 14, firstDays: 3, lateFrom: 5, lateTo: 21, lookHours: 72, signHours: 168 },
  ...{ transitShortH: 2, transitDayH: 8, transitLongH: 30, watchShare: 0.6, suddenLeast: 3 },
  ...{ systemRatio: 3, systemDispersion: 1.5, systemFalseAlarms: 4, crateRatio: 2, crateDispersion: 3, supplierFalseAlarms: 1, speciesFalseAlarms: 2 },
  ...{ hazardWeight: 2000, factorWeight: 5, pointsTo: 8, fits: 2, lead: 2, hintCap: 20, trialPart: 4, trialLooks: 3, pauseShare: 0.3 },
}

/** The rules with some of them said otherwise; what is not said holds as it is shipped. */
export const outcomeRules = (said: Partial<OutcomeRules> = {}): OutcomeRules => ({ ...shippedOutcomes, ...said })
/** Figures this near count as one: shares of fish are fractions, and sums of them leave dust. */
export const dust = 1e-9
