import { eachApart } from '../../core/collections/eachApart'
import type { Limits } from '../../core/limits/houseLimits'
import { introductionPlan, type Introduced, type IntroductionPlan } from '../../core/moves/introductionPlan'
import type { BeginIntroduction, Newcomers, RecordIntroduction } from '../../core/moves/introductions.schema'
import { introductionState, type IntroductionEvent, type IntroductionState } from '../../core/moves/introductionState'
import type { IntroductionEntry, IntroductionView, PlannedIntroduction, StepNow } from '../../core/moves/introductionView'
import { introductionEventWords, introductionReasonWords, introductionStepWords } from '../../core/moves/introductionWords'
import type { MoveRules } from '../../core/moves/moveRules'
import type { MovedFish } from '../../core/moves/moves.schema'
import { kindName, poolsOf } from '../../core/pools/poolsOf'
import { stockOf } from '../../core/facts/askFacts'
import type { TankFacts } from '../../core/facts/facts'
import { daysBetween } from '../../core/time/daysBetween'
import { dayInZone } from '../../core/time/dayInZone'
import type { FactsService } from '../facts/facts.service'
import type { CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import type { LedgerService } from '../ledger/ledger.service'
import { newId } from '../newId'
import type { PlacingStore } from '../placing/placing.store'
import type { VesselsService } from '../vessels/vessels.service'
import type { IntroductionEventRow, IntroductionRow, IntroductionsStore } from './introductions.store'
import type { MovesService } from './moves.service'
import type { MovesStore } from './moves.store'

const [minuteMs, dayMs] = [60_000, 86_400_000]
/** Ended ones stay in the list for so long. */
const shownDays = 14
/** A tank of which nobody knows the temperature. */
const usualTempC = 25

interface Collaborators {
  store: IntroductionsStore
  movesStore: MovesStore
  facts: Pick<FactsService, 'tank' | 'requireTank'>
  placing: Pick<PlacingStore, 'lots'>
  moves: MovesService
  ledger: LedgerService
  vessels: VesselsService
  limits: () => Limits
  rules: () => MoveRules
  zone: () => string
  dayStart: (nowMs: number) => number
}

/** What is asked of a plan. */
export interface PlanAsked {
  fromTankId: string
  tankId: string
  fish: readonly MovedFish[]
  hasMirror: boolean
  hasDivider: boolean
  /** Kinds that somebody knows to rule. */
  dominants: readonly string[]
}

/** Newcomers for a tank whose residents defend it: the plan, and the clock it goes by. */
export function createIntroductionsService({ store, movesStore, facts, placing, moves, ledger, vessels, limits, rules, zone, dayStart }: Collaborators) {
  const kindsIn = (tank: TankFacts) => poolsOf(stockOf(tank))

  /** Fish of a kind as a plan looks at them; residents may have grown. */
  function introduced(lotIds: readonly string[], name: string, n: number, isResident: boolean, nowMs: number): Introduced[] {
    const [lot] = placing.lots(lotIds, nowMs, isResident)
    return lot ? [{ ...lot.animal, id: name, n, ...(lot.tolerance ? { tolerance: lot.tolerance } : {}) }] : []
  }

  function newcomersOf(from: TankFacts, fish: readonly MovedFish[]): Newcomers {
    const kinds = kindsIn(from)
    return fish.map(({ speciesId, strain, lotIds = [], quantity }, index) => {
      const kind = kinds.find((each) => each.speciesId === speciesId && each.strain === strain)
      if (!kind || kind.quantity < quantity) throw fieldProblem(`fish[${index}].quantity`, kind ? `Only ${kind.quantity} of these stand there now` : 'None of these stand there now')
      return { speciesId, strain, lotIds, name: kindName(kind), quantity }
    })
  }

  function planOf({ fromTankId, tankId, fish, hasMirror, hasDivider, dominants }: PlanAsked, nowMs: number): { plan: IntroductionPlan; newcomers: Newcomers; to: TankFacts } {
    const [from, to] = [facts.requireTank(fromTankId, 'fromTankId', nowMs), facts.requireTank(tankId, 'tankId', nowMs)]
    if (from.tankId === to.tankId) throw fieldProblem('tankId', 'They are there already')
    const newcomers = newcomersOf(from, fish)
    const kinds = kindsIn(to)
    const residents = kinds.flatMap((kind) => introduced(kind.lots.map(({ lotId }) => lotId), kindName(kind), kind.quantity, true, nowMs).map((each) => ({ ...each, isDominant: dominants.includes(kind.speciesId) ? true : null })))
    const coming = newcomers.flatMap(({ speciesId, strain, name, quantity }) => introduced(from.lots.filter((lot) => lot.speciesId === speciesId && lot.noted.strain === strain).map(({ lotId }) => lotId), name, quantity, false, nowMs))
    const free = vessels.view(nowMs).vessels.filter((each) => each.fish.length === 0)
    const plan = introductionPlan(
      {
        tank: { netVolumeL: to.netVolumeL, tempC: to.water.tempC ?? usualTempC, salinityPpt: to.water.salinityPpt ?? 0, ph: to.water.ph, isShared: !to.water.isAlone },
        ...{ residents, newcomers: coming, vessels: free.filter(({ kind }) => kind === 'bucket').map(({ name, litres, hasAir }) => ({ id: name, litres, air: hasAir })) },
        has: { box: free.some(({ kind }) => kind === 'box'), mirror: hasMirror, divider: hasDivider },
        ...{ liftsLeft: Math.max(0, rules().liftsPerDay - movesStore.lifts(tankId, dayStart(nowMs)).length), roomC: limits().roomAirC },
      },
      limits(),
      rules(),
    )
    return { plan, newcomers, to }
  }

  const namesOf = (plan: IntroductionPlan, newcomers: Newcomers) => ({
    dominants: plan.dominants.join(', ') || 'Nobody',
    subdominants: plan.subdominants.join(', '),
    newcomers: newcomers.map(({ name, quantity }) => `${quantity} ${name}`).join(', '),
    vessels: plan.vessels.map(({ id }) => id).join(', '),
  })

  function requireOpen(id: string): IntroductionRow {
    const row = store.byId(id)
    if (!row || row.undoneAtMs !== null) throw new Problem('not-found', 'There is no such introduction')
    return row
  }

  const asEvents = (rows: readonly IntroductionEventRow[]): IntroductionEvent[] => rows.flatMap(({ kind, who, level, atMs }) => (kind === 'step' ? [] : [{ at: Math.floor(atMs / minuteMs), kind, who, level }]))
  /** What decided first is kept; but newcomers that were taken out after it are not asked for any more. */
  function stateOf(rows: readonly IntroductionEventRow[], nowMs: number): IntroductionState {
    const found = introductionState({ now: Math.floor(nowMs / minuteMs), events: asEvents(rows) }, limits().boxDays, rules())
    return found.proposes === 'take out' && rows.some(({ kind }) => kind === 'taken out') ? { ...found, proposes: null } : found
  }

  /** Steps with the moment each is due: planned from the one before it, once that was done. */
  function stepsOf({ plan, newcomers, startedAtMs }: IntroductionRow, rows: readonly IntroductionEventRow[]): StepNow[] {
    const done = new Map(rows.flatMap(({ kind, stepIndex, atMs }) => (stepIndex !== null && kind !== 'look' ? [[stepIndex, atMs] as const] : [])))
    let shiftMs = startedAtMs
    return plan.steps.flatMap((step, index): StepNow[] => {
      if (step.code === 'look') return []
      const [dueAtMs, doneAtMs] = [shiftMs + step.at * minuteMs, done.get(index) ?? null]
      // Whoever is late is late with all that follows.
      if (doneAtMs !== null) shiftMs += doneAtMs - dueAtMs
      return [{ ...step, index, words: introductionStepWords(step, namesOf(plan, newcomers)), dueAtMs, doneAtMs }]
    })
  }

  function view(row: IntroductionRow, nowMs: number): IntroductionView {
    const rows = store.events(row.id)
    const found = stateOf(rows, nowMs)
    const { state, boxes, nextLookAt, proposes } = found
    const tank = facts.tank(row.tankId, nowMs)
    const isNewcomer = (kind: { speciesId: string; strain: string | null }): boolean => row.newcomers.some((each) => each.speciesId === kind.speciesId && each.strain === kind.strain)
    const inBoxes = vessels.view(nowMs).vessels.filter(({ kind, tank: of }) => kind === 'box' && of?.id === row.tankId)
    const steps = stepsOf(row, rows)
    return {
      ...{ id: row.id, number: row.number, newcomers: row.newcomers, plan: row.plan, startedAtMs: row.startedAtMs, endedAtMs: row.endedAtMs, isGivenUp: row.endedAtMs !== null && !isOver(found), state, proposes, steps },
      ...{ tank: { id: row.tankId, code: store.codeOf(row.tankId) }, from: { id: row.fromTankId, code: store.codeOf(row.fromTankId) } },
      residents: (tank ? kindsIn(tank) : []).filter((kind) => !isNewcomer(kind)).map((kind) => ({ speciesId: kind.speciesId, strain: kind.strain, name: kindName(kind), quantity: kind.quantity })),
      boxes: boxes.map(({ who, dueAt }) => {
        const box = inBoxes.find(({ fish }) => fish.some((each) => kindName(each) === who))
        return { who, vesselId: box?.id ?? null, vessel: box?.name ?? null, dueAtMs: dueAt * minuteMs }
      }),
      nextLookAtMs: nextLookAt === null ? null : nextLookAt * minuteMs,
      day: daysBetween(dayInZone(row.startedAtMs, zone()), dayInZone(nowMs, zone())) + 1,
      entries: rows.map((each): IntroductionEntry => {
        const { id, kind, stepIndex, who, level, note, atMs, by } = each
        const words = kind === 'step' ? (steps.find(({ index }) => index === stepIndex)?.words ?? 'A step') : introductionEventWords({ kind, who, level })
        return { id, kind, words, stepIndex, who, level, note, atMs, by }
      }),
    }
  }

  /** The kind of fish that an entry names, where it stands now. */
  function kindNamed(tank: TankFacts, who: string | null | undefined) {
    const kind = kindsIn(tank).find((each) => kindName(each) === who)
    if (!kind) throw fieldProblem('who', who ? `No ${who} stand in this tank now` : 'Say which fish')
    return kind
  }

  /** What an entry does to the books: fish that go in, into their box and back, out again, or die. */
  function book(context: CommandContext, row: IntroductionRow, { kind, stepIndex, who, vesselId, toTankId, override, isRescue, happenedAtMs }: RecordIntroduction): void {
    const tank = facts.requireTank(row.tankId, 'tankId', context.nowMs)
    const here = { kind: 'tank', id: row.tankId } as const
    const going = { toolSetId: null, waterGoesAlong: false, override, isRescue, note: `introduction ${row.number}`, happenedAtMs }
    if (kind === 'in') ledger.moveTogether(context, { from: { kind: 'tank', id: row.fromTankId }, to: here, fish: row.newcomers.map(({ speciesId, strain, lotIds, quantity }) => ({ speciesId, strain, lotIds, quantity })), ...going })
    if (kind === 'box') {
      const { speciesId, strain } = kindNamed(tank, who)
      if (!vesselId) throw fieldProblem('vesselId', 'Say which box')
      ledger.moveTogether(context, { from: here, to: { kind: 'vessel', id: vesselId }, fish: [{ speciesId, strain, quantity: 1 }], ...going })
    }
    // Dominants that were out in a bucket for an hour were never booked out; that they are back is a step.
    if (kind === 'back' && stepIndex === null) {
      const box = vessels.view(context.nowMs).vessels.find(({ tank: of, fish }) => of?.id === row.tankId && fish.some((each) => kindName(each) === who))
      const fish = box?.fish.find((each) => kindName(each) === who)
      if (box && fish) ledger.moveTogether(context, { from: { kind: 'vessel', id: box.id }, to: here, fish: [{ speciesId: fish.speciesId, strain: fish.strain, quantity: fish.quantity }], ...going })
      else throw fieldProblem('who', `No ${who ?? 'fish'} sits in a box of this tank`)
    }
    if (kind === 'dead') {
      const { speciesId, strain } = kindNamed(tank, who)
      ledger.recordLoss({ ...context, params: { tankId: row.tankId } }, { speciesId, strain, quantity: 1, cause: 'found dead', note: going.note, happenedAtMs })
    }
    if (kind === 'taken out') takeOut(context, row, tank, toTankId ?? row.fromTankId, going)
  }

  function takeOut(context: CommandContext, row: IntroductionRow, tank: TankFacts, toTankId: string, going: Pick<RecordIntroduction, 'override' | 'isRescue' | 'happenedAtMs'> & { toolSetId: null; waterGoesAlong: boolean; note: string }): void {
    const fish = row.newcomers.flatMap(({ speciesId, strain, lotIds, quantity }) => {
      const there = kindsIn(tank).find((each) => each.speciesId === speciesId && each.strain === strain)?.quantity ?? 0
      return there > 0 ? [{ speciesId, strain, lotIds, quantity: Math.min(quantity, there) }] : []
    })
    if (fish.length > 0) ledger.moveTogether(context, { from: { kind: 'tank', id: row.tankId }, to: { kind: 'tank', id: toTankId }, fish, ...going })
  }

  /** A fight counts for the next place they meet in. */
  function noteFight(context: CommandContext, row: IntroductionRow, { kind, who, level, happenedAtMs }: RecordIntroduction): void {
    const harm = kind === 'dead' ? 'killed' : kind === 'look' && (level === 'chased' || level === 'hurt') ? level : null
    if (harm === null) return
    const tank = facts.requireTank(row.tankId, 'tankId', context.nowMs)
    const bullies = kindsIn(tank).filter((each) => (who && kind === 'look' ? kindName(each) === who : row.plan.dominants.includes(kindName(each))))
    for (const bully of bullies) {
      for (const { speciesId } of row.newcomers) movesStore.insertFight({ tankId: row.tankId, volumeL: tank.netVolumeL, speciesAId: bully.speciesId, speciesBId: speciesId, harm, atMs: happenedAtMs, staffId: context.actor.id, commandKey: context.key, recordedAtMs: context.nowMs })
    }
  }

  const isOver = ({ state, proposes }: IntroductionState): boolean => (state === 'done' || state === 'failed') && proposes === null

  /** One that is over by what was seen is closed; one that is not any more, as something was taken back, goes on. */
  const close = (id: string, nowMs: number): void => store.setEnded(id, isOver(stateOf(store.events(id), nowMs)) ? nowMs : null)

  return {
    /** How newcomers would come in. */
    plan(asked: PlanAsked, nowMs: number): PlannedIntroduction {
      const { plan, newcomers, to } = planOf(asked, nowMs)
      return {
        ...{ plan, newcomers, reasons: plan.reasons.map(introductionReasonWords) },
        check: moves.check({ from: { kind: 'tank', id: asked.fromTankId }, to: { kind: 'tank', id: asked.tankId }, fish: asked.fish }, nowMs),
        residents: kindsIn(to).map((kind) => ({ speciesId: kind.speciesId, name: kindName(kind), quantity: kind.quantity })),
      }
    },

    /** One that cannot be read leaves the others. */
    list: (nowMs: number): { introductions: IntroductionView[] } => ({ introductions: eachApart(store.open(nowMs - shownDays * dayMs), (row) => [{ ...view(row, nowMs), residents: [] }], () => []).flat() }),
    view: (id: string, nowMs: number): IntroductionView => view(requireOpen(id), nowMs),

    begin(context: CommandContext, { tankId, fromTankId, fish, hasMirror, hasDivider, dominants, happenedAtMs }: BeginIntroduction) {
      if (store.openIn(tankId)) throw new Problem('conflict', 'An introduction goes on in this tank already')
      const { plan, newcomers } = planOf({ tankId, fromTankId, fish, hasMirror, hasDivider, dominants }, context.nowMs)
      if (plan.mode === 'do not') throw fieldProblem('tankId', plan.reasons.map(introductionReasonWords).join(' '))
      if (plan.mode === 'not yet') throw fieldProblem('tankId', `Not yet: ${plan.reasons.map(introductionReasonWords).join(' ')}`)
      const [id, number] = [newId(), store.nextNumber()]
      store.insert({ id, number, tankId, fromTankId, newcomers, plan, startedAtMs: happenedAtMs, endedAtMs: null, staffId: context.actor.id, commandKey: context.key, recordedAtMs: context.nowMs })
      return { id, number }
    },

    record(context: CommandContext, input: RecordIntroduction) {
      const row = requireOpen(context.params.introductionId ?? '')
      if (row.endedAtMs !== null) throw new Problem('conflict', 'This introduction has ended')
      const { kind, stepIndex, who, level, note, happenedAtMs } = input
      const rows = store.events(row.id)
      const last = rows.at(-1)
      if (last && happenedAtMs < last.atMs) throw fieldProblem('happenedAtMs', 'Something later is written down already; take that back first')
      if (kind === 'in' && rows.some((each) => each.kind === 'in')) throw new Problem('conflict', 'The newcomers are in already')
      if (kind !== 'step' && kind !== 'in' && !rows.some((each) => each.kind === 'in')) throw new Problem('conflict', 'The newcomers are not in yet')
      if (kind === 'look' && !level) throw fieldProblem('level', 'Say what was seen')
      if (stepIndex !== null && rows.some((each) => each.stepIndex === stepIndex)) throw new Problem('conflict', 'This step is done already')
      if (kind === 'step' && row.plan.steps[stepIndex ?? -1] === undefined) throw fieldProblem('stepIndex', 'There is no such step')
      book(context, row, input)
      noteFight(context, row, input)
      const id = store.insertEvent({ introductionId: row.id, kind, stepIndex, who, level: level ?? null, note, atMs: happenedAtMs, staffId: context.actor.id, commandKey: context.key, recordedAtMs: context.nowMs })
      close(row.id, Math.max(context.nowMs, happenedAtMs))
      return { id }
    },

    /** Takes the newest entry back, with the fish it moved and the fight it told of; of one that was given up, that it was. */
    undo(context: CommandContext, { happenedAtMs }: { happenedAtMs: number }) {
      const row = requireOpen(context.params.introductionId ?? '')
      const rows = store.events(row.id)
      const last = rows.at(-1)
      if (row.endedAtMs !== null && store.openIn(row.tankId)) throw new Problem('conflict', 'Another introduction goes on in this tank now')
      if (row.endedAtMs !== null && !isOver(stateOf(rows, context.nowMs))) {
        store.setEnded(row.id, null)
        return {}
      }
      const by = { undoneById: context.actor.id, undoneAtMs: context.nowMs }
      if (!last) throw new Problem('conflict', 'Nothing is written down yet')
      ledger.reverseCommand(context, last.commandKey, { happenedAtMs, reason: `introduction ${row.number}, taken back` })
      movesStore.undoFightsOf(last.commandKey, by)
      store.undoEvent(last.id, by)
      close(row.id, context.nowMs)
      return {}
    },

    /** Closes one that goes on no more. */
    end({ params, nowMs }: CommandContext) {
      const row = requireOpen(params.introductionId ?? '')
      if (row.endedAtMs !== null) throw new Problem('conflict', 'This introduction has ended')
      store.setEnded(row.id, nowMs)
      return {}
    },
  }
}
export type IntroductionsService = ReturnType<typeof createIntroductionsService>
