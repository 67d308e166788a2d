import { afterEach, beforeEach, expect, test } from '@jest/globals'
import { signs } from '../../core/rounds/rounds.schema'
import { createTestRoom, quietCheck, testNowMs, type TestRoom } from '../testing/testRoom'

let room: TestRoom
let lotId: string
const tankId = () => room.tanks[0]?.id ?? ''
beforeEach(async () => {
  room = await createTestRoom()
  lotId = await room.addFish(room.tanks[0], 'Cherry barb', 6)
})
afterEach(() => room.db.close())

const check = (change: object) => room.post('/api/checks', { ...quietCheck(tankId()), ...change })
const observed = () =>
  (room.db.raw.prepare('SELECT seq, kind, word, severity, value, note, lot_id, tank_id, check_id, replaced_by_seq FROM observation ORDER BY seq').all() as Record<string, unknown>[]).map(({ seq, kind, word, severity, value, note, lot_id, replaced_by_seq }) => [seq, kind, word ?? value ?? note, severity, lot_id === lotId ? 'lot' : lot_id, replaced_by_seq])

test('a check says one thing a row; a correction takes all of them with it and nothing else', async () => {
  const first = (await check({ ate: 'most', signs: ['spots', 'rubbing'], marks: [{ sign: 'spots', severity: 2, lotId }], seen: 5, note: 'one hides' })).body.id
  await check({ ate: 'none' })
  expect((await check({ ate: 'all', signs: ['hiding'], replacesId: first })).status).toBe(201)
  expect(observed()).toEqual([
    [1, 'ate', 'most', null, null, 7],
    [2, 'sign', 'spots', 2, 'lot', 7],
    [3, 'sign', 'rubbing', 1, null, 7],
    [4, 'seen', 5, null, null, 7],
    [5, 'note', 'one hides', null, null, 7],
    [6, 'ate', 'none', null, null, null],
    [7, 'ate', 'all', null, null, null],
    [8, 'sign', 'hiding', 1, null, null],
  ])
})

test('all 23 signs and five answers are taken; the glass shows what outweighs the others, a full meal nothing', async () => {
  expect(signs).toHaveLength(23)
  room.clock.nowMs += 60_000
  for (const [index, sign] of signs.entries()) expect((await check({ signs: [sign], happenedAtMs: testNowMs + index })).status).toBe(201)
  const flag = async () => (await room.get('/api/tanks/R1-01')).body.flag
  // Seen a moment before the newest look, gasping still is half of what it was.
  expect(await flag()).toEqual({ level: 'harm', word: 'gasping' })
  room.clock.nowMs += 3 * 86_400_000
  expect((await check({ signs: ['at the surface', 'redness'], happenedAtMs: room.clock.nowMs })).status).toBe(201)
  expect((await flag())?.word).toBe('redness')
  room.clock.nowMs += 10 * 86_400_000
  await check({ ate: 'most', happenedAtMs: room.clock.nowMs })
  expect(await flag()).toBeNull()
  expect((await check({ ate: 'a lot' })).body.errors[0].message).toBe('Feeding must be one of: all, most, some, none, not fed')
})

test.each<[string, object, string, string]>([
  ['a mark of no sign', { signs: ['hiding'], marks: [{ sign: 'spots', severity: 1, lotId: null }] }, 'marks', 'A mark names a sign that is not among the signs'],
  ['a sign marked twice for one lot', { signs: ['spots'], marks: [{ sign: 'spots', severity: 1, lotId: null }, { sign: 'spots', severity: 2, lotId: null }] }, 'marks', 'A sign is marked twice for one lot'],
  ['a lot nobody knows', { signs: ['spots'], marks: [{ sign: 'spots', severity: 1, lotId: 'nobody' }] }, 'marks', 'A mark names a lot that is not in the books'],
  ['a severity there is not', { signs: ['spots'], marks: [{ sign: 'spots', severity: 3, lotId: null }] }, 'marks[0].severity', 'Severity must be at most 2'],
])('%s is refused beside its field, and nothing is written', async (_, change, path, message) => {
  const answer = await check(change)
  expect([answer.status, answer.body.errors]).toEqual([422, [{ path, message }]])
  expect(observed()).toEqual([])
})

test('the database itself holds them: never changed, never deleted, of closed kinds, with a severity where there is one', async () => {
  await check({ signs: ['spots'] })
  const raw = room.db.raw
  expect(() => raw.exec(`UPDATE observation SET word = 'none'`)).toThrow(/never changed/)
  expect(() => raw.exec('DELETE FROM observation')).toThrow(/never deleted/)
  const insert = (kind: string, severity: number | null) => () => raw.prepare('INSERT INTO observation (kind, tank_id, severity, staff_id, command_key, happened_at_ms, recorded_at_ms) VALUES (?, ?, ?, ?, ?, 1, 1)').run(kind, tankId(), severity, room.leadId, 'k')
  expect(insert('guess', null)).toThrow(/observation_kind/)
  expect(insert('sign', null)).toThrow(/observation_severity/)
  expect(insert('ate', 1)).toThrow(/observation_severity/)
  expect(insert('sign', 2)).not.toThrow()
})

test('what was seen goes with the fish: a lot is told what was said of its tank while it stood there, wherever it is now', async () => {
  await check({ ate: 'none', happenedAtMs: testNowMs })
  room.clock.nowMs += 3_600_000
  await room.post(`/api/tanks/${tankId()}/moves`, { lotId, quantity: 6, toTankId: room.tanks[1]?.id, note: null, happenedAtMs: room.clock.nowMs })
  await check({ ate: 'all', happenedAtMs: room.clock.nowMs + 1 })
  const answers = () => room.db.raw.prepare(`SELECT o.word FROM stay JOIN observation o ON o.tank_id = stay.place_id AND o.kind = 'ate' AND o.happened_at_ms >= stay.from_ms AND o.happened_at_ms <= coalesce(stay.until_ms, 1e18) WHERE stay.lot_id = ?`).all(lotId)
  expect(answers()).toEqual([{ word: 'none' }])
  // It never went: all that was seen in its tank was seen of it.
  const { timeline } = (await room.get('/api/tanks/R1-02')).body
  expect((await room.post(`/api/movements/${timeline[0].id}/reversal`, { reason: 'wrong lot', happenedAtMs: room.clock.nowMs })).status).toBe(201)
  expect(answers()).toEqual([{ word: 'none' }, { word: 'all' }])
})
