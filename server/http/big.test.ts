import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import request, { type Response } from 'supertest'
import { speciesBook } from '../../core/species/speciesBook'
import { createTestRoom, newKey, type TestRoom } from '../testing/testRoom'

let room: TestRoom
beforeAll(async () => void (room = await createTestRoom()))
afterAll(() => room.db.close())

const nothing = (count: number): null[] => Array.from({ length: count }, () => null)
const emptyObjects = (count: number): object[] => Array.from({ length: count }, () => ({}))
const crate = { supplier: 'Hollow Reed', expectedAtMs: null, packedAtMs: null }
const file = (path: string, body: string | Buffer): Promise<Response> => Promise.resolve(request(room.app).post(path).set('Cookie', room.cookie).set('X-Recording', room.leadId).set('Content-Type', 'text/csv').send(body))

describe('a request of two megabytes costs the room nothing', () => {
  test.each<[string, string, () => object, string]>([
    ['lines', '/api/crates', () => ({ ...crate, lines: emptyObjects(90_000) }), 'A list may have at most 200 lines'],
    ['lines that are nothing', '/api/crates', () => ({ ...crate, lines: nothing(90_000) }), 'A list may have at most 200 lines'],
    ['bags', '/api/crates/x/bags', () => ({ bagIds: nothing(20_000) }), 'At most 200 bags at once'],
    ['concerns', '/api/crates/x/bags', () => ({ bagIds: ['a'], concerns: nothing(20_000) }), 'Looks names something twice'],
    ['signs', '/api/checks', () => ({ signs: nothing(20_000) }), 'Signs names something twice'],
    ['rows of a list', '/api/setup/species/import', () => ({ rows: emptyObjects(90_000) }), 'At most 2,000 rows at once'],
  ])('%s', async (_what, path, body, message) => {
    const answer = await room.post(path, body())
    expect([answer.status, answer.body.errors.length]).toEqual([422, 1])
    expect(answer.body.errors[0].message).toBe(message)
  })

  test('more values than anything of ours holds are not gone through', async () => {
    expect((await room.post('/api/crates', { ...crate, lines: emptyObjects(300_000) })).body).toMatchObject({ status: 413, code: 'too-large' })
  })

  test('of many faults the first hundred are told, and none is echoed at length', async () => {
    const answer = await room.post('/api/crates', { ...crate, lines: emptyObjects(200), ['x'.repeat(50_000)]: 1 })
    expect([answer.status, answer.body.errors.length]).toEqual([422, 100])
    expect(answer.text.length).toBeLessThan(30_000)
  })

  test('what is larger than its address takes is not read, and nobody who is not signed in has anything read', async () => {
    const large = { bagIds: ['a'], note: 'x'.repeat(200_000) }
    expect((await room.post('/api/crates/x/bags', large)).body).toMatchObject({ status: 413, code: 'too-large', detail: 'The request is larger than 128 kB' })
    const broken = '{"lines": ['.padEnd(1_000_000, ' ')
    const unknown = await request(room.app).post('/api/crates').set('Idempotency-Key', newKey()).set('Content-Type', 'application/json').send(broken)
    // That it is broken was never found out.
    expect([unknown.status, unknown.body.code]).toEqual([401, 'signed-out'])
    expect((await request(room.app).post('/api/session').send({ name: 'x'.repeat(200_000), passphrase: 'y' })).status).toBe(413)
  })

  test('what nests deeper than anything of ours cannot be read', async () => {
    const deep = `${'['.repeat(60_000)}${']'.repeat(60_000)}`
    const answer = await Promise.resolve(request(room.app).post('/api/crates').set('Cookie', room.cookie).set('X-Recording', room.leadId).set('Idempotency-Key', newKey()).set('Content-Type', 'application/json').send(`{"lines":${deep}}`))
    expect([answer.status, answer.body.code]).toEqual([400, 'malformed-request'])
  })
})

describe('a file of two megabytes', () => {
  test.each<[string, string, string, RegExp]>([
    ['60,000 rows for a register', '/api/setup/species/csv/preview', `name,water\n${Array.from({ length: 60_000 }, (_, row) => `Fish ${row},fresh`).join('\n')}`, /At most 2,000 rows at once/],
    ['60,000 faulty rows', '/api/setup/suppliers/csv/preview', `name,shipping pH\n${'a,about seven\n'.repeat(60_000)}`, /At most 2,000 rows at once/],
    ['60,000 lines of a packing list', '/api/packing-lists/read', `species,count,bags\n${'Cherry barb,5,1\n'.repeat(60_000)}`, /at most 200 lines/],
    ['nothing but commas', '/api/packing-lists/read', ','.repeat(1_900_000), /has 1900001 cells; a list has at most 100 columns/],
    ['nothing but commas, for a register', '/api/setup/tanks/csv/preview', ','.repeat(1_900_000), /at most 100 columns/],
    ['a JSON list of nothings', '/api/packing-lists/read', `{"format":"daily-crate/packing-list","version":1,"lines":[${'{},'.repeat(600_000)}{}]}`, /at most 200 lines/],
  ])('%s is refused by its size', async (_what, path, body, words) => {
    const answer = await file(path, body)
    expect([answer.status, answer.body.errors.length]).toEqual([422, 1])
    expect(answer.body.errors[0].message).toMatch(words)
  })

  test('of faulty rows the first hundred are told', async () => {
    const answer = await file('/api/setup/suppliers/csv/preview', `name,shipping pH\n${'a,about seven\n'.repeat(1900)}`)
    expect([answer.status, answer.body.errors.length]).toEqual([422, 100])
  })

  test('two thousand rows are read, with others served in between, and taken in', async () => {
    const header = ['name', 'water', 'note']
    const rows = Array.from({ length: 2000 }, (_, row) => [`Fish ${row}`, 'fresh', `like ${speciesBook[row % 100]?.name}`].join(','))
    let served = 0
    const reading = file('/api/setup/species/csv/preview', [header.join(','), ...rows].join('\n'))
    const others = setInterval(() => (served += 1), 0)
    const read = await reading
    clearInterval(others)
    expect([read.status, read.body.rows.length]).toEqual([200, 2000])
    expect(served).toBeGreaterThan(20)
    const taken = await room.post('/api/setup/species/import', { rows: read.body.rows.map(({ id, version, values }: Record<string, unknown>) => ({ id, version, values })) })
    expect([taken.status, taken.body.rows]).toEqual([201, 2000])
  })
})
