import { get, request } from 'node:https'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import type { Server } from 'node:http'
import { generate } from 'selfsigned'
import { readConfig } from './config'
import { openDatabase, type Database } from './db/open'
import { listen } from './listen'
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

const script = 'export const fish = 1\n'.repeat(2000)
const folder = mkdtempSync(join(tmpdir(), 'daily-crate-tls-'))
let room: { db: Database; server: Server; url: string; certificate: string }

beforeAll(async () => {
  const pems = await generate([{ name: 'commonName', value: 'localhost' }], { keySize: 2048 })
  writeFileSync(join(folder, 'room.crt'), pems.cert)
  writeFileSync(join(folder, 'room.key'), pems.private)
  mkdirSync(join(folder, 'web', 'assets'), { recursive: true })
  writeFileSync(join(folder, 'web', 'assets', 'room.js'), script)
  writeFileSync(join(folder, 'web', 'index.html'), '<!doctype html><title>room</title>')
  const config = { ...readConfig({ CRATE_PORT: '0', CRATE_HOST: 'localhost', CRATE_DATA: folder, CRATE_TLS_CERT: join(folder, 'room.crt'), CRATE_TLS_KEY: join(folder, 'room.key') }), webFolder: join(folder, 'web') }
  const db = openDatabase(':memory:')
  room = { db, ...(await listen(config, db)), certificate: pems.cert }
})
afterAll(() => {
  room.server.close()
  room.db.close()
  rmSync(folder, { recursive: true, force: true })
})

interface Answer {
  headers: Record<string, unknown>
  body: string
}
const ask = (path: string, headers: Record<string, string> = {}): Promise<Answer> =>
  new Promise((resolve, reject) => {
    get(room.url + path, { ca: room.certificate, headers }, (response) => {
      let body = ''
      response.on('data', (part) => (body += String(part))).on('end', () => resolve({ headers: response.headers, body }))
    }).on('error', reject)
  })

test('with certificate and key the room is served encrypted, says so, and insists on it from then on', async () => {
  expect(room.url).toMatch(/^https:/)
  const session = await ask('/api/session')
  expect(JSON.parse(session.body)).toMatchObject({ isSecure: true, state: 'first-start' })
  expect(session.headers['strict-transport-security']).toMatch(/max-age/)
  expect((await ask('/')).body).toContain('room')
})

test('the interface is sent small to whoever can unpack it, as it is to others, and kept for a year', async () => {
  const packed = await ask('/assets/room.js', { 'Accept-Encoding': 'gzip' })
  expect(packed.headers['content-encoding']).toBe('gzip')
  expect(packed.body.length).toBeLessThan(script.length / 10)
  const plain = await ask('/assets/room.js')
  expect(plain.headers['content-encoding']).toBeUndefined()
  expect(plain.body).toBe(script)
  expect(plain.headers['cache-control']).toMatch(/max-age=31536000, immutable/)
})

test('the cookie of an encrypted room never travels in the open', async () => {
  const opened = await fetchFirstLead()
  expect(opened).toMatch(/Secure/)
  expect(opened).toMatch(/HttpOnly/)
  expect(opened).toMatch(/SameSite=Strict/)
})

async function fetchFirstLead(): Promise<string> {
  const body = JSON.stringify({ name: 'Imre', passphrase: 'tide pool at dawn', pin: '4711', roomName: 'Room', timeZone: 'UTC' })
  return new Promise((resolve, reject) => {
    const call = request(`${room.url}/api/session/first-lead`, { method: 'POST', ca: room.certificate, headers: { 'Content-Type': 'application/json', 'Content-Length': Buffer.byteLength(body) } }, (response) => {
      response.resume().on('end', () => resolve(String(response.headers['set-cookie']?.[0])))
    })
    call.on('error', reject).end(body)
  })
}
