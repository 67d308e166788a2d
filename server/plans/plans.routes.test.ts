import { afterEach, beforeEach, describe, expect, test } from '@jest/globals'
import request from 'supertest'
import type { PlanView } from '../../core/plans/planView'
import { createTestRoom, testNowMs, type TestRoom, type TestTank } from '../testing/testRoom'

let room: TestRoom
let oona: string
const happenedAtMs = testNowMs
beforeEach(async () => {
  room = await createTestRoom({ tankCount: 6, sharing: 'each its own' })
  await room.post('/api/setup/species/adoptions', { names: ['Cherry barb', 'Honey gourami', 'Kuhli loach'] })
  oona = (await room.post('/api/staff', { name: 'Oona', role: 'keeper', pin: '2222', passphrase: null })).body.id
  await request(room.app).post('/api/session/recording').set('Cookie', room.cookie).send({ staffId: oona, pin: '2222' })
})
afterEach(() => {
  expect(room.faults()).toEqual([])
  room.db.close()
})

const tank = (nth: number): TestTank => room.tanks[nth] as TestTank
const kindIn = async (nth: number, species: string) => {
  const { stock } = (await room.get(`/api/tanks/${tank(nth).code}`)).body as { stock: { speciesId: string; strain: string | null; species: string }[] }
  const found = stock.find((each) => each.species === species)
  return { speciesId: found?.speciesId ?? '', strain: found?.strain ?? null }
}
async function planBody(from: number, to: number, species: string, quantity: number, facts: object[], more: object = {}) {
  return { fromTankId: tank(from).id, toTankId: tank(to).id, fish: [{ ...(await kindIn(from, species)), quantity }], join: 'all', facts, takes: 'share', untilOn: null, note: null, ...more }
}
const plans = async (): Promise<PlanView[]> => ((await room.get('/api/plans')).body as { plans: PlanView[] }).plans
const stateOf = async (number: number): Promise<string | undefined> => (await plans()).find((each) => each.number === number)?.state
const carryOut = async (from: number, to: number, species: string, quantity: number, planId: string | null) =>
  room.post('/api/moves', { from: { kind: 'tank', id: tank(from).id }, to: { kind: 'tank', id: tank(to).id }, fish: [{ ...(await kindIn(from, species)), quantity }], toolSetId: null, waterGoesAlong: false, note: null, happenedAtMs, ...(planId ? { planId } : {}) })
const check = async (from: number, to: number | 'outside', species: string, quantity: number, planId = '') =>
  (await room.get(`/api/move-check?from=tank:${tank(from).id}&to=${to === 'outside' ? to : `tank:${tank(to).id}`}&fish=${encodeURIComponent(JSON.stringify([{ ...(await kindIn(from, species)), quantity }]))}${planId ? `&plan=${planId}` : ''}`)).body as { verdict: string; lines: { code: string; words: string }[] }

describe('a plan', () => {
  test('that waits for caves comes true when they are counted, is offered on Today, carried out, and open again once that is taken back', async () => {
    await room.addFish(tank(0), 'Honey gourami', 6)
    const { id, number } = (await room.post('/api/plans', await planBody(0, 1, 'Honey gourami', 6, [{ is: 'thing', thing: 'Caves', n: 4 }]))).body
    expect((await plans())[0]).toMatchObject({ number, state: 'ask', waits: ['4 Caves (nobody counted)'] })
    await room.post('/api/things', { thing: 'caves ', have: 2 })
    expect((await plans())[0]).toMatchObject({ state: 'waiting', waits: ['4 Caves (2 here)'] })
    expect((await room.get('/api/today')).body.onTheWay).toEqual([])
    await room.post('/api/things', { thing: 'CAVES', have: 4 })
    expect(await stateOf(number)).toBe('ready')
    expect((await room.get('/api/today')).body.onTheWay).toMatchObject([{ kind: 'plan', what: `plan ${number} can go now`, about: '6 Honey gourami', where: 'R1-01 to R1-02' }])
    const moved = await carryOut(0, 1, 'Honey gourami', 6, id)
    expect(moved.status).toBe(201)
    expect(await stateOf(number)).toBe('done')
    await room.post(`/api/movements/${moved.body.movementIds[0]}/reversal`, { isWhole: true, reason: null, happenedAtMs })
    expect(await stateOf(number)).toBe('ready')
  })

  test('waits for another one: a chain comes true link by link', async () => {
    await room.addFish(tank(0), 'Honey gourami', 4)
    await room.addFish(tank(1), 'Kuhli loach', 6)
    const first = (await room.post('/api/plans', await planBody(1, 2, 'Kuhli loach', 6, [{ is: 'date', on: '2031-05-06' }]))).body
    const second = (await room.post('/api/plans', await planBody(0, 1, 'Honey gourami', 4, [{ is: 'done', planId: first.id }, { is: 'empty', tankId: tank(1).id }], { takes: 'whole' }))).body
    expect((await plans()).map(({ state, waits }) => [state, waits])).toEqual([
      ['waiting', ['the 2031-05-06']],
      ['waiting', ['plan 1', 'R1-02 to be empty (6 in it)']],
    ])
    room.clock.nowMs += 2 * 86_400_000
    expect([await stateOf(first.number), await stateOf(second.number)]).toEqual(['ready', 'waiting'])
    await carryOut(1, 2, 'Kuhli loach', 6, first.id)
    expect(await stateOf(second.number)).toBe('ready')
  })

  test('counts fish of a pool together, whichever lot the books take a loss from', async () => {
    await room.addFish(tank(0), 'Honey gourami', 3)
    await room.addFish(tank(0), 'Honey gourami', 2)
    const { number } = (await room.post('/api/plans', await planBody(0, 1, 'Honey gourami', 4, [{ is: 'date', on: '2031-05-04' }]))).body
    expect(await stateOf(number)).toBe('ready')
    await room.post(`/api/tanks/${tank(0).id}/losses`, { ...(await kindIn(0, 'Honey gourami')), quantity: 1, cause: 'found dead', note: null, happenedAtMs })
    expect(await stateOf(number)).toBe('ready')
    await room.post(`/api/tanks/${tank(0).id}/losses`, { ...(await kindIn(0, 'Honey gourami')), quantity: 1, cause: 'found dead', note: null, happenedAtMs })
    expect((await plans())[0]).toMatchObject({ state: 'impossible', waits: ['4 Honey gourami are wanted, 3 are in the house'] })
  })

  test('that grows by the estimate asks for the ruler, and goes by what was measured', async () => {
    await room.addFish(tank(0), 'Honey gourami', 4)
    const kind = await kindIn(0, 'Honey gourami')
    const { number } = (await room.post('/api/plans', await planBody(0, 1, 'Honey gourami', 4, [{ is: 'size', cm: 3 }]))).body
    expect((await plans())[0]).toMatchObject({ state: 'ask', waits: ['Honey gourami to be measured'], measure: [{ tankCode: 'R1-01', species: 'Honey gourami' }] })
    await room.post(`/api/tanks/${tank(0).id}/lengths`, { ...kind, cm: 2.5, happenedAtMs: happenedAtMs - 30 * 86_400_000 })
    expect(await stateOf(number)).toBe('waiting')
    room.clock.nowMs += 10 * 86_400_000
    expect(await stateOf(number)).toBe('ask')
    expect((await plans())[0]?.waits[0]).toMatch(/^Honey gourami to be measured: about 3(\.\d)? cm by now$/)
    await room.post(`/api/tanks/${tank(0).id}/lengths`, { ...kind, cm: 3.1, happenedAtMs: room.clock.nowMs })
    expect(await stateOf(number)).toBe('ready')
  })

  test('that waits for a reading goes by the newest of all of its water, asks anew when that is old, and again once it is taken back', async () => {
    await room.addFish(tank(0), 'Honey gourami', 4)
    const read = async (value: number, atMs: number): Promise<number> => (await room.post(`/api/tanks/${tank(1).id}/readings`, { what: 'nitriteMgL', value, instrument: null, happenedAtMs: atMs })).body.seq
    const { number } = (await room.post('/api/plans', await planBody(0, 1, 'Honey gourami', 4, [{ is: 'reading', tankId: tank(1).id, reading: 'nitriteMgL', max: 0.1 }]))).body
    expect((await plans())[0]).toMatchObject({ state: 'ask', facts: ['nitrite as N at most 0.1 mg/L in R1-02'], waits: ['a reading of nitrite as N in R1-02 (none of late)'], readAt: ['R1-02'] })
    await read(0.05, happenedAtMs - 3_600_000)
    expect(await stateOf(number)).toBe('ready')
    const seq = await read(0.5, happenedAtMs)
    expect((await plans())[0]).toMatchObject({ state: 'waiting', waits: ['a reading of nitrite as N in R1-02 (0.5 mg/L now)'] })
    await room.post(`/api/readings/${seq}/undo`, {})
    expect(await stateOf(number)).toBe('ready')
    room.clock.nowMs += 48 * 3_600_000
    expect(await stateOf(number)).toBe('ask')
  })
})

describe('what plans have reserved', () => {
  test('a place taken whole needs a lead once its plan can go, warns before, and never stands in the way of its own fish', async () => {
    await room.addFish(tank(0), 'Honey gourami', 4)
    await room.addFish(tank(2), 'Cherry barb', 10)
    const { id } = (await room.post('/api/plans', await planBody(0, 1, 'Honey gourami', 4, [{ is: 'thing', thing: 'caves', n: 1 }], { takes: 'whole' }))).body
    expect((await check(2, 1, 'Cherry barb', 10)).lines).toContainEqual(expect.objectContaining({ code: 'plan-place', words: 'Plan 1 counts on this tank.' }))
    await room.post('/api/things', { thing: 'caves', have: 1 })
    expect(await check(2, 1, 'Cherry barb', 10)).toMatchObject({ verdict: 'lead', lines: expect.arrayContaining([expect.objectContaining({ code: 'plan-place-ready' })]) })
    expect((await carryOut(2, 1, 'Cherry barb', 10, null)).status).toBe(422)
    expect((await room.get('/api/tanks/R1-02')).body.bookings).toMatchObject([{ plan: 'plan 1', takes: 'whole', isReady: true }])
    expect((await check(0, 1, 'Honey gourami', 4, id)).lines.map(({ code }) => code).filter((code) => code.startsWith('plan-'))).toEqual([])
    expect((await carryOut(0, 1, 'Honey gourami', 4, id)).status).toBe(201)
  })

  test('fish that a plan counts on are warned of within the house and need a lead to leave it; what is left for it is free', async () => {
    await room.addFish(tank(0), 'Honey gourami', 10)
    await room.post('/api/plans', await planBody(0, 1, 'Honey gourami', 6, [{ is: 'date', on: '2031-06-01' }]))
    const codes = async (to: number | 'outside', n: number): Promise<string[]> => (await check(0, to, 'Honey gourami', n)).lines.map(({ code }) => code).filter((code) => code.startsWith('plan-'))
    expect([await codes(2, 4), await codes('outside', 4)]).toEqual([[], []])
    expect([await codes(2, 5), await codes('outside', 5)]).toEqual([['plan-fish'], ['plan-fish-out']])
  })

  test('an earlier plan has the fish: another one is refused, unless a lead keeps it', async () => {
    await room.addFish(tank(0), 'Honey gourami', 6)
    await room.post('/api/plans', await planBody(0, 1, 'Honey gourami', 4, [{ is: 'date', on: '2031-06-01' }]))
    const body = await planBody(0, 2, 'Honey gourami', 4, [{ is: 'date', on: '2031-05-04' }])
    const refused = await room.post('/api/plans', body, { staffId: oona })
    expect([refused.status, refused.body.code, refused.body.detail]).toEqual([422, 'breaks-rule', 'Plan 1 has the Honey gourami in R1-01. A lead may keep it all the same, with a reason.'])
    expect((await plans()).map(({ number }) => number)).toEqual([1])
    expect((await room.post('/api/plans', { ...body, override: 'plan 1 will be dropped' })).status).toBe(201)
    expect(await stateOf(2)).toBe('double')
  })

  test('two that want each other’s tank are stuck, and it says so', async () => {
    await room.addFish(tank(0), 'Honey gourami', 6)
    await room.addFish(tank(1), 'Kuhli loach', 6)
    await room.post('/api/plans', await planBody(0, 1, 'Honey gourami', 6, [{ is: 'empty', tankId: tank(1).id }]))
    const refused = await room.post('/api/plans', await planBody(1, 0, 'Kuhli loach', 6, [{ is: 'empty', tankId: tank(0).id }]))
    expect(refused.body.detail).toBe('It would wait for ever with plan 1: one of them needs a third place. Say why it is kept all the same.')
    await room.post('/api/plans', await planBody(1, 0, 'Kuhli loach', 6, [{ is: 'empty', tankId: tank(0).id }], { override: 'a third tank comes' }))
    expect((await plans()).map(({ state, deadlock }) => [state, deadlock])).toEqual([['stuck', ['plan 2']], ['stuck', ['plan 1']]])
    expect((await room.get('/api/due')).body.items.filter(({ kind }: { kind: string }) => kind === 'plan').map(({ detail }: { detail: string }) => detail)).toContain('waits for plan 2, and they for it: one needs a third place')
  })

  test('dropped it has nothing any more, and can be opened again', async () => {
    await room.addFish(tank(0), 'Honey gourami', 6)
    const { id } = (await room.post('/api/plans', await planBody(0, 1, 'Honey gourami', 6, [{ is: 'date', on: '2031-06-01' }]))).body
    await room.post(`/api/plans/${id}/end`, { as: 'dropped' })
    expect([await stateOf(1), (await room.get('/api/tanks/R1-02')).body.bookings]).toEqual(['dropped', []])
    expect((await room.post(`/api/plans/${id}/end`, { as: 'dropped' })).status).toBe(409)
    await room.post(`/api/plans/${id}/end`, { as: 'open' })
    expect([await stateOf(1), (await room.get('/api/tanks/R1-02')).body.bookings.length]).toEqual(['waiting', 1])
  })
})

test('what does not fit is said beside the field, and nothing is kept', async () => {
  await room.addFish(tank(0), 'Honey gourami', 6)
  const good = await planBody(0, 1, 'Honey gourami', 6, [{ is: 'date', on: '2031-06-01' }])
  const problemsOf = async (more: object): Promise<Record<string, string>> => Object.fromEntries(((await room.post('/api/plans', { ...good, ...more })).body.errors as { path: string; message: string }[]).map(({ path, message }) => [path, message]))
  expect(await problemsOf({ facts: [] })).toEqual({ facts: 'Say what it waits for' })
  expect(await problemsOf({ facts: [{ is: 'date', on: '2031-02-30' }] })).toEqual({ 'facts[0].on': 'Day must be a day such as 2031-05-04' })
  expect(await problemsOf({ facts: [{ is: 'size' }] })).toEqual({ 'facts[0].cm': 'Say how long they are to be' })
  expect(await problemsOf({ facts: [{ is: 'thing', thing: ' ', n: 3 }] })).toEqual({ 'facts[0].thing': 'Say what is to come' })
  expect(await problemsOf({ facts: [{ is: 'reading', tankId: tank(1).id, reading: 'ph' }] })).toEqual({ 'facts[0].max': 'Say the most, the least or both' })
  expect(await problemsOf({ facts: [{ is: 'reading', tankId: tank(1).id, reading: 'ph', min: 7, max: 6 }] })).toEqual({ 'facts[0].max': 'The most is below the least' })
  expect(await problemsOf({ facts: [{ is: 'crate', crateId: 'none' }] })).toEqual({ 'facts[0].crateId': 'There is no such open crate' })
  expect(await problemsOf({ facts: [{ is: 'done', planId: 'none' }] })).toEqual({ 'facts[0].planId': 'There is no such open plan' })
  expect(await problemsOf({ toTankId: tank(0).id })).toEqual({ toTankId: 'They are there already' })
  expect(await problemsOf({ fish: [{ ...good.fish[0], quantity: 7 }] })).toEqual({ 'fish[0].quantity': 'Only 6 of these are there, or come there by a plan before' })
  expect(await problemsOf({ fromTankId: tank(3).id, toTankId: tank(1).id })).toEqual({ 'fish[0].quantity': 'None of these fish stand there, and no plan that this one waits for brings them' })
  expect(await plans()).toEqual([])
})
