import { spawn, type ChildProcess } from 'node:child_process'
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { afterAll, expect, test } from '@jest/globals'
import { openDatabase } from './db/open'
import { checkLedger } from './ledger/checkLedger'
import { newKey } from './testing/testRoom'
import { tries } from '../core/testing/tries'

const folder = mkdtempSync(join(tmpdir(), 'daily-crate-'))
mkdirSync(join(folder, 'dist', 'web'), { recursive: true })
writeFileSync(join(folder, 'dist', 'web', 'index.html'), '<!doctype html><title>room</title>')
let server: ChildProcess
afterAll(async () => {
  await kill()
  rmSync(folder, { recursive: true, force: true })
})

/** Starts the server as `npm start` does, with a page to stand for the interface, and returns its address once it is there. */
async function start(): Promise<string> {
  server = spawn(process.execPath, [resolve('dist/server/main.js')], { cwd: folder, env: { ...process.env, CRATE_DATA: folder, CRATE_PORT: '0' }, stdio: ['ignore', 'pipe', 'inherit'] })
  return new Promise((found, fail) => {
    server.stdout?.on('data', (said: Buffer) => found(/http:\S+/.exec(String(said))?.[0] ?? ''))
    server.once('exit', (code) => fail(new Error(`the server ended with ${code}`)))
  })
}

async function kill(): Promise<void> {
  if (server.exitCode !== null || server.signalCode !== null) return
  const gone = new Promise((resolve) => server.once('exit', resolve))
  server.kill('SIGKILL')
  await gone
}

test('killed again and again in the middle of writes: everything acknowledged is there, once, and the books are right', async () => {
  let url = await start()
  const json = { 'Content-Type': 'application/json' }
  const opened = await fetch(`${url}/api/session/first-lead`, { method: 'POST', headers: json, body: JSON.stringify({ name: 'Imre', passphrase: 'tide pool at dawn', pin: '4711', roomName: 'Room', timeZone: 'UTC' }) })
  const Cookie = (opened.headers.get('set-cookie') ?? '').split(';')[0] ?? ''
  const session = (await (await fetch(`${url}/api/session`, { headers: { Cookie } })).json()) as { staff: { id: string }[] }
  const headers = { ...json, Cookie, 'X-Recording': session.staff[0]?.id ?? '' }
  const post = (path: string, body: unknown, key = newKey()) => fetch(url + path, { method: 'POST', headers: { ...headers, 'Idempotency-Key': key }, body: JSON.stringify(body) })
  const made = (await (await post('/api/systems', { name: 'Rack', water: 'fresh', sumpL: null, rack: 'R1', tankCount: 1, perShelf: 1, tankKind: 'glass', netVolumeL: null })).json()) as { tanks: { id: string }[] }
  const addition = (index: number) => ({ species: 'Cherry barb', quantity: index + 1, how: 'born', note: null, happenedAtMs: Date.now() })

  const lives = tries(50, 10)
  const acknowledged = new Map<string, number>()
  const unanswered = new Map<string, ReturnType<typeof addition>>()
  for (let life = 0; life < lives; life += 1) {
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
  expect([acknowledged.size, checkLedger(db).faults]).toEqual([lives * 12, []])
  db.close()
})
