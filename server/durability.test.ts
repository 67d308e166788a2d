import { execFileSync } from 'node:child_process'
import { existsSync, readFileSync, readdirSync, statSync, truncateSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import type { KeepingView } from '../core/keeping/keeping'
import type { NoticeFacts } from '../core/keeping/notice'
import { openDatabase } from './db/open'
import { checkLedger } from './ledger/checkLedger'
import { collecting, createRealServer, type RealServer } from './testing/realServer'
import { newKey } from './testing/testRoom'
import { tries } from '../core/testing/tries'

let server: RealServer
let tankId: string
const addition = (index: number) => ({ species: 'Cherry barb', quantity: index + 1, how: 'born', note: null, happenedAtMs: Date.now() })
beforeAll(async () => {
  server = createRealServer()
  await server.start()
  tankId = await server.furnish()
})
afterAll(() => server.end())

test('killed again and again in the middle of writes: everything acknowledged is there, once, and the books are right', async () => {
  const lives = tries(50, 10)
  const acknowledged = new Map<string, number>()
  const unanswered = new Map<string, ReturnType<typeof addition>>()
  for (let life = 0; life < lives; life += 1) {
    const writes = Array.from({ length: 12 }, async (_, index) => {
      const [key, body] = [newKey(), addition(index)]
      unanswered.set(key, body)
      const answer = await server.post(`/api/tanks/${tankId}/additions`, body, key).catch(() => null)
      if (answer?.status === 201) acknowledged.set(key, body.quantity)
      if (answer?.status === 201) unanswered.delete(key)
    })
    // Some lives end before the first answer, some after the last.
    await Promise.race([Promise.all(writes), new Promise((resolve) => setTimeout(resolve, (life % 10) * 8))])
    await server.kill()
    await Promise.all(writes)
    await server.start()
  }
  // What nobody answered for is sent again with its key, as a device would.
  for (const [key, body] of unanswered) {
    expect((await server.post(`/api/tanks/${tankId}/additions`, body, key)).status).toBe(201)
    acknowledged.set(key, body.quantity)
  }
  await server.kill()

  const db = openDatabase(join(server.folder, 'room.sqlite'))
  const rows = db.raw.prepare(`SELECT command_key AS key, sum(quantity) AS quantity FROM movement GROUP BY command_key`).all() as { key: string; quantity: number }[]
  expect(new Map(rows.map((row) => [row.key, row.quantity]))).toEqual(acknowledged)
  expect([acknowledged.size, checkLedger(db).faults]).toEqual([lives * 12, []])
  db.close()
})

describe('what is found at a start', () => {
  // Its database is opened by processes that end: a connection of this one would keep what a power cut forgets.
  let server: RealServer
  let tankId: string
  beforeAll(async () => {
    server = createRealServer()
    await server.start()
    tankId = await server.furnish()
  })
  afterAll(() => server.end())
  const tally = (): number => Number(readFileSync(join(server.folder, 'room.tally'), 'utf8').split(' ')[0])
  const notices = async (until: (found: { facts: NoticeFacts }[]) => boolean): Promise<NoticeFacts[]> => {
    for (;;) {
      const { notices: found } = (await (await server.get('/api/session')).json()) as { notices: { id: string; facts: NoticeFacts }[] }
      if (until(found)) return found.map(({ facts }) => facts)
      await new Promise((resolve) => setTimeout(resolve, 50))
    }
  }
  test('a journal that lost its end: how many entries are missing is said on every screen, until a lead puts it away', async () => {
    for (let nth = 0; nth < 60; nth += 1) await server.post(`/api/tanks/${tankId}/additions`, addition(0))
    await server.kill()
    const acknowledged = tally()
    // The head of the journal and its first page are left.
    truncateSync(join(server.folder, 'room.sqlite-wal'), 32 + 24 + 4096)
    await server.start()
    const [said] = await notices((found) => found.length > 0)
    // A room that starts counts from what it has.
    const missing = acknowledged - tally()
    expect(missing).toBeGreaterThan(0)
    expect(said).toMatchObject({ kind: 'entries-missing', entries: missing })
    // It is said once, also after the next start, and put away for good.
    await server.kill()
    await server.start()
    const { notices: found } = (await (await server.get('/api/session')).json()) as { notices: { id: string }[] }
    expect(found).toHaveLength(1)
    expect((await server.post(`/api/notices/${found[0]?.id}/seen`, {})).status).toBe(201)
    expect(await notices((each) => each.length === 0)).toEqual([])
  })

  test('figures that were changed under the books are found while the room is served already, and said', async () => {
    const change = (by: string): void => void execFileSync(process.execPath, ['-e', `new (require('better-sqlite3'))(process.argv[1]).exec('UPDATE stock SET quantity = quantity ${by} WHERE rowid = (SELECT min(rowid) FROM stock)')`, join(server.folder, 'room.sqlite')])
    await server.kill()
    change('+ 1')
    await server.start()
    expect(await notices((found) => found.length > 0)).toMatchObject([{ kind: 'books-wrong', faults: [expect.stringMatching(/kept, movements come to/)] }])
    await server.kill()
    // What was put right is not said any more.
    change('- 1')
    await server.start()
    expect(await notices((found) => found.length === 0)).toEqual([])
  })

  test('copies are made by themselves into a second folder, and the newest is tried', async () => {
    await server.kill()
    const copies = join(server.folder, 'copies')
    await server.start({ env: { CRATE_COPIES: copies } })
    const trial = join(copies, 'trial.json')
    while (!existsSync(trial)) await new Promise((resolve) => setTimeout(resolve, 50))
    const names = readdirSync(copies).filter((name) => name.endsWith('.tgz')).sort()
    expect([names.length, statSync(join(copies, String(names[0]))).mode & 0o777]).toEqual([2, 0o600])
    const view = (await (await server.get('/api/keeping')).json()) as KeepingView
    expect(view.copies).toMatchObject({ folder: copies, hours: 1, days: 1, trial: { name: expect.stringMatching(/^(day|hour)-/), movements: expect.any(Number) } })
    await server.kill()
    // A folder that takes no copies is said.
    writeFileSync(join(server.folder, 'no-folder'), '')
    await server.start({ env: { CRATE_COPIES: join(server.folder, 'no-folder') } })
    expect(await notices((found) => found.length > 0)).toMatchObject([{ kind: 'copies-failing', why: expect.stringMatching(/EEXIST|ENOTDIR/) }])
    await server.kill()
    await server.start({ env: { CRATE_COPIES: join(server.folder, 'elsewhere') } })
    expect(await notices((found) => found.every(({ facts }) => facts.kind !== 'copies-failing'))).toEqual([])
  })
})

describe('one process to a folder', () => {
  test('while a server runs, however long and whatever it has collected, no other program takes its folder', async () => {
    await server.kill()
    await server.start({ nodeArgs: collecting })
    const kept = join(server.folder, 'kept.tgz')
    expect(await server.run('keep', { args: ['backup', kept] })).toMatchObject({ code: 0 })
    await new Promise((resolve) => setTimeout(resolve, 500))
    for (const [name, ...args] of [['main'], ['keep', 'restore', kept], ['keep', 'import', kept], ['demo']] as [string, ...string[]][]) {
      const { code, said } = await server.run(name, { args })
      expect([name, ...args.slice(0, 1), code, /is running on .* already; stop it first/.test(said)]).toEqual([name, ...args.slice(0, 1), 1, true])
    }
    // The running one goes on as if nothing had been.
    expect((await server.post(`/api/tanks/${tankId}/additions`, addition(0))).status).toBe(201)
  })

  test('when it is gone, the folder is free', async () => {
    await server.kill()
    expect(await server.run('keep', { args: ['restore', join(server.folder, 'kept.tgz')] })).toMatchObject({ code: 0 })
    await server.start()
    expect((await server.get('/api/room')).status).toBe(200)
  })
})
