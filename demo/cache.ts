import { createHash } from 'node:crypto'
import { copyFileSync, cpSync, existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { dayInZone } from '../core/time/dayInZone'
import { openDatabase } from '../server/db/open'
import { photosIn } from '../server/keeping/folder'
import { writeLetters } from './letters'
import { makeDemo } from './makeDemo'

/** Dates are relative to the start, so a made room is good for the same day, and not much longer than a morning. */
const freshMs = 4 * 3_600_000

/**
 * Puts the demo room into a file, from the cache when the same program made it a short while ago for the same zone.
 * @returns how many entries it holds, and how long making it took; null when it came from the cache.
 */
export async function furnishFromCache(file: string, nowMs: number, timeZone: string): Promise<{ entries: number; madeMs: number | null }> {
  const folder = join(dirname(file), 'cache')
  const name = `${fingerprint()}-${dayInZone(nowMs, timeZone)}-${timeZone.replace(/\W+/g, '-')}.sqlite`
  const cached = join(folder, name)
  const isFresh = existsSync(cached) && Math.abs(nowMs - Number(readFileSync(`${cached}.at`, 'utf8'))) < freshMs
  const startedMs = performance.now()
  if (!isFresh) await make(folder, cached, nowMs, timeZone)
  copyFileSync(cached, file)
  rmSync(photosIn(dirname(file)), { recursive: true, force: true })
  if (existsSync(photosIn(folder))) cpSync(photosIn(folder), photosIn(dirname(file)), { recursive: true })
  writeLetters(join(dirname(file), 'mailbox'), nowMs)
  const db = openDatabase(file)
  const { entries } = db.raw.prepare('SELECT count(*) AS entries FROM command').get() as { entries: number }
  db.close()
  return { entries, madeMs: isFresh ? null : performance.now() - startedMs }
}

async function make(folder: string, cached: string, nowMs: number, timeZone: string): Promise<void> {
  rmSync(folder, { recursive: true, force: true })
  mkdirSync(folder, { recursive: true })
  const db = openDatabase(`${cached}.part`)
  // Made anew when it breaks, so nothing needs to wait for the disk.
  db.raw.exec('PRAGMA synchronous=OFF')
  await makeDemo(db, nowMs, timeZone)
  db.raw.exec('PRAGMA wal_checkpoint(TRUNCATE)')
  db.close()
  renameSync(`${cached}.part`, cached)
  writeFileSync(`${cached}.at`, String(nowMs))
}

/** Changes whenever anything changes that the demo is made by. */
function fingerprint(): string {
  const hash = createHash('sha256')
  for (const root of ['core', 'server', 'demo']) {
    for (const entry of readdirSync(root, { withFileTypes: true, recursive: true }).filter((each) => each.isFile())) {
      const path = join(entry.parentPath, entry.name)
      hash.update(`${path} ${statSync(path).size} ${statSync(path).mtimeMs}`)
    }
  }
  return hash.digest('hex').slice(0, 12)
}
