import { contactKinds, isTool, minuteOf, type Contact, type ContactKind } from '../../core/contacts/contact'
import { indexContacts, type ContactIndex } from '../../core/contacts/contactIndex'
import type { BeginBath, ClearWater, EndBath, EndContact, RecordContact, UndoContact, UseTools } from '../../core/contacts/contacts.schema'
import { foldBags } from '../../core/contacts/foldBags'
import { contactWords } from '../../core/contacts/contactWords'
import type { ChainStep, NodeView, ReachedLotView, ReachedView, ToolView, TraceView } from '../../core/contacts/contactView'
import { sourceMeetings, type Meeting } from '../../core/contacts/meetings'
import { staysOf } from '../../core/contacts/staysOf'
import { toolState, type ToolState } from '../../core/contacts/toolState'
import { sourceKnown } from '../../core/contacts/sourceKnown'
import { traceContacts } from '../../core/contacts/trace'
import { groupBy } from '../../core/collections/groupBy'
import type { MoveRules } from '../../core/moves/moveRules'
import type { FactsService } from '../facts/facts.service'
import type { CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import { newId } from '../newId'
import type { VesselWater } from '../vessels/vessels.store'
import type { ContactsStore, MoveRow } from './contacts.store'

const [minuteMs, dayMs] = [60_000, 86_400_000]
/** So many windows are kept in order. */
const keptWindows = 3
const toMs = (minute: number): number => minute * minuteMs

interface Collaborators {
  store: ContactsStore
  facts: Pick<FactsService, 'all' | 'requireTank' | 'holdOn'>
  /** Whose water was in buckets and boxes, in the order of time. */
  vesselWaters: () => readonly VesselWater[]
  rules: () => MoveRules
}

/** What is asked of a trace, as words of an address. */
export interface TraceAsked {
  start: string | null
  direction: string | null
  days: string | null
  hops: string | null
  kinds: string | null
}

/** The id in the name of a node: of `water:ID`, `lot:ID`, `tools:ID`. */
const idOf = (node: string): string => node.slice(node.indexOf(':') + 1)

/** Everything recorded in a window, ordered for questions. */
interface Recorded {
  index: ContactIndex
  moves: ReadonlyMap<string, MoveRow>
  contacts: ReadonlyMap<string, Contact>
  /** Which sources met, once somebody asked. */
  meetings?: Meeting[]
}

/** Every node that chains go through. */
const through = (reached: readonly ReachedView[]): string[] => [...new Set(reached.flatMap(({ node, chain }) => [node, ...chain.flatMap(({ from, to }) => [from, to])]))]

/** Everything that chains go through, by name. */
function nodesOf(reached: readonly ReachedView[], nameOf: (node: string) => NodeView): NodeView[] {
  const named = new Map(reached.map(({ node, name, tanks }) => [node, { node, name, tanks }]))
  return through(reached).map((node) => named.get(node) ?? nameOf(node))
}

/** What somebody writes down of waters and tools that met, and what can have travelled between them. */
export function createContactsService({ store, facts, vesselWaters, rules }: Collaborators) {
  /** The water of a place at a moment: of a tank its system or itself, of a bucket or box the one it had then, of bags their own. */
  function waters(nowMs: number): (placeId: string, atMs: number) => string {
    const tanks = facts.all(nowMs)
    const ofVessels = groupBy(vesselWaters(), ({ vesselId }) => vesselId)
    return (placeId, atMs) => {
      const had = ofVessels.get(placeId)?.findLast((each) => each.atMs <= atMs)?.tankId
      return `water:${tanks.get(had ?? placeId)?.water.id ?? placeId}`
    }
  }
  const waterOfTank = (tankId: string, path: string, nowMs: number): string => `water:${facts.requireTank(tankId, path, nowMs).water.id}`

  /** Windows that were asked of last: what traces ask, and what the check of moves does. */
  let kept: { version: string; fromMs: number; toMs: number; recorded: Recorded }[] = []
  /** What was recorded in a window; ordered once until something is written. */
  function recordedIn(fromMs: number, toMs: number, nowMs: number): Recorded {
    const version = store.version()
    const known = kept.find((each) => each.version === version && each.fromMs === fromMs && each.toMs === toMs)
    if (known) return known.recorded
    const waterOf = waters(nowMs)
    // What happened within the last minute is part of it.
    const endMs = toMs + minuteMs - 1
    const moves = new Map(store.moves(fromMs, endMs).map((row) => [row.id, row]))
    const contacts: Contact[] = [
      ...[...moves.values()].flatMap(({ id, atMs, fromPlaceId, toPlaceId, isPlanned }): Contact[] => {
        const [from, to] = [waterOf(fromPlaceId, atMs), waterOf(toPlaceId, atMs)]
        return from === to ? [] : [{ id, at: minuteOf(atMs), kind: 'move', from, to, both: false, planned: isPlanned === 1 }]
      }),
      ...store.bagWater(fromMs, endMs).map(({ id, runId, tankId, atMs }): Contact => ({ id, at: minuteOf(atMs), kind: 'water', from: `water:${runId}`, to: waterOf(tankId, atMs), both: false, planned: true })),
      ...store.written(fromMs, endMs).map(({ id, kind, atMs, untilMs, fromNode, toNode, isBoth, isPlanned }): Contact => {
        // Two waters that are joined still are so until somebody says otherwise.
        const until = untilMs ?? (kind === 'joined' ? Math.max(atMs, nowMs) : null)
        return { id, at: minuteOf(atMs), ...(until === null ? {} : { until: minuteOf(until) }), kind, from: fromNode, to: toNode, both: isBoth === 1, planned: isPlanned === 1 }
      }),
    ]
    const flows = store.flows(fromMs).map(({ atMs, place, lot, fish }) => ({ at: minuteOf(atMs), place, lot, fish }))
    const stays = staysOf(store.standing(), flows, minuteOf(fromMs)).map((stay) => ({ ...stay, water: waterOf(stay.water, stay.from * minuteMs) }))
    const recorded = { index: indexContacts({ contacts, stays, clears: store.clears(fromMs, endMs) }), moves, contacts: new Map(contacts.map((each) => [each.id, each])) }
    kept = [{ version, fromMs, toMs, recorded }, ...kept.filter((each) => each.version === version)].slice(0, keptWindows)
    return recorded
  }

  /** Names of nodes, as people call them. */
  function naming(nowMs: number): (node: string) => NodeView {
    const tanks = [...facts.all(nowMs).values()].filter(({ isRetired }) => !isRetired)
    const systems = new Map(store.systems().map(({ id, name }) => [id, name]))
    const sets = new Map(store.toolSets().map(({ id, name }) => [id, name]))
    return (node) => {
      const id = idOf(node)
      if (isTool(node)) return { node, name: sets.get(id) ?? 'a tool set', tanks: [] }
      const codes = tanks.filter(({ water }) => water.id === id).map(({ code }) => code)
      return { node, name: systems.get(id) ?? codes[0] ?? store.placeName(id) ?? 'a water', tanks: codes }
    }
  }

  function readAsked({ start, direction, days, hops, kinds }: TraceAsked, nowMs: number) {
    const [what = '', id = ''] = (start ?? '').split(':')
    if (!['tank', 'lot', 'tools'].includes(what) || id === '') throw fieldProblem('start', 'Say where to begin: tank:…, lot:… or tools:…')
    const span = days === null ? rules().traceBackDays : Number(days)
    if (!(span >= 1 && span <= 3650)) throw fieldProblem('days', 'Days must be 1 to 3650')
    const most = hops === null ? null : Number(hops)
    if (most !== null && !(Number.isInteger(most) && most >= 0)) throw fieldProblem('hops', 'Hops must be a whole number')
    const asked = kinds === null ? null : contactKinds.filter((kind) => kinds.split(',').includes(kind))
    if (asked?.length === 0) throw fieldProblem('kinds', `Kinds must be of: ${contactKinds.join(', ')}`)
    // Whole minutes, so that one question is one question for a while.
    const toMinute = minuteOf(nowMs)
    return { node: what === 'tank' ? waterOfTank(id, 'start', nowMs) : start ?? '', direction: direction === 'backward' ? ('backward' as const) : ('forward' as const), fromMs: toMs(toMinute) - span * dayMs, toMs: toMs(toMinute), maxHops: most, kinds: asked as readonly ContactKind[] | null }
  }

  function chainStep(id: string, { moves, contacts }: Recorded, nameOf: (node: string) => NodeView): ChainStep[] {
    const contact = contacts.get(id)
    if (!contact) return []
    const { kind, from, to, at, planned } = contact
    const move = moves.get(id)
    const words = contactWords({ kind, from: nameOf(from).name, to: nameOf(to).name, ...(move ? { quantity: move.quantity, species: move.species } : {}) })
    return [{ id, kind, from, to, atMs: toMs(at), words, isPlanned: planned }]
  }

  /** Writes a contact down, once per key. */
  function insert({ actor, key, nowMs }: CommandContext, row: Pick<RecordContact, 'note'> & { kind: Exclude<ContactKind, 'move'>; fromNode: string; toNode: string; isBoth: boolean; isPlanned: boolean; litres?: number | null; atMs: number; untilMs?: number | null }): { id: string } {
    const id = newId()
    store.insert({ ...row, id, isBoth: Number(row.isBoth), isPlanned: Number(row.isPlanned), staffId: actor.id, commandKey: key, recordedAtMs: nowMs })
    return { id }
  }

  function requireContact(id: string) {
    const row = store.byId(id)
    if (!row || row.undoneAtMs !== null) throw new Problem('not-found', 'There is no such contact')
    return row
  }

  return {
    /** Where what was in a water, in a lot or on a tool set can have got to, or where it can have come from. */
    trace(query: TraceAsked, nowMs: number): TraceView {
      const asked = readAsked(query, nowMs)
      const recorded = recordedIn(asked.fromMs, asked.toMs, nowMs)
      const nameOf = naming(nowMs)
      const tanks = [...facts.all(nowMs).values()].filter(({ isRetired }) => !isRetired)
      const known = new Map(store.lots([...new Set(recorded.index.stays.map(({ lot }) => lot))]).map((lot) => [lot.id, lot]))
      const { direction } = asked
      const trace = traceContacts(recorded.index, {
        ...{ start: asked.node, direction, from: minuteOf(asked.fromMs), to: minuteOf(asked.toMs), kinds: asked.kinds, maxHops: asked.maxHops },
        zones: Object.fromEntries(tanks.map(({ water, zoneId }) => [`water:${water.id}`, zoneId])),
        sources: Object.fromEntries([...known.values()].map(({ id, origin }) => [id, sourceKnown(origin)])),
      })
      const standing = (lotId: string): string[] => tanks.filter(({ lots, perhaps }) => [...lots, ...perhaps].some((lot) => lot.lotId === lotId)).map(({ code }) => code)
      const lots = trace.lots.flatMap(({ lot, hops, at, anyAt }): ReachedLotView[] => {
        const row = known.get(lot)
        const hold = facts.holdOn(lot, nowMs)
        const isHeld = direction === 'forward' && hold !== null && !hold.isServed && toMs(anyAt) <= nowMs
        return row ? [{ lotId: lot, lotCode: row.code, species: row.species, origin: row.origin, hops, atMs: toMs(at), tanks: standing(lot), hold: isHeld ? { day: hold.day, of: hold.of } : null }] : []
      })
      const told = trace.reached.map(({ node, hops, at, anyAt, chain, isCleared }) => ({ ...nameOf(node), hops, atMs: toMs(at), anyAtMs: toMs(anyAt), isCleared, chain: chain.flatMap((id) => chainStep(id, recorded, nameOf)) }))
      const reached = foldBags(told, store.bags(through(told).map(idOf)))
      return {
        ...{ start: startView(asked.node, known, nameOf), direction, fromMs: asked.fromMs, toMs: asked.toMs, lots, sources: trace.sources, sameTools: trace.sameTools.map(nameOf) },
        ...{ reached, nodes: nodesOf(reached, nameOf) },
        joined: store.joinedTo(asked.node).map(({ id, fromNode, toNode }) => ({ contactId: id, name: nameOf(fromNode === asked.node ? toNode : fromNode).name })),
      }
    },

    /** Which sources have met so far, by all that is recorded in the window of a pairing. */
    meetings(nowMs: number): Meeting[] {
      const to = toMs(minuteOf(nowMs))
      const from = to - Math.max(rules().traceBackDays, rules().metDays) * dayMs
      const recorded = recordedIn(from, to, nowMs)
      if (!recorded.meetings) {
        const lots = store.lots([...new Set(recorded.index.stays.map(({ lot }) => lot))])
        recorded.meetings = sourceMeetings(recorded.index, Object.fromEntries(lots.map(({ id, origin }) => [id, sourceKnown(origin)])), minuteOf(from), minuteOf(to))
      }
      return recorded.meetings
    },

    /** A tool set as the move check asks of it: with how doubtful the waters are that it was in. */
    toolsAt(toolSetId: string, doubtOf: (waterId: string) => number, nowMs: number) {
      const set = store.toolSets().find(({ id }) => id === toolSetId)
      if (!set) throw fieldProblem('toolSetId', 'There is no such tool set')
      const { state, readyAt, carries } = stateOf(toolSetId, nowMs)
      return { name: set.name, zoneId: set.zoneId, state, readyAt, carries: carries.map(idOf).map((water) => ({ water, doubt: doubtOf(water) })) }
    },

    /** Every tool set as it is now. */
    tools(nowMs: number): { tools: ToolView[] } {
      const nameOf = naming(nowMs)
      return {
        tools: store.toolSets().map(({ id, name, zone, marking }) => {
          const { state, readyAt, carries } = stateOf(id, nowMs)
          return { id, name, zone, marking, state, readyAtMs: readyAt === null ? null : toMs(readyAt), carries: carries.map((node) => nameOf(node).name).sort() }
        }),
      }
    },

    /** Writes down that something went from one water into another. */
    recordContact(context: CommandContext, { kind, fromTankId, toTankId, isOneWay = false, isBreach = false, litres, note, happenedAtMs }: RecordContact) {
      const [fromNode, toNode] = [waterOfTank(fromTankId, 'fromTankId', context.nowMs), waterOfTank(toTankId, 'toTankId', context.nowMs)]
      if (fromNode === toNode) throw fieldProblem('toTankId', 'Both tanks have the same water')
      const isBoth = kind === 'joined' || ((kind === 'hose' || kind === 'splash') && !isOneWay)
      const isPlanned = !isBreach && (kind === 'water' || kind === 'joined' || kind === 'decor')
      return insert(context, { kind, fromNode, toNode, isBoth, isPlanned, litres: litres ?? null, note, atMs: happenedAtMs })
    },

    /** Two waters are joined no more. */
    endContact({ params }: CommandContext, { happenedAtMs }: EndContact) {
      const row = requireContact(params.contactId ?? '')
      if (row.kind !== 'joined' || row.untilMs !== null) throw new Problem('conflict', 'This has ended already')
      if (happenedAtMs < row.atMs) throw fieldProblem('happenedAtMs', 'It cannot end before it began')
      store.end(row.id, happenedAtMs)
      return {}
    },

    /** Takes back what was written down wrongly. */
    undoContact({ params, actor }: CommandContext, { happenedAtMs }: UndoContact) {
      const row = requireContact(params.contactId ?? '')
      store.undo(row.id, { undoneById: actor.id, undoneAtMs: happenedAtMs })
      return {}
    },

    /** A tool set was in the water of a tank. */
    useTools(context: CommandContext, { tankId, isBreach = false, note, happenedAtMs }: UseTools) {
      return insert(context, { kind: 'tool', fromNode: waterOfTank(tankId, 'tankId', context.nowMs), toNode: `tools:${requireTools(context.params.toolSetId ?? '')}`, isBoth: true, isPlanned: !isBreach, note, atMs: happenedAtMs })
    },

    /** A tool set was in the water of one tank and then of another; in one command with the fish it carried. */
    useBetween(context: CommandContext, toolSetId: string, waters: readonly string[], atMs: number): void {
      const toNode = `tools:${requireTools(toolSetId)}`
      for (const fromNode of new Set(waters)) insert(context, { kind: 'tool', fromNode, toNode, isBoth: true, isPlanned: true, note: null, atMs })
    },

    /** One water went along into another. */
    carryWater(context: CommandContext, fromNode: string, toNode: string, atMs: number): void {
      insert(context, { kind: 'water', fromNode, toNode, isBoth: false, isPlanned: true, note: null, atMs })
    },

    beginBath(context: CommandContext, { needMinutes, agent, happenedAtMs }: BeginBath) {
      const [id, toolSetId] = [newId(), requireTools(context.params.toolSetId ?? '')]
      if (store.openBath(toolSetId)) throw new Problem('conflict', 'This set lies in its bath already')
      store.insertBath({ id, toolSetId, inAtMs: happenedAtMs, outAtMs: null, needMinutes, agent, note: null, staffId: context.actor.id, commandKey: context.key, recordedAtMs: context.nowMs })
      return { id }
    },

    endBath({ params }: CommandContext, { happenedAtMs }: EndBath) {
      const bath = store.openBath(requireTools(params.toolSetId ?? ''))
      if (!bath) throw new Problem('conflict', 'This set lies in no bath')
      store.endBath(bath.id, happenedAtMs)
      return {}
    },

    /** An emptied water was sterilised and filled anew. */
    clearWater({ params, actor, key, nowMs }: CommandContext, { note, happenedAtMs }: ClearWater) {
      const node = waterOfTank(params.tankId ?? '', 'tankId', nowMs)
      const standing = [...facts.all(nowMs).values()].filter(({ water, lots }) => `water:${water.id}` === node && lots.length > 0).map(({ code }) => code)
      if (standing.length > 0) throw new Problem('conflict', `Fish stand in this water, in ${standing.join(', ')}: a water is cleared when it is empty`)
      store.insertClear({ id: newId(), node, atMs: happenedAtMs, note, staffId: actor.id, commandKey: key, recordedAtMs: nowMs })
      return {}
    },
  }

  function stateOf(toolSetId: string, nowMs: number): ToolState {
    const sinceMs = nowMs - 365 * dayMs
    return toolState({ uses: store.uses(`tools:${toolSetId}`, sinceMs), baths: store.baths(toolSetId, sinceMs), at: minuteOf(nowMs) })
  }

  function requireTools(id: string): string {
    if (!store.toolSets().some((set) => set.id === id)) throw new Problem('not-found', 'There is no such tool set')
    return id
  }

  function startView(node: string, lots: ReadonlyMap<string, { code: string; species: string }>, nameOf: (node: string) => NodeView): NodeView {
    if (!node.startsWith('lot:')) return nameOf(node)
    const lot = lots.get(idOf(node))
    return { node, name: lot ? `lot ${lot.code}, ${lot.species}` : 'a lot', tanks: [] }
  }
}
export type ContactsService = ReturnType<typeof createContactsService>
