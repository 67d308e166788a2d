import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { takeAlongCard } from '../../core/crates/takeAlongCard'
import type { BenchSubject } from '../../core/bench/benchView'
import type { CrateView } from '../../core/crates/crateView'
import { createTestRoom, plainBag, testNowMs, type TestRoom } from '../testing/testRoom'

let room: TestRoom
beforeAll(async () => (room = await createTestRoom({ sharing: 'each its own' })))
afterAll(() => {
  expect(room.faults()).toEqual([])
  room.db.close()
})

const packedAtMs = testNowMs - 3_600_000
const line = (species: string, count: number, told: object | null = null) => ({ species, count, bags: 1, perBag: null, tankId: null, told })
const create = (lines: object[], told: object | null, more: object = {}) => room.post('/api/crates', { supplier: 'Lantern Quay Fishroom', expectedAtMs: null, packedAtMs, lines, told, ...more })
const crateOf = async (id: string): Promise<CrateView> => (await room.get(`/api/crates/${id}`)).body

test('what the sender says of their water and their fish stands in the crate, and the water before what the supplier usually ships in', async () => {
  const made = await create([line('Cherry barb', 6, { held: { days: 14, of: 14, school: 'shop hold' }, agents: [{ agent: 'copper', lastOn: '2031-04-20' }], lastFedOn: '2031-05-03' })], { water: { tempC: 24.5, salinityPpt: 0.4, ph: 7.4 }, method: 'float, net over' })
  const crate = await crateOf(made.body.id)
  expect(crate).toMatchObject({ shippingWater: { tempC: 24.5, salinityPpt: 0.4, ph: 7.4, alkalinityMeqL: null }, method: 'float, net over', lines: [{ told: { held: { days: 14 }, agents: [{ agent: 'copper' }] } }] })
  await room.post(`/api/crates/${crate.id}/bags`, plainBag(crate.bags.map(({ id }) => id), 6))
  const subject = (await room.get(`/api/bench/subject?line=${crate.lines[0]?.id}`)).body as BenchSubject
  expect(subject.figures).toMatchObject({ toldPpt: { value: 0.4 }, toldPh: { value: 7.4 } })
  // Written out again it is a list of version 2, which the reader takes.
  const list = (await room.get(`/api/crates/${crate.id}/packing-list`)).body
  expect(list).toMatchObject({ version: 2, water: { tempC: 24.5 }, method: 'float, net over', lines: [{ held: { days: 14 }, lastFedOn: '2031-05-03' }] })
  const silent = await crateOf((await create([line('Guppy', 4)], null, { packedAtMs: null })).body.id)
  expect([silent.shippingWater, silent.method, silent.lines[0]?.told]).toEqual([null, null, null])
  expect((await room.get(`/api/crates/${silent.id}/packing-list`)).body.version).toBe(1)
})

test('further parts of a list come into the same crate, once each', async () => {
  const part = (n: number) => ({ part: { n, of: 2 } })
  const first = await create([line('Kuhli loach', 5)], part(1), { packedAtMs: packedAtMs + 1 })
  const second = await create([line('Honey gourami', 3)], part(2), { packedAtMs: packedAtMs + 1 })
  expect(second.body.id).toBe(first.body.id)
  expect((await crateOf(first.body.id)).lines.map(({ species, lotCode }) => [species, lotCode.slice(-2)])).toEqual([['Kuhli loach', '01'], ['Honey gourami', '02']])
  const twice = await create([line('Honey gourami', 3)], part(2), { packedAtMs: packedAtMs + 1 })
  expect([twice.status, twice.body.detail]).toEqual([409, expect.stringContaining('This part of the list is in crate')])
})

test('a card says what holds for each lot of a pool, and a figure nobody read is not on it', async () => {
  const tank = room.tanks[0]
  const lotId = await room.addFish(tank, 'Cherry barb', 4)
  expect(lotId).toBeTruthy()
  const crate = await crateOf((await create([{ ...line('Cherry barb', 6), tankId: tank?.id, origin: 'captive bred', ateBefore: 'granules' }], null, { packedAtMs: packedAtMs + 2 })).body.id)
  await room.post(`/api/crates/${crate.id}/bags`, plainBag(crate.bags.map(({ id }) => id), 6))
  await room.post(`/api/crates/${crate.id}/placements`, { tankId: null, happenedAtMs: testNowMs })
  const { body } = await room.get('/api/tanks/R1-01/card')
  expect(body).toMatchObject({ tankCode: 'R1-01', measured: { tempC: null, ph: null }, kinds: [{ species: 'Cherry barb', quantity: 10, origin: null, held: null, ateBefore: 'granules' }] })
  const card = takeAlongCard({ room: body.room, packedAt: '2031-05-04T09:00:00Z', packedLocal: '4 May', water: body.measured, lines: body.kinds.map((kind: object) => ({ ...kind, count: 2, bags: 1 })) })
  expect(card.text.join('\n')).not.toContain('Our water')
  expect(card.text).toContain('Held here: not held')
  expect((await room.get('/api/tanks/Z9-99/card')).status).toBe(404)
})

test('a hold that was served to its end is not said to have been longer than it is', async () => {
  const tank = room.tanks[3]
  const openedAtMs = testNowMs - 40 * 86_400_000
  const crate = await crateOf((await create([{ ...line('Zebra danio', 6), tankId: tank?.id }], null, { packedAtMs: openedAtMs - 86_400_000 })).body.id)
  await room.post(`/api/crates/${crate.id}/bags`, { ...plainBag(crate.bags.map(({ id }) => id), 6), happenedAtMs: openedAtMs })
  await room.post(`/api/crates/${crate.id}/placements`, { tankId: null, happenedAtMs: openedAtMs })
  expect((await room.get(`/api/tanks/${tank?.code}/card`)).body.kinds).toMatchObject([{ held: { days: 14, of: 14 } }])
})

test('a lot that turns out to be another kind leaves its pool with the fish that are booked', async () => {
  const tank = room.tanks[2]
  await room.addFish(tank, 'Zebra danio', 9)
  const crate = await crateOf((await create([{ ...line('Zebra danio', 6), tankId: tank?.id }], null, { packedAtMs: packedAtMs + 3 })).body.id)
  await room.post(`/api/crates/${crate.id}/bags`, plainBag(crate.bags.map(({ id }) => id), 6))
  await room.post(`/api/crates/${crate.id}/placements`, { tankId: null, happenedAtMs: testNowMs })
  const stock = async () => (await room.get(`/api/tanks/${tank?.code}`)).body.stock as { species: string; speciesId: string; quantity: number; expected: number }[]
  const speciesId = (await stock())[0]?.speciesId
  const lose = (quantity: number) => room.post(`/api/tanks/${tank?.id}/losses`, { speciesId, quantity, cause: 'found dead', note: null, happenedAtMs: testNowMs })
  const { body } = await lose(3)
  const of = (await crateOf(crate.id)).lines[0]
  await room.put(`/api/crates/${crate.id}/lines/${of?.id}/identity`, { species: 'Pearl danio', identity: 'sure', strain: null, version: of?.version })
  const now = await stock()
  expect(new Set(now.map(({ species }) => species)).size).toBe(2)
  for (const { quantity, expected } of now) expect(expected).toBe(quantity * 1_000_000)
  expect(now.reduce((sum, { quantity }) => sum + quantity, 0)).toBe(12)
  // What was taken for one kind then cannot be taken back as one.
  expect((await room.post(`/api/movements/${body.movementIds[0]}/reversal`, { reason: null, happenedAtMs: testNowMs })).body.detail).toContain('known to be several now')
  expect((await lose(1)).status).toBe(201)
})
