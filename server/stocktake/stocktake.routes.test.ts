import { afterEach, beforeEach, expect, test } from '@jest/globals'
import type { RoundStop } from '../../core/rounds/roundView'
import type { Difference } from '../../core/stocktake/differences'
import type { StocktakeView } from '../../core/stocktake/stocktakeView'
import { createTestRoom, quietCheck, testNowMs, type TestRoom, type TestTank } from '../testing/testRoom'

const [hourMs, dayMs] = [3_600_000, 86_400_000]
let room: TestRoom
beforeEach(async () => (room = await createTestRoom({ tankCount: 6 })))
afterEach(() => {
  // Whatever was done, both books of every tank agree with the movements.
  expect(room.faults()).toEqual([])
  room.db.close()
})

const tank = (index: number): TestTank => room.tanks[index] as TestTank
const stocktake = async (): Promise<StocktakeView> => (await room.get('/api/stocktake')).body.stocktake
const begin = async (kind: 'opening' | 'count' = 'count'): Promise<string> => (await room.post('/api/stocktakes', { kind, happenedAtMs: room.clock.nowMs })).body.id
const count = (id: string, at: number, kinds: [string, number, string?][], source: string | null = null) =>
  room.post(`/api/stocktakes/${id}/counts`, { tankId: tank(at).id, kinds: kinds.map(([species, counted, strain = null]) => ({ species, strain, counted })), source, happenedAtMs: room.clock.nowMs })
const parts = (differences: readonly Difference[]) => differences.map(({ tankId, speciesId, strain, way, quantity, reason, toTankId }) => ({ tankId, speciesId, strain, way, quantity, reason, toTankId }))
const book = async (id: string, change: (differences: Difference[]) => Difference[] = (each) => each) => room.post(`/api/stocktakes/${id}/booking`, { parts: parts(change((await stocktake()).differences)), happenedAtMs: room.clock.nowMs })
const sum = async (): Promise<Record<string, number>> => {
  const { body } = await room.get('/api/room')
  return Object.fromEntries(body.tanks.filter(({ fish }: { fish: number }) => fish > 0).map(({ code, fish }: { code: string; fish: number }) => [code, fish]))
}

test('what already swims here: no hold begins, no tank is new, and its source is what somebody said, or nothing', async () => {
  const id = await begin('opening')
  await count(id, 1, [['Cherry barb', 12], ['Kuhli loach', 6]], 'Hollow Reed Hatchery')
  await count(id, 2, [['Guppy', 9, 'blond'], ['Guppy', 4, 'cobra']])
  await count(id, 0, [])
  expect(await sum()).toEqual({})
  const { tanks, differences } = await stocktake()
  expect(tanks.filter(({ countedAtMs }) => countedAtMs !== null)).toHaveLength(3)
  expect(differences.map(({ reason, quantity }) => [reason, quantity])).toEqual([['stood here before the books', 12], ['stood here before the books', 6], ['stood here before the books', 9], ['stood here before the books', 4]])
  expect((await book(id)).status).toBe(201)
  expect(await sum()).toEqual({ 'R1-02': 18, 'R1-03': 13 })

  const { body } = await room.get('/api/tanks/R1-02')
  expect(body.stock).toMatchObject([{ species: 'Cherry barb', origin: 'Hollow Reed Hatchery', isBeforeBooks: true }, { species: 'Kuhli loach' }])
  expect(body.hold).toBeNull()
  expect((await room.get('/api/tanks/R1-03')).body.stock).toMatchObject([{ strain: 'blond', origin: 'before the books', quantity: 9 }, { strain: 'cobra', quantity: 4 }])
  // A tank whose fish were here before the books is settled from the first day on: it is walked with the others, not with new arrivals.
  await room.addFish(tank(0), 'Cherry barb', 2)
  const { stops } = (await room.get('/api/rounds/today')).body
  expect((stops as RoundStop[]).map(({ code, judged: { state } }) => [code, state])).toEqual([['R1-03', 'settled'], ['R1-02', 'settled'], ['R1-01', 'new']])
})

test('a stocktake: what differs, with its likely reason, booked together and taken back together', async () => {
  for (const [at, species, fish] of [[0, 'Cherry barb', 20], [1, 'Cherry barb', 8], [2, 'Kuhli loach', 10], [3, 'Honey gourami', 5]] as const) await room.addFish(tank(at), species, fish)
  const { body: lost } = await room.get('/api/tanks/R1-03')
  room.clock.nowMs += dayMs
  await room.post(`/api/tanks/${tank(2).id}/losses`, { lotId: lost.stock[0].lotId, quantity: 2, cause: 'not found', note: null, happenedAtMs: room.clock.nowMs })
  const before = await sum()
  const id = await begin()
  // Three barbs went next door; two loaches that were written off came out of the filter; a gourami is gone.
  await count(id, 0, [['Cherry barb', 17]])
  await count(id, 1, [['cherry barb', 11]])
  await count(id, 2, [['Kuhli loach', 10]])
  await count(id, 3, [['Honey gourami', 4]])
  const { differences } = await stocktake()
  expect(differences.map(({ tankCode, reason, way, quantity, toTankCode }) => [tankCode, reason, way, quantity, toTankCode])).toEqual([
    ['R1-01', 'moved', 'fewer', 3, 'R1-02'],
    ['R1-03', 'found again', 'more', 2, null],
    ['R1-04', 'died unseen', 'fewer', 1, null],
  ])
  expect(await sum()).toEqual(before)
  expect((await book(id)).status).toBe(201)
  expect(await sum()).toEqual({ 'R1-01': 17, 'R1-02': 11, 'R1-03': 10, 'R1-04': 4 })
  expect((await stocktake()).differences).toMatchObject([{ reason: 'moved', toTankCode: 'R1-02' }, { reason: 'found again' }, { reason: 'died unseen' }])
  expect((await book(id)).status).toBe(409)

  expect((await room.post(`/api/stocktakes/${id}/reversal`, { happenedAtMs: room.clock.nowMs })).status).toBe(201)
  expect(await sum()).toEqual(before)
  expect((await stocktake()).differences).toEqual(differences)
  expect((await book(id)).status).toBe(201)
  expect(await sum()).toEqual({ 'R1-01': 17, 'R1-02': 11, 'R1-03': 10, 'R1-04': 4 })
})

test('what is sold between counting and booking is no difference, whenever it is entered', async () => {
  await room.addFish(tank(0), 'Cherry barb', 20)
  room.clock.nowMs += dayMs
  const id = await begin()
  await count(id, 0, [['Cherry barb', 19]])
  room.clock.nowMs += hourMs
  const speciesId = (await room.get('/api/tanks/R1-01')).body.stock[0].speciesId as string
  const sell = (quantity: number, happenedAtMs: number) => room.post(`/api/tanks/${tank(0).id}/releases`, { speciesId, quantity, reason: 'sold', note: null, happenedAtMs })
  await sell(5, room.clock.nowMs)
  expect((await stocktake()).differences).toMatchObject([{ booked: 20, counted: 19, quantity: 1 }])
  // One that was sold before the count and is only written down now explains it.
  const seen = parts((await stocktake()).differences)
  await sell(1, testNowMs + dayMs - hourMs)
  expect((await stocktake()).differences).toEqual([])
  const stale = await room.post(`/api/stocktakes/${id}/booking`, { parts: seen, happenedAtMs: room.clock.nowMs })
  expect([stale.status, stale.body.code]).toEqual([409, 'stale'])
  expect(await sum()).toEqual({ 'R1-01': 14 })
})

test('what moved on after it was booked is in the way, and is named', async () => {
  const id = await begin('opening')
  await count(id, 0, [['Cherry barb', 12]])
  await count(id, 1, [['Kuhli loach', 5]])
  await book(id)
  const { stock } = (await room.get('/api/tanks/R1-01')).body
  await room.post(`/api/tanks/${tank(0).id}/moves`, { speciesId: stock[0].speciesId, quantity: 4, toTankId: tank(4).id, note: null, happenedAtMs: testNowMs })
  const answer = await room.post(`/api/stocktakes/${id}/reversal`, { happenedAtMs: testNowMs })
  expect(answer.status).toBe(409)
  expect(answer.body.detail).toContain('went on to R1-05')
  expect(await sum()).toEqual({ 'R1-01': 8, 'R1-02': 5, 'R1-05': 4 })
})

test('several lots that stand together: a count is of the kind, and what nobody knows is attributed', async () => {
  for (const fish of [10, 6, 3]) await room.addFish(tank(0), 'Cherry barb', fish)
  const id = await begin()
  await count(id, 0, [['Cherry barb', 15]])
  await book(id, (differences) => differences.map((each) => ({ ...each, reason: 'died unseen' })))
  const { stock, timeline } = (await room.get('/api/tanks/R1-01')).body
  expect(stock.reduce((all: number, { quantity }: { quantity: number }) => all + quantity, 0)).toBe(15)
  expect(timeline[0]).toMatchObject({ kind: 'count-correction', reason: 'died unseen', pool: { how: 'attributed' } })
  expect((await room.post(`/api/stocktakes/${id}/reversal`, { happenedAtMs: testNowMs })).status).toBe(201)
  expect((await room.get('/api/tanks/R1-01')).body.stock.map(({ quantity, expected }: { quantity: number; expected: number }) => [quantity, expected])).toEqual([[10, 10e6], [6, 6e6], [3, 3e6]])
})

test('fish found again count as never lost: each lot gets back what was taken from it', async () => {
  for (const fish of [10, 6]) await room.addFish(tank(0), 'Cherry barb', fish)
  const before = (await room.get('/api/tanks/R1-01')).body.stock
  const speciesId = before[0].speciesId as string
  await room.post(`/api/tanks/${tank(0).id}/losses`, { speciesId, quantity: 3, cause: 'not found', note: null, happenedAtMs: testNowMs })
  const find = (quantity: number) => room.post(`/api/tanks/${tank(0).id}/found`, { speciesId, strain: null, quantity, happenedAtMs: testNowMs })
  const view = async () => (await room.get('/api/tanks/R1-01')).body
  expect((await view()).missing).toMatchObject([{ species: 'Cherry barb', quantity: 3 }])
  const tooMany = await find(5)
  expect([tooMany.status, tooMany.body.errors[0]]).toEqual([422, { path: 'quantity', message: 'Only 3 of these were written off here without being seen dead' }])
  expect((await find(1)).status).toBe(201)
  expect((await find(2)).status).toBe(201)
  const { stock: after, missing } = (await view()) as { stock: { lotId: string; quantity: number; expected: number }[]; missing: unknown[] }
  expect(missing).toEqual([])
  expect(after.map(({ lotId, quantity, expected }) => [lotId, quantity, Math.round(expected / 10)])).toEqual(before.map(({ lotId, quantity, expected }: { lotId: string; quantity: number; expected: number }) => [lotId, quantity, Math.round(expected / 10)]))
  expect((await find(1)).body.errors[0].message).toBe('No fish of this kind were written off here without being seen dead')
  // Taken back, they are missing again.
  const { timeline } = await view()
  await room.post(`/api/movements/${timeline.find(({ reason }: { reason: string }) => reason === 'found again').id}/reversal`, { reason: null, happenedAtMs: testNowMs })
  expect((await view()).missing).toMatchObject([{ quantity: 2 }])
})

test('two who walk at once count in one stocktake; one that was left is gone; its tanks can be counted again', async () => {
  const id = await begin('opening')
  expect(await begin('opening')).toBe(id)
  await count(id, 0, [['Cherry barb', 12]])
  await count(id, 0, [['Cherry barb', 13]])
  expect((await stocktake()).tanks[0]).toMatchObject({ kinds: [{ species: 'Cherry barb', counted: 13, booked: 0 }] })
  await room.post(`/api/stocktakes/${id}/end`, { happenedAtMs: testNowMs })
  expect(await stocktake()).toBeNull()
  expect((await count(id, 0, [])).status).toBe(409)
})

test('a list in a file is all counts or none, and each fault is told by row', async () => {
  const id = await begin('opening')
  const send = (csv: string) => room.post(`/api/stocktakes/${id}/list`, { csv, happenedAtMs: testNowMs })
  const bad = await send('Tank;Species;Count\nR1-01;Cherry barb;12\nR9-01;Guppy;3\nR1-02;Guppy;many\n;;\n')
  expect(bad.status).toBe(422)
  expect(bad.body.errors.map(({ message }: { message: string }) => message)).toEqual(['There is no tank R9-01 in this room (row 3)', 'Count in row 4 must be a whole number, not "many"'])
  expect((await stocktake()).tanks.every(({ countedAtMs }) => countedAtMs === null)).toBe(true)
  expect((await send('tank,fish')).body.errors[0].message).toContain('no column "count"')
  const good = await send('Tank;Species;Count;Supplier\nr1-01;Cherry barb;12;Hollow Reed\nR1-01;Kuhli loach;5;\nR1-02;Голубая рыба;3;\nR1-03;;\n')
  expect(good.body).toEqual({ tanks: 3, fish: 20, newKinds: ['Голубая рыба'] })
  await book(id)
  expect(await sum()).toEqual({ 'R1-01': 17, 'R1-02': 3 })
  await room.post('/api/checks', quietCheck(tank(0).id))
})

test('every kind is found by its names, those of this room first', async () => {
  await room.addFish(tank(0), 'Galaxy rasbora', 3)
  const { kinds, sources } = (await room.get('/api/stocktake/kinds')).body
  expect(kinds.length).toBeGreaterThan(150)
  expect(new Set(kinds.map(({ name }: { name: string }) => name.toLowerCase())).size).toBe(kinds.length)
  expect(Array.isArray(sources)).toBe(true)
})
