import request from 'supertest'
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals'
import type { RoomView, TankSummary, TankView } from '../../core/room/roomView'
import type { RoundView } from '../../core/rounds/roundView'
import { createTestRoom, newKey, quietCheck, testNowMs, type TestRoom } from '../testing/testRoom'

const dayMs = 86_400_000
let room: TestRoom
beforeEach(async () => {
  room = await createTestRoom()
  for (const tank of room.tanks.slice(0, 3)) await room.addFish(tank, 'Cherry barb', 5)
})
afterEach(() => room.db.close())

const round = async (id?: string): Promise<RoundView> => (await room.get(`/api/rounds/today${id ? `?round=${id}` : ''}`)).body
const unchecked = ({ stops }: RoundView): number => stops.filter((stop) => stop.check === null).length
const check = (tank: number, change: object = {}) => room.post('/api/checks', { ...quietCheck(room.tanks[tank]!.id), happenedAtMs: room.clock.nowMs, ...change })
const tankOf = async (code: string): Promise<TankSummary | undefined> => ((await room.get('/api/room')).body as RoomView).tanks.find((tank) => tank.code === code)

describe('a round', () => {
  test('stops at stocked tanks, names the empty ones, and is done when all are checked', async () => {
    expect(await round()).toMatchObject({ on: '2031-05-04', number: 1, stops: [{ code: 'R1-01', check: null }, { code: 'R1-02' }, { code: 'R1-03' }], emptyTanks: ['R1-04'] })
    for (const tank of [0, 1, 2]) expect((await check(tank)).status).toBe(201)
    expect((await round()).stops.every((stop) => stop.check)).toBe(true)
    expect(unchecked(await round((await round()).nextId))).toBe(3)
    await check(0, { roundNumber: 2 })
    expect((await round()).number).toBe(2)
  })

  test('remembers what was seen; next time that tank comes last, with what was said', async () => {
    await check(0, { signs: ['spots'], ate: 'some', note: 'look again', seen: 4 })
    room.clock.nowMs += dayMs
    const next = await round()
    expect(next.stops.map((stop) => stop.code)).toEqual(['R1-03', 'R1-02', 'R1-01'])
    expect(next.stops[2]).toMatchObject({ check: null, flag: { level: 'watch', word: 'spots' }, judged: { state: 'suspect', level: 'watch', reasons: ['spots, slight (4)'] }, lastCheck: { signs: ['spots'], ate: 'some', note: 'look again' } })
  })

  test('a correction keeps the old check and points it at the new one; not twice', async () => {
    const first = (await check(0, { ate: 'none' })).body.id
    const second = await check(0, { replacesId: first })
    expect(second.status).toBe(201)
    expect((await check(0, { replacesId: first })).status).toBe(409)
    expect((await check(1, { replacesId: second.body.id })).body.errors[0].path).toBe('replacesId')
    const { timeline } = (await room.get('/api/tanks/R1-01')).body as TankView
    expect(timeline.filter((entry) => entry.type === 'check').map((entry) => entry.type === 'check' && [entry.ate, entry.replacedById])).toEqual(expect.arrayContaining([['none', second.body.id], ['all', null]]))
    expect((await tankOf('R1-01'))?.flag).toBeNull()
  })

  test('a correction may name the check by the key it was sent with, as a device does that knows no more of it yet', async () => {
    const key = newKey()
    const { body: first } = await room.post('/api/checks', { ...quietCheck(room.tanks[0]!.id), ate: 'none', happenedAtMs: room.clock.nowMs }, { key })
    const second = await check(0, { replacesId: key })
    expect(second.status).toBe(201)
    const { timeline } = (await room.get('/api/tanks/R1-01')).body as TankView
    expect(timeline.flatMap((entry) => (entry.type === 'check' ? [[entry.id, entry.replacedById]] : []))).toEqual(expect.arrayContaining([[first.id, second.body.id], [second.body.id, null]]))
    expect([(await check(0, { replacesId: key })).status, (await check(1, { replacesId: key })).body.errors[0].path, (await check(0, { replacesId: newKey() })).body.errors[0].path]).toEqual([409, 'replacesId', 'replacesId'])
  })

  test('a check belongs to the round it was entered in, whatever day it arrives on', async () => {
    const yesterday = await round()
    await check(0, { roundId: yesterday.id })
    room.clock.nowMs += dayMs
    // Kept on a device that had no network over night.
    await check(1, { roundId: yesterday.id, ate: 'none', happenedAtMs: room.clock.nowMs - dayMs + 60_000 })
    const today = await round()
    expect([today.id, unchecked(today), unchecked(await round(yesterday.id))]).toEqual(['2031-05-05-1', 3, 1])
    for (const roundId of ['2031-05-06-1', 'tomorrow', '2031-13-40-1']) expect((await check(2, { roundId })).body.errors[0]).toEqual({ path: 'roundId', message: 'There is no such round' })
    expect((await round('2031-05-09-1')).id).toBe(today.id)
  })

  test('one that is under way at midnight goes on, and one that was forgotten does not come back', async () => {
    room.clock.nowMs = Date.UTC(2031, 4, 4, 23, 50)
    await check(0, { roundId: (await round()).id })
    room.clock.nowMs += 20 * 60_000
    const late = await round()
    expect([late.id, unchecked(late)]).toEqual(['2031-05-04-1', 2])
    await check(1, { roundId: late.id })
    room.clock.nowMs += 5 * 3_600_000
    expect(await round()).toMatchObject({ id: '2031-05-05-1', last: null })
  })

  test('is left and gone on with by somebody else, and closed with what was not checked; nothing of it is lost', async () => {
    const { id } = await round()
    await check(0, { roundId: id })
    const close = (isClosed: boolean) => room.post(`/api/rounds/${id}/closing`, { isClosed, happenedAtMs: room.clock.nowMs })
    await room.post(`/api/rounds/${id}/leaving`, { happenedAtMs: room.clock.nowMs })
    expect((await round()).left).toMatchObject({ staffName: 'Imre', atMs: testNowMs })
    room.clock.nowMs += 60_000
    const oona = (await room.post('/api/staff', { name: 'Oona', role: 'keeper', pin: '2222', passphrase: null })).body.id
    await request(room.app).post('/api/session/recording').set('Cookie', room.cookie).send({ staffId: oona, pin: '2222' })
    await room.post('/api/checks', { ...quietCheck(room.tanks[1]!.id), roundId: id, happenedAtMs: room.clock.nowMs }, { staffId: oona })
    expect(await round()).toMatchObject({ id, left: null, last: { staffName: 'Oona' } })
    for (const isClosed of [true, true, false, true]) await close(isClosed)
    expect(await round()).toMatchObject({ id, closed: { staffName: 'Imre' }, nextId: '2031-05-04-2' })
    // What a device without network still holds is taken.
    expect((await check(2, { roundId: id })).status).toBe(201)
    expect([unchecked(await round(id)), (await room.post('/api/rounds/2031-05-04-7/leaving', { happenedAtMs: room.clock.nowMs })).status]).toEqual([0, 404])
  })

  test('days are the room’s days', async () => {
    room.clock.nowMs = Date.UTC(2031, 4, 4, 23, 50)
    await check(0)
    expect((await tankOf('R1-01'))?.isCheckedToday).toBe(true)
    room.clock.nowMs = Date.UTC(2031, 4, 5, 0, 10)
    expect(await tankOf('R1-01')).toMatchObject({ isCheckedToday: false, lastCheckAtMs: Date.UTC(2031, 4, 4, 23, 50) })
  })
})

describe('a tank', () => {
  test('a loss flags it until midnight, unless it is taken back', async () => {
    const { stock } = (await room.get('/api/tanks/R1-02')).body as TankView
    const loss = await room.post(`/api/tanks/${room.tanks[1]!.id}/losses`, { lotId: stock[0]!.lotId, quantity: 2, cause: 'jumped', note: null, happenedAtMs: testNowMs })
    expect((await tankOf('R1-02'))?.flag).toEqual({ level: 'watch', word: '2 lost' })
    await room.post(`/api/movements/${loss.body.movementIds[0]}/reversal`, { reason: 'other tank', happenedAtMs: testNowMs })
    expect((await tankOf('R1-02'))?.flag).toBeNull()
    await room.post(`/api/tanks/${room.tanks[1]!.id}/losses`, { lotId: stock[0]!.lotId, quantity: 1, cause: 'jumped', note: null, happenedAtMs: testNowMs })
    room.clock.nowMs += dayMs
    expect((await tankOf('R1-02'))?.flag).toBeNull()
  })

  test('its timeline goes back as far as asked, losing nothing between pages', async () => {
    for (let index = 0; index < 60; index += 1) await check(0, { happenedAtMs: testNowMs - Math.floor(index / 5) * dayMs })
    const first = (await room.get('/api/tanks/r1-01')).body as TankView
    expect([first.timeline.length, first.hasOlder]).toEqual([40, true])
    const all = (await room.get('/api/tanks/R1-01?entries=80')).body as TankView
    expect([all.timeline.length, all.hasOlder, new Set(all.timeline.map(({ id }) => id)).size]).toEqual([61, false, 61])
    expect(all.timeline.map((entry) => entry.happenedAtMs)).toEqual([...all.timeline.map((entry) => entry.happenedAtMs)].sort((a, b) => b - a))
  })

  test('a second rack of the same letter goes on counting', async () => {
    const more = await room.post('/api/systems', { name: 'More', water: 'fresh', sharing: 'each its own', sumpL: null, rack: 'R1', tankCount: 2, perShelf: 4, tankKind: 'tub', netVolumeL: 200 })
    expect(more.body.tanks.map((tank: { code: string }) => tank.code)).toEqual(['R1-05', 'R1-06'])
  })
})

test('a round is shared out between people, each an unbroken piece; what turns sick goes to whoever ends, and one alone takes it back', async () => {
  await room.addFish(room.tanks[3], 'Cherry barb', 4)
  room.clock.nowMs += 20 * dayMs
  const walk = async (): Promise<[number, string, number][]> => ((await room.get('/api/rounds/today')).body as RoundView).stops.map(({ part, code, check: seen }) => [part, code, seen ? 1 : 0])
  const { id } = (await room.get('/api/rounds/today')).body as RoundView
  const share = (people: unknown) => room.post(`/api/rounds/${id}/split`, { people, happenedAtMs: room.clock.nowMs })
  expect((await share(2)).status).toBe(201)
  const parts = await walk()
  const half = parts.length / 2
  expect(parts.map(([part]) => part)).toEqual([...Array(half).fill(1), ...Array(half).fill(2)])
  // Whoever walks the second part checks its first tank: nothing changes hands.
  const [, code] = parts[half]!
  await room.post('/api/checks', { ...quietCheck(room.tanks.find((tank) => tank.code === code)!.id), happenedAtMs: room.clock.nowMs })
  expect((await walk()).filter(([part]) => part === 2).map(([, each]) => each)).toEqual(parts.slice(half).map(([, each]) => each))
  // A tank of the first part turns sick under somebody's hand: it is walked last.
  const [, sick] = parts[0]!
  room.clock.nowMs += 60_000
  await room.post('/api/checks', { ...quietCheck(room.tanks.find((tank) => tank.code === sick)!.id), roundId: `${id.slice(0, -1)}2`, roundNumber: 2, signs: ['gasping'], happenedAtMs: room.clock.nowMs })
  const after = (await room.get(`/api/rounds/today?round=${id}`)).body as RoundView
  expect(after.stops.filter(({ check: seen }) => seen === null).at(-1)).toMatchObject({ code: sick, part: 2 })
  expect([(await share(0)).status, (await share(7)).status, (await room.post('/api/rounds/nonsense/split', { people: 2, happenedAtMs: room.clock.nowMs })).status]).toEqual([422, 422, 404])
  expect([(await share(1)).status, (await walk()).every(([part]) => part === 1)]).toEqual([201, true])
})
