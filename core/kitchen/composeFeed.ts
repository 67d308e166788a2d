import { groupBy } from '../collections/groupBy'
import { byText } from '../contacts/contact'
import type { LotFacts, TankFacts } from '../facts/facts'
import type { Limits } from '../limits/houseLimits'
import type { MoveRules } from '../moves/moveRules'
import type { SizeEntry } from '../plans/planFacts'
import { addDays } from '../time/daysBetween'
import { fishMass } from './fishMass'
import type { KitchenNumbers, Recipe } from './kitchenRules'
import { foodRuleOf, kitchenOf, type HouseFood } from './houseFoods'
import { figuresOf } from './smallWaters'
import type { FedLot, FeedOfDay, KitchenFood, KitchenRack, KitchenView, OrderView, TickView } from './kitchenView'
import { thawList, type KitchenLot, type Ration, type ThawList } from './thawList'
import { naturally } from '../words/naturally'
import { plural } from '../words/plural'

const minuteMs = 60_000
/** On hand of a food that nobody ever counted: as much as it takes. */
const uncounted = 1_000_000
/** Where fish come from that never travelled. */
const bornHere = 'born here'

/** What a feed is composed of. */
export interface FeedAsked {
  feed: FeedOfDay
  tanks: readonly TankFacts[]
  foods: readonly HouseFood[]
  recipes: readonly Recipe[]
  kitchen: KitchenNumbers
  limits: Pick<Limits, 'usualFishG' | 'firstDayFood'>
  orders: readonly OrderView[]
  ticks: readonly TickView[]
  /** Tanks in the order in which they are walked. */
  walk: () => readonly string[]
  daysOf: (lot: LotFacts) => number
  /** Lengths of a lot that somebody measured or noted, oldest first. */
  sizesOf: (lot: LotFacts) => readonly SizeEntry[]
  /** How fish grow, where nobody measured lately. */
  growth: Pick<MoveRules, 'growthPerDay' | 'growthMostPerDay' | 'sizeFitDays'>
}

/** A lot as it is fed, and where. */
interface Fed {
  tank: TankFacts
  facts: LotFacts
  lot: KitchenLot
  /** Nobody says what they weigh. */
  isGuessed: boolean
}
/** A feed as it was composed; `fed` are all lots, whether they get anything or not. */
export interface ComposedFeed {
  list: ThawList
  fed: readonly Fed[]
  rules: ReturnType<typeof kitchenOf>
}

const keyOf = (tank: Pick<TankFacts, 'tankId'>, lot: Pick<LotFacts, 'lotId'>): string => `${tank.tankId} ${lot.lotId}`

/** A customer feeds the fish of a customer’s tank. */
export const isFedHere = ({ purpose }: Pick<TankFacts, 'purpose'>): boolean => purpose !== 'customer'

/** Every lot in a tank as the kitchen reckons with it: what nobody said is taken from what is usual. */
function fedLots({ feed, tanks, orders, limits, daysOf, sizesOf, growth }: Pick<FeedAsked, 'feed' | 'tanks' | 'orders' | 'limits' | 'daysOf' | 'sizesOf' | 'growth'>): Fed[] {
  const [ofLot, ofTank] = [groupBy(orders, ({ lotId }) => lotId), new Set(orders.flatMap(({ kind, tankId }) => (kind === 'every other day' && tankId !== null ? [tankId] : [])))]
  return tanks.filter(isFedHere).flatMap((tank) =>
    tank.lots.map((facts): Fed => {
      const said = (ofLot.get(facts.lotId) ?? []).filter(({ tankId }) => tankId === null || tankId === tank.tankId)
      const days = daysOf(facts)
      const isBorn = facts.origin === bornHere
      const { massG, mouth, isGuessed } = fishMass(facts.book.ways ?? { massG: null, tradedCm: null, adultCm: null, mouth: null }, sizesOf(facts), isBorn ? addDays(feed.on, -days) : null, feed.on, limits.usualFishG, growth)
      const lot: KitchenLot = {
        ...{ lot: keyOf(tank, facts), rack: tank.rack, water: tank.water.kind, quantity: facts.quantity, massG, tempC: figuresOf(tank).tempC },
        ...{ mouth, habits: facts.book.ways?.habits ?? [], lastAte: facts.lastAnswer?.ate ?? null },
        // Fish that were born here did not travel: there is no first day to rest.
        days: isBorn ? Math.max(1, days) : days,
        isConditioning: said.some(({ kind }) => kind === 'conditioning'),
        withoutFood: said.some(({ kind }) => kind === 'without food'),
        medicated: said.find(({ kind }) => kind === 'medicated')?.food ?? null,
        everyOtherDay: ofTank.has(tank.tankId),
      }
      return { tank, facts, lot, isGuessed }
    }),
  )
}

/** Composes a feed from what stands in the tanks, what is on hand and what this feed has taken out already. */
export function composeFeed(asked: FeedAsked): ComposedFeed {
  const { feed, foods, recipes, kitchen, limits, ticks } = asked
  const fed = fedLots(asked)
  const rules = kitchenOf(foods, recipes, { kitchen })
  const stock = foods.map(({ id, name, pieces }) => ({ food: name, pieces: pieces === null ? uncounted : pieces + openedOf(ticks, id) }))
  const list = thawList({ feedAtMin: Math.floor(feed.atMs / minuteMs), dayShare: feed.dayPercent / 100, feedsFirstDay: limits.firstDayFood >= 1, lots: fed.map(({ lot }) => lot), stock }, rules)
  return { list, fed, rules }
}

const openedOf = (ticks: readonly TickView[], foodId: string): number => tickOf(ticks, 'thaw', foodId)?.pieces ?? 0
const tickOf = (ticks: readonly TickView[], step: TickView['step'], what: string): TickView | null => ticks.find((tick) => tick.step === step && tick.what === what) ?? null

type Shown = Pick<KitchenView, 'foods' | 'soaks' | 'soaked' | 'racks' | 'outs' | 'skipped' | 'leftOut' | 'short' | 'unreckoned' | 'guessed' | 'isCounted'>

/** A feed as it is read and ticked off. */
export function showFeed({ feed, foods, ticks, walk, orders }: Pick<FeedAsked, 'feed' | 'foods' | 'ticks' | 'walk' | 'orders'>, { list, fed, rules }: ComposedFeed): Shown {
  const byKey = new Map(fed.map((each) => [each.lot.lot, each]))
  const fedOf = (key: string): Fed | undefined => byKey.get(key)
  const idOf = new Map(foods.map(({ id, name }) => [name, id]))
  const minuteOf = (ms: number): string => String(Math.round((ms - feed.atMs) / minuteMs))
  const outs = groupBy(list.foods.filter(({ pieces }) => pieces > 0), ({ outAtMin }) => outAtMin)
  const untilOf = (lotId: string): string | null => orders.find(({ lotId: of, kind }) => of === lotId && kind === 'without food')?.untilOn ?? null
  return {
    foods: list.foods.map((row): KitchenFood => {
      const foodId = idOf.get(row.food) ?? ''
      const rule = rules.foods.find(({ food }) => food === row.food)
      const pieces = foods.find(({ id }) => id === foodId)?.pieces ?? null
      return {
        ...{ foodId, food: row.food, kind: rule?.kind ?? 'dry', needG: row.needG, pieces: row.pieces, pieceG: rule?.pieceG ?? 0, spareG: row.spareG },
        ...{ startAtMs: row.startAtMin === null ? null : row.startAtMin * minuteMs, whom: whomWords(list.rations.filter(({ food }) => food === row.food), fedOf), done: tickOf(ticks, 'thaw', foodId) },
        stock: pieces === null ? null : pieces + openedOf(ticks, foodId),
      }
    }).sort((a, b) => (a.startAtMs ?? Infinity) - (b.startAtMs ?? Infinity) || byText(a.food, b.food)),
    soaks: list.soaks,
    soaked: tickOf(ticks, 'soak', 'all'),
    racks: racksOf(list, fedOf, ticks, walk()),
    outs: [...outs].map(([outAtMin, rows]) => ({ what: minuteOf(outAtMin * minuteMs), atMs: outAtMin * minuteMs, foods: rows.map(({ food }) => food), done: tickOf(ticks, 'out', minuteOf(outAtMin * minuteMs)) })).sort((a, b) => a.atMs - b.atMs),
    skipped: [...groupBy(list.skipped, ({ why }) => why)].map(([why, lots]) => ({ why, lots: lots.flatMap(({ lot }) => asFed(fedOf(lot)).map((each) => ({ ...each, until: why === 'hold without food' ? untilOf(each.lotId) : null }))).sort(byTank) })).sort((a, b) => byText(a.why, b.why)),
    leftOut: list.leftOut.flatMap((key) => asFed(fedOf(key)).map((each) => ({ ...each, mouth: fedOf(key)?.lot.mouth ?? 'small', medicated: fedOf(key)?.lot.medicated ?? null }))).sort(byTank),
    short: list.short,
    unreckoned: foods.filter((food) => foodRuleOf(food) === null).map(({ name }) => name).sort(byText),
    guessed: [...new Set(fed.filter(({ isGuessed }) => isGuessed).map(({ facts }) => facts.species))].sort(byText),
    isCounted: foods.some(({ pieces }) => pieces !== null),
  }
}

const asFed = (each: Fed | undefined): FedLot[] => (each ? [{ tankId: each.tank.tankId, tankCode: each.tank.code, lotId: each.facts.lotId, species: each.facts.species, quantity: each.facts.quantity }] : [])
const byTank = (a: FedLot, b: FedLot): number => naturally(a.tankCode, b.tankCode) || byText(a.species, b.species)

/** Whom a food is for, by recipe: "small mouths: 34 fish in 6 tanks". */
function whomWords(rations: readonly Ration[], fedOf: (key: string) => Fed | undefined): string[] {
  return [...groupBy(rations, ({ recipe }) => recipe)].map(([recipe, rows]) => {
    const whom = rows.flatMap(({ lot }) => fedOf(lot) ?? [])
    const fish = whom.reduce((sum, { facts }) => sum + facts.quantity, 0)
    const tanks = new Set(whom.map(({ tank }) => tank.tankId)).size
    return `${recipe ?? 'nothing of their recipe suits or is there'}: ${fish} fish in ${plural(tanks, 'tank')}`
  })
}

/** Racks in the order in which the first of their tanks is walked. */
function racksOf({ portions, rations, meals }: ThawList, fedOf: (key: string) => Fed | undefined, ticks: readonly TickView[], walk: readonly string[]): KitchenRack[] {
  const turn = new Map(walk.map((tankId, index) => [tankId, index]))
  const turnOf = ({ tankId }: { tankId: string }): number => turn.get(tankId) ?? walk.length
  const racks = [...groupBy(portions, ({ rack }) => rack)].map(([rack, own]): KitchenRack => {
    const byTankOf = groupBy(rations.filter((each) => each.rack === rack), ({ lot }) => fedOf(lot)?.tank.tankId ?? '')
    const tanks = [...byTankOf].map(([tankId, rows]) => {
      const here = [...new Set(rows.map(({ lot }) => lot))].flatMap((key) => fedOf(key) ?? [])
      const fish = [...groupBy(here, ({ facts }) => facts.species)].map(([species, lots]) => `${lots.reduce((sum, { facts }) => sum + facts.quantity, 0)} ${species}`).join(', ')
      return { tankId, code: here[0]?.tank.code ?? '', fish, grams: rows.reduce((sum, { grams }) => sum + grams, 0), bowls: [...new Set(rows.map(({ bowl }) => bowl))].sort(), meals: Math.max(0, ...meals.filter(({ lot }) => here.some((each) => each.lot.lot === lot)).map((each) => each.meals)) }
    })
    return { rack, portions: own.map(({ bowl, food, grams }) => ({ bowl, food, grams })), tanks: tanks.sort((a, b) => turnOf(a) - turnOf(b) || naturally(a.code, b.code)), done: tickOf(ticks, 'give', rack) }
  })
  const firstOf = ({ tanks }: KitchenRack): number => Math.min(...tanks.map(turnOf))
  return racks.sort((a, b) => firstOf(a) - firstOf(b) || naturally(a.rack, b.rack))
}

/** What every lot of a rack is given, for whoever asks later what it was offered. */
export function givenOf({ list, fed }: ComposedFeed, rack: string): { tankId: string; lotId: string; foods: string[] }[] {
  const rations = groupBy(list.rations.filter((each) => each.rack === rack), ({ lot }) => lot)
  return fed.flatMap(({ tank, facts, lot }) => {
    const foods = [...new Set((rations.get(lot.lot) ?? []).map(({ food }) => food))].sort(byText)
    return foods.length > 0 ? [{ tankId: tank.tankId, lotId: facts.lotId, foods }] : []
  })
}
