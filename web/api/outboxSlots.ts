import type { OutboxEntry, RefusedEntry } from './outboxEntry'

export type SlotStorage = Pick<Storage, 'getItem' | 'setItem' | 'removeItem' | 'key' | 'length'>

/** An entry as it is kept: with its place in the order, and when this device's own clock says it was made. */
export interface Kept {
  entry: OutboxEntry
  order: number
  madeAtMs: number
}

const waitingPrefix = 'crate.outbox.'
const refusedPrefix = 'crate.refused.'
/** Whether a slot of the browser's storage is one of these. */
export const isOutboxSlot = (slot: string): boolean => slot.startsWith(waitingPrefix) || slot.startsWith(refusedPrefix)

/**
 * What this device keeps of its writes, each in a slot named by its key, so that two pages of one device never write the
 * same: entries on their way, and what was refused until somebody has read it.
 */
export function createOutboxSlots(storage: SlotStorage) {
  const read = <T>(prefix: string, toValue: (kept: unknown, slot: string) => T | null): T[] =>
    Array.from({ length: storage.length }, (_, index) => storage.key(index))
      .filter((slot): slot is string => slot?.startsWith(prefix) ?? false)
      .flatMap((slot) => {
        try {
          const value = toValue(JSON.parse(storage.getItem(slot) ?? ''), slot)
          return value === null ? [] : [value]
        } catch {
          return []
        }
      })
  /** @returns whether it is kept; false in a browser that stores nothing. */
  function keep(kept: Kept): boolean {
    try {
      storage.setItem(waitingPrefix + kept.entry.key, JSON.stringify(kept))
      return true
    } catch {
      return false
    }
  }
  // Entries of earlier versions stand in numbered slots, which two pages could write over each other.
  for (const { slot, kept } of read(waitingPrefix, (value, at) => ({ slot: at, kept: toKept(value, at) }))) {
    if (kept && slot !== waitingPrefix + kept.entry.key && keep(kept)) storage.removeItem(slot)
  }
  return {
    waiting: (): Kept[] => read(waitingPrefix, toKept).sort((a, b) => a.order - b.order),
    keep,
    isWaiting: (key: string): boolean => storage.getItem(waitingPrefix + key) !== null,
    forget: (key: string): void => storage.removeItem(waitingPrefix + key),
    refused: (): RefusedEntry[] => read(refusedPrefix, (kept) => kept as RefusedEntry & { order: number }).sort((a, b) => a.order - b.order).map(({ entry, reason }) => ({ entry, reason })),
    keepRefused({ entry, reason }: RefusedEntry, order: number): void {
      try {
        storage.setItem(refusedPrefix + entry.key, JSON.stringify({ entry, reason, order }))
      } catch {
        // It is on screen at least.
      }
    },
    forgetRefused: (key: string): void => storage.removeItem(refusedPrefix + key),
  }
}

function toKept(value: unknown, slot: string): Kept | null {
  const kept = value as Partial<Kept> & Partial<OutboxEntry>
  if (kept.entry) return kept as Kept
  return kept.key ? { entry: kept as OutboxEntry, order: Number(slot.slice(waitingPrefix.length)) || 0, madeAtMs: Date.now() } : null
}
