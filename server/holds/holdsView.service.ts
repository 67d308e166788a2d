import { groupBy } from '../../core/collections/groupBy'
import { eachApart } from '../../core/collections/eachApart'
import type { TankFacts } from '../../core/facts/facts'
import { holdBar } from '../../core/holds/holdBar'
import { allGroups, groupKey, groupOf, placeId, standsIn, type Group, type HoldRoom } from '../../core/holds/holdRoom'
import type { HeldGroupView, HeldWaterView, HoldEntryView, HoldsView, LetGo, ToDecide } from '../../core/holds/holdsView'
import { compareRooms } from '../../core/holds/holdWhatIf'
import { clockWords, endedWords, exposedWords, ifItCountsWords } from '../../core/holds/holdWords'
import { heldPlace } from '../../core/holds/ledgerEvents'
import { signEvents } from '../../core/holds/lookEvents'
import { decideDue, holdDayDue, pairingDue, readyDue } from '../../core/holds/holdDue'
import type { DueItem } from '../../core/due/due'
import { releaseCheck } from '../../core/holds/releaseCheck'
import { undecidedHolds, undecidedIds, undecidedSigns } from '../../core/holds/undecided'
import { addDays } from '../../core/time/daysBetween'
import { plural } from '../../core/words/plural'
import type { FactsService } from '../facts/facts.service'
import type { HoldsService } from './holds.service'
import type { PairingsService } from './pairings.service'
import type { EntryTold, HoldStoriesStore } from './holdStories.store'
import { createTelling, type HoldTelling } from './holdTelling'

/** Fish stand here to be held: let go, they make room. */
const isApart = ({ purpose }: TankFacts): boolean => purpose === 'quarantine' || purpose === 'hospital'
const [minuteMs, dayMs] = [60_000, 86_400_000]
/** What people did to holds is shown for so many days. */
const [shownDays, readDays] = [7, 60]
/** Consequences are reckoned of so many decisions at once: each plays the room anew. */
const mostReckoned = 12
/** A water to which fish were added on so many of the last days does not come ready. */
const [restlessDays, restlessTimes] = [28, 3]

interface Collaborators {
  holds: HoldsService
  facts: Pick<FactsService, 'all'>
  stories: HoldStoriesStore
  pairings: Pick<PairingsService, 'list' | 'pairable'>
  systemName: (id: string) => string
  /** Nine in the morning of a day, by the clock of the room. */
  morningOf: (on: string) => number
}

/** Every clock as the screen of holds tells it. */
export function createHoldsView({ holds, facts, stories, pairings, systemName, morningOf }: Collaborators) {
  const tellingAt = (nowMs: number): HoldTelling => createTelling({ stories, tanks: facts.all(nowMs), policies: holds.rules().policies, systemName })

  /** The salinity of a water and what it is kept at; null where either is not known. */
  function salinityOf(tank: TankFacts | undefined, nowMs: number): { now: number; house: number } | null {
    const house = tank?.water.houseSalinityPpt ?? null
    if (!tank || house === null || tank.water.kind === 'fresh') return null
    const onWater = [...facts.all(nowMs).values()].filter(({ water }) => water.id === tank.water.id).map(({ tankId }) => tankId)
    const now = stories.salinity(onWater, nowMs - readDays * dayMs)
    return now === null ? null : { now, house }
  }

  function groupView(room: HoldRoom, group: Group, fish: number, telling: HoldTelling, nowMs: number): HeldGroupView | null {
    const { lot, place } = group
    const [clock, day, bar, named] = [holds.readClock(room, group), holds.readDay(room, group), holdBar(room, lot, place), stories.lot(lot)]
    const policy = holds.rules().policies.get(clock.policy ?? '')
    if (!day || !bar || !named || clock.earliest === null || !policy) return null
    const tank = facts.all(nowMs).get(place)
    return {
      ...{ lotId: lot, lotCode: named.code, speciesId: named.speciesId, species: named.species, strain: named.strain, supplier: named.supplier, fish, placeId: placeId(place), placeName: telling.placeName(place), isTank: telling.isTank(place) },
      ...{ waterId: standsIn(room, place, group.strands[0] ?? { from: null }), policyId: policy.id, policyName: policy.name, isReady: clock.status === 'ready', day: day.day, of: day.of },
      words: clockWords(clock, clock.phase ?? '') ?? '',
      exposed: clock.status === 'ready' ? null : exposedWords(clock),
      restarts: [...clock.restarts].reverse().map((restart) => telling.restartTold(restart, clock.policy)),
      ...{ waitsFor: clock.waitsFor, earliest: clock.earliest, isUndecided: clock.undecided.length > 0, bar },
      release: releaseCheck({ today: bar.today, clock, salinity: salinityOf(tank, nowMs), ...(tank?.netVolumeL == null ? {} : { volumeL: tank.netVolumeL }), upPpt: (tank?.water.houseSalinityPpt ?? 0) * 1.5 }),
    }
  }

  function watersOf(groups: readonly HeldGroupView[], room: HoldRoom, telling: HoldTelling, today: string): HeldWaterView[] {
    const since = addDays(today, -restlessDays) ?? today
    const inWater = groupBy([...allGroups(room)].flatMap((group) => [...new Set(group.strands.map((strand) => standsIn(room, group.place, strand)))].map((water) => ({ water, group }))), ({ water }) => water)
    return [...groupBy(groups, ({ waterId }) => waterId)].flatMap(([id, theirs]): HeldWaterView[] => {
      const [latest] = [...theirs].sort((a, b) => (a.earliest < b.earliest ? 1 : a.earliest > b.earliest ? -1 : Number(a.isReady) - Number(b.isReady)))
      if (!latest) return []
      const added = new Set((inWater.get(id) ?? []).flatMap(({ group }) => holds.readClock(room, group).restarts.filter(({ cause, on }) => cause === 'addition' && on > since).map(({ on }) => on)))
      return [{ id, name: telling.waterName(id), isNeverReady: added.size >= restlessTimes, latest: { lotId: latest.lotId, placeId: latest.placeId } }]
    })
  }

  function consequences(room: HoldRoom, ids: ReadonlySet<string>, sinceMs: number, telling: HoldTelling, nowMs: number): string[] {
    const after = holds.rooms.suppose(nowMs, sinceMs, (event) => ((event.kind === 'sign' || event.kind === 'exposure') && ids.has(event.id) ? { ...event, decision: 'confirmed' } : event))
    const moved = compareRooms(room, after, [...ids].map((id) => ({ kind: 'sign' as const, id, at: 0, tank: '', word: '', decision: 'confirmed' as const })))
    const dated = moved.rows.flatMap(({ lot, before, after: then }) => (before !== null && then !== null && before !== then ? [{ lot, before, after: then }] : []))
    return [...groupBy(dated, (row) => `${row.before} ${row.after}`).values()].flatMap((same) => (same[0] ? [ifItCountsWords({ ...same[0], lots: same.map(({ lot }) => telling.lotName(lot)).sort() })] : []))
  }

  /** What waits for somebody's word: what was seen last comes first. */
  function asked(room: HoldRoom, telling: HoldTelling, nowMs: number): (Omit<ToDecide, 'ifItCounts'> & { ids: string[] })[] {
    const signs = undecidedSigns(room, signEvents(holds.openSigns(nowMs), new Map())).map(({ tank, word, signs: same }) => ({
      ...{ id: `${tank} ${word}`, contactId: null, tankId: tank, tankCode: telling.placeName(tank), word, count: same.length, firstMs: (same[0]?.at ?? 0) * minuteMs, lastMs: (same.at(-1)?.at ?? 0) * minuteMs, ids: same.map(({ id }) => id) },
    }))
    const breaches = [...undecidedIds(undecidedHolds(room))].flatMap((id) => {
      const told = stories.breach(id)
      return told ? [{ id, contactId: id, tankId: null, tankCode: '', word: telling.breachWords(id), count: 1, firstMs: told.atMs, lastMs: told.atMs, ids: [id] }] : []
    })
    return [...signs, ...breaches].sort((a, b) => b.lastMs - a.lastMs || (a.id < b.id ? -1 : 1))
  }

  /** The same with what it would mean if it counted. */
  const decisions = (room: HoldRoom, telling: HoldTelling, nowMs: number): ToDecide[] =>
    asked(room, telling, nowMs).map(({ ids, ...each }, index) => ({ ...each, ifItCounts: index < mostReckoned ? consequences(room, new Set(ids), each.firstMs, telling, nowMs) : [] }))

  function entries(rows: readonly EntryTold[], room: HoldRoom, telling: HoldTelling): HoldEntryView[] {
    return rows.map(({ id, kind, placeId: where, lotId, policyId, days, word, reason, shortDays, shortGates, by, staffId, atMs, recordedAtMs }) => {
      const whose = lotId === null ? '' : `${telling.lotName(lotId)}: `
      const told = {
        end: () => endedWords({ days: shortDays ?? 0, gates: shortGates === null ? [] : (JSON.parse(shortGates) as string[]), reason }),
        policy: () => `now ${telling.policyName(policyId)}${reason ? `: ${reason}` : ''}.`,
        lengthen: () => `${plural(days ?? 0, 'day')} longer${reason ? `: ${reason}` : ''}.`,
        body: () => `body ${word ?? ''}.`,
        cleared: () => `${word ?? 'what was in it'} is out of the water.`,
        found: () => `${word ?? 'something'} was found in the water.`,
        transfer: () => 'came by a transfer.',
        feed: () => 'medicated food given.',
        cleaned: () => 'cleaned and dried.',
      }[kind]()
      return { id, placeName: telling.placeName(holds.placeOf(room, where)), words: `${whose}${told}`, by, staffId, atMs, recordedAtMs }
    })
  }

  /** Fish that were let go and stand still where they were held. */
  function letGo(rows: readonly EntryTold[], room: HoldRoom, fishOf: ReadonlyMap<string, number>, nowMs: number): LetGo[] {
    const tanks = facts.all(nowMs)
    const groups = new Set(rows.flatMap(({ kind, lotId, placeId: id }) => (kind === 'end' && lotId !== null ? (groupOf(room, lotId, id) ?? []) : [])))
    return [...groups].flatMap((group): LetGo[] => {
      const { lot, place: id } = group
      const [tank, named, fish] = [tanks.get(id), stories.lot(lot), fishOf.get(groupKey(lot, id)) ?? 0]
      if (!tank || !isApart(tank) || !named || holds.readDay(room, group) || fish === 0) return []
      return [{ lotId: lot, lotCode: named.code, speciesId: named.speciesId, species: named.species, strain: named.strain, fish, placeId: id, placeName: tank.code }]
    })
  }

  return {
    tellingAt,
    /** Work that holds make: a word that is waited for, fish to be let go, looks at a pairing. */
    due(nowMs: number): DueItem[] {
      const [room, telling] = [holds.rooms.at(nowMs), tellingAt(nowMs)]
      const ready = [...facts.all(nowMs).values()].flatMap(({ code, lots }) => lots.flatMap(({ species, hold }) => (hold?.isServed ? [{ species, tankCode: code }] : [])))
      // A tank is ready with the last of its lots; days that are served already wait for a gate, and no calendar knows when it opens.
      const days = [...facts.all(nowMs).values()].flatMap(({ tankId, code, lots }) => {
        const held = lots.filter(({ hold }) => hold && !hold.isServed && hold.waitsFor.includes('days'))
        const [last = null] = held.map(({ hold }) => hold?.earliest ?? '').sort().reverse()
        return last === null ? [] : [holdDayDue({ tankId, tankCode: code, about: [...new Set(held.map(({ species }) => species))].join(', '), atMs: morningOf(last) })]
      })
      return [...days, ...decideDue(asked(room, telling, nowMs)), ...readyDue(ready), ...pairings.list(telling.placeName, telling.lotName, nowMs).flatMap((each) => pairingDue(each, nowMs))]
    },
    view(nowMs: number): HoldsView {
      const [room, telling, on] = [holds.rooms.at(nowMs), tellingAt(nowMs), holds.dayOn(nowMs)]
      const lately = stories.entries(nowMs - shownDays * dayMs)
      const booked = stories.booked().map(({ lotId, placeId: id, placeKind, fish }) => ({ lotId, place: heldPlace({ id, kind: placeKind }), fish }))
      const fishOf = new Map(booked.map(({ lotId, place, fish }) => [groupKey(lotId, place), fish]))
      const broken: string[] = []
      const groups = eachApart([...allGroups(room)], (group) => groupView(room, group, fishOf.get(groupKey(group.lot, group.place)) ?? 0, telling, nowMs), (group) => (broken.push(`the hold of ${telling.lotName(group.lot)}`), null)).flatMap((each) => each ?? [])
      const sorted = groups.sort((a, b) => Number(b.isReady) - Number(a.isReady) || (a.earliest < b.earliest ? -1 : a.earliest > b.earliest ? 1 : 0) || (a.placeName < b.placeName ? -1 : 1))
      const unclocked = booked.filter(({ lotId, place, fish }) => fish > 0 && !groupOf(room, lotId, place)).map(({ lotId, place }) => `${telling.lotName(lotId)} in ${telling.placeName(place)}`)
      return { on, decisions: decisions(room, telling, nowMs), waters: watersOf(sorted, room, telling, on), groups: sorted, letGo: letGo(lately, room, fishOf, nowMs), entries: entries(lately, room, telling), pairings: pairings.list(telling.placeName, telling.lotName, nowMs), pairable: pairings.pairable(nowMs), unclocked: [...unclocked, ...broken] }
    },
  }
}
export type HoldsViewService = ReturnType<typeof createHoldsView>
