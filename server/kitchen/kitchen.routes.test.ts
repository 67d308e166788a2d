import { afterEach, beforeEach, expect, test } from '@jest/globals'
import type { KitchenView } from '../../core/kitchen/kitchenView'
import type { LarderView } from '../../core/kitchen/larder'
import type { DueItem } from '../../core/due/due'
import { createTestRoom, newKey, quietCheck, type TestRoom } from '../testing/testRoom'

// A kitchen as staff use it: from what is set up and what stands in the tanks to what is thawed, given and left.
const [minuteMs, hourMs, dayMs] = [60_000, 3_600_000, 86_400_000]
let room: TestRoom
const foodIds = new Map<string, string>()
beforeEach(async () => {
  room = await createTestRoom({ tankCount: 4 })
  foodIds.clear()
  await room.post('/api/setup/species/adoptions', { names: ['Cherry barb', 'Harlequin rasbora', 'Otocinclus'] })
  for (const [name, kind, servesAs, more = {}] of foods) foodIds.set(name, (await room.post('/api/setup/foods', { values: { ...noFood, name, kind, servesAs, ...more } })).body.id)
})
afterEach(() => void room.db.raw.close())

const noFood = { kind: null, thawMinutes: null, pieceG: null, dryPercent: null, proteinPercent: null, mouths: [], outMinutes: null, servesAs: [], note: null }
const foods: [string, string, string[], object?][] = [['Larvae, black', 'frozen', ['mosquito larvae'], { thawMinutes: 40 }], ['Fleas', 'frozen', ['water fleas']], ['Fine dry', 'dry', ['fine granules']], ['Odd thing', 'live', []]]
const food = (name: string): string => foodIds.get(name) ?? ''
const kitchen = async (query = ''): Promise<KitchenView> => (await room.get(`/api/kitchen${query}`)).body as KitchenView
const larder = async (): Promise<LarderView> => (await room.get('/api/kitchen/larder')).body as LarderView
const tick = (step: string, what: string, change: object = {}, options?: { key: string }) => room.post('/api/kitchen/ticks', { feedOn: '2031-05-04', feedId: 'day', step, what, pieces: null, happenedAtMs: room.clock.nowMs, ...change }, options)
const count = (name: string, pieces: number, why = 'counted') => room.post(`/api/foods/${food(name)}/stock`, { why, pieces })
const stockOf = async (name: string): Promise<number | null | undefined> => (await larder()).foods.find((each) => each.food === name)?.pieces
const order = (change: object) => room.post('/api/feeding-orders', { kind: 'conditioning', lotId: null, tankId: null, foodId: null, days: null, note: null, ...change })
/** Fish that came long enough ago to be fed like any other. */
async function settled(index: number, species: string, quantity: number): Promise<string> {
  const { body } = await room.post(`/api/tanks/${room.tanks[index]!.id}/additions`, { species, quantity, how: 'brought-in', note: null, happenedAtMs: room.clock.nowMs - 30 * dayMs })
  return String(body.lotId)
}

test('a feed by hand: what ten barbs and eight rasboras are given is what the rule says, thawed in time and taken out again', async () => {
  await settled(0, 'Cherry barb', 10)
  await settled(1, 'Harlequin rasbora', 8)
  const { feed, foods: list, racks, soaks, outs, leftOut, unreckoned, isCounted } = await kitchen()
  expect([feed.name, feed.atMs, feed.dayPercent]).toEqual(['Feed of the day', Date.UTC(2031, 4, 4, 10), 100])
  // Dry food a day: n x 0.02 x mass^0.8 at 25 °C; small mouths: larvae 0.4 at 10 % dry, fleas 0.2 at 8 %, fine dry 0.4 at 92 %.
  const { usual_mass_g: barbG } = room.db.raw.prepare("SELECT usual_mass_g FROM species WHERE name = 'Cherry barb'").get() as { usual_mass_g: number }
  const dryG = 10 * 0.02 * barbG ** 0.8 + 8 * 0.02 * 0.5 ** 0.8
  expect(list.map((each) => [each.food, Number(each.needG.toFixed(4)), each.startAtMs && (each.startAtMs - feed.atMs) / minuteMs])).toEqual([
    ['Fleas', Number(((dryG * 0.2) / 0.08).toFixed(4)), -50],
    ['Larvae, black', Number(((dryG * 0.4) / 0.1).toFixed(4)), -50],
    ['Fine dry', Number(((dryG * 0.4) / 0.92).toFixed(4)), null],
  ])
  expect(list[1]?.whom).toEqual(['small mouths: 18 fish in 2 tanks'])
  expect(racks.map(({ rack, portions, tanks }) => [rack, portions.map((each) => each.food), tanks.map(({ code, fish }) => `${code} ${fish}`)])).toEqual([['R1', ['Fine dry', 'Fleas', 'Larvae, black'], ['R1-01 10 Cherry barb', 'R1-02 8 Harlequin rasbora']]])
  expect([soaks, outs.map(({ atMs, foods: out }) => [(atMs - feed.atMs) / minuteMs, out]), leftOut, unreckoned, isCounted]).toEqual([[], [[30, ['Fine dry', 'Fleas', 'Larvae, black']]], [], ['Odd thing'], false])
})

test('ticked off, a food comes off the stock once, whoever ticks; taken back it is there again', async () => {
  await settled(0, 'Cherry barb', 40)
  await count('Larvae, black', 6)
  const key = newKey()
  const { id } = (await tick('thaw', food('Larvae, black'), { pieces: 2 }, { key })).body as { id: string }
  expect(((await tick('thaw', food('Larvae, black'), { pieces: 2 }, { key })).body as { id: string }).id).toBe(id)
  expect(((await tick('thaw', food('Larvae, black'), { pieces: 2 })).body as { id: string }).id).toBe(id)
  expect(await stockOf('Larvae, black')).toBe(4)
  const [larvae] = (await kitchen()).foods.filter((each) => each.food === 'Larvae, black')
  expect([larvae?.stock, larvae?.done?.by, larvae?.done?.pieces]).toEqual([6, 'Imre', 2])
  expect((await room.post(`/api/kitchen/ticks/${id}/undo`, {})).status).toBe(201)
  await room.post(`/api/kitchen/ticks/${id}/undo`, {})
  expect([await stockOf('Larvae, black'), (await kitchen()).foods.every(({ done }) => done === null)]).toEqual([6, true])
  expect((await room.post('/api/kitchen/ticks/unknown/undo', {})).status).toBe(404)
})

test('a rack that is fed is kept by lot, takes the dry food off the stock, and says at the next refusal what was refused', async () => {
  const lotId = await settled(0, 'Cherry barb', 10)
  await count('Fine dry', 9)
  await tick('give', 'R1')
  expect([await stockOf('Fine dry'), (await kitchen()).racks[0]?.done?.by]).toEqual([8, 'Imre'])
  expect(room.db.raw.prepare('SELECT lot_id, foods FROM given').all()).toMatchObject([{ lot_id: lotId, foods: JSON.stringify(['Fine dry', 'Fleas', 'Larvae, black']) }])
  // Refused twice, it is offered no more as the first; what others of its kind took is.
  for (const days of [1, 2, 3]) {
    room.clock.nowMs += dayMs
    const on = `2031-05-0${4 + days}`
    await tick('give', 'R1', { feedOn: on })
    room.clock.nowMs += hourMs
    await room.post('/api/checks', { ...quietCheck(room.tanks[0]!.id), ate: 'none', happenedAtMs: room.clock.nowMs })
  }
  const { notEating } = (await room.get('/api/today')).body as { notEating: { species: string; tries: string | null }[] }
  expect(notEating).toMatchObject([{ species: 'Cherry barb' }])
  expect(notEating[0]?.tries).not.toMatch(/^(mosquito larvae|fine granules|water fleas) \(ate/)
})

test('who gets nothing is said, with why: none on the first day, none where somebody said so, none that nothing suits', async () => {
  await room.addFish(room.tanks[0], 'Cherry barb', 5)
  const fasting = await settled(1, 'Harlequin rasbora', 8)
  await settled(2, 'Otocinclus', 6)
  expect((await order({ kind: 'without food', lotId: fasting })).body.errors).toEqual([{ path: 'days', message: 'Say for how many days, at most 14' }])
  await order({ kind: 'without food', lotId: fasting, days: 2, note: 'before the move' })
  const now = await kitchen()
  expect(now.skipped.map(({ why, lots }) => [why, lots.map(({ tankCode, until }) => [tankCode, until])])).toEqual([['first day', [['R1-01', null]]], ['hold without food', [['R1-02', '2031-05-05']]]])
  for (const name of ['Larvae, black', 'Fleas', 'Fine dry']) await count(name, 0)
  expect((await kitchen()).leftOut.map(({ tankCode, species, mouth }) => [tankCode, species, mouth])).toEqual([['R1-03', 'Otocinclus', 'tiny']])
  // The day after its last day it is fed again, whether or not somebody remembered.
  room.clock.nowMs += 2 * dayMs
  expect((await kitchen()).skipped).toEqual([])
})

test('medicated food is asked for even where it is out, and never replaced; a tank is fed every other day', async () => {
  const lotId = await settled(0, 'Cherry barb', 10)
  expect((await order({ kind: 'medicated', lotId, days: 5 })).body.errors).toEqual([{ path: 'foodId', message: 'Say which food has the medicine in it' }])
  expect((await order({ kind: 'every other day', lotId })).body.errors).toEqual([{ path: 'tankId', message: 'Say which tank: every other day is said of a tank' }])
  const { id } = (await order({ kind: 'medicated', lotId, foodId: food('Fleas'), days: 5 })).body as { id: string }
  expect((await kitchen()).racks[0]?.portions.map(({ bowl, food: given }) => [bowl, given])).toEqual([['medicated', 'Fleas']])
  await count('Fleas', 0)
  const out = await kitchen()
  expect([out.leftOut.map(({ medicated }) => medicated), out.short, out.racks]).toEqual([['Fleas'], [{ food: 'Fleas', pieces: 1 }], []])
  await room.post(`/api/feeding-orders/${id}/end`, {})
  await order({ kind: 'every other day', tankId: room.tanks[0]!.id })
  const days = [] as string[]
  for (let day = 0; day < 4; day += 1) {
    days.push((await kitchen()).skipped.map(({ why }) => why).join())
    room.clock.nowMs += dayMs
  }
  expect([days.filter((why) => why === 'every other day').length, days[0] === days[2], days[1] === days[3]]).toEqual([2, true, true])
})

test('feeds of the house have their time and share, are due on Today, and a next step is never asked for twice', async () => {
  await settled(0, 'Cherry barb', 10)
  expect((await room.get('/api/due')).body.items.filter(({ kind }: DueItem) => kind === 'feed')).toEqual([])
  for (const [name, hour, dayPercent] of [['morning', 9, 60], ['evening', 17, 40]] as const) await room.post('/api/setup/feeds', { values: { name, hour, minute: 30, dayPercent } })
  const { feeds, feed } = await kitchen()
  expect([feeds.map(({ name, atMs }) => [name, (atMs - testDay) / hourMs]), feed.name]).toEqual([[['morning', 9.5], ['evening', 17.5]], 'morning'])
  const due = async () => ((await room.get('/api/due')).body.items as DueItem[]).filter(({ kind }) => kind === 'feed').map(({ about, what, urgency }) => [about, what, urgency])
  expect(await due()).toEqual([['morning', 'Fleas, Larvae, black out of the freezer', 'now'], ['evening', 'Fleas, Larvae, black out of the freezer', 'later']])
  for (const name of ['Fleas', 'Larvae, black']) await tick('thaw', food(name), { feedId: feed.feedId, pieces: 1 })
  expect((await due())[0]).toEqual(['morning', 'feed R1', 'soon'])
  await tick('give', 'R1', { feedId: feed.feedId })
  expect((await due())[0]).toEqual(['morning', 'leftovers of Fine dry, Fleas, Larvae, black out', 'soon'])
  await tick('out', '30', { feedId: feed.feedId })
  expect((await due()).map(([about]) => about)).toEqual(['evening'])
  expect((await kitchen(`?feed=${feeds[1]?.feedId}`)).feed.name).toBe('evening')
  expect((await kitchen('?feed=nonsense')).feed.name).toBe('morning')
})

test('what is thrown away was there, what is bought is added, and what lasts for a few days only is to be ordered', async () => {
  await settled(0, 'Cherry barb', 60)
  expect((await count('Fleas', 1, 'thrown away')).body.errors).toEqual([{ path: 'pieces', message: 'Only 0 are in the books: count them first' }])
  await count('Fleas', 2, 'bought')
  await count('Fleas', 3, 'bought')
  expect(await stockOf('Fleas')).toBe(5)
  for (const on of ['2031-05-04', '2031-05-05', '2031-05-06']) {
    await tick('thaw', food('Fleas'), { feedOn: on, pieces: 1 })
    room.clock.nowMs += dayMs
  }
  const [fleas] = (await larder()).foods
  expect([fleas?.food, fleas?.pieces, fleas?.perDay, fleas?.lastsDays, fleas?.isToOrder]).toEqual(['Fleas', 2, 1, 2, true])
  expect((await kitchen()).order).toEqual([{ food: 'Fleas', pieces: 2, words: 'lasts 2 days' }])
  expect((await room.post('/api/foods/unknown/stock', { why: 'counted', pieces: 1 })).status).toBe(404)
})

test('a small water says how much to change; where nobody says whether a filter runs, it is asked', async () => {
  await settled(0, 'Cherry barb', 400)
  expect((await kitchen()).filterUnsaid).toEqual(['Fresh sale rack'])
  const { rows } = (await room.get('/api/setup/systems')).body as { rows: { id: string; version: number; values: object }[] }
  await room.put(`/api/setup/systems/${rows[0]?.id}`, { version: rows[0]?.version, values: { ...rows[0]?.values, filter: 'none', ph: 8.2 } })
  const { waters, filterUnsaid } = await kitchen()
  expect([filterUnsaid, waters.map(({ where, isHarm }) => [where, isHarm])]).toEqual([[], [['Fresh sale rack', true]]])
  expect(waters[0]?.words).toMatch(/^even unfed, .* of 660 L\): a running filter, more water or fewer fish$/)
})

test('what cannot be is refused beside its field', async () => {
  const said = async (answer: Promise<{ status: number; body: { errors?: { path: string; message: string }[] } }>) => (await answer).body.errors?.map(({ path, message }) => `${path}: ${message}`)
  expect(await said(tick('thaw', 'unknown'))).toEqual(['what: There is no such food'])
  expect(await said(tick('give', 'R1', { feedId: 'lunch' }))).toEqual(['feedId: There is no such feed'])
  expect(await said(tick('give', 'R1', { feedOn: '2031-06-04' }))).toEqual(['feedOn: That feed is still days away'])
  expect(await said(tick('give', 'R1', { feedOn: 'today' }))).toEqual(['feedOn: Day must be a day such as 2031-05-04'])
  expect(await said(order({ lotId: 'unknown' }))).toEqual(['lotId: There is no such lot'])
  expect(await said(order({ kind: 'every other day', tankId: 'unknown' }))).toEqual(['tankId: There is no such tank'])
  expect((await room.post('/api/feeding-orders/unknown/end', {})).status).toBe(404)
})
const testDay = Date.UTC(2031, 4, 4)
