import { byText, type ContactKind } from './contact'
import { firstWithin, type ContactIndex, type Spot, type Way } from './contactIndex'

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
  /** Ways of a spot inside the window, as the question goes along them; each spot is asked for more than once. */
  const stepsOf = (ways: ReadonlyMap<Spot, readonly Way[]>) => {
    const known = new Map<Spot, Step[]>()
    return (spot: Spot): Step[] => {
      const before = known.get(spot)
      if (before) return before
      const [all, steps] = [ways.get(spot) ?? [], [] as Step[]]
      for (let at = firstWithin(all, from, index.longest); at < all.length; at += 1) {
        const way = all[at]
        if (way === undefined || way.first > to) break
        const [first, last] = [Math.max(way.first, from), Math.min(way.last, to)]
        if (first > last || (kinds !== null && !kinds.includes(way.contact.kind))) continue
        steps.push(isForward ? { id: way.contact.id, from: way.from, to: way.to, first, last } : { id: way.contact.id, from: way.to, to: way.from, first: 0 - last, last: 0 - first })
      }
      known.set(spot, steps)
      return steps
    }
  }
  const [onward, backTo] = isForward ? [stepsOf(index.out), stepsOf(index.into)] : [stepsOf(index.into), stepsOf(index.out)]
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
      let first: { step: Step; before: Arrival } | undefined
      for (const step of backTo(at)) {
        const before = arrivals.get(step.from)?.findLast(({ hops }) => hops <= left)
        if (before === undefined || before.time > step.last || Math.max(step.first, before.time) !== now.time) continue
        if (first === undefined || step.first < first.step.first || (step.first === first.step.first && byText(step.id, first.step.id) < 0)) first = { step, before }
      }
      if (first === undefined) throw new Error(`No contact leads to ${index.nodeOf(at)}, which was reached`)
      chain.push(first.step.id)
      ;[at, now] = [first.step.from, first.before]
    }
    return isForward ? chain.reverse() : chain
  }
  return { starts, arrivals, chainTo }
}
