import type { Thing } from '../../core/commands/things'
import type { Params } from '../http/endpoint'

/** That something was written: which command, what its address named, and what of the books it may have changed. */
export interface Change {
  command: string
  params: Params
  touched: readonly Thing[]
  /** Key of the command, and the versions of the database before and after it; left out where nothing of the books was written. */
  written?: { key: string; before: string; after: string }
}

/** Tells whoever listens that something was written. Nothing is kept: a device that was away reads everything anew. */
export function createChanges() {
  const own = new Set<(change: Change) => void>()
  const devices = new Set<(change: Change) => void>()
  const joined = (listeners: Set<(change: Change) => void>) => (listener: (change: Change) => void): (() => void) => {
    listeners.add(listener)
    return () => void listeners.delete(listener)
  }
  return {
    // The server's own come first: what a device reads on hearing of it is right by then.
    tell: (change: Change): void => [...own, ...devices].forEach((listen) => listen(change)),
    /** Listens inside of the server until the returned function is called. */
    listen: joined(own),
    /** Listens for a device, likewise. */
    listenForDevice: joined(devices),
    /** How many devices listen. */
    devices: (): number => devices.size,
  }
}
export type Changes = ReturnType<typeof createChanges>
