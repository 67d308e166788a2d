import type { TankFacts } from '../../core/facts/facts'
import { planState, type PlanState } from '../../core/plans/planState'
import { factsOf, type KnownFacts, type PlanFact, type Wait } from '../../core/plans/planFacts'
import { factWords, waitWords, type PlanNames } from '../../core/plans/planWords'
import type { CountThing, EndPlan, MakePlan, PlanFactInput, RecordLength } from '../../core/plans/plans.schema'
import type { PlanChoices, PlansView, PlanView, ToMeasure } from '../../core/plans/planView'
import { asPlan, countedOn, fishOfPlan, unitOfFish, unitsOf, type PlannedKind, type StoredPlan } from '../../core/plans/pooledPlans'
import type { RuleRefusal } from '../../core/placing/ruleRefusal'
import type { Booking } from '../../core/tankChoice/bookings'
import { dayInZone } from '../../core/time/dayInZone'
import { capital } from '../../core/words/capital'
import type { FactsService } from '../facts/facts.service'
import { requireFreshPin, type CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import { createKnownFacts, type KnownCollaborators } from './knownFacts'
import type { KindRow, PlanRow, PlansStore } from './plans.store'

const dayMs = 86_400_000
/** Plans that ended stay in the list for so long, and a move can be taken back so long. */
const shownDays = 30

interface Collaborators extends KnownCollaborators {
  store: PlansStore
  facts: Pick<FactsService, 'all' | 'holdOn' | 'requireTank'>
}

/** How plans stand at a moment, and what they were held against. */
interface Standing {
  rows: PlanRow[]
  stock: KindRow[]
  units: Map<string, string>
  known: KnownFacts
  states: Map<string, PlanState>
  deadlocks: string[][]
  /** What they have reserved, once somebody asked. */
  booked?: readonly (Booking & { tankId: string })[]
}

/** Fish that plans count on in a place. */
export interface BookedByPlan {
  by: string
  n: number
}

/** Moves that wait for a day or a fact: what each waits for, and what it has reserved until then. */
export function createPlansService({ store, facts, rules, zone }: Collaborators) {
  const knownFacts = createKnownFacts({ store, facts, rules, zone })
  let kept: { version: string; minute: number; standing: Standing } | null = null

  /** Plans are looked at anew after whatever was written and with every minute: there are few, and they go by the day. */
  function standing(nowMs: number): Standing {
    const [version, minute] = [store.version(), Math.floor(nowMs / 60_000)]
    if (kept?.version !== version || kept.minute !== minute) kept = { version, minute, standing: reckon(store.plans(nowMs - shownDays * dayMs), nowMs) }
    return kept.standing
  }

  function reckon(rows: PlanRow[], nowMs: number): Standing {
    const open = rows.filter(({ state }) => state === 'open')
    if (open.length === 0) return { rows, stock: [], units: new Map(), known: {}, states: new Map(rows.map(({ id, state }) => [id, { id, state: state === 'open' ? 'waiting' : state, waits: [] }])), deadlocks: [] }
    const asked = open.flatMap(({ when }) => factsOf(when))
    const named = asked.flatMap((fact) => (fact.is === 'done' ? [fact.plan] : []))
    const missing = named.filter((id) => !rows.some((row) => row.id === id))
    const all = missing.length > 0 ? store.plans(nowMs - shownDays * dayMs, missing) : rows
    const stock = store.stock()
    const units = unitsOf(stock)
    const known = knownFacts(stock, units, asked, nowMs)
    const { plans, deadlocks } = planState({ plans: all.map((row) => asPlan(row, stock, units)), facts: known, today: dayInZone(nowMs, zone()) }, rules())
    return { rows: all, stock, units, known, states: new Map(plans.map((each) => [each.id, each])), deadlocks }
  }

  function namesIn({ rows, stock, units }: Pick<Standing, 'rows' | 'stock' | 'units'>): PlanNames {
    const codes = store.tankCodes()
    const kinds = new Map(stock.flatMap(({ lot, species }) => [[lot, species], [units.get(lot) ?? lot, species]] as [string, string][]))
    for (const { fish } of rows) for (const { lotIds, name } of fish as (PlannedKind & { name?: string })[]) for (const lot of lotIds) if (!kinds.has(lot) && name) kinds.set(lot, name)
    const crates = new Map(store.crates(rows.flatMap(({ when }) => factsOf(when).flatMap((fact) => (fact.is === 'crate' ? [fact.crate] : [])))).map(({ id, number }) => [id, number]))
    const numbers = new Map(rows.map(({ id, number }) => [id, number]))
    return { place: (id) => codes.get(id) ?? 'a bucket or box', fish: (lot) => kinds.get(lot) ?? 'fish', crate: (id) => `crate ${crates.get(id) ?? '?'}`, plan: (id) => `plan ${numbers.get(id) ?? '?'}` }
  }

  /** Plans that hold fish and a place: open ones that can still be, and do not count on what another has. */
  const holding = ({ rows, states }: Standing): PlanRow[] => rows.filter(({ id }) => ['stuck', 'ready', 'ask', 'waiting'].includes(states.get(id)?.state ?? ''))

  function viewOf(row: PlanRow, now: Standing, names: PlanNames, tanks: ReadonlyMap<string, TankFacts>): PlanView {
    const { state = 'waiting', waits = [] } = now.states.get(row.id) ?? {}
    const asked = factsOf(asPlan(row, now.stock, now.units).when)
    return {
      ...{ id: row.id, number: row.number, state, takes: row.takes, untilOn: row.untilOn, note: row.note, madeBy: row.madeBy, madeAtMs: row.madeAtMs },
      from: { id: row.fromTankId, code: row.fromCode },
      to: { id: row.toTankId, code: row.toCode },
      fish: row.fish.map((fish) => ({ ...fish, name: kindWords(fish, now.stock) })),
      join: 'any' in row.when ? 'any' : 'all',
      facts: asked.map((fact) => factWords(fact, names)),
      waits: waits.map((wait) => waitWords(wait, names)),
      measure: waits.flatMap((wait) => toMeasure(wait, row, now, tanks)),
      readAt: [...new Set(waits.flatMap((wait) => (wait.code === 'reading' ? [names.place(String(wait.water))] : [])))],
      things: asked.flatMap((fact) => (fact.is === 'thing' ? [{ name: fact.thing, n: fact.n, have: now.known.things?.[fact.thing] ?? null }] : [])),
      deadlock: (now.deadlocks.find((set) => set.includes(row.id)) ?? []).filter((id) => id !== row.id).map(names.plan),
      ended: row.endedAtMs === null ? null : { by: row.endedBy ?? '', atMs: row.endedAtMs },
    }
  }

  const kindWords = ({ lotIds, strain, ...fish }: PlannedKind & { name?: string }, stock: readonly KindRow[]): string => {
    const known = stock.find(({ lot }) => lotIds.includes(lot))
    return known ? `${known.species}${known.strain ? ` (${known.strain})` : ''}` : `${fish.name ?? 'fish'}${strain ? ` (${strain})` : ''}`
  }

  /** Tanks in which somebody has to hold a ruler to fish of a plan. */
  function toMeasure(wait: Wait, row: StoredPlan, { stock, units }: Standing, tanks: ReadonlyMap<string, TankFacts>): ToMeasure[] {
    if (wait.code !== 'size' || typeof wait.lot !== 'string') return []
    const fish = row.fish.find((each) => unitOfFish(each, row.fromTankId, stock, units) === wait.lot)
    const tank = tanks.get(row.fromTankId)
    const there = tank?.lots.find(({ lotId }) => units.get(lotId) === wait.lot)
    return fish && tank && there ? [{ tankCode: tank.code, tankId: tank.tankId, speciesId: fish.speciesId, strain: fish.strain, species: there.species }] : []
  }

  /** Which fish a plan is of: those that stand there, else those that a plan before it brings. */
  function fishOf(input: MakePlan, nowMs: number): (PlannedKind & { name: string })[] {
    const { rows } = standing(nowMs)
    const stock = store.stock()
    const before = input.facts.flatMap(({ is, planId }) => (is === 'done' ? rows.filter(({ id, toTankId }) => id === planId && toTankId === input.fromTankId) : []))
    return input.fish.map(({ speciesId, strain, lotIds = [], quantity }, index) => {
      const here = stock.filter((row) => row.place === input.fromTankId && row.speciesId === speciesId && row.strain === strain && (lotIds.length === 0 || lotIds.includes(row.lot)))
      const brought = before.flatMap(({ fish }) => fish.filter((each) => each.speciesId === speciesId && each.strain === strain))
      const lots = [...new Set([...here.map(({ lot }) => lot), ...brought.flatMap((each) => each.lotIds)])]
      if (lots.length === 0) throw fieldProblem(`fish[${index}].quantity`, 'None of these fish stand there, and no plan that this one waits for brings them')
      const most = [...here.map(({ n }) => n), ...brought.map((each) => each.quantity)].reduce((sum, each) => sum + each, 0)
      if (quantity > most) throw fieldProblem(`fish[${index}].quantity`, `Only ${most} of these are there, or come there by a plan before`)
      return { speciesId, strain, lotIds: lots, quantity, name: stock.find(({ lot }) => lots.includes(lot))?.species ?? '' }
    })
  }

  /** Facts as they are kept; beside the field where what they name is not there. */
  function toFacts({ is, on, tankId, cm, by, crateId, thing, n, reading, min, max, planId }: PlanFactInput, index: number, fish: readonly PlannedKind[], nowMs: number): PlanFact[] {
    const path = `facts[${index}]`
    switch (is) {
      case 'date':
        return [{ is, on: on ?? '' }]
      case 'empty':
      case 'free':
        return [{ is, place: facts.requireTank(tankId ?? '', `${path}.tankId`, nowMs).tankId }]
      case 'count':
        return [{ is, place: facts.requireTank(tankId ?? '', `${path}.tankId`, nowMs).tankId, atMost: n ?? 0 }]
      case 'size':
        return fish.map(({ lotIds }) => ({ is, lot: lotIds[0] ?? '', cm: cm ?? 0, by: by ?? 'entered' }))
      case 'hold':
        return fish.map(({ lotIds }) => ({ is, lot: lotIds[0] ?? '' }))
      case 'crate':
        if (!store.crates([]).some(({ id }) => id === crateId)) throw fieldProblem(`${path}.crateId`, 'There is no such open crate')
        return [{ is, crate: crateId ?? '' }]
      case 'reading':
        return [{ is, water: facts.requireTank(tankId ?? '', `${path}.tankId`, nowMs).tankId, kind: reading ?? '', ...(typeof min === 'number' ? { min } : {}), ...(typeof max === 'number' ? { max } : {}) }]
      case 'thing':
        return [{ is, thing: (thing ?? '').trim(), n: n ?? 0 }]
      case 'done':
        if (!standing(nowMs).rows.some(({ id, state }) => id === planId && state === 'open')) throw fieldProblem(`${path}.planId`, 'There is no such open plan')
        return [{ is, plan: planId ?? '' }]
    }
  }

  /** A plan that could never go, or counts on what another has, is made by a lead alone, with the reason: whether one was given. */
  function refuse({ actor }: CommandContext, stored: PlanRow, now: Standing, override: string | null | undefined): boolean {
    const { state, waits = [] } = now.states.get(stored.id) ?? {}
    if (state !== 'double' && state !== 'stuck' && state !== 'impossible') return false
    const names = namesIn(now)
    const set = now.deadlocks.find((each) => each.includes(stored.id)) ?? []
    const why = state === 'stuck' ? `it would wait for ever${set.length > 1 ? ` with ${set.filter((id) => id !== stored.id).map(names.plan).join(', ')}: one of them needs a third place` : ''}` : waits.filter(({ code }) => code.startsWith('fish-') || code.startsWith('place-')).map((wait) => waitWords(wait, names)).join('; ') || waits.map((wait) => waitWords(wait, names)).join('; ')
    if (actor.role === 'lead' && state !== 'impossible' && override?.trim()) {
      requireFreshPin(actor)
      return true
    }
    const mayOverrule = state !== 'impossible'
    const message = `${capital(why)}. ${!mayOverrule ? 'Plan it otherwise.' : actor.role === 'lead' ? 'Say why it is kept all the same.' : 'A lead may keep it all the same, with a reason.'}`
    const current: RuleRefusal = { rules: [{ code: state === 'stuck' ? 'plan-stuck' : 'plan-double', why }], tank: { id: stored.toTankId, code: stored.toCode }, unsaid: [], mayOverrule }
    throw new Problem('breaks-rule', message, { errors: [{ path: 'facts', message }], current })
  }

  function requirePlan(id: string, nowMs: number): PlanRow {
    const row = store.plans(nowMs - shownDays * dayMs, [id]).find((each) => each.id === id)
    if (!row) throw new Problem('not-found', 'There is no such plan')
    return row
  }

  return {
    /** Open plans, and those that ended of late. */
    view(nowMs: number): PlansView {
      const now = standing(nowMs)
      // Whatever is due asks after every touch; names of nothing are not looked up.
      if (now.rows.length === 0) return { plans: [] }
      const [names, tanks] = [namesIn(now), facts.all(nowMs)]
      return { plans: now.rows.map((row) => viewOf(row, now, names, tanks)) }
    },

    choices(nowMs: number): PlanChoices {
      const open = standing(nowMs).rows.filter(({ state }) => state === 'open')
      return {
        crates: store.crates([]).filter(({ state }) => state === 'expected').map(({ id, number, supplier }) => ({ id, number, supplier })),
        things: store.things().map(({ name, have }) => ({ name, have })),
        plans: open.map(({ id, number, fromCode, toCode }) => ({ id, number, words: `plan ${number}: ${fromCode} to ${toCode}` })),
      }
    },

    /** What each plan has reserved of a tank. */
    bookings(nowMs: number): readonly (Booking & { tankId: string })[] {
      const now = standing(nowMs)
      // Every tank of a choice asks; what is reserved is gathered once.
      now.booked ??= holding(now).map((row) => ({
        ...{ id: row.id, tankId: row.toTankId, plan: `plan ${row.number}`, takes: row.takes, isReady: now.states.get(row.id)?.state === 'ready', isPlan: true },
        fish: row.fish.flatMap((fish) => fishOfPlan(fish, row.fromTankId, now.stock)).map(({ lot, species, n }) => ({ lotId: lot, species, quantity: n })),
      }))
      return now.booked
    },

    /**
     * Fish that plans count on in a place, of each lot of these that go: what others of their pool leave is counted first,
     * so that nobody is warned of fish that are enough for all.
     */
    fishBooked(placeId: string, going: readonly { lotId: string; quantity: number }[], nowMs: number): Map<string, BookedByPlan[]> {
      const now = standing(nowMs)
      const booked = new Map<string, BookedByPlan[]>()
      for (const row of holding(now).filter(({ fromTankId }) => fromTankId === placeId)) {
        for (const fish of row.fish) {
          const unit = unitOfFish(fish, placeId, now.stock, now.units)
          const pool = now.stock.filter((each) => each.place === placeId && now.units.get(each.lot) === unit)
          const leaving = (lot: string): number => going.filter(({ lotId }) => lotId === lot).reduce((sum, { quantity }) => sum + quantity, 0)
          const parts = countedOn(fish.quantity, pool, leaving)
          for (const [lot, n] of parts) if (n > 0) booked.set(lot, [...(booked.get(lot) ?? []), { by: `plan ${row.number}`, n }])
        }
      }
      return booked
    },

    /** How a plan is called in the check of the move that carries it out; null where there is none. */
    wordOf: (planId: string | null | undefined, nowMs: number): string | null => (planId ? `plan ${standing(nowMs).rows.find(({ id }) => id === planId)?.number ?? '?'}` : null),

    make(context: CommandContext, input: MakePlan) {
      const { nowMs, actor, key } = context
      const [from, to] = [facts.requireTank(input.fromTankId, 'fromTankId', nowMs), facts.requireTank(input.toTankId, 'toTankId', nowMs)]
      if (from.tankId === to.tankId) throw fieldProblem('toTankId', 'They are there already')
      const fish = fishOf(input, nowMs)
      const asked = input.facts.flatMap((fact, index) => toFacts(fact, index, fish, nowMs))
      const number = store.nextNumber()
      const when = input.join === 'any' ? { any: asked } : { all: asked }
      const id = store.insert({ number, fromTankId: from.tankId, toTankId: to.tankId, fish, when, takes: input.takes, untilOn: input.untilOn, note: input.note?.trim() || null, staffId: actor.id, commandKey: key, madeAtMs: nowMs })
      // Held against every other plan as it will stand; refused, the transaction leaves nothing of it.
      const now = standing(nowMs)
      const made = now.rows.find((row) => row.id === id)
      if (made && refuse(context, made, now, input.override)) store.keepNote(id, [made.note, `kept because ${input.override?.trim()}`].filter(Boolean).join('; '))
      return { id, number }
    },

    end({ params, actor, nowMs }: CommandContext, { as }: EndPlan) {
      const row = requirePlan(params.planId ?? '', nowMs)
      if (as === row.state) throw new Problem('conflict', as === 'open' ? `Plan ${row.number} is open` : `Plan ${row.number} is ${as} already`)
      if (as === 'open') store.end(row.id, { endedAs: null, endedKey: null, endedById: null, endedAtMs: null })
      else store.end(row.id, { endedAs: as, endedKey: null, endedById: actor.id, endedAtMs: nowMs })
      return {}
    },

    /** Fish of a plan were moved as it says: it is done, until that is taken back. With fewer it stays open. */
    carriedOut({ actor, key, nowMs }: CommandContext, planId: string, moved: { fromId: string; toId: string; fish: readonly { speciesId: string; strain: string | null; quantity: number }[] }): void {
      const row = requirePlan(planId, nowMs)
      if (row.state !== 'open') throw fieldProblem('planId', `Plan ${row.number} is ${row.state} already`)
      if (row.fromTankId !== moved.fromId || row.toTankId !== moved.toId) throw fieldProblem('planId', `Plan ${row.number} goes from ${row.fromCode} to ${row.toCode}`)
      const isWhole = row.fish.every(({ speciesId, strain, quantity }) => moved.fish.some((each) => each.speciesId === speciesId && each.strain === strain && each.quantity >= quantity))
      if (isWhole) store.end(row.id, { endedAs: 'moved', endedKey: key, endedById: actor.id, endedAtMs: nowMs })
    },

    countThing({ actor, nowMs }: CommandContext, { thing, have }: CountThing) {
      store.keepThing({ name: thing?.trim() ?? '', have, countedById: actor.id, countedAtMs: nowMs })
      return {}
    },

    /** Somebody held a ruler to fish of a kind: every lot of it in that tank is about so long. */
    recordLength({ params, actor, key, nowMs }: CommandContext, { speciesId, strain, cm, happenedAtMs }: RecordLength) {
      const tank = facts.requireTank(params.tankId ?? '', 'tankId', nowMs)
      const lots = tank.lots.filter((lot) => lot.speciesId === speciesId && lot.noted.strain === strain)
      if (lots.length === 0) throw fieldProblem('speciesId', 'None of these fish stand in this tank now')
      for (const { lotId } of lots) store.insertLength({ lotId, cm: cm ?? 0, atMs: happenedAtMs, staffId: actor.id, commandKey: key, recordedAtMs: nowMs })
      return {}
    },
  }
}
export type PlansService = ReturnType<typeof createPlansService>
