import type { Params } from '../http/endpoint'

/** That something was written: which command, and what its address named. What was written is read by whoever needs it. */
export interface Change {
  command: string
  params: Params
  /** Key of the command, and the versions of the database before and after it; left out where nothing of the books was written. */
  written?: { key: string; before: string; after: string }
}

/** Tells whoever listens that something was written. Nothing is kept: a device that was away reads everything anew. */
export function createChanges() {
  const listeners = new Set<(change: Change) => void>()
  return {
    tell: (change: Change): void => listeners.forEach((listen) => listen(change)),
    /** Listens until the returned function is called. */
    listen(listener: (change: Change) => void): () => void {
      listeners.add(listener)
      return () => void listeners.delete(listener)
    },
  }
}
export type Changes = ReturnType<typeof createChanges>
