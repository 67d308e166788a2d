import { byText } from './contact'
import type { ContactIndex } from './contactIndex'
import { spreadFrom } from './spread'
import { reachedLots, startsOfLots } from './trace'

/** Fish of two sources came into contact, as far as it was recorded. */
export interface Meeting {
  a: string
  b: string
  /** The first minute. */
  since: number
  /** The fewest waters between them. */
  hops: number
  /** The longest they stood in one water at a time; 0 if they never did. */
  togetherMinutes: number
}

/**
 * Which sources have met, by one trace forwards for each of them from all its lots at once. Pairs that never met are left
 * out. Source: docs/contacts.md.
 * @param sources - by lot; null where nobody knows.
 */
export function sourceMeetings(index: ContactIndex, sources: Readonly<Record<string, string | null>>, from: number, to: number): Meeting[] {
  const names = [...new Set(Object.values(sources).filter((source) => source !== null))].sort(byText)
  const met = new Map<string, Meeting>()
  for (const source of names) {
    const own = new Set(Object.entries(sources).flatMap(([lot, of]) => (of === source ? [lot] : [])))
    const asked = { direction: 'forward' as const, from, to }
    const spread = spreadFrom(index, startsOfLots(index, own, asked), { ...asked, kinds: null, maxHops: null })
    for (const { lot, hops, anyAt } of reachedLots(index, spread, asked, own)) {
      const other = sources[lot]
      if (other === null || other === undefined) continue
      const [a = '', b = ''] = [source, other].sort(byText)
      const key = JSON.stringify([a, b])
      const known = met.get(key) ?? { a, b, since: anyAt, hops, togetherMinutes: 0 }
      met.set(key, { ...known, since: Math.min(known.since, anyAt), hops: Math.min(known.hops, hops) })
    }
  }
  for (const [key, minutes] of longestTogether(index, sources, to)) {
    const known = met.get(key)
    if (known) known.togetherMinutes = minutes
  }
  return [...met.values()].sort((one, other) => byText(one.a, other.a) || byText(one.b, other.b))
}

function longestTogether({ stays }: ContactIndex, sources: Readonly<Record<string, string | null>>, to: number): Map<string, number> {
  const longest = new Map<string, number>()
  const byWater = new Map<string, { source: string; from: number; until: number }[]>()
  for (const { lot, water, from, until } of stays) {
    const source = sources[lot]
    if (source === null || source === undefined || from > to) continue
    byWater.set(water, [...(byWater.get(water) ?? []), { source, from, until: Math.min(until ?? to, to) }])
  }
  for (const all of byWater.values())
    for (const [index, one] of all.entries())
      for (const other of all.slice(index + 1)) {
        if (one.source === other.source) continue
        const key = JSON.stringify([one.source, other.source].sort(byText))
        const minutes = Math.min(one.until, other.until) - Math.max(one.from, other.from)
        if (minutes > (longest.get(key) ?? 0)) longest.set(key, minutes)
      }
  return longest
}
