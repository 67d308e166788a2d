import { afterAll, beforeAll, expect, test } from '@jest/globals'
import type { IntroductionView, PlannedIntroduction } from '../../core/moves/introductionView'
import { createTestRoom, testNowMs, type TestRoom } from '../testing/testRoom'

let room: TestRoom
let [box, speciesId] = ['', '']
const hourMs = 3_600_000
beforeAll(async () => {
  room = await createTestRoom({ tankCount: 4, sharing: 'each its own' })
  await room.post('/api/setup/species/adoptions', { names: ['Honey gourami'] })
  await room.addFish(tank(1), 'Honey gourami', 1)
  await room.addFish(tank(2), 'Honey gourami', 1)
  for (const [name, kind, litres] of [['B1', 'bucket', 20], ['box 1', 'box', 3]] as const) box = (await room.post('/api/setup/vessels', { values: { name, kind, litres, air: 'yes', note: null } })).body.id
  speciesId = (await room.get(`/api/tanks/${tank(1)?.code}`)).body.stock[0].speciesId
})
afterAll(() => expect(room.faults()).toEqual([]))

const tank = (nth: number) => room.tanks[nth - 1]
const fish = (quantity = 1) => [{ speciesId, strain: null, quantity }]
const plan = async (more = ''): Promise<PlannedIntroduction> => (await room.get(`/api/introduction-plan?from=${tank(2)?.id}&to=${tank(1)?.id}&fish=${encodeURIComponent(JSON.stringify(fish()))}&dominants=${speciesId}${more}`)).body
const standing = async (nth: number): Promise<number> => ((await room.get(`/api/tanks/${tank(nth)?.code}`)).body.stock as { quantity: number }[]).reduce((sum, { quantity }) => sum + quantity, 0)

let id = ''
const view = async (): Promise<IntroductionView> => (await room.get(`/api/introductions/${id}`)).body
const blank = { stepIndex: null, who: null, level: null, vesselId: null, toTankId: null, note: null }
const happened = (kind: string, more: object = {}) => room.post(`/api/introductions/${id}/events`, { ...blank, kind, happenedAtMs: room.clock.nowMs, ...more })

test('who rules is taken out into a bucket that bears it, and every step has its clock', async () => {
  const { plan: planned, reasons, residents } = await plan()
  expect([planned.mode, planned.dominants, planned.vessels.map(({ id: name }) => name)]).toEqual(['out', ['Honey gourami'], ['B1']])
  expect(planned.steps.map(({ code }) => code).filter((code) => code !== 'look')).toEqual(['fill-vessels', 'dominants-out', 'change', 'rearrange', 'newcomers-in', 'dominants-back', 'lights-off'].filter((code) => code !== 'change' || planned.steps.some((step) => step.code === 'change')))
  expect([reasons, residents]).toEqual([[], [{ speciesId, name: 'Honey gourami', quantity: 1 }]])
})

test('an introduction goes its way: in, a bully boxed, back again, quiet looks, and over', async () => {
  const begun = await room.post('/api/introductions', { tankId: tank(1)?.id, fromTankId: tank(2)?.id, fish: fish(), hasMirror: false, hasDivider: false, dominants: [speciesId], happenedAtMs: room.clock.nowMs })
  expect(begun.status).toBe(201)
  id = begun.body.id
  expect((await room.post('/api/introductions', { tankId: tank(1)?.id, fromTankId: tank(2)?.id, fish: fish(), hasMirror: false, hasDivider: false, dominants: [], happenedAtMs: room.clock.nowMs })).body.detail).toMatch(/goes on in this tank already/)

  // Looks make no sense before anybody is in, and the steps are told with their moments.
  expect((await happened('look', { level: 'quiet' })).status).toBe(409)
  const { steps, state } = await view()
  expect([state, steps[0]?.dueAtMs, steps.every(({ doneAtMs }) => doneAtMs === null)]).toEqual(['not begun', room.clock.nowMs, true])
  const stepOf = (code: string) => steps.find((each) => each.code === code)?.index ?? -1
  room.clock.nowMs += 10 * 60_000
  await happened('step', { stepIndex: stepOf('fill-vessels') })
  const late = (await view()).steps
  expect(late[1]?.dueAtMs).toBe((late[0]?.doneAtMs ?? 0) + 5 * 60_000)
  const due = async () => ((await room.get('/api/due')).body.items as { kind: string; what: string; to: string }[]).filter(({ kind }) => kind === 'introduction' || kind === 'vessel')
  expect((await due()).map(({ what }) => what)).toEqual([expect.stringMatching(/^introduction 1: honey gourami out/)])
  await happened('step', { stepIndex: stepOf('dominants-out') })

  expect((await happened('in', { stepIndex: stepOf('newcomers-in') })).status).toBe(201)
  expect((await happened('in')).status).toBe(409)
  expect([await standing(1), await standing(2)]).toEqual([2, 0])
  await happened('back', { stepIndex: stepOf('dominants-back') })

  room.clock.nowMs += 15 * 60_000
  await happened('look', { level: 'chased', who: 'Honey gourami' })
  room.clock.nowMs += 15 * 60_000
  await happened('look', { level: 'hurt', who: 'Honey gourami' })
  expect(await view()).toMatchObject({ state: 'running', proposes: 'box' })
  expect((await happened('box', { who: 'Honey gourami' })).body.errors).toMatchObject([{ path: 'vesselId' }])
  expect((await happened('box', { who: 'Honey gourami', vesselId: box })).status).toBe(201)
  expect([await standing(1), (await view()).boxes]).toEqual([1, [{ who: 'Honey gourami', vesselId: box, vessel: 'box 1', dueAtMs: Math.floor(room.clock.nowMs / 60_000) * 60_000 + 72 * hourMs }]])

  room.clock.nowMs += 73 * hourMs
  expect((await due()).map(({ what }) => what)).toEqual(expect.arrayContaining([expect.stringMatching(/days in the box are over/), expect.stringMatching(/^fish in box 1/)]))
  expect((await happened('back', { who: 'Honey gourami' })).status).toBe(201)
  expect(await standing(1)).toBe(2)
  room.clock.nowMs += 24 * hourMs
  await happened('look', { level: 'quiet' })
  room.clock.nowMs += 49 * hourMs
  expect((await view()).state).toBe('running')
  await happened('look', { level: 'quiet' })
  expect(await view()).toMatchObject({ state: 'done', proposes: null, endedAtMs: room.clock.nowMs })
  expect((await happened('look', { level: 'quiet' })).status).toBe(409)

  // Taken back, it goes on; what was seen of the fight stays with the kinds.
  await room.post(`/api/introductions/${id}/undo`, { happenedAtMs: room.clock.nowMs })
  expect(await view()).toMatchObject({ state: 'running', endedAtMs: null })
})

test('what an introduction moved is taken back there, and nowhere else', async () => {
  const { timeline } = (await room.get(`/api/tanks/${tank(1)?.code}`)).body as { timeline: { id: string; kind: string; fixedBecause: string | null }[] }
  const moved = timeline.find(({ kind }) => kind === 'move')
  expect(moved?.fixedBecause).toBe('Part of introduction 1 on the bench: take it back there.')
  expect((await room.post(`/api/movements/${moved?.id}/reversal`, { reason: null, happenedAtMs: room.clock.nowMs })).body.detail).toBe('This is part of introduction 1; take it back there')
})

test('a newcomer that dies ends it; taken back, it is alive again, and the fight was none', async () => {
  await happened('dead', { who: 'Honey gourami' })
  expect([await standing(1), (await view()).state]).toEqual([1, 'failed'])
  await room.post(`/api/introductions/${id}/undo`, { happenedAtMs: room.clock.nowMs })
  expect([await standing(1), (await view()).state]).toEqual([2, 'running'])
})

test('newcomers that are taken out stand where they came from', async () => {
  expect((await happened('taken out', { toTankId: tank(3)?.id })).status).toBe(201)
  expect([await standing(1), await standing(3), (await view()).state, (await view()).endedAtMs]).toEqual([1, 1, 'failed', room.clock.nowMs])
})

test('one that goes on for too long asks for the newcomers out, and is over once they are', async () => {
  const { body } = await room.post('/api/introductions', { tankId: tank(1)?.id, fromTankId: tank(3)?.id, fish: fish(), hasMirror: false, hasDivider: false, dominants: [speciesId], happenedAtMs: room.clock.nowMs })
  id = body.id
  expect((await happened('in')).status).toBe(201)
  room.clock.nowMs += 15 * 24 * hourMs
  expect(await view()).toMatchObject({ state: 'failed', proposes: 'take out', endedAtMs: null })
  expect((await happened('taken out', { toTankId: tank(3)?.id })).status).toBe(201)
  expect(await view()).toMatchObject({ state: 'failed', proposes: null, endedAtMs: room.clock.nowMs })
  expect([await standing(1), await standing(3)]).toEqual([1, 1])
})

test('one that was begun by mistake is given up, and another may begin there', async () => {
  const begin = () => room.post('/api/introductions', { tankId: tank(1)?.id, fromTankId: tank(3)?.id, fish: fish(), hasMirror: false, hasDivider: false, dominants: [speciesId], happenedAtMs: room.clock.nowMs })
  id = (await begin()).body.id
  expect((await begin()).status).toBe(409)
  expect((await room.post(`/api/introductions/${id}/end`, { happenedAtMs: room.clock.nowMs })).status).toBe(201)
  expect(await view()).toMatchObject({ state: 'not begun', endedAtMs: room.clock.nowMs, isGivenUp: true })
  const undo = () => room.post(`/api/introductions/${id}/undo`, { happenedAtMs: room.clock.nowMs })
  expect((await undo()).status).toBe(201)
  expect(await view()).toMatchObject({ endedAtMs: null, isGivenUp: false })
  await room.post(`/api/introductions/${id}/end`, { happenedAtMs: room.clock.nowMs })
  expect((await begin()).status).toBe(201)
  expect((await undo()).body.detail).toBe('Another introduction goes on in this tank now')
})

test('nothing begins where a mouth swallows, or nothing is at hand', async () => {
  await room.addFish(tank(4), 'Oscar', 1)
  await room.addFish(tank(2), 'Honey gourami', 2)
  const into = (to: number) => room.post('/api/introductions', { tankId: tank(to)?.id, fromTankId: tank(2)?.id, fish: fish(), hasMirror: false, hasDivider: false, dominants: [], happenedAtMs: testNowMs })
  expect((await into(4)).body.errors).toMatchObject([{ path: 'tankId', message: expect.stringMatching(/swallows/) }])
})
