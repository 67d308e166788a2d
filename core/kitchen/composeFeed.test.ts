import { expect, test } from '@jest/globals'
import type { TankFacts } from '../facts/facts'
import { shippedMoveRules } from '../moves/moveRules'
import { standardLimits } from '../limits/houseLimits'
import { kitchenLimits, kitchenWith } from '../limits/kitchenLimits'
import { lotFacts, tankFacts } from '../testing/factsOf'
import { baseUnits, wordFigures } from '../units/units'
import { composeFeed, givenOf, showFeed, type FeedAsked } from './composeFeed'
import { feedDue } from './feedDue'
import { foodRuleOf, kitchenOf, type HouseFood } from './houseFoods'
import { shippedKitchen } from './kitchenRules'
import type { KitchenView, TickView } from './kitchenView'
import { larderOf, orderWords } from './larder'
import { nextStep } from './nextStep'
import { withPendingTicks } from './pendingTicks'
import { smallWaters, type FedSystem } from './smallWaters'

const [minuteMs, dayMs] = [60_000, 86_400_000]
const atMs = Date.UTC(2031, 4, 4, 10)
const feed = { feedId: 'f', name: 'morning', on: '2031-05-04', atMs, dayPercent: 100 }
const food = (name: string, servesAs: string[], change: Partial<HouseFood> = {}): HouseFood => ({ id: name, name, kind: 'frozen', thawMinutes: null, pieceG: null, dryPercent: null, proteinPercent: null, mouths: [], outMinutes: null, servesAs, pieces: null, ...change })
const larvae = food('Larvae, black', ['mosquito larvae'])
const fine = food('Fine dry', ['fine granules'], { kind: 'dry' })
const asked = (change: Partial<FeedAsked> = {}): FeedAsked => ({ feed, tanks: [tankFacts({ lots: [lotFacts()] })], foods: [larvae, fine], recipes: shippedKitchen.recipes, kitchen: shippedKitchen.kitchen, limits: standardLimits, orders: [], ticks: [], walk: () => [], daysOf: () => 30, sizesOf: () => [], growth: shippedMoveRules, ...change })
const shown = (of: FeedAsked) => showFeed(of, composeFeed(of))
const view = (of: FeedAsked): KitchenView => ({ feeds: [feed], feed, ...shown(of), away: [], order: [], waters: [], filterUnsaid: [], volumeUnsaid: [], orders: [] })
const tick = (change: Partial<TickView>): TickView => ({ id: 'x', step: 'thaw', what: 'Larvae, black', pieces: 0, by: 'Oona', atMs, ...change })

test('a food of the house takes what it does not say from the shipped one it serves as; its own figures win', () => {
  expect(foodRuleOf(larvae)).toEqual({ food: 'Larvae, black', kind: 'frozen', pieceG: 3.5, dryShare: 0.1, protein: 0.55, mouths: ['small', 'medium'], thawMin: 40, outMin: 30 })
  expect(foodRuleOf(food('Mysis', [], { pieceG: 5, dryPercent: 20, mouths: ['large'], thawMinutes: 90 }))).toMatchObject({ pieceG: 5, dryShare: 0.2, protein: 0.65, mouths: ['large'], thawMin: 90 })
  // Kept alive, what is frozen elsewhere need not thaw.
  expect(foodRuleOf(food('Copepods', ['copepods'], { kind: 'live' }))?.thawMin).toBe(0)
  expect(foodRuleOf(food('Odd thing', []))).toBeNull()
})

test('a recipe takes the food that is called so, else one that serves as it and is there; two kinds of one food are one part', () => {
  const recipe = { recipe: 'r', for: {}, parts: [['mosquito larvae', 0.5], ['mysis', 0.3], ['chopped mussel', 0.2]] as const }
  const parts = (...foods: HouseFood[]) => kitchenOf(foods, [recipe]).recipes[0]?.parts
  expect(parts(food('Red', ['mosquito larvae'], { pieces: 0 }), food('Black', ['mosquito larvae'], { pieces: 4 }))).toEqual([['Black', 0.5], ['mysis', 0.3], ['chopped mussel', 0.2]])
  expect(parts(food('Red', ['mosquito larvae']), food('mosquito larvae', []))?.[0]).toEqual(['mosquito larvae', 0.5])
  expect(parts(food('Mix', ['mysis', 'chopped mussel']))).toEqual([['mosquito larvae', 0.5], ['Mix', 0.5]])
})

test('what this feed took out already counts as on hand: the last cube does not fall out of the list that it is in', () => {
  const out = asked({ foods: [{ ...larvae, pieces: 0 }, fine], ticks: [tick({ pieces: 1 })] })
  expect(shown(out).foods.map(({ food: name, pieces, stock, done }) => [name, pieces, stock, done?.by ?? null])).toEqual([['Larvae, black', 1, 1, 'Oona'], ['Fine dry', 2, null, null]])
  expect(shown(asked({ foods: [{ ...larvae, pieces: 0 }, fine] })).foods.map(({ food: name }) => name)).toEqual(['Fine dry'])
})

test('racks come in the order in which their first tank is walked, tanks too; customers feed their own', () => {
  const tank = (code: string, rack: string, change: Partial<TankFacts> = {}) => tankFacts({ tankId: code, code, rack, lots: [lotFacts({ lotId: code })], ...change })
  const racks = shown(asked({ tanks: [tank('A-1', 'A'), tank('B-1', 'B'), tank('B-2', 'B'), tank('C-1', 'C', { purpose: 'customer' })], walk: () => ['B-2', 'A-1', 'B-1'] })).racks
  expect(racks.map(({ rack, tanks }) => [rack, tanks.map(({ code }) => code)])).toEqual([['B', ['B-2', 'B-1']], ['A', ['A-1']]])
})

test('fish of the day, of the house, conditioned, medicated: each is fed, skipped or left out for its own reason', () => {
  const orders = [{ id: 'o', kind: 'conditioning', lotId: 'a', tankId: null, food: null, fromOn: '', untilOn: null, note: null, by: '' }] as const
  const conditioned = composeFeed(asked({ orders }))
  expect([conditioned.list.meals, conditioned.list.rations.every(({ bowl }) => bowl === 'soaked')]).toEqual([[{ lot: 't1 a', meals: 5 }], true])
  expect(composeFeed(asked({ daysOf: () => 0 })).list.skipped).toEqual([{ lot: 't1 a', why: 'first day' }])
  expect(composeFeed(asked({ daysOf: () => 0, limits: { ...standardLimits, firstDayFood: 1 } })).list.skipped).toEqual([])
  // Fish that were born here did not travel.
  expect(composeFeed(asked({ daysOf: () => 0, tanks: [tankFacts({ lots: [lotFacts({ origin: 'born here' })] })] })).list.skipped).toEqual([])
  const medicated = asked({ orders: [{ ...orders[0], kind: 'medicated', food: 'Fine dry' }] })
  expect(shown(medicated).racks[0]?.portions.map(({ bowl, food: name }) => [bowl, name])).toEqual([['medicated', 'Fine dry']])
  expect(givenOf(composeFeed(medicated), 'R1')).toEqual([{ tankId: 't1', lotId: 'a', foods: ['Fine dry'] }])
  expect(givenOf(composeFeed(medicated), 'R2')).toEqual([])
})

test('the next step goes from the freezer to the leftovers, and is due until three hours after its time', () => {
  const done = (...steps: Partial<TickView>[]) => asked({ ticks: steps.map((each) => tick(each)) })
  const step = (of: FeedAsked) => { const { step: name, what } = nextStep({ feed, ...shown(of) }); return [name, what] }
  expect(step(asked())).toEqual(['thaw', ['Larvae, black']])
  expect(step(done({}))).toEqual(['give', ['R1']])
  expect(step(done({}, { step: 'give', what: 'R1' }))).toEqual(['out', ['Fine dry', 'Larvae, black']])
  expect(step(done({}, { step: 'give', what: 'R1' }, { step: 'out', what: '30' }))).toEqual(['done', []])
  expect(step(asked({ tanks: [] }))).toEqual(['nothing', []])
  expect(step(asked({ daysOf: () => 3, ticks: [tick({})] }))).toEqual(['soak', ['lure', 'vitamin']])
  const due = (nowMs: number) => feedDue({ feed, ...shown(asked()) }, nowMs).map(({ what, urgency }) => [what, urgency])
  expect([due(atMs - 120 * minuteMs), due(atMs), due(atMs + 200 * minuteMs)]).toEqual([[['Larvae, black out of the freezer', 'later']], [['Larvae, black out of the freezer', 'now']], []])
})

test('a touch shows before the server has answered, and one that takes back too; of another feed nothing does', () => {
  const pending = (command: string, input: object, params = {}) => [{ command, params, key: 'k', staffId: 's', isTouch: true, input, answeredAt: null }]
  const now = view(asked())
  const ticked = withPendingTicks(now, pending('tickKitchen', { feedOn: feed.on, feedId: 'f', step: 'give', what: 'R1', pieces: null, happenedAtMs: atMs }))
  expect([now.racks[0]?.done, ticked.racks[0]?.done?.id, ticked.foods.every(({ done }) => done === null)]).toEqual([null, 'k', true])
  expect(withPendingTicks(now, pending('tickKitchen', { feedOn: feed.on, feedId: 'other', step: 'give', what: 'R1', pieces: null, happenedAtMs: atMs })).racks[0]?.done).toBeNull()
  const was = view(asked({ ticks: [tick({ step: 'give', what: 'R1' })] }))
  expect(withPendingTicks(was, pending('undoTick', {}, { tickId: 'x' })).racks[0]?.done).toBeNull()
  expect(withPendingTicks(was, pending('recordCheck', {})).racks[0]?.done?.by).toBe('Oona')
})

test('a food lasts for what is left by what went, reckoned over three days at least; what nobody counted is not ordered', () => {
  const went = (daysAgo: number, pieces: number) => ({ foodId: 'Larvae, black', pieces, after: 0, why: 'thawed', by: 'Oona', atMs: atMs - daysAgo * dayMs })
  const [row] = larderOf([{ ...larvae, pieces: 12 }], [went(1, -3), went(6, -9), went(20, -99)], 7, atMs).foods
  expect([row?.perDay, row?.lastsDays, row?.isToOrder, row && orderWords(row)]).toEqual([2, 6, true, 'lasts 6 days'])
  expect(larderOf([{ ...larvae, pieces: 12 }], [went(0.5, -3)], 7, atMs).foods[0]?.perDay).toBe(1)
  expect(larderOf([larvae], [went(1, -3)], 7, atMs).foods[0]).toMatchObject({ lastsDays: null, isToOrder: false })
  expect(orderWords({ pieces: 0, lastsDays: null })).toBe('none left')
})

test('a small water says what to change and how much less to feed; it never says to feed nothing where less would do', () => {
  const system = (filter: FedSystem['filter']): FedSystem => ({ id: 'sys', name: 'Quarantine', sumpL: null, filter })
  const water = { ...tankFacts().water, ph: 8.2, kind: 'marine' as const, salinityPpt: 34 }
  const told = (quantity: number, filter: FedSystem['filter'], change: Partial<TankFacts> = {}) => {
    const tanks = [tankFacts({ water, netVolumeL: 100, lots: [lotFacts({ quantity })], ...change })]
    return smallWaters(tanks, composeFeed(asked({ tanks })), [system(filter)], { waterChangeTold: 0.05 })
  }
  const words = (of: ReturnType<typeof told>) => of.waters.map((each) => wordFigures(each.words, () => baseUnits))
  expect(words(told(5, 'running'))).toEqual([])
  expect(words(told(40, 'running'))).toEqual([expect.stringMatching(/^change \d+(\.5)? L of 100 L a day with this food$/)])
  expect(words(told(14, 'none'))).toEqual([expect.stringMatching(/^change 50 L of 100 L a day and give \d+ % of this food$/)])
  expect(words(told(60, 'none'))).toEqual([expect.stringMatching(/^even unfed, .*: a running filter, more water or fewer fish$/)])
  expect(told(60, null)).toMatchObject({ waters: [], filterUnsaid: ['Quarantine'], volumeUnsaid: [] })
  expect(told(60, 'none', { netVolumeL: null })).toMatchObject({ waters: [], volumeUnsaid: ['R1-01'] })
})

test('the house’s own numbers are what the kitchen goes by, every one of them', () => {
  for (const key of Object.keys(kitchenLimits) as (keyof typeof kitchenLimits)[]) expect(kitchenWith({ ...standardLimits, [key]: standardLimits[key] * 1.5 + 0.001 })).not.toEqual(kitchenWith(standardLimits))
  expect(kitchenWith(standardLimits)).toEqual(shippedKitchen)
})
