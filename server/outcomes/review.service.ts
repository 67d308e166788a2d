import { anyKind } from '../../core/outcomes/kindsOfDeath'
import { likeness, type CrateLoss } from '../../core/outcomes/likeness'
import { deadBy } from '../../core/outcomes/lossRow'
import { moneyFigures, type MoneyClaim, type MoneyLine } from '../../core/outcomes/moneyFigures'
import { monthlyFigures, type FigureKey, type SheetAsked, type SheetFigure, type SheetRow } from '../../core/outcomes/monthlyFigures'
import { kindRowOf, strataOfLot, type Grouping, type OutcomeLot } from '../../core/outcomes/outcomeLot'
import { outcomesPage, type OutcomesQuestion, type OutcomesView } from '../../core/outcomes/outcomesPage'
import type { KeepSheet } from '../../core/outcomes/outcomes.schema'
import type { MoneyView, ReviewView } from '../../core/outcomes/outcomeViews'
import { certainties, type Certainty } from '../../core/outcomes/certaintyWords'
import { rankedOf } from '../../core/outcomes/usualLosses'
import { dayInZone } from '../../core/time/dayInZone'
import { addDays } from '../../core/time/daysBetween'
import { requireFreshPin, type CommandContext } from '../http/endpoint'
import { fieldProblem } from '../http/problem'
import { dayStartIn, morningIn } from '../room/dayStartIn'
import type { AlarmsService } from './alarms.service'
import { dayReader, type LossBooks, type LossBooksService } from './lossBooks'
import type { MoneyStore, PaidLine } from './money.store'
import type { ReviewStore } from './review.store'
import type { TrialsService } from './trials.service'

interface Collaborators {
  books: LossBooksService
  store: ReviewStore
  money: MoneyStore
  alarms: AlarmsService
  trials: TrialsService
  zone: () => string
}

/** Losses of so many days are those of the first days, in money. */
const [firstWeek, aliveDay] = [7, 14]
/** What a sentence says of a difference that was not there a month ago. */
const newWords = 'New this month'
/** A sheet goes back no further. */
const mostMonths = 36

const monthOf = (on: string): string => on.slice(0, 7)
const nextMonth = (month: string): string => monthOf(addDays(`${month}-28`, 7) ?? month)
const monthBefore = (month: string): string => monthOf(addDays(`${month}-01`, -1) ?? month)

/** What losses cost, and the sheet of a month. */
export function createReviewService({ books, store, money, alarms, trials, zone }: Collaborators) {
  const missingOf = ({ listed, alive, dead }: PaidLine): number => Math.max(0, listed - alive - dead)
  const claimedOf = (line: PaidLine): number => line.dead + missingOf(line) + line.wrong

  function moneyLines({ lots }: LossBooks, lines: readonly PaidLine[]): MoneyLine[] {
    const known = new Map(lots().map((lot) => [lot.lot, anyKind(kindRowOf(lot))]))
    return lines.map((line): MoneyLine => {
      const row = known.get(line.lotId)
      const [first, all, byDay] = row ? [deadBy(row, firstWeek), deadBy(row), deadBy(row, aliveDay)] : [0, 0, 0]
      return { supplier: line.supplier, billed: line.billed, priceEach: line.priceEach, deadInBag: line.dead, missing: missingOf(line), wrong: line.wrong, lostFirst: first, lostLater: all - first, alive: Math.max(0, (row?.n ?? line.alive) - byDay) }
    })
  }

  function claimsOn(lines: readonly PaidLine[]): (MoneyClaim & { crateId: string; sentAtMs: number | null; settledAtMs: number | null })[] {
    const amounts = new Map<string, { supplier: string; amount: number }>()
    for (const line of lines) amounts.set(line.crateId, { supplier: line.supplier, amount: (amounts.get(line.crateId)?.amount ?? 0) + claimedOf(line) * (line.priceEach ?? 0) })
    return money.claims().flatMap((claim) => {
      const known = amounts.get(claim.crateId)
      return known ? [{ ...claim, supplier: known.supplier, claimed: known.amount }] : []
    })
  }

  /** Looks that were due in a month, a day and tank each, and those that were made. */
  function looksOf(month: string, today: string): SheetAsked['looks'] {
    const [from, to] = [`${month}-01`, [`${nextMonth(month)}-01`, addDays(today, 1) ?? today].sort()[0] as string]
    const [fromMs, toMs] = [from, to].map((on) => dayStartIn(morningIn(on, zone()), zone())) as [number, number]
    const dayOf = dayReader(zone())
    const due = new Set<string>()
    for (const stay of money.stays(fromMs, toMs)) {
      const last = stay.untilMs === null ? (addDays(to, -1) ?? to) : dayOf(Math.min(stay.untilMs, toMs - 1))
      for (let on = dayOf(Math.max(stay.fromMs, fromMs)); on <= last; on = addDays(on, 1) ?? '9999') due.add(`${stay.tankId} ${on}`)
    }
    const done = new Set(money.looked(fromMs, toMs).map(({ tankId, atMs }) => `${tankId} ${dayOf(atMs)}`).filter((each) => due.has(each)))
    return { done: done.size, due: due.size }
  }

  function deathsOf(read: LossBooks, month: string, lines: readonly PaidLine[]): { deaths: Record<string, number>; lost: number; unpricedFish: number } {
    const prices = new Map(lines.map((line) => [line.lotId, line.priceEach]))
    const deaths: Record<string, number> = {}
    let [lost, unpricedFish] = [0, 0]
    const count = (pattern: string, fish: number, price: number | null | undefined): void => {
      deaths[pattern] = (deaths[pattern] ?? 0) + fish
      if (price == null) unpricedFish += fish
      else lost += fish * price
    }
    for (const { id, lotId, on, quantity } of read.losses) if (monthOf(on) === month) count(read.patterns().get(id) ?? 'other', quantity, prices.get(lotId))
    for (const { lot, opened, deadInBag } of read.risks.values()) if (monthOf(opened) === month && deadInBag > 0) count('in bag', deadInBag, prices.get(lot))
    return { deaths, lost, unpricedFish }
  }

  const sheetRow = (lot: OutcomeLot, read: LossBooks): SheetRow => ({ ...kindRowOf(lot), opened: lot.opened, received: lot.received, deadInBag: lot.deadInBag, strata: strataOfLot(lot, 'supplier', read.rules) })
  const isWord = (word: SheetFigure['word']): word is Certainty => (certainties as readonly string[]).includes(word)
  const wordsOf = (figures: readonly SheetFigure[]): SheetAsked['before'] => Object.fromEntries(figures.flatMap(({ key, word }): [FigureKey, Certainty][] => (isWord(word) ? [[key, word]] : [])))

  /** Words of every comparison of the pages that a lead looks at each month. */
  const comparisonsOf = (read: LossBooks): Certainty[] => (['supplier', 'school'] as const).flatMap((by) => pageOf(read, by).comparisons.map(({ word }) => word))

  /** Pages that stand behind a sheet, reckoned once for the lots they are of. */
  const pages = new WeakMap<readonly OutcomeLot[], Map<Grouping, OutcomesView>>()
  function pageOf(read: LossBooks, by: Grouping): OutcomesView {
    const lots = read.lots()
    const known = pages.get(lots) ?? new Map<Grouping, OutcomesView>()
    pages.set(lots, known)
    const question: OutcomesQuestion = { by, day: read.rules.mainDay, died: 'anything', supplier: null, species: null, origin: null, from: null, until: null, pair: null }
    const page = known.get(by) ?? outcomesPage({ lots, today: read.today, question, rules: read.rules })
    known.set(by, page)
    return page
  }

  function figuresOf(month: string, nowMs: number): SheetFigure[] {
    const read = books.at(nowMs)
    const lots = read.lots().map((lot) => sheetRow(lot, read))
    const lines = money.lines()
    const { deaths, lost, unpricedFish } = deathsOf(read, month, lines)
    const inMonth = (atMs: number | null): boolean => atMs !== null && monthOf(dayInZone(atMs, zone())) === month
    const asked = { month, today: read.today, lots, deaths, looks: looksOf(month, read.today), limits: read.rules }
    const rung = alarms.streams(nowMs).filter(({ alarm: { raisedOn } }) => raisedOn !== null && monthOf(raisedOn) === month)
    const answered = alarms.view(nowMs).answered.filter(({ on }) => monthOf(on) === month)
    const own = claimsOn(lines)
    const told: SheetAsked = {
      ...asked,
      alarms: { raised: rung.length + answered.length, standing: rung.length },
      comparisons: comparisonsOf(read),
      money: { lost, unpricedFish, claimed: own.filter(({ sentAtMs, state }) => state !== 'draft' && inMonth(sentAtMs)).reduce((sum, { claimed }) => sum + claimed, 0), settled: own.filter(({ settledAtMs }) => inMonth(settledAtMs)).reduce((sum, { settled }) => sum + (settled ?? 0), 0) },
      before: {},
    }
    const { figures } = monthlyFigures(told)
    const isNew = figures.some(({ sentence }) => sentence.includes(newWords))
    const before = isNew ? (store.kept(monthBefore(month))?.figures ?? sheetBefore(told)) : []
    return isNew ? monthlyFigures({ ...told, before: wordsOf(before) }).figures : figures
  }

  /** The sheet of a month ago as it would have been made then, where nobody kept it: its words are asked for only where something is new. */
  const sheetBefore = (told: SheetAsked): SheetFigure[] => monthlyFigures({ ...told, month: monthBefore(told.month), today: `${told.month}-01`, lots: told.lots.filter(({ opened }) => opened < `${told.month}-01`) }).figures

  function monthsOf({ today, risks }: LossBooks): string[] {
    const first = [...risks.values()].reduce((least, { opened }) => (opened < least ? opened : least), today)
    const months = [monthOf(today)]
    while (months.length < mostMonths && (months.at(-1) ?? '') > monthOf(first)) months.push(monthBefore(months.at(-1) ?? today))
    return months
  }

  /** Crates of suppliers with their losses, the fish of all their lots together. */
  function cratesOf({ lots, rules }: LossBooks): CrateLoss[] {
    const crates = new Map<string, CrateLoss>()
    for (const lot of lots()) {
      const { dead, of } = rankedOf(anyKind(kindRowOf(lot)), rules.mainDay)
      const known = crates.get(lot.crate) ?? { group: lot.supplier, crate: lot.crate, dead: 0, of: 0 }
      crates.set(lot.crate, { ...known, dead: known.dead + dead, of: known.of + of })
    }
    return [...crates.values()]
  }

  function view(asked: string | null, nowMs: number): ReviewView {
    const read = books.at(nowMs)
    const months = monthsOf(read)
    const month = months.find((each) => each === asked) ?? months[1] ?? months[0] ?? monthOf(read.today)
    const kept = store.kept(month)
    const trial = trials.newest(nowMs)
    const own = likeness({ rows: cratesOf(read), limits: read.rules })
    return {
      ...{ month, months, today: read.today, figures: figuresOf(month, nowMs), kept: kept && { by: kept.by, atMs: kept.atMs } },
      ranks: pageOf(read, 'supplier').ranking?.groups ?? [],
      alarms: alarms.view(nowMs),
      trial: trial && `Trial ${trial.number}, ${trial.schools[0]} against ${trial.schools[1]}: ${trial.sentence}`,
      likeness: { measured: own.icc, house: read.rules.icc, crates: own.crates },
      dispersion: { measured: alarms.measured(nowMs), house: read.rules.systemDispersion },
    }
  }

  return {
    money(nowMs: number): MoneyView {
      const lines = money.lines()
      return moneyFigures({ lines: moneyLines(books.at(nowMs), lines), claims: claimsOn(lines) })
    },
    view,
    /** Keeps the words of a sheet as they are now: next month's are held against them. */
    keep(context: CommandContext, { month }: KeepSheet) {
      requireFreshPin(context.actor)
      if (!monthsOf(books.at(context.nowMs)).includes(month)) throw fieldProblem('month', 'This month has no sheet')
      store.keep({ month, figures: figuresOf(month, context.nowMs), staffId: context.actor.id, commandKey: context.key, recordedAtMs: context.nowMs })
      return {}
    },
  }
}
export type ReviewService = ReturnType<typeof createReviewService>
