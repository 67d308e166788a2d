import { byText, type Clear, type ContactKind, type Stay } from './contact'
import type { ContactIndex, Spot } from './contactIndex'
import { spreadFrom, type Arrival, type Spread } from './spread'

/** What is asked of the contacts: what can have come from somewhere, or where it can have come from. */
export interface TraceQuestion {
  /** `water:ID`, `tools:ID` or `lot:ID`. */
  start: string
  direction: 'forward' | 'backward'
  /** Only what happened from this minute to that one counts. */
  from: number
  to: number
  kinds?: readonly ContactKind[] | null
  maxHops?: number | null
  /** Zone by water. */
  zones?: Readonly<Record<string, string | null>>
  /** Source by lot; null where nobody knows. */
  sources?: Readonly<Record<string, string | null>>
  holds?: readonly TracedHold[]
  pairings?: readonly TracedPairing[]
}

export interface TracedHold {
  id: string
  lot: string
  from: number
  until: number | null
}

/** Two lots held in one water to see whether either makes the other sick. */
export interface TracedPairing {
  id: string
  lots: readonly string[]
  water: string
  from: number
  until: number | null
}

export interface ReachedNode {
  node: string
  /** Waters on the chain beyond the one asked for. */
  hops: number
  /** The first minute with so few (backwards the last), and with any number. */
  at: number
  anyAt: number
  /** Contacts of that arrival, in order of time. */
  chain: string[]
  /** Nothing of it is left at the end; null backwards. */
  isCleared: boolean | null
}

export interface ReachedLot {
  lot: string
  hops: number
  at: number
  anyAt: number
}

export interface Trace {
  reached: ReachedNode[]
  lots: ReachedLot[]
  /** Holds of these lots that it falls into. */
  holds: string[]
  /** *before* is tested by the pairing too; *after* is no longer covered by it. */
  pairings: { id: string; when: 'before' | 'during' | 'after' }[]
  sources: string[]
  /** Waters of the same zone of which nothing is recorded. */
  sameTools: string[]
  ignoredClears: Clear[]
}

/**
 * Traces contacts through waters and tools, forwards or backwards in time. It says what was recorded, not how likely
 * anything travelled; nothing recorded is not "no contact". Source: docs/contacts.md.
 */
export function traceContacts(index: ContactIndex, question: TraceQuestion): Trace {
  const { start, direction, from, to, kinds = null, maxHops = null, zones = {}, sources = {}, holds = [], pairings = [] } = question
  const lot = start.startsWith('lot:') ? start.slice(4) : null
  const starts = lot === null ? startOfNode(index, question) : startsOfLots(index, new Set([lot]), question)
  const spread = spreadFrom(index, starts, { direction, from, to, kinds, maxHops })
  const isForward = direction === 'forward'
  const reached = reachedNodes(index, spread, question)
  const lots = reachedLots(index, spread, question, new Set(lot === null ? [] : [lot]))
  const anyAt = new Map(lots.map((each) => [each.lot, each.anyAt]))
  const startWaters = new Set([...starts.keys()].filter((spot) => !index.isTool(spot)).map(index.nodeOf))
  return {
    reached,
    lots,
    holds: isForward ? holds.filter((hold) => hold.from <= to && isHit(hold, anyAt.get(hold.lot))).map(({ id }) => id).sort(byText) : [],
    pairings: isForward ? pairings.flatMap((pairing) => pairingHit(pairing) ?? []).sort((a, b) => byText(a.id, b.id)) : [],
    sources: [...new Set(lots.flatMap((each) => sources[each.lot] ?? []))].sort(byText),
    sameTools: sameTools(),
    ignoredClears: index.ignoredClears,
  }

  function pairingHit(pairing: TracedPairing): Trace['pairings'][number] | null {
    const { id, water, until } = pairing
    const ofWater = reached.find(({ node }) => node === water)?.anyAt
    const moments = [
      ...pairing.lots.flatMap((each) => anyAt.get(each) ?? []),
      ...(lot !== null && pairing.lots.includes(lot) ? starts.values() : []),
      ...(ofWater !== undefined && (until === null || ofWater <= until) ? [ofWater] : []),
      ...(start === water ? starts.values() : []),
    ]
    if (moments.length === 0) return null
    const first = Math.min(...moments)
    return { id, when: first < pairing.from ? 'before' : until === null || first <= until ? 'during' : 'after' }
  }

  function sameTools(): string[] {
    const startZones = new Set([...startWaters].flatMap((water) => zones[water] ?? []))
    const known = new Set([...startWaters, ...reached.map(({ node }) => node)])
    return Object.entries(zones).flatMap(([water, zone]) => (zone !== null && startZones.has(zone) && !known.has(water) ? [water] : [])).sort(byText)
  }
}

const isHit = ({ until }: { until: number | null }, at: number | undefined): boolean => at !== undefined && (until === null || until >= at)

function startOfNode(index: ContactIndex, { start, direction, from, to }: TraceQuestion): Map<Spot, number> {
  return direction === 'forward' ? new Map([[index.spotAt(start, from), from]]) : new Map([[index.spotAt(start, to), 0 - to]])
}

/** Where fish of these lots stand in the window, and since when (backwards: until when). */
export function startsOfLots(index: ContactIndex, lots: ReadonlySet<string>, { direction, from, to }: Pick<TraceQuestion, 'direction' | 'from' | 'to'>): Map<Spot, number> {
  const starts = new Map<Spot, number>()
  for (const stay of index.stays) {
    if (!lots.has(stay.lot) || stay.from > to || (stay.until !== null && stay.until <= from)) continue
    const spot = index.spotAt(stay.water, stay.from)
    const time = direction === 'forward' ? Math.max(stay.from, from) : 0 - Math.min(stay.until ?? to, to)
    starts.set(spot, Math.min(starts.get(spot) ?? Infinity, time))
  }
  return starts
}

/** Fewest hops first, then the best moment, then the name. */
const byReach = <T extends { hops: number; at: number }>(isForward: boolean, nameOf: (each: T) => string) => (a: T, b: T): number => a.hops - b.hops || (isForward ? a.at - b.at : b.at - a.at) || byText(nameOf(a), nameOf(b))

function reachedNodes(index: ContactIndex, { starts, arrivals, chainTo }: Spread, { direction, to }: TraceQuestion): ReachedNode[] {
  const isForward = direction === 'forward'
  const told = (time: number): number => (isForward ? time : 0 - time)
  const byNode = new Map<string, { spot: Spot; found: readonly Arrival[] }[]>()
  for (const [spot, found] of arrivals) if (!starts.has(spot)) byNode.set(index.nodeOf(spot), [...(byNode.get(index.nodeOf(spot)) ?? []), { spot, found }])
  const nodes = [...byNode].flatMap(([node, spots]): ReachedNode[] => {
    const firsts = spots.flatMap(({ spot, found }) => (found[0] ? [{ spot, first: found[0] }] : []))
    const [best] = firsts.sort((a, b) => a.first.hops - b.first.hops || a.first.time - b.first.time)
    if (best === undefined) return []
    const any = Math.min(...spots.flatMap(({ found }) => found.at(-1)?.time ?? []))
    const left = index.spotAfter(node, to)
    return [{ node, hops: best.first.hops, at: told(best.first.time), anyAt: told(any), chain: chainTo(best.spot, best.first), isCleared: isForward ? !spots.some(({ spot }) => spot === left) : null }]
  })
  return nodes.sort(byReach(isForward, ({ node }) => node))
}

/** Lots that stood where it was: at which hops first, and when. */
export function reachedLots(index: ContactIndex, { arrivals }: Spread, { direction, to }: Pick<TraceQuestion, 'direction' | 'to'>, asked: ReadonlySet<string>): ReachedLot[] {
  const isForward = direction === 'forward'
  const meet = (stay: Stay, { time }: Arrival): number | null => {
    if (isForward) return time <= (stay.until ?? Infinity) && stay.from <= to ? Math.max(time, stay.from) : null
    return stay.from <= 0 - time ? Math.min(0 - time, stay.until ?? Infinity) : null
  }
  const isBetter = (at: number, than: number): boolean => (isForward ? at < than : at > than)
  const best = new Map<string, ReachedLot>()
  for (const stay of index.stays) {
    if (asked.has(stay.lot)) continue
    for (const arrival of arrivals.get(index.spotAt(stay.water, stay.from)) ?? []) {
      const at = meet(stay, arrival)
      if (at === null) continue
      const { hops } = arrival
      const known = best.get(stay.lot)
      if (known === undefined) {
        best.set(stay.lot, { lot: stay.lot, hops, at, anyAt: at })
        continue
      }
      if (isBetter(at, known.anyAt)) known.anyAt = at
      if (hops < known.hops || (hops === known.hops && isBetter(at, known.at))) Object.assign(known, { hops, at })
    }
  }
  return [...best.values()].sort(byReach(isForward, ({ lot }) => lot))
}
