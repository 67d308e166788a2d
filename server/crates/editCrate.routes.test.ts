import { afterEach, beforeEach, describe, expect, test } from '@jest/globals'
import request, { type Response } from 'supertest'
import type { CrateView, LineView } from '../../core/crates/crateView'
import { createTestRoom, plainBag, type TestRoom } from '../testing/testRoom'

let room: TestRoom
let crate: CrateView
beforeEach(async () => {
  room = await createTestRoom()
  crate = await room.crateOf([['Cherry barb', 24, 3, room.tanks[0]!], ['Kuhli loach', 5, 1, null]])
})
afterEach(() => room.db.close())

const view = async (): Promise<CrateView> => (await room.get(`/api/crates/${crate.id}`)).body
const line = async (position: number): Promise<LineView> => (await view()).lines.find((each) => each.position === position)!
const details = { origin: null, strain: null, identity: null, promisedTo: null, note: null }
const editLine = async (position: number, change: object, version?: number): Promise<Response> => {
  const { id, species, count, version: now } = await line(position)
  const bags = (await view()).bags.filter((bag) => bag.lineId === id)
  return room.put(`/api/crates/${crate.id}/lines/${id}`, { species, count, bags: bags.length, perBag: null, ...details, version: version ?? now, ...change })
}
const read = (file: string, query = ''): Promise<Response> => Promise.resolve(request(room.app).post(`/api/packing-lists/read${query}`).set('Cookie', room.cookie).set('Content-Type', 'text/csv').send(file))

describe('a crate corrected by hand', () => {
  test('its head: supplier, times, note; lots follow to the new supplier; an old view is refused with what stands there', async () => {
    const head = { supplier: 'Pale Harbour', expectedAtMs: room.clock.nowMs, packedAtMs: null, note: 'two boxes', version: 1 }
    expect((await room.put(`/api/crates/${crate.id}`, head)).body).toEqual({ version: 2 })
    expect(await view()).toMatchObject({ supplier: 'Pale Harbour', note: 'two boxes', version: 2 })
    const stale = await room.put(`/api/crates/${crate.id}`, { ...head, note: 'one box' })
    expect([stale.status, stale.body.current.note]).toEqual([409, 'two boxes'])
    expect(room.db.raw.prepare('SELECT DISTINCT origin FROM lot').all()).toEqual([{ origin: 'Pale Harbour' }])
  })

  test('a line before it is opened: fish and bags anew, bags numbered without gaps or doubles', async () => {
    expect((await editLine(1, { count: 20, bags: 2, origin: 'wild', promisedTo: 'the café' })).body).toEqual({ version: 2 })
    expect(await line(1)).toMatchObject({ count: 20, origin: 'wild', promisedTo: 'the café' })
    expect((await view()).bags.map(({ number, listed }) => [number, listed])).toEqual([[1, 10], [2, 10], [4, 5]])
    await room.post(`/api/crates/${crate.id}/lines`, { species: 'Honey gourami', count: 6, bags: 2, perBag: null, tankId: null })
    expect((await view()).bags.map(({ number }) => number)).toEqual([1, 2, 3, 4, 5])
    expect(room.faults()).toEqual([])
  })

  test('once a bag was opened the list stays as it is, also after an undo; a name can still be put right', async () => {
    const bag = crate.bags[0]!
    await room.post(`/api/crates/${crate.id}/bags`, plainBag([bag.id], 8))
    await room.post(`/api/crates/${crate.id}/undone-bags`, { bagIds: [bag.id], happenedAtMs: room.happenedAtMs })
    expect((await editLine(1, { count: 20 })).body.errors[0].path).toBe('count')
    const removal = await room.post(`/api/crates/${crate.id}/lines/${(await line(1)).id}/removal`, { version: 1 })
    expect([removal.status, removal.body.detail]).toEqual([409, 'A bag of this line was opened already, so the line stays'])
    expect((await editLine(1, { species: 'Black ruby barb', identity: 'likely' })).status).toBe(200)
    expect(await line(1)).toMatchObject({ species: 'Black ruby barb', identity: 'likely', lotCode: '1-01' })
  })

  test('a line whose fish stand somewhere by a count stays, though its bags are shut', async () => {
    const { lotId } = room.db.raw.prepare('SELECT lot_id AS lotId FROM line WHERE id = ?').get((await line(2)).id) as { lotId: string }
    expect((await room.post(`/api/tanks/${room.tanks[3]?.id}/counts`, { lotId, expected: 0, counted: 3, reason: 'found in the net', happenedAtMs: room.happenedAtMs })).status).toBe(201)
    const removal = await room.post(`/api/crates/${crate.id}/lines/${(await line(2)).id}/removal`, { version: 1 })
    expect([removal.status, removal.body.detail]).toEqual([409, 'Fish of this line are in the books already, so the line stays'])
    expect(room.faults()).toEqual([])
  })

  test('a line comes off while nothing of it was opened; the last one stays', async () => {
    expect((await room.post(`/api/crates/${crate.id}/lines/${(await line(2)).id}/removal`, { version: 1 })).status).toBe(201)
    expect((await view()).lines.map(({ species }) => species)).toEqual(['Cherry barb'])
    expect((await room.post(`/api/crates/${crate.id}/lines/${(await line(1)).id}/removal`, { version: 1 })).body.detail).toBe('A crate keeps at least one line')
    expect(room.db.raw.prepare('SELECT count(*) AS n FROM lot').get()).toEqual({ n: 1 })
  })

  test('a line that was called otherwise, and that somebody named at a look, comes off all the same: no fish of it ever was in the books', async () => {
    const { lotId } = room.db.raw.prepare('SELECT lot_id AS lotId FROM line WHERE id = ?').get((await line(2)).id) as { lotId: string }
    expect((await room.put(`/api/lots/${lotId}/name`, { species: 'Clown loach', strain: null, note: null, happenedAtMs: room.happenedAtMs })).status).toBe(200)
    const look = { tankId: room.tanks[0]?.id, roundNumber: 1, ate: 'all', signs: ['spots'], seen: null, note: null, replacesId: null, happenedAtMs: room.happenedAtMs }
    for (const named of [{ marks: [{ sign: 'spots', severity: 1, lotId }] }, { answers: [{ lotId, ate: 'none' }] }, { counts: [{ lotId, seen: 1 }] }]) expect((await room.post('/api/checks', { ...look, ...named })).status).toBe(422)
    expect((await room.post(`/api/crates/${crate.id}/lines/${(await line(2)).id}/removal`, { version: (await line(2)).version })).status).toBe(201)
    expect(room.faults()).toEqual([])
  })

  test('two people change one line: the second is refused with the first one’s', async () => {
    await editLine(2, { strain: 'giant' })
    const stale = await editLine(2, { strain: 'dwarf' }, 1)
    expect([stale.status, stale.body.current.strain, (await line(2)).strain]).toEqual([409, 'giant', 'giant'])
  })

  test.each([
    ['more bags than fish', { count: 2, bags: 5 }, 'perBag'],
    ['no fish', { count: 0 }, 'count'],
    ['an origin nobody knows', { origin: 'moon' }, 'origin'],
    ['a stray field', { colour: 'red' }, 'colour'],
  ])('%s is told by field and changes nothing', async (_what, change, path) => {
    const before = JSON.stringify(await view())
    const answer = await editLine(1, change)
    expect([answer.status, answer.body.errors[0].path]).toEqual([422, path])
    expect(JSON.stringify(await view())).toBe(before)
  })
})

describe('lists and their columns', () => {
  const list = 'Latin,Item,Qty,Boxes,Where\nPuntius titteya,Cherry barp,22,3,R1-02'
  test('usual headings are recognised, others named; a name that is nearly one of the book is offered', async () => {
    const { lines, columns, notices } = (await read(list)).body
    expect(columns).toMatchObject({ mapping: { species: 1, count: 2, bags: 3 }, isRemembered: false, sample: [['Puntius titteya', 'Cherry barp', '22', '3', 'R1-02']] })
    expect(lines[0]).toMatchObject({ species: 'Cherry barp', isNewSpecies: true, couldBe: ['Cherry barb'], tankId: null })
    expect(notices).toEqual(['The column "latin" was not read.', 'The column "where" was not read.'])
  })

  test('what was said of a heading is remembered for that supplier, and for no other', async () => {
    const mapping = { species: 1, count: 2, bags: 3, tank: 4 }
    const { lines } = (await read(list, '?columns=species:1,count:2,bags:3,tank:4')).body
    expect(lines[0].tankId).toBe(room.tanks[1]?.id)
    await room.post('/api/crates', { supplier: 'Brackwater', expectedAtMs: null, packedAtMs: null, lines: [{ species: 'Cherry barb', count: 22, bags: 3, perBag: null, tankId: null }], listMapping: { heading: ['Latin', 'Item', 'Qty', 'Boxes', 'Where'], mapping } })
    expect((await read(list, '?supplier=brackwater')).body.columns).toMatchObject({ mapping, isRemembered: true })
    expect((await read(list, '?supplier=Somebody')).body.columns.isRemembered).toBe(false)
    expect((await read(list.replace('Where', 'Place of it'), '?supplier=Brackwater')).body.columns.isRemembered).toBe(false)
  })

  test.each(['species', 'species:x', 'moon:1', 'species:1,count:1', ''.padEnd(500, 'a:1,')])('columns written as %s are refused, or left out when empty', async (columns) => {
    expect((await read(list, `?columns=${encodeURIComponent(columns)}`)).status).toBe(422)
  })

  test('a crate’s list goes out as JSON and comes in as the same lines', async () => {
    const uneven = await room.crateOf([['Cherry barb', 22, 3, null], ['Kuhli loach', 4, 2, null]])
    const file = (await room.get(`/api/crates/${uneven.id}/packing-list`)).body
    expect(file).toMatchObject({ format: 'daily-crate/packing-list', version: 1, supplier: 'Hollow Reed Hatchery' })
    const { lines, head } = (await read(JSON.stringify(file))).body
    expect([lines.map(({ species, count, bags }: LineView & { bags: number }) => [species, count, bags]), head.supplier]).toEqual([[['Cherry barb', 22, 3], ['Kuhli loach', 4, 2]], 'Hollow Reed Hatchery'])
  })
})
