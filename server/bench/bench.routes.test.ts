import { afterEach, beforeEach, describe, expect, test } from '@jest/globals'
import { figureInputs } from '../../core/bench/bagFigures'
import type { BenchSubject, BenchView, RunView } from '../../core/bench/benchView'
import type { TankView } from '../../core/room/roomView'
import { productValues } from '../../core/testing/productValues'
import { createTestRoom, plainBag, testNowMs, type TestRoom } from '../testing/testRoom'

let room: TestRoom
beforeEach(async () => {
  room = await createTestRoom({ sharing: 'each its own' })
})
afterEach(() => {
  expect(room.faults()).toEqual([])
  room.db.close()
})
const min = (minutes: number): number => testNowMs + minutes * 60_000
const at = (minutes: number): number => (room.clock.nowMs = min(minutes))

/** A crate with one line, its bags opened; returns the line's subject. */
async function openedLine(count = 6, bags = 2, findings = {}): Promise<BenchSubject & { crateId: string; bagIds: string[] }> {
  const crate = await room.crateOf([['Cherry barb', count, bags, room.tanks[0] ?? null]])
  const bagIds = crate.bags.map(({ id }: { id: string }) => id)
  await room.post(`/api/crates/${crate.id}/bags`, { ...plainBag(bagIds, count / bags), waterTempC: 22, ...findings })
  return { ...(await room.get(`/api/bench/subject?line=${crate.lines[0].id}`)).body, crateId: crate.id, bagIds }
}

/** What the browser would send to begin a run of these fish. */
const startOf = (subject: BenchSubject, schoolKey: string, more = {}) => ({
  ...{ kind: 'acclimation', schoolKey, agentId: null, tankId: subject.tank?.id ?? null, toOutside: null, isPooled: true, vessel: 'bucket', vesselL: 20, dropsPerMl: 20, isDark: false, sentence: null, predicted: null, happenedAtMs: room.clock.nowMs },
  sources: subject.sources.map(({ placeId, lotId, quantity }) => ({ placeId, lotId, quantity })),
  figures: Object.fromEntries(figureInputs.map(({ name }) => [name, subject.figures[name]?.value ?? null])),
  words: subject.words,
  ...more,
})
const start = async (subject: BenchSubject, schoolKey: string, more = {}): Promise<RunView> => {
  const answer = await room.post('/api/bench/runs', startOf(subject, schoolKey, more))
  expect(answer.body).toMatchObject({ number: expect.any(Number) })
  return runNow(answer.body.id)
}
const runNow = async (id: string): Promise<RunView> => (await room.get(`/api/bench/runs/${id}`)).body
const step = (run: RunView, stepIndex: number) => room.post(`/api/bench/runs/${run.id}/steps`, { stepIndex, happenedAtMs: room.clock.nowMs })
const count = (run: RunView, stepIndex: number, alive: number, dead: number, more = {}) =>
  room.post(`/api/bench/runs/${run.id}/count`, { stepIndex, counts: [{ lotId: run.sources[0]?.lotId, alive, dead }], tankId: null, look: 'as expected', cause: 'found dead', note: null, happenedAtMs: room.clock.nowMs, ...more })

test('what the books know is asked of nobody twice, each figure with where it comes from', async () => {
  const subject = await openedLine(6, 2, { salinityPpt: 0.2, ph: 6.8, ammoniaMgL: 2, hasBinder: true })
  expect(subject).toMatchObject({ title: '2 bags of Cherry barb', tank: { code: 'R1-01' }, triage: { step: 'as planned' }, words: { binder: 'yes', waterClass: 'hard' } })
  expect(subject.figures).toMatchObject({ bags: { value: 2, from: 'list' }, fish: { value: 3, from: 'list' }, measuredC: { value: 22, from: 'measured' }, measuredPh: { value: 6.8, from: 'measured' }, measuredTan: { value: 2, from: 'measured' }, waterL: { from: 'guess' }, tankC: { from: 'guess' }, roomC: { value: 22, from: 'house limit' } })
})

test('a drip from the bag to the last recheck: fish go bag, vessel, tank; the dead and the missing are booked', async () => {
  const subject = await openedLine()
  const run = await start(subject, 'drip')
  expect(run.plan.steps.map(({ title }) => title)).toEqual(['Float the bags shut', 'Pour into the vessel', 'Drip tank water in', 'Net over into R1-01'])
  at(20)
  await step(run, 0)
  at(21)
  await step(run, 1)
  expect((await room.get(`/api/crates/${subject.crateId}`)).body.bags.map((bag: { inBag: number; runId: string | null }) => [bag.inBag, bag.runId])).toEqual([[0, run.id], [0, run.id]])
  await room.post(`/api/bench/runs/${run.id}/readings`, { tempC: 23.5, salinityPpt: 0.3, ph: 7.1, tanMgL: null, isSimulated: false, happenedAtMs: at(40) })
  await room.post(`/api/bench/runs/${run.id}/flows`, { mlPerMin: 25, happenedAtMs: at(41) })
  expect((await runNow(run.id)).standing).toMatchObject([{ quantity: 6 }])
  at(90)
  await step(run, 2)
  // What is neither counted nor missed stays; who is missing needs a cause.
  const lotId = run.sources[0]?.lotId
  const missed = (missing: number, difference: string | null) => count(run, 3, 0, 0, { counts: [{ lotId, alive: 4, dead: 1, missing, difference }] })
  expect((await missed(1, null)).body.errors).toEqual([{ path: 'counts[0].difference', message: 'Say what became of the 1, as far as anybody knows' }])
  expect((await missed(2, 'jumped')).body.errors[0].path).toBe('counts[0].missing')
  expect((await missed(1, 'jumped')).body).toEqual({ alive: 4, dead: 1, rest: 0 })
  expect(Object.values(await room.stockIn(room.tanks[0]))).toEqual([4])
  const ended = await runNow(run.id)
  expect(ended).toMatchObject({ endedAtMs: min(90), outAtMs: min(90), countedAlive: 4, countedDead: 1, look: 'as expected', standing: [] })
  const { rechecks } = (await room.get('/api/bench')).body as BenchView
  expect(rechecks.map(({ label, tankCodes }) => [label, tankCodes])).toEqual([['15 min', ['R1-01']], ['1 h', ['R1-01']], ['4 h', ['R1-01']], ['next morning', ['R1-01']]])
  expect(new Date(rechecks[3]?.dueAtMs ?? 0).toISOString()).toBe('2031-05-05T08:00:00.000Z')
  // Whoever walks by is told of it too, until it is answered.
  const onTank = async () => ((await room.get('/api/tanks/R1-01')).body as TankView).judged?.rechecks
  expect(await onTank()).toEqual([expect.stringMatching(/^the bench asks for a look, 15 min after the run: .+ usual by now$/)])
  expect((await room.post(`/api/bench/rechecks/${rechecks[0]?.id}/answer`, { look: 'worse', note: 'one on its side', happenedAtMs: at(106) })).status).toBe(201)
  expect((await room.post(`/api/bench/rechecks/${rechecks[0]?.id}/answer`, { look: 'better', note: null, happenedAtMs: at(106) })).body).toMatchObject({ code: 'conflict', current: { look: 'worse' } })
  expect((await room.get('/api/today')).body.rechecks).toMatchObject([{ label: '15 min', look: 'worse' }])
  expect((await room.get(`/api/crates/${subject.crateId}`)).body).toMatchObject({ went: [{ tankCode: 'R1-01', fish: 4 }], lastPlacement: null })
  // They are looked at where they are, not where they were; of fish that are gone nothing is asked.
  const tanksToLookAt = async () => ((await room.get('/api/bench')).body as BenchView).rechecks.filter(({ doneAtMs }) => doneAtMs === null).map(({ tankCodes }) => tankCodes.join())
  const move = (from: number, to: number, quantity: number) => room.post(`/api/tanks/${room.tanks[from]?.id}/moves`, { lotId, quantity, toTankId: room.tanks[to]?.id, note: null, happenedAtMs: at(120) })
  await move(0, 1, 3)
  await move(1, 2, 1)
  expect(await tanksToLookAt()).toEqual(['R1-01,R1-02,R1-03', 'R1-01,R1-02,R1-03', 'R1-01,R1-02,R1-03'])
  await move(0, 2, 1)
  await move(1, 2, 2)
  expect(await tanksToLookAt()).toEqual(['R1-03', 'R1-03', 'R1-03'])
  await room.post(`/api/tanks/${room.tanks[2]?.id}/losses`, { lotId, quantity: 4, cause: 'unknown', note: null, happenedAtMs: at(130) })
  expect(await tanksToLookAt()).toEqual([])
})

test('more fish than the books say come in with their reason; what a run wrote is not taken back behind its back', async () => {
  const subject = await openedLine()
  const run = await start(subject, 'netOver')
  await step(run, 0)
  await step(run, 1)
  expect((await count(run, 2, 7, 0)).body.errors[0]).toMatchObject({ path: 'counts[0].difference' })
  await count(run, 2, 0, 0, { counts: [{ lotId: run.sources[0]?.lotId, alive: 7, dead: 0, difference: 'counted wrong before' }] })
  const tank = (await room.get('/api/tanks/R1-01')).body
  expect(tank.stock).toMatchObject([{ quantity: 7 }])
  const moved = tank.timeline.find(({ kind }: { kind: string }) => kind === 'move')
  expect(moved.fixedBecause).toBe('Part of run 1 on the bench: move the fish or correct the count.')
  expect((await room.post(`/api/movements/${moved.id}/reversal`, { reason: null, happenedAtMs: testNowMs })).body.code).toBe('conflict')
})

test('two devices: a step is done once, an entry is taken back by the newest first, and fish go back into their bags with it', async () => {
  const subject = await openedLine()
  const run = await start(subject, 'siphon')
  await step(run, 0)
  expect((await step(run, 0)).body).toMatchObject({ code: 'stale', detail: 'Somebody else went on to step 2 meanwhile', current: { stepIndex: 1 } })
  await room.post(`/api/bench/runs/${run.id}/switches`, { what: 'air', isOn: true, happenedAtMs: testNowMs })
  const { events } = await runNow(run.id)
  const undo = (id: string | undefined) => room.post(`/api/bench/runs/${run.id}/undone-entries`, { eventId: id, happenedAtMs: testNowMs })
  expect((await undo(events[0]?.id)).body.detail).toBe('Something was recorded after it; take that back first')
  await undo(events[1]?.id)
  expect((await undo(events[0]?.id)).status).toBe(201)
  expect((await room.get(`/api/crates/${subject.crateId}`)).body.bags.map((bag: { inBag: number }) => bag.inBag)).toEqual([3, 3])
  expect((await runNow(run.id)).events).toEqual([])
})

test('fish on the bench are not placed past it, nor put on it twice; a run with fish in its vessel is not simply ended', async () => {
  const subject = await openedLine()
  const run = await start(subject, 'siphon')
  expect((await room.post('/api/bench/runs', startOf(subject, 'netOver'))).body.detail).toBe('These fish are on the bench already (run 1)')
  expect((await room.post(`/api/crates/${subject.crateId}/placements`, { tankId: null, happenedAtMs: testNowMs })).body.detail).toBe('No fish in bags have a planned tank here')
  await step(run, 0)
  const stop = () => room.post(`/api/bench/runs/${run.id}/stop`, { because: 'the tank cracked', happenedAtMs: testNowMs })
  expect((await stop()).body.detail).toBe('6 fish stand in the vessel: say which tank they are in')
  await step(run, 1)
  await count(run, 2, 6, 0, { tankId: room.tanks[1]?.id })
  expect(Object.values(await room.stockIn(room.tanks[1]))).toEqual([6])
  expect((await stop()).body.code).toBe('conflict')
})

test('bag water that goes in with its fish is put in the books of the tank; a tank made ready goes back over days', async () => {
  const subject = await openedLine()
  const marine = { ...subject, figures: { ...subject.figures, tankPpt: { value: 34, from: 'system' }, preparedPpt: { value: 28, from: 'system' }, measuredPpt: { value: 28, from: 'measured' } }, words: { ...subject.words, waterClass: 'marine' } } as BenchSubject
  const run = await start(marine, 'matched')
  await step(run, 0)
  await step(run, 1)
  await count(run, 2, 6, 0)
  const after = await runNow(run.id)
  expect(after).toMatchObject({ endedAtMs: null, load: { litres: run.plan.startL } })
  expect(after.load?.tanMgL).toBeGreaterThan(0)
  expect(after.plan.steps.slice(3).map(({ toPpt }) => toPpt)).toEqual([31, 34])
  await step(run, 3)
  await step(run, 4)
  expect((await runNow(run.id)).endedAtMs).not.toBeNull()
})

test('a bath by the agent’s entry; a look that frees the plan; a visit out of the room', async () => {
  const subject = await openedLine()
  const noAgent = await room.post('/api/bench/runs', startOf(subject, '', { kind: 'bath', schoolKey: null }))
  expect(noAgent.body.errors).toEqual([{ path: 'agentId', message: 'Choose the agent; the list is in Setup, Agents' }])
  const added = await room.post('/api/setup/agents', { values: productValues({ name: 'methylene blue', substance: 'methylene blue', strengthMgPerMl: 10, bathMgL: 5, bathMinutes: 20 }) })
  const look = await start(subject, '', { kind: 'look', schoolKey: null })
  await step(look, 0)
  expect((await step(look, 1)).body.detail).toBe('Say whether they are added or not')
  await room.post(`/api/bench/runs/${look.id}/decision`, { outcome: 'do not add', note: 'the resident bit at the bag', happenedAtMs: testNowMs })
  expect((await room.get(`/api/crates/${subject.crateId}`)).body.lines[0].tank).toBeNull()

  const bath = await start(subject, '', { kind: 'bath', schoolKey: null, agentId: added.body.id, tankId: room.tanks[2]?.id })
  expect(bath.plan.steps[0]?.detail).toContain('2.0 mL of methylene blue (10 mg in a mL) for 5 mg/L')
  // Water like the bag’s, not the tank’s; from there the fish are acclimated, and counted out at the end.
  expect(bath.plan.steps[0]?.detail).toMatch(/^\d+ L of clean water like the bag’s, \d\d\.\d °C and 0\.4 ppt; air stone on\./)
  const out = bath.plan.steps.findIndex(({ countsOut }) => countsOut)
  expect(bath.plan.steps[1]?.water).toMatchObject([{ do: 'into', salinityPpt: 0.4 }])
  for (let index = 0; index < out; index += 1) await step(bath, index)
  await count(bath, out, 6, 0)
  expect(Object.values(await room.stockIn(room.tanks[2]))).toEqual([6])

  const lotId = subject.sources[0]?.lotId
  const away = (await room.get(`/api/bench/subject?lot=${lotId}&from=${room.tanks[2]?.id}`)).body as BenchSubject
  const typed = { tankC: { value: 25, from: 'told' }, tankPpt: { value: 0.2, from: 'told' }, tankAlkalinity: { value: 2, from: 'told' }, tankPh: { value: 7.5, from: 'told' } }
  const visit = await start({ ...away, figures: { ...away.figures, ...typed } } as BenchSubject, 'straight', { tankId: null, toOutside: 'the customer with the long tank', isPooled: false })
  expect(Object.values(await room.stockIn(room.tanks[2]))).toEqual([])
  await step(visit, 0)
  await count(visit, 1, 6, 0)
  expect((await runNow(visit.id)).endedAtMs).not.toBeNull()
})

describe('nonsense', () => {
  test.each([
    [{ figures: { waterL: -1 } }, 'figures.waterL', 'water in a bag must be a number between 0.02 and 100 L'],
    [{ figures: { tankPpt: 60 } }, 'figures.tankPpt', 'salinity must be a number between 0 and 40 ppt'],
    [{ figures: { tankPh: 15 } }, 'figures.tankPh', 'pH must be a number between 5 and 9.5'],
    [{ figures: { measuredC: 400 } }, 'figures.measuredC', 'temperature must be a number between 5 and 35 °C'],
    [{ figures: { tankC: null } }, 'figures.tankC', 'Say the temperature'],
    [{ figures: { fish: 'many' } }, 'figures.fish', 'fish in a bag must be a number between 1 and 5000'],
    [{ words: { waterClass: 'lava' } }, 'words.waterClass', 'supplier’s water must be one of: marine, brackish, hard, soft, unknown'],
    [{ vesselL: 0 }, 'vesselL', 'A vessel holds at least 0.2 L'],
    [{ dropsPerMl: 0 }, 'dropsPerMl', 'A millilitre has at least 5 drops'],
    [{ schoolKey: 'magic' }, 'schoolKey', 'There is no such school'],
    [{ schoolKey: 'ramp' }, 'schoolKey', 'Ramp in the tank is not for this delivery'],
    [{ tankId: 'nowhere' }, 'tankId', 'There is no such tank'],
    [{ tankId: null }, 'tankId', 'Say which tank the fish go to, or to whom'],
    [{ sources: [] }, 'sources', 'No fish are named'],
    [{ kind: 'spell' }, 'kind', 'Kind must be one of: acclimation, bath, dip, look'],
  ] as [Record<string, unknown>, string, string][])('%j', async (wrong, path, message) => {
    const subject = await openedLine()
    const body = startOf(subject, 'drip') as Record<string, unknown>
    const merged = Object.fromEntries(Object.entries(body).map(([key, value]) => [key, key in wrong ? (key === 'figures' || key === 'words' ? { ...(value as object), ...(wrong[key] as object) } : wrong[key]) : value]))
    const answer = await room.post('/api/bench/runs', merged)
    expect([answer.status, answer.body.errors]).toEqual([422, [{ path, message }]])
    expect((await room.get('/api/bench')).body.runs).toEqual([])
  })

  test('a vessel too small, readings out of any range, a flow that is none, a count of a lot that is not there', async () => {
    const subject = await openedLine()
    expect((await room.post('/api/bench/runs', startOf(subject, 'siphon', { vesselL: 0.3, figures: { ...startOf(subject, 'siphon').figures, waterL: 2 } }))).body.errors).toEqual([{ path: 'vesselL', message: 'The vessel holds 0.3 L, less than the 4.0 L of bag water' }])
    const run = await start(subject, 'siphon')
    const reading = { tempC: null, salinityPpt: null, ph: null, tanMgL: null, isSimulated: false, happenedAtMs: testNowMs }
    expect((await room.post(`/api/bench/runs/${run.id}/readings`, reading)).body.errors[0].message).toBe('Nothing was read')
    expect((await room.post(`/api/bench/runs/${run.id}/readings`, { ...reading, salinityPpt: 60 })).body.errors).toEqual([{ path: 'salinityPpt', message: 'Salinity must be at most 45 ppt' }])
    expect((await room.post(`/api/bench/runs/${run.id}/flows`, { mlPerMin: -3, happenedAtMs: testNowMs })).body.errors[0].message).toBe('Flow must be at least 0 mL a minute')
    await step(run, 0)
    await step(run, 1)
    expect((await room.post(`/api/bench/runs/${run.id}/count`, { stepIndex: 2, counts: [{ lotId: 'other', alive: 1, dead: 0 }], tankId: null, look: 'as expected', cause: 'unknown', note: null, happenedAtMs: testNowMs })).body.errors[0].path).toBe('counts[0]')
  })
})

test('a forgotten run alarms on Today; the meter answers while there is a vessel', async () => {
  const subject = await openedLine()
  const run = await start(subject, 'netOver')
  expect((await room.get('/api/today')).body.runs).toMatchObject([{ number: 1, species: 'Cherry barb', isForgotten: false, isAlarm: false }])
  at(120)
  expect((await room.get('/api/today')).body.runs).toMatchObject([{ isForgotten: true, isAlarm: true, words: expect.stringMatching(/^Forgotten\? Float the bags shut: time is up/) }])
  expect((await room.get(`/api/bench/runs/${run.id}/meter`)).body).toMatchObject({ isSimulated: true, tempC: expect.any(Number), ph: expect.any(Number) })
  expect((await room.post('/api/bench/airlines', { name: 'blue line', dropsPerMl: 17 })).status).toBe(201)
  await room.post('/api/bench/airlines', { name: 'Blue line', dropsPerMl: 18 })
  expect((await room.get('/api/bench')).body.airlines).toMatchObject([{ name: 'blue line', dropsPerMl: 18, by: 'Imre' }])
})

test('plan, bath and alarms speak the units of the room, also what was planned before they were changed', async () => {
  const subject = await openedLine()
  const before = await start(subject, 'drip')
  const settings = { name: 'Lantern Quay Fishroom', timeZone: 'UTC', temperatureUnit: '°F', volumeUnit: 'gal', salinityUnit: 'SG', sgReference: '25/25', version: 1 }
  expect((await room.put('/api/room/settings', settings)).status).toBe(200)
  expect((await runNow(before.id)).plan.steps[2]?.detail).toMatch(/^[\d.]+ US gal in 60 min/)
  const other = await openedLine()
  const after = await start(other, 'drip', { vesselL: 1.2 })
  expect(after.plan.steps[2]?.detail).toMatch(/^[\d.]+ US gal in 60 min/)
  const added = await room.post('/api/setup/agents', { values: productValues({ name: 'methylene blue', substance: 'methylene blue', strengthMgPerMl: 10, bathMgL: 5, bathMinutes: 20 }) })
  const bath = await start(await openedLine(), '', { kind: 'bath', schoolKey: null, agentId: added.body.id })
  expect(bath.plan.steps[0]?.detail).toMatch(/^1\.1 US gal of clean water like the bag’s, 71\.6 °F and 1\.0003 SG/)
  at(20)
  await step(after, 0)
  await step(after, 1)
  at(75)
  const { runs } = (await room.get('/api/today')).body as { runs: { id: string; words: string }[] }
  expect(runs.find(({ id }) => id === after.id)?.words).toMatch(/The vessel is full: about \d\.\d US gal of 0\.\d+ US gal\./)
})

test('nothing is written on a run that has ended, in a step that is over, or before the step in hand began', async () => {
  const run = await start(await openedLine(), 'straight')
  const reading = { tempC: 24, salinityPpt: null, ph: null, tanMgL: null, isSimulated: false }
  at(10)
  await step(run, 0)
  expect((await step(run, 0)).body).toMatchObject({ code: 'stale', current: { stepIndex: 1 } })
  expect((await room.post(`/api/bench/runs/${run.id}/steps`, { stepIndex: 1, happenedAtMs: min(5) })).body.errors).toEqual([{ path: 'happenedAtMs', message: 'This step began later than that' }])
  expect((await step(run, 1)).body.detail).toBe('Count the fish out with this step')
  expect((await room.post(`/api/bench/runs/${run.id}/readings`, { ...reading, tempC: null, happenedAtMs: min(10) })).status).toBe(422)
  await count(run, 1, 6, 0)
  for (const [path, body] of [['readings', reading], ['flows', { mlPerMin: 3 }], ['switches', { what: 'air', isOn: true }], ['snoozes', { alarm: 'lid' }], ['stop', { because: 'late' }]] as const) {
    const answer = await room.post(`/api/bench/runs/${run.id}/${path}`, { ...body, happenedAtMs: min(11) })
    expect([path, answer.status, answer.body.detail]).toEqual([path, 409, `Run ${run.number} has ended`])
  }
  expect((await runNow(run.id)).events.map(({ kind }) => kind)).toEqual(['step', 'step'])
})

test('a recheck is answered once; the second device is told what the first one saw', async () => {
  const run = await start(await openedLine(), 'straight')
  at(15)
  await step(run, 0)
  await count(run, 1, 6, 0)
  at(31)
  const due = ((await room.get('/api/today')).body.rechecks as { id: string; label: string; runId: string }[]).filter(({ runId }) => runId === run.id)
  expect(due.map(({ label }) => label)).toEqual(['15 min'])
  const answer = (look: string) => room.post(`/api/bench/rechecks/${due[0]?.id}/answer`, { look, note: null, happenedAtMs: room.clock.nowMs })
  expect((await answer('worse')).status).toBe(201)
  expect((await answer('better')).body).toMatchObject({ code: 'conflict', detail: 'Somebody else did this recheck meanwhile: worse', current: { look: 'worse' } })
  expect((await room.post('/api/bench/rechecks/none/answer', { look: 'better', note: null, happenedAtMs: room.clock.nowMs })).status).toBe(404)
  // What looked worse stays on Today, answered or not.
  expect((await room.get('/api/today')).body.rechecks).toMatchObject([{ id: due[0]?.id, look: 'worse' }])
})

test('after a run with lights off, Today says when to turn them up', async () => {
  const run = await start(await openedLine(), 'straight', { isDark: true })
  await step(run, 0)
  await count(run, 1, 6, 0)
  at(4 * 60)
  const { rechecks } = (await room.get('/api/today')).body as { rechecks: { label: string; usual: string }[] }
  expect(rechecks.find(({ label }) => label === '4 h')?.usual).toMatch(/^lights up slowly now; hiding/)
})

describe('a run that everybody forgot', () => {
  const everyScreen = ['/api/today', '/api/room', '/api/rounds/today', '/api/crates', '/api/bench', '/api/setup/suppliers', '/api/tanks/R1-01']
  const statuses = async (): Promise<number[]> => Promise.all(everyScreen.map(async (path) => (await room.get(path)).status))
  const allWell = everyScreen.map(() => 200)
  /** A drip whose bags floated until minute 20 and were poured by `pouredMin`. */
  async function dripping(pouredMin: number): Promise<RunView> {
    const run = await start(await openedLine(), 'drip')
    at(20)
    await step(run, 0)
    at(pouredMin)
    await step(run, 1)
    return run
  }

  test('twenty days later every screen opens, Today says what is not reckoned, and it can be ended', async () => {
    const run = await dripping(21)
    for (const day of [1, 5, 10, 14, 20, 29]) {
      at(day * 1440)
      expect(await statuses()).toEqual(allWell)
      const [row] = (await room.get('/api/today')).body.runs
      expect(row).toMatchObject({ number: run.number, isForgotten: true, isAlarm: true })
    }
    at(20 * 1440)
    const meter = await room.get(`/api/bench/runs/${run.id}/meter`)
    expect([meter.status, meter.body.code]).toEqual([409, 'conflict'])
    const stop = (more: object) => room.post(`/api/bench/runs/${run.id}/stop`, { because: 'forgotten', happenedAtMs: room.clock.nowMs, ...more })
    expect((await stop({})).body.errors).toEqual([{ path: 'tankId', message: '6 fish stand in the vessel: say which tank they are in' }])
    expect((await stop({ tankId: 'nowhere' })).body.errors[0].path).toBe('tankId')
    expect((await stop({ tankId: room.tanks[2]?.id })).status).toBe(201)
    expect(Object.values(await room.stockIn(room.tanks[2]))).toEqual([6])
    expect(await runNow(run.id)).toMatchObject({ inVessel: 0, standing: [], outcome: 'stopped: forgotten', tank: { code: 'R1-03' } })
  })

  test('a run that cannot be followed at all stays in its row and can be ended', async () => {
    const subject = await openedLine()
    const [first, second] = startOf(subject, 'drip').sources
    const [broken, well] = [await start(subject, 'drip', { sources: [first] }), await start(subject, 'netOver', { sources: [second] })]
    room.db.raw.prepare(`UPDATE run SET plan = json_remove(plan, '$.question') WHERE id = ?`).run(broken.id)
    expect(await statuses()).toEqual(allWell)
    const { runs } = (await room.get('/api/today')).body
    expect(runs.map(({ number, words }: { number: number; words: string }) => [number, words])).toEqual(expect.arrayContaining([[broken.number, expect.stringMatching(/cannot be reckoned/)], [well.number, expect.not.stringMatching(/cannot/)]]))
    expect((await room.post(`/api/bench/runs/${broken.id}/stop`, { because: 'broken', happenedAtMs: room.clock.nowMs })).status).toBe(201)
  })

  test('it is begun at most two days back, and nothing on it happened before it', async () => {
    const subject = await openedLine()
    const answer = await room.post('/api/bench/runs', startOf(subject, 'drip', { happenedAtMs: min(-20 * 1440) }))
    expect(answer.body.errors[0]).toMatchObject({ path: 'happenedAtMs', message: expect.stringMatching(/at most two days ago/) })
    const run = await start(subject, 'drip', { happenedAtMs: min(-60) })
    for (const [part, body] of [['readings', { tempC: 20, salinityPpt: null, ph: null, tanMgL: null, isSimulated: false }], ['flows', { mlPerMin: 20 }], ['stop', { because: 'x' }], ['steps', { stepIndex: 0 }]] as const) {
      expect((await room.post(`/api/bench/runs/${run.id}/${part}`, { ...body, happenedAtMs: min(-61) })).body.errors[0].path).toBe('happenedAtMs')
    }
  })

  test('what a device sends late belongs to the step that was in hand when it happened', async () => {
    const run = await dripping(25)
    at(30)
    await room.post(`/api/bench/runs/${run.id}/readings`, { tempC: 22, salinityPpt: null, ph: null, tanMgL: null, isSimulated: false, happenedAtMs: min(19) })
    expect((await runNow(run.id)).events.find(({ kind }) => kind === 'reading')).toMatchObject({ stepIndex: 0, atMs: min(19) })
  })
})

test('fish of several lots go on the bench as one kind, are counted out as one kind, and a count is taken back exactly', async () => {
  const lotId = await room.addFish(room.tanks[2], 'Cherry barb', 7)
  await room.addFish(room.tanks[2], 'Cherry barb', 4)
  const books = async (): Promise<unknown[]> => room.db.raw.prepare(`SELECT place_id, lot_id, millionths FROM expected_stock ORDER BY 1, 2`).all([])
  const before = await books()
  const subject = (await room.get(`/api/bench/subject?lot=${lotId}&from=${room.tanks[2]?.id}&kind=1&tank=${room.tanks[3]?.id}`)).body as BenchSubject
  expect(subject).toMatchObject({ title: '11 Cherry barb from R1-03', sources: [{ quantity: 11, isOfKind: true }] })
  const sources = subject.sources.map(({ placeId, lotId: any }) => ({ placeId, lotId: any, quantity: 6, isOfKind: true }))
  const run = await start(subject, 'drip', { sources })
  expect(run.standing.reduce((sum, { quantity }) => sum + quantity, 0)).toBe(6)
  expect(run.standing).toHaveLength(2)
  const tooMany = await room.post('/api/bench/runs', startOf(subject, 'drip', { sources: sources.map((each) => ({ ...each, quantity: 9 })) }))
  expect(tooMany.body.errors[0].message).toBe('Only 5 stand there now')
  let index = 0
  for (; index < run.plan.steps.length - 1; index += 1) await step(run, index)
  const onBench = await books()
  const counted = (alive: number, dead: number, more = {}) => count(run, index, 0, 0, { counts: [{ lotId: run.standing[0]?.lotId, isOfKind: true, alive, dead, ...more }] })
  expect((await counted(6, 1)).body.errors[0].message).toContain('The books have 6 and 7 were counted')
  expect((await counted(4, 1)).body).toEqual({ alive: 4, dead: 1, rest: 1 })
  const { events } = await runNow(run.id)
  expect((await room.post(`/api/bench/runs/${run.id}/undone-entries`, { eventId: events.at(-1)?.id, happenedAtMs: room.clock.nowMs })).status).toBeLessThan(300)
  expect(await books()).toEqual(onBench)
  expect((await counted(6, 0)).body).toEqual({ alive: 6, dead: 0, rest: 0 })
  const fish = async (code: string): Promise<number> => (await room.get(`/api/tanks/${code}`)).body.stock.reduce((sum: number, { quantity }: { quantity: number }) => sum + quantity, 0)
  expect([await fish('R1-03'), await fish('R1-04')]).toEqual([5, 6])
  expect(before).toHaveLength(2)
})
