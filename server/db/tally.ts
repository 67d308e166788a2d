import { closeSync, openSync, readFileSync, writeSync } from 'node:fs'
import type { Raw } from './guard'

/** How far the books had come when something was last answered for. */
export interface Tally {
  commands: number
  movements: number
  atMs: number
}

/** Where a room's tally lies. */
export const tallyOf = (databaseFile: string): string => `${databaseFile.replace(/\.sqlite$/, '')}.tally`

/** Counts what is in the books. Nothing in them is ever deleted, so the last row number is the count. */
export function countBooks(raw: Raw): () => Omit<Tally, 'atMs'> {
  const counts = raw.prepare('SELECT coalesce((SELECT max(rowid) FROM command), 0) AS commands, coalesce((SELECT max(seq) FROM movement), 0) AS movements')
  return () => counts.get() as Omit<Tally, 'atMs'>
}

/**
 * Keeps beside the database how much of it was answered for. A journal that loses its end looks whole to the database;
 * this is what it is held against at the next start. It is written after the books and needs no flush of its own: it may
 * lag behind them, and never runs ahead.
 */
export function createTally(databaseFile: string, raw: Raw) {
  let file: number | null = null
  const count = countBooks(raw)
  let notedMs: number | null = null
  function write(): void {
    const atMs = notedMs
    notedMs = null
    if (atMs === null) return
    try {
      file ??= openSync(tallyOf(databaseFile), 'w', 0o600)
      const { commands, movements } = count()
      writeSync(file, `${commands} ${movements} ${Math.floor(atMs)} .`.padEnd(80), 0)
    } catch {
      // It lags behind then, which it may; a disk that takes no more is said by whatever else wants to write.
    }
  }
  return {
    /** Notes how far the books are, once for all that was answered in this moment: nobody waits for it. */
    note(atMs: number): void {
      if (notedMs === null) setImmediate(write)
      notedMs = atMs
    },
    close(): void {
      write()
      if (file !== null) closeSync(file)
      file = null
    },
  }
}

/** Reads a room's tally; null where there is none, or only a piece of one. */
export function readTally(databaseFile: string): Tally | null {
  try {
    const [, commands, movements, atMs] = /^(\d+) (\d+) (\d+) \. *$/.exec(readFileSync(tallyOf(databaseFile), 'utf8')) ?? []
    return commands === undefined ? null : { commands: Number(commands), movements: Number(movements), atMs: Number(atMs) }
  } catch {
    return null
  }
}
