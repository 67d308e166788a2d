import { afterEach, beforeEach, describe, expect, test } from '@jest/globals'
import { createTestRoom, newKey, testNowMs, type TestRoom } from '../testing/testRoom'

let room: TestRoom
let lotId: string
beforeEach(async () => {
  room = await createTestRoom()
  lotId = await room.addFish(room.tanks[0], 'Cherry barb', 10)
})
afterEach(() => room.db.close())

const tankPath = (index: number, what: string): string => `/api/tanks/${room.tanks[index]!.id}/${what}`
const move = (quantity: number, from = 0, to = 1, happenedAtMs = testNowMs) => room.post(tankPath(from, 'moves'), { lotId, quantity, toTankId: room.tanks[to]!.id, note: null, happenedAtMs })
const reverse = (movementId: string) => room.post(`/api/movements/${movementId}/reversal`, { reason: null, happenedAtMs: testNowMs })
const stock = async () => [(await room.stockIn(room.tanks[0]))[lotId] ?? 0, (await room.stockIn(room.tanks[1]))[lotId] ?? 0]

describe('moving fish', () => {
  test('a move, its reversal, and no second one', async () => {
    const { movementIds } = (await move(4)).body
    expect(await stock()).toEqual([6, 4])
    const back = await reverse(movementIds[0])
    expect(await stock()).toEqual([10, 0])
    expect((await reverse(movementIds[0])).body.detail).toBe('This was taken back already')
    expect((await reverse(back.body.movementIds[0])).body.detail).toBe('A reversal is not taken back itself; enter what happened instead')
  })

  test('fish that moved on are in the way, and the answer names the movement', async () => {
    const first = (await move(4)).body.movementIds[0]
    const second = (await room.post(tankPath(1, 'moves'), { lotId, quantity: 3, toTankId: room.tanks[2]!.id, note: null, happenedAtMs: testNowMs })).body.movementIds[0]
    const answer = await reverse(first)
    expect([answer.status, answer.body.detail, answer.body.current]).toEqual([409, 'Only 1 of these 4 fish are still there (3 went on to R1-03). Take that back first.', { movementId: second }])
    await reverse(second)
    expect((await reverse(first)).status).toBe(201)
    expect(await stock()).toEqual([10, 0])
  })

  test('a loss and a sale leave; a count sets the books right both ways', async () => {
    await room.post(tankPath(0, 'losses'), { lotId, quantity: 1, cause: 'jumped', note: 'lid open', happenedAtMs: testNowMs })
    await room.post(tankPath(0, 'releases'), { lotId, quantity: 2, reason: 'sold', note: null, happenedAtMs: testNowMs })
    const count = (expected: number, counted: number) => room.post(tankPath(0, 'counts'), { lotId, expected, counted, reason: 'counted twice', happenedAtMs: testNowMs })
    expect((await count(7, 5)).status).toBe(201)
    const stale = await count(7, 4)
    expect([stale.body.code, stale.body.current]).toEqual(['stale', { quantity: 5 }])
    await count(5, 9)
    expect((await stock())[0]).toBe(9)
    expect(room.faults()).toEqual([])
  })

  test('what is taken back was never gone: the fish stand there since they came, however often the last one was lost and found', async () => {
    const dayMs = 86_400_000
    const since = async (code: string): Promise<number> => (await room.get(`/api/tanks/${code}`)).body.stock[0]?.sinceMs
    const lose = async (index: number, days: number): Promise<string> => (await room.post(tankPath(index, 'losses'), { lotId, quantity: 10, cause: 'unknown', note: null, happenedAtMs: testNowMs + days * dayMs })).body.movementIds[0]
    room.clock.nowMs = testNowMs + 25 * dayMs
    const back = (movementId: string, days: number) => room.post(`/api/movements/${movementId}/reversal`, { reason: null, happenedAtMs: testNowMs + days * dayMs })
    await back(await lose(0, 3), 4)
    await back(await lose(0, 5), 6)
    expect(await since('R1-01')).toBe(testNowMs)
    // Whoever left and came again stands there since they came again.
    await move(10, 0, 1, testNowMs + 10 * dayMs)
    await move(10, 1, 0, testNowMs + 12 * dayMs)
    await back(await lose(0, 14), 15)
    expect(await since('R1-01')).toBe(testNowMs + 12 * dayMs)
    const away = (await move(10, 0, 1, testNowMs + 20 * dayMs)).body.movementIds[0]
    await back(away, 21)
    expect(await since('R1-01')).toBe(testNowMs + 12 * dayMs)
    expect(room.faults()).toEqual([])
  })

  test('an entry may be backdated; the balance goes by the order of recording', async () => {
    expect((await move(10)).status).toBe(201)
    expect((await move(1, 0, 1, testNowMs - 86_400_000)).status).toBe(422)
    expect((await move(3, 1, 0, testNowMs - 30 * 86_400_000)).status).toBe(201)
    expect(await stock()).toEqual([3, 7])
    const { timeline } = (await room.get('/api/tanks/R1-01')).body
    expect(timeline.at(-1)).toMatchObject({ change: 3, happenedAtMs: testNowMs - 30 * 86_400_000, recordedAtMs: testNowMs })
  })
})

describe('keys', () => {
  const body = () => ({ lotId, quantity: 2, cause: 'jumped', note: null, happenedAtMs: testNowMs })

  test('the same key again gives the first answer and writes nothing', async () => {
    const key = newKey()
    const first = await room.post(tankPath(0, 'losses'), body(), { key })
    const reordered = Object.fromEntries(Object.entries(body()).reverse())
    const again = await room.post(tankPath(0, 'losses'), reordered, { key })
    expect([again.status, again.body, again.headers['idempotent-replay']]).toEqual([201, first.body, 'true'])
    expect((await stock())[0]).toBe(8)
  })

  test('the same key for something else is refused: other body, other tank, other command', async () => {
    const key = newKey()
    await room.post(tankPath(0, 'losses'), body(), { key })
    for (const attempt of [
      room.post(tankPath(0, 'losses'), { ...body(), quantity: 3 }, { key }),
      room.post(tankPath(1, 'losses'), body(), { key }),
      room.post(tankPath(0, 'releases'), { lotId, quantity: 2, reason: 'sold', note: null, happenedAtMs: testNowMs }, { key }),
    ]) {
      expect((await attempt).body.code).toBe('key-reused')
    }
    expect((await stock())[0]).toBe(8)
  })

  test('a refused write leaves its key free, and ten at once are one', async () => {
    const key = newKey()
    expect((await room.post(tankPath(0, 'losses'), { ...body(), quantity: 50 }, { key })).status).toBe(422)
    const answers = await Promise.all(Array.from({ length: 10 }, () => room.post(tankPath(0, 'losses'), body(), { key })))
    expect(answers.map((answer) => answer.status)).toEqual(Array(10).fill(201))
    expect((await stock())[0]).toBe(8)
  })
})
