import { afterEach, beforeEach, describe, expect, test } from '@jest/globals'
import type { CrateView } from '../../core/crates/crateView'
import type { OutcomeLotsView } from '../../core/outcomes/outcomes.api'
import { kindRowOf } from '../../core/outcomes/outcomeLot'
import { outcomesPage, type OutcomesQuestion } from '../../core/outcomes/outcomesPage'
import type { AlarmsView, HintsView, MoneyView, ReviewView, TrialOfCrate, TrialsView } from '../../core/outcomes/outcomeViews'
import { createTestRoom, plainBag, quietCheck, testNowMs, type TestRoom, type TestTank } from '../testing/testRoom'

const dayMs = 86_400_000
let room: TestRoom
beforeEach(async () => {
  room = await createTestRoom({ tankCount: 8, sharing: 'each its own' })
})
afterEach(() => room.db.close())

const ask = async <T>(path: string): Promise<T> => (await room.get(path)).body as T
/** Questions that a lead alone asks. */
const askAsLead = async <T>(path: string): Promise<T> => {
  const { default: request } = await import('supertest')
  return (await request(room.app).get(path).set('Cookie', room.cookie).set('X-Recording', room.leadId)).body as T
}
const lots = (): Promise<OutcomeLotsView> => ask('/api/outcomes/lots')
const at = (day: number): number => testNowMs + day * dayMs
/** A crate of one line comes on a day: opened, and its living put into their tank. */
async function take(day: number, fish: number, { species = 'Cherry barb', dead = 0, tank = room.tanks[0] as TestTank, override = null as string | null } = {}): Promise<{ crateId: string; lotId: string }> {
  room.clock.nowMs = at(day)
  const crate: CrateView = await room.crateOf([[species, fish, 1, tank]], override)
  expect((await room.post(`/api/crates/${crate.id}/bags`, { ...plainBag([crate.bags[0]?.id ?? ''], fish - dead), dead, happenedAtMs: at(day) })).status).toBe(201)
  expect((await room.post(`/api/crates/${crate.id}/placements`, { tankId: tank.id, override: 'test', happenedAtMs: at(day) })).status).toBe(201)
  return { crateId: crate.id, lotId: crate.lines[0]?.lotId ?? '' }
}
const lose = (tank: TestTank, day: number, fish: object, quantity: number, cause = 'found dead') => {
  room.clock.nowMs = Math.max(room.clock.nowMs, at(day))
  return room.post(`/api/tanks/${tank.id}/losses`, { ...fish, quantity, cause, note: null, happenedAtMs: at(day) })
}
const question: OutcomesQuestion = { by: 'supplier', day: 14, died: 'anything', supplier: null, species: null, origin: null, from: null, until: null, pair: null }

describe('lots as figures have them', () => {
  test('from the bag to the day fish died, were sold and came to light again', async () => {
    const tank = room.tanks[0] as TestTank
    const { lotId } = await take(0, 20, { dead: 2 })
    await lose(tank, 3, { lotId }, 2)
    const missing = await lose(tank, 5, { lotId }, 3, 'not found')
    expect((await room.post(`/api/tanks/${tank.id}/releases`, { lotId, quantity: 4, reason: 'sold', heldBecause: 'test', note: null, happenedAtMs: at(5) })).status).toBe(201)
    room.clock.nowMs = at(8)
    const [lot] = (await lots()).lots
    expect(lot).toMatchObject({ species: 'Cherry barb', supplier: 'Hollow Reed Hatchery', crateNumber: 1, received: 20, deadInBag: 2, n: 18, until: 8, missing: 3, condition: 'weak', school: null })
    expect(kindRowOf(lot!).out).toEqual([{ day: 3, dead: { 'first days': 2 }, gone: 0 }, { day: 5, dead: { 'not found': 3 }, gone: 4 }])
    // Found again: they never died. Taken back: it never was.
    expect((await room.post(`/api/tanks/${tank.id}/counts`, { lotId, expected: 9, counted: 12, reason: 'behind the filter', happenedAtMs: at(8) })).status).toBe(201)
    const [found] = (await lots()).lots
    expect([found?.missing, kindRowOf(found!).out]).toEqual([0, [{ day: 3, dead: { 'first days': 2 }, gone: 0 }, { day: 5, dead: {}, gone: 4 }]])
    expect(missing.status).toBe(201)
  })

  test('a death of fish that stand together counts in parts, on each lot’s own day, and nothing of it is lost', async () => {
    const tank = room.tanks[0] as TestTank
    await take(0, 10)
    await take(10, 10)
    const { stock } = await ask<{ stock: { speciesId: string }[] }>(`/api/tanks/${tank.code}`)
    expect((await lose(tank, 12, { speciesId: stock[0]?.speciesId, strain: null }, 2)).status).toBe(201)
    const shared = (await lots()).lots
    const dead = shared.map((lot) => kindRowOf(lot).out.map(({ day, dead: kinds }) => [day, Object.values(kinds).reduce((sum, fish) => sum + fish, 0)]))
    expect(dead.map((rows) => rows.map(([day]) => day)).sort()).toEqual([[12], [2]])
    expect(dead.flat().reduce((sum, [, fish = 0]) => sum + fish, 0)).toBeCloseTo(2, 6)
    expect(shared.reduce((sum, lot) => sum + lot.shared, 0)).toBeCloseTo(2, 6)
  })

  test('fish that were brought in are not followed, and said to be', async () => {
    await room.addFish(room.tanks[1], 'Oscar', 3)
    expect(await lots()).toMatchObject({ lots: [], notFollowed: 1 })
  })

  test('late gasping is what was seen: looked at, eating, breathing fast, no spots', async () => {
    const tank = room.tanks[0] as TestTank
    const { lotId } = await take(0, 12)
    room.clock.nowMs = at(9)
    await room.post('/api/checks', { ...quietCheck(tank.id), signs: ['fast breathing'], happenedAtMs: at(9) - 3_600_000 })
    await lose(tank, 9, { lotId }, 1)
    const [lot] = (await lots()).lots
    expect(kindRowOf(lot!).out).toEqual([{ day: 9, dead: { 'late gasping': 1 }, gone: 0 }])
  })
})

test('an alarm rings on many deaths of one water, shows what to look at, and stands until a lead answers; named an outbreak, they are one event', async () => {
  const tank = room.tanks[0] as TestTank
  const { lotId } = await take(0, 40)
  expect((await ask<AlarmsView>('/api/outcomes/alarms')).alarms).toEqual([])
  await lose(tank, 20, { lotId }, 9)
  const [alarm] = (await ask<AlarmsView>('/api/outcomes/alarms')).alarms
  expect(alarm).toMatchObject({ kind: 'water', state: 'sudden', dead: 9, name: expect.stringContaining(tank.code), sentence: expect.stringContaining('9 lost on 2031-05-24') })
  expect(alarm?.lookNext).toHaveLength(3)
  // Days later it still stands, as it was.
  room.clock.nowMs = at(23)
  expect((await ask<AlarmsView>('/api/outcomes/alarms')).alarms[0]).toMatchObject({ state: 'sudden', raisedOn: '2031-05-24' })
  const answer = (body: object) => room.post('/api/outcomes/alarm-answers', { stream: alarm?.stream, found: 'heater stuck, 31 °C', outbreak: null, ...body })
  expect((await answer({ found: '' })).body.errors).toMatchObject([{ path: 'found' }])
  expect((await answer({ outbreak: 'R1-01 in May' })).status).toBe(201)
  const after = await ask<AlarmsView>('/api/outcomes/alarms')
  expect([after.alarms.filter(({ state }) => state === 'sudden'), after.answered[0]?.found]).toEqual([[], 'heater stuck, 31 °C'])
  expect((await lots()).lots[0]?.events).toEqual([[20, 'R1-01 in May']])
  expect((await answer({})).status).toBe(409)
  // It was none: its deaths are those of their crate again, once.
  const undo = () => room.post(`/api/outcomes/outbreaks/${after.outbreaks[0]?.id}/undo`, {})
  expect([(await undo()).status, (await undo()).status, (await lots()).lots[0]?.events]).toEqual([201, 404, []])
})

test('hints say what speaks for and against, and what to look at; with nothing lost they point nowhere', async () => {
  const tank = room.tanks[0] as TestTank
  const { lotId } = await take(0, 20)
  room.clock.nowMs = at(10)
  await room.post('/api/checks', { ...quietCheck(tank.id), signs: ['gasping'], happenedAtMs: at(10) - 3_600_000 })
  expect(await ask<HintsView>(`/api/tanks/${tank.code}/loss-hints`)).toMatchObject({ lost: 0 })
  await lose(tank, 10, { lotId }, 2)
  const hints = await ask<HintsView>(`/api/tanks/${tank.code}/loss-hints`)
  expect(hints).toMatchObject({ lost: 2, hints: [{ cause: expect.stringContaining('the gills'), word: 'points to', for: expect.arrayContaining(['gasping or fast breathing', 'still eating']) }] })
  expect(hints.lookNext.length).toBeGreaterThan(0)
  expect((await room.get('/api/tanks/R9-99/loss-hints')).status).toBe(404)
})

test('a comparison too few, said so; and one whose crates are enough', async () => {
  for (const [index, tank] of room.tanks.slice(0, 4).entries()) await take(index, 20, { species: index < 2 ? 'Cherry barb' : 'Honey gourami', tank })
  room.clock.nowMs = at(25)
  const { lots: all, today, rules } = await lots()
  const view = outcomesPage({ lots: all, today, rules, question: { ...question, by: 'species' } })
  expect([view.tests, view.sentence]).toEqual([0, expect.stringMatching(/^Too few to tell: 2 crates of Cherry barb against 2 of Honey gourami\. About \d+ crates of each would settle/)])
})

describe('a trial', () => {
  const start = (more: object = {}) => room.post('/api/outcomes/trials', { schoolA: 'Net-over', schoolB: 'Slow drip', suppliers: ['Hollow Reed Hatchery'], day: 7, looks: 1, lossPercentA: 5, lossPercentB: 80, note: null, ...more })

  test('is refused where it says nothing, asks for too much, or knows nothing of a supplier', async () => {
    expect((await start()).body.errors).toMatchObject([{ path: 'suppliers' }])
    await take(0, 20)
    expect((await start({ schoolB: 'Net-over' })).body.errors).toMatchObject([{ path: 'schoolB' }])
    expect((await start({ lossPercentB: 5 })).body.errors).toMatchObject([{ path: 'lossPercentB' }])
    expect((await start({ lossPercentB: 6 })).body.errors).toMatchObject([{ path: 'lossPercentB', message: expect.stringContaining('more than two years') }])
  })

  test('goes from its start over crates, a pause and a look to its result; nobody sees more than the next', async () => {
    for (const index of [0, 1, 2, 3, 4, 5]) await take(index / 10, 12, { tank: room.tanks[index] as TestTank })
    const started = await start()
    expect(started.status).toBe(201)
    const { id: trialId, cratesPerSchool } = started.body as { id: string; cratesPerSchool: number }
    expect((await start()).status).toBe(409)
    expect(JSON.stringify((await ask<TrialsView>('/api/outcomes/trials')).trials)).not.toContain('"order"')
    const join = (crateId: string, worst = { worstA: 0.4, worstB: 0.5 }) => room.post(`/api/outcomes/trials/${trialId}/crates`, { crateId, ...worst, hasBinder: false })
    const crates: { crateId: string; lotId: string; school: string; tank: TestTank; day: number }[] = []
    for (let each = 0; each < 2 * cratesPerSchool; each += 1) {
      const [day, tank] = [1 + each / 10, room.tanks[each % 8] as TestTank]
      const { crateId, lotId } = await take(day, 10, { tank })
      const { trial } = await ask<{ trial: TrialOfCrate | null }>(`/api/crates/${crateId}/trial`)
      // A crate over a house limit uses up no place.
      if (each === 0) expect((await join(crateId, { worstA: 1.2, worstB: 0.1 })).body.detail).toContain('over a house limit: Net-over')
      const joined = await join(crateId)
      expect(joined.body.school).toBe(trial?.next)
      expect((await join(crateId)).body.school).toBe(trial?.next)
      crates.push({ crateId, lotId, school: joined.body.school as string, tank, day })
    }
    const [first] = crates.filter(({ school }) => school === 'Slow drip')
    await lose(first!.tank, first!.day + 2, { lotId: first!.lotId }, 5)
    const paused = (await ask<TrialsView>('/api/outcomes/trials')).trials[0]
    expect(paused).toMatchObject({ state: 'paused', pausedBy: first!.crateId, sentence: expect.stringContaining('lost 50 in a hundred within three days. A lead decides.') })
    expect((await room.post(`/api/outcomes/trials/${trialId}/pause-answers`, { crateId: first!.crateId, words: 'the heater of that tank, not the school' })).status).toBe(201)
    for (const { school, tank, lotId, day } of crates.filter(({ crateId }) => crateId !== first!.crateId)) if (school === 'Slow drip') await lose(tank, day + 5, { lotId }, 8)
    room.clock.nowMs = at(20)
    const due = (await ask<TrialsView>('/api/outcomes/trials')).trials[0]
    expect([due?.state, due?.done]).toEqual(['look due', [cratesPerSchool, cratesPerSchool]])
    const look = await room.post(`/api/outcomes/trials/${trialId}/looks`, {})
    expect(look.body.sentence).toMatch(/^Look 1 of 1: /)
    const ended = (await ask<TrialsView>('/api/outcomes/trials')).trials[0]
    expect([ended?.state, ended?.sentence, ended?.crates.length]).toEqual(['ended', look.body.sentence, 2 * cratesPerSchool])
    expect((await room.post(`/api/outcomes/trials/${trialId}/looks`, {})).status).toBe(409)
  })
})

test('money: priced lines only, what was claimed and made good, and what a living fish really cost', async () => {
  await take(0, 20, { dead: 2 })
  room.clock.nowMs = at(20)
  expect(await askAsLead<MoneyView>('/api/outcomes/money')).toMatchObject({ suppliers: [{ supplier: 'Hollow Reed Hatchery', paid: 0, unpricedFish: 2, perLiving: null }], total: { supplier: 'all' } })
})

test('the sheet of a month says every figure with how sure it is, goes out as PDF, and keeps its words', async () => {
  const tank = room.tanks[0] as TestTank
  const { lotId } = await take(0, 20, { dead: 1 })
  await lose(tank, 4, { lotId }, 2)
  room.clock.nowMs = at(28)
  const sheet = await askAsLead<ReviewView>('/api/outcomes/review?month=2031-05')
  expect(sheet.figures.map(({ key }) => key)).toEqual(['crates', 'inBag', 'day7', 'day14', 'day30', 'late', 'lost', 'looked', 'alarms', 'comparisons', 'money'])
  expect(sheet.figures.find(({ key }) => key === 'crates')?.sentence).toBe('1 crate with 20 fish came in May 2031.')
  expect(sheet.figures.find(({ key }) => key === 'lost')?.sentence).toBe('3 lost in May 2031: 2 not looked at, 1 in bag.')
  // Nobody of May was followed to day 7 of every crate yet: what is not known is not filled with something else.
  expect(sheet.figures.find(({ key }) => key === 'day7')).toMatchObject({ cohort: '2031-04', word: 'too few to tell', value: null, sentence: 'No crate of April 2031 to follow.' })
  expect(sheet.figures.find(({ key }) => key === 'inBag')).toMatchObject({ cohort: '2031-05', word: 'too few to tell', value: expect.closeTo(0.05, 9) })
  expect((await room.post('/api/outcomes/sheets', { month: '2031-05' })).status).toBe(201)
  expect((await askAsLead<ReviewView>('/api/outcomes/review?month=2031-05')).kept?.by).toBe('Imre')
  expect((await room.post('/api/outcomes/sheets', { month: '2020-01' })).body.errors).toMatchObject([{ path: 'month' }])
})
