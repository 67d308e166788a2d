import type { Thing } from './things'

/** What the stream of changes says first: which books devices listen to, and how many do. */
export interface Hello {
  /** Names the books as they stand; answers of reads go by the same name. */
  books: string
  devices: number
}

/** What it says after every write. */
export interface Told {
  /** What of the books may have changed. */
  touched: readonly Thing[]
  /** Key of the command that did it; null where none did. */
  by: string | null
  devices: number
}

/** What it says when there is nothing else to say: a network that broke without a word is known by the silence. */
export interface Alive {
  devices: number
}
/** How often it says so, and how long a device waits for a word before it opens the stream anew, milliseconds. */
export const [aliveEveryMs, silenceMs] = [25_000, 60_000]

/** While changes are told, the clock alone makes a read old: so often it is looked at again, milliseconds. */
export const clockEveryMs = 60_000

/** The books that an answer goes by, out of its tag. */
export const booksOf = (tag: string): string => tag.slice(1, Math.max(1, tag.lastIndexOf('.')))

/** Touches that follow each other at once are read together. */
const gatherMs = 100
/** So much longer a device may wait for each that listens, so that they do not all ask in the same moment. */
const perDeviceMs = 80
const longestMs = 5000

/**
 * How long a device waits before it reads anew what others touched, milliseconds: at random, so that many spread out, and
 * what is touched meanwhile is read with it.
 * @param devices - how many listen.
 * @param chance - a random number, 0 to 1.
 */
export const rereadAfterMs = (devices: number, chance: number): number => gatherMs + Math.min(longestMs, Math.max(0, devices - 1) * perDeviceMs) * chance
