import type { Measured, TankFacts } from '../../core/facts/facts'
import type { Limits } from '../../core/limits/houseLimits'
import type { ProbeSample, TankProbes } from '../../core/probes/probe'
import { isFailed, probeState, type ProbeState } from '../../core/probes/probeState'
import type { ProbeView } from '../../core/probes/probeView'
import type { RetireProbe, SaveProbe } from '../../core/probes/probes.schema'
import type { RoundRules } from '../../core/rounds/roundRules'
import { isPastLimit } from '../../core/probes/isPastLimit'
import type { DueItem } from '../../core/due/due'
import { probeDue } from '../../core/probes/probeDue'
import { meets } from '../../core/commands/things'
import type { AuditStore } from '../audit/audit.store'
import type { Change } from '../events/changes'
import type { FactsService } from '../facts/facts.service'
import type { GlassService } from '../room/glass.service'
import type { CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import { newId } from '../newId'
import type { ProbeRow, ProbesStore } from './probes.store'

const [minuteMs, dayMs] = [60_000, 86_400_000]
/** Samples are judged over two days and shown over one. */
const [judgedMs, shownMs, keptMs] = [2 * dayMs, dayMs, 14 * dayMs]
/** What can be believed becomes a reading once a day: read by the hour, a day's wave would look like a drift to whoever judges readings. */
const fedMs = dayMs

/** The middle of what was answered. */
function middleOf(samples: readonly ProbeSample[], usual: number): number {
  const values = samples.flatMap(({ value }) => value ?? []).sort((a, b) => a - b)
  return values[Math.floor(values.length / 2)] ?? usual
}

interface Collaborators {
  store: ProbesStore
  probes: TankProbes
  facts: Pick<FactsService, 'all' | 'requireTank'>
  glass: Pick<GlassService, 'recordReading'>
  audit: AuditStore
  limits: () => Limits
  rules: () => RoundRules
}

type Tanks = ReadonlyMap<string, TankFacts>
/** A probe whose time has come, with what was read in its water before. */
interface Asked {
  row: ProbeRow
  tank: TankFacts
  read: readonly Measured[]
}

/** Probes in tanks: asked by the clock, believed or said to have failed, and read into the books like any instrument. */
export function createProbesService({ store, probes, facts, glass, audit, limits, rules }: Collaborators) {
  const instrumentOf = ({ name }: Pick<ProbeRow, 'name'>): string => `${name}, ${probes.isSimulated ? 'simulated probe' : 'probe'}`
  const tankOf = (row: ProbeRow, tanks: Tanks): TankFacts | null => {
    const tank = tanks.get(row.tankId)
    return tank && !tank.isRetired ? tank : null
  }
  /** Readings of its water; whether its own or by hand. */
  function readings(row: ProbeRow, tank: TankFacts, tanks: Tanks): Measured[] {
    return [...tanks.values()].filter(({ water }) => water.id === tank.water.id).flatMap((each) => each.readings).filter(({ what }) => what === row.measure).sort((a, b) => b.atMs - a.atMs)
  }
  const isOwn = ({ instrument }: Measured): boolean => instrument?.endsWith('probe') === true

  function stateOf(row: ProbeRow, read: readonly Measured[], nowMs: number): ProbeState {
    return probeState(row, store.samples(row.id, nowMs - judgedMs), read.filter((each) => !isOwn(each)), limits(), nowMs)
  }

  /** What it says becomes a reading once a day, its middle; and at once where it passes a limit, or is back within. */
  function feed(context: CommandContext, { row, tank, read }: Asked): boolean {
    const { state, value } = stateOf(row, read, context.nowMs)
    if (state !== 'ok' || value === null) return false
    const last = read.find((each) => each.instrument === instrumentOf(row))
    const isPast = isPastLimit(row.measure, value, tank.water, rules().readings)
    const isNews = last !== undefined && isPast !== isPastLimit(row.measure, last.value, tank.water, rules().readings)
    if (last && context.nowMs - last.atMs < fedMs && !isNews) return false
    const said = isPast || isNews ? value : middleOf(store.samples(row.id, context.nowMs - fedMs), value)
    glass.recordReading({ ...context, params: { tankId: row.tankId } }, { what: row.measure, value: said, instrument: instrumentOf(row), happenedAtMs: context.nowMs })
    return true
  }

  const isDue = (row: ProbeRow, nowMs: number): boolean => nowMs - (store.lastMs(row.id) ?? 0) >= row.everyMin * minuteMs

  function requireProbe(id: string | undefined) {
    const row = store.byId(id ?? '')
    if (!row || row.retiredAtMs !== null) throw new Problem('not-found', 'There is no such probe')
    return row
  }

  function view(nowMs: number): ProbeView[] {
    const tanks = facts.all(nowMs)
    return store.inUse().map((probe) => {
      const { addedById: _, ...row } = probe
      const tank = tankOf(probe, tanks)
      const state: ProbeState = tank ? stateOf(probe, readings(probe, tank, tanks), nowMs) : { state: 'silent', words: 'its tank is out of use', sinceMs: null, value: null }
      return { ...row, ...state, tankCode: tank?.code ?? '', isSimulated: probes.isSimulated, samples: store.samples(row.id, nowMs - shownMs).reverse() }
    })
  }

  let known: { minute: number; items: DueItem[] } | null = null

  return {
    view: (nowMs: number) => ({ probes: view(nowMs) }),
    /** Whatever was asked of probes, or set up, counts at once. */
    listen({ touched }: Pick<Change, 'touched'>): void {
      if (meets(touched, ['probe', 'register', 'limit'])) known = null
    },
    /** Probes that have failed, as work that waits. */
    due(nowMs: number): readonly DueItem[] {
      const minute = Math.floor(nowMs / minuteMs)
      if (known?.minute !== minute) known = { minute, items: view(nowMs).filter(({ state }) => isFailed(state)).map((each) => probeDue(each)) }
      return known.items
    },
    /** In whose name those are asked whose time has come; null where none is. */
    asker: (nowMs: number): string | null => store.inUse().find((row) => isDue(row, nowMs))?.addedById ?? null,

    addProbe(context: CommandContext, { name, tankId, measure, everyMin, fault }: SaveProbe) {
      facts.requireTank(tankId, 'tankId', context.nowMs)
      if (store.inUse().some((row) => row.name === name.trim())) throw fieldProblem('name', 'Another probe is called so')
      const id = newId()
      store.insert({ id, name: name.trim(), tankId, measure, everyMin, fault, addedAtMs: context.nowMs, addedById: context.actor.id })
      audit.insert({ atMs: context.nowMs, staffId: context.actor.id, action: 'added', subject: `probe ${name.trim()}`, changes: {}, commandKey: context.key })
      return { id }
    },
    editProbe(context: CommandContext, { name, tankId, measure, everyMin, fault, version }: SaveProbe) {
      const now = requireProbe(context.params.probeId)
      if (now.version !== version) throw new Problem('stale', 'Somebody else changed this probe meanwhile', { current: now })
      facts.requireTank(tankId, 'tankId', context.nowMs)
      if (store.inUse().some((row) => row.id !== now.id && row.name === name.trim())) throw fieldProblem('name', 'Another probe is called so')
      store.update(now.id, { name: name.trim(), tankId, measure, everyMin, fault, version: version + 1 })
      // Somewhere else, or of something else, what it said before says nothing of it now.
      if (now.tankId !== tankId || now.measure !== measure) store.forget(now.id, context.nowMs + 1)
      audit.insert({ atMs: context.nowMs, staffId: context.actor.id, action: 'edited', subject: `probe ${now.name}`, changes: { probe: [JSON.stringify({ ...now }), JSON.stringify({ name, tankId, measure, everyMin, fault })] }, commandKey: context.key })
      return { version: version + 1 }
    },
    retireProbe(context: CommandContext, { version }: RetireProbe) {
      const now = requireProbe(context.params.probeId)
      if (now.version !== version) throw new Problem('stale', 'Somebody else changed this probe meanwhile', { current: now })
      store.update(now.id, { retiredAtMs: context.nowMs, version: version + 1 })
      audit.insert({ atMs: context.nowMs, staffId: context.actor.id, action: 'retired', subject: `probe ${now.name}`, changes: {}, commandKey: context.key })
      return {}
    },

    pollProbes(context: CommandContext) {
      const { nowMs } = context
      // Read before anything is written: after each entry what is known would be read anew.
      const tanks = facts.all(nowMs)
      const asked = store.inUse().filter((row) => isDue(row, nowMs)).flatMap((row): Asked[] => {
        const tank = tankOf(row, tanks)
        return tank ? [{ row, tank, read: readings(row, tank, tanks) }] : []
      })
      for (const { row, tank } of asked) {
        store.insertSample({ probeId: row.id, atMs: nowMs, value: probes.read(row, tank.water, nowMs) })
        store.forget(row.id, nowMs - keptMs)
      }
      return { asked: asked.length, fed: asked.filter((each) => feed(context, each)).length }
    },
  }
}
export type ProbesService = ReturnType<typeof createProbesService>
