import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
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
  await server.open()
  const made = (await (await server.post('/api/systems', { name: 'Rack', water: 'fresh', sharing: 'each its own', sumpL: null, rack: 'R1', tankCount: 1, perShelf: 1, tankKind: 'glass', netVolumeL: null })).json()) as { tanks: { id: string }[] }
  tankId = String(made.tanks[0]?.id)
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
