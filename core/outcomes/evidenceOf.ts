import { mealAnswers, type Ate } from '../rounds/rounds.schema'
import type { Answer, Answers } from './causeHints'
import { isFed, signsOf, wastingHours } from './lossPattern'
import type { OutcomeRules } from './outcomeRules'

/** A lot that losses are about: how it came, and how its fish began. */
export interface EvidenceLot {
  /** Null for fish that came by no crate. */
  deadInBag: number | null
  transitHours: number | null
  /** Null where no bag of it was looked at. */
  isWeak: boolean | null
  /** The run its fish began in: its worst ratio to a house limit, and which limit; null without a run or a prediction. */
  run: { worst: number; binds: string; hasBinder: boolean } | null
}

export interface EvidenceLoss {
  /** Days since the opening of its lot; null where nobody knows it. */
  day: number | null
  hoursAgo: number
  cause: string | null
  fish: number
}

/** What is known around losses of one tank or lot in the last two weeks. */
export interface EvidenceAsked {
  lots: readonly EvidenceLot[]
  losses: readonly EvidenceLoss[]
  /** Signs in the tank, and looks at it, by hours ago. */
  signs: readonly { sign: string; hoursAgo: number }[]
  looks: readonly { ate: string; hoursAgo: number }[]
  /** Losses or grave signs within a week: of other lots in this tank, in other tanks on this water, of the same crate in other waters; null where there are none to look at. */
  otherLotsHere: boolean | null
  otherTanksHere: boolean | null
  sameCrateElsewhere: boolean | null
  /** Three species, or all of several lots, of this water lost fish within two days. */
  isAllAtOnce: boolean
  /** A reading of two days outside of the water's limits; null where nothing was read. */
  readingOff: boolean | null
  /** Fish added or a contact in the two weeks before the first death; moves of the three days before it. */
  newcomers: boolean | null
  movedLately: boolean | null
}

/** Limits of a run that are about ammonia; all others are steps. */
const aboutAmmonia = ['nh3', 'dose']

const said = (is: boolean | null): Answer => (is === null ? 'unknown' : is ? 'yes' : 'no')

/** Yes as soon as one is so; no only where all are known not to be. */
function anyOf<T>(all: readonly T[], is: (each: T) => boolean | null): Answer {
  const known = all.map(is)
  return known.includes(true) ? 'yes' : known.length === 0 || known.includes(null) ? 'unknown' : 'no'
}

/** Answers what speaks for and against each cause, unknown where nobody looked or measured. Source: docs/outcomes.md. */
export function evidenceOf(asked: EvidenceAsked, rules: OutcomeRules): Answers {
  const { lots, losses, looks } = asked
  const lost = losses.reduce((sum, { fish }) => sum + fish, 0)
  const half = (from: number, to: number): Answer => {
    if (lost === 0 || losses.every(({ day }) => day === null)) return 'unknown'
    return said(losses.reduce((sum, { day, fish }) => (day !== null && day >= from && day <= to ? sum + fish : sum), 0) >= lost / 2)
  }
  // Signs count that were seen in their time before the newest death, or since.
  const newest = losses.length === 0 ? 0 : Math.min(...losses.map(({ hoursAgo }) => hoursAgo))
  const seen = (hours: number, names: readonly string[]): Answer => {
    if (asked.signs.some(({ sign, hoursAgo }) => hoursAgo <= newest + hours && names.includes(sign))) return 'yes'
    return looks.some(({ hoursAgo }) => hoursAgo <= newest + hours) ? 'no' : 'unknown'
  }
  const meals = looks.filter(isFed).sort((one, other) => one.hoursAgo - other.hoursAgo)
  const last = meals.find(({ hoursAgo }) => hoursAgo <= rules.lookHours)
  return {
    deadInBag: anyOf(lots, ({ deadInBag }) => (deadInBag === null ? null : deadInBag > 0)),
    longTransit: anyOf(lots, ({ transitHours }) => (transitHours === null ? null : transitHours >= rules.transitLongH)),
    weakOnArrival: anyOf(lots, ({ isWeak }) => isWeak),
    ...{ early: half(0, rules.firstDays), late: half(rules.lateFrom, rules.lateTo) },
    stepOverLimit: anyOf(lots, ({ run }) => overLimit(run, (binds) => !aboutAmmonia.includes(binds))),
    ammoniaOverLimit: anyOf(lots, ({ run }) => (run?.hasBinder ? null : overLimit(run, (binds) => aboutAmmonia.includes(binds)))),
    gasping: seen(rules.lookHours, signsOf.gills),
    stillEating: last ? said(mealAnswers.includes(last.ate as Ate)) : 'unknown',
    notEating: meals.length === 0 ? 'unknown' : said(meals.length >= 3 && meals.slice(0, 3).every(({ ate }) => ate === 'none')),
    spots: seen(rules.signHours, signsOf.skin),
    wounds: seen(rules.signHours, signsOf.wounds),
    ...{ otherLotsHere: said(asked.otherLotsHere), otherTanksHere: said(asked.otherTanksHere), sameCrateElsewhere: said(asked.sameCrateElsewhere) },
    allAtOnce: lost === 0 ? 'unknown' : said(asked.isAllAtOnce),
    readingOff: said(asked.readingOff),
    noBody: lost === 0 ? 'unknown' : said(losses.some(({ cause }) => cause === 'not found' || cause === 'jumped' || cause === 'pump intake')),
    ...{ newcomers: said(asked.newcomers), movedLately: said(asked.movedLately) },
    thin: seen(wastingHours, signsOf.wasting),
  }
}

/** Where another limit binds, nobody knows whether this one was passed as well. */
function overLimit(run: EvidenceLot['run'], isIt: (binds: string) => boolean): boolean | null {
  if (run === null) return null
  return run.worst < 1 ? false : isIt(run.binds) ? true : null
}

/** What each piece of evidence says, as people read it. */
export const evidenceWords: Readonly<Record<string, string>> = {
  ...{ deadInBag: 'dead in the bag', longTransit: 'long under way', weakOnArrival: 'weak when they came', early: 'most deaths in the first days', late: 'most deaths on days 5 to 21', stepOverLimit: 'a step over a house limit when they began', ammoniaOverLimit: 'ammonia over a house limit when they began' },
  ...{ gasping: 'gasping or fast breathing', stillEating: 'still eating', notEating: 'ate nothing three times', spots: 'spots or film', wounds: 'wounds, frayed fins or chased', otherLotsHere: 'other lots of this tank', otherTanksHere: 'other tanks on this water', sameCrateElsewhere: 'fish of the same crate elsewhere' },
  ...{ allAtOnce: 'many kinds at once', readingOff: 'a reading outside of the water’s limits', noBody: 'no body, jumped or in the pump', newcomers: 'newcomers or a contact before it', movedLately: 'moved shortly before', thin: 'thin or stringy faeces' },
}
