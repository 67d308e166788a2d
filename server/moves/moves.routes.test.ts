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
  return (await room.get(`/api/move-check?from=tank:${tank(from)?.id}&to=tank:${tank(to)?.id}&fish=${encodeURIComponent(JSON.stringify(list))}${more}`)).body
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
  expect(said(view).filter((words) => words.startsWith('lead'))).toEqual([expect.stringMatching(/^lead: Lot \S+ is on day 1 of 14 of its hold\.$/)])
  expect(view.lines.map(({ code }) => code)).toEqual(expect.arrayContaining(['hold-open', 'shares']))
  // Into a tank of its own water where nobody stands, the hold goes on.
  expect((await check(3, 5, [{ species: 'Cherry barb', quantity: 6 }])).lines.map(({ code }) => code)).not.toContain('hold-open')
})

test('two kinds at once weigh together; a net that was elsewhere is said', async () => {
  await room.addFish(tank(6), 'Fancy goldfish', 10)
  await room.addFish(tank(6), 'White cloud minnow', 30)
  const { body: set } = await room.post('/api/setup/toolSets', { values: { name: 'green', zoneId: null, marking: null, netWidthCm: null, netMesh: null, note: null } })
  await room.addFish(tank(7), 'Cherry barb', 6)
  await room.post(`/api/tools/${set.id}/uses`, { tankId: tank(7)?.id, note: null, happenedAtMs: testNowMs })
  const view = await check(6, 8, [{ species: 'Fancy goldfish', quantity: 10 }, { species: 'White cloud minnow', quantity: 30 }], `&tools=${set.id}`)
  expect(view.points).toBeGreaterThan(0)
  expect(view.looks).toEqual({ from: [], to: [60, 1440] })
  expect(view.lines.map(({ code }) => code)).not.toContain('tools-zone')
})

test('what cannot be is said beside its field', async () => {
  const at = (query: string) => room.get(`/api/move-check?from=tank:${tank(1)?.id}&${query}`)
  const kind = await kindIn(1, 'Oscar')
  const fish = (quantity: number): string => encodeURIComponent(JSON.stringify([{ ...kind, quantity }]))
  expect((await at(`to=tank:${tank(2)?.id}&fish=${fish(5)}`)).body.errors).toMatchObject([{ path: 'fish[0].quantity', message: 'Only 1 of these stand here now' }])
  expect((await at(`to=tank:nowhere&fish=${fish(1)}`)).body.errors).toMatchObject([{ path: 'to' }])
  expect((await at('to=tank:x&fish=[')).body.errors).toMatchObject([{ path: 'fish' }])
  expect((await at('to=tank:x&fish=[]')).status).toBe(422)
})

test('the check is made again when the fish go: what needs a lead is refused with every rule, and goes with a reason that is kept', async () => {
  const kind = await kindIn(3, 'Cherry barb')
  const { body: set } = await room.post('/api/setup/toolSets', { values: { name: 'red', zoneId: null, marking: null, netWidthCm: null, netMesh: null, note: null } })
  const go = (more: object) => room.post(`/api/tanks/${tank(3)?.id}/moves`, { ...kind, quantity: 6, toTankId: tank(4)?.id, toolSetId: set.id, waterGoesAlong: true, note: null, happenedAtMs: testNowMs, ...more })
  const refused = await go({})
  expect([refused.body.code, refused.body.current.rules.map(({ code }: { code: string }) => code)]).toEqual(['breaks-rule', ['hold-open']])
  const done = await go({ override: 'the tank leaks' })
  expect(done.status).toBe(201)
  const trace = async (kinds: string) => ((await room.get(`/api/contacts/trace?start=tank:${tank(3)?.id}&kinds=${kinds}`)).body.reached as { name: string; hops: number; chain: { kind: string; isPlanned: boolean }[] }[]).map(({ name, hops, chain }) => [name, hops, chain.map(({ kind: of, isPlanned }) => [of, isPlanned])])
  // What went against a rule is told as such; whatever the net and the water did, they did by plan.
  expect([await trace('move'), await trace('water'), await trace('tool')]).toEqual([
    [[tank(4)?.code, 1, [['move', false]]]],
    [[tank(4)?.code, 1, [['water', true]]]],
    [['red', 0, [['tool', true]]], [tank(4)?.code, 1, [['tool', true], ['tool', true]]]],
  ])
  // Taken back, the fish never went, and neither did the net.
  await room.post(`/api/movements/${done.body.movementIds[0]}/reversal`, { reason: null, happenedAtMs: testNowMs })
  expect([await trace('move'), await trace('water'), await trace('tool')]).toEqual([[], [], []])
})

const add = async (register: string, values: object): Promise<string> => (await room.post(`/api/setup/${register}`, { values })).body.id
const vessels = async () => (await room.get('/api/vessels')).body.vessels as { id: string; name: string; tank: { code: string } | null; fish: { species: string; quantity: number }[]; limit: { binds: string; actAtMs: number } | null }[]

test('several kinds go together into a bucket and back: all or none, and the bucket says how long it bears them', async () => {
  await room.addFish(tank(9), 'Cherry barb', 8)
  await room.addFish(tank(9), 'Kuhli loach', 6)
  const bucket = await add('vessels', { name: 'B1', kind: 'bucket', litres: 20, air: 'yes', note: null })
  const [barbs, loaches] = [await kindIn(9, 'Cherry barb'), await kindIn(9, 'Kuhli loach')]
  const go = (from: object, to: object, fish: object[], more = {}) => room.post('/api/moves', { from, to, fish, toolSetId: null, waterGoesAlong: false, note: null, happenedAtMs: testNowMs, ...more })
  const [here, there] = [{ kind: 'tank', id: tank(9)?.id }, { kind: 'vessel', id: bucket }]

  const tooMany = await go(here, there, [{ ...barbs, quantity: 3 }, { ...loaches, quantity: 7 }])
  expect([tooMany.status, tooMany.body.errors]).toEqual([422, [{ path: 'fish[1].quantity', message: 'Only 6 of these stand here now' }]])
  const twice = await go(here, there, [{ ...barbs, quantity: 1 }, { ...barbs, quantity: 1 }])
  expect(twice.body.errors).toMatchObject([{ path: 'fish[1].speciesId' }])
  expect((await vessels())[0]?.fish).toEqual([])

  const chosen = [{ sex: 'female', mark: 'torn fin' }, { sex: null, mark: null }]
  const moved = await go(here, there, [{ ...barbs, quantity: 3, chosen }, { ...loaches, quantity: 2 }])
  expect(moved.status).toBe(201)
  expect(await vessels()).toMatchObject([{ name: 'B1', tank: { code: tank(9)?.code }, fish: [{ species: 'Cherry barb', quantity: 3 }, { species: 'Kuhli loach', quantity: 2 }], limit: { binds: 'time' } }])
  const { timeline } = (await room.get(`/api/tanks/${tank(9)?.code}`)).body as { timeline: { to: string; chosen: string | null; species: string }[] }
  expect(timeline.filter(({ to }) => to === 'B1').map(({ species, chosen: said }) => [species, said]).sort()).toEqual([['Cherry barb', 'female torn fin; one'], ['Kuhli loach', null]])

  // One that dies in the bucket is in the books; a vessel with fish stays in use; what is left goes into another water.
  expect((await room.post(`/api/vessels/${bucket}/losses`, { ...barbs, quantity: 1, cause: 'jumped', note: null, happenedAtMs: testNowMs })).status).toBe(201)
  expect((await room.post(`/api/setup/vessels/${bucket}/retirement`, { version: 1, isRetired: true })).body.detail).toBe('B1 holds 4 fish; move them first')
  const out = await go(there, { kind: 'tank', id: tank(10)?.id }, [{ ...barbs, quantity: 2 }, { ...loaches, quantity: 2 }])
  expect(out.status).toBe(201)
  const trace = (await room.get(`/api/contacts/trace?start=tank:${tank(10)?.id}&direction=backward`)).body.reached as { name: string; hops: number }[]
  // The bucket had the water of the tank they left: it is no water between the two.
  expect(trace.map(({ name, hops }) => [name, hops])).toEqual([[tank(9)?.code, 1]])
  // Booked last, taken back first: the fish are where they were.
  expect((await room.post(`/api/movements/${out.body.movementIds[0]}/reversal`, { reason: null, happenedAtMs: testNowMs })).status).toBe(201)
  expect((await vessels())[0]?.fish.reduce((sum, { quantity }) => sum + quantity, 0)).toBeGreaterThan(0)
})

test('a bucket that bears fish too short a while needs a lead; what was decided for it says nothing about the tank', async () => {
  const small = await add('vessels', { name: 'cup', kind: 'bucket', litres: 0.2, air: 'no', note: null })
  const kind = await kindIn(6, 'Fancy goldfish')
  const go = (more = {}) => room.post('/api/moves', { from: { kind: 'tank', id: tank(6)?.id }, to: { kind: 'vessel', id: small }, fish: [{ ...kind, quantity: 10 }], toolSetId: null, waterGoesAlong: false, note: null, happenedAtMs: testNowMs, ...more })
  const refused = await go()
  expect(refused.body.current.rules).toMatchObject([{ code: 'vessel-load', why: expect.stringMatching(/^The vessel bears them \d+ min, not 15/) }])
  expect((await go({ override: 'the tank broke' })).status).toBe(201)
})

test('lifts are counted for the day, taken back, and make the next one harder', async () => {
  const kind = await kindIn(3, 'Cherry barb')
  const read = async () => (await room.get(`/api/tanks/${tank(3)?.id}/catch?fish=${encodeURIComponent(JSON.stringify([{ ...kind, quantity: 5 }]))}`)).body.cards[0]
  const fresh = await read()
  expect(fresh).toMatchObject({ species: 'Cherry barb', tool: 'net', liftsToday: 0, liftsLeft: 5, unknown: expect.arrayContaining(['the tank front to back']) })
  const lift = () => room.post(`/api/tanks/${tank(3)?.id}/lifts`, { happenedAtMs: testNowMs })
  await lift()
  await lift()
  const tired = await read()
  expect([tired.liftsToday, tired.liftsLeft, tired.done < fresh.done]).toEqual([2, 3, true])
  await room.post(`/api/lifts/${tired.liftIds[1]}/undo`, { happenedAtMs: testNowMs })
  expect((await read()).liftsToday).toBe(1)
})

test('the house changes its rules as one object; what needs a lead always does', async () => {
  const change = (rules: string, version: number) => room.put('/api/move-rules', { rules, version })
  expect((await change('{"liftsPerDay": 4', 0)).body.errors).toMatchObject([{ path: 'rules', message: expect.stringMatching(/^This is no JSON/) }])
  expect((await change('{"levels": {"eats": "off"}}', 0)).body.errors).toMatchObject([{ path: 'rules', message: expect.stringContaining('eats always needs a lead') }])
  expect((await change('{"liftsPerDay": 4, "levels": {"shares": "off"}}', 0)).status).toBe(200)
  expect((await change('{}', 0)).body.code).toBe('stale')
  const kind = await kindIn(3, 'Cherry barb')
  const { body } = await room.get(`/api/tanks/${tank(3)?.id}/catch?fish=${encodeURIComponent(JSON.stringify([{ ...kind, quantity: 1 }]))}`)
  expect(body.cards[0].liftsLeft).toBe(3)
})

test('two kinds that fought warn of each other, less in a larger tank', async () => {
  const [oscar, loach] = [await kindIn(1, 'Oscar'), await kindIn(2, 'Clown loach')]
  const { body: fight } = await room.post(`/api/tanks/${tank(1)?.id}/fights`, { speciesAId: oscar.speciesId, speciesBId: loach.speciesId, harm: 'hurt', happenedAtMs: testNowMs })
  const codes = async () => (await check(2, 1, [{ species: 'Clown loach', quantity: 1 }])).lines.map(({ code }) => code)
  expect(await codes()).toContain('fought')
  await room.post(`/api/fights/${fight.id}/undo`, { happenedAtMs: testNowMs })
  expect(await codes()).not.toContain('fought')
})

test('a lot that is something else stands with others from then on; what it was called stays, and its tank is asked anew', async () => {
  const spare = room.tanks[9]
  await room.addFish(spare, 'Cherry barb', 2)
  await room.addFish(spare, 'White cloud minnow', 6)
  const lot = ((await room.get(`/api/tanks/${spare?.code}`)).body.stock as { lotId: string; species: string }[]).find(({ species }) => species === 'Cherry barb')?.lotId
  const name = (species: string) => room.put(`/api/lots/${lot}/name`, { species, strain: null, note: 'grew a hunter’s mouth', happenedAtMs: testNowMs })
  const renamed = await name('Oscar')
  expect(renamed.body.lines.map(({ code, level }: { code: string; level: string }) => [code, level])).toContainEqual(['eats', 'lead'])
  expect(((await room.get(`/api/tanks/${spare?.code}`)).body.stock as { species: string; quantity: number }[]).filter(({ species }) => species !== 'Kuhli loach').map(({ species, quantity }) => [species, quantity]).sort()).toEqual([['Oscar', 2], ['White cloud minnow', 6]])
  expect((await name('Oscar')).body.errors).toMatchObject([{ path: 'species', message: 'It is called so already' }])
  const names = room.db.raw.prepare('SELECT species.name, staff_id IS NULL AS isFirst FROM lot_name JOIN species ON species.id = lot_name.species_id WHERE lot_id = ? ORDER BY lot_name.recorded_at_ms, lot_name.rowid').all(lot) as { name: string; isFirst: number }[]
  expect(names.map((each) => [each.name, each.isFirst])).toEqual([['Cherry barb', 1], ['Oscar', 0]])
  await name('Cherry barb')
})

test('a fish that was missed turns up next door: it was never lost, and has met that water since', async () => {
  await room.addFish(tank(5), 'Kuhli loach', 5)
  const kind = await kindIn(5, 'Kuhli loach')
  await room.post(`/api/tanks/${tank(5)?.id}/losses`, { ...kind, quantity: 1, cause: 'not found', note: null, happenedAtMs: testNowMs - 3_600_000 })
  const found = await room.post(`/api/tanks/${tank(5)?.id}/found`, { ...kind, foundInTankId: tank(4)?.id, quantity: 1, happenedAtMs: testNowMs })
  expect(found.status).toBe(201)
  const { reached } = (await room.get(`/api/contacts/trace?start=tank:${tank(4)?.id}&direction=backward&kinds=move`)).body as { reached: { name: string; atMs: number }[] }
  expect(reached.find(({ name }) => name === tank(5)?.code)?.atMs).toBe(Math.floor((testNowMs - 3_600_000) / 60_000) * 60_000)
  // All of it is taken back as one.
  const back = await room.post(`/api/movements/${found.body.movementIds[0]}/reversal`, { isWhole: true, reason: null, happenedAtMs: testNowMs })
  expect([back.status, ((await room.get(`/api/tanks/${tank(5)?.code}`)).body.missing as { quantity: number }[])[0]?.quantity]).toEqual([201, 1])
})

test('two kinds that each find room and not together need a lead', async () => {
  const small = (await room.post('/api/systems', { name: 'Small', water: 'fresh', sharing: 'each its own', sumpL: null, rack: 'Z1', tankCount: 1, perShelf: 1, tankKind: 'glass', netVolumeL: 30 })).body.tanks[0] as { id: string }
  await room.addFish(tank(8), 'Cherry barb', 90)
  await room.addFish(tank(8), 'White cloud minnow', 70)
  const [barbs, minnows] = [await kindIn(8, 'Cherry barb'), await kindIn(8, 'White cloud minnow')]
  const go = (...fish: object[]) => room.post('/api/moves', { from: { kind: 'tank', id: tank(8)?.id }, to: { kind: 'tank', id: small.id }, fish, toolSetId: null, waterGoesAlong: false, note: null, happenedAtMs: testNowMs })
  const both = await go({ ...barbs, quantity: 80 }, { ...minnows, quantity: 60 })
  expect(both.body.current?.rules).toMatchObject([{ code: 'overload' }])
  expect((await go({ ...barbs, quantity: 80 })).status).toBe(201)
})

test('a place that nobody named, a bucket of no water: refused beside them, and nothing is kept', async () => {
  const moved = await room.post('/api/moves', { to: { kind: 'tank', id: tank(2)?.id }, fish: [{ ...(await kindIn(1, 'Oscar')), quantity: 1 }], toolSetId: null, waterGoesAlong: false, override: null, isRescue: false, note: null, happenedAtMs: testNowMs })
  expect([moved.status, moved.body.errors]).toEqual([422, [{ path: 'from', message: 'From is missing' }]])
  const vessel = await room.post('/api/setup/vessels', { values: { name: 'Bucket 9', kind: 'bucket', litres: null, air: null, note: null } })
  expect([vessel.status, vessel.body.errors]).toEqual([422, [{ path: 'values.litres', message: 'Water in it is missing' }]])
})
