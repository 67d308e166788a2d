import { afterEach, beforeEach, expect, test } from '@jest/globals'
import { figureInputs } from '../../core/bench/bagFigures'
import type { BenchSubject, RunView } from '../../core/bench/benchView'
import { productValues } from '../../core/testing/productValues'
import { createTestRoom, plainBag, testNowMs, type TestRoom } from '../testing/testRoom'

// From what is written down to what the bench is told: nothing is guessed from the tank, and what harms first comes first.
let room: TestRoom
beforeEach(async () => {
  room = await createTestRoom()
  await room.post('/api/setup/species/adoptions', { names: ['Black molly', 'Cherry barb', 'Cleaner shrimp'] })
})
afterEach(() => {
  expect(room.faults()).toEqual([])
  room.db.close()
})

type Crate = { id: string; lines: { id: string }[]; bags: { id: string; lineId: string }[] }
const crateOf = (species: string, count: number, bags: number): Promise<Crate> => room.crateOf([[species, count, bags, room.tanks[0] ?? null]], 'as these deliveries are tried') as Promise<Crate>
const open = (crate: Crate, bagIds: string[], alive: number, found: object = {}) => room.post(`/api/crates/${crate.id}/bags`, { ...plainBag(bagIds, alive), ...found })
const subjectOf = async (crate: Crate, more = ''): Promise<BenchSubject> => (await room.get(`/api/bench/subject?line=${crate.lines[0]?.id}${more}`)).body as BenchSubject
const bodyOf = (subject: BenchSubject, more = {}) => ({
  ...{ kind: 'acclimation', schoolKey: 'netOver', agentId: null, tankId: subject.tank?.id ?? null, toOutside: null, isPooled: false, vessel: 'bucket', vesselL: 40, dropsPerMl: 20, isDark: true, sentence: null, predicted: null, happenedAtMs: testNowMs },
  sources: subject.sources.map(({ placeId, lotId, quantity }) => ({ placeId, lotId, quantity })),
  figures: Object.fromEntries(figureInputs.map(({ name }) => [name, subject.figures[name]?.value ?? null])),
  words: subject.words,
  ...more,
})

test('fish of several waters: unknown until it is read or said, and no run begins before', async () => {
  const crate = await crateOf('Black molly', 6, 1)
  await open(crate, crate.bags.map(({ id }) => id), 6)
  const silent = await subjectOf(crate)
  expect(silent).toMatchObject({ words: { waterClass: 'unknown' }, waterFacts: { usual: null, waters: ['fresh', 'brackish', 'marine'] } })
  for (const kind of ['acclimation', 'bath']) expect((await room.post('/api/bench/runs', bodyOf(silent, { kind }))).body.errors).toEqual([{ path: 'figures.measuredPpt', message: 'Read the salinity first: nobody knows which water the bags hold' }])
  expect((await room.get('/api/bench')).body.runs).toEqual([])
  // What the supplier usually ships in says it.
  const { rows } = (await room.get('/api/setup/suppliers')).body as { rows: { id: string; version: number; values: Record<string, unknown> }[] }
  const supplier = rows[0]
  await room.put(`/api/setup/suppliers/${supplier?.id}`, { version: supplier?.version, values: { ...supplier?.values, usualWater: 'fresh' } })
  expect((await subjectOf(crate)).words.waterClass).toBe('hard')
  expect((await room.put(`/api/setup/suppliers/${supplier?.id}`, { version: 2, values: { ...supplier?.values, usualWater: 'lava' } })).body.errors[0].path).toBe('values.usualWater')
})

test('a bag that fails goes alone, by its own readings; the others come after it', async () => {
  const crate = await crateOf('Cherry barb', 12, 2)
  const [first = '', second = ''] = crate.bags.map(({ id }) => id)
  await open(crate, [first], 6, { waterTempC: 24 })
  await open(crate, [second], 6, { waterTempC: 17, behaviour: 'on its side' })
  const subject = await subjectOf(crate)
  expect(subject).toMatchObject({ title: 'bag 2 of Cherry barb; 1 more wait', triage: { step: 'release at once' }, sources: [{ placeId: second }], figures: { measuredC: { value: 17 } } })
  const { id } = (await room.post('/api/bench/runs', bodyOf(subject, { schoolKey: 'straight' }))).body as { id: string }
  expect(await subjectOf(crate)).toMatchObject({ triage: { step: 'as planned' }, sources: [{ placeId: first }] })
  await room.post(`/api/bench/runs/${id}/steps`, { stepIndex: 0, happenedAtMs: testNowMs })
  await room.post(`/api/bench/runs/${id}/count`, { stepIndex: 1, counts: [{ lotId: subject.sources[0]?.lotId, alive: 6, dead: 0 }], tankId: null, look: 'as expected', cause: 'unknown', note: null, happenedAtMs: testNowMs })
  const { rechecks } = (await room.get('/api/today')).body as { rechecks: { dueAtMs: number }[] }
  expect(rechecks.filter(({ dueAtMs }) => dueAtMs <= testNowMs + 3_600_000).length).toBeGreaterThan(0)
})

test('one bag alone is asked for by its name; deaths count over its lot', async () => {
  const crate = await crateOf('Cherry barb', 12, 2)
  const [first = '', second = ''] = crate.bags.map(({ id }) => id)
  await open(crate, [first], 5, { dead: 1 })
  await open(crate, [second], 5, { dead: 1 })
  expect(await subjectOf(crate, `&bag=${first}`)).toMatchObject({ sources: [{ placeId: first }], triage: { step: 'first-response bath, then an observation tank', reasons: ['2 of 12 dead in 2 bags'] } })
})

test('an unread temperature is that of other bags of the crate within the hour, else the room’s; instruments are the house’s until a bag says otherwise', async () => {
  const crate = (await room.crateOf([['Cherry barb', 6, 1, room.tanks[0] ?? null], ['Black molly', 6, 1, room.tanks[0] ?? null]])) as Crate
  const bagOf = (line: number): string => crate.bags.find(({ lineId }) => lineId === crate.lines[line]?.id)?.id ?? ''
  await open(crate, [bagOf(0)], 6, { waterTempC: 18 })
  await open(crate, [bagOf(1)], 6, { salinityPpt: 0.4, salinityBy: 'hydrometer' })
  const mollies = async (): Promise<BenchSubject> => (await room.get(`/api/bench/subject?line=${crate.lines[1]?.id}`)).body as BenchSubject
  expect(await mollies()).toMatchObject({ figures: { guessedC: { value: 18, from: 'other bags' } }, words: { guessedFrom: 'other bags', salinityBy: 'hydrometer', phBy: 'meter', waterClass: 'hard' } })
  const settings = { name: 'Lantern Quay', timeZone: 'UTC', temperatureUnit: '°C', volumeUnit: 'L', salinityUnit: 'ppt', sgReference: '25/25', salinityBy: 'conductivity meter', phBy: 'kit', version: 1 }
  expect((await room.put('/api/room/settings', settings)).body).toEqual({ version: 2 })
  expect((await subjectOf(crate)).words).toMatchObject({ salinityBy: 'conductivity meter', phBy: 'kit' })
  expect((await mollies()).words).toMatchObject({ salinityBy: 'hydrometer', phBy: 'kit' })
  room.clock.nowMs += 2 * 3_600_000
  expect(await mollies()).toMatchObject({ words: { guessedFrom: 'room air' } })
})

test('fish of the room that go to another tank of the same water need no acclimation', async () => {
  const lotId = await room.addFish(room.tanks[0], 'Cherry barb', 6)
  const moved = (to: number) => room.get(`/api/bench/subject?lot=${lotId}&from=${room.tanks[0]?.id}&tank=${room.tanks[to]?.id}`)
  expect((await moved(1)).body).toMatchObject({ isOneWater: true, waterFacts: { standing: 'fresh' } })
})

test('a float that was slowed is run as it was advised; shrimp get no dye, whoever asks', async () => {
  const crate = await crateOf('Cherry barb', 6, 1)
  await open(crate, crate.bags.map(({ id }) => id), 6, { waterTempC: 16 })
  const subject = await subjectOf(crate)
  const { id } = (await room.post('/api/bench/runs', bodyOf(subject, { variant: 'slowed float' }))).body as { id: string }
  const { plan } = (await room.get(`/api/bench/runs/${id}`)).body as RunView
  expect(plan.steps[0]).toMatchObject({ title: 'Float the bags shut, slowed' })
  expect(plan.steps[0]?.minutes).toBeGreaterThan(30)
  const agent = await room.post('/api/setup/agents', { values: productValues({ name: 'Some dye', strengthMgPerMl: 10, bathMgL: 5, bathMinutes: 20 }) })
  const shrimp = await crateOf('Cleaner shrimp', 2, 1)
  await open(shrimp, shrimp.bags.map(({ id: bagId }) => bagId), 2, { salinityPpt: 33 })
  const refused = await room.post('/api/bench/runs', bodyOf(await subjectOf(shrimp), { kind: 'bath', schoolKey: null, agentId: agent.body.id }))
  expect(refused.body.errors).toEqual([{ path: 'agentId', message: 'Some dye: not for what is no fish; dyes and dips kill it.' }])
})
