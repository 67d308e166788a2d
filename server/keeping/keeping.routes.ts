import { once } from 'node:events'
import { createReadStream, mkdtempSync, rmSync, statSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import type { Response } from 'express'
import { keepingApi } from '../../core/keeping/keeping.api'
import type { AuditStore } from '../audit/audit.store'
import type { Database } from '../db/open'
import { serve, type Endpoint } from '../http/endpoint'
import { Problem } from '../http/problem'
import { endOf, startProgram } from '../program'
import { photoNames } from './folder'
import { viewCopies } from './keepCopies'
import type { Notices } from './notices.service'
import { countRows } from './tables'

interface Collaborators {
  db: Database
  audit: AuditStore
  notices: Notices
  now(): number
  copiesFolder: string | null
}

/** Answers for keeping a copy of the room: a backup to restore from, and everything as JSON. For leads. */
export function keepingEndpoints({ db, audit, notices, now, copiesFolder }: Collaborators): Endpoint[] {
  const folder = dirname(db.file)
  let isCopying = false
  const stamp = (): string => new Date(now()).toISOString().slice(0, 16).replace(':', '')
  const log = (action: string, staffId: string | undefined): void => audit.insert({ atMs: now(), staffId: staffId ?? null, action, subject: 'the room' })
  return serve(keepingApi, {
    readKeeping: () => ({
      rows: countRows(db.raw),
      movements: (db.raw.prepare('SELECT count(*) AS n FROM movement').get() as { n: number }).n,
      photos: db.file === ':memory:' ? 0 : photoNames(folder).length,
      databaseBytes: db.file === ':memory:' ? 0 : statSync(db.file).size,
      copies: viewCopies(copiesFolder),
    }),
    seeNotice: notices.see,
    keepBackup: (request, response) =>
      withCopy(async (file) => {
        if ((await endOf(startProgram('keeping/copyMain', [folder, `${file}.tgz`]))) !== 0) throw new Error('copying the room failed')
        log('backup', request.get('X-Recording'))
        await sendFile(response, `${file}.tgz`, `daily-crate-${stamp()}.tgz`, 'application/gzip')
      }),
    keepExport: (request, response) =>
      withCopy(async (file) => {
        const child = startProgram('keeping/copyMain', [folder, `${file}.sqlite`, String(now())])
        response.once('close', () => child.kill())
        const ended = endOf(child)
        const rows = await Promise.race([once(child, 'message').then(([said]) => (said as { rows: number }).rows), ended.then(() => null)])
        if (rows === null) throw new Error('writing the room out failed')
        log('export', request.get('X-Recording'))
        response.attachment(`daily-crate-${stamp()}.json`).type('application/json').set('X-Rows', String(rows))
        await pipeline(child.stdout!, response, { end: false })
        // Half of a room must not look like the whole of it.
        if ((await ended) === 0) response.end()
        else response.destroy()
      }),
  })

  /** Gives work a place for a copy of the room, one at a time, and clears it away after. */
  async function withCopy(use: (file: string) => Promise<void>): Promise<void> {
    if (db.file === ':memory:') throw new Problem('conflict', 'This room is kept in memory only')
    if (isCopying) throw new Problem('conflict', 'This room is being copied already; ask again when that is done')
    isCopying = true
    const work = mkdtempSync(join(tmpdir(), 'daily-crate-copy-'))
    try {
      await use(join(work, 'room'))
    } finally {
      isCopying = false
      rmSync(work, { recursive: true, force: true })
    }
  }
}

async function sendFile(response: Response, file: string, name: string, type: string): Promise<void> {
  response.attachment(name).type(type).set('Content-Length', String(statSync(file).size))
  await pipeline(createReadStream(file), response)
}
