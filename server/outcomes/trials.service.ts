import { schools as tradeSchools } from '../../core/acclimation/schools'
import { certaintyWords } from '../../core/outcomes/certaintyWords'
import { compareGroups } from '../../core/outcomes/compareGroups'
import { designSchedule, schoolOfTheDay } from '../../core/outcomes/designSchedule'
import { judgedOf } from '../../core/outcomes/judgedOf'
import { anyKind } from '../../core/outcomes/kindsOfDeath'
import { deadBy, type LossRow } from '../../core/outcomes/lossRow'
import { kindRowOf, mixedSchools, strataOfLot, type OutcomeLot } from '../../core/outcomes/outcomeLot'
import type { AnswerPause, EndTrial, StartTrial, TakePart } from '../../core/outcomes/outcomes.schema'
import type { TrialCrateView, TrialOfCrate, TrialProposal, TrialsView, TrialView } from '../../core/outcomes/outcomeViews'
import { samplesNeeded, trialLook, type TrialLook } from '../../core/outcomes/trialLook'
import { daysBetween } from '../../core/time/daysBetween'
import { plural } from '../../core/words/plural'
import { requireFreshPin, type CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import { newId } from '../newId'
import type { LossBooksService } from './lossBooks'
import type { TrialCrateRow, TrialRow, TrialsStore } from './trials.store'

/** Losses within so many days pause a trial. */
const pauseDays = 3
const [ratesDays, mostWeeks] = [180, 104]

interface Collaborators {
  books: LossBooksService
  store: TrialsStore
}

/** Two schools shared out over crates by a schedule that was drawn once: its crates, its looks, its end. */
export function createTrialsService({ books, store }: Collaborators) {
  function required(id: string | undefined): TrialRow {
    const row = store.one(id ?? '')
    if (!row) throw new Problem('not-found', 'There is no such trial')
    return row
  }
  const open = (id: string | undefined): TrialRow => {
    const row = required(id)
    if (row.endedAtMs !== null) throw new Problem('conflict', `This trial has ended: ${row.endedBecause ?? ''}`)
    return row
  }

  /** Lots of the crates of a trial, under the school that each was given. */
  function rowsOf(row: TrialRow, nowMs: number): { crates: TrialCrateRow[]; lots: { lot: OutcomeLot; place: TrialCrateRow }[]; today: string } {
    const { today, lots } = books.at(nowMs)
    const crates = store.crates(row.id)
    const places = new Map(crates.map((place) => [place.crateId, place]))
    return { crates, today, lots: lots().flatMap((lot) => (lot.crateId !== null && places.has(lot.crateId) && lot.n > 0 ? [{ lot, place: places.get(lot.crateId) as TrialCrateRow }] : [])) }
  }

  const isFollowed = (opened: string, today: string, day: number): boolean => daysBetween(opened, today) >= day

  function stateOf(row: TrialRow, nowMs: number): { told: TrialLook; rows: ReturnType<typeof rowsOf>; done: [number, number]; worst: { crateId: string; number: string; lostShare: number } | null } {
    const rows = rowsOf(row, nowMs)
    const { rules } = books.at(nowMs)
    const followed = rows.lots.filter(({ lot }) => isFollowed(lot.opened, rows.today, row.day))
    const count = (school: string): number => new Set(followed.filter(({ place }) => place.school === school).map(({ place }) => place.crateId)).size
    const done: [number, number] = [count(row.schoolA), count(row.schoolB)]
    const looks = store.looks(row.id)
    const worst = worstCrate(rows.lots, new Set(looks.flatMap(({ crateId }) => crateId ?? [])))
    const asked = { schools: [row.schoolA, row.schoolB] as const, cratesPerSchool: row.cratesPerSchool, looks: row.looks, day: row.day, done, looksTaken: Math.max(0, ...looks.map(({ look }) => look ?? 0)), worst: worst && { crate: worst.number, lostShare: worst.lostShare }, limits: rules }
    const before = trialLook({ ...asked, p: null, difference: null, low: null, high: null })
    if (before.look === null) return { told: before, rows, done, worst }
    const compared = compareGroups({ lots: followed.map(({ lot, place }) => trialRow(lot, place.school, place.block)), a: row.schoolA, b: row.schoolB, day: row.day, limits: rules })
    const judged = judgedOf(compared, { q: null, comparisons: 1 })
    return { told: trialLook({ ...asked, p: judged.p ?? null, difference: judged.difference, low: judged.low, high: judged.high }), rows, done, worst }
  }

  function view(row: TrialRow, nowMs: number): TrialView {
    const { told, rows, done, worst } = stateOf(row, nowMs)
    const taken = store.looks(row.id).map(({ look, sentence, by, recordedAtMs }) => ({ look, sentence, by, atMs: recordedAtMs }))
    const state = row.endedAtMs !== null ? 'ended' : told.decision === 'pause' ? 'paused' : told.look !== null ? 'look due' : 'running'
    return {
      ...{ id: row.id, number: row.number, schools: [row.schoolA, row.schoolB], day: row.day, cratesPerSchool: row.cratesPerSchool, looks: row.looks, taken, note: row.note, startedAtMs: row.startedAtMs, done, state },
      blocks: row.schedule.map(({ block, order }) => ({ block, used: rows.crates.filter((place) => place.block === block).length, of: order.length })),
      crates: cratesShown(row, rows),
      // What a look found is told once a lead has taken it, not before.
      sentence: state === 'ended' ? (row.endedBecause ?? '') : state === 'look due' ? `Look ${told.look} of ${row.looks} is due: ${done[0]} and ${done[1]} of ${row.cratesPerSchool} crates followed to day ${row.day}.` : told.sentence,
      pausedBy: state === 'paused' ? (worst?.crateId ?? null) : null,
      asDone: state === 'ended' ? asDoneWords(row, rows, nowMs) : null,
    }
  }

  function cratesShown(row: TrialRow, { crates, lots, today }: ReturnType<typeof rowsOf>): TrialCrateView[] {
    return crates.map((place): TrialCrateView => {
      const own = lots.filter(({ lot }) => lot.crateId === place.crateId).map(({ lot }) => lot)
      const [first] = own
      const schools = [...new Set(own.map(({ school }) => plainName(school)))]
      return { crateId: place.crateId, number: store.supplierOf(place.crateId)?.number ?? 0, block: place.block, school: place.school, asDone: schools.length === 1 ? (schools[0] ?? null) : schools.length > 1 ? mixedSchools : null, isFollowed: first !== undefined && isFollowed(first.opened, today, row.day), fish: own.reduce((sum, { n }) => sum + n, 0) }
    })
  }

  /** The second figure: the same fish by the school they really began in. */
  function asDoneWords(row: TrialRow, { lots, today }: ReturnType<typeof rowsOf>, nowMs: number): string {
    const { rules } = books.at(nowMs)
    const followed = lots.filter(({ lot }) => isFollowed(lot.opened, today, row.day))
    const compared = compareGroups({ lots: followed.map(({ lot, place }) => trialRow(lot, plainName(lot.school) ?? '', place.block)), a: row.schoolA, b: row.schoolB, day: row.day, limits: rules })
    return certaintyWords({ ...judgedOf(compared, { q: compared.test?.p ?? null, comparisons: 1 }), a: row.schoolA, b: row.schoolB, basis: 'designed', limits: rules }).sentence
  }

  /** Two schools that most crates began in and nobody can tell apart. */
  function proposal(nowMs: number): TrialProposal | null {
    const { lots, rules } = books.at(nowMs)
    const crates = new Map<string, Set<string>>()
    for (const { school, crate } of lots()) if (school !== null && school !== mixedSchools) crates.set(school, (crates.get(school) ?? new Set()).add(crate))
    const [a, b] = [...crates].sort(([one, few], [other, many]) => many.size - few.size || (one < other ? -1 : 1)).map(([name]) => name)
    if (a === undefined || b === undefined || store.running().length > 0) return null
    const comparison = compareGroups({ lots: lots().flatMap((lot): LossRow[] => (lot.school === a || lot.school === b ? [{ ...anyKind(kindRowOf(lot)), group: lot.school, strata: strataOfLot(lot, 'school', rules) }] : [])), a, b, day: rules.mainDay, limits: rules })
    const said = certaintyWords({ ...judgedOf(comparison, { q: comparison.test?.p ?? null, comparisons: 1 }), a, b, basis: 'observed', limits: rules })
    return said.word === 'cannot tell' || said.word === 'leans to' ? { schools: [a, b], words: said.sentence } : null
  }

  function ratesOf(nowMs: number): TrialsView['suppliers'] {
    const { lots, today } = books.at(nowMs)
    const suppliers = new Map<string, { crates: Set<string>; fish: number }>()
    for (const { supplier, crateId, n, opened } of lots()) {
      if (crateId === null || daysBetween(opened, today) > ratesDays) continue
      const known = suppliers.get(supplier) ?? { crates: new Set<string>(), fish: 0 }
      known.crates.add(crateId)
      suppliers.set(supplier, { crates: known.crates, fish: known.fish + n })
    }
    return [...suppliers].map(([name, { crates, fish }]) => ({ name, cratesPerWeek: (7 * crates.size) / ratesDays, fishPerCrate: fish / crates.size })).sort((one, other) => (one.name < other.name ? -1 : 1))
  }

  const by = ({ actor, key, nowMs }: CommandContext) => ({ staffId: actor.id, commandKey: key, recordedAtMs: nowMs })

  return {
    list: (nowMs: number): TrialsView => ({ trials: store.all().map((row) => view(row, nowMs)), proposal: proposal(nowMs), schools: [...new Set([...tradeSchools.map(({ name }) => name), ...store.schoolNames()])].sort(), suppliers: ratesOf(nowMs), icc: books.at(nowMs).rules.icc }),

    newest(nowMs: number): TrialView | null {
      const [row] = store.all()
      return row ? view(row, nowMs) : null
    },

    /** What running trials say of a crate. */
    ofCrate(crateId: string, nowMs: number): { trial: TrialOfCrate | null } {
      const crate = store.supplierOf(crateId)
      for (const row of store.running()) {
        const own = row.schedule.find(({ block }) => block === crate?.supplier)
        if (!own) continue
        const place = store.crate(row.id, crateId)
        const used = store.crates(row.id).filter(({ block }) => block === own.block).length
        const paused = place === null && stateOf(row, nowMs).told.decision === 'pause'
        return { trial: { trialId: row.id, number: row.number, schools: [row.schoolA, row.schoolB], block: own.block, school: place?.school ?? null, next: place || paused ? null : (own.order[used] ?? null), whyNot: place ? null : paused ? 'the trial is paused' : own.order[used] === undefined ? 'the schedule is used up' : null } }
      }
      return { trial: null }
    },

    start(context: CommandContext, input: StartTrial) {
      requireFreshPin(context.actor)
      const { rules } = books.at(context.nowMs)
      if (input.schoolA === input.schoolB) throw fieldProblem('schoolB', 'Two different schools are compared')
      if (input.lossPercentA === input.lossPercentB) throw fieldProblem('lossPercentB', 'Equal losses need no trial: say which difference would matter')
      if (store.running().length > 0) throw new Problem('conflict', 'A trial runs already: end it first')
      const rates = ratesOf(context.nowMs).filter(({ name }) => input.suppliers.includes(name))
      const missing = input.suppliers.find((name) => !rates.some((rate) => rate.name === name))
      if (missing !== undefined) throw fieldProblem('suppliers', `Nothing of ${missing} was opened in the last half year: how large its crates are nobody knows`)
      const perWeek = rates.reduce((sum, { cratesPerWeek }) => sum + cratesPerWeek, 0)
      const fishPerCrate = rates.reduce((sum, rate) => sum + rate.fishPerCrate * rate.cratesPerWeek, 0) / perWeek
      const { cratesPerSchool, weeks } = samplesNeeded({ lossA: input.lossPercentA / 100, lossB: input.lossPercentB / 100, fishPerCrate, icc: rules.icc, looks: input.looks, cratesPerWeek: perWeek })
      if (cratesPerSchool === null || weeks === null || weeks > mostWeeks) throw fieldProblem('lossPercentB', `This asks for ${plural(cratesPerSchool ?? 0, 'crate')} of each school, more than two years: a trial that long is not begun`)
      const perBlock = Math.ceil((2 * cratesPerSchool) / rules.trialPart) * rules.trialPart
      const seed = context.nowMs % 2 ** 31
      const schools = [input.schoolA, input.schoolB] as const
      const id = newId()
      store.insert({ id, number: store.nextNumber(), schoolA: schools[0], schoolB: schools[1], day: input.day, cratesPerSchool, looks: input.looks, lossA: input.lossPercentA / 100, lossB: input.lossPercentB / 100, seed, schedule: designSchedule({ schools, blocks: input.suppliers, perBlock, blockSize: rules.trialPart, seed }).order, note: input.note, startedAtMs: context.nowMs, ...by(context) })
      return { id, cratesPerSchool, weeks }
    },

    /** A crate takes its place: the school is that of the schedule, whoever would rather have another. */
    takePart(context: CommandContext, { crateId, worstA, worstB, hasBinder }: TakePart) {
      const row = open(context.params.trialId)
      const crate = store.supplierOf(crateId)
      if (!crate) throw new Problem('not-found', 'There is no such crate')
      const before = store.crate(row.id, crateId)
      if (before) return { school: before.school }
      if (stateOf(row, context.nowMs).told.decision === 'pause') throw new Problem('conflict', 'This trial is paused: a lead decides first')
      const used = store.crates(row.id).filter(({ block }) => block === crate.supplier).length
      const { school, why } = schoolOfTheDay({ schedule: row.schedule, block: crate.supplier, used, schools: [row.schoolA, row.schoolB], worst: { [row.schoolA]: worstA, [row.schoolB]: worstB }, hasBinder })
      if (school === null) throw new Problem('conflict', `This crate does not take part: ${why}`)
      store.insertCrate({ trialId: row.id, crateId, block: crate.supplier, place: used, school, ...by(context) })
      return { school }
    },

    /** Takes the look that is due; what it finds may end the trial. */
    takeLook(context: CommandContext) {
      requireFreshPin(context.actor)
      const row = open(context.params.trialId)
      const { told } = stateOf(row, context.nowMs)
      if (told.look === null) throw new Problem('conflict', told.sentence)
      store.insertLook({ id: newId(), trialId: row.id, look: told.look, crateId: null, decision: told.decision, finding: told.finding, sentence: told.sentence, ...by(context) })
      if (told.decision === 'stop') store.end(row.id, { endedAtMs: context.nowMs, endedById: context.actor.id, endedBecause: told.sentence })
      return { sentence: told.sentence }
    },

    answerPause(context: CommandContext, { crateId, words }: AnswerPause) {
      requireFreshPin(context.actor)
      const row = open(context.params.trialId)
      const { told, worst } = stateOf(row, context.nowMs)
      if (told.decision !== 'pause' || worst?.crateId !== crateId) throw new Problem('conflict', 'This crate pauses nothing')
      store.insertLook({ id: newId(), trialId: row.id, look: null, crateId, decision: 'go on', finding: null, sentence: `${told.sentence} It goes on: ${words}`, ...by(context) })
      return {}
    },

    end(context: CommandContext, { because }: EndTrial) {
      requireFreshPin(context.actor)
      const row = open(context.params.trialId)
      store.end(row.id, { endedAtMs: context.nowMs, endedById: context.actor.id, endedBecause: `Ended by ${context.actor.name}: ${because}. No result.` })
      return {}
    },
  }
}
export type TrialsService = ReturnType<typeof createTrialsService>

/** A school without the way it was done for some bags: a trial is about the school. */
const plainName = (school: string | null): string | null => school?.replace(/, (float slowed|stretched)$/, '') ?? null

const trialRow = (lot: OutcomeLot, school: string, block: string): LossRow => ({ ...anyKind(kindRowOf(lot)), group: school, strata: [block] })

/** The crate that lost the largest share within three days, of those a lead has not answered for. */
function worstCrate(lots: readonly { lot: OutcomeLot; place: TrialCrateRow }[], answered: ReadonlySet<string>): { crateId: string; number: string; lostShare: number } | null {
  const crates = new Map<string, { number: string; n: number; dead: number }>()
  for (const { lot, place } of lots) {
    if (answered.has(place.crateId)) continue
    const known = crates.get(place.crateId) ?? { number: String(lot.crateNumber ?? ''), n: 0, dead: 0 }
    crates.set(place.crateId, { ...known, n: known.n + lot.n, dead: known.dead + deadBy(anyKind(kindRowOf(lot)), pauseDays) })
  }
  const [worst] = [...crates].map(([crateId, { number, n, dead }]) => ({ crateId, number, lostShare: n === 0 ? 0 : dead / n })).sort((one, other) => other.lostShare - one.lostShare)
  return worst ?? null
}
