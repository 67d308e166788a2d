import { afterEach, beforeEach, expect, test } from '@jest/globals'
import type { DueItem } from '../../core/due/due'
import type { KitchenView } from '../../core/kitchen/kitchenView'
import type { OfferView, RegimensView, RegimenView } from '../../core/regimens/regimenView'
import { productValues } from '../../core/testing/productValues'
import { createTestRoom, quietCheck, type TestRoom } from '../testing/testRoom'

// From what a person enters to what the screen says: a rack of two tanks on one water, and tanks of their own.
const [hourMs, dayMs] = [3_600_000, 86_400_000]
let room: TestRoom
let marine: { id: string; code: string }[]
let apart: { id: string; code: string }[]
beforeEach(async () => {
  room = await createTestRoom({ tankCount: 1 })
  const made = async (name: string, rack: string, sharing: string, sumpL: number | null) => (await room.post('/api/systems', { name, water: 'marine', sharing, sumpL, rack, tankCount: 3, perShelf: 3, tankKind: 'glass', netVolumeL: 50 })).body.tanks as { id: string; code: string }[]
  marine = await made('Quarantine', 'Q1', 'one water', 50)
  apart = await made('Transfer tanks', 'T1', 'each its own', null)
})
afterEach(() => void room.db.raw.close())

const later = (ms: number): void => void (room.clock.nowMs += ms)
const copper = { name: 'Copper, ionic', agent: 'copper (ionic)', substance: 'copper', strengthMgPerMl: 10, strengthBasis: 'as copper', targetMgL: 0.18, targetBasis: 'as copper', loMgL: 0.15, hiMgL: 0.2 }
const product = async (values: { name: string } & Record<string, string | number | null>): Promise<string> => (await room.post('/api/setup/agents', { values: productValues(values) })).body.id as string
const say = (tankId: string, contents: string[] = []) => room.put(`/api/tanks/${tankId}/water-contents`, { contents, binderUntilMs: contents.includes('binder') ? room.clock.nowMs + dayMs : null })
const offer = async (code: string, productId: string, more = ''): Promise<OfferView> => (await room.get(`/api/tanks/${code}/dose-offer?product=${productId}${more}`)).body as OfferView
const dose = (tankId: string, productId: string, given: number, more: object = {}) => room.post(`/api/tanks/${tankId}/doses`, { productId, regimenId: null, given, towardsMgL: null, ticked: [], reason: null, isDone: false, happenedAtMs: room.clock.nowMs, ...more })
const read = (tankId: string, value: number, instrument: string | null = 'copper, ionic', what = 'copperMgL') => room.post(`/api/tanks/${tankId}/readings`, { what, value, instrument, happenedAtMs: room.clock.nowMs })
const regimen = async (id: string): Promise<RegimenView> => (await room.get(`/api/regimens/${id}`)).body as RegimenView
const list = async (): Promise<RegimensView> => (await room.get('/api/regimens')).body as RegimensView
const begin = async (path: string, body: object): Promise<string> => (await room.post(`/api/regimens/${path}`, { note: null, happenedAtMs: room.clock.nowMs, ...body })).body.id as string
const glassAgents = async (code: string): Promise<string[]> => ((await room.get('/api/room')).body.tanks as { code: string; agents: string[] }[]).find((tank) => tank.code === code)?.agents ?? []

test('nothing is offered before somebody said what stands in the water; then as much as the label says for all of it', async () => {
  const id = await product(copper)
  const [tank] = marine
  expect(await offer('Q1-01', id)).toMatchObject({ contents: null, amount: null, volumeL: 200 })
  expect((await dose(tank!.id, id, 1)).body.errors).toMatchObject([{ path: 'contents' }])
  await say(tank!.id)
  const offered = await offer('Q1-01', id)
  expect(offered).toMatchObject({ answer: 'allow', contents: [], towardsMgL: 0.18, isCut: false })
  expect(offered.amount).toBeCloseTo(3.6)
  expect((await dose(tank!.id, id, 5)).body.errors).toMatchObject([{ path: 'given' }])
  const { id: doseId } = (await dose(tank!.id, id, 3.6)).body as { id: string }
  // It is in all of the water, and on the glass of a tank beside it.
  expect([await glassAgents('Q1-03'), await glassAgents('T1-01')]).toEqual([['copper'], []])
  expect((await list()).waters).toMatchObject([{ waterName: 'Quarantine', agents: [{ agent: 'copperIonic', goneOn: null }], fish: 0 }])
  expect((await offer('Q1-02', id)).reasons.map(({ code }) => code)).toContain('readFirst')
  await room.post(`/api/doses/${doseId}/undo`, {})
  expect(await glassAgents('Q1-03')).toEqual([])
})

test('a shrimp anywhere in the water ends it; other fish a lead overrides with a reason that is kept', async () => {
  const id = await product(copper)
  await say(marine[0]!.id)
  await room.addFish(marine[2], 'Scooter dragonet', 1)
  const asked = await offer('Q1-01', id)
  expect([asked.answer, asked.override, asked.amount]).toEqual(['refuse', 'lead', null])
  expect(asked.reasons.map(({ words }) => words)).toContain('dragonets bear it badly and must eat all day')
  const byLead = await offer('Q1-01', id, '&lead=1')
  expect([byLead.answer, byLead.amount === null]).toEqual(['warn', false])
  const { id: keeper } = (await room.post('/api/staff', { name: 'Oona', role: 'keeper', pin: '2222', passphrase: null })).body as { id: string }
  const all = byLead.reasons.map(({ code }) => code)
  expect((await room.post(`/api/tanks/${marine[0]!.id}/doses`, { productId: id, regimenId: null, given: byLead.amount, towardsMgL: null, ticked: all, reason: 'nothing else works', isDone: false, happenedAtMs: room.clock.nowMs }, { staffId: keeper })).status).not.toBe(201)
  expect((await dose(marine[0]!.id, id, byLead.amount ?? 0, { ticked: all, reason: 'nothing else works' })).status).toBe(201)

  await room.addFish(apart[0], 'Cleaner shrimp', 2)
  await say(apart[0]!.id)
  expect(await offer('T1-01', id, '&lead=1')).toMatchObject({ answer: 'refuse', override: 'nobody', amount: null })
  expect((await dose(apart[0]!.id, id, 1, { reason: 'all the same', ticked: ['invertebrate'] })).status).toBe(409)
  // It went in all the same: the books have it, and the screen says so.
  expect((await dose(apart[0]!.id, id, 1, { isDone: true })).status).toBe(201)
  expect(await glassAgents('T1-01')).toEqual(['copper'])
})

test('a ladder: part dose, raised when they eat, at level by its clock, stepped down; the water is clear at the first reading below', async () => {
  const id = await product(copper)
  const [tank] = marine
  await say(tank!.id)
  const lotId = await room.addFish(tank, 'Royal gramma', 4)
  await room.post('/api/holds/changes', { fish: [{ lotId, placeId: tank!.id }], policyId: 'copperLadder', phase: null, reason: 'arrivals', happenedAtMs: room.clock.nowMs })
  const ladder = await begin('ladders', { tankId: tank!.id, kind: 'ladder', productId: id, levelDays: 21 })
  const give = async (): Promise<void> => {
    const { ladder: shown } = await regimen(ladder)
    const { amount, towardsMgL, reasons } = shown!.offer
    expect((await dose(tank!.id, id, amount ?? 0, { regimenId: ladder, towardsMgL, ticked: reasons.map(({ code }) => code) })).status).toBe(201)
  }
  expect((await regimen(ladder)).now).toBe('Put the part dose in: 1.8 mL.')
  await give()
  const look = () => room.post('/api/checks', { ...quietCheck(tank!.id), happenedAtMs: room.clock.nowMs })
  later(5 * hourMs)
  expect((await regimen(ladder)).now).toBe('Read first, with the kit for copper, ionic.')
  await read(tank!.id, 0.09)
  expect((await regimen(ladder)).now).toMatch(/^Leave it for 43 h more/)
  for (const _ of [1, 2]) {
    later(dayMs)
    await look()
    await read(tank!.id, 0.09)
  }
  expect((await regimen(ladder)).now).toMatch(/^Raise it to 0.18 mg\/L/)
  await give()
  const half = await regimen(ladder)
  expect(half.ladder?.path.length).toBeGreaterThan(20)
  for (let day = 0; day < 22; day += 1) {
    later(dayMs)
    await look()
    await read(tank!.id, 0.17)
  }
  const down = await regimen(ladder)
  expect([down.ladder?.step, down.now]).toEqual(['stepDown', expect.stringMatching(/times from now\.$/)])
  let level = 0.17
  for (let times = 0; times < 8 && level > 0.05; times += 1) {
    await room.post(`/api/tanks/${tank!.id}/water-changes`, { litres: 50, productId: null, mixMgL: null, salinityPpt: null, regimenId: ladder, happenedAtMs: room.clock.nowMs })
    level *= 0.75
    later(dayMs)
    await look()
    await read(tank!.id, Math.round(level * 1000) / 1000)
  }
  expect([await glassAgents('Q1-01'), (await regimen(ladder)).now]).toEqual([[], 'It is out: end the regimen.'])
  await room.post(`/api/regimens/${ladder}/end`, { reason: 'served', happenedAtMs: room.clock.nowMs })
  expect([(await list()).running, (await list()).ended.map(({ title }) => title)]).toEqual([[], ['Copper, ionic, stepped']])
  const { groups } = (await room.get('/api/holds')).body as { groups: { species: string; words: string }[] }
  expect(groups[0]?.words).toMatch(/^Watch day/)
})

test('transfers are the moves themselves: one too late begins anew, and one that is taken back never was', async () => {
  const ids = apart.map(({ id }) => id)
  await room.addFish(apart[0], 'Royal gramma', 1)
  const transfer = await begin('transfers', { tankId: ids[0], kind: 'transfer', tankIds: ids.slice(0, 2), transfers: 4, everyH: 72, lateH: 6, cleanDryH: 24 })
  const go = async (from: number, to: number): Promise<string> => {
    const { stock } = (await room.get(`/api/tanks/${apart[from]!.code}`)).body as { stock: { speciesId: string; strain: string | null; quantity: number }[] }
    const moved = await room.post('/api/moves', { from: { kind: 'tank', id: ids[from] }, to: { kind: 'tank', id: ids[to] }, fish: stock.map(({ speciesId, strain, quantity }) => ({ speciesId, strain, quantity })), toolSetId: null, waterGoesAlong: false, note: null, happenedAtMs: room.clock.nowMs })
    expect(moved.body).toMatchObject({ movementIds: [expect.any(String)] })
    return moved.body.movementIds[0] as string
  }
  expect((await regimen(transfer)).now).toBe('Move them from T1-01 to T1-02 when its time comes.')
  // The tank that waits clean for them is nobody else's.
  const glass = ((await room.get('/api/room')).body.tanks as { code: string; bookings: { plan: string; takes: string }[] }[]).find(({ code }) => code === 'T1-02')
  expect(glass?.bookings).toMatchObject([{ plan: 'a tank transfer', takes: 'whole' }])
  await room.addFish(apart[2], 'Firefish', 1)
  const { stock: others } = (await room.get('/api/tanks/T1-03')).body as { stock: { speciesId: string; strain: string | null; quantity: number }[] }
  const refused = await room.post('/api/moves', { from: { kind: 'tank', id: ids[2] }, to: { kind: 'tank', id: ids[1] }, fish: others.map(({ speciesId, strain, quantity }) => ({ speciesId, strain, quantity })), toolSetId: null, waterGoesAlong: false, note: null, happenedAtMs: room.clock.nowMs })
  expect(refused.body).toMatchObject({ code: 'breaks-rule', detail: expect.stringContaining('a tank transfer') })
  later(72 * hourMs)
  await go(0, 1)
  expect((await regimen(transfer)).transfer).toMatchObject({ served: 1, atCode: 'T1-02', nextCode: 'T1-01', toClean: [{ tankCode: 'T1-01' }] })
  const { items } = (await room.get('/api/due')).body as { items: DueItem[] }
  expect(items.filter(({ kind }) => kind === 'regimen').map(({ what }) => what)).toEqual(expect.arrayContaining(['move on to T1-01', 'clean and dry T1-01']))
  await room.post(`/api/regimens/${transfer}/steps`, { kind: 'cleaned', tankId: ids[0], happenedAtMs: room.clock.nowMs })
  expect((await regimen(transfer)).transfer?.toClean).toEqual([])
  later(90 * hourMs)
  expect((await regimen(transfer)).transfer?.status).toBe('start again')
  const back = await go(1, 0)
  expect((await regimen(transfer)).transfer).toMatchObject({ served: 0, atCode: 'T1-01' })
  // The wrong fish went: the move is taken back, and its transfer with it.
  expect((await room.post(`/api/movements/${back}/reversal`, { reason: null, happenedAtMs: room.clock.nowMs })).status).toBe(201)
  expect((await regimen(transfer)).transfer).toMatchObject({ served: 1, atCode: 'T1-02', status: 'start again' })
})

test('medicated feed: the kitchen feeds it alone on its days, each day counts once for holds, and a rack that was not fed takes it back', async () => {
  const [tank] = room.tanks
  const food = { kind: 'frozen', thawMinutes: null, pieceG: null, dryPercent: null, proteinPercent: null, mouths: [], outMinutes: null, servesAs: ['water fleas'], note: null }
  const { id: foodId } = (await room.post('/api/setup/foods', { values: { ...food, name: 'Fleas with medicine' } })).body as { id: string }
  await room.post('/api/setup/species/adoptions', { names: ['Cherry barb'] })
  const { lotId } = (await room.post(`/api/tanks/${tank!.id}/additions`, { species: 'Cherry barb', quantity: 10, how: 'brought-in', note: null, happenedAtMs: room.clock.nowMs - 30 * dayMs })).body as { lotId: string }
  await room.post('/api/holds/changes', { fish: [{ lotId, placeId: tank!.id }], policyId: 'medicatedFood', phase: null, reason: 'thin ones', happenedAtMs: room.clock.nowMs })
  const today = new Date(room.clock.nowMs).toISOString().slice(0, 10)
  const feed = await begin('medicated-feeds', { tankId: tank!.id, kind: 'medicated feed', foodId, fromOn: today, days: 3, pauseDays: 0, times: 1, onSignDays: 0, mostDays: 0 })
  const kitchen = async () => (await room.get('/api/kitchen')).body as KitchenView
  expect((await kitchen()).racks[0]?.portions.map(({ bowl, food: given }) => [bowl, given])).toEqual([['medicated', 'Fleas with medicine']])
  expect((await kitchen()).orders).toMatchObject([{ kind: 'medicated', regimenId: feed, lotId }])
  const give = async (): Promise<string> => (await room.post('/api/kitchen/ticks', { feedOn: new Date(room.clock.nowMs).toISOString().slice(0, 10), feedId: 'day', step: 'give', what: 'R1', pieces: null, happenedAtMs: room.clock.nowMs })).body.id as string
  const waits = async (): Promise<string> => ((await room.get('/api/holds')).body as { groups: { words: string }[] }).groups[0]?.words ?? ''
  const tick = await give()
  expect((await regimen(feed)).feed).toMatchObject({ isToday: true, isGiven: true })
  await room.post(`/api/kitchen/ticks/${tick}/undo`, {})
  expect((await regimen(feed)).feed).toMatchObject({ isGiven: false })
  expect(await waits()).toMatch(/^feed/i)
  for (let day = 0; day < 3; day += 1) {
    await give()
    later(dayMs)
  }
  expect([(await regimen(feed)).feed?.isOver, (await kitchen()).orders, await waits()]).toEqual([true, [], expect.stringMatching(/^Watch day/)])
})

test('what a chore changes of a water is in its levels, and what is read or dosed by mistake is taken back with all that hung on it', async () => {
  const id = await product(copper)
  const [tank] = marine
  await say(tank!.id)
  const ladder = await begin('ladders', { tankId: tank!.id, kind: 'ladder', productId: id, levelDays: 3 })
  const first = (await dose(tank!.id, id, 1.8, { regimenId: ladder, towardsMgL: 0.09 })).body as { id: string }
  await read(tank!.id, 0.09)
  const level = async () => (await regimen(ladder)).ladder?.offer.level?.mgL ?? NaN
  expect(await level()).toBeCloseTo(0.09, 2)
  expect((await regimen(ladder)).ladder?.redose.map(({ school }) => school)).toEqual(['asIs', 'redose', 'premix'])
  const chore = { name: 'Change', kind: 'water change', rule: { kind: 'every', days: 7, weekdays: [], fish: null, earlyDays: 0 }, startOn: '2031-01-01', places: [{ id: 'a', tankId: tank!.id, systemId: null, label: null, uses: [], litres: 100, fromTankId: null, fish: [] }], note: null, version: 0 }
  const choreId = (await room.post('/api/chores', chore)).body.id as string
  later(60_000)
  const { id: doneId } = (await room.post(`/api/chores/${choreId}/done`, { placeId: 'a', happenedAtMs: room.clock.nowMs })).body as { id: string }
  expect(await level()).toBeCloseTo(0.045, 2)
  await room.post(`/api/chores-done/${doneId}/undo`, {})
  expect(await level()).toBeCloseTo(0.09, 2)

  later(3 * dayMs)
  // Read three days ago, it says nothing of milligrams.
  expect((await regimen(ladder)).ladder?.redose).toEqual([])
  await read(tank!.id, 0.09)
  // Given past the regimen, it counts for its ladder all the same.
  expect((await dose(tank!.id, id, 1.8, { towardsMgL: 0.18, isDone: true })).status).toBe(201)
  later(hourMs)
  const low = (await read(tank!.id, 0.02)).body as { seq: number }
  expect(await glassAgents('Q1-01')).toEqual([])
  later(hourMs)
  await room.post(`/api/readings/${low.seq}/undo`, {})
  expect(await glassAgents('Q1-01')).toEqual(['copper'])
  later(dayMs)
  await room.post(`/api/doses/${first.id}/undo`, {})
  expect((await regimen(ladder)).log.filter(({ kind }) => kind === 'dose')).toHaveLength(1)
})

test('low salinity: read first, down by litres, low for its days, slowly up; cleared when it is where the house keeps it', async () => {
  const [tank] = apart
  const plan = { kind: 'low salinity', startOn: '2031-04-04', lowPpt: 12, housePpt: 34, holdDays: 3, fallPerDay: 12, upPerDay: 8, downPpt: 0, upPpt: 40, evapLPerDay: 1 }
  const id = await begin('low-salinities', { tankId: tank!.id, ...plan })
  expect((await regimen(id)).now).toBe('Read the salinity first.')
  const salinity = (value: number) => read(tank!.id, value, null, 'salinityPpt')
  const change = async (): Promise<void> => {
    const { salinity: now } = await regimen(id)
    const [next] = now?.stage === 'down' ? now.down : (now?.up ?? [])
    await room.post(`/api/tanks/${tank!.id}/water-changes`, { litres: next?.swapL, productId: null, mixMgL: null, salinityPpt: now?.stage === 'down' ? 0 : 40, regimenId: id, happenedAtMs: room.clock.nowMs })
    later(dayMs)
    await salinity(next?.to ?? 0)
  }
  await salinity(34)
  expect((await regimen(id)).salinity).toMatchObject({ stage: 'down', down: [{ from: 34, to: 23 }, { from: 23, to: 12 }] })
  await change()
  expect(await glassAgents('T1-01')).toEqual(['low salinity'])
  await change()
  expect((await regimen(id)).salinity?.stage).toBe('low')
  for (const _ of [1, 2, 3]) {
    later(dayMs)
    await salinity(12)
  }
  expect((await regimen(id)).salinity?.stage).toBe('up')
  for (const _ of [1, 2, 3]) await change()
  expect([(await regimen(id)).salinity?.stage, await glassAgents('T1-01')]).toEqual(['house', []])
})

test('what is written wrongly is refused beside its field, and what is not there is not found', async () => {
  const id = await product({ ...copper, targetBasis: 'as product' })
  await say(marine[0]!.id)
  expect((await offer('Q1-01', id)).reasons.map(({ code }) => code)).toContain('basis')
  expect((await room.get('/api/regimens/none')).status).toBe(404)
  expect((await room.get(`/api/tanks/X9-99/dose-offer?product=${id}`)).status).toBe(404)
  expect((await room.get('/api/tanks/Q1-01/dose-offer?product=none')).status).toBe(422)
  expect((await room.post('/api/regimens/transfers', { tankId: apart[0]!.id, note: null, happenedAtMs: room.clock.nowMs, kind: 'transfer', tankIds: [apart[1]!.id, apart[0]!.id], transfers: 4, everyH: 72, lateH: 6, cleanDryH: 24 })).body.errors).toMatchObject([{ path: 'tankIds[0]' }])
  expect((await room.post(`/api/tanks/${marine[0]!.id}/water-changes`, { litres: 5000, productId: null, mixMgL: null, salinityPpt: null, regimenId: null, happenedAtMs: room.clock.nowMs })).body.errors).toMatchObject([{ path: 'litres' }])
})

test('low salinity asks the table too: never with invertebrates, and where it is refused a lead says why', async () => {
  const plan = { kind: 'low salinity', startOn: '2031-05-04', lowPpt: 12, housePpt: 34, holdDays: 3, fallPerDay: 12, upPerDay: 8, downPpt: 0, upPpt: 40, evapLPerDay: 0 }
  const start = (tankId: string, note: string | null = null) => room.post('/api/regimens/low-salinities', { tankId, note, happenedAtMs: room.clock.nowMs, ...plan })
  await room.addFish(apart[0], 'Cleaner shrimp', 1)
  expect((await start(apart[0]!.id, 'all the same')).body.errors).toMatchObject([{ path: 'tankId', message: expect.stringMatching(/harms invertebrates.*Nobody can override this\.$/) }])
  // Begun while nobody stood there, it stops at the shrimp that come later.
  const { id } = (await start(apart[1]!.id)).body as { id: string }
  await read(apart[1]!.id, 34, null, 'salinityPpt')
  expect((await regimen(id)).salinity).toMatchObject({ isRefused: false, down: [{ from: 34 }, { to: 12 }] })
  await room.addFish(apart[1], 'Cleaner shrimp', 1)
  const refused = await regimen(id)
  expect([refused.now, refused.salinity?.isRefused, refused.salinity?.down]).toEqual(['Not into this water.', true, []])
})

test('what is in a water and out of it again within a minute is out', async () => {
  for (let times = 0; times < 8; times += 1) {
    const tankId = [...marine, ...apart][times % 6]!.id
    await room.post(`/api/tanks/${tankId}/found-agents`, { agent: 'salt', happenedAtMs: room.clock.nowMs })
    const cleared = await room.post('/api/holds/cleared', { tankId, agent: 'salt', happenedAtMs: room.clock.nowMs })
    expect([cleared.status, (await list()).waters]).toEqual([201, []])
    if (times === 7) expect((await room.post(`/api/holds/entries/${cleared.body.id as string}/undo`, {})).body).toEqual({})
    later(120_000)
  }
  // And that may be taken back.
  expect((await list()).waters).toMatchObject([{ agents: [{ agent: 'salt' }] }])
})

test('a ladder needs a kit that reads its agent', async () => {
  const id = await product({ name: 'Praziquantel', agent: 'praziquantel', activePercent: 50, strengthBasis: 'as product', targetMgL: 2, targetBasis: 'as product' })
  expect((await room.post('/api/regimens/ladders', { tankId: apart[0]!.id, note: null, happenedAtMs: room.clock.nowMs, kind: 'ladder', productId: id, levelDays: 7 })).body.errors).toMatchObject([{ path: 'productId' }])
})
