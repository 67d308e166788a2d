import { TZDate } from '@date-fns/tz'
import { meets } from '../../core/commands/things'
import type { DueItem } from '../../core/due/due'
import type { TankFacts } from '../../core/facts/facts'
import { composeFeed, givenOf, isFedHere, showFeed, type ComposedFeed, type FeedAsked } from '../../core/kitchen/composeFeed'
import { feedDue } from '../../core/kitchen/feedDue'
import { larderOf, orderWords, useDays, type LarderView } from '../../core/kitchen/larder'
import type { ChangeFoodStock, OrderFeeding, TickKitchen } from '../../core/kitchen/kitchen.schema'
import type { FeedOfDay, KitchenView, TickView } from '../../core/kitchen/kitchenView'
import { smallWaters } from '../../core/kitchen/smallWaters'
import { kitchenWith } from '../../core/limits/kitchenLimits'
import type { Limits } from '../../core/limits/houseLimits'
import { groupBy } from '../../core/collections/groupBy'
import type { MoveRules } from '../../core/moves/moveRules'
import type { SizeEntry } from '../../core/plans/planFacts'
import type { VesselView } from '../../core/moves/moveView'
import { lotDays } from '../../core/pools/lotAge'
import type { RoundRules } from '../../core/rounds/roundRules'
import { stockAfter } from '../../core/stock/stock.schema'
import { addDays } from '../../core/time/daysBetween'
import { dayInZone } from '../../core/time/dayInZone'
import type { Change } from '../events/changes'
import type { FactsService } from '../facts/facts.service'
import type { CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import { newId } from '../newId'
import type { KitchenStore, OrderRow } from './kitchen.store'

const dayMs = 86_400_000
/** A feed is the next one until so long after its time, or until its racks are given. */
const openMs = 3 * 3_600_000
/** For so long what is due is not composed anew because of what was seen in tanks. */
const dueKeptMs = 120_000
/** Where nobody set feeds. */
const onlyFeed = { id: 'day', name: 'Feed of the day', hour: 10, minute: 0, dayPercent: 100 }

interface Collaborators {
  store: KitchenStore
  facts: Pick<FactsService, 'inUse' | 'requireTank'>
  vessels: (nowMs: number) => readonly VesselView[]
  /** Tanks in the order in which they are walked. */
  walk: (nowMs: number) => readonly string[]
  limits: () => Limits
  rules: () => Pick<RoundRules, 'recipes'>
  growth: () => MoveRules
  /** Lengths that somebody measured of lots, oldest first. */
  lengths: (lotIds: readonly string[]) => readonly { lotId: string; cm: number; atMs: number }[]
  /** What medicated feeds ask of a day. */
  courses: (on: string, nowMs: number) => readonly OrderRow[]
  zone: () => string
}

/** The feed kitchen: composed anew from the books whenever it is read, so that who came, went or fell ill meanwhile is in it. */
export function createKitchenService({ store, facts, vessels, walk, limits, rules, growth, lengths, courses, zone }: Collaborators) {
  /** What regimens feed comes before what was said in the kitchen. */
  const ordersOn = (on: string, nowMs: number): OrderRow[] => [...courses(on, nowMs), ...store.orders(on)]

  function feedsOn(on: string): FeedOfDay[] {
    const rows = store.feeds()
    const [year, month, day] = on.split('-').map(Number) as [number, number, number]
    return (rows.length > 0 ? rows : [onlyFeed]).map(({ id, name, hour, minute, dayPercent }) => ({ feedId: id, name, on, atMs: new TZDate(year, month - 1, day, hour, minute ?? 0, 0, zone()).getTime(), dayPercent }))
  }

  /** The feed that was asked for, else the first of today whose time is not long past. */
  function feedOf(feeds: readonly FeedOfDay[], asked: string | null, nowMs: number): FeedOfDay {
    const named = feeds.find(({ feedId }) => feedId === asked)
    return named ?? feeds.find(({ atMs }) => atMs + openMs > nowMs) ?? (feeds.at(-1) as FeedOfDay)
  }

  /** Lengths that were noted when lots were entered, and measured since. */
  function sizesOf(tanks: readonly TankFacts[]): Map<string, SizeEntry[]> {
    const lots = tanks.flatMap((tank) => tank.lots)
    const noted = lots.flatMap(({ lotId, noted: { sizeCm, atMs } }) => (sizeCm === null ? [] : [{ lotId, cm: sizeCm, atMs }]))
    const all = groupBy([...noted, ...lengths(lots.map(({ lotId }) => lotId))], ({ lotId }) => lotId)
    return new Map([...all].map(([lotId, rows]) => [lotId, rows.map(({ cm, atMs }) => ({ on: dayInZone(atMs, zone()), cm }))]))
  }

  function compose(feed: FeedOfDay, ticks: readonly TickView[], nowMs: number): { asked: FeedAsked; composed: ComposedFeed; tanks: TankFacts[] } {
    const [inForce, tanks] = [limits(), facts.inUse(nowMs)]
    const sizes = sizesOf(tanks)
    const asked: FeedAsked = { feed, tanks, foods: store.foods(), recipes: rules().recipes, kitchen: kitchenWith(inForce).kitchen, limits: inForce, orders: ordersOn(feed.on, nowMs), ticks, walk: () => walk(nowMs), growth: growth(), sizesOf: (lot) => sizes.get(lot.lotId) ?? [], daysOf: (lot) => lotDays(lot, feed.atMs, zone()) }
    return { asked, composed: composeFeed(asked), tanks }
  }

  function larder(nowMs: number, foods: FeedAsked['foods'] = store.foods()): LarderView {
    return larderOf(foods, store.stockSince(nowMs - useDays * dayMs), limits().foodOrderDays, nowMs)
  }

  /** Takes pieces off the stock, where it is counted at all: never below none. */
  function take(context: CommandContext, foodId: string, tickId: string, pieces: number): void {
    const now = store.piecesOf(foodId)
    if (now === null || pieces === 0) return
    const taken = Math.min(now, pieces)
    store.insertStock({ foodId, pieces: -taken, after: now - taken, why: 'thawed', tickId, staffId: context.actor.id, commandKey: context.key, atMs: context.nowMs })
  }

  function makeTick(context: CommandContext, { feedOn, feedId, step, what, happenedAtMs }: Pick<TickKitchen, 'feedOn' | 'feedId' | 'step' | 'what' | 'happenedAtMs'>): string {
    const id = newId()
    store.insertTick({ id, feedOn, feedId, step, what, staffId: context.actor.id, commandKey: context.key, happenedAtMs: Math.min(happenedAtMs, context.nowMs) })
    return id
  }

  /** What a rack was given is kept by lot; with the first rack go the foods that need no thawing. */
  function give(context: CommandContext, tickId: string, feed: FeedOfDay, rack: string, happenedAtMs: number): void {
    const { asked, composed } = compose(feed, store.ticks(feed.on, feed.feedId), context.nowMs)
    const rows = givenOf(composed, rack)
    store.insertGiven(tickId, Math.min(happenedAtMs, context.nowMs), rows)
    const names = new Set(rows.flatMap(({ foods }) => foods))
    for (const { food, pieces, startAtMin } of composed.list.foods) {
      const foodId = asked.foods.find(({ name }) => name === food)?.id
      if (startAtMin !== null || foodId === undefined || !names.has(food) || store.openTick(feed.on, feed.feedId, 'thaw', foodId) !== null) continue
      take(context, foodId, makeTick(context, { feedOn: feed.on, feedId: feed.feedId, step: 'thaw', what: foodId, happenedAtMs: context.nowMs }), pieces)
    }
  }

  let known: { atMs: number; items: DueItem[] } | null = null

  function reckonDue(nowMs: number): DueItem[] {
    if (store.feeds().length === 0) return []
    return feedsOn(dayInZone(nowMs, zone())).flatMap((feed) => {
      const { asked, composed } = compose(feed, store.ticks(feed.on, feed.feedId), nowMs)
      return feedDue({ feed, ...showFeed(asked, composed) }, nowMs)
    })
  }

  return {
    larder: (nowMs: number): LarderView => larder(nowMs),
    /** What was ticked off or set up in the kitchen counts at once; who came, went or ate in the tanks with the next minutes. */
    listen({ touched }: Pick<Change, 'touched'>): void {
      if (meets(touched, ['kitchen', 'regimen', 'register', 'limit', 'house'])) known = null
    },
    /** What today's feeds ask for next; nothing in a house that set none. */
    due(nowMs: number): readonly DueItem[] {
      if (known === null || nowMs < known.atMs || nowMs - known.atMs >= dueKeptMs) known = { atMs: nowMs, items: reckonDue(nowMs) }
      return known.items
    },
    view(asked: string | null, nowMs: number): KitchenView {
      const feeds = feedsOn(dayInZone(nowMs, zone()))
      const feed = feedOf(feeds, asked, nowMs)
      const { asked: from, composed, tanks } = compose(feed, store.ticks(feed.on, feed.feedId), nowMs)
      const away = [
        ...vessels(nowMs).filter(({ fish }) => fish.length > 0).map(({ name, fish }) => ({ where: name, fish: fish.map(({ species, quantity }) => `${quantity} ${species}`).join(', '), why: 'fed by hand where they stand' })),
        ...tanks.filter((tank) => tank.lots.length > 0 && !isFedHere(tank)).map(({ code, lots }) => ({ where: code, fish: `${lots.reduce((sum, { quantity }) => sum + quantity, 0)} fish`, why: 'a customer’s tank: fed there' })),
      ]
      return {
        ...{ feeds, feed, away, orders: ordersOn(feed.on, nowMs) },
        ...showFeed(from, composed),
        ...smallWaters(tanks, composed, store.systems(), limits()),
        order: larder(nowMs, from.foods).foods.filter(({ isToOrder }) => isToOrder).map((food) => ({ food: food.food, pieces: food.pieces ?? 0, words: orderWords(food) })),
      }
    },

    tickKitchen(context: CommandContext, input: TickKitchen) {
      const { feedOn, feedId, step, what, pieces } = input
      const feed = feedsOn(feedOn).find((each) => each.feedId === feedId)
      if (!feed) throw fieldProblem('feedId', 'There is no such feed')
      if (feed.atMs > context.nowMs + 2 * dayMs) throw fieldProblem('feedOn', 'That feed is still days away')
      if (step === 'thaw' && !store.isFood(what)) throw fieldProblem('what', 'There is no such food')
      const same = store.openTick(feedOn, feedId, step, what)
      if (same !== null) return { id: same }
      const id = makeTick(context, input)
      if (step === 'thaw') take(context, what, id, pieces ?? 0)
      if (step === 'give') give(context, id, feed, what, input.happenedAtMs)
      return { id }
    },

    undoTick(context: CommandContext) {
      const tick = store.tickById(context.params.tickId ?? '')
      if (!tick) throw new Problem('not-found', 'There is nothing of this kind to take back')
      if (tick.undoneAtMs !== null) return {}
      for (const { foodId, pieces } of store.takenBy(tick.id)) if (pieces > 0) store.insertStock({ foodId, pieces, after: (store.piecesOf(foodId) ?? 0) + pieces, why: 'not thawed', tickId: tick.id, staffId: context.actor.id, commandKey: context.key, atMs: context.nowMs })
      store.undoTick(tick.id, { undoneAtMs: context.nowMs, undoneById: context.actor.id })
      return {}
    },

    changeFoodStock(context: CommandContext, { why, pieces }: ChangeFoodStock) {
      const foodId = context.params.foodId ?? ''
      if (!store.isFood(foodId)) throw new Problem('not-found', 'There is no such food')
      const now = store.piecesOf(foodId) ?? 0
      const after = stockAfter(now, why, pieces)
      if (after === null) throw fieldProblem('pieces', `Only ${now} are in the books: count them first`)
      store.insertStock({ foodId, pieces: after - now, after, why, staffId: context.actor.id, commandKey: context.key, atMs: context.nowMs })
      return { pieces: after }
    },

    orderFeeding({ actor, key, nowMs }: CommandContext, { kind, lotId, tankId, foodId, days, note }: OrderFeeding) {
      const fromOn = dayInZone(nowMs, zone())
      if (tankId !== null) facts.requireTank(tankId, 'tankId', nowMs)
      if (lotId !== null && !store.isLot(lotId)) throw fieldProblem('lotId', 'There is no such lot')
      if (foodId !== null && !store.isFood(foodId)) throw fieldProblem('foodId', 'There is no such food')
      const same = store.orders(fromOn).find((each) => each.kind === kind && each.lotId === lotId && each.tankId === tankId)
      // Said again, the later word holds.
      if (same) store.endOrder(same.id, { endedAtMs: nowMs, endedById: actor.id })
      const id = newId()
      store.insertOrder({ id, kind, lotId, tankId, foodId, fromOn, untilOn: days === null ? null : addDays(fromOn, days - 1), note, staffId: actor.id, commandKey: key, atMs: nowMs })
      return { id }
    },

    endFeeding({ params, actor, nowMs }: CommandContext) {
      const order = store.orderById(params.orderId ?? '')
      if (!order) throw new Problem('not-found', 'Nobody said so')
      if (order.endedAtMs === null) store.endOrder(order.id, { endedAtMs: nowMs, endedById: actor.id })
      return {}
    },
  }
}
export type KitchenService = ReturnType<typeof createKitchenService>
