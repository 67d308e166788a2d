import { beforeAll, afterAll, expect, test } from '@jest/globals'
import type { ToolView, TraceView } from '../../core/contacts/contactView'
import { createTestRoom, testNowMs, type TestRoom } from '../testing/testRoom'

let room: TestRoom
const minuteMs = 60_000
beforeAll(async () => {
  room = await createTestRoom({ tankCount: 12, sharing: 'each its own' })
})
afterAll(() => expect(room.faults()).toEqual([]))

const tank = (nth: number) => room.tanks[nth - 1]
const trace = async (start: string, more = ''): Promise<TraceView> => (await room.get(`/api/contacts/trace?start=${encodeURIComponent(start)}${more}`)).body
const names = ({ reached }: TraceView): [string, number][] => reached.map(({ name, hops }) => [name, hops])
const later = (minutes: number): number => testNowMs + minutes * minuteMs

test('a net that was in two tanks: forwards the second, backwards the first, and neither once it is taken back', async () => {
  const { body: set } = await room.post('/api/setup/toolSets', { values: { name: 'blue', zoneId: null, marking: null, netWidthCm: null, netMesh: null, note: null } })
  room.clock.nowMs = later(10)
  const use = (nth: number, minute: number) => room.post(`/api/tools/${set.id}/uses`, { tankId: tank(nth)?.id, note: null, happenedAtMs: later(minute) })
  await use(1, 0)
  const second = await use(2, 5)
  expect([second.status, second.body]).toEqual([201, expect.anything()])
  const first = await trace(`tank:${tank(1)?.id}`)
  expect(names(first)).toEqual([['blue', 0], [tank(2)?.code, 1]])
  expect(first.reached[1]?.chain.map(({ words }) => words)).toEqual([`blue was in ${tank(1)?.code}`, `blue was in ${tank(2)?.code}`])
  expect(names(await trace(`tank:${tank(2)?.id}`))).toEqual([['blue', 0]])
  expect(names(await trace(`tank:${tank(2)?.id}`, '&direction=backward'))).toEqual([['blue', 0], [tank(1)?.code, 1]])

  const tools = async (): Promise<ToolView | undefined> => ((await room.get('/api/tools')).body.tools as ToolView[]).find(({ name }) => name === 'blue')
  expect(await tools()).toMatchObject({ state: 'used', carries: [tank(1)?.code, tank(2)?.code] })
  await room.post(`/api/tools/${set.id}/baths`, { needMinutes: 30, agent: 'hydrogen peroxide', happenedAtMs: later(10) })
  expect(await tools()).toMatchObject({ state: 'in bath', readyAtMs: later(40) })
  expect((await room.post(`/api/tools/${set.id}/baths`, { needMinutes: 30, agent: null, happenedAtMs: later(10) })).status).toBe(409)
  room.clock.nowMs = later(50)
  expect(await tools()).toMatchObject({ state: 'clean', carries: [] })

  await room.post(`/api/contacts/${second.body.id}/undo`, { happenedAtMs: later(50) })
  expect(names(await trace(`tank:${tank(1)?.id}`))).toEqual([['blue', 0]])
  expect((await room.post(`/api/contacts/${second.body.id}/undo`, { happenedAtMs: later(50) })).status).toBe(404)
})

test('fish that moved tell it themselves; one out of several lots that nobody can tell apart brings what was with all of them', async () => {
  room.clock.nowMs = later(60)
  const [old, young] = [await room.addFish(tank(3), 'Cherry barb', 6), await room.addFish(tank(3), 'Cherry barb', 6)]
  const speciesId = (await room.get(`/api/tanks/${tank(3)?.code}`)).body.stock[0].speciesId
  const { body } = await room.post(`/api/tanks/${tank(3)?.id}/moves`, { speciesId, quantity: 1, toTankId: tank(4)?.id, note: null, happenedAtMs: later(55) })
  for (const lot of [old, young]) {
    const { start, reached, lots } = await trace(`lot:${lot}`)
    expect(start.name).toContain('Cherry barb')
    expect([reached, lots.map(({ lotId, hops }) => [lotId, hops])]).toEqual([[], [[lot === old ? young : old, 0]]])
  }
  const back = await trace(`tank:${tank(4)?.id}`, '&direction=backward')
  expect(names(back)).toEqual([[tank(3)?.code, 1]])
  expect(back.reached[0]?.chain[0]).toMatchObject({ kind: 'move', words: `1 Cherry barb went from ${tank(3)?.code} to ${tank(4)?.code}`, isPlanned: true })
  expect(back.lots.map(({ lotId }) => lotId).sort()).toEqual([old, young].sort())

  await room.post(`/api/movements/${body.movementIds[0]}/reversal`, { reason: null, happenedAtMs: later(60) })
  expect((await trace(`tank:${tank(4)?.id}`, '&direction=backward')).reached).toEqual([])
})

test('a splash is a breach, both ways; joined waters stay so until somebody ends it', async () => {
  const say = (kind: string, from: number, to: number) => room.post('/api/contacts', { kind, fromTankId: tank(from)?.id, toTankId: tank(to)?.id, litres: null, note: null, happenedAtMs: later(70) })
  room.clock.nowMs = later(80)
  await say('splash', 5, 6)
  const joined = await say('joined', 6, 7)
  const from5 = await trace(`tank:${tank(5)?.id}`)
  expect(names(from5)).toEqual([[tank(6)?.code, 1], [tank(7)?.code, 2]])
  expect(from5.reached[1]?.chain.map(({ isPlanned }) => isPlanned)).toEqual([false, true])
  expect(names(await trace(`tank:${tank(5)?.id}`, '&hops=1'))).toEqual([[tank(6)?.code, 1]])
  expect(names(await trace(`tank:${tank(5)?.id}`, '&kinds=joined'))).toEqual([])
  expect((await room.put(`/api/contacts/${joined.body.id}/end`, { happenedAtMs: later(60) })).body).toMatchObject({ code: 'invalid-input' })
  await room.put(`/api/contacts/${joined.body.id}/end`, { happenedAtMs: later(80) })
  expect((await room.put(`/api/contacts/${joined.body.id}/end`, { happenedAtMs: later(80) })).status).toBe(409)
  expect((await say('splash', 5, 5)).body.errors).toMatchObject([{ path: 'toTankId' }])
})

test('an empty water is cleared, and what comes after it is clean; with fish in it, it is refused', async () => {
  room.clock.nowMs = later(100)
  await room.post('/api/contacts', { kind: 'decor', fromTankId: tank(8)?.id, toTankId: tank(9)?.id, litres: null, note: null, happenedAtMs: later(90) })
  await room.post(`/api/tanks/${tank(9)?.id}/clears`, { note: null, happenedAtMs: later(92) })
  await room.post('/api/contacts', { kind: 'decor', fromTankId: tank(9)?.id, toTankId: tank(10)?.id, litres: null, note: null, happenedAtMs: later(95) })
  const from8 = await trace(`tank:${tank(8)?.id}`)
  expect(from8.reached.map(({ name, isCleared }) => [name, isCleared])).toEqual([[tank(9)?.code, true]])
  await room.addFish(tank(9), 'Kuhli loach', 6)
  const refused = await room.post(`/api/tanks/${tank(9)?.id}/clears`, { note: null, happenedAtMs: later(100) })
  expect([refused.status, refused.body.detail]).toEqual([409, expect.stringContaining(`in ${tank(9)?.code}`)])
})

test('nonsense is said beside its field', async () => {
  for (const [query, path] of [['start=moon', 'start'], [`start=tank:${tank(1)?.id}&days=0`, 'days'], [`start=tank:${tank(1)?.id}&hops=x`, 'hops'], [`start=tank:${tank(1)?.id}&kinds=magic`, 'kinds']])
    expect((await room.get(`/api/contacts/trace?${query}`)).body).toMatchObject({ code: 'invalid-input', errors: [{ path }] })
  expect((await room.post('/api/tools/none/uses', { tankId: tank(1)?.id, note: null, happenedAtMs: later(100) })).status).toBe(404)
})
