import { afterEach, beforeEach, expect, test } from '@jest/globals'
import request from 'supertest'
import { planSales, type SaleAnswer } from '../../core/sales/planSales'
import type { SalesRead, SalesView } from '../../core/sales/salesView'
import { createTestRoom, plainBag, testNowMs, type TestRoom } from '../testing/testRoom'

const dayMs = 86_400_000
let room: TestRoom
beforeEach(async () => {
  room = await createTestRoom()
  room.clock.nowMs = testNowMs + dayMs
  for (const [at, species, fish] of [[0, 'Cherry barb', 12], [1, 'Cherry barb', 20], [2, 'Kuhli loach', 6]] as const) await room.addFish(room.tanks[at], species, fish)
})
afterEach(() => {
  expect(room.faults()).toEqual([])
  room.db.close()
})

const read = async (csv: string, query = '') => request(room.app).post(`/api/sales/read${query}`).set('Cookie', room.cookie).set('Content-Type', 'application/octet-stream').send(Buffer.from(csv))
const view = async (): Promise<SalesView> => (await room.get('/api/sales')).body
async function book(list: SalesRead, said: Record<string, SaleAnswer> = {}, more: object = {}) {
  const planned = planSales(list.rows, (await view()).kinds, new Map(list.rows.flatMap(({ key, item }) => (said[item] ? [[key, said[item]]] : []))))
  const rows = planned.filter(({ state }) => state === 'ready' || state === 'no fish').map(({ row, kind, parts }) => ({ key: row.key, item: row.item, on: row.on, count: row.count, speciesId: kind?.speciesId ?? null, strain: kind?.strain ?? null, isAgain: said[row.item]?.isAgain ?? false, parts }))
  return room.post('/api/sales', { rows, heading: list.columns.heading.join('|').toLowerCase(), mapping: list.columns.mapping, heldBecause: null, happenedAtMs: room.clock.nowMs, ...more })
}
const sum = async (): Promise<Record<string, number>> => Object.fromEntries((await room.get('/api/room')).body.tanks.filter(({ fish }: { fish: number }) => fish > 0).map(({ code, fish }: { code: string; fish: number }) => [code, fish]))

test('a list with two errors is taken in as a whole or not at all, each error by its row', async () => {
  const bad = await read('Article,Qty,Date\nCherry barb,2,2031-05-05\nKuhli loach,two,2031-05-05\nGuppy,1,yesterday\n')
  expect(bad.status).toBe(422)
  expect(bad.body.errors.map(({ message }: { message: string }) => message)).toEqual(['Count in row 3 must be a whole number, not "two"', 'Day in row 4 must be like 2031-05-04 or 4.5.2031, not "yesterday"'])
  expect(bad.body.current.columns.mapping).toEqual({ item: 0, count: 1, day: 2 })
  expect((await read('a,b\n1,2')).body.errors[0].message).toBe('Say which column names what was sold')
  expect((await read('Article,Qty\nCherry barb,-1\n')).body.errors[0].message).toContain('fish that came back are entered by hand')
})

test('sold from the fullest tank, the next where it is not enough; words and columns are remembered; nothing twice; taken back as one', async () => {
  const csv = 'what;pieces;bon\nCB4711;25;1\nKuhli loach;2;1\nPlant pot;1;2\nCB4711;3;2\n'
  const unread = await read(csv, '?columns=item:0,count:1,receipt:2')
  const list: SalesRead = unread.body
  expect(list.rows.map(({ means, isBooked }) => [means === null ? null : typeof means, isBooked])).toEqual([[null, false], ['object', false], [null, false], [null, false]])
  const barbs = (await view()).kinds.find(({ species }) => species === 'Cherry barb')
  const said = { CB4711: { means: JSON.stringify([barbs?.speciesId, null]) }, 'Plant pot': { means: 'no fish' } }
  expect(planSales(list.rows, (await view()).kinds, new Map()).map(({ state }) => state)).toEqual(['which fish', 'ready', 'which fish', 'which fish'])
  const done = await book(list, said)
  expect([done.status, done.body.fish]).toEqual([201, 30])
  expect(await sum()).toEqual({ 'R1-01': 4, 'R1-03': 4 })

  // The same list again: known by its heading, its words, and its rows.
  const again: SalesRead = (await read(csv.replace('what;pieces;bon', 'What;Pieces;Bon'))).body
  expect(again.columns).toMatchObject({ isRemembered: true, mapping: { item: 0, count: 1, receipt: 2 } })
  expect(again.rows.map(({ means, isBooked }) => [means === 'no fish' ? means : typeof means, isBooked])).toEqual([['object', true], ['object', true], ['no fish', true], ['object', true]])
  expect(planSales(again.rows, (await view()).kinds, new Map()).map(({ state }) => state)).toEqual(Array(4).fill('booked already'))
  const twice = await room.post('/api/sales', { rows: [{ key: again.rows[1]?.key, item: 'Kuhli loach', on: '2031-05-05', count: 2, speciesId: barbs?.speciesId, strain: null, isAgain: false, parts: [{ tankId: room.tanks[0]?.id, quantity: 2 }] }], heading: 'x', mapping: {}, heldBecause: null, happenedAtMs: room.clock.nowMs })
  expect([twice.status, twice.body.code]).toEqual([409, 'stale'])

  expect((await room.post(`/api/sales/${done.body.id}/reversal`, { happenedAtMs: room.clock.nowMs })).status).toBe(201)
  expect(await sum()).toEqual({ 'R1-01': 12, 'R1-02': 20, 'R1-03': 6 })
  expect((await room.post(`/api/sales/${done.body.id}/reversal`, { happenedAtMs: room.clock.nowMs })).status).toBe(409)
  expect((await read(csv)).body.rows.every(({ isBooked }: { isBooked: boolean }) => !isBooked)).toBe(true)
})

test('more than the books hold is left to be looked at; two alike on one day are two', async () => {
  const list: SalesRead = (await read('item,count\nKuhli loach,4\nKuhli loach,4\nKuhli loach,1\nKuhli loach,1\n')).body
  expect(new Set(list.rows.map(({ key }) => key)).size).toBe(4)
  expect(planSales(list.rows, (await view()).kinds, new Map()).map(({ state, left }) => [state, left])).toEqual([['ready', 6], ['too few', 2], ['ready', 2], ['ready', 1]])
  expect((await book(list)).body.fish).toBe(6)
  expect((await sum())['R1-03']).toBeUndefined()
})

test('fish in their hold go only with a reason, and after those out of it', async () => {
  const crate = await room.crateOf([['Cherry barb', 30, 1, room.tanks[3] ?? null]])
  await room.post(`/api/crates/${crate.id}/bags`, { ...plainBag(crate.bags.map(({ id }: { id: string }) => id), 30), happenedAtMs: room.clock.nowMs })
  await room.post(`/api/crates/${crate.id}/placements`, { tankId: null, happenedAtMs: room.clock.nowMs })
  const small: SalesRead = (await read('item,count\nCherry barb,15\n')).body
  expect(planSales(small.rows, (await view()).kinds, new Map())[0]).toMatchObject({ state: 'ready', isHeld: false, parts: [{ tankId: room.tanks[1]?.id, quantity: 15 }] })
  const large: SalesRead = (await read('item,count\nCherry barb,40\n')).body
  expect(planSales(large.rows, (await view()).kinds, new Map())[0]).toMatchObject({ state: 'ready', isHeld: true })
  const refused = await book(large)
  expect([refused.status, refused.body.code]).toEqual([409, 'in-hold'])
  expect(await sum()).toEqual({ 'R1-01': 12, 'R1-02': 20, 'R1-03': 6, 'R1-04': 30 })
  expect((await book(large, {}, { heldBecause: 'sold to a school that keeps them apart' })).status).toBe(201)
  expect(await sum()).toEqual({ 'R1-03': 6, 'R1-04': 22 })
})

test('a sale of yesterday stands in the books at noon of that day', async () => {
  const list: SalesRead = (await read('item,count,day\nKuhli loach,1,4.5.2031 18:20\n')).body
  expect(list.rows[0]?.on).toBe('2031-05-04')
  await book(list)
  expect((await room.get('/api/tanks/R1-03')).body.timeline.find(({ kind }: { kind: string }) => kind === 'release')).toMatchObject({ happenedAtMs: Date.UTC(2031, 4, 4, 12), note: 'till: Kuhli loach' })
})

test('fish that somebody else sold meanwhile: the row says so, and nothing of the list is booked', async () => {
  const list: SalesRead = (await read('item,count\nCherry barb,2\nKuhli loach,6\n')).body
  const { kinds } = await view()
  const planned = planSales(list.rows, kinds, new Map())
  await room.post(`/api/tanks/${room.tanks[2]?.id}/releases`, { speciesId: planned[1]?.kind?.speciesId, quantity: 3, reason: 'sold', note: null, happenedAtMs: room.clock.nowMs })
  const rows = planned.map(({ row, kind, parts }) => ({ key: row.key, item: row.item, on: row.on, count: row.count, speciesId: kind?.speciesId, strain: null, isAgain: false, parts }))
  const refused = await room.post('/api/sales', { rows, heading: 'item|count', mapping: list.columns.mapping, heldBecause: null, happenedAtMs: room.clock.nowMs })
  const unread = await room.post('/api/sales', { rows, heading: 'item|count', heldBecause: null, happenedAtMs: room.clock.nowMs })
  expect([unread.status, unread.body.errors]).toEqual([422, [{ path: 'mapping', message: 'The columns are missing' }]])
  expect(refused.body.errors).toEqual([{ path: 'rows[1].parts', message: 'Kuhli loach: Only 3 of these stand in this tank now' }])
  expect(await sum()).toEqual({ 'R1-01': 12, 'R1-02': 20, 'R1-03': 3 })
})
