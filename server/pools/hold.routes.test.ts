import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { createTestRoom, plainBag, quietCheck, testNowMs, type TestRoom } from '../testing/testRoom'

const dayMs = 86_400_000
let room: TestRoom
let speciesId: string
beforeAll(async () => {
  room = await createTestRoom()
  // Old barbs that nobody holds, and twelve that came today; then they stand together.
  const lotId = await room.addFish(room.tanks[0], 'Cherry barb', 6)
  const crate = await room.crateOf([['Cherry barb', 12, 2, room.tanks[0] ?? null]])
  await room.post(`/api/crates/${crate.id}/bags`, plainBag(crate.bags.map(({ id }: { id: string }) => id), 6))
  await room.post(`/api/crates/${crate.id}/placements`, { tankId: null, happenedAtMs: testNowMs })
  speciesId = (await room.get('/api/tanks/R1-01')).body.stock.find((each: { lotId: string }) => each.lotId === lotId).speciesId
})
afterAll(() => room.db.close())

const sell = (more: object) => room.post(`/api/tanks/${room.tanks[0]?.id}/releases`, { speciesId, quantity: 1, reason: 'sold', note: null, happenedAtMs: room.clock.nowMs, ...more })
const fish = async (): Promise<number> => (await room.get('/api/tanks/R1-01')).body.stock.reduce((sum: number, { quantity }: { quantity: number }) => sum + quantity, 0)

test('a hold in a pool holds the pool: who sells is asked why, and what is short is kept', async () => {
  room.clock.nowMs = testNowMs + 2 * dayMs
  const asked = await sell({})
  expect([asked.status, asked.body.code]).toEqual([409, 'in-hold'])
  expect(asked.body.current).toMatchObject([{ day: 3, of: 14 }])
  expect(asked.body.detail).toMatch(/lot .+ is on day 3 of 14/)
  expect(await fish()).toBe(18)
  expect((await sell({ heldBecause: ' ' })).status).toBe(409)
  expect((await sell({ heldBecause: 'the customer keeps them apart' })).status).toBe(201)
  expect(await fish()).toBe(17)
  expect((await room.get('/api/tanks/R1-01')).body.timeline[0]).toMatchObject({ kind: 'release', shortfall: 'day 3 of 14: the customer keeps them apart' })
})

test('fish of a lot that somebody knows and nobody holds are sold without being asked', async () => {
  const old = (await room.get('/api/tanks/R1-01')).body.stock.find(({ origin }: { origin: string }) => origin === 'brought in')
  expect((await sell({ lotIds: [old.lotId] })).status).toBe(201)
  expect((await room.get('/api/tanks/R1-01')).body.timeline[0].shortfall).toBeNull()
})

test('served, eating and looked at, nobody is asked any more', async () => {
  room.clock.nowMs = testNowMs + 15 * dayMs
  const asked = await sell({})
  expect([asked.status, asked.body.detail]).toEqual([409, expect.stringMatching(/has served its 14 days and waits for eating and a look/)])
  for (const daysAgo of [1, 0]) await room.post('/api/checks', { ...quietCheck(room.tanks[0]?.id ?? ''), happenedAtMs: room.clock.nowMs - daysAgo * dayMs })
  expect((await sell({})).status).toBe(201)
  expect(room.faults()).toEqual([])
})
