import { chmodSync, existsSync, mkdirSync, readFileSync, renameSync, rmSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { drizzle, type BetterSQLite3Database } from 'drizzle-orm/better-sqlite3'
import { migrate } from 'drizzle-orm/better-sqlite3/migrator'
import { outsidePlaceId } from '../../core/ledger/movement'
import { connect, type Raw } from './guard'
import * as schema from './schema'
import { createTally } from './tally'
import { installTriggers } from './triggers'

export interface Database {
  /** Path of the file, or `':memory:'`. */
  file: string
  raw: Raw
  orm: BetterSQLite3Database<typeof schema>
  /** Runs all of `work` or none of it. Synchronous only: a promise would commit before it is done, so it is refused. */
  transact<T>(work: () => T): T
  /** Whether something was written that may still be undone: what is read now must not be kept. */
  isWriting(): boolean
  /** Names what the database holds: the same word, the same contents, whoever wrote. */
  version(): string
  /** Lets the file grow to so many megabytes and no further: what would not fit is refused as on a full disk. */
  limitTo(megabytes: number): void
  /** Notes beside the database that all in it up to now is answered for. */
  acknowledge(atMs: number): void
  close(): void
}

/** Where the migrations lie, as they are built and as they are written. */
export const migrationsFolder = join(import.meta.dirname ?? __dirname, 'migrations')

/**
 * Opens (and makes or brings up to date) a room's database.
 * @param file - path of the file, or `':memory:'`.
 * @param keepsTally - whether what is answered for is counted beside it: for a room that is served.
 * @throws Error when a migration leaves a broken reference, or a ledger trigger is not in place.
 */
export function openDatabase(file: string, { keepsTally = false } = {}): Database {
  if (file !== ':memory:') mkdirSync(dirname(file), { recursive: true })
  const raw = connect(file)
  raw.exec('PRAGMA journal_mode=WAL')
  // FULL: what was acknowledged survives a tripped breaker, not only a crashed process.
  raw.exec('PRAGMA synchronous=FULL')
  // 64 MiB of pages in memory: years of history must not push today's out.
  raw.exec('PRAGMA cache_size=-65536')
  // Without this a REPLACE slips past the trigger that forbids deleting.
  raw.exec('PRAGMA recursive_triggers=ON')
  const orm = drizzle(raw, { schema })
  bringUpToDate(raw, orm, file)
  installTriggers(raw)
  raw.prepare('INSERT OR IGNORE INTO place (id, kind) VALUES (?, ?)').run(outsidePlaceId, 'outside')
  const changes = raw.prepare('SELECT total_changes() AS own, data_version AS others FROM pragma_data_version')
  // Changes that were undone are counted as well, and what was read before they were must not be taken for what holds after;
  // a write that was refused before it changed anything leaves what was read as it is.
  let undone = 0
  const version = (): string => {
    const { own, others } = changes.get() as { own: number; others: number }
    return `${own}.${others}.${undone}`
  }
  let begunAt = ''
  const isWriting = (): boolean => raw.inTransaction && version() !== begunAt
  const tally = keepsTally ? createTally(file, raw) : null
  const close = (): void => {
    tally?.close()
    raw.close()
  }
  return { file, raw, orm, version, isWriting, transact: (work) => transact(raw, work, () => (begunAt = version()), () => (undone += version() === begunAt ? 0 : 1)), limitTo: (megabytes) => limitTo(raw, megabytes), acknowledge: (atMs) => tally?.note(atMs), close }
}

// Rebuilding a table under enforced keys could empty its children, so keys are off while migrating and checked after.
function bringUpToDate(raw: Raw, orm: BetterSQLite3Database<typeof schema>, file: string): void {
  const pending = pendingMigrations(raw)
  if (pending.length > 0 && file !== ':memory:') keepBefore(raw, file, String(pending.at(-1)?.tag))
  raw.exec('PRAGMA foreign_keys=OFF')
  migrate(orm, { migrationsFolder })
  const broken = raw.prepare('PRAGMA foreign_key_check').all()
  if (broken.length > 0) throw new Error(`${broken.length} references are broken after migrating; restore the backup made before`)
  raw.exec('PRAGMA foreign_keys=ON')
}

interface Migration {
  tag: string
  when: number
}

/**
 * Names the migrations that a database which holds something has not seen.
 * @throws Error when it has seen one that is not ours: it was used by a newer version, and whatever that one keeps would be lost or misread here.
 */
function pendingMigrations(raw: Raw): Migration[] {
  const isUsed = raw.prepare(`SELECT 1 FROM sqlite_master WHERE name = '__drizzle_migrations'`).get() !== undefined
  const seen = isUsed ? (raw.prepare('SELECT max(created_at) AS atMs FROM __drizzle_migrations').get() as { atMs: number | null }).atMs : null
  if (seen === null) return []
  const { entries } = JSON.parse(readFileSync(join(migrationsFolder, 'meta', '_journal.json'), 'utf8')) as { entries: Migration[] }
  if (seen > Math.max(...entries.map(({ when }) => when))) throw new Error('A newer version of Daily Crate has kept this room; start that version, or restore a backup made before the update')
  return entries.filter(({ when }) => when > seen)
}

/** Copies a database as it is before a migration changes its shape. A copy that is there already is of before a first try, and stays. */
function keepBefore(raw: Raw, file: string, tag: string): void {
  const copy = join(dirname(file), `before-${tag}.sqlite`)
  if (existsSync(copy)) return
  rmSync(`${copy}.part`, { force: true })
  raw.prepare('VACUUM INTO ?').run(`${copy}.part`)
  chmodSync(`${copy}.part`, 0o600)
  renameSync(`${copy}.part`, copy)
}

function limitTo(raw: Raw, megabytes: number): void {
  const { bytes } = raw.prepare('SELECT page_size AS bytes FROM pragma_page_size').get() as { bytes: number }
  raw.exec(`PRAGMA max_page_count=${Math.ceil((megabytes * 1e6) / bytes)}`)
}

function transact<T>(raw: Raw, work: () => T, onBegun: () => void, onUndone: () => void): T {
  raw.exec('BEGIN IMMEDIATE')
  onBegun()
  try {
    const result = work()
    if (result instanceof Promise) throw new TypeError('a transaction cannot wait for a promise')
    raw.exec('COMMIT')
    return result
  } catch (error) {
    if (raw.inTransaction) raw.exec('ROLLBACK')
    onUndone()
    throw error
  }
}
