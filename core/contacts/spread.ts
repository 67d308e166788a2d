import { byText, type ContactKind } from './contact'
import type { ContactIndex, Spot, Way } from './contactIndex'

/** When something can have been in a spot, and over how many waters beyond the first. */
export interface Arrival {
  hops: number
  /** Minutes that run the way the question does: backwards they are negative, so that earlier is always better. */
  time: number
}

export interface Asked {
  direction: 'forward' | 'backward'
  from: number
  to: number
  /** Null: all. */
  kinds: readonly ContactKind[] | null
  maxHops: number | null
}

/** Where it can have got to. */
export interface Spread {
  starts: ReadonlyMap<Spot, number>
  /** By spot, each with more hops and a better time than the one before it. */
  arrivals: ReadonlyMap<Spot, readonly Arrival[]>
  /** Contacts of the first arrival, in order of time. */
  chainTo(spot: Spot, arrival: Arrival): string[]
}

/** A way as a question goes along it, cut to its window. */
interface Step {
  id: string
  from: Spot
  to: Spot
  first: number
  last: number
}

/**
 * Follows contacts from where something was, layer by layer of waters: fewest hops and best time are exact, because to
 * be somewhere earlier is never worse between two clears. Source: docs/contacts.md.
 * @param starts - spots, and since when (backwards: until when, negative).
 */
export function spreadFrom(index: ContactIndex, starts: ReadonlyMap<Spot, number>, { direction, from, to, kinds, maxHops }: Asked): Spread {
  const isForward = direction === 'forward'
  const step = (way: Way): Step | null => {
    const [first, last] = [Math.max(way.first, from), Math.min(way.last, to)]
    if (first > last || (kinds !== null && !kinds.includes(way.contact.kind))) return null
    return isForward ? { id: way.contact.id, from: way.from, to: way.to, first, last } : { id: way.contact.id, from: way.to, to: way.from, first: 0 - last, last: 0 - first }
  }
  const stepsOf = (ways: ReadonlyMap<Spot, readonly Way[]>, spot: Spot): Step[] => (ways.get(spot) ?? []).flatMap((way) => step(way) ?? [])
  const onward = (spot: Spot): Step[] => stepsOf(isForward ? index.out : index.into, spot)
  const backTo = (spot: Spot): Step[] => stepsOf(isForward ? index.into : index.out, spot)
  const arrivals = new Map<Spot, Arrival[]>()
  const note = (spot: Spot, arrival: Arrival): boolean => {
    const known = arrivals.get(spot)
    const last = known?.at(-1)
    if (last !== undefined && last.time <= arrival.time) return false
    if (last?.hops === arrival.hops) known?.pop()
    if (known) known.push(arrival)
    else arrivals.set(spot, [arrival])
    return true
  }
  /** Carries what is new one step on, to tools or to waters. */
  const carry = (fresh: ReadonlyMap<Spot, number>, toTools: boolean, hops: number): Map<Spot, number> => {
    const reached = new Map<Spot, number>()
    for (const [spot, since] of fresh)
      for (const { to: next, first, last } of onward(spot)) {
        if (index.isTool(next) !== toTools || since > last) continue
        const time = Math.max(first, since)
        if (note(next, { hops, time })) reached.set(next, time)
      }
    return reached
  }
  for (const [spot, time] of starts) note(spot, { hops: 0, time })
  let fresh: ReadonlyMap<Spot, number> = starts
  for (let hops = 0; fresh.size > 0; hops += 1) {
    const tools = carry(fresh, true, hops)
    if (hops === maxHops) break
    fresh = carry(new Map([...fresh, ...tools]), false, hops + 1)
  }

  function chainTo(spot: Spot, arrival: Arrival): string[] {
    const chain: string[] = []
    for (let [at, now] = [spot, arrival]; !(now.hops === 0 && starts.get(at) === now.time); ) {
      const left = index.isTool(at) ? now.hops : now.hops - 1
      const steps = backTo(at).flatMap((each) => {
        const before = (arrivals.get(each.from) ?? []).findLast(({ hops }) => hops <= left)
        return before !== undefined && before.time <= each.last && Math.max(each.first, before.time) === now.time ? [{ ...each, before }] : []
      })
      const [first] = steps.sort((a, b) => a.first - b.first || byText(a.id, b.id))
      if (first === undefined) throw new Error(`No contact leads to ${index.nodeOf(at)}, which was reached`)
      chain.push(first.id)
      ;[at, now] = [first.from, first.before]
    }
    return isForward ? chain.reverse() : chain
  }
  return { starts, arrivals, chainTo }
}
