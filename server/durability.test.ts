import { spawn, type ChildProcess } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, expect, test } from '@jest/globals'
import { openDatabase } from './db/open'
import { checkLedger } from './ledger/checkLedger'
import { newKey } from './testing/testRoom'

const folder = mkdtempSync(join(tmpdir(), 'daily-crate-'))
let server: ChildProcess
afterAll(() => void server.kill('SIGKILL'))

/** Starts the server as `npm start` does and returns its address once it answers. */
async function start(): Promise<string> {
  const program = `
    import { openDatabase } from './server/db/open.ts'
    import { createApp } from './server/app.ts'
    const app = createApp({ db: openDatabase(${JSON.stringify(join(folder, 'room.sqlite'))}), now: Date.now })
    const listening = app.listen(0, '127.0.0.1', () => process.send(listening.address().port))`
  server = spawn(process.execPath, ['--import', 'tsx', '--input-type=module', '-e', program], { stdio: ['ignore', 'inherit', 'inherit', 'ipc'] })
  const port = await new Promise((resolve) => server.once('message', resolve))
  return `http://127.0.0.1:${String(port)}`
}

async function kill(): Promise<void> {
  const gone = new Promise((resolve) => server.once('exit', resolve))
  server.kill('SIGKILL')
  await gone
}

test('killed fifty times in the middle of writes: everything acknowledged is there, once, and the books are right', async () => {
  let url = await start()
  const json = { 'Content-Type': 'application/json' }
  const opened = await fetch(`${url}/api/session/first-lead`, { method: 'POST', headers: json, body: JSON.stringify({ name: 'Imre', passphrase: 'tide pool at dawn', pin: '4711', roomName: 'Room', timeZone: 'UTC' }) })
  const Cookie = (opened.headers.get('set-cookie') ?? '').split(';')[0] ?? ''
  const session = (await (await fetch(`${url}/api/session`, { headers: { Cookie } })).json()) as { staff: { id: string }[] }
  const headers = { ...json, Cookie, 'X-Recording': session.staff[0]?.id ?? '' }
  const post = (path: string, body: unknown, key = newKey()) => fetch(url + path, { method: 'POST', headers: { ...headers, 'Idempotency-Key': key }, body: JSON.stringify(body) })
  const made = (await (await post('/api/systems', { name: 'Rack', water: 'fresh', sumpL: null, rack: 'R1', tankCount: 1, perShelf: 1, tankKind: 'glass', netVolumeL: null })).json()) as { tanks: { id: string }[] }
  const addition = (index: number) => ({ species: 'Cherry barb', quantity: index + 1, how: 'born', note: null, happenedAtMs: Date.now() })

  const acknowledged = new Map<string, number>()
  const unanswered = new Map<string, ReturnType<typeof addition>>()
  for (let life = 0; life < 50; life += 1) {
    const writes = Array.from({ length: 12 }, async (_, index) => {
      const [key, body] = [newKey(), addition(index)]
      unanswered.set(key, body)
      const answer = await post(`/api/tanks/${made.tanks[0]?.id}/additions`, body, key).catch(() => null)
      if (answer?.status === 201) acknowledged.set(key, body.quantity)
      if (answer?.status === 201) unanswered.delete(key)
    })
    // Some lives end before the first answer, some after the last.
    await Promise.race([Promise.all(writes), new Promise((resolve) => setTimeout(resolve, (life % 10) * 8))])
    await kill()
    await Promise.all(writes)
    url = await start()
  }
  // What nobody answered for is sent again with its key, as a device would.
  for (const [key, body] of unanswered) {
    expect((await post(`/api/tanks/${made.tanks[0]?.id}/additions`, body, key)).status).toBe(201)
    acknowledged.set(key, body.quantity)
  }
  await kill()

  const db = openDatabase(join(folder, 'room.sqlite'))
  const rows = db.raw.prepare(`SELECT command_key AS key, sum(quantity) AS quantity FROM movement GROUP BY command_key`).all() as { key: string; quantity: number }[]
  expect(new Map(rows.map((row) => [row.key, row.quantity]))).toEqual(acknowledged)
  expect([acknowledged.size, checkLedger(db).faults]).toEqual([600, []])
  db.close()
}, 240_000)
