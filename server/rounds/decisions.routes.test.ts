import request from 'supertest'
import { afterEach, beforeEach, expect, test } from '@jest/globals'
import type { HoldsView } from '../../core/holds/holdsView'
import type { RoundView } from '../../core/rounds/roundView'
import type { TankView } from '../../core/room/roomView'
import type { TodayView } from '../../core/today/todayView'
import { createTestRoom, plainBag, quietCheck, type TestRoom } from '../testing/testRoom'

// From what a person enters to what the screen says, by the hand of the clock.
const [minuteMs, dayMs] = [60_000, 86_400_000]
let room: TestRoom
beforeEach(async () => {
  room = await createTestRoom({ tankCount: 4 })
  const crate = await room.crateOf([['Cherry barb', 8, 1, room.tanks[0]!], ['Honey gourami', 4, 1, room.tanks[1]!]])
  for (const bag of crate.bags) await room.post(`/api/crates/${crate.id}/bags`, plainBag([bag.id], bag.listed))
  await room.post(`/api/crates/${crate.id}/placements`, { tankId: null, happenedAtMs: room.clock.nowMs })
})
afterEach(() => void room.db.raw.close())

const tankId = (index = 0): string => room.tanks[index]!.id
const later = (ms: number): void => void (room.clock.nowMs += ms)
const check = (change: object, index = 0) => room.post('/api/checks', { ...quietCheck(tankId(index)), happenedAtMs: room.clock.nowMs, ...change })
const decide = (change: object, index = 0, by?: { staffId: string }) => room.post(`/api/tanks/${tankId(index)}/sign-decisions`, { sign: 'spots', lotId: null, decision: 'confirmed', days: null, note: null, happenedAtMs: room.clock.nowMs, ...change }, by)
async function keeperId(): Promise<string> {
  await room.post('/api/staff', { name: 'Oona', role: 'keeper', pin: '2222', passphrase: null })
  const { staff } = (await room.get('/api/session')).body as { staff: { id: string; name: string }[] }
  const staffId = staff.find(({ name }) => name === 'Oona')?.id ?? ''
  await request(room.app).post('/api/session/recording').set('Cookie', room.cookie).send({ staffId, pin: '2222' })
  return staffId
}
const tank = async (code: string) => (await room.get(`/api/tanks/${code}`)).body as TankView
const hold = async (code: string) => (await tank(code)).hold
const signs = async (code = 'R1-01') => ((await tank(code)).judged?.signs ?? []).map(({ words, asksHold, decision }) => [words, asksHold, decision?.as ?? null])

test('a sign in a hold asks; confirmed, the holds of all on its water begin again on the day it was last seen, and as long as it is seen on', async () => {
  later(4 * dayMs)
  await check({ signs: ['spots'] })
  expect([await signs(), await hold('R1-01'), await hold('R1-02')]).toEqual([[['spots', true, null]], { day: 5, of: 14 }, { day: 5, of: 14 }])
  later(dayMs)
  const { id } = (await decide({})).body as { id: string }
  expect([await signs(), await hold('R1-01'), await hold('R1-02')]).toEqual([[['spots', true, 'confirmed']], { day: 2, of: 14 }, { day: 2, of: 14 }])
  // The next look sees it still: nobody is asked again, and the hold goes with it.
  await check({ signs: ['spots'] })
  expect([await signs(), await hold('R1-01'), await hold('R1-02')]).toEqual([[['spots', true, 'confirmed']], { day: 1, of: 14 }, { day: 1, of: 14 }])
  // Fish that moved out meanwhile take it along; those that come later have nothing of it.
  const [lot] = (await tank('R1-02')).stock
  await room.post(`/api/tanks/${tankId(1)}/moves`, { lotId: lot?.lotId, quantity: 4, toTankId: tankId(2), note: null, happenedAtMs: room.clock.nowMs + 1 })
  expect(await hold('R1-03')).toEqual({ day: 1, of: 14 })
  later(minuteMs)
  expect((await room.post(`/api/sign-decisions/${id}/undo`, {})).status).toBe(201)
  expect([await signs(), await hold('R1-01'), await hold('R1-03')]).toEqual([[['spots', true, null]], { day: 6, of: 14 }, { day: 6, of: 14 }])
  expect((await room.post(`/api/sign-decisions/${id}/undo`, {})).body.detail).toBe('There is no such decision, or it was taken back already')
})

/** Lets all fish go whose hold runs. */
async function endHolds(): Promise<void> {
  const { groups } = (await room.get('/api/holds')).body as HoldsView
  await room.post('/api/holds/ends', { fish: groups.map(({ lotId, placeId }) => ({ lotId, placeId })), reason: 'a test', happenedAtMs: room.clock.nowMs })
}

test('a hold that is over does not begin again, and a sign outside a hold asks for none', async () => {
  later(20 * dayMs)
  await endHolds()
  await check({ signs: ['spots'] })
  expect(await signs()).toEqual([['spots', false, null]])
  await decide({})
  expect([await hold('R1-01'), await hold('R1-02')]).toEqual([null, null])
})

test('dismissed, a sign asks no more, until it is clear or was away for days; only a lead says so, with a reason', async () => {
  later(dayMs)
  await check({ signs: ['rubbing'] })
  const dismiss = { sign: 'rubbing', decision: 'dismissed', note: 'rubs at the new stone' }
  expect((await decide({ ...dismiss, note: ' ' })).body.errors).toEqual([{ path: 'note', message: 'Say why it is no sign' }])
  expect((await decide(dismiss)).status).toBe(201)
  expect([await signs(), await hold('R1-01')]).toEqual([[['rubbing', true, 'dismissed']], { day: 2, of: 14 }])
  later(dayMs)
  await check({ signs: ['rubbing'] })
  expect(await signs()).toEqual([['rubbing', true, 'dismissed']])
  later(dayMs)
  await check({ signs: ['rubbing'], marks: [{ sign: 'rubbing', severity: 2, lotId: null }] })
  expect(await signs()).toEqual([['rubbing, clear', true, null]])
  const keeper = { staffId: await keeperId() }
  expect((await decide(dismiss, 0, keeper)).body).toMatchObject({ code: 'not-allowed', detail: 'Only a lead says that a sign is none, or known' })
  expect((await decide({ sign: 'rubbing' }, 0, keeper)).status).toBe(201)
  expect((await decide({ sign: 'film' })).body.errors).toEqual([{ path: 'sign', message: '"film" was not seen here in the last seven days' }])
})

test('what a lead takes as known raises nothing for so many days, unless it is grave or worse', async () => {
  later(20 * dayMs)
  await endHolds()
  await check({ signs: ['frayed fins'], marks: [{ sign: 'frayed fins', severity: 2, lotId: null }] })
  expect((await tank('R1-01')).judged?.level).toBe('watch')
  expect((await decide({ sign: 'frayed fins', decision: 'known' })).body.errors).toEqual([{ path: 'days', message: 'Say for how many days it is known' }])
  await decide({ sign: 'frayed fins', decision: 'known', days: 2 })
  expect([(await tank('R1-01')).judged?.level, await signs()]).toEqual(['quiet', [['frayed fins, clear', false, 'known']]])
  later(minuteMs)
  await check({ signs: ['gasping', 'frayed fins'] })
  expect((await tank('R1-01')).judged?.level).toBe('act')
  later(dayMs)
  await check({ signs: ['frayed fins'] })
  expect((await tank('R1-01')).judged?.reasons.filter((words) => words.startsWith('frayed'))).toEqual([])
  later(dayMs + minuteMs)
  expect((await tank('R1-01')).judged?.reasons).toEqual(expect.arrayContaining([expect.stringMatching(/^frayed fins/)]))
})

test('fish found dead are decided about like a sign', async () => {
  later(2 * dayMs)
  for (const quantity of [2, 2]) await room.post(`/api/tanks/${tankId()}/losses`, { lotId: (await tank('R1-01')).stock[0]?.lotId, quantity, cause: 'found dead', note: null, happenedAtMs: room.clock.nowMs })
  expect(await signs()).toEqual([['found dead', true, null]])
  await decide({ sign: 'death' })
  expect([await signs(), await hold('R1-01')]).toEqual([[['found dead', true, 'confirmed']], { day: 1, of: 14 }])
})

test('what act proposes is asked for in a touch: it waits with its time, is asked once, and a look or the readings end it', async () => {
  later(20 * dayMs)
  await check({ signs: ['gasping'] })
  const ask = (kind: string, change: object = {}) => room.post('/api/asked-chores', { tankId: tankId(), kind, withinMin: 60, litresEach: null, times: 1, ...change })
  const { id } = (await ask('look')).body as { id: string }
  expect((await ask('look')).body).toEqual({ id })
  await ask('readings')
  const change = (await ask('part change', { litresEach: 25, times: 2 })).body as { id: string }
  const asked = async () => ((await tank('R1-01')).judged?.chores ?? []).map(({ words }) => words)
  const waits = async () => ((await room.get('/api/today')).body as TodayView).onTheWay.flatMap(({ kind, what, about, urgency }) => (kind === 'chore' ? [[what, about, urgency]] : []))
  expect(await asked()).toEqual(['look again', 'readings: temperature, ammonia', 'change 2 times 25 L'])
  expect((await waits()).sort()).toEqual([['change 2 times 25 L', 'R1-01', 'soon'], ['look again', 'R1-01', 'soon'], ['readings: temperature, ammonia', 'R1-01', 'soon']])
  later(minuteMs)
  // Read at another tank of its water.
  for (const [what, value] of [['tempC', 25], ['ammoniaMgL', 0.1]]) await room.post(`/api/tanks/${tankId(1)}/readings`, { what, value, instrument: null, happenedAtMs: room.clock.nowMs })
  await check({})
  expect(await asked()).toEqual(['change 2 times 25 L'])
  await room.post(`/api/asked-chores/${change.id}/end`, { as: 'done' })
  expect(await asked()).toEqual([])
  await room.post(`/api/asked-chores/${change.id}/end`, { as: 'open' })
  expect(await asked()).toEqual(['change 2 times 25 L'])
  expect((await room.post('/api/asked-chores/nobody/end', { as: 'done' })).status).toBe(404)
})

test('a hospital tank that is free is proposed with who would go; reserved, it is no more', async () => {
  later(20 * dayMs)
  const [row] = ((await room.get('/api/setup/tanks')).body.rows as { id: string; version: number; values: object }[]).filter(({ id }) => id === tankId(3))
  await room.put(`/api/setup/tanks/${tankId(3)}`, { version: row?.version, values: { ...row?.values, purpose: 'hospital' } })
  await check({ signs: ['gasping'] })
  const { stops } = (await room.get('/api/rounds/today')).body as RoundView
  const { hospital } = stops.find(({ code }) => code === 'R1-01')!.judged
  expect(hospital).toMatchObject({ code: 'R1-04', fish: [{ quantity: 8 }] })
  const planned = await room.post('/api/plans', { fromTankId: tankId(), toTankId: hospital?.tankId, fish: hospital?.fish, join: 'all', facts: [{ is: 'date', on: new Date(room.clock.nowMs).toISOString().slice(0, 10) }], takes: 'whole', untilOn: null, note: 'ill fish' })
  expect([planned.status, (await tank('R1-01')).judged?.hospital]).toEqual([201, null])
})
