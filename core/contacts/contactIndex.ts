import { byText, endOf, isTool, type Clear, type Contact, type Stay } from './contact'

/**
 * A node between two clears that count: what was in it before is gone, so it is a node of its own. Numbers of such
 * node-times run through all nodes.
 */
export type Spot = number

/** One way of a contact: what is in `from` can be in `to`, from the minute `first` to the minute `last`. */
export interface Way {
  contact: Contact
  from: Spot
  to: Spot
  first: number
  last: number
}

/** Everything that was recorded, ordered so that questions are quick. Made once; a new contact is one row. */
export interface ContactIndex {
  stays: readonly Stay[]
  /** Ways that lead out of a spot, and into it, in the order in which they begin. */
  out: ReadonlyMap<Spot, readonly Way[]>
  into: ReadonlyMap<Spot, readonly Way[]>
  /** Minutes that the longest of all contacts lasted. */
  longest: number
  ignoredClears: Clear[]
  /** The spot of a node at a minute: what is done in the minute of a clear comes before it. */
  spotAt(node: string, minute: number): Spot
  /** The spot of a node once that minute is over. */
  spotAfter(node: string, minute: number): Spot
  nodeOf(spot: Spot): string
  isTool(spot: Spot): boolean
}

/** What was recorded, as it stands. */
export interface Recorded {
  contacts: readonly Contact[]
  stays: readonly Stay[]
  clears: readonly Clear[]
}

/** Orders what was recorded for questions. Source: docs/contacts.md. */
export function indexContacts({ contacts, stays, clears }: Recorded): ContactIndex {
  const { counting, ignored } = weighClears({ contacts, stays, clears })
  const first = new Map<string, Spot>()
  const names: string[] = []
  const firstOf = (node: string): Spot => {
    const known = first.get(node)
    if (known !== undefined) return known
    const at = names.length
    first.set(node, at)
    for (let nth = 0; nth <= (counting.get(node)?.length ?? 0); nth += 1) names.push(node)
    return at
  }
  const spotAt = (node: string, minute: number): Spot => firstOf(node) + before(counting.get(node), minute)
  const spotAfter = (node: string, minute: number): Spot => spotAt(node, minute + 1)
  const [out, into] = [new Map<Spot, Way[]>(), new Map<Spot, Way[]>()]
  const lay = (contact: Contact, from: string, to: string): void => {
    const way = { contact, from: spotAt(from, contact.at), to: spotAt(to, contact.at), first: contact.at, last: endOf(contact) }
    append(out, way.from, way)
    append(into, way.to, way)
  }
  for (const contact of contacts) {
    lay(contact, contact.from, contact.to)
    if (contact.both) lay(contact, contact.to, contact.from)
  }
  for (const ways of [...out.values(), ...into.values()]) ways.sort((a, b) => a.first - b.first)
  const longest = contacts.reduce((most, contact) => Math.max(most, endOf(contact) - contact.at), 0)
  return { stays, out, into, longest, ignoredClears: ignored, spotAt, spotAfter, nodeOf: (spot) => names[spot] ?? '', isTool: (spot) => isTool(names[spot] ?? '') }
}

/** Of ways in the order in which they begin, those that may fall into a window: from which one on. */
export function firstWithin(ways: readonly Way[], from: number, longest: number): number {
  let [low, high] = [0, ways.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if ((ways[middle]?.first ?? 0) + longest < from) low = middle + 1
    else high = middle
  }
  return low
}

function append<Key, Value>(lists: Map<Key, Value[]>, key: Key, value: Value): void {
  const list = lists.get(key)
  if (list) list.push(value)
  else lists.set(key, [value])
}

/** How many of the minutes, in order, are before one. */
function before(minutes: readonly number[] | undefined, minute: number): number {
  if (minutes === undefined) return 0
  const found = minutes.findIndex((each) => each >= minute)
  return found < 0 ? minutes.length : found
}

/**
 * A clear counts for nothing where fish stood in the water, where something led into it in that same minute, or while it
 * was joined to another.
 */
function weighClears({ contacts, stays, clears }: Recorded): { counting: Map<string, number[]>; ignored: Clear[] } {
  const [staysIn, contactsOf] = [new Map<string, Stay[]>(), new Map<string, Contact[]>()]
  const cleared = new Set(clears.map(({ node }) => node))
  for (const stay of stays) if (cleared.has(stay.water)) append(staysIn, stay.water, stay)
  for (const contact of contacts) for (const node of new Set([contact.from, contact.to])) if (cleared.has(node)) append(contactsOf, node, contact)
  const isIdle = ({ node, at }: Clear): boolean =>
    (staysIn.get(node) ?? []).some(({ from, until }) => from <= at && (until === null || until > at)) ||
    (contactsOf.get(node) ?? []).some((contact) => (endOf(contact) === contact.at ? contact.at === at && (contact.to === node || contact.both) : contact.at <= at && at < endOf(contact)))
  const counting = new Map<string, number[]>()
  const ignored: Clear[] = []
  for (const clear of clears) {
    if (isIdle(clear)) ignored.push({ node: clear.node, at: clear.at })
    else append(counting, clear.node, clear.at)
  }
  for (const minutes of counting.values()) minutes.sort((a, b) => a - b)
  return { counting, ignored: ignored.sort((a, b) => byText(JSON.stringify(a), JSON.stringify(b))) }
}
