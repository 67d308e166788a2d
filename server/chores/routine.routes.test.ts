import request from 'supertest'
import { afterEach, beforeEach, expect, test } from '@jest/globals'
import type { ChoresView } from '../../core/chores/choreView'
import type { DueItem } from '../../core/due/due'
import type { JudgedStop } from '../../core/rounds/roundView'
import { createTestRoom, newKey, type TestRoom } from '../testing/testRoom'

// Chores as staff do them: what is due where, what to carry, done once, and what water or fish go along.
const dayMs = 86_400_000
let room: TestRoom
beforeEach(async () => {
  room = await createTestRoom({ tankCount: 4, sharing: 'each its own' })
})
afterEach(() => void room.db.raw.close())

const tankId = (index: number): string => room.tanks[index]!.id
const place = (id: string, where: object = {}) => ({ id, tankId: null, systemId: null, label: null, uses: [] as object[], litres: null as number | null, fromTankId: null as string | null, fish: [] as object[], ...where })
const chore = (change: object = {}) => ({ name: 'Filter bags', kind: 'filter bags', rule: { kind: 'every', days: 3, weekdays: [], fish: null, earlyDays: 0 }, startOn: '2031-05-01', places: [place('a', { systemId: room.systemId, uses: [{ item: 'felt bag', count: 2 }] })], note: null, version: 0, ...change })
const add = async (change: object = {}): Promise<string> => (await room.post('/api/chores', chore(change))).body.id
const chores = async (): Promise<ChoresView> => (await room.get('/api/chores')).body as ChoresView
const done = (choreId: string, placeId: string, options?: { key?: string }) => room.post(`/api/chores/${choreId}/done`, { placeId, happenedAtMs: room.clock.nowMs }, options)
const supplies = (item: string, pieces: number, why = 'counted') => room.post('/api/supplies', { item, why, pieces })
const wrong = async (change: object) => ((await room.post('/api/chores', chore(change))).body.errors as { path: string; message: string }[] | undefined)?.map(({ path, message }) => `${path}: ${message}`)

test('what is due is counted before the walk, comes off the store room once, and is due again when its time has come', async () => {
  const id = await add({ places: [place('a', { systemId: room.systemId, uses: [{ item: 'felt bag', count: 2 }] }), place('b', { tankId: tankId(1), uses: [{ item: 'felt bag', count: 1 }, { item: 'mesh bag', count: 1 }] })] })
  await supplies('felt bag', 2)
  const { due, carry } = await chores()
  expect(due.map((each) => [each.place, each.dueOn, each.lateDays])).toEqual([['Fresh sale rack', '2031-05-01', 3], ['R1-02', '2031-05-01', 3]])
  expect(carry).toEqual([{ item: 'felt bag', count: 3, onHand: 2, missing: 1 }, { item: 'mesh bag', count: 1, onHand: null, missing: 0 }])
  const key = newKey()
  const first = (await done(id, 'a', { key })).body as { id: string }
  expect((await done(id, 'a', { key })).body).toEqual(first)
  expect((await done(id, 'a')).body).toEqual(first)
  const after = await chores()
  expect([after.due.map((each) => each.placeId), after.supplies, after.done.map(({ place: at, by }) => [at, by]), after.later.map(({ place: at, dueOn }) => [at, dueOn])]).toEqual([['b'], [{ item: 'felt bag', pieces: 0 }, { item: 'mesh bag', pieces: null }], [['Fresh sale rack', 'Imre']], [['Fresh sale rack', '2031-05-07']]])
  expect((await room.post(`/api/chores-done/${first.id}/undo`, {})).status).toBe(201)
  await room.post(`/api/chores-done/${first.id}/undo`, {})
  expect([(await chores()).due.length, (await chores()).supplies[0]]).toEqual([2, { item: 'felt bag', pieces: 2 }])
  await done(id, 'a')
  room.clock.nowMs += 3 * dayMs
  expect((await chores()).due.map(({ placeId, lateDays }) => [placeId, lateDays])).toEqual([['b', 6], ['a', 0]])
})

test('a water change says litres, warmth and salt; water of another tank is a contact, and taken back it never was', async () => {
  const { rows } = (await room.get('/api/setup/systems')).body as { rows: { id: string; version: number; values: object }[] }
  await room.put(`/api/setup/systems/${rows[0]?.id}`, { version: rows[0]?.version, values: { ...rows[0]?.values, water: 'marine', tempC: 25, salinityPpt: 34 } })
  const id = await add({ name: 'Change', kind: 'water change', rule: { ...chore().rule, kind: 'once', days: null }, places: [place('fresh', { tankId: tankId(0), litres: 10 }), place('old', { tankId: tankId(1), litres: 10, fromTankId: tankId(2) })] })
  expect((await chores()).due.map(({ words }) => words)).toEqual(['10 L at 25 °C, 34 ppt: 370 g of salt mix', '10 L with water of R1-03: a contact between both'])
  await done(id, 'fresh')
  const { id: doneId } = (await done(id, 'old')).body as { id: string }
  const met = async () => ((await room.get(`/api/contacts/trace?start=tank:${tankId(2)}&days=10`)).body as { reached: { tanks: string[] }[] }).reached.flatMap(({ tanks }) => tanks)
  expect([await met(), (await chores()).due]).toEqual([['R1-02'], []])
  await room.post(`/api/chores-done/${doneId}/undo`, {})
  expect(await met()).toEqual([])
  // Done once, it comes round no more.
  await done(id, 'old')
  room.clock.nowMs += 15 * dayMs
  expect([(await chores()).due, (await chores()).later]).toEqual([[], []])
})

test('after so many fish have come, salt is brought; those of the day it was done are not counted again', async () => {
  const id = await add({ name: 'Salt', kind: 'other', rule: { kind: 'arrivals', days: null, weekdays: [], fish: 10, earlyDays: 0 }, places: [place('a', { label: 'store room' })] })
  await room.addFish(room.tanks[0], 'Cherry barb', 6)
  expect([(await chores()).due, (await chores()).later]).toMatchObject([[], [{ place: 'store room', dueOn: null }]])
  await room.addFish(room.tanks[1], 'Cherry barb', 5)
  expect((await chores()).due.map((each) => [each.place, each.dueOn])).toEqual([['store room', '2031-05-04']])
  await done(id, 'a')
  expect((await chores()).due).toEqual([])
})

test('a visit packs its parts and names its fish with the way to move them; who is no longer there is said', async () => {
  await room.addFish(room.tanks[0], 'Cherry barb', 3)
  const { stock } = (await room.get('/api/tanks/R1-01')).body as { stock: { speciesId: string }[] }
  const speciesId = stock[0]?.speciesId ?? ''
  await add({ name: 'Visit', kind: 'visit', rule: { ...chore().rule, kind: 'once', days: null }, places: [place('v', { tankId: tankId(3), uses: [{ item: 'impeller', count: 1 }], fish: [{ fromTankId: tankId(0), speciesId, quantity: 4 }] })] })
  const { due: [visit], carry } = await chores()
  expect([visit?.words, carry.map(({ item, count }) => [item, count]), visit?.fish.map(({ fromCode, species, quantity, there }) => [fromCode, species, quantity, there])]).toEqual(['soiled decor comes back to the shop: never bleached there', [['impeller', 1]], [['R1-01', 'Cherry barb', 4, 3]]])
  expect(visit?.fish[0]?.to).toBe(`/room/R1-01/move?to=tank:${tankId(3)}&fish=${encodeURIComponent(JSON.stringify([{ speciesId, strain: null, quantity: 3 }]))}`)
})

test('chores stand on Today, and on the round where they are on the way: at their tank, or at the first of their system', async () => {
  await room.addFish(room.tanks[1], 'Cherry barb', 3)
  await room.addFish(room.tanks[2], 'Cherry barb', 3)
  const id = await add()
  await add({ name: 'Wipe', kind: 'wipe', startOn: '2031-05-04', places: [place('w', { tankId: tankId(2) })] })
  const due = ((await room.get('/api/due')).body.items as DueItem[]).filter(({ kind }) => kind === 'chore').map(({ about, what, urgency, detail }) => [about, what, urgency, detail])
  expect(due).toEqual([['Filter bags', 'Fresh sale rack', 'now', 'late by 3 days'], ['Wipe', 'R1-03', 'soon', null]])
  const onCard = async (code: string) => ((await room.get(`/api/tanks/${code}`)).body.judged as JudgedStop).routine.map(({ words }) => words)
  expect([await onCard('R1-02'), await onCard('R1-03')]).toEqual([['Filter bags, Fresh sale rack: 2 × felt bag'], ['Wipe']])
  await done(id, 'a')
  expect(await onCard('R1-02')).toEqual([])
})

test('a chore that cannot be is refused beside its field, a changed one goes by its version, a dropped one is due no more', async () => {
  const rule = chore().rule
  expect(await wrong({ name: ' ' })).toEqual(['name: Name is missing'])
  expect(await wrong({ rule: { ...rule, days: null } })).toEqual(['rule.days: Say after how many days'])
  expect(await wrong({ rule: { ...rule, kind: 'weekdays' } })).toEqual(['rule.weekdays: Choose a day of the week'])
  expect(await wrong({ startOn: '2031-02-30' })).toEqual(['startOn: First day must be a day such as 2031-05-04'])
  expect(await wrong({ places: [] })).toEqual(['places: Say where'])
  expect(await wrong({ places: [place('a')] })).toEqual(['places[0].label: Say where: a tank, a system, or in words'])
  expect(await wrong({ places: [place('a', { tankId: 'unknown' })] })).toEqual(['places[0].tankId: There is no such tank'])
  expect(await wrong({ kind: 'water change' })).toEqual(['places[0].litres: Say how many litres are changed'])
  expect(await wrong({ kind: 'visit' })).toEqual(['places[0].tankId: A visit goes to a tank: choose the customer’s'])
  expect(await wrong({ places: [place('a', { label: 'x', uses: [{ item: 'bag', count: 0 }] })] })).toEqual(['places[0].uses[0].count: Number must be at least 1'])
  const id = await add()
  expect((await room.put(`/api/chores/${id}`, { ...chore({ name: 'Bags' }), version: 1 })).body).toEqual({ version: 2 })
  expect((await room.put(`/api/chores/${id}`, { ...chore(), version: 1 })).status).toBe(409)
  expect((await done(id, 'unknown')).body.errors).toEqual([{ path: 'placeId', message: 'This chore has no such place' }])
  await room.post('/api/staff', { name: 'Oona', role: 'keeper', pin: '2222', passphrase: null })
  const oona = ((await room.get('/api/session')).body as { staff: { id: string; name: string }[] }).staff.find(({ name }) => name === 'Oona')?.id ?? ''
  await request(room.app).post('/api/session/recording').set('Cookie', room.cookie).send({ staffId: oona, pin: '2222' })
  expect((await room.post('/api/chores', chore(), { staffId: oona })).status).toBe(403)
  expect((await room.post(`/api/chores/${id}/done`, { placeId: 'a', happenedAtMs: room.clock.nowMs }, { staffId: oona })).status).toBe(201)
  await room.post(`/api/chores/${id}/retirement`, { version: 2 })
  expect([(await chores()).chores, (await done(id, 'a')).status, (await room.post('/api/chores-done/unknown/undo', {})).status]).toEqual([[], 404, 404])
})
