import { afterEach, beforeEach, describe, expect, test } from '@jest/globals'
import pino from 'pino'
import request, { type Response } from 'supertest'
import { createApp } from '../app'
import { openDatabase } from '../db/open'
import { createTestRoom, newKey, testNowMs, type TestRoom } from '../testing/testRoom'

let room: TestRoom
beforeEach(async () => void (room = await createTestRoom()))
afterEach(() => room.db.close())

const signIn = (name: string, passphrase = 'tide pool at dawn'): Promise<Response> => Promise.resolve(request(room.app).post('/api/session').send({ name, passphrase }))
const register = (path: string, values: object): Promise<Response> => room.post(`/api/setup/${path}`, { values })

describe('names of any alphabet are one name, however they are typed', () => {
  test.each([['Élodie', 'élodie'], ['Øystein', ' ØYSTEIN '], ['Иван', 'иван'], ['Ελένη', 'ΕΛΈΝΗ'], ['Żaneta', 'Z\u0307aneta'], ['山田', '山田']])('%s opens a device as %s', async (name, typed) => {
    await room.post('/api/staff', { name, role: 'lead', pin: '5151', passphrase: 'a sail before noon' })
    expect((await signIn(typed, 'a sail before noon')).status).toBe(201)
    expect((await room.post('/api/staff', { name: typed, role: 'keeper', pin: '5151', passphrase: null })).body.errors[0].path).toBe('name')
  })

  test('a first lead whose name begins with an accent comes in again', async () => {
    const db = openDatabase(':memory:')
    const app = createApp({ db, now: () => testNowMs, log: pino({ level: 'silent' }) })
    await request(app).post('/api/session/first-lead').send({ name: 'Élodie', passphrase: 'tide pool at dawn', pin: '4711', roomName: 'Öresund', timeZone: 'UTC' })
    expect((await request(app).post('/api/session').send({ name: 'élodie', passphrase: 'tide pool at dawn' })).status).toBe(201)
    db.close()
  })

  test('suppliers, their lists, systems, schools, airlines and agents', async () => {
    const crate = (supplier: string) => room.post('/api/crates', { supplier, expectedAtMs: null, packedAtMs: null, lines: [{ species: 'Cherry barb', count: 2, bags: 1, perBag: null, tankId: null }], listMapping: { heading: ['fisk', 'antal'], mapping: { species: 0, bags: 1 } } })
    for (const name of ['Öresund', 'öresund', 'ÖRESUND  ']) expect((await crate(name)).status).toBe(201)
    expect((await room.get('/api/setup/suppliers')).body.rows.map((row: { values: { name: string } }) => row.values.name)).toEqual(['Öresund'])
    const read = await Promise.resolve(request(room.app).post(`/api/packing-lists/read?supplier=${encodeURIComponent('öresund')}`).set('Cookie', room.cookie).set('Content-Type', 'text/csv').send('fisk,antal\nKuhli loach,3'))
    expect(read.body.errors?.[0].message ?? '').not.toMatch(/no column/)

    const system = { name: 'Älven', water: 'fresh', sharing: 'each its own', sumpL: null, rack: 'R9', tankCount: 1, perShelf: 1, tankKind: 'glass', netVolumeL: null }
    expect((await room.post('/api/systems', system)).status).toBe(201)
    expect((await room.post('/api/systems', { ...system, name: 'ÄLVEN', rack: 'R8' })).body.errors[0].path).toBe('name')
    const school = { name: 'Über Nacht', handsPerBagMin: 1, handsPerLotMin: 1, steps: [{ step: 'transfer', minutes: null, times: null, share: null, handling: 'none' }] }
    expect((await room.post('/api/schools', school)).status).toBe(201)
    expect((await room.post('/api/schools', { ...school, name: 'über nacht' })).body.errors[0].path).toBe('name')
    for (const name of ['Ärm', 'ärm']) expect((await room.post('/api/bench/airlines', { name, dropsPerMl: 20 })).status).toBe(201)
    expect((await room.get('/api/bench')).body.airlines).toHaveLength(1)
    expect((await register('zones', { name: 'Éclair', note: null, sourcesRule: null })).status).toBe(201)
    expect((await register('zones', { name: 'éclair', note: null, sourcesRule: null })).body.errors[0].path).toBe('values.name')
  })

  test('half a character is no text', async () => {
    for (const name of ['A\ud800', '\udc00B', '\ud83d']) {
      const answer = await room.post('/api/crates', { supplier: name, expectedAtMs: null, packedAtMs: null, lines: [], hasList: false })
      expect([answer.status, answer.body.errors[0]]).toEqual([422, { path: 'supplier', message: 'Supplier holds a character that cannot be kept' }])
    }
    expect((await room.post('/api/crates', { supplier: 'Koi 🐟', expectedAtMs: null, packedAtMs: null, lines: [], hasList: false })).status).toBe(201)
  })
})

describe('what no person would send has an answer all the same', () => {
  test.each<[string, 'post' | 'put', string, object]>([
    ['nothing for a choice', 'put', '/api/crates/x/tank-choice', { choices: [null, null] }],
    ['nothing for a count', 'post', '/api/bench/runs/x/count', { stepIndex: 0, counts: [null], tankId: null, look: 'calm', cause: 'unknown', note: null, happenedAtMs: 1 }],
    ['nothing for a step', 'post', '/api/schools', { name: 'Own', handsPerBagMin: 1, handsPerLotMin: 1, steps: [null, null] }],
    ['a step that every object has', 'post', '/api/schools', { name: 'Own', handsPerBagMin: 1, handsPerLotMin: 1, steps: [{ step: 'toString', minutes: null, times: null, share: null, handling: 'none' }] }],
    ['nothing for a line', 'post', '/api/crates', { supplier: 'A', expectedAtMs: null, packedAtMs: null, lines: [null] }],
    ['a picture of nothing', 'post', '/api/crates/x/bags/y/photos', { image: '0', happenedAtMs: 1_900_000_000_000 }],
    ['a list for everything', 'post', '/api/crates', [null]],
    ['a number for everything', 'post', '/api/crates', 7 as unknown as object],
  ])('%s', async (_what, method, path, body) => {
    const answer = await room[method](path, body)
    expect([answer.status, answer.type]).toEqual([422, 'application/problem+json'])
  })
})

describe('a key is looked up before anything else', () => {
  const body = () => ({ species: 'Cherry barb', quantity: 3, how: 'born', note: null, happenedAtMs: room.clock.nowMs })

  test('what is in the books is answered as before, though the clock was put back meanwhile', async () => {
    const [key, sent] = [newKey(), body()]
    const first = await room.post(`/api/tanks/${room.tanks[0]?.id}/additions`, sent, { key })
    room.clock.nowMs -= 86_400_000
    const again = await room.post(`/api/tanks/${room.tanks[0]?.id}/additions`, sent, { key })
    expect([again.status, again.headers['idempotent-replay'], again.body]).toEqual([201, 'true', first.body])
    const ahead = await room.post(`/api/tanks/${room.tanks[0]?.id}/additions`, sent)
    expect(ahead.body).toMatchObject({ status: 422, code: 'ahead-of-clock', current: { nowMs: room.clock.nowMs } })
  })

  test('and though a newer version would no longer take it', async () => {
    const key = newKey()
    // As a device of an earlier version sent it: with a field that no command takes any more.
    const old = { ...body(), colour: 'red' }
    const kept = room.db.raw.prepare('SELECT * FROM command LIMIT 1').get() as Record<string, unknown>
    expect((await room.post(`/api/tanks/${room.tanks[0]?.id}/additions`, old, { key })).status).toBe(422)
    const { createHash } = await import('node:crypto')
    const bodyHash = createHash('sha256').update(JSON.stringify(['addFish', [['tankId', room.tanks[0]?.id]], Object.entries(old).sort(([a], [b]) => (a < b ? -1 : 1))])).digest('base64url')
    room.db.raw.prepare('INSERT INTO command (key, name, body_hash, status, answer, staff_id, recorded_at_ms) VALUES (?, ?, ?, 201, ?, ?, ?)').run(key, 'addFish', bodyHash, '{"lotId":"as before"}', kept.staff_id, room.clock.nowMs)
    const again = await room.post(`/api/tanks/${room.tanks[0]?.id}/additions`, old, { key })
    expect([again.status, again.body, again.headers['idempotent-replay']]).toEqual([201, { lotId: 'as before' }, 'true'])
  })

  test('who may not write learns nothing by a key', async () => {
    const key = newKey()
    await room.post(`/api/tanks/${room.tanks[0]?.id}/additions`, body(), { key })
    expect((await request(room.app).post(`/api/tanks/${room.tanks[0]?.id}/additions`).set('Idempotency-Key', key).send(body())).status).toBe(401)
  })
})

test('the packing list of a crate that came without one is one that can be read', async () => {
  const { id } = (await room.post('/api/crates', { supplier: 'A', expectedAtMs: null, packedAtMs: null, lines: [], hasList: false })).body
  await room.post(`/api/crates/${id}/added-bags`, { species: 'Cherry barb', alive: 4, dead: 0, note: null, happenedAtMs: room.clock.nowMs })
  await room.post(`/api/crates/${id}/added-bags`, { species: 'Kuhli loach', alive: 0, dead: 2, note: null, happenedAtMs: room.clock.nowMs })
  expect((await room.get(`/api/crates/${id}/packing-list`)).status).toBe(200)
})

test('where nothing can be written, a device opens all the same', async () => {
  room.db.raw.exec(`CREATE TEMP TRIGGER full_disk BEFORE UPDATE ON main.session BEGIN SELECT RAISE(ABORT, 'full'); END`)
  room.clock.nowMs += 20 * 60_000
  const view = await room.get('/api/session')
  expect([view.status, view.body.state]).toEqual([200, 'signed-in'])
})

const oddQueries = ['__proto__=x', 'q=%ED%A0%80', 'q=%00', 'entries=1e400', 'entries=a&entries=b', 'line=&line=', `staffId=${'x'.repeat(3000)}`, 'constructor=1', 'before[]=1', 'toString']
test.each(['/api/crates', '/api/bench/subject', '/api/find', '/api/rounds/today', '/api/tanks/R1-01', '/api/audit', '/api/calendar', '/api/today'])('%s says something sensible, whatever stands in its query', async (path) => {
  for (const query of oddQueries) {
    const { status } = await request(room.app).get(`${path}?${query}`).set({ Cookie: room.cookie, 'X-Recording': room.leadId })
    expect([query, status < 500]).toEqual([query, true])
  }
})
