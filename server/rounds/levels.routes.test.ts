import { afterEach, beforeEach, expect, test } from '@jest/globals'
import type { RoundStop, RoundView } from '../../core/rounds/roundView'
import type { TankView } from '../../core/room/roomView'
import type { TodayView } from '../../core/today/todayView'
import { createTestRoom, quietCheck, type TestRoom } from '../testing/testRoom'

// From what a person enters to what the screen says, by the hand of the clock.
const dayMs = 86_400_000
let room: TestRoom
beforeEach(async () => {
  room = await createTestRoom({ tankCount: 8, sharing: 'each its own' })
  for (const tank of [0, 1, 2, 3]) await settled(room, tank, 'Cherry barb', 8)
})
afterEach(() => void room.db.raw.close())

/** Fish that have been here for a month. */
const settled = (inRoom: TestRoom, tank: number, species: string, quantity: number) => inRoom.post(`/api/tanks/${inRoom.tanks[tank]!.id}/additions`, { species, quantity, how: 'brought-in', note: null, happenedAtMs: inRoom.clock.nowMs - 30 * dayMs })
const round = async (): Promise<RoundView> => (await room.get('/api/rounds/today')).body
const stopOf = async (code: string): Promise<RoundStop> => (await round()).stops.find((stop) => stop.code === code) as RoundStop
const check = (tank: number, change: object = {}) => room.post('/api/checks', { ...quietCheck(room.tanks[tank]!.id), happenedAtMs: room.clock.nowMs, ...change })
const lotsOf = async (code: string) => ((await room.get(`/api/tanks/${code}`)).body as TankView).stock
const judged = async (code: string) => {
  const { level, reasons } = (await stopOf(code)).judged
  return [level, ...reasons]
}

test('a lot that stops eating climbs to watch and, on the fourth day, to act; Today and the tank say so until somebody looks again', async () => {
  await check(0)
  for (const said of [['watch', 'ate none, 1st day (3)'], ['watch', 'ate none, 2nd day (5)'], ['watch', 'ate none, 3rd day (7)'], ['act', 'ate none, 4th day (9)']]) {
    room.clock.nowMs += dayMs
    await check(0, { ate: 'none' })
    expect(await judged('R1-01')).toEqual(said)
  }
  const today = (await room.get('/api/today')).body as TodayView
  expect(today.raised).toMatchObject([{ code: 'R1-01', level: 'act', act: [{ proposal: 'look again within 1 h' }, { proposal: 'take readings' }, { proposal: 'tell the lead' }] }])
  const { judged: ofTank, flag } = (await room.get('/api/tanks/R1-01')).body as TankView
  expect([ofTank?.level, flag, (await stopOf('R1-01')).judged.state]).toEqual(['act', { level: 'harm', word: 'ate none' }, 'sick'])
  room.clock.nowMs += 60_000
  await check(0)
  expect([await judged('R1-01'), ((await room.get('/api/today')).body as TodayView).raised]).toEqual([['quiet'], []])
})

test('one kind refuses while the others eat; one kind is counted', async () => {
  await settled(room, 0, 'Kuhli loach', 5)
  const [barb, loach] = ['Cherry barb', 'Kuhli loach'].map((species) => lotsOf('R1-01').then((lots) => lots.find((lot) => lot.species === species)?.lotId ?? ''))
  const [barbId, loachId] = [await barb, await loach]
  const recorded = await check(0, { answers: [{ lotId: barbId, ate: 'none' }], counts: [{ lotId: loachId, seen: 2 }] })
  expect(recorded.status).toBe(201)
  const stop = await stopOf('R1-01')
  expect([stop.judged.reasons, stop.check]).toMatchObject([['ate none, 1st day in Cherry barb (3)'], { answers: [{ lotId: barbId, ate: 'none' }], counts: [{ lotId: loachId, seen: 2 }] }])
  expect(stop.judged.unseen).toEqual([expect.stringMatching(/^2 of 5 Kuhli loach seen; these are hardly ever all seen: /)])
  const observed = room.db.raw.prepare('SELECT kind, lot_id AS lotId, word, value FROM observation WHERE lot_id IS NOT NULL ORDER BY seq').all()
  expect(observed).toEqual([{ kind: 'ate', lotId: barbId, word: 'none', value: null }, { kind: 'seen', lotId: loachId, word: null, value: 2 }])
  // The next look of all of them is no answer of the lot that refused.
  room.clock.nowMs += dayMs
  await check(0)
  expect((await stopOf('R1-01')).judged.reasons).toEqual(['ate none, 1st day in Cherry barb (3)'])
})

test.each([
  ['a lot nobody knows', { answers: [{ lotId: 'nobody', ate: 'none' }] }, 'answers', 'A lot is not in the books'],
  ['a count of nobody', { counts: [{ lotId: 'nobody', seen: 1 }] }, 'counts', 'A lot is not in the books'],
  ['a lot twice', { counts: [{ lotId: 'a', seen: 1 }, { lotId: 'a', seen: 2 }] }, 'counts', 'A lot is named twice'],
  ['no answer at all', { answers: [null] }, 'answers[0]', 'A feeding response is missing'],
  ['no list', { answers: 'none' }, 'answers', 'Answers must be a list'],
  ['half a fish', { counts: [{ lotId: 'a', seen: 0.5 }] }, 'counts[0].seen', 'Number seen must be a whole number'],
])('%s is refused beside its field', async (_what, change, path, message) => {
  const { status, body } = await check(0, change)
  expect([status, body.errors?.[0]]).toEqual([422, expect.objectContaining({ path, message })])
})

test('a sign that spreads on one water is more than each of its tanks; on another water it is not', async () => {
  const shared = await createTestRoom({ tankCount: 4 })
  try {
    for (const tank of [0, 1, 2]) await settled(shared, tank, 'Cherry barb', 8)
    for (const tank of [0, 1]) await shared.post('/api/checks', { ...quietCheck(shared.tanks[tank]!.id), signs: ['spots'], happenedAtMs: shared.clock.nowMs })
    const { stops } = (await shared.get('/api/rounds/today')).body as RoundView
    expect(stops.filter(({ check: seen }) => seen !== null).map(({ code, judged: { reasons } }) => [code, ...reasons])).toEqual([['R1-01', 'skin also in R1-02 on this water (4)', 'spots, slight (4)'], ['R1-02', 'skin also in R1-01 on this water (4)', 'spots, slight (4)']])
    await check(0, { signs: ['spots'] })
    await check(1, { signs: ['spots'] })
    expect([await judged('R1-01'), await judged('R1-02')]).toEqual([['watch', 'spots, slight (4)'], ['watch', 'spots, slight (4)']])
    // What drifts in a water is said of every tank on it.
    const read = (what: string, value: number) => shared.post(`/api/tanks/${shared.tanks[2]!.id}/readings`, { what, value, instrument: null, happenedAtMs: shared.clock.nowMs })
    await read('ph', 8)
    for (const ammonia of [0.05, 0.2, 0.35]) {
      shared.clock.nowMs += 2 * dayMs
      await read('ph', 8)
      await read('ammoniaMgL', ammonia)
    }
    const after = (await shared.get('/api/rounds/today')).body as RoundView
    expect(after.stops.map(({ judged: { reasons } }) => reasons.includes('ammonia, un-ionised as N, rises towards its limit (3)'))).toEqual([true, true, true])
  } finally {
    shared.db.raw.close()
  }
})

test('the order stays while the round is walked; who turns sick on the way comes last', async () => {
  const walk = async (): Promise<string[]> => (await round()).stops.map(({ code }) => code)
  expect(await walk()).toEqual(['R1-01', 'R1-02', 'R1-03', 'R1-04'])
  await check(0)
  expect([await walk(), (await round()).why]).toEqual([['R1-01', 'R1-02', 'R1-03', 'R1-04'], '4 settled tanks. About 0 min on the way.'])
  // Somebody else sees it before the walk comes by.
  const { id } = await round()
  await check(1, { signs: ['gasping'], roundId: `${id.slice(0, -1)}${Number(id.at(-1)) + 1}`, roundNumber: Number(id.at(-1)) + 1 })
  const stops = (await room.get(`/api/rounds/today?round=${id}`)).body.stops as RoundStop[]
  expect(stops.map(({ code, before }) => [code, before])).toEqual([['R1-01', null], ['R1-04', null], ['R1-03', null], ['R1-02', 'wash hands, take other tools: sick fish (R1-02)']])
})

test('fish that came today may be pale and need not eat; gasping is act for them too', async () => {
  await room.addFish(room.tanks[4]!, 'Cherry barb', 6)
  await check(4, { ate: 'none', signs: ['pale'] })
  const { judged: usual } = await stopOf('R1-05')
  expect([usual.level, usual.state, usual.usual[0]]).toEqual(['quiet', 'new', 'hiding usual for 3 days yet'])
  room.clock.nowMs += 60_000
  await check(4, { signs: ['gasping'] })
  expect(await judged('R1-05')).toEqual(['act', 'gasping, slight (9)'])
})

test('what was seen of fish that left says nothing of those that come after them', async () => {
  await check(0, { signs: ['spots'] })
  expect(await judged('R1-01')).toEqual(['watch', 'spots, slight (4)'])
  const [lot] = await lotsOf('R1-01')
  room.clock.nowMs += 60_000
  await room.post(`/api/tanks/${room.tanks[0]!.id}/releases`, { lotId: lot?.lotId, quantity: 8, reason: 'sold', note: null, happenedAtMs: room.clock.nowMs })
  room.clock.nowMs += 60_000
  await room.post(`/api/tanks/${room.tanks[0]!.id}/additions`, { species: 'Kuhli loach', quantity: 5, how: 'brought-in', note: null, happenedAtMs: room.clock.nowMs })
  expect(await judged('R1-01')).toEqual(['quiet'])
})

test('a lead changes single entries of the lists; levels go by them at once, and what cannot be is refused with where', async () => {
  const change = (rules: string, version: number) => room.put('/api/round-lists', { rules, version })
  await check(0, { signs: ['thin'] })
  expect(await judged('R1-01')).toEqual(['quiet', 'thin, slight (2)'])
  expect((await change('{"signs": [{"sign": "thin", "slight": 4}]}', 0)).body).toEqual({ version: 1 })
  expect(await judged('R1-01')).toEqual(['watch', 'thin, slight (4)'])
  expect((await room.get('/api/round-lists')).body).toMatchObject({ changes: { signs: [{ sign: 'thin', slight: 4 }] }, version: 1, changedBy: 'Imre' })
  expect((await change('{', 1)).body.errors[0]).toMatchObject({ path: 'rules', message: expect.stringMatching(/^This is no JSON: /) })
  expect((await change('{"signs": [{"sign": "thin", "slight": 9}]}', 1)).body.errors).toEqual([{ path: 'rules', message: 'signs[0]: A slight thin cannot weigh more than a clear one.' }])
  expect((await change('{}', 0)).body).toMatchObject({ code: 'stale', current: { version: 1 } })
  expect((await change('{}', 1)).body).toEqual({ version: 2 })
  expect(await judged('R1-01')).toEqual(['quiet', 'thin, slight (2)'])
})
