import { choreAsks } from '../../core/chores/choreWords'
import type { ChoreAtPlace, ChoreSetUp, ChoresView, TakenFish } from '../../core/chores/choreView'
import { choresDue, nextOn, type ItemCount } from '../../core/chores/choresDue'
import type { ChangeSupplies, ChorePlace, DoChore, RetireChore, SaveChore } from '../../core/chores/chores.schema'
import { groupBy } from '../../core/collections/groupBy'
import { meets } from '../../core/commands/things'
import { byText } from '../../core/contacts/contact'
import type { TankFacts } from '../../core/facts/facts'
import { stockAfter } from '../../core/stock/stock.schema'
import { dayInZone } from '../../core/time/dayInZone'
import type { AuditStore } from '../audit/audit.store'
import type { ContactsService } from '../contacts/contacts.service'
import type { Change } from '../events/changes'
import type { FactsService } from '../facts/facts.service'
import type { CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import { newId } from '../newId'
import { dayStartIn } from '../room/dayStartIn'
import type { RegimensStore } from '../regimens/regimens.store'
import type { RoutineStore } from './routine.store'

/** What the books hold of which chores go by. */
const goesBy = ['chore', 'tank', 'bag', 'crate', 'run', 'vessel', 'stocktake', 'register', 'house', 'staff'] as const

interface Collaborators {
  store: RoutineStore
  facts: Pick<FactsService, 'all' | 'requireTank'>
  contacts: Pick<ContactsService, 'recordContact' | 'undoContact'>
  /** What was changed of a water is kept for the levels of what is in it. */
  waters: Pick<RegimensStore, 'insertChange' | 'undoChangesOf'>
  audit: AuditStore
  zone: () => string
}

/** Work that comes round by itself: what is due where, what to carry, and what was done. */
export function createRoutineService({ store, facts, contacts, waters, audit, zone }: Collaborators) {
  /** Chores, arrivals and what was last done, as they stand on a day. */
  function standing(nowMs: number) {
    const on = dayInZone(nowMs, zone())
    const chores = store.chores()
    const last = new Map(chores.flatMap(({ id, places }) => places.map((place) => [place.id, store.lastDone(id, place.id, on)] as const)))
    const counting = chores.filter(({ rule }) => rule.kind === 'arrivals')
    // Since the earliest day that still counts.
    const from = counting.flatMap(({ startOn, places }) => places.map(({ id }) => last.get(id) ?? startOn)).sort(byText)[0]
    const came = from === undefined ? [] : store.arrivals(dayStartIn(Date.parse(`${from}T12:00:00Z`), zone()))
    const arrivals = [...groupBy(came, ({ atMs }) => dayInZone(atMs, zone()))].map(([day, rows]) => ({ on: day, fish: rows.reduce((sum, { fish }) => sum + fish, 0) }))
    return { on, chores, last, arrivals }
  }

  /** What a place is called, and where it is; null where its tank or system is gone. */
  function placed({ tankId, systemId, label }: ChorePlace, tanks: ReadonlyMap<string, TankFacts>, systems: ReadonlyMap<string, string>): { place: string; tank: TankFacts | null } {
    const tank = tankId === null ? null : (tanks.get(tankId) ?? null)
    return { place: tank?.code ?? (systemId === null ? (label ?? 'a tank that is gone') : (systems.get(systemId) ?? 'a system that is gone')), tank }
  }

  /** Fish that a visit takes along, with the way to their move. */
  function taken({ fish, tankId }: ChorePlace, tanks: ReadonlyMap<string, TankFacts>): TakenFish[] {
    const names = store.speciesNames(fish.map(({ speciesId }) => speciesId))
    return fish.map(({ fromTankId, speciesId, quantity }) => {
      const from = tanks.get(fromTankId)
      const there = (from?.lots ?? []).filter((lot) => lot.speciesId === speciesId).reduce((sum, lot) => sum + lot.quantity, 0)
      const moved = encodeURIComponent(JSON.stringify([{ speciesId, strain: null, quantity: Math.min(quantity, Math.max(1, there)) }]))
      return { fromCode: from?.code ?? '', species: names.get(speciesId) ?? '', quantity, there, to: `/room/${from?.code ?? ''}/move?to=tank:${tankId ?? ''}&fish=${moved}` }
    })
  }

  function waterAt({ tankId, systemId }: ChorePlace, tanks: ReadonlyMap<string, TankFacts>): TankFacts | null {
    return [...tanks.values()].find((tank) => (tankId === null ? tank.systemId === systemId : tank.tankId === tankId) && !tank.isRetired) ?? null
  }

  function view(nowMs: number): ChoresView {
    const { on, chores, last, arrivals } = standing(nowMs)
    const [tanks, systems] = [facts.all(nowMs), store.systemNames()]
    const items = [...new Set(chores.flatMap(({ places }) => places.flatMap(({ uses }) => uses.map(({ item }) => item))))].sort(byText)
    const onHand = new Map(items.map((item) => [item, store.piecesOf(item)]))
    const asked = {
      ...{ on, arrivals },
      chores: chores.map(({ id, rule, startOn, places }) => ({ chore: id, rule, startOn, places: places.map((place) => ({ place: place.id, uses: place.uses })) })),
      done: [...last].flatMap(([place, day]) => (day === null ? [] : [{ chore: chores.find(({ places }) => places.some(({ id }) => id === place))?.id ?? '', place, on: day }])),
      stock: [...onHand].flatMap(([item, count]) => (count === null ? [] : [{ item, count }])),
    }
    const { due, carry, short } = choresDue(asked)
    const rows = due.flatMap(({ chore: id, place: placeId, dueOn, lateDays }): ChoreAtPlace[] => {
      const chore = chores.find((each) => each.id === id)
      const at = chore?.places.find((each) => each.id === placeId)
      if (!chore || !at) return []
      const { place, tank } = placed(at, tanks, systems)
      const source = at.fromTankId === null ? null : (tanks.get(at.fromTankId)?.code ?? null)
      return [{ choreId: id, placeId, chore: chore.name, kind: chore.kind, place, systemId: at.systemId, tankId: tank?.tankId ?? null, tankCode: tank?.code ?? null, dueOn, lateDays, words: choreAsks(chore.kind, at, waterAt(at, tanks)?.water ?? null, source), uses: at.uses, fish: taken(at, tanks), note: chore.note }]
    })
    const isDue = new Set(due.map(({ place }) => place))
    return {
      on,
      due: rows.sort((a, b) => b.lateDays - a.lateDays || byText(a.chore, b.chore) || byText(a.place, b.place)),
      done: store.doneOn(on).map(({ id, name, ...done }) => ({ ...done, doneId: id, chore: name })),
      carry: carry.map(({ item, count }) => ({ item, count, onHand: onHand.get(item) ?? null, missing: onHand.get(item) == null ? 0 : (short.find((each) => each.item === item)?.missing ?? 0) })),
      later: chores.flatMap(({ id, name, rule, startOn, places }) => places.filter((place) => !isDue.has(place.id)).map((place) => ({ choreId: id, chore: name, place: placed(place, tanks, systems).place, dueOn: nextOn(rule, startOn, last.get(place.id) ?? null, arrivals) }))).filter(({ choreId, dueOn }) => dueOn !== null || chores.find(({ id }) => id === choreId)?.rule.kind === 'arrivals').sort((a, b) => byText(a.dueOn ?? '9999', b.dueOn ?? '9999') || byText(a.chore, b.chore)),
      chores,
      supplies: items.map((item) => ({ item, pieces: onHand.get(item) ?? null })),
    }
  }

  let known: { on: string; view: ChoresView } | null = null
  /** As it stands; reckoned once until something it goes by is written, or a day begins: a look at a tank is none, and there are many. */
  function current(nowMs: number): ChoresView {
    const on = dayInZone(nowMs, zone())
    if (known?.on !== on) known = { on, view: view(nowMs) }
    return known.view
  }

  /** Tanks and systems that a chore names must be there. */
  function requirePlaces({ places }: SaveChore, nowMs: number): void {
    const [tanks, systems] = [facts.all(nowMs), store.systemNames()]
    const isTank = (id: string | null): boolean => id === null || tanks.get(id)?.isRetired === false
    for (const [index, { tankId, systemId, fromTankId, fish }] of places.entries()) {
      if (!isTank(tankId)) throw fieldProblem(`places[${index}].tankId`, 'There is no such tank')
      if (!isTank(fromTankId)) throw fieldProblem(`places[${index}].fromTankId`, 'There is no such tank')
      if (systemId !== null && !systems.has(systemId)) throw fieldProblem(`places[${index}].systemId`, 'There is no such system')
      const known = store.speciesNames(fish.map(({ speciesId }) => speciesId))
      if (fish.some((each) => !isTank(each.fromTankId) || !known.has(each.speciesId))) throw fieldProblem(`places[${index}].fish`, 'There are no such fish')
    }
  }

  function requireChore(id: string | undefined): ChoreSetUp {
    const found = store.chore(id ?? '')
    if (!found || found.isRetired) throw new Problem('not-found', 'There is no such chore')
    return found
  }
  const rowOf = ({ name, kind, rule, startOn, places, note }: SaveChore) => ({ name: name.trim(), kind, rule: JSON.stringify(rule), startOn, places: JSON.stringify(places), note })

  /** Takes consumables off the store room, where they are counted: never below none. */
  function use({ actor, key, nowMs }: CommandContext, { item, count }: ItemCount, doneId: string): void {
    const now = store.piecesOf(item)
    if (now !== null) store.insertStock({ item, pieces: -Math.min(now, count), after: Math.max(0, now - count), why: 'used', doneId, staffId: actor.id, commandKey: key, atMs: nowMs })
  }

  /** Water of another tank makes a contact between both. */
  function contactOf(context: CommandContext, at: ChorePlace, happenedAtMs: number): string | null {
    const to = at.fromTankId === null ? null : waterAt(at, facts.all(context.nowMs))
    const from = at.fromTankId === null ? null : facts.all(context.nowMs).get(at.fromTankId)
    if (!to || !from || from.isRetired || from.water.id === to.water.id) return null
    return contacts.recordContact(context, { kind: 'water', fromTankId: from.tankId, toTankId: to.tankId, litres: at.litres, note: null, happenedAtMs }).id
  }

  /** What is in a water falls by its change; by water out of another one in which something is, nobody knows how much. */
  function keepChange({ actor, key, nowMs }: CommandContext, at: ChorePlace, choreDoneId: string, happenedAtMs: number): void {
    const tanks = facts.all(nowMs)
    const [water, from] = [waterAt(at, tanks), at.fromTankId === null ? null : tanks.get(at.fromTankId)]
    if (at.litres === null || !water || (from && from.agents.length > 0)) return
    waters.insertChange({ id: newId(), tankId: water.tankId, litres: at.litres, choreDoneId, staffId: actor.id, commandKey: key, happenedAtMs, recordedAtMs: nowMs })
  }

  /** Its contact never happened; somebody may have taken that back already. */
  function undoContact(context: CommandContext, contactId: string): void {
    try {
      contacts.undoContact({ ...context, params: { contactId } }, { happenedAtMs: context.nowMs })
    } catch (error) {
      if (!(error instanceof Problem && error.code === 'not-found')) throw error
    }
  }

  return {
    view: current,
    listen({ touched }: Pick<Change, 'touched'>): void {
      if (meets(touched, goesBy)) known = null
    },
    addChore(context: CommandContext, input: SaveChore) {
      requirePlaces(input, context.nowMs)
      const id = newId()
      store.insert({ id, ...rowOf(input) })
      audit.insert({ atMs: context.nowMs, staffId: context.actor.id, action: 'added', subject: `chore ${input.name.trim()}`, changes: {}, commandKey: context.key })
      return { id }
    },
    editChore(context: CommandContext, input: SaveChore) {
      const now = requireChore(context.params.choreId)
      if (now.version !== input.version) throw new Problem('stale', 'Somebody else changed this chore meanwhile', { current: now })
      requirePlaces(input, context.nowMs)
      const row = rowOf(input)
      store.update(now.id, { ...row, version: now.version + 1 })
      audit.insert({ atMs: context.nowMs, staffId: context.actor.id, action: 'edited', subject: `chore ${now.name}`, changes: { chore: [JSON.stringify(now), JSON.stringify(row)] }, commandKey: context.key })
      return { version: now.version + 1 }
    },
    retireChore(context: CommandContext, { version }: RetireChore) {
      const now = requireChore(context.params.choreId)
      if (now.version !== version) throw new Problem('stale', 'Somebody else changed this chore meanwhile', { current: now })
      store.update(now.id, { retiredAtMs: context.nowMs, version: version + 1 })
      audit.insert({ atMs: context.nowMs, staffId: context.actor.id, action: 'retired', subject: `chore ${now.name}`, changes: {}, commandKey: context.key })
      return {}
    },

    doChore(context: CommandContext, { placeId, happenedAtMs }: DoChore) {
      const { id: choreId, kind, places } = requireChore(context.params.choreId)
      const at = places.find(({ id }) => id === placeId)
      if (!at) throw fieldProblem('placeId', 'This chore has no such place')
      const doneMs = Math.min(happenedAtMs, context.nowMs)
      const doneOn = dayInZone(doneMs, zone())
      const same = store.sameDone(choreId, placeId, doneOn)
      if (same !== null) return { id: same }
      const id = newId()
      const { place } = placed(at, facts.all(context.nowMs), store.systemNames())
      store.insertDone({ id, choreId, placeId, place, doneOn, staffId: context.actor.id, commandKey: context.key, happenedAtMs: doneMs, contactId: contactOf(context, at, doneMs) })
      for (const each of at.uses) use(context, each, id)
      if (kind === 'water change') keepChange(context, at, id, doneMs)
      return { id }
    },
    undoChore(context: CommandContext) {
      const done = store.done(context.params.doneId ?? '')
      if (!done) throw new Problem('not-found', 'There is nothing of this kind to take back')
      if (done.undoneAtMs !== null) return {}
      for (const { item, pieces } of store.usedBy(done.id)) if (pieces > 0) store.insertStock({ item, pieces, after: (store.piecesOf(item) ?? 0) + pieces, why: 'not used', doneId: done.id, staffId: context.actor.id, commandKey: context.key, atMs: context.nowMs })
      if (done.contactId !== null) undoContact(context, done.contactId)
      waters.undoChangesOf({ choreDoneId: done.id }, { undoneAtMs: context.nowMs, undoneById: context.actor.id })
      store.undo(done.id, { undoneAtMs: context.nowMs, undoneById: context.actor.id })
      return {}
    },
    changeSupplies({ actor, key, nowMs }: CommandContext, { item, why, pieces }: ChangeSupplies) {
      const name = item.trim()
      const now = store.piecesOf(name) ?? 0
      const after = stockAfter(now, why, pieces)
      if (after === null) throw fieldProblem('pieces', `Only ${now} are in the books: count them first`)
      store.insertStock({ item: name, pieces: after - now, after, why, staffId: actor.id, commandKey: key, atMs: nowMs })
      return { pieces: after }
    },
  }
}
export type RoutineService = ReturnType<typeof createRoutineService>
