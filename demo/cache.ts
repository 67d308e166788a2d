import { createHash } from 'node:crypto'
import { copyFileSync, existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { dayInZone } from '../core/time/dayInZone'
import { openDatabase } from '../server/db/open'
import { photosIn } from '../server/keeping/folder'
import { writeLetters } from './letters'
import { makeHistory, makeMorning } from './makeDemo'

/**
 * Puts the demo room into a file: its history from the cache, when the same program made it for the same day and zone; this
 * morning anew, so that nothing in it is ever late.
 * @returns how many entries it holds, and how long making its history took; null when that came from the cache.
 */
export async function furnishFromCache(file: string, nowMs: number, timeZone: string): Promise<{ entries: number; madeMs: number | null }> {
  const folder = join(dirname(file), 'cache')
  const name = `${fingerprint()}-${dayInZone(nowMs, timeZone)}-${timeZone.replace(/\W+/g, '-')}.sqlite`
  const cached = join(folder, name)
  const isFresh = existsSync(cached)
  const startedMs = performance.now()
  if (!isFresh) await make(folder, cached, nowMs, timeZone)
  copyFileSync(cached, file)
  rmSync(photosIn(dirname(file)), { recursive: true, force: true })
  writeLetters(join(dirname(file), 'mailbox'), nowMs)
  const db = openDatabase(file)
  await makeMorning(db, nowMs)
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
  await makeHistory(db, nowMs, timeZone)
  db.raw.exec('PRAGMA wal_checkpoint(TRUNCATE)')
  db.close()
  renameSync(`${cached}.part`, cached)
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
