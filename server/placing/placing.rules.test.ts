import { afterEach, beforeEach, describe, expect, test } from '@jest/globals'
import request from 'supertest'
import { figureInputs } from '../../core/bench/bagFigures'
import type { BenchSubject } from '../../core/bench/benchView'
import type { CrateView } from '../../core/crates/crateView'
import { newKey, createTestRoom, plainBag, testNowMs, type TestRoom, type TestTank } from '../testing/testRoom'

// A rule that holds only where the suggestion is made is no rule: every way into a tank is tried against every hard rule.
let room: TestRoom
beforeEach(async () => {
  bagPpt = null
  room = await createTestRoom({ tankCount: 1, sharing: 'one water' })
})
afterEach(() => {
  expect(room.faults()).toEqual([])
  room.db.close()
})

/** What the bags of a test read. */
let bagPpt: number | null = null

interface Answer {
  status: number
  body: { code?: string; detail?: string; errors?: { path: string; message: string }[]; current?: { rules: { code: string; why: string }[]; mayOverrule: boolean } } & Record<string, unknown>
}
const post = (path: string, body: object): Promise<Answer> => room.post(path, body) as unknown as Promise<Answer>
const put = (path: string, body: object): Promise<Answer> => room.put(path, body) as unknown as Promise<Answer>
const happenedAtMs = testNowMs

/** Tanks of their own water; system and tank as they are set up. */
async function makeTanks(rack: string, water: string, { tankCount = 1, system = {}, tank = {} }: { tankCount?: number; system?: object; tank?: object } = {}): Promise<TestTank[]> {
  const made = await room.post('/api/systems', { name: `System ${rack}`, water, sharing: 'each its own', sumpL: null, rack, tankCount, perShelf: 4, tankKind: 'glass', netVolumeL: null })
  await edit('systems', String(made.body.systemId), system)
  for (const { id } of made.body.tanks as TestTank[]) await edit('tanks', id, tank)
  return made.body.tanks as TestTank[]
}
async function edit(register: string, id: string, values: object): Promise<void> {
  if (Object.keys(values).length === 0) return
  const { rows } = (await room.get(`/api/setup/${register}`)).body as { rows: { id: string; version: number; values: object }[] }
  const row = rows.find((each) => each.id === id)
  expect((await put(`/api/setup/${register}/${id}`, { version: row?.version, values: { ...row?.values, ...values } })).status).toBe(200)
}

interface Scene {
  species: string
  count: number
  /** The tank that the rule is against. */
  target: TestTank
}
interface Case {
  rule: string
  /** Water that the fish may wait in. */
  water: string
  prepare: () => Promise<Scene>
}
const residents = async (tank: TestTank | undefined, species: string, quantity = 1): Promise<void> => void (await room.addFish(tank, species, quantity))
const tankOf = async (...asked: Parameters<typeof makeTanks>): Promise<TestTank> => (await makeTanks(...asked))[0] as TestTank

async function withCopper(tank: TestTank): Promise<TestTank> {
  expect((await post(`/api/tanks/${tank.id}/found-agents`, { agent: 'copperIonic', happenedAtMs })).status).toBe(201)
  return tank
}

/** A tank of fresh water in which somebody lives, and who comes. */
const livesThere = (resident: string, residentCount: number, species: string, count: number) => async (): Promise<Scene> => {
  const target = await tankOf('T1', 'fresh')
  await residents(target, resident, residentCount)
  return { species, count, target }
}

const cases: Case[] = [
  { rule: 'salinity', water: 'marine', prepare: async () => ({ species: 'Royal gramma', count: 1, target: await tankOf('T1', 'fresh', { system: { salinityPpt: 0.3 } }) }) },
  { rule: 'water-kind', water: 'marine', prepare: async () => ({ species: 'Royal gramma', count: 1, target: await tankOf('T1', 'fresh') }) },
  { rule: 'temperature', water: 'fresh', prepare: async () => ({ species: 'White cloud minnow', count: 6, target: await tankOf('T1', 'fresh', { system: { tempC: 29 } }) }) },
  { rule: 'agent', water: 'fresh', prepare: async () => ({ species: 'Amano shrimp', count: 6, target: await withCopper(await tankOf('T1', 'fresh')) }) },
  { rule: 'not-clean', water: 'fresh', prepare: async () => ({ species: 'Cherry barb', count: 6, target: await tankOf('T1', 'fresh', { tank: { state: 'not clean after illness' } }) }) },
  { rule: 'customer-tank', water: 'fresh', prepare: async () => ({ species: 'Cherry barb', count: 6, target: await tankOf('T1', 'fresh', { tank: { purpose: 'customer' } }) }) },
  { rule: 'too-small', water: 'fresh', prepare: async () => ({ species: 'Congo tetra', count: 1, target: await tankOf('T1', 'fresh', { tank: { netVolumeL: 12 } }) }) },
  { rule: 'overload', water: 'fresh', prepare: async () => ({ species: 'Cherry barb', count: 140, target: await tankOf('T1', 'fresh', { tank: { netVolumeL: 30 } }) }) },
  { rule: 'eats', water: 'fresh', prepare: livesThere('Oscar', 1, 'Cherry barb', 6) },
  { rule: 'hunts', water: 'fresh', prepare: livesThere('Pea puffer', 1, 'Nerite snail', 4) },
  { rule: 'own-kind', water: 'fresh', prepare: livesThere('Siamese fighter', 1, 'Siamese fighter', 1) },
  { rule: 'no-common', water: 'fresh', prepare: livesThere('White cloud minnow', 6, 'Discus', 6) },
  { rule: 'poisons', water: 'marine', prepare: async () => ({ species: poisoner, count: 1, target: await sharedMarine() }) },
  {
    rule: 'held-there',
    water: 'fresh',
    prepare: async () => {
      const target = await tankOf('T1', 'fresh')
      const made = await room.post('/api/crates', { supplier: 'Brackwater Nurseries', expectedAtMs: null, packedAtMs: null, lines: [{ species: 'Cherry barb', count: 6, bags: 1, perBag: null, tankId: target.id }] })
      const crate = (await room.get(`/api/crates/${made.body.id}`)).body as CrateView
      await post(`/api/crates/${crate.id}/bags`, plainBag(crate.bags.map(({ id }) => id), 6))
      expect((await post(`/api/crates/${crate.id}/placements`, { tankId: target.id, happenedAtMs })).body).toEqual({ placed: 6, left: 0 })
      return { species: 'Cherry barb', count: 6, target }
    },
  },
  {
    rule: 'plan-place-ready',
    water: 'marine',
    prepare: async () => {
      const target = await tankOf('T1', 'marine', { system: { salinityPpt: 34, tempC: 25 } })
      const crate = await opened('Firefish', 1, null)
      const body = await runBody(crate, target, { schoolKey: 'matched' })
      body.figures = { ...body.figures, preparedPpt: 28, preparedC: 25, measuredPpt: 28 }
      expect((await post('/api/bench/runs', { ...body, tankId: target.id })).body).toMatchObject({ number: 1 })
      return { species: 'Banggai cardinalfish', count: 1, target }
    },
  },
]
const poisoner = 'Longhorn cowfish'
async function sharedMarine(): Promise<TestTank> {
  const made = await room.post('/api/systems', { name: 'Shared', water: 'marine', sharing: 'one water', sumpL: null, rack: 'T1', tankCount: 2, perShelf: 4, tankKind: 'glass', netVolumeL: null })
  return (made.body.tanks as TestTank[])[0] as TestTank
}

/** A crate of one line of one bag, opened; planned for a tank or for none. */
async function opened(species: string, count: number, tank: TestTank | null): Promise<CrateView> {
  const crate = (await room.crateOf([[species, count, 1, tank]])) as CrateView
  await post(`/api/crates/${crate.id}/bags`, { ...plainBag(crate.bags.map(({ id }) => id), count), waterTempC: 24, salinityPpt: bagPpt })
  return crate
}
async function runBody(crate: CrateView, tank: TestTank, more: object = {}) {
  const subject = (await room.get(`/api/bench/subject?line=${crate.lines[0]?.id}&tank=${tank.id}`)).body as BenchSubject
  return {
    ...{ kind: 'acclimation', schoolKey: 'siphon', agentId: null, tankId: tank.id as string | null, toOutside: null, isPooled: true, vessel: 'bucket', vesselL: 900, dropsPerMl: 20, isDark: false, sentence: null, predicted: null, happenedAtMs },
    sources: subject.sources.map(({ placeId, lotId, quantity }) => ({ placeId, lotId, quantity })),
    figures: Object.fromEntries(figureInputs.map(({ name }) => [name, subject.figures[name]?.value ?? null])) as Record<string, number | null>,
    words: subject.words,
    ...more,
  }
}
/** A run whose fish stand in its vessel, on the way to a tank that bears them. */
async function inVessel(species: string, count: number, away: TestTank): Promise<{ id: string; lotId: string; stepIndex: number }> {
  const crate = await opened(species, count, null)
  const { id } = (await post('/api/bench/runs', await runBody(crate, away))).body as { id: string }
  const { plan, sources } = (await room.get(`/api/bench/runs/${id}`)).body as { plan: { steps: { countsOut: boolean }[] }; sources: { lotId: string }[] }
  const stepIndex = plan.steps.findIndex(({ countsOut }) => countsOut)
  for (let index = 0; index < stepIndex; index += 1) await post(`/api/bench/runs/${id}/steps`, { stepIndex: index, happenedAtMs })
  return { id, lotId: sources[0]?.lotId ?? '', stepIndex }
}
/** Plans a line for the tank as if the rule had come after the plan, as rules do. */
const planAsIf = (lineId: string | undefined, tank: TestTank | null): void => void room.db.raw.prepare('UPDATE line SET tank_id = ? WHERE id = ?').run([tank?.id ?? null, lineId ?? ''])

type Path = (scene: Scene, away: TestTank, against: object) => Promise<Answer>
const head = { supplier: 'Hollow Reed Hatchery', expectedAtMs: null, packedAtMs: null }
/** Every way into a tank; `against` is what somebody says against a refusal. */
const paths: Record<string, Path> = {
  'create by hand': ({ species, count, target }, _, against) => post('/api/crates', { ...head, lines: [{ species, count, bags: 1, perBag: null, tankId: target.id, ...against }] }),
  async import({ species, count, target }, _, against) {
    const read = await request(room.app).post('/api/packing-lists/read?supplier=&columns=').set('Cookie', room.cookie).set('X-Recording', room.leadId).set('Content-Type', 'application/octet-stream').send(Buffer.from(`species,count,bags,tank\n${species},${count},1,${target.code}\n`))
    const { row: __, isNewSpecies: ___, couldBe: ____, ...line } = (read.body as { lines: Record<string, unknown>[] }).lines[0] ?? {}
    return post('/api/crates', { ...head, lines: [{ ...line, ...against }] })
  },
  async 'a line added'({ species, count, target }, _, against) {
    const crate = await room.crateOf([['Cherry barb', 1, 1, null]])
    return post(`/api/crates/${crate.id}/lines`, { species, count, bags: 1, perBag: null, tankId: target.id, ...against })
  },
  async edit({ species, count, target }, _, against) {
    const crate = (await room.crateOf([[species, count, 1, null]])) as CrateView
    return put(`/api/crates/${crate.id}/lines/${crate.lines[0]?.id}`, { species, count, bags: 1, perBag: null, tankId: target.id, version: 1, ...against })
  },
  async 'tank of a line'({ species, count, target }, _, against) {
    const crate = (await room.crateOf([[species, count, 1, null]])) as CrateView
    return put(`/api/crates/${crate.id}/lines/${crate.lines[0]?.id}/tank`, { tankId: target.id, version: 1, ...against })
  },
  async 'a whole plan'({ species, count, target }, _, against) {
    const crate = (await room.crateOf([[species, count, 1, null]])) as CrateView
    return put(`/api/crates/${crate.id}/tank-choice`, { choices: [{ lineId: crate.lines[0]?.id, tankId: target.id, version: 1, ...against }] })
  },
  async 'place one tank'({ species, count, target }, _, against) {
    const crate = await opened(species, count, null)
    planAsIf(crate.lines[0]?.id, target)
    const answer = await post(`/api/crates/${crate.id}/placements`, { tankId: target.id, happenedAtMs, ...against })
    planAsIf(crate.lines[0]?.id, null)
    return answer
  },
  async 'place all'({ species, count, target }, _, against) {
    const crate = await opened(species, count, null)
    planAsIf(crate.lines[0]?.id, target)
    const answer = await post(`/api/crates/${crate.id}/placements`, { tankId: null, happenedAtMs, ...against })
    planAsIf(crate.lines[0]?.id, null)
    return answer
  },
  async 'bench target'({ species, count, target }, away, against) {
    const crate = await opened(species, count, null)
    return post('/api/bench/runs', { ...(await runBody(crate, away)), tankId: target.id, ...against })
  },
  async 'count out'({ species, count, target }, away, against) {
    const run = await inVessel(species, count, away)
    const answer = await post(`/api/bench/runs/${run.id}/count`, { stepIndex: run.stepIndex, counts: [{ lotId: run.lotId, alive: count, dead: 0 }], tankId: target.id, look: 'as expected', cause: 'unknown', note: null, happenedAtMs, ...against })
    if (answer.status >= 400) await post(`/api/bench/runs/${run.id}/stop`, { because: 'tried', tankId: away.id, happenedAtMs })
    return answer
  },
  async 'end a run'({ species, count, target }, away, against) {
    const run = await inVessel(species, count, away)
    const answer = await post(`/api/bench/runs/${run.id}/stop`, { because: 'the bucket leaks', tankId: target.id, happenedAtMs, ...against })
    if (answer.status >= 400) await post(`/api/bench/runs/${run.id}/stop`, { because: 'tried', tankId: away.id, happenedAtMs })
    return answer
  },
  async move({ species, count, target }, away, against) {
    const lotId = await room.addFish(away, species, count)
    return post(`/api/tanks/${away.id}/moves`, { lotId, quantity: count, toTankId: target.id, note: null, happenedAtMs, ...against })
  },
}

describe.each(cases)('$rule', ({ rule, water, prepare }) => {
  test('is refused on every path with the same code and the same words, and passes on each with a lead’s reason', async () => {
    bagPpt = water === 'fresh' ? 0.3 : null
    const scene = await prepare()
    // Each path waits in a tank of its own, so that one does not meet the fish of another.
    const aways = await makeTanks('A1', water, { tankCount: Object.keys(paths).length * 2 })
    const said = new Map<string, { code: string | undefined; rules: unknown; detail: string | undefined; path: string | undefined }>()
    const names = Object.keys(paths)
    for (const [nth, name] of names.entries()) {
      const { body } = await paths[name]!(scene, aways[nth] as TestTank, {})
      said.set(name, { code: body.code, rules: body.current?.rules, detail: body.detail, path: body.errors?.[0]?.path })
    }
    const first = said.get('tank of a line')
    expect([first?.code, (first?.rules as { code: string }[] | undefined)?.map(({ code }) => code)]).toEqual(['breaks-rule', expect.arrayContaining([rule])])
    for (const [name, { path, ...answer }] of said) {
      const { path: __, ...expected } = first!
      expect({ name, ...answer, isBesideTank: /ankId$/.test(path ?? '') }).toEqual({ name, ...expected, isBesideTank: true })
    }
    for (const [nth, name] of names.entries()) {
      // What one path let in must not be what the next one is refused for.
      if (name === 'place all') continue
      const { status } = await inTry(() => paths[name]!(scene, aways[names.length + nth] as TestTank, { override: 'the lead has seen it' }))
      expect([name, status < 300]).toEqual([name, true])
    }
  })
})

/** Does something and takes the database back to where it was. */
async function inTry<T>(work: () => Promise<T>): Promise<T> {
  const answer = await work()
  // The fish that were let in leave again, so that the tank is as the next path expects it.
  room.db.raw.exec('UPDATE crate SET closed_at_ms = 1 WHERE closed_at_ms IS NULL')
  room.db.raw.exec('UPDATE run SET ended_at_ms = 1 WHERE ended_at_ms IS NULL AND number > 1')
  return answer
}

test('fish of which nobody knows the water: refused everywhere, a lead’s reason does not help, a word does', async () => {
  const scene = { species: 'Grey lampeye', count: 3, target: room.tanks[0] as TestTank }
  const aways = await makeTanks('A1', 'fresh', { tankCount: 8 })
  const words = 'Grey lampeye must not go to R1-01: nobody has said which water Grey lampeye lives in. Say first whether it lives in fresh, brackish or sea water.'
  for (const [nth, name] of ['create by hand', 'tank of a line', 'a whole plan', 'place one tank', 'bench target', 'move'].entries()) {
    const { body } = await paths[name]!(scene, aways[nth] as TestTank, { override: 'it will do' })
    expect([name, body.code, body.detail, body.current?.mayOverrule]).toEqual([name, 'breaks-rule', words, false])
  }
  const crate = (await room.crateOf([[scene.species, 3, 1, null]])) as CrateView
  const { lotId, id } = crate.lines[0]!
  expect((await put('/api/lots/water', { lotIds: [lotId], water: 'fresh' })).status).toBe(200)
  expect((await put(`/api/crates/${crate.id}/lines/${id}/tank`, { tankId: scene.target.id, version: 1 })).status).toBe(200)
  // Said otherwise, the tank is wrong again; what the book says nobody says over.
  await put('/api/lots/water', { lotIds: [lotId], water: 'marine' })
  await post(`/api/crates/${crate.id}/bags`, plainBag(crate.bags.map((bag) => bag.id), 3))
  expect((await post(`/api/crates/${crate.id}/placements`, { tankId: scene.target.id, happenedAtMs })).body.current?.rules).toEqual([{ code: 'water-kind', why: 'fresh water, needs marine' }])
  const barbs = (await room.crateOf([['Cherry barb', 3, 1, null]])) as CrateView
  expect((await put('/api/lots/water', { lotIds: [barbs.lines[0]!.lotId], water: 'marine' })).body).toMatchObject({ code: 'conflict' })
})

describe('who may go on against a rule', () => {
  let keeper: string
  beforeEach(async () => {
    await post('/api/staff', { name: 'Oona', role: 'keeper', pin: '2222', passphrase: null })
    const { staff } = (await room.get('/api/session')).body as { staff: { id: string; name: string }[] }
    keeper = staff.find(({ name }) => name === 'Oona')?.id ?? ''
    await request(room.app).post('/api/session/recording').set('Cookie', room.cookie).send({ staffId: keeper, pin: '2222' })
  })
  const asKeeper = (path: string, body: object): Promise<Answer> => room.post(path, body, { key: newKey(), staffId: keeper }) as unknown as Promise<Answer>

  test('a keeper plans nothing against it; in distress fish go all the same, and a lead looks at it later', async () => {
    const [target, away] = [await tankOf('T1', 'fresh'), await tankOf('A1', 'fresh')]
    await residents(target, 'Oscar')
    const lotId = await room.addFish(away, 'Cherry barb', 6)
    const move = (against: object): Promise<Answer> => asKeeper(`/api/tanks/${away.id}/moves`, { lotId, quantity: 6, toTankId: target.id, note: null, happenedAtMs, ...against })
    expect((await move({ override: 'it will do' })).body.detail).toBe('Cherry barb must not go to T1-01: Oscar eats Cherry barb. A lead may decide it all the same, with a reason.')
    expect((await asKeeper('/api/crates', { ...head, lines: [{ species: 'Cherry barb', count: 6, bags: 1, perBag: null, tankId: target.id, override: 'it will do' }] })).body.code).toBe('breaks-rule')
    room.clock.nowMs += 11 * 60_000
    const asLead = request(room.app).post(`/api/tanks/${away.id}/moves`).set('Cookie', room.cookie).set('X-Recording', room.leadId).set('Idempotency-Key', newKey())
    expect((await asLead.send({ lotId, quantity: 6, toTankId: target.id, note: null, happenedAtMs, override: 'on the word of a tablet left open' })).body.code).toBe('unidentified')
    expect((await move({ override: 'the tank is leaking', isRescue: true })).status).toBe(201)
    const rescues = async () => ((await room.get('/api/today')).body as { rescues: { key: string }[] }).rescues
    expect(await rescues()).toMatchObject([{ species: 'Cherry barb', tankCode: 'T1-01', reason: 'the tank is leaking', rules: 'Oscar eats Cherry barb', staffName: 'Oona' }])
    const [rescue] = await rescues()
    expect((await asKeeper(`/api/rescues/${rescue?.key}/seen`, {})).body.code).toBe('not-allowed')
    expect((await post(`/api/rescues/${rescue?.key}/seen`, {})).status).toBe(201)
    expect(await rescues()).toEqual([])
    expect((await post(`/api/rescues/${rescue?.key}/seen`, {})).body.code).toBe('conflict')
  })

  test('what a lead decided for a plan holds when a keeper places the fish; a rule that came since is asked anew', async () => {
    const target = await tankOf('T1', 'fresh')
    await residents(target, 'Oscar')
    const made = await post('/api/crates', { ...head, lines: [{ species: 'Cherry barb', count: 6, bags: 2, perBag: null, tankId: target.id, override: 'the oscar leaves at noon' }] })
    const crate = (await room.get(`/api/crates/${String(made.body.id)}`)).body as CrateView
    const place = (): Promise<Answer> => asKeeper(`/api/crates/${crate.id}/placements`, { tankId: target.id, happenedAtMs })
    for (const bag of crate.bags) await asKeeper(`/api/crates/${crate.id}/bags`, plainBag([bag.id], 3))
    await edit('tanks', target.id, { state: 'out of order' })
    expect((await place()).body.current?.rules).toEqual([{ code: 'not-clean', why: 'out of order' }])
    await edit('tanks', target.id, { state: 'ready' })
    // The oscar was decided on, another mouth was not.
    await residents(target, 'Pictus catfish')
    expect((await place()).body.current?.rules).toEqual([{ code: 'eats', why: 'Pictus catfish eats Cherry barb' }])
    expect((await post(`/api/crates/${crate.id}/placements`, { tankId: target.id, override: 'both leave at noon', happenedAtMs })).body).toEqual({ placed: 6, left: 0 })
  })
})

test('what a lead decided against is kept with its values: it is read in the units of the day, and holds in them', async () => {
  const target = await tankOf('T1', 'fresh', { system: { tempC: 29 } })
  const crate = { ...head, lines: [{ species: 'White cloud minnow', count: 6, bags: 2, perBag: null, tankId: target.id, override: null as string | null }] }
  const refusal = async (): Promise<string> => String((await post('/api/crates', crate)).body.detail)
  expect(await refusal()).toContain('29 °C, outside 16 °C to 23 °C by 6.0 °C')
  const made = await post('/api/crates', { ...crate, lines: crate.lines.map((line) => ({ ...line, override: 'it cools tonight' })) })
  expect((await put('/api/room/settings', { name: 'Room', timeZone: 'UTC', temperatureUnit: '°F', volumeUnit: 'gal', salinityUnit: 'SG', sgReference: '25/25', version: 1 })).status).toBe(200)
  expect(await refusal()).toContain('84.2 °F, outside 60.8 °F to 73.4 °F by 10.8 °F')
  const audit = await request(room.app).get('/api/audit').set('Cookie', room.cookie).set('X-Recording', room.leadId)
  expect(audit.text).toContain('84.2 °F, outside')
  const view = (await room.get(`/api/crates/${made.body.id}`)).body as CrateView
  await post(`/api/crates/${view.id}/bags`, { ...plainBag(view.bags.map(({ id }) => id), 3), waterTempC: 24 })
  expect((await post(`/api/crates/${view.id}/placements`, { tankId: target.id, happenedAtMs })).body).toEqual({ placed: 6, left: 0 })
})

test('fish that were eaten make a tank quarrelsome, and no more when that was taken back', async () => {
  const target = await tankOf('T1', 'fresh')
  const lotId = await room.addFish(target, 'Cherry barb', 6)
  const lost = (await post(`/api/tanks/${target.id}/losses`, { lotId, quantity: 2, cause: 'eaten', note: null, happenedAtMs })).body as { movementIds: string[] }
  const crate = (await room.crateOf([['Cherry barb', 6, 2, null]])) as CrateView
  const fights = async (): Promise<number> => ((await room.get(`/api/crates/${crate.id}/tank-choice`)).body as { input: { tanks: { id: string; fights: number }[] } }).input.tanks.find(({ id }) => id === target.id)?.fights ?? -1
  expect(await fights()).toBe(1)
  await post(`/api/movements/${lost.movementIds[0]}/reversal`, { reason: 'behind the filter', happenedAtMs })
  expect(await fights()).toBe(0)
})

describe('reserved', () => {
  test('the target of a run is taken for other plans and moves: its fish are company before they stand there', async () => {
    const target = await tankOf('T1', 'fresh')
    const crate = await opened('Siamese fighter', 1, null)
    await post('/api/bench/runs', await runBody(crate, target))
    const other = (await room.crateOf([['Siamese fighter', 1, 1, null]])) as CrateView
    const refused = await put(`/api/crates/${other.id}/lines/${other.lines[0]?.id}/tank`, { tankId: target.id, version: 1 })
    expect(refused.body.current?.rules).toContainEqual({ code: 'own-kind', why: 'Siamese fighter fights its own kind (run 1)' })
    const away = await tankOf('A1', 'fresh')
    const lotId = await room.addFish(away, 'Siamese fighter', 1)
    expect((await post(`/api/tanks/${away.id}/moves`, { lotId, quantity: 1, toTankId: target.id, note: null, happenedAtMs })).body.current?.rules).toContainEqual({ code: 'own-kind', why: 'Siamese fighter fights its own kind (run 1)' })
    expect((await room.get('/api/tanks/T1-01')).body.bookings).toMatchObject([{ plan: 'run 1', takes: 'share', isReady: true, fish: [{ species: 'Siamese fighter', quantity: 1 }] }])
    expect((await room.get('/api/room')).body.tanks.find(({ code }: TestTank) => code === 'T1-01').bookings).toHaveLength(1)
  })

  test('another crate’s plan counts for plans, not for fish in the hand', async () => {
    const target = await tankOf('T1', 'fresh')
    await room.crateOf([['Siamese fighter', 1, 1, target]])
    const other = (await room.crateOf([['Siamese fighter', 1, 1, null]])) as CrateView
    expect((await put(`/api/crates/${other.id}/lines/${other.lines[0]?.id}/tank`, { tankId: target.id, version: 1 })).body.current?.rules).toContainEqual({ code: 'own-kind', why: 'Siamese fighter fights its own kind (crate 1)' })
    const away = await tankOf('A1', 'fresh')
    const lotId = await room.addFish(away, 'Siamese fighter', 1)
    expect((await post(`/api/tanks/${away.id}/moves`, { lotId, quantity: 1, toTankId: target.id, note: null, happenedAtMs })).status).toBe(201)
  })

  test('the fish of a plan do not stand in their own way, also beside another line of their crate', async () => {
    const target = await tankOf('T1', 'fresh')
    const crate = (await room.crateOf([['Siamese fighter', 1, 1, target], ['Kuhli loach', 6, 1, target]])) as CrateView
    for (const bag of crate.bags) await post(`/api/crates/${crate.id}/bags`, { ...plainBag([bag.id], bag.listed), waterTempC: 24 })
    expect((await post('/api/bench/runs', await runBody({ ...crate, lines: [crate.lines[0]!] }, target))).status).toBe(201)
    expect((await post(`/api/crates/${crate.id}/placements`, { tankId: target.id, happenedAtMs })).body).toEqual({ placed: 6, left: 0 })
  })

  test('no run changes the water of a tank that others count on, share or stand in; lines of one crate share what was made for them', async () => {
    const [first, second] = await makeTanks('T1', 'marine', { tankCount: 2, system: { salinityPpt: 34, tempC: 25 } })
    const prepared = async (crate: CrateView, tank: TestTank | undefined): Promise<Answer> => {
      const body = await runBody(crate, tank as TestTank, { schoolKey: 'matched' })
      return post('/api/bench/runs', { ...body, figures: { ...body.figures, preparedPpt: 28, preparedC: 25, measuredPpt: 28 } })
    }
    await post('/api/bench/runs', await runBody(await opened('Royal gramma', 1, null), first as TestTank))
    expect((await prepared(await opened('Firefish', 1, null), first)).body).toMatchObject({ code: 'breaks-rule', current: { rules: [{ code: 'plan-water', why: 'run 1 counts on it as it is' }] } })
    expect((await prepared(await opened(poisonFree, 1, null), await sharedMarineAt('S1'))).body.current?.rules).toEqual([{ code: 'plan-water', why: 'other tanks hang on its water' }])
    const crate = (await room.crateOf([['Firefish', 1, 1, null], ['Royal gramma', 1, 1, null]])) as CrateView
    for (const bag of crate.bags) await post(`/api/crates/${crate.id}/bags`, { ...plainBag([bag.id], bag.listed), waterTempC: 24 })
    const lineOf = (index: number): CrateView => ({ ...crate, lines: [crate.lines[index]!] })
    expect((await prepared(lineOf(0), second)).status).toBe(201)
    expect((await prepared(lineOf(1), second)).status).toBe(201)
    expect((await prepared(await opened(poisonFree, 1, null), second)).body.current?.rules[0]).toEqual({ code: 'plan-place-ready', why: 'run 2 is ready to use this tank' })
  })
  const poisonFree = 'Banggai cardinalfish'
  async function sharedMarineAt(rack: string): Promise<TestTank> {
    const made = await room.post('/api/systems', { name: rack, water: 'marine', sharing: 'one water', sumpL: null, rack, tankCount: 2, perShelf: 4, tankKind: 'glass', netVolumeL: null })
    await edit('systems', String(made.body.systemId), { salinityPpt: 34, tempC: 25 })
    return (made.body.tanks as TestTank[])[0] as TestTank
  }
})
