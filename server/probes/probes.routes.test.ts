import { afterEach, beforeEach, expect, test } from '@jest/globals'
import type { DueItem } from '../../core/due/due'
import { simulatedProbes } from '../../core/probes/simulatedProbes'
import type { ProbeView } from '../../core/probes/probeView'
import type { TodayView } from '../../core/today/todayView'
import { createTestRoom, quietCheck, type TestRoom } from '../testing/testRoom'

// A probe from the day it is hung up: asked by the clock, believed or not, and its figures where anybody's readings stand.
const [minuteMs, hourMs] = [60_000, 3_600_000]
let room: TestRoom
beforeEach(async () => {
  room = await createTestRoom({ tankCount: 3, sharing: 'each its own' })
  const { rows } = (await room.get('/api/setup/systems')).body as { rows: { id: string; version: number; values: object }[] }
  await room.put(`/api/setup/systems/${rows[0]?.id}`, { version: rows[0]?.version, values: { ...rows[0]?.values, tempC: 25, ph: 7.5 } })
  await room.addFish(room.tanks[0], 'Cherry barb', 5)
})
afterEach(() => void room.db.raw.close())

const probe = (change: object = {}) => ({ name: 'P1', tankId: room.tanks[0]!.id, measure: 'tempC', everyMin: 15, fault: 'none', version: 0, ...change })
const add = async (change: object = {}): Promise<string> => (await room.post('/api/probes', probe(change))).body.id
const view = async (): Promise<ProbeView[]> => ((await room.get('/api/probes')).body as { probes: ProbeView[] }).probes
const poll = async () => (await room.post('/api/probes/polls', {})).body as { asked: number; fed: number }
/** Lets hours pass, asking whenever a minute has gone by that matters. */
async function live(hours: number): Promise<number> {
  let fed = 0
  for (let quarter = 0; quarter < hours * 4; quarter += 1) {
    room.clock.nowMs += 15 * minuteMs
    fed += (await poll()).fed
  }
  return fed
}
const readings = () => room.db.raw.prepare("SELECT word, instrument, value FROM observation WHERE kind = 'reading'").all() as { word: string; instrument: string; value: number }[]

test('what a probe says becomes a reading of its tank once a day, marked as simulated; asked twice in its interval it is asked once', async () => {
  await add()
  expect(await poll()).toEqual({ asked: 1, fed: 1 })
  expect(await poll()).toEqual({ asked: 0, fed: 0 })
  expect(await live(50)).toBe(2)
  const read = readings()
  expect(read).toHaveLength(3)
  expect(read.every(({ word, instrument, value }) => word === 'tempC' && instrument === 'P1, simulated probe' && Math.abs(value - 25) < 1)).toBe(true)
  const [shown] = await view()
  expect([shown?.state, shown?.tankCode, shown?.isSimulated, Math.abs((shown?.value ?? 0) - 25) < 1]).toEqual(['ok', 'R1-01', true, true])
  expect((await room.get('/api/tanks/R1-01/history')).status).toBe(200)
})

test('one that does not answer at first is read as soon as it does', async () => {
  const quiet = Array.from({ length: 1000 }, (_, index) => `Q${index}`).find((name) => simulatedProbes.read({ ...probe({ name }), id: 'q', measure: 'tempC', fault: 'none', addedAtMs: room.clock.nowMs }, { kind: 'fresh', tempC: 25, ph: 7.5, salinityPpt: null }, room.clock.nowMs) === null)
  await add({ name: quiet })
  expect(await poll()).toEqual({ asked: 1, fed: 0 })
  expect((await view())[0]).toMatchObject({ state: 'fresh', value: null })
  expect(await live(1)).toBe(1)
})

test('a probe that is stuck is said to have failed on Today, and its figure is no reading any more', async () => {
  const id = await add({ fault: 'stuck' })
  await live(8)
  const [shown] = await view()
  expect([shown?.state, shown?.value]).toEqual(['stuck', null])
  const { items } = (await room.get('/api/due')).body as { items: DueItem[] }
  expect(items.filter(({ kind }) => kind === 'probe').map(({ about, what, detail }) => [about, what, detail])).toEqual([['R1-01', 'probe P1 stuck', expect.stringMatching(/^temperature: says 25\.4 °C and nothing else for .*: stuck\. Read by hand until then$/)]])
  const before = readings().length
  await live(2)
  expect(readings()).toHaveLength(before)
  // Mended, and hung up again: it is believed as soon as it moves.
  const { version } = (await view())[0] as ProbeView
  await room.put(`/api/probes/${id}`, probe({ version }))
  await live(1)
  expect((await view())[0]?.state).toBe('ok')
})

test('a figure past its limit is told at once, by the level of the tank, and does not wait for the next day', async () => {
  await add({ fault: 'drifts' })
  await room.post('/api/checks', { ...quietCheck(room.tanks[0]!.id), happenedAtMs: room.clock.nowMs })
  room.clock.nowMs += 4 * 24 * hourMs
  await room.post(`/api/tanks/${room.tanks[0]!.id}/readings`, { what: 'tempC', value: 25, instrument: 'P1, simulated probe', happenedAtMs: room.clock.nowMs - 10 * minuteMs })
  expect(await poll()).toEqual({ asked: 1, fed: 1 })
  const { raised } = (await room.get('/api/today')).body as TodayView
  expect(raised.map(({ code, level, reasons }) => [code, level, reasons[0]])).toEqual([['R1-01', 'watch', expect.stringMatching(/^temperature/)]])
})

test('the server asks by itself, in the name of whoever hung it up, and that does not make them present', async () => {
  await add()
  const services = room.app as unknown as { pollProbes(): Promise<void> }
  await services.pollProbes()
  expect((await view())[0]?.samples).toHaveLength(1)
  for (let hour = 0; hour < 6; hour += 1) {
    room.clock.nowMs += hourMs
    await services.pollProbes()
  }
  expect((await view())[0]?.samples).toHaveLength(7)
  await room.post('/api/staff', { name: 'Oona', role: 'keeper', pin: '2222', passphrase: null })
  const { body } = await room.get('/api/session')
  expect(body.staff).toHaveLength(2)
})

test('what cannot be is refused beside its field; one taken down is asked no more', async () => {
  const said = async (body: object) => ((await room.post('/api/probes', body)).body.errors as { path: string; message: string }[]).map(({ path, message }) => `${path}: ${message}`)
  expect(await said(probe({ tankId: 'unknown' }))).toEqual(['tankId: There is no such tank'])
  expect(await said(probe({ everyMin: 1 }))).toEqual(['everyMin: Minutes must be at least 5'])
  expect(await said(probe({ measure: 'mood' }))).toEqual(['measure: Measures must be one of: tempC, ph, salinityPpt'])
  const id = await add()
  expect(await said(probe())).toEqual(['name: Another probe is called so'])
  expect((await room.put(`/api/probes/${id}`, probe({ version: 7 }))).status).toBe(409)
  await poll()
  // In another tank, what it said before says nothing of it now.
  await room.put(`/api/probes/${id}`, probe({ tankId: room.tanks[1]!.id, version: 1 }))
  expect((await view())[0]).toMatchObject({ tankCode: 'R1-02', samples: [] })
  await room.post(`/api/probes/${id}/retirement`, { version: 2 })
  expect([await view(), await poll(), (await room.put(`/api/probes/${id}`, probe({ version: 3 }))).status]).toEqual([[], { asked: 0, fed: 0 }, 404])
})
