import { afterEach, beforeEach, expect, test } from '@jest/globals'
import type { DueItem } from '../../core/due/due'
import type { HeldGroupView, HoldPoliciesView, HoldsView, HoldWhatIfView } from '../../core/holds/holdsView'
import { createTestRoom, plainBag, quietCheck, testNowMs, type TestRoom } from '../testing/testRoom'

// From a bag that is opened to what the screen of holds says: four tanks of one water, and a fifth of its own.
const [hourMs, dayMs] = [3_600_000, 86_400_000]
let room: TestRoom
beforeEach(async () => {
  room = await createTestRoom({ tankCount: 4 })
})
afterEach(() => void room.db.raw.close())

const tankId = (index = 0): string => room.tanks[index]?.id ?? ''
const later = (ms: number): void => void (room.clock.nowMs += ms)
const holds = async (): Promise<HoldsView> => (await room.get('/api/holds')).body as HoldsView
const group = async (species: string, index = 0): Promise<HeldGroupView | undefined> => (await holds()).groups.find((each) => each.species === species && each.placeId === tankId(index))
const check = (index = 0, change: object = {}) => room.post('/api/checks', { ...quietCheck(tankId(index)), happenedAtMs: room.clock.nowMs, ...change })
const end = (fish: readonly (HeldGroupView | undefined)[], reason: string | null = null, options = {}) => room.post('/api/holds/ends', { fish: fish.map((each) => ({ lotId: each?.lotId, placeId: each?.placeId })), reason, happenedAtMs: room.clock.nowMs }, options)
async function deliver(...lines: [string, number, number][]): Promise<void> {
  const crate = await room.crateOf(lines.map(([species, count, index]) => [species, count, 1, room.tanks[index] ?? null]))
  for (const { id, listed } of crate.bags) await room.post(`/api/crates/${crate.id}/bags`, { ...plainBag([id], listed), happenedAtMs: room.clock.nowMs })
  await room.post(`/api/crates/${crate.id}/placements`, { tankId: null, happenedAtMs: room.clock.nowMs })
}
async function daysOf(count: number, index = 0): Promise<void> {
  for (let day = 0; day < count; day += 1) {
    later(dayMs)
    await check(index)
  }
}

/** The first tank is one that fish are held in. */
async function setApart(): Promise<void> {
  const [row] = ((await room.get('/api/setup/tanks')).body.rows as { id: string; version: number; values: object }[]).filter(({ id }) => id === tankId())
  await room.put(`/api/setup/tanks/${tankId()}`, { version: row?.version, values: { ...row?.values, purpose: 'quarantine' } })
}

test('a hold is served, ready, let go in one touch, and taken back', async () => {
  await deliver(['Cherry barb', 8, 0])
  expect(await group('Cherry barb')).toMatchObject({ policyName: 'Shop hold', day: 1, of: 14, isReady: false, words: 'Watch day 1 of 14; ready not before Sun 18 May.', fish: 8 })
  const { items } = (await room.get('/api/due')).body as { items: DueItem[] }
  expect(items.filter(({ kind }) => kind === 'hold day')).toMatchObject([{ what: 'hold may be ready', where: 'R1-01', about: 'Cherry barb', byMs: Date.UTC(2031, 4, 18, 9), urgency: 'later' }])
  await daysOf(13)
  expect((await group('Cherry barb'))?.words).toBe('Watch day 14 of 14; ready not before Sun 18 May.')
  later(dayMs)
  expect(await group('Cherry barb')).toMatchObject({ isReady: false, words: '14 days served; waits for a look.'.replace('14 days', 'All days') })
  await check()
  const ready = await group('Cherry barb')
  expect(ready).toMatchObject({ isReady: true, words: 'Ready since Sun 18 May.', release: { answer: 'release', shortfall: { days: 0, gates: [] } } })
  const { ids } = (await end([ready])).body as { ids: string[] }
  expect([(await holds()).groups, (await holds()).entries[0]?.words]).toEqual([[], expect.stringMatching(/^Cherry barb .+: Ended when it was ready\.$/)])
  expect((await end([ready])).status).toBe(409)
  expect((await holds()).letGo).toEqual([])
  await setApart()
  expect((await holds()).letGo).toMatchObject([{ species: 'Cherry barb', fish: 8, placeName: 'R1-01' }])
  await room.post(`/api/holds/entries/${ids[0]}/undo`, {})
  expect([(await group('Cherry barb'))?.isReady, (await holds()).letGo]).toEqual([true, []])
  expect((await room.post(`/api/holds/entries/${ids[0]}/undo`, {})).status).toBe(409)
})

test('ended early by a lead alone, with a reason, and what it was short of is kept', async () => {
  const oona = (await room.post('/api/staff', { name: 'Oona', role: 'keeper', pin: '5822', passphrase: null })).body.id as string
  await deliver(['Cherry barb', 8, 0])
  later(3 * dayMs)
  const held = await group('Cherry barb')
  expect((await end([held])).body.errors).toMatchObject([{ path: 'reason' }])
  const keeper = await end([held], 'the customer waits', { staffId: oona })
  expect([keeper.status >= 400, (await group('Cherry barb'))?.day]).toEqual([true, 4])
  await end([held], 'the customer waits')
  await setApart()
  expect((await holds()).letGo).toHaveLength(1)
  expect((await holds()).entries[0]?.words).toMatch(/: Ended 11 days early: the customer waits\.$/)
  await room.post(`/api/tanks/${tankId()}/moves`, { lotId: held?.lotId, quantity: 8, toTankId: tankId(1), note: null, happenedAtMs: room.clock.nowMs })
  expect((await holds()).letGo).toEqual([])
  expect((await end([{ ...held!, lotId: 'nobody' }], 'no')).body.errors).toMatchObject([{ path: 'fish[0]' }])
})

test('a sign waits for a word and says beforehand whom it would begin again; one of weeks ago is decided all the same', async () => {
  await deliver(['Cherry barb', 8, 0], ['Honey gourami', 4, 1])
  later(11 * dayMs)
  await check(0, { signs: ['spots'] })
  later(9 * dayMs)
  const [asked, ...others] = (await holds()).decisions
  expect(others).toEqual([])
  expect(asked).toMatchObject({ word: 'spots', tankCode: room.tanks[0]?.code, count: 1 })
  expect((await group('Cherry barb'))?.waitsFor).toContain('decision')
  // Both stand on one water.
  expect((await group('Honey gourami', 1))?.isUndecided).toBe(true)
  const decide = (decision: string, note: string | null = null) => room.post('/api/holds/sign-decisions', { tankId: tankId(), word: 'spots', decision, note, happenedAtMs: room.clock.nowMs })
  expect((await decide('dismissed')).body.errors).toMatchObject([{ path: 'note' }])
  expect((await decide('confirmed')).status).toBe(201)
  const told = await group('Cherry barb')
  expect([told?.restarts, told?.isUndecided]).toEqual([['Began again on Thu 15 May: sign spots in R1-01 (11 days lost).'], false])
  expect((await decide('confirmed')).body.errors).toMatchObject([{ path: 'word' }])
})

test('what it would mean if a sign counted is told by the day, and what new fish would', async () => {
  await deliver(['Cherry barb', 8, 0], ['Honey gourami', 4, 1])
  later(5 * dayMs)
  await check(0, { signs: ['spots'] })
  expect((await holds()).decisions[0]?.ifItCounts).toEqual([expect.stringMatching(/^If it counts, Cherry barb .+ and Honey gourami .+ restart: Fri 23 May instead of Sun 18 May\.$/)])
  const ask = async (what: string, index: number): Promise<HoldWhatIfView> => (await room.get(`/api/holds/what-if?what=${what}&tank=${tankId(index)}`)).body as HoldWhatIfView
  expect([await ask('fish', 0), await ask('fish', 2)]).toMatchObject([{ isHarmless: false, words: [expect.stringMatching(/^New fish into R1-01: 5 days for Cherry barb/)] }, { isHarmless: true, words: ['Moves nobody’s clock.'] }])
  expect((await ask('sign', 2)).words).toEqual([expect.stringMatching(/: 5 days for (?=.*Cherry barb)(?=.*Honey gourami).+ \(.+ becomes .+\)\.$/)])
  expect((await room.get(`/api/holds/what-if?what=magic&tank=${tankId()}`)).status).toBe(422)
  expect((await room.get('/api/holds')).body.groups).toHaveLength(2)
})

test('fish added to a tank begin its hold again, and the check of the move says so beforehand', async () => {
  await room.post('/api/systems', { name: 'Quarantine', water: 'fresh', sharing: 'each its own', sumpL: null, rack: 'Q1', tankCount: 2, perShelf: 2, tankKind: 'glass', netVolumeL: 60 })
  const { tanks } = (await room.get('/api/room')).body as { tanks: { id: string; code: string }[] }
  room.tanks.push(...tanks.filter(({ code }) => code.startsWith('Q1')))
  await deliver(['Cherry barb', 8, 0], ['Cherry barb', 6, 4])
  await daysOf(6)
  const moving = await group('Cherry barb', 4)
  const asked = await room.get(`/api/move-check?from=tank:${tankId(4)}&to=tank:${tankId(0)}&fish=${encodeURIComponent(JSON.stringify([{ speciesId: moving?.speciesId, strain: null, lotIds: [moving?.lotId], quantity: 6 }]))}`)
  const words = JSON.stringify(asked.body)
  expect([words.includes('loses 6 days of its hold'), words.includes('begins its hold anew: 6 days')]).toEqual([true, true])
  const moved = await room.post('/api/moves', { from: { kind: 'tank', id: tankId(4) }, to: { kind: 'tank', id: tankId(0) }, fish: [{ speciesId: moving?.speciesId, strain: null, lotIds: [moving?.lotId], quantity: 6 }], toolSetId: null, waterGoesAlong: false, planId: null, override: 'room is short', note: null, happenedAtMs: room.clock.nowMs })
  expect(moved.status).toBe(201)
  const { groups } = await holds()
  expect(groups.map(({ day, restarts }) => [day, restarts.length])).toEqual([[1, 1], [1, 1]])
})

test('a policy of the house is made, chosen by a rule, used by the next crate and not by fish that are here; the table of refusals passes it over', async () => {
  await deliver(['Cherry barb', 8, 0])
  const own = { id: 'long', name: 'Long watch', start: 'placed', phases: [{ id: 'watch', kind: 'watch', days: 28, wishDays: 40 }], onSign: { back: 'watch', reach: 'lot', words: ['spots'] }, onAddition: null, onTreatment: { back: 'watch' }, release: [{ gate: 'looked', withinDays: 1 }], agents: [] }
  const save = (policy: object, version = 0) => room.put('/api/hold-policies/long', { policy: JSON.stringify(policy), version })
  expect((await save({ ...own, phases: [] })).body.errors).toMatchObject([{ path: 'policy', message: expect.stringMatching(/goes back to no phase/) }])
  expect((await save({ ...own, id: 'other' })).status).toBe(422)
  expect((await room.put('/api/hold-policies/shopHold', { policy: JSON.stringify(own), version: 0 })).status).toBe(422)
  expect((await save(own)).body).toEqual({ version: 1 })
  expect((await save(own)).status).toBe(409)
  const copper = { ...own, id: 'copper', name: 'With copper', agents: ['copperIonic'] }
  await room.put('/api/hold-policies/copper', { policy: JSON.stringify(copper), version: 0 })
  expect((await room.put('/api/hold-rules', { rules: [{ policy: 'nothing' }], version: 0 })).body.errors).toMatchObject([{ path: 'rules[0].policy' }])
  expect((await room.put('/api/hold-rules', { rules: [{ policy: 'copper', water: 'marine' }, { policy: 'long', water: 'fresh', supplier: 'Hollow Reed Hatchery' }], version: 0 })).body).toEqual({ version: 1 })
  await deliver(['Honey gourami', 4, 1])
  expect([await group('Cherry barb'), await group('Honey gourami', 1)]).toMatchObject([{ policyId: 'shopHold', of: 14 }, { policyId: 'long', of: 28, bar: { wish: '2031-06-13' } }])
  const { policies } = (await room.get('/api/hold-policies')).body as HoldPoliciesView
  expect(policies.find(({ policy }) => policy.id === 'long')).toMatchObject({ isOwn: true, words: 'watch 28 days. A sign: watch again, that lot. Treatment: watch again. Release asks for a look.' })
  // Changed, it holds for those in it; out of use, they stay in it.
  await save({ ...own, phases: [{ id: 'watch', kind: 'watch', days: 21 }] }, 1)
  await room.post('/api/hold-policies/long/retirement', { isRetired: 1, version: 2 })
  expect(await group('Honey gourami', 1)).toMatchObject({ policyId: 'long', of: 21 })
  expect((await room.post('/api/holds/changes', { fish: [{ lotId: (await group('Cherry barb'))?.lotId, placeId: tankId() }], policyId: 'long', phase: null, reason: 'x', happenedAtMs: room.clock.nowMs })).status).toBe(422)
})

test('longer, another policy, a body: each is told and may be taken back', async () => {
  await deliver(['Cherry barb', 8, 0])
  const fish = [{ lotId: (await group('Cherry barb'))?.lotId, placeId: tankId() }]
  const happenedAtMs = room.clock.nowMs
  await room.post('/api/holds/longer', { fish, days: 5, reason: 'thin', happenedAtMs })
  expect(await group('Cherry barb')).toMatchObject({ of: 19, earliest: '2031-05-23' })
  later(hourMs)
  await room.post('/api/holds/changes', { fish, policyId: 'dewormThenWait', phase: null, reason: 'worms', happenedAtMs: room.clock.nowMs })
  expect(await group('Cherry barb')).toMatchObject({ policyName: expect.stringMatching(/wait/i), waitsFor: ['steps:dose'] })
  await room.post('/api/holds/bodies', { tankId: tankId(), lotId: null, state: 'full', happenedAtMs: room.clock.nowMs })
  expect((await holds()).entries.map(({ words }) => words.replace(/^Cherry barb \S+: /, ''))).toEqual(['body full.', expect.stringMatching(/^now .+: worms\.$/), '5 days longer: thin.'])
})

test('a pairing passes by its looks and blocks the merge until then; one with a sign fails, and a sign that was none is no sign', async () => {
  await room.post('/api/systems', { name: 'Quarantine', water: 'fresh', sharing: 'each its own', sumpL: null, rack: 'Q1', tankCount: 1, perShelf: 2, tankKind: 'glass', netVolumeL: 60 })
  const { tanks } = (await room.get('/api/room')).body as { tanks: { id: string; code: string }[] }
  room.tanks.push(...tanks.filter(({ code }) => code.startsWith('Q1')))
  const [a, b] = [await room.addFish(room.tanks[0], 'Cherry barb', 20), await room.addFish(room.tanks[4], 'Cherry barb', 3)]
  await room.post(`/api/tanks/${tankId()}/moves`, { lotId: a, quantity: 2, toTankId: tankId(4), note: null, happenedAtMs: room.clock.nowMs, override: 'to pair' })
  expect((await holds()).pairable).toMatchObject([{ tankId: tankId(4), lots: [{ fish: 3 }, { fish: 2 }] }])
  const start = (lotB: string) => room.post('/api/pairings', { tankId: tankId(4), lotA: a, lotB, looksH: [24, 48], happenedAtMs: room.clock.nowMs })
  expect([(await start(a)).status, (await start('nobody')).body.errors]).toMatchObject([422, [{ path: 'lotB' }]])
  const { id } = (await start(b)).body as { id: string }
  expect((await start(b)).body.errors).toMatchObject([{ path: 'tankId' }])
  const state = async (): Promise<string | undefined> => (await holds()).pairings.find((each) => each.id === id)?.state
  const asked = async (): Promise<string[]> => (await room.get(`/api/tanks/${room.tanks[4]?.code}`)).body.judged.rechecks as string[]
  expect(await asked()).toEqual([])
  const merge = () => room.post(`/api/tanks/${tankId(4)}/moves`, { lotId: b, quantity: 1, toTankId: tankId(), note: null, happenedAtMs: room.clock.nowMs })
  later(dayMs)
  expect([await asked(), ((await room.get('/api/due')).body as { items: DueItem[] }).items.find(({ kind }) => kind === 'hold')?.what]).toEqual([['a pairing asks for its look 1 of 2: every fish of both groups'], 'pairing: look 1 of 2'])
  await check(4)
  expect([await state(), (await merge()).body.detail]).toEqual(['running', expect.stringMatching(/stay apart until it is passed/)])
  later(dayMs)
  const { id: look } = (await check(4, { signs: ['spots'] })).body as { id: string }
  expect(look).toBeTruthy()
  expect(await state()).toBe('failed')
  await room.post(`/api/tanks/${tankId(4)}/sign-decisions`, { sign: 'spots', lotId: null, decision: 'dismissed', days: null, note: 'sand', happenedAtMs: room.clock.nowMs })
  expect(await state()).toBe('passed')
  expect((await holds()).pairings[0]).toMatchObject({ fish: [{ paired: 2, of: 20 }, { paired: 3, of: 3 }], words: expect.stringMatching(/^Clean for 2 days\. If one group carried something/) })
  later(hourMs)
  expect(JSON.stringify((await merge()).body)).not.toMatch(/stay apart/)
  expect(room.faults()).toEqual([])
})

test('a room that is older than its clocks keeps every begin day, and what was served is over', async () => {
  await deliver(['Cherry barb', 8, 0])
  later(20 * dayMs)
  await deliver(['Honey gourami', 4, 1])
  later(3 * dayMs)
  // As it stood before holds were kept.
  for (const table of ['hold_begin', 'hold_start', 'tank_water']) room.db.raw.exec(`DELETE FROM ${table}`)
  const { createApp } = await import('../app')
  const { default: request } = await import('supertest')
  const app = createApp({ db: room.db, now: () => room.clock.nowMs })
  const { groups } = (await request(app).get('/api/holds').set('Cookie', room.cookie)).body as HoldsView
  expect(groups.map(({ species, day, bar }) => [species, day, bar.from])).toEqual([['Honey gourami', 4, new Date(testNowMs + 20 * dayMs).toISOString().slice(0, 10)]])
})
