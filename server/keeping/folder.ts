import { chmodSync, existsSync, mkdirSync, readdirSync, rmSync, statSync } from 'node:fs'
import { join } from 'node:path'
import BetterSqlite3 from 'better-sqlite3'

/** Where a room's files lie: everything that is worth keeping is in one folder. */
export const databaseIn = (folder: string): string => join(folder, 'room.sqlite')
export const photosIn = (folder: string): string => join(folder, 'photos')

/** Names of the photos of a room; none while the folder is not there. */
export const photoNames = (folder: string): string[] => (existsSync(photosIn(folder)) ? readdirSync(photosIn(folder)).filter((name) => /^[A-Za-z0-9_-]+\.(jpg|png|webp)$/.test(name)).sort() : [])

/** Whatever is made from now on is for the account that runs the room alone, and so is what lies there from before. */
export function keepPrivate(folder: string): void {
  process.umask(0o077)
  const ours = readdirSync(folder).filter((name) => /^room\.(sqlite(-wal|-shm)?|lock|tally)$/.test(name))
  for (const name of ours) chmodSync(join(folder, name), 0o600)
  if (existsSync(photosIn(folder))) chmodSync(photosIn(folder), 0o700)
}

/** Clears away what was cut off in the middle. A restore or an import holds the lock, so none is at work; a backup does not, and takes no day. */
function clearScratch(folder: string): void {
  const isOver = (name: string): boolean => /^\.(restore|import)-/.test(name) || (name.startsWith('.backup-') && Date.now() - statSync(join(folder, name)).mtimeMs > 86_400_000)
  for (const name of readdirSync(folder).filter(isOver)) rmSync(join(folder, name), { recursive: true, force: true })
}

/** Locks of this process. A connection that nobody holds is collected, and its lock would go with it. */
const held = new Set<BetterSqlite3.Database>()

/**
 * Takes a room's folder for this process alone. The lock is one of the database engine, so it goes with the process
 * however that ends, and not before it.
 * @returns how to let go.
 * @throws Error in plain words when another process has the folder.
 */
export function takeFolder(folder: string): () => void {
  mkdirSync(folder, { recursive: true })
  const lock = new BetterSqlite3(join(folder, 'room.lock'))
  try {
    lock.exec('BEGIN EXCLUSIVE')
  } catch {
    lock.close()
    throw new Error(`Daily Crate is running on ${folder} already; stop it first`)
  }
  held.add(lock)
  keepPrivate(folder)
  clearScratch(folder)
  return () => {
    held.delete(lock)
    lock.close()
  }
}
