import { afterAll, beforeAll, expect, test } from '@jest/globals'
import type { MoveCheckView } from '../../core/moves/moveView'
import { createTestRoom, plainBag, testNowMs, type TestRoom } from '../testing/testRoom'

let room: TestRoom
beforeAll(async () => {
  room = await createTestRoom({ tankCount: 10, sharing: 'each its own' })
})
afterAll(() => expect(room.faults()).toEqual([]))

const tank = (nth: number) => room.tanks[nth - 1]
const kindIn = async (nth: number, species: string) => {
  const { stock } = (await room.get(`/api/tanks/${tank(nth)?.code}`)).body as { stock: { species: string; speciesId: string; strain: string | null }[] }
  const row = stock.find((each) => each.species === species)
  return { speciesId: row?.speciesId ?? '', strain: row?.strain ?? null }
}
const check = async (from: number, to: number, fish: { species: string; quantity: number }[], more = ''): Promise<MoveCheckView> => {
  const list = await Promise.all(fish.map(async ({ species, quantity }) => ({ ...(await kindIn(from, species)), quantity })))
  return (await room.get(`/api/tanks/${tank(from)?.id}/move-check?to=${tank(to)?.id}&fish=${encodeURIComponent(JSON.stringify(list))}${more}`)).body
}
const said = ({ lines }: MoveCheckView): string[] => lines.map(({ level, words }) => `${level}: ${words}`)

test('a fish that has stood here for long may have grown: it is asked of its grown mouth', async () => {
  await room.addFish(tank(1), 'Oscar', 1)
  await room.addFish(tank(2), 'Clown loach', 5)
  const view = await check(1, 2, [{ species: 'Oscar', quantity: 1 }])
  expect(view.verdict).toBe('lead')
  expect(said(view)).toContain('lead: Oscar swallows Clown loach.')
})

test('of several lots that nobody can tell apart, the hold of any of them counts; a free lot alone is not held', async () => {
  await room.addFish(tank(3), 'Cherry barb', 8)
  const crate = await room.crateOf([['Cherry barb', 6, 1, tank(3) ?? null]])
  await room.post(`/api/crates/${crate.id}/bags`, plainBag(crate.bags.map(({ id }: { id: string }) => id), 6))
  await room.post(`/api/crates/${crate.id}/placements`, { tankId: null, happenedAtMs: testNowMs })
  await room.addFish(tank(4), 'Kuhli loach', 8)
  const view = await check(3, 4, [{ species: 'Cherry barb', quantity: 6 }])
  expect(said(view).filter((words) => words.startsWith('lead'))).toEqual([expect.stringMatching(/^lead: lot \S+: day 1 of 14\.$/)])
  expect(view.lines.map(({ code }) => code)).toEqual(expect.arrayContaining(['hold-open', 'shares']))
  // Into a tank of its own water where nobody stands, the hold goes on.
  expect((await check(3, 5, [{ species: 'Cherry barb', quantity: 6 }])).lines.map(({ code }) => code)).not.toContain('hold-open')
})

test('two kinds at once weigh together; a net that was elsewhere is said', async () => {
  await room.addFish(tank(6), 'Fancy goldfish', 10)
  await room.addFish(tank(6), 'White cloud minnow', 30)
  const { body: set } = await room.post('/api/setup/toolSets', { values: { name: 'green', zoneId: null, marking: null, note: null } })
  await room.addFish(tank(7), 'Cherry barb', 6)
  await room.post(`/api/tools/${set.id}/uses`, { tankId: tank(7)?.id, note: null, happenedAtMs: testNowMs })
  const view = await check(6, 8, [{ species: 'Fancy goldfish', quantity: 10 }, { species: 'White cloud minnow', quantity: 30 }], `&tools=${set.id}`)
  expect(view.points).toBeGreaterThan(0)
  expect(view.looks).toEqual({ from: [], to: [60, 1440] })
  expect(view.lines.map(({ code }) => code)).not.toContain('tools-zone')
})

test('what cannot be is said beside its field', async () => {
  const at = (query: string) => room.get(`/api/tanks/${tank(1)?.id}/move-check?${query}`)
  const kind = await kindIn(1, 'Oscar')
  const fish = (quantity: number): string => encodeURIComponent(JSON.stringify([{ ...kind, quantity }]))
  expect((await at(`to=${tank(2)?.id}&fish=${fish(5)}`)).body.errors).toMatchObject([{ path: 'fish[0].quantity', message: 'Only 1 of these stand in this tank now' }])
  expect((await at(`to=nowhere&fish=${fish(1)}`)).body.errors).toMatchObject([{ path: 'toTankId' }])
  expect((await at('to=x&fish=[')).body.errors).toMatchObject([{ path: 'fish' }])
  expect((await at('to=x&fish=[]')).status).toBe(422)
})

test('the check is made again when the fish go: what needs a lead is refused with every rule, and goes with a reason that is kept', async () => {
  const kind = await kindIn(3, 'Cherry barb')
  const { body: set } = await room.post('/api/setup/toolSets', { values: { name: 'red', zoneId: null, marking: null, note: null } })
  const go = (more: object) => room.post(`/api/tanks/${tank(3)?.id}/moves`, { ...kind, quantity: 6, toTankId: tank(4)?.id, toolSetId: set.id, waterGoesAlong: true, note: null, happenedAtMs: testNowMs, ...more })
  const refused = await go({})
  expect([refused.body.code, refused.body.current.rules.map(({ code }: { code: string }) => code)]).toEqual(['breaks-rule', ['hold-open']])
  const done = await go({ override: 'the tank leaks' })
  expect(done.status).toBe(201)
  const trace = async () => (await room.get(`/api/contacts/trace?start=tank:${tank(3)?.id}`)).body.reached as { name: string; hops: number; chain: { kind: string; isPlanned: boolean }[] }[]
  expect((await trace()).map(({ name, hops, chain }) => [name, hops, chain.map(({ kind: of, isPlanned }) => [of, isPlanned])])).toEqual([
    ['red', 0, [['tool', true]]],
    [tank(4)?.code, 1, [[expect.stringMatching(/^(move|tool|water)$/), expect.anything()]]],
  ])
  // Taken back, the fish never went, and neither did the net.
  await room.post(`/api/movements/${done.body.movementIds[0]}/reversal`, { reason: null, happenedAtMs: testNowMs })
  expect(await trace()).toEqual([])
})
