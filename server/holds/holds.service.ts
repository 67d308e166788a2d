import { goneAfterDays, shippedAgents } from '../../core/dosing/agents'
import { byText, minuteOf } from '../../core/contacts/contact'
import { groupBy } from '../../core/collections/groupBy'
import { createClockReader, createGroupReader } from '../../core/holds/clockReader'
import type { UsualFor } from '../../core/holds/courseEvents'
import { holdDay, type HoldDay } from '../../core/holds/holdDay'
import { whatIf, type Supposed, type WhatIf } from '../../core/holds/holdWhatIf'
import { allGroups, groupOf, groupsOfWater, placeMark, waterState, type Group, type HoldRoom, type HoldRules } from '../../core/holds/holdRoom'
import type { HoldPolicy } from '../../core/holds/policy'
import { usualPolicy } from '../../core/holds/policyFor'
import { agentsIn } from '../../core/holds/waterState'
import { undecidedHolds, undecidedIds } from '../../core/holds/undecided'
import type { SignRow } from '../../core/holds/lookEvents'
import { policiesById, shippedPolicies } from '../../core/holds/shippedHolds'
import type { Limits } from '../../core/limits/houseLimits'
import { dayInZone } from '../../core/time/dayInZone'
import type { RoundRules } from '../../core/rounds/roundRules'
import type { Database } from '../db/open'
import type { LevelsStore } from '../rounds/levels.store'
import { createHeldHistoryStore } from './heldHistory.store'
import { createHeldMarkStore } from './heldMark.store'
import { createHeldFile } from './heldFile'
import { createHeldRooms } from './heldRooms'
import type { HoldBooksStore } from './holdBooks.store'

const dayMs = 86_400_000
/** Fish that are not here yet. */
export const newLot = 'new fish'

interface Collaborators {
  db: Database
  books: HoldBooksStore
  limits: () => Pick<Limits, 'shopHoldDays' | 'darkHours'>
  roundRules: () => RoundRules
  runs: LevelsStore['runs']
  zone: () => string
}

/** The shop hold as long as the house sets it; no hold where it sets none. */
function shopHoldOf(days: number): HoldPolicy[] {
  const shipped = shippedPolicies.find(({ id }) => id === usualPolicy)
  if (!shipped) return []
  if (days > 0) return [{ ...shipped, phases: shipped.phases.map((phase) => ({ ...phase, days })) }]
  return [{ ...shipped, phases: [], onSign: null, onAddition: null, onTreatment: null, release: [] }]
}

/** The policies of a house: shipped ones, its shop hold as long as it sets it, its own; those out of use too, since fish may be in them. */
const policiesInForce = (books: Pick<HoldBooksStore, 'policies'>, limits: () => Pick<Limits, 'shopHoldDays'>): ReadonlyMap<string, HoldPolicy> => policiesById([...shopHoldOf(limits().shopHoldDays), ...books.policies().map(({ policy }) => policy)])

/** Every hold of the room, as it follows from the books. */
export function createHoldsService({ db, books, limits, roundRules, runs, zone }: Collaborators) {
  const history = createHeldHistoryStore(db)
  const marks = createHeldMarkStore(db)
  let inForce: { version: string; rules: HoldRules } | null = null

  function rules(): HoldRules {
    const version = marks.version()
    if (inForce?.version !== version) inForce = { version, rules: { timeZone: zone(), tanks: books.firstWaters(), policies: policiesInForce(books, limits), goneAfter: goneAfterDays(shippedAgents) } }
    return inForce.rules
  }

  /** What explains signs of lots: asked for those that came or moved since rooms were kept, which are few. */
  function usual(): UsualFor {
    const known = new Map<string, ReturnType<UsualFor['runsOf']>>()
    const runsOf = (lotId: string): ReturnType<UsualFor['runsOf']> => {
      const kept = known.get(lotId) ?? (groupBy(runs([lotId], 0, limits().darkHours), (row) => row.lotId).get(lotId) ?? []).map(({ run }) => run)
      known.set(lotId, kept)
      return kept
    }
    return { rules: roundRules(), speciesOf: (lotId) => history.species(lotId) ?? {}, runsOf }
  }

  const rooms = createHeldRooms({ history, marks, rules, usual, file: createHeldFile(db) })
  let lots: { version: string; minute: number; groups: ReadonlyMap<string, Group[]> } | null = null
  function groupsByLot(room: HoldRoom, nowMs: number): ReadonlyMap<string, Group[]> {
    const [version, minute] = [marks.version(), minuteOf(nowMs)]
    if (lots?.version !== version || lots.minute !== minute) lots = { version, minute, groups: groupBy([...allGroups(room)], ({ lot }) => lot) }
    return lots.groups
  }

  const [readClock, readDay] = [createClockReader(), createGroupReader(holdDay)]

  function longest(room: HoldRoom, lotId: string, nowMs: number): HoldDay | null {
    const days = (groupsByLot(room, nowMs).get(lotId) ?? []).flatMap((group) => readDay(room, group) ?? [])
    return days.sort((a, b) => Number(a.isServed) - Number(b.isServed) || byText(b.earliest, a.earliest))[0] ?? null
  }

  /** Signs that some hold waits for, however old: no older than the hold. */
  function openSigns(nowMs: number): SignRow[] {
    const asked = undecidedHolds(rooms.at(nowMs))
    if (asked.length === 0) return []
    const noted = undecidedIds(asked)
    const sinceMs = (Math.min(...asked.map(({ begunDay }) => begunDay)) - 2) * dayMs
    return [...history.signs(sinceMs), ...history.deaths(sinceMs)].filter(({ id }) => noted.has(id))
  }

  /** A tank, or a vessel under its mark. */
  const placeOf = (room: HoldRoom, id: string): string => placeMark(id, room.tankWaters.has(id))
  /** What would happen to clocks, before anybody does it. */
  const suppose = (events: readonly Supposed[], nowMs: number): WhatIf => whatIf(rooms.at(nowMs), events, minuteOf(nowMs))

  function agentsAt(nowMs: number): (waterId: string) => string[] {
    const [room, { goneAfter }] = [rooms.at(nowMs), rules()]
    return (waterId) => agentsIn(waterState(room, waterId), room.day ?? 0, goneAfter)
  }

  return {
    rooms,
    rules,
    history,
    /** Agents that are in a water now, as the table of refusals calls them. */
    agentsIn: (waterId: string, nowMs: number): string[] => agentsAt(nowMs)(waterId),
    /** The same of many waters. */
    agentsAt,
    /** Lots of which fish stand in a water, in its tanks or in vessels that belong to it. */
    lotsIn: (waterId: string, nowMs: number): string[] => [...new Set(groupsOfWater(rooms.at(nowMs), waterId).map(({ lot }) => lot))],
    openSigns,
    suppose,
    /** Fish of lots would go from one place into another: of each so many, or all. */
    supposeMoved(fish: readonly { lotId: string; quantity: number | null }[], fromId: string, toId: string, nowMs: number): WhatIf {
      const room = rooms.at(nowMs)
      const [from, to] = [placeOf(room, fromId), placeOf(room, toId)]
      return suppose(fish.flatMap(({ lotId: lot, quantity }): Supposed[] => {
        const there = (groupOf(room, lot, from)?.millionths ?? 0) / 1e6
        return there > 0 ? [{ kind: 'move', lot, from, to, n: Math.min(there, quantity ?? there) }] : []
      }), nowMs)
    },
    /** New fish would come into a tank, under the hold that most begin. */
    supposeCome: (tankId: string, nowMs: number): WhatIf => suppose([{ kind: 'arrive', lot: newLot, tank: tankId, n: 1, policy: usualPolicy }], nowMs),
    /** The day it is in the room. */
    dayOn: (nowMs: number): string => dayInZone(nowMs, zone()),
    /** The clock of a group, and its day over all phases: read once as long as nothing changes for it. */
    readClock,
    readDay,
    placeOf,
    /** The day of its hold that each lot is in, where it stands; null for one that is not held. What no clock knows to be there yet, since its entry waits for another, is as the rest of its lot. */
    daysAt(nowMs: number): (lotId: string, place: string) => HoldDay | null {
      const room = rooms.at(nowMs)
      return (lotId, place) => {
        const group = groupOf(room, lotId, place)
        return group ? readDay(room, group) : longest(room, lotId, nowMs)
      }
    },
    /** What fish of a lot served of their hold where they stand, whether it runs or is over; null for such as were never held. */
    served(lotId: string, place: string, nowMs: number): { policy: string; days: number; of: number } | null {
      const room = rooms.at(nowMs)
      const group = groupOf(room, lotId, place)
      const running = group ? readDay(room, group) : null
      if (running) return { policy: running.policy, days: Math.min(running.day - 1, running.of), of: running.of }
      const ended = group ? readClock(room, group).ended : null
      const policy = rules().policies.get(books.policyOfLot(lotId) ?? '')
      if (!ended || !policy) return null
      const of = policy.phases.reduce((sum, { days }) => sum + days, 0)
      return { policy: policy.name, days: Math.max(0, of - ended.days), of }
    },
    /** The day of its hold that a lot is in, wherever it stands: of several places where it has longest to go. */
    dayOf: (lotId: string, nowMs: number): HoldDay | null => longest(rooms.at(nowMs), lotId, nowMs),
  }
}
export type HoldsService = ReturnType<typeof createHoldsService>
