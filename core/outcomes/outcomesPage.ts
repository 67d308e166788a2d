import { groupBy } from '../collections/groupBy'
import { daysBetween } from '../time/daysBetween'
import { certaintyWords, type Certainty, type Said } from './certaintyWords'
import { compareSides, type Comparison, type GroupRows } from './compareGroups'
import { falseDiscovery } from './falseDiscovery'
import { judgedOf } from './judgedOf'
import { anyKind, kindsOfDeath, oneKind, type IncidenceRow, type KindRow } from './kindsOfDeath'
import { lossPatterns } from './lossPattern'
import type { LossRow } from './lossRow'
import { groupOfLot, kindRowOf, leftOutWords, strataOfLot, type Grouping, type OutcomeLot } from './outcomeLot'
import type { OutcomeRules } from './outcomeRules'
import { shrinkRank, type Ranking } from './shrinkRank'
import { curvePoints, survivalByCrate, type CurvePoint, type SurvivalRow } from './survivalByCrate'
import { samplesNeeded } from './trialLook'
import { rankedOf, usualLosses, usualShareBy } from './usualLosses'

/** What can count as death: any, or one pattern while all others went out of sight. */
export const diedOf = ['anything', 'late gasping', 'spots or film'] as const
export type DiedOf = (typeof diedOf)[number]

export interface OutcomesQuestion {
  by: Grouping
  day: number
  died: DiedOf
  supplier: string | null
  species: string | null
  origin: string | null
  /** Months of opening, as `2031-04`; null is open. */
  from: string | null
  until: string | null
  /** Two groups against each other; null each against the others. */
  pair: readonly [string, string] | null
}

export interface OutcomesAsked {
  lots: readonly OutcomeLot[]
  /** Calendar day in the room. */
  today: string
  question: OutcomesQuestion
  rules: OutcomeRules
}

export interface GroupShown {
  name: string
  lots: number
  crates: number
  fish: number
  deadInBag: number
  received: number
  /** Deaths to the day asked about. */
  dead: number
  corrected: number
  days: SurvivalRow[]
}

export interface CurveShown {
  name: string
  points: CurvePoint[]
  /** From this day on fewer than ten fish or two crates are left. */
  greyFrom: number | null
}

export interface ComparisonShown extends Said {
  a: string
  b: string
  comparison: Comparison
  p: number | null
  q: number | null
}

export interface OutcomesView {
  groups: GroupShown[]
  curves: CurveShown[]
  comparisons: ComparisonShown[]
  /** Tests that were made on this page; all of them count. */
  tests: number
  ranking: Ranking | null
  kinds: { pattern: string; dead: number; by14: IncidenceRow | null; by30: IncidenceRow | null }[]
  leftOut: { words: string; lots: number }[]
  /** What is worth saying first. */
  sentence: string
  /** Fish that left at a count: nobody knows of what. */
  corrected: number
}

/** Days that are told in figures, and the last day of a curve. */
export const daysShown = [1, 3, 7, 14, 30] as const
export const lastCurveDay = 30
const [mostCurves, fewFish, fewCrates] = [4, 10, 2]
export const theOthers = 'the others'

interface Grouped {
  lot: OutcomeLot
  group: string
  row: KindRow
}

/**
 * Everything the Outcomes screen shows of a question: curves, figures, comparisons with one family of tests, a ranking, and
 * what died of what. Source: docs/outcomes.md.
 */
export function outcomesPage({ lots, today, question, rules }: OutcomesAsked): OutcomesView {
  const asked = lots.filter((lot) => lot.n > 0 && isAsked(lot, question))
  const grouped = asked.flatMap((lot): Grouped[] => {
    const group = groupOfLot(lot, question.by, rules)
    return group === null ? [] : [{ lot, group, row: kindRowOf(lot) }]
  })
  const rows = grouped.map((each) => judgedRow(each, question, rules))
  const names = namesOf(grouped)
  const [lotsOf, rowsOf] = [groupBy(grouped, ({ group }) => group), groupBy(rows, ({ group = '' }) => group)]
  const { comparisons, tests } = comparisonsOf(rows, { names, rowsOf }, question, rules)
  const groups = names.map((name) => shownGroup(name, lotsOf.get(name) ?? [], rowsOf.get(name) ?? [], question.day, rules))
  return {
    groups,
    curves: (question.pair ?? names).slice(0, mostCurves).filter((name) => names.includes(name)).map((name) => curveOfGroup(name, rowsOf.get(name) ?? [], rules)),
    ...{ comparisons, tests },
    ranking: question.by === 'supplier' || question.by === 'species' ? rankingOf(grouped, rows, { lots, today, question, rules }) : null,
    kinds: kindsShown(grouped.map(({ row }) => row), rules),
    leftOut: leftOutOf(asked, question.by, rules),
    sentence: firstSentence(comparisons, groups),
    corrected: asked.reduce((sum, { corrected }) => sum + corrected, 0),
  }
}

/** Answers whether a lot is among those asked about. */
export function isAsked(lot: OutcomeLot, { supplier, species, origin, from, until }: Pick<OutcomesQuestion, 'supplier' | 'species' | 'origin' | 'from' | 'until'>): boolean {
  const month = lot.opened.slice(0, 7)
  return (supplier === null || lot.supplier === supplier) && (species === null || lot.species === species) && (origin === null || lot.origin === origin) && (from === null || month >= from) && (until === null || month <= until)
}

function judgedRow({ lot, group, row }: Grouped, { by, died }: OutcomesQuestion, rules: OutcomeRules): LossRow {
  const judged = { ...row, group, strata: strataOfLot(lot, by, rules) }
  return died === 'anything' ? anyKind(judged) : oneKind(judged, died)
}

/** Groups by how many crates speak for them. */
function namesOf(grouped: readonly Grouped[]): string[] {
  const crates = new Map<string, Set<string>>()
  for (const { group, lot } of grouped) crates.set(group, (crates.get(group) ?? new Set()).add(lot.crate))
  return [...crates].sort(([one, few], [other, many]) => many.size - few.size || (one < other ? -1 : 1)).map(([name]) => name)
}

function comparisonsOf(rows: readonly LossRow[], { names, rowsOf }: { names: readonly string[]; rowsOf: ReadonlyMap<string, readonly LossRow[]> }, { pair, day }: OutcomesQuestion, rules: OutcomeRules): { comparisons: ComparisonShown[]; tests: number } {
  const [first, second] = names
  const pairs: (readonly [string, string])[] = pair ? [pair] : names.length === 2 && first !== undefined && second !== undefined ? [[first, second]] : names.length < 2 ? [] : names.map((name) => [name, theOthers] as const)
  const sideOf = (name: string): GroupRows => ({ group: name, rows: rowsOf.get(name) ?? [] })
  const made = pairs.map(([a, b]) => ({ a, b, comparison: compareSides(sideOf(a), b === theOthers ? { group: b, rows: rows.filter(({ group }) => group !== a) } : sideOf(b), { day, limits: rules }) }))
  const { comparisons: tests, q } = falseDiscovery({ p: made.map(({ comparison }) => testedP(comparison, rules)) })
  const comparisons = made.map(({ a, b, comparison }, index): ComparisonShown => {
    const own = q[index] ?? null
    const judged = judgedOf(comparison, { q: own, comparisons: tests })
    return { a, b, comparison, p: judged.p ?? null, q: own, ...certaintyWords({ ...judged, a, b, basis: 'observed', settle: settleOf(comparison, rules), limits: rules }) }
  })
  return { comparisons: comparisons.sort((one, other) => sureness(other.word) - sureness(one.word)), tests }
}

/** What is too few to judge is no test, and takes no part in the family. */
function testedP(comparison: Comparison, { minCrates, minDeaths, leans }: OutcomeRules): number | null {
  const { crates, dead, test } = judgedOf(comparison, { q: null, comparisons: 0 })
  const isTooFew = Math.min(...crates) < minCrates || dead < minDeaths || test === null || 2 / test.arrangements > leans
  return isTooFew ? null : (comparison.test?.p ?? null)
}

/** Crates of each that would settle a difference that matters, at the losses of both groups; null where nobody can say. */
function settleOf({ a, b }: Comparison, { icc, marginShare }: OutcomeRules): number | null {
  const [fish, crates] = [a.fish + b.fish, a.crates + b.crates]
  if (crates === 0 || fish === 0) return null
  const loss = Math.min(1 - marginShare, (a.dead + b.dead) / fish)
  return samplesNeeded({ lossA: loss, lossB: loss + marginShare, fishPerCrate: fish / crates, icc }).cratesPerSchool
}

const order: readonly Certainty[] = ['clear', 'likely', 'leans to', 'about the same', 'cannot tell', 'cannot be separated', 'too few to tell']
const sureness = (word: Certainty): number => -order.indexOf(word)

function shownGroup(name: string, grouped: readonly Grouped[], rows: readonly LossRow[], day: number, rules: OutcomeRules): GroupShown {
  const at = [...new Set([...daysShown, day])].sort((one, other) => one - other)
  const { clusters, fish, rows: days } = survivalByCrate({ lots: rows, at, mean: 0, limits: rules })
  const sum = (of: (lot: OutcomeLot) => number): number => grouped.reduce((total, { lot }) => total + of(lot), 0)
  return { name, lots: grouped.length, crates: clusters, fish, deadInBag: sum((lot) => lot.deadInBag), received: sum((lot) => lot.received), dead: days.find((row) => row.day === day)?.dead ?? 0, corrected: sum((lot) => lot.corrected), days }
}

function curveOfGroup(name: string, rows: readonly LossRow[], rules: OutcomeRules): CurveShown {
  const points = curvePoints(rows, lastCurveDay, rules)
  return { name, points, greyFrom: points.find(({ atRisk, crates }) => atRisk < fewFish || crates < fewCrates)?.day ?? null }
}

/** Suppliers and species by their losses; a crate opened too lately to be followed to the day is left out. */
function rankingOf(grouped: readonly Grouped[], rows: readonly LossRow[], { lots, today, question: { by, day }, rules }: OutcomesAsked): Ranking | null {
  const usual = usualLosses(lots.map((lot) => ({ ...anyKind(kindRowOf(lot)), species: lot.species, opened: lot.opened })), today, rules)
  const crates = new Map<string, { group: string; crate: string; dead: number; of: number; expected: number }>()
  grouped.forEach(({ lot, group }, index) => {
    if (daysBetween(lot.opened, today) < day) return
    const { dead, of } = rankedOf(rows[index] as LossRow, day)
    const key = JSON.stringify([lot.crate, group])
    const known = crates.get(key) ?? { group, crate: lot.crate, dead: 0, of: 0, expected: 0 }
    crates.set(key, { ...known, dead: known.dead + dead, of: known.of + of, expected: known.expected + of * usualShareBy(day, lot.species, usual) })
  })
  if (crates.size === 0) return null
  // Species are ranked as they are: what is usual of a species is what one wants to see.
  return shrinkRank({ rows: [...crates.values()].map(({ expected, ...row }) => (by === 'supplier' ? { ...row, expected } : row)), limits: rules })
}

function kindsShown(rows: readonly KindRow[], rules: OutcomeRules): OutcomesView['kinds'] {
  const dead = new Map<string, number>()
  for (const { out } of rows) for (const exit of out) for (const [pattern, fish] of Object.entries(exit.dead)) dead.set(pattern, (dead.get(pattern) ?? 0) + fish)
  const patterns = lossPatterns.filter((pattern) => (dead.get(pattern) ?? 0) > 0)
  const { rows: shares } = kindsOfDeath({ lots: rows, outcomes: patterns, at: [14, 30], limits: rules })
  const at = (pattern: string, day: number): IncidenceRow | null => shares.find((row) => row.outcome === pattern && row.day === day) ?? null
  return patterns.map((pattern) => ({ pattern, dead: dead.get(pattern) ?? 0, by14: at(pattern, 14), by30: at(pattern, 30) })).sort((one, other) => other.dead - one.dead)
}

function leftOutOf(asked: readonly OutcomeLot[], by: Grouping, rules: OutcomeRules): OutcomesView['leftOut'] {
  const counts = new Map<string, number>()
  for (const lot of asked) {
    const words = leftOutWords(lot, by, rules)
    if (words !== null) counts.set(words, (counts.get(words) ?? 0) + 1)
  }
  return [...counts].map(([words, many]) => ({ words, lots: many }))
}

function firstSentence(comparisons: readonly ComparisonShown[], groups: readonly GroupShown[]): string {
  const [best] = comparisons
  if (best) return best.sentence
  const [only] = groups
  return only ? 'Nothing to compare: all of these fish are of one group.' : 'No lot of these has been opened yet.'
}

/** The lots behind a group of a question; or the lot of one code, whatever was asked. */
export function lotsBehind(lots: readonly OutcomeLot[], question: OutcomesQuestion, group: string | null, code: string | null, rules: OutcomeRules): OutcomeLot[] {
  if (code !== null) return lots.filter((each) => each.code === code)
  const behind = lots.filter((each) => each.n > 0 && isAsked(each, question) && (group === null ? leftOutWords(each, question.by, rules) !== null : groupOfLot(each, question.by, rules) === group))
  return behind.sort((one, other) => (one.opened < other.opened ? 1 : -1))
}
