import { afterEach, beforeEach, describe, expect, test } from '@jest/globals'
import nodeIcal from 'node-ical'
import { pino } from 'pino'
import request from 'supertest'
import type { DueItem } from '../../core/due/due'
import { baseUnits, wordFigures } from '../../core/units/units'
import { createApp } from '../app'
import { createTestRoom, plainBag, testNowMs, type TestRoom } from '../testing/testRoom'

const [minuteMs, hourMs] = [60_000, 3_600_000]
const secret = 'a-secret-that-a-device-made-by-itself-43-ch'
let room: TestRoom
beforeEach(async () => void (room = await createTestRoom()))
afterEach(() => room.db.close())

const due = async (): Promise<DueItem[]> => (await room.get('/api/due')).body.items
const kinds = async () => (await due()).filter(({ kind }) => kind !== 'hold day').map(({ kind, urgency, done }) => [kind, urgency, done === null])
/** A crate that comes in some hours, planned for a tank. */
async function crateDueIn(hours: number): Promise<string> {
  const line = { species: 'Cherry barb', count: 12, bags: 2, perBag: null, tankId: room.tanks[0]?.id }
  return (await room.post('/api/crates', { supplier: 'Hollow Reed Hatchery', expectedAtMs: room.clock.nowMs + hours * hourMs, packedAtMs: room.clock.nowMs - hourMs, lines: [line] })).body.id
}

describe('what is due', () => {
  test('a crate on its way is due, and its preparation before it; what is done says by whom', async () => {
    const crateId = await crateDueIn(30)
    const items = await due()
    expect(items.find(({ kind }) => kind === 'crate')).toMatchObject({ what: 'crate 1 comes', about: 'Hollow Reed Hatchery', to: `/crates/${crateId}`, byMs: testNowMs + 30 * hourMs, urgency: 'later', done: null })
    const steps = items.filter(({ kind }) => kind === 'preparation')
    expect(steps.length).toBeGreaterThan(1)
    const [step] = steps.filter(({ byMs }) => byMs !== null)
    expect(step).toMatchObject({ about: 'crate 1, Hollow Reed Hatchery', to: `/crates/${crateId}/preparation`, urgency: 'later' })
    expect(step?.byMs).toBeLessThan(testNowMs + 30 * hourMs)
    await room.put(`/api/crates/${crateId}/preparation`, { step: step?.id.split(' ').slice(2).join(' '), isDone: true })
    expect((await due()).find(({ id }) => id === step?.id)?.done).toEqual({ by: 'Imre', atMs: testNowMs })
    room.clock.nowMs += 31 * hourMs
    expect((await due())[0]).toMatchObject({ urgency: 'now' })
  })

  test('a crate in hand calls at once, its dead fish are to be claimed while the window is open, and a run’s step by its clock', async () => {
    const crateId = await crateDueIn(0)
    const suppliers = (await room.get('/api/setup/suppliers')).body.rows as { id: string; version: number; values: object }[]
    await room.put(`/api/setup/suppliers/${suppliers[0]?.id}`, { values: { ...suppliers[0]?.values, claimWindowHours: 12 }, version: 1 })
    const { bags, lines } = (await room.get(`/api/crates/${crateId}`)).body
    await room.post(`/api/crates/${crateId}/bags`, { ...plainBag([bags[0].id], 5), dead: 1 })
    expect((await due()).find(({ kind }) => kind === 'crate')).toMatchObject({ what: 'unpack crate 1', to: `/crates/${crateId}/unpack`, sinceMs: testNowMs - hourMs, urgency: 'now' })
    expect((await due()).find(({ kind }) => kind === 'claim')).toMatchObject({ what: 'claim 1 dead of crate 1', byMs: testNowMs + 12 * hourMs, urgency: 'later', to: `/crates/${crateId}/claim` })
    await room.post(`/api/crates/${crateId}/placements`, { tankId: null, happenedAtMs: testNowMs })
    await room.post(`/api/crates/${crateId}/closing`, { because: 'the other bag is not ours', version: 1 })
    expect(lines).toHaveLength(1)
    expect(await kinds()).toEqual([['claim', 'later', true]])
    room.clock.nowMs += 12 * hourMs
    expect(await kinds()).toEqual([])
  })

  test('a preparation that cannot be worked out is named, here and on Today, and takes nothing with it', async () => {
    await crateDueIn(10)
    room.db.raw.exec(`UPDATE species SET needs = '{' WHERE name = 'Cherry barb'`)
    expect((await room.get('/api/due')).body.broken).toEqual(['the preparation for crate 1'])
    expect(await kinds()).toEqual([['crate', 'later', true]])
    const today = (await room.get('/api/today')).body
    expect([today.broken, today.prepare, today.crates.length]).toEqual([['the preparation for crate 1'], [], 1])
  })
})

describe('a calendar', () => {
  const file = (of: string) => request(room.app).get(`/api/calendar/${of}.ics`)
  const make = (of = secret) => room.post('/api/calendar', { secret: of })

  test('reads what is due under a secret address; a program that knows the format understands it', async () => {
    await crateDueIn(30)
    expect((await room.get('/api/calendar')).body.code).toBe('unidentified')
    expect((await make()).status).toBe(201)
    const answer = await file(secret)
    expect([answer.status, answer.headers['content-type']]).toEqual([200, 'text/calendar; charset=utf-8'])
    const entries = Object.values(nodeIcal.sync.parseICS(answer.text)).filter((each) => each?.type === 'VEVENT')
    const waiting = (await due()).filter(({ byMs, done }) => byMs !== null && done === null)
    // What is due for one crate at one hour is one entry that names all of it.
    const hours = new Set(waiting.map(({ kind, to, byMs }) => `${kind} ${to} ${byMs}`))
    expect([entries.length, waiting.length > hours.size]).toEqual([hours.size, true])
    for (const { what } of waiting) expect(entries.some((each) => each?.type === 'VEVENT' && `${String(each.summary)} ${String(each.description)}`.includes(wordFigures(what, () => baseUnits)))).toBe(true)
    const crate = entries.find((each) => each?.type === 'VEVENT' && String(each.summary) === 'crate 1 comes')
    expect(crate).toMatchObject({ start: new Date(testNowMs + 30 * hourMs), end: new Date(testNowMs + 30 * hourMs + 15 * minuteMs), description: 'Hollow Reed Hatchery' })
    // Marks of figures are for screens.
    expect(answer.text).not.toContain('⟨')
    // The same work keeps its name, so that no calendar shows it twice.
    const uids = (text: string) => [...text.matchAll(/^UID:(.*)$/gm)].map(([, uid]) => uid).sort()
    expect(uids((await file(secret)).text)).toEqual(uids(answer.text))
    expect(new Set(uids(answer.text)).size).toBe(hours.size)
  })

  test('a wrong, a taken back and an earlier address answer 404, and so does that of somebody who left', async () => {
    expect((await file(secret)).status).toBe(404)
    await make()
    const other = secret.replace('a-', 'b-')
    expect((await file(other)).body).toMatchObject({ status: 404, code: 'not-found' })
    await make(other)
    expect([(await file(secret)).status, (await file(other)).status]).toEqual([404, 200])
    await room.post('/api/calendar/revocation', {})
    expect((await file(other)).status).toBe(404)
    await make(secret.replace('a-', 'c-'))
    room.db.raw.prepare('UPDATE staff SET retired_at_ms = 1').run()
    expect((await file(secret.replace('a-', 'c-'))).status).toBe(404)
  })

  test('the secret is nowhere in the room or its log, and making an address stands in the audit', async () => {
    await make()
    const tables = (room.db.raw.prepare(`SELECT name FROM sqlite_master WHERE type = 'table'`).all() as { name: string }[]).map(({ name }) => name)
    for (const table of tables) expect(JSON.stringify(room.db.raw.prepare(`SELECT * FROM "${table}"`).all())).not.toContain(secret)
    expect((await request(room.app).get('/api/audit').set('Cookie', room.cookie).set('X-Recording', room.leadId)).text).toContain('calendar of Imre')
    expect((await make('too short')).body.errors[0].path).toBe('secret')
    const lines: string[] = []
    const app = createApp({ db: room.db, now: () => testNowMs, log: pino({}, { write: (line) => void lines.push(line) }) })
    room.db.raw.exec('ALTER TABLE recheck RENAME TO gone')
    expect((await request(app).get(`/api/calendar/${secret}.ics`)).status).toBe(500)
    expect([lines.join().includes('/api/calendar/…'), lines.join().includes(secret)]).toEqual([true, false])
  })
})
