import { TZDate } from '@date-fns/tz'
import { addDays, setHours, startOfDay } from 'date-fns'
import { likelyBag } from '../../core/acclimation/drawBag'
import type { BenchView, RunView } from '../../core/bench/benchView'
import type { CountOut, DecideLook, DoRecheck, DoStep, KeepAirline, NoteRun, RecordRunReading, SetFlow, SetRunSwitch, SnoozeAlarm, StartRun, StopRun, UndoRunEvent } from '../../core/bench/bench.schema'
import { snoozeMs } from '../../core/bench/alarms'
import { planRechecks } from '../../core/bench/expectedCourse'
import { changesTankWater, isMadeReady, type RunStep } from '../../core/bench/runPlan'
import { fishAre, isGateOpen, stepIndexAt, stepIndexOf, stepStarts, type RunEventKind } from '../../core/bench/runRecord'
import { createSimulatedMeter } from '../../core/bench/simulatedMeter'
import type { Limits } from '../../core/limits/houseLimits'
import { outsidePlaceId } from '../../core/ledger/movement'
import { showChange, showFigure, type DisplayUnits } from '../../core/units/units'
import type { CratesStore } from '../crates/crates.store'
import type { CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import type { Entry } from '../ledger/entries'
import type { LedgerService } from '../ledger/ledger.service'
import type { LedgerStore } from '../ledger/ledger.store'
import { newId } from '../newId'
import type { Going, PlacingService } from '../placing/placing.service'
import { goingOf, type PoolsService } from '../pools/pools.service'
import type { SchoolsService } from '../schools/schools.service'
import type { BenchStore } from './bench.store'
import { checkCounts, entriesOfCount } from './countOut'
import { createOfKind } from './ofKind'
import { createRunPlanner } from './runPlanner'
import type { SubjectStore, SubjectTank } from './subject.store'

const dayMs = 86_400_000
/** How far back a run may be begun: a day without a network, and a night. What is older is no run any more. */
const longestAgoMs = 2 * dayMs
/** When people come in, by the clock of the room. */
const morningHour = 8

interface Collaborators {
  store: BenchStore
  subjects: SubjectStore
  ledger: LedgerService
  pools: PoolsService
  ledgerStore: LedgerStore
  placing: Pick<PlacingService, 'require' | 'requireOwnWater'>
  crates: Pick<CratesStore, 'lineOfCrate' | 'setLineTank'>
  schools: Pick<SchoolsService, 'list'>
  limits: () => Limits
  zone: () => string
  units: () => DisplayUnits
}

/** Runs of the bench, from the first bag afloat to the last recheck. Fish move in the ledger as they move in the room. */
export function createBenchService({ store, subjects, ledger, pools, ledgerStore, placing, crates, schools, limits, zone, units }: Collaborators) {
  const ofKind = createOfKind({ store, pools, ledger })
  const planOf = createRunPlanner({ store, subjects, schools, limits, zone })
  function requireRun(id: string | undefined): RunView {
    const run = store.run(id ?? '')
    if (!run) throw new Problem('not-found', 'There is no such run')
    return run
  }
  function requireOpen(id: string | undefined): RunView {
    const run = requireRun(id)
    if (run.endedAtMs !== null) throw new Problem('conflict', `Run ${run.number} has ended`)
    return run
  }
  function requireStep(run: RunView, stepIndex: number, happenedAtMs: number): RunStep {
    const now = stepIndexOf(run)
    const step = run.plan.steps[now]
    if (now !== stepIndex || !step) throw new Problem('stale', `Somebody else went on to step ${now + 1} meanwhile`, { current: { stepIndex: now } })
    if (happenedAtMs < (stepStarts(run).at(-1) ?? 0)) throw fieldProblem('happenedAtMs', 'This step began later than that')
    return step
  }
  /** No fish goes where the water was not read to be as planned. */
  function refuseAtGate(run: RunView, { gate }: RunStep): void {
    if (!gate || isGateOpen(run, gate)) return
    throw new Problem('conflict', `Read the tank first: it must stand within ${showChange('salinity', gate.withinPpt, units())} of ${showFigure('salinity', gate.salinityPpt, units())}`)
  }
  function requireTank(id: string, path = 'tankId'): SubjectTank {
    const tank = subjects.tank(id)
    if (!tank) throw fieldProblem(path, 'There is no such tank')
    return tank
  }
  const move = (context: CommandContext, runId: string, entry: Entry): void => store.insertMovement(runId, ledger.write(context, entry))
  function refuseBefore({ startedAtMs }: Pick<RunView, 'startedAtMs'>, happenedAtMs: number): void {
    if (happenedAtMs < startedAtMs) throw fieldProblem('happenedAtMs', 'This run began later than that')
  }
  function note(context: CommandContext, run: Pick<RunView, 'id' | 'startedAtMs'>, kind: RunEventKind, happenedAtMs: number, values: Partial<Parameters<BenchStore['insertEvent']>[0]>): string {
    const id = newId()
    refuseBefore(run, happenedAtMs)
    const stepIndex = stepIndexAt({ events: store.eventsOf(run.id) }, happenedAtMs)
    store.insertEvent({ stepIndex, ...values, id, runId: run.id, kind, staffId: context.actor.id, commandKey: context.key, happenedAtMs, recordedAtMs: context.nowMs })
    return id
  }

  function checkSources(input: Pick<StartRun, 'sources'>): void {
    input.sources.forEach(({ placeId, lotId, quantity }, index) => {
      const path = `sources[${index}]`
      const available = ledgerStore.available(placeId, lotId)
      if (available === 0) throw fieldProblem(path, 'These fish do not stand there now')
      const busy = store.openRunWith(placeId, lotId)
      if (busy) throw new Problem('conflict', `These fish are on the bench already (run ${busy.number})`)
      if (quantity > available) throw fieldProblem(path, `Only ${available} stand there now`)
      if (quantity < available && subjects.tank(placeId) === null) throw fieldProblem(path, 'A bag goes on the bench as a whole')
    })
    if (new Set(linesOf(input.sources).map((lineId) => subjects.line(lineId)?.crateId)).size > 1) throw fieldProblem('sources', 'Bags of different crates came in different water: acclimate them apart')
  }

  const linesOf = (sources: readonly { placeId: string }[]): string[] => [...new Set(sources.flatMap(({ placeId }) => store.lineOfBag(placeId) ?? []))]

  /** Moves fish of a run that stand in its vessel, or those that do not, as many as the books have. */
  function carry(context: CommandContext, run: RunView, from: 'vessel' | 'bags', toPlaceId: string, happenedAtMs: number): void {
    const carried = store.standingOf(run.id).filter(({ placeId }) => (placeId === run.id) === (from === 'vessel'))
    for (const { placeId, lotId, quantity } of carried) move(context, run.id, { kind: 'move', lotId, fromPlaceId: placeId, toPlaceId, quantity, happenedAtMs })
  }

  /** Whatever stands in the vessel of a run is in a tank from then on. */
  function emptyVessel(context: CommandContext, run: RunView, toPlaceId: string, happenedAtMs: number): void {
    carry(context, run, 'vessel', toPlaceId, happenedAtMs)
    store.updateRun(run.id, { outAtMs: happenedAtMs, tankId: toPlaceId })
  }

  const end = (context: CommandContext, run: RunView, atMs: number, outcome: string | null): void => store.updateRun(run.id, { endedAtMs: atMs, endedById: context.actor.id, outcome })

  /** Fish of a run with the tank they came from, where they did: they meet nobody new in its water. */
  const fromOf = (run: RunView, fish: readonly { lotId: string; quantity: number }[]): Going[] =>
    fish.map(({ lotId, quantity }) => ({ lotId, quantity, fromPlaceId: run.sources.find((source) => source.lotId === lotId)?.placeId ?? null }))

  const whereTo = (run: RunView, tankId: string | null): string => (tankId === null ? (run.toOutside ?? 'outside') : requireTank(tankId).code)

  /** Nobody stands in vessel or bags any more: the step is done, and the run if it was the last. */
  function finish(context: CommandContext, run: RunView, input: CountOut, tankId: string | null): void {
    note(context, run, 'step', input.happenedAtMs, { stepIndex: input.stepIndex, note: input.note })
    store.updateRun(run.id, { outAtMs: input.happenedAtMs, tankId })
    if (input.stepIndex === run.plan.steps.length - 1) end(context, run, input.happenedAtMs, null)
  }

  /** Takes back what one count moved, and the looks that were planned for it while nobody took them. */
  function takeCountBack(context: CommandContext, run: RunView, commandKey: string, happenedAtMs: number): void {
    ledger.reverseAll(context, store.standingOfCount(run.id, commandKey), { happenedAtMs, reason: 'count taken back' })
    const counted = store.countedOf(run.id)
    if (counted.countedAlive === null) store.forgetAfter(run.id)
    store.updateRun(run.id, { outAtMs: null, ...counted, ...(counted.countedAlive === null ? { look: null } : {}) })
  }

  function planAfter(run: RunView, tankId: string | null, happenedAtMs: number): void {
    const measured = run.events.findLast(({ tanMgL }) => tanMgL !== null)?.tanMgL
    if (run.plan.school?.key === 'matched' && tankId) store.insertLoad({ id: newId(), runId: run.id, tankId, litres: run.plan.startL, tanMgL: measured ?? likelyBag(run.plan.question).start.tanMgL, atMs: happenedAtMs })
    if (!tankId) return
    const morningMs = setHours(startOfDay(addDays(new TZDate(happenedAtMs, zone()), 1)), morningHour).getTime()
    for (const each of planRechecks(run.plan.question, happenedAtMs, morningMs, run.plan.isDark ? limits().darkHours : null)) store.insertRecheck({ id: newId(), runId: run.id, ...each })
  }

  return {
    /** The bench as it stands: open runs and those of the last day, rechecks, bags that wait. */
    view: (nowMs: number): BenchView => ({ runs: store.openAndEndedSince(nowMs - dayMs), rechecks: store.rechecks(nowMs - dayMs), waiting: store.waiting(), airlines: store.airlines() }),

    run: (id: string | undefined): RunView => requireRun(id),
    airlines: store.airlines,

    /** What the bench meter shows for a run now. A stand-in: it reads a simulated vessel. */
    meter(id: string | undefined, nowMs: number) {
      const meter = createSimulatedMeter(limits())
      const reading = meter.read(requireOpen(id), nowMs)
      if (!reading) throw new Problem('conflict', 'There is no vessel to read: the fish are in their tank, or have stood for longer than it is followed')
      return { isSimulated: meter.isSimulated, ...reading }
    },

    /** Begins a run. Fish out of a tank are in its vessel from then on; bags keep theirs until they are poured. */
    startRun(context: CommandContext, input: StartRun) {
      if (input.happenedAtMs < context.nowMs - longestAgoMs) throw fieldProblem('happenedAtMs', 'A run began at most two days ago; fish that have stood for longer are counted where they are')
      const plans = input.sources.map((source) => (source.isOfKind ? ofKind.plan(source, input.happenedAtMs) : null))
      const sources = input.sources.flatMap((source, index) => ofKind.sources(plans[index] ?? null) ?? [source])
      checkSources({ sources })
      if (input.tankId === null && !input.toOutside?.trim()) throw fieldProblem('tankId', 'Say which tank the fish go to, or to whom')
      if (input.tankId !== null && input.toOutside?.trim()) throw fieldProblem('toOutside', 'The fish go to a tank of the room or to somebody else, not both')
      const tank = input.tankId === null ? null : requireTank(input.tankId)
      const asked = tank && { going: sources.map(({ placeId, lotId, quantity }) => ({ lotId, quantity, fromPlaceId: placeId })), tankId: tank.id, path: 'tankId' }
      // Nobody is put anywhere by a look; it only frees its tank or not.
      if (asked && input.kind !== 'look') placing.require(context, { ...asked, override: input.override, isRescue: input.isRescue, isPlan: true })
      // Whoever else of their pool they may be must be allowed there as well.
      if (asked && input.kind !== 'look') for (const plan of plans) for (const going of plan ? goingOf(plan).slice(1) : []) placing.require(context, { ...asked, going, override: input.override, isRescue: input.isRescue, isPlan: true })
      const plan = planOf(input, tank)
      if (asked && changesTankWater(plan)) placing.requireOwnWater(context, asked, isMadeReady(plan))
      const [id, number] = [newId(), store.nextNumber()]
      ledgerStore.insertPlace(id, 'vessel')
      const [lineId = null, other] = linesOf(sources)
      store.insertRun({ id, number, plan, lineId: other ? null : lineId, tankId: input.tankId, toOutside: input.toOutside?.trim() || null, staffId: context.actor.id, commandKey: context.key, startedAtMs: input.happenedAtMs, recordedAtMs: context.nowMs })
      for (const plan of plans) if (plan) for (const movementId of pools.book(context, plan, { kind: 'move', happenedAtMs: input.happenedAtMs }, { toPlaceId: id })) store.insertMovement(id, movementId)
      for (const { placeId, lotId, quantity, isOfKind = false } of sources) {
        store.insertSource({ runId: id, placeId, lotId, quantity })
        if (subjects.tank(placeId) && !isOfKind) move(context, id, { kind: 'move', lotId, fromPlaceId: placeId, toPlaceId: id, quantity, happenedAtMs: input.happenedAtMs })
      }
      return { id, number }
    },

    /** The step in hand is done; the clock of the next one runs. */
    doStep(context: CommandContext, { stepIndex, happenedAtMs }: DoStep) {
      const run = requireOpen(context.params.runId)
      const step = requireStep(run, stepIndex, happenedAtMs)
      if (step.countsOut) throw new Problem('conflict', 'Count the fish out with this step')
      refuseAtGate(run, step)
      if (run.plan.kind === 'look' && stepIndex === run.plan.steps.length - 1) throw new Problem('conflict', 'Say whether they are added or not')
      note(context, run, 'step', happenedAtMs, { stepIndex })
      // Fish of the bags are poured together, or netted into the vessel.
      if (step.fish === 'vessel' && fishAre(run) !== 'vessel') carry(context, run, 'bags', run.id, happenedAtMs)
      if (stepIndex === run.plan.steps.length - 1) end(context, run, happenedAtMs, null)
      return { stepIndex: stepIndex + 1 }
    },

    recordReading(context: CommandContext, { happenedAtMs, isSimulated, ...read }: RecordRunReading) {
      return { id: note(context, requireOpen(context.params.runId), 'reading', happenedAtMs, { ...read, isSimulated: Number(isSimulated) }) }
    },

    setFlow: (context: CommandContext, { mlPerMin, happenedAtMs }: SetFlow) => ({ id: note(context, requireOpen(context.params.runId), 'flow', happenedAtMs, { mlPerMin }) }),

    snoozeAlarm: (context: CommandContext, { alarm, happenedAtMs }: SnoozeAlarm) => ({ id: note(context, requireOpen(context.params.runId), 'snooze', happenedAtMs, { alarm, untilMs: happenedAtMs + snoozeMs }) }),

    setSwitch: (context: CommandContext, { what, isOn, happenedAtMs }: SetRunSwitch) => ({ id: note(context, requireOpen(context.params.runId), what, happenedAtMs, { isOn: Number(isOn) }) }),

    noteRun: (context: CommandContext, { note: words, happenedAtMs }: NoteRun) => ({ id: note(context, requireRun(context.params.runId), 'note', happenedAtMs, { note: words }) }),

    /** Takes back the newest entry of a run, with the fish it moved while they are still there. */
    undoEvent(context: CommandContext, { eventId, happenedAtMs }: UndoRunEvent) {
      const run = requireRun(context.params.runId)
      const newest = run.events.at(-1)
      const event = store.rawEvent(eventId)
      if (!event || event.runId !== run.id) throw new Problem('not-found', 'There is no such entry on this run')
      if (event.undoneAtMs !== null) throw new Problem('conflict', 'This was taken back already')
      if (newest?.id !== eventId) throw new Problem('conflict', 'Something was recorded after it; take that back first')
      if (event.kind === 'step' || event.kind === 'count') {
        if (run.plan.steps[event.stepIndex]?.countsOut) takeCountBack(context, run, event.commandKey, happenedAtMs)
        else ledger.reverseAll(context, ledgerStore.standingOfCommand(event.commandKey, run.id), { happenedAtMs, reason: 'step undone' })
        if (run.endedAtMs !== null) store.updateRun(run.id, { endedAtMs: null, endedById: null, outcome: null })
      }
      store.undoEvent(eventId, { undoneById: context.actor.id, undoneAtMs: context.nowMs })
      return {}
    },

    /** Counts fish into their tank. Whoever is not counted stays in vessel or bag, and the run stays open for them. */
    countOut(context: CommandContext, input: CountOut) {
      const run = requireOpen(context.params.runId)
      const step = requireStep(run, input.stepIndex, input.happenedAtMs)
      if (!step.countsOut) throw new Problem('conflict', 'The fish are not counted out with this step')
      const tankId = input.tankId ?? run.tank?.id ?? null
      if (input.tankId !== null) requireTank(input.tankId)
      checkCounts(ofKind.summed(run, input.counts), input.counts)
      const going = input.counts.map((count) => (count.isOfKind ? ofKind.going(run, count, input.happenedAtMs) : [[{ lotId: count.lotId, quantity: count.alive }]]))
      const living = going.flatMap(([likely = []]) => likely)
      if (tankId !== null) placing.require(context, { going: fromOf(run, living), tankId, path: 'tankId', override: input.override, isRescue: input.isRescue, runId: run.id })
      // Whoever else of their pool they may be must be allowed there as well.
      if (tankId !== null) for (const others of going.flatMap(([, ...rest]) => rest)) placing.require(context, { going: fromOf(run, others), tankId, path: 'tankId', override: input.override, isRescue: input.isRescue, runId: run.id })
      const left = store.standingOf(run.id)
      for (const count of input.counts) if (count.isOfKind) ofKind.count(context, run, count, input, tankId ?? outsidePlaceId)
      else for (const entry of entriesOfCount(run, left, count, input, tankId ?? outsidePlaceId)) move(context, run.id, entry)
      const [alive, dead] = [input.counts.reduce((sum, each) => sum + each.alive, 0), input.counts.reduce((sum, each) => sum + each.dead, 0)]
      const rest = store.standingOf(run.id).reduce((sum, { quantity }) => sum + quantity, 0)
      if (tankId !== null && alive > 0 && !store.hasRechecks(run.id)) planAfter(run, tankId, input.happenedAtMs)
      store.updateRun(run.id, { look: input.look, ...store.countedOf(run.id) })
      if (rest > 0) note(context, run, 'count', input.happenedAtMs, { stepIndex: input.stepIndex, note: `${alive} counted into ${whereTo(run, tankId)}${dead > 0 ? `, ${dead} dead` : ''}; ${rest} stay${input.note ? `. ${input.note}` : ''}` })
      else finish(context, run, input, tankId)
      return { alive, dead, rest }
    },

    /** Ends a run early, whatever became of it: fish in its vessel go where they are said to be, uncounted. */
    stopRun(context: CommandContext, { because, tankId = null, happenedAtMs, ...against }: StopRun) {
      const run = requireOpen(context.params.runId)
      refuseBefore(run, happenedAtMs)
      if (run.inVessel > 0 && tankId === null) throw fieldProblem('tankId', `${run.inVessel} fish stand in the vessel: say which tank they are in`)
      if (run.inVessel > 0 && tankId !== null) {
        const inVessel = store.standingOf(run.id).filter(({ placeId }) => placeId === run.id)
        placing.require(context, { going: fromOf(run, inVessel), tankId: requireTank(tankId).id, path: 'tankId', ...against, runId: run.id })
        emptyVessel(context, run, tankId, happenedAtMs)
      }
      end(context, run, happenedAtMs, `stopped: ${because}`)
      return {}
    },

    /** Ends a look through the bag. “Do not add” frees the tank that was planned. */
    decideLook(context: CommandContext, { outcome, note: words, happenedAtMs }: DecideLook) {
      const run = requireOpen(context.params.runId)
      if (run.plan.kind !== 'look') throw new Problem('conflict', 'Only a look through the bag ends with a decision')
      if (words) note(context, run, 'note', happenedAtMs, { note: words })
      end(context, run, happenedAtMs, outcome)
      const lineIds = outcome === 'do not add' ? linesOf(run.sources) : []
      for (const lineId of lineIds) {
        const line = run.crate && crates.lineOfCrate(run.crate.id, lineId)
        if (line && line.tankId === run.tank?.id) crates.setLineTank(line.id, null, line.version + 1)
      }
      return {}
    },

    doRecheck(context: CommandContext, { look, note: words, happenedAtMs }: DoRecheck) {
      const recheck = store.recheckById(context.params.recheckId ?? '')
      if (!recheck) throw new Problem('not-found', 'There is no such recheck')
      if (recheck.doneAtMs !== null) throw new Problem('conflict', `Somebody else did this recheck meanwhile: ${recheck.look}`, { current: { look: recheck.look, note: recheck.note } })
      store.answerRecheck(recheck.id, { look, note: words, doneById: context.actor.id, doneAtMs: happenedAtMs })
      return {}
    },

    /** Keeps how many drops of an airline make a millilitre. */
    keepAirline({ actor, nowMs }: CommandContext, { name, dropsPerMl }: KeepAirline) {
      const known = store.airlineNamed(name.trim())
      const id = known?.id ?? newId()
      store.keepAirline({ id, name: known?.name ?? name.trim(), dropsPerMl, staffId: actor.id, calibratedAtMs: nowMs })
      return { id }
    },
  }
}
export type BenchService = ReturnType<typeof createBenchService>
