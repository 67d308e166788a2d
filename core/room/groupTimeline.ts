import type { MovementView, TimelineEntry } from './roomView'

/** Entries that belong together in a timeline: what one touch did to one lot, or to fish that cannot be told apart. */
export interface TimelineGroup {
  /** Id of the newest entry in it. */
  id: string
  entries: [TimelineEntry, ...TimelineEntry[]]
}

/**
 * Puts neighbouring movements of one command and one lot together, so that six bags placed at once read as one line; and those
 * of one event of a pool, with the corrections that put its fish to their lots.
 * A movement that was taken back stands apart from those that were not. Order and entries are kept.
 */
export function groupTimeline(entries: readonly TimelineEntry[]): TimelineGroup[] {
  const groups: TimelineGroup[] = []
  for (const entry of entries) {
    const last = groups.at(-1)
    if (last && belongTogether(last.entries[0], entry)) last.entries.push(entry)
    else groups.push({ id: entry.id, entries: [entry] })
  }
  return groups
}

function belongTogether(a: TimelineEntry, b: TimelineEntry): boolean {
  if (a.type !== 'movement' || b.type !== 'movement') return false
  if (a.pool || b.pool) return a.pool?.eventId === b.pool?.eventId
  const isVoid = (movement: MovementView): boolean => movement.reversedById !== null
  return a.commandKey === b.commandKey && a.kind === b.kind && a.lotCode === b.lotCode && Math.sign(a.change) === Math.sign(b.change) && isVoid(a) === isVoid(b)
}
