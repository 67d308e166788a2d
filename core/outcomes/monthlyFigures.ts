import { daysBetween } from '../time/daysBetween'
import { monthName } from '../time/monthName'
import { plural } from '../words/plural'
import { certaintyWords, type Certainty } from './certaintyWords'
import { compareGroups, type Comparison } from './compareGroups'
import { falseDiscovery } from './falseDiscovery'
import { judgedOf } from './judgedOf'
import { anyKind, kindsOfDeath, type KindRow } from './kindsOfDeath'
import type { LossRow } from './lossRow'
import { outcomeRules, type OutcomeRules } from './outcomeRules'

/** A lot as the monthly sheet needs it: when it was opened, how many came, what its fish died of. */
export interface SheetRow extends KindRow {
  opened: string
  received: number
  deadInBag: number
}

/** Figures of the sheet, in their fixed order: nothing left out, nothing added. */
export const figureKeys = ['crates', 'inBag', 'day7', 'day14', 'day30', 'late', 'lost', 'looked', 'alarms', 'comparisons', 'money'] as const
export type FigureKey = (typeof figureKeys)[number]

export interface SheetFigure {
  key: FigureKey
  /** The month whose crates it is of, as `2031-04`. */
  cohort: string
  value: number | null
  low: number | null
  high: number | null
  crates: number | null
  word: Certainty | 'counted' | 'measured'
  sentence: string
}

export interface SheetAsked {
  /** The month of the sheet, as `2031-05`. */
  month: string
  today: string
  lots: readonly SheetRow[]
  /** Fish lost in the month, by pattern. */
  deaths: Readonly<Record<string, number>>
  looks: { done: number; due: number }
  alarms: { raised: number; standing: number }
  /** Words of every comparison that was made. */
  comparisons: readonly Certainty[]
  money: { lost: number; claimed: number; settled: number; unpricedFish: number }
  /** Words of the sheet of a month ago, by figure. */
  before: Readonly<Partial<Record<FigureKey, Certainty>>>
  seed?: number
  limits?: Partial<OutcomeRules>
}

const shares = [
  { key: 'inBag', day: 0 },
  { key: 'day7', day: 7 },
  { key: 'day14', day: 14 },
  { key: 'day30', day: 30 },
] as const satisfies { key: FigureKey; day: number }[]

/** The sheet of a month: every figure with how sure it is. Source: docs/outcomes.md. */
export function monthlyFigures(asked: SheetAsked): { figures: SheetFigure[] } {
  const rules = outcomeRules(asked.limits)
  const compared = shares.map(({ key, day }) => comparedShare(asked, key, day, rules))
  const { comparisons, q } = falseDiscovery({ p: compared.map(({ comparison }) => testedP(comparison, rules)) })
  const told = compared.map((each, index) => shareFigure(asked, each, { comparisons, q: q[index] ?? null }, rules))
  return { figures: [cratesFigure(asked), ...told, lateFigure(asked, rules), lostFigure(asked), lookedFigure(asked), alarmsFigure(asked), comparisonsFigure(asked), moneyFigure(asked)] }
}

/** Too few crates are no test. */
const testedP = ({ a, b, test }: Comparison, { minCrates }: OutcomeRules): number | null => (Math.min(a.crates, b.crates) < minCrates ? null : (test?.p ?? null))

/** A share of fish as a sheet says it. */
export const percent = (share: number): string => `${(100 * share).toFixed(1)} %`
const monthOf = (on: string): string => on.slice(0, 7)
function monthsBefore(month: string, months: number): string {
  const count = Number(month.slice(0, 4)) * 12 + Number(month.slice(5, 7)) - 1 - months
  return `${String(Math.floor(count / 12)).padStart(4, '0')}-${String((count % 12) + 1).padStart(2, '0')}`
}
const lastDayOfMonth = (month: string): string => new Date(Date.UTC(Number(month.slice(0, 4)), Number(month.slice(5, 7)), 0)).toISOString().slice(0, 10)

/** The latest month, not after the sheet's, all of whose crates can have been followed to a day. */
function cohortOf({ month, today }: SheetAsked, day: number): string {
  let cohort = month
  while (daysBetween(lastDayOfMonth(cohort), today) < day) cohort = monthsBefore(cohort, 1)
  return cohort
}

interface ComparedShare {
  key: (typeof shares)[number]['key']
  cohort: string
  comparison: Comparison
  names: readonly [string, string]
}

function comparedShare(asked: SheetAsked, key: ComparedShare['key'], day: number, rules: OutcomeRules): ComparedShare {
  const cohort = key === 'inBag' ? asked.month : cohortOf(asked, day)
  const names = [`the crates of ${monthName(cohort)}`, 'those of the 12 months before'] as const
  const first = monthsBefore(cohort, 12)
  const lots = asked.lots.flatMap((row): LossRow[] => {
    const month = monthOf(row.opened)
    const group = month === cohort ? names[0] : month >= first && month < cohort ? names[1] : undefined
    return group === undefined ? [] : [{ ...(key === 'inBag' ? inBagRow(row) : anyKind(row)), group }]
  })
  return { key, cohort, names, comparison: compareGroups({ lots, a: names[0], b: names[1], day, limits: rules, ...(asked.seed === undefined ? {} : { seed: asked.seed }) }) }
}

/** What was dead when the bags were opened, as a row of its own: the rest goes out of sight. */
const inBagRow = ({ crate, received, deadInBag, strata }: SheetRow): LossRow => ({ crate, n: received, out: [{ day: 0, dead: deadInBag, gone: received - deadInBag }], ...(strata ? { strata } : {}) })

function shareFigure({ before }: SheetAsked, { key, cohort, comparison, names }: ComparedShare, { comparisons, q }: { comparisons: number; q: number | null }, rules: OutcomeRules): SheetFigure {
  const { survival, low, high, crates, fish } = comparison.a
  if (fish === 0 || survival === null || low === null || high === null) return { key, cohort, value: null, low: null, high: null, crates, word: 'too few to tell', sentence: `No crate of ${monthName(cohort)} to follow.` }
  const said = certaintyWords({ ...judgedOf(comparison, { q, comparisons }), a: names[0], b: names[1], basis: 'observed', before: before[key] ?? null, limits: rules })
  const [value, from, to, what] = key === 'inBag' ? [1 - survival, 1 - high, 1 - low, 'dead in the bag'] : [survival, low, high, `alive on day ${comparison.day}`]
  return { key, cohort, value, low: from, high: to, crates, word: said.word, sentence: `${monthName(cohort)}: ${percent(value)} ${what} (${percent(from)} to ${percent(to)}), ${plural(crates, 'crate')}. ${said.sentence}` }
}

function lateFigure(asked: SheetAsked, rules: OutcomeRules): SheetFigure {
  const { lateFrom, lateTo, minCrates } = rules
  const cohort = cohortOf(asked, lateTo)
  const lots = asked.lots.filter(({ opened }) => monthOf(opened) === cohort)
  const { clusters, rows } = kindsOfDeath({ lots, outcomes: ['late gasping'], at: [lateTo], from: lateFrom, limits: rules })
  const { incidence = null, low = null, high = null } = rows[0] ?? {}
  if (incidence === null || low === null || high === null) return { key: 'late', cohort, value: null, low: null, high: null, crates: clusters, word: 'too few to tell', sentence: `No crate of ${monthName(cohort)} to follow.` }
  const sentence = `${monthName(cohort)}: of fish alive on day ${lateFrom}, ${percent(incidence)} died gasping, eating and without spots by day ${lateTo} (${percent(low)} to ${percent(high)}). Chemical or parasites: the record cannot tell.`
  return { key: 'late', cohort, value: incidence, low, high, crates: clusters, word: clusters < minCrates ? 'too few to tell' : 'measured', sentence }
}

const counted = (key: FigureKey, { month }: SheetAsked, value: number | null, sentence: string): SheetFigure => ({ key, cohort: month, value, low: null, high: null, crates: null, word: 'counted', sentence })

function cratesFigure(asked: SheetAsked): SheetFigure {
  const came = asked.lots.filter(({ opened }) => monthOf(opened) === asked.month)
  const crates = new Set(came.map(({ crate }) => crate)).size
  return counted('crates', asked, crates, `${plural(crates, 'crate')} with ${came.reduce((sum, { received }) => sum + received, 0)} fish came in ${monthName(asked.month)}.`)
}

/** Numbers of fish as people say them: whole, but for parts of deaths that were attributed. */
const fishOf = (fish: number): number => Math.round(fish * 10) / 10

function lostFigure(asked: SheetAsked): SheetFigure {
  const kinds = Object.entries(asked.deaths).filter(([, fish]) => fish > 0).sort(([one, few], [other, many]) => many - few || (one < other ? -1 : 1))
  const lost = kinds.reduce((sum, [, fish]) => sum + fish, 0)
  const month = monthName(asked.month)
  return counted('lost', asked, lost, lost === 0 ? `No fish lost in ${month}.` : `${fishOf(lost)} lost in ${month}: ${kinds.map(([kind, fish]) => `${fishOf(fish)} ${kind}`).join(', ')}.`)
}

function lookedFigure(asked: SheetAsked): SheetFigure {
  const { done, due } = asked.looks
  return counted('looked', asked, due === 0 ? null : done / due, due === 0 ? 'No look was due.' : `${done} of ${due} looks at tanks were made (${percent(done / due)}).`)
}

function alarmsFigure(asked: SheetAsked): SheetFigure {
  const { raised, standing } = asked.alarms
  return counted('alarms', asked, raised, `${plural(raised, 'alarm')}, ${standing} still on.`)
}

function comparisonsFigure(asked: SheetAsked): SheetFigure {
  const made = asked.comparisons.length
  const found = (['leans to', 'likely', 'clear'] as const).map((word) => ({ word, many: asked.comparisons.filter((each) => each === word).length })).filter(({ many }) => many > 0)
  const words = found.length === 0 ? 'none says more than chance' : found.map(({ word, many }) => `${many} ${word}`).join(', ')
  return counted('comparisons', asked, made, made === 0 ? 'No comparison was made.' : `${plural(made, 'comparison')} made: ${words}.`)
}

function moneyFigure(asked: SheetAsked): SheetFigure {
  const { lost, claimed, settled, unpricedFish } = asked.money
  const unpriced = unpricedFish > 0 ? `; ${fishOf(unpricedFish)} lost fish have no price` : ''
  return counted('money', asked, lost, `Lost ${lost.toFixed(2)}, claimed ${claimed.toFixed(2)}, settled ${settled.toFixed(2)}${unpriced}.`)
}
