import { copyFileSync, mkdtempSync, rmSync } from 'node:fs'
import { createServer, type RequestListener, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { createApp } from '../app'
import { openDatabase, type Database } from '../db/open'
import { databaseIn } from '../keeping/folder'
import type { NoticeFacts } from '../../core/keeping/notice'

// One process that serves any number of rooms to browser tests, each on a port and in a folder of its own. It is spoken
// to by process messages only: what they do (copy a room, put its clock) has no address that a browser could reach.

/** What may be asked, by name: the test process awaits the answer of each. */
interface Deeds {
  /** Serves a room, empty or as a copy of one that was kept; returns where. */
  open(asked: { from: string | null }): Promise<{ room: number; url: string }>
  /** Ends a room and keeps its database for copies; returns the file. */
  keep(asked: { room: number }): Promise<{ file: string }>
  /** Lets the room's clock stand at a moment. Devices that listen are cut off and ask anew, as after a restart. */
  standAt(asked: { room: number; atMs: number }): Promise<object>
  /** Says what went wrong with the room's keeping, as a start would. */
  tell(asked: { room: number; facts: NoticeFacts }): Promise<object>
  /** Lets it be an hour since anybody gave their PIN. */
  forgetPins(asked: { room: number }): Promise<object>
  /** Fills the disk under a room, or makes room on it again. */
  fillDisk(asked: { room: number; isFull: boolean }): Promise<object>
  /** Puts something into the plan of a run that cannot be followed, as a fault of ours might. */
  breakRun(asked: { room: number; runId: string }): Promise<object>
  /** Ends a room and clears its folder away. */
  close(asked: { room: number }): Promise<object>
}

interface Open {
  folder: string
  db: Database
  server: Server
  app: RequestListener
}

// Folder of the built interface, if it is wanted.
const webFolder = process.argv[2] && resolve(process.argv[2])
const work = mkdtempSync(join(tmpdir(), 'daily-crate-rooms-'))
const open = new Map<number, Open>()
let opened = 0

const serve = (db: Database, frozenMs: number | null): RequestListener =>
  createApp({ db, now: frozenMs === null ? Date.now : () => frozenMs, isFrozenClock: frozenMs !== null, webFolder }) as RequestListener

/** Whoever records here gave their PIN at this moment, however old the room is that was copied. */
const givePins = ({ raw }: Database, atMs: number): void => void raw.prepare('UPDATE session_recorder SET identified_at_ms = ?').run(Math.floor(atMs))

function required(room: number): Open {
  const found = open.get(room)
  if (!found) throw new RangeError(`room ${room} is not open`)
  return found
}

async function end(room: number): Promise<Open> {
  const ended = required(room)
  open.delete(room)
  const closed = new Promise((done) => ended.server.close(done))
  ended.server.closeAllConnections()
  await closed
  ended.db.raw.exec('PRAGMA wal_checkpoint(TRUNCATE)')
  ended.db.close()
  return ended
}

const deeds: Deeds = {
  async open({ from }) {
    const room = (opened += 1)
    const folder = mkdtempSync(join(work, `${room}-`))
    if (from) copyFileSync(from, databaseIn(folder))
    const db = openDatabase(databaseIn(folder))
    givePins(db, Date.now())
    const app = serve(db, null)
    const server = createServer((request, response) => required(room).app(request, response))
    open.set(room, { folder, db, server, app })
    await new Promise<void>((done, fail) => server.once('error', fail).listen(0, '127.0.0.1', done))
    return { room, url: `http://127.0.0.1:${(server.address() as AddressInfo).port}` }
  },
  async keep({ room }) {
    return { file: databaseIn((await end(room)).folder) }
  },
  async standAt({ room, atMs }) {
    const served = required(room)
    givePins(served.db, atMs)
    served.app = serve(served.db, atMs)
    served.server.closeAllConnections()
    return {}
  },
  async forgetPins({ room }) {
    givePins(required(room).db, Date.now() - 3_600_000)
    return {}
  },
  async tell({ room, facts }) {
    required(room).db.raw.prepare('INSERT INTO notice (id, at_ms, facts) VALUES (?, ?, ?)').run(`notice-${facts.kind}`, Date.now(), JSON.stringify(facts))
    return {}
  },
  async fillDisk({ room, isFull }) {
    const { raw } = required(room).db
    const { pages } = raw.prepare('SELECT page_count AS pages FROM pragma_page_count').get() as { pages: number }
    raw.exec(`PRAGMA max_page_count=${isFull ? pages : 1_000_000_000}`)
    return {}
  },
  async breakRun({ room, runId }) {
    required(room).db.raw.prepare(`UPDATE run SET plan = json_remove(plan, '$.question') WHERE id = ?`).run(runId)
    return {}
  },
  async close({ room }) {
    rmSync((await end(room)).folder, { recursive: true, force: true })
    return {}
  },
}

type Asked = { [Name in keyof Deeds]: { id: number; deed: Name; asked: Parameters<Deeds[Name]>[0] } }[keyof Deeds]

process.on('message', ({ id, deed, asked }: Asked) => {
  const answer = (said: object): void => void process.send?.({ id, ...said })
  ;(deeds[deed] as (asked: unknown) => Promise<object>)(asked).then((result) => answer({ result }), (error: unknown) => answer({ error: String(error) }))
})
// Whoever asks is gone, however it ended: nothing is left behind.
process.once('disconnect', () => {
  rmSync(work, { recursive: true, force: true })
  process.exit()
})
