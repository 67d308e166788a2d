import type { KitchenView } from './kitchenView'

/** What a feed asks for next: which part of the page it stands in, and until when it has time. */
export interface NextStep {
  step: 'thaw' | 'soak' | 'give' | 'out' | 'done' | 'nothing'
  /** What is meant: foods, a rack. */
  what: string[]
  /** By when; null for at once. */
  byMs: number | null
}

/** The next thing to do for a feed: what thaws longest first, then the bowls, the racks as they are walked, the leftovers. */
export function nextStep({ foods, soaks, soaked, racks, outs, feed }: Pick<KitchenView, 'foods' | 'soaks' | 'soaked' | 'racks' | 'outs' | 'feed'>): NextStep {
  if (racks.length === 0) return { step: 'nothing', what: [], byMs: null }
  const toThaw = foods.filter(({ startAtMs, done, pieces }) => startAtMs !== null && done === null && pieces > 0)
  const [first] = toThaw
  if (first) return { step: 'thaw', what: toThaw.filter(({ startAtMs }) => startAtMs === first.startAtMs).map(({ food }) => food), byMs: first.startAtMs }
  const open = racks.filter(({ done }) => done === null)
  if (soaks.length > 0 && soaked === null && open.length === racks.length) return { step: 'soak', what: soaks.map(({ soak }) => soak), byMs: feed.atMs }
  const [rack] = open
  if (rack) return { step: 'give', what: [rack.rack], byMs: feed.atMs }
  const out = outs.find(({ done }) => done === null)
  return out ? { step: 'out', what: out.foods, byMs: out.atMs } : { step: 'done', what: [], byMs: null }
}
