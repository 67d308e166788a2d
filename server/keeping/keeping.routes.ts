import { spawn } from 'node:child_process'
import { createReadStream, mkdtempSync, rmSync, statSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import { Readable } from 'node:stream'
import BetterSqlite3 from 'better-sqlite3'
import type { Response } from 'express'
import type { KeepingView } from '../../core/keeping/keeping'
import type { AuditStore } from '../audit/audit.store'
import { guardBinds } from '../db/guard'
import type { Database } from '../db/open'
import { plain, read, type Endpoint } from '../http/endpoint'
import { Problem } from '../http/problem'
import { serverProgram } from '../program'
import { exportRoom } from './exportRoom'
import { photoNames } from './folder'
import { countRows } from './tables'

/** Addresses for keeping a copy of the room: a backup to restore from, and everything as JSON. For leads. */
export function keepingEndpoints(db: Database, audit: AuditStore, now: () => number): Endpoint[] {
  const folder = dirname(db.file)
  const stamp = (): string => new Date(now()).toISOString().slice(0, 16).replace(':', '')
  const log = (action: string, staffId: string | undefined): void => audit.insert({ atMs: now(), staffId: staffId ?? null, action, subject: 'the room' })
  return [
    read({
      path: '/api/keeping',
      access: 'lead',
      read: (): KeepingView => ({
        rows: countRows(db.raw),
        movements: (db.raw.prepare('SELECT count(*) AS n FROM movement').get() as { n: number }).n,
        photos: db.file === ':memory:' ? 0 : photoNames(folder).length,
        databaseBytes: db.file === ':memory:' ? 0 : statSync(db.file).size,
      }),
    }),
    plain({
      method: 'get',
      path: '/api/keeping/backup',
      access: 'lead',
      asksPin: true,
      handle: (request, response) =>
        withCopy(db, 'room.tgz', async (file) => {
          log('backup', request.get('X-Recording'))
          await sendFile(response, file, `daily-crate-${stamp()}.tgz`, 'application/gzip')
        }),
    }),
    plain({
      method: 'get',
      path: '/api/keeping/export',
      access: 'lead',
      asksPin: true,
      handle: (request, response) =>
        withCopy(db, 'room.sqlite', async (file) => {
          log('export', request.get('X-Recording'))
          const copy = guardBinds(new BetterSqlite3(file))
          response.attachment(`daily-crate-${stamp()}.json`).type('application/json').set('X-Rows', String(countRows(copy)))
          await pipeline(Readable.from(exportRoom(copy, folder, now())), response).finally(() => copy.close())
        }),
    }),
  ]
}

/**
 * Has a copy of the room made by a process of its own, so that nobody's touch waits for it, and clears it away after.
 * @param name - `room.tgz` for a backup, `room.sqlite` for the bare database.
 */
async function withCopy(db: Database, name: string, use: (file: string) => Promise<void>): Promise<void> {
  if (db.file === ':memory:') throw new Problem('conflict', 'This room is kept in memory only')
  const work = mkdtempSync(join(tmpdir(), 'daily-crate-copy-'))
  try {
    const file = join(work, name)
    const copy = serverProgram('keeping/copyMain')
    const child = spawn(process.execPath, [...copy.execArgv, copy.file, dirname(db.file), file], { stdio: ['ignore', 'ignore', 'inherit'] })
    const code = await new Promise((resolve, reject) => child.once('exit', resolve).once('error', reject))
    if (code !== 0) throw new Error(`copying the room ended with ${String(code)}`)
    await use(file)
  } finally {
    rmSync(work, { recursive: true, force: true })
  }
}

async function sendFile(response: Response, file: string, name: string, type: string): Promise<void> {
  response.attachment(name).type(type).set('Content-Length', String(statSync(file).size))
  await pipeline(createReadStream(file), response)
}
