import { groupBy } from '../collections/groupBy'
import type { LotFacts, TankFacts } from '../facts/facts'
import { ateOf } from '../facts/foldFacts'
import { hoursAgo } from '../time/hoursAgo'
import { spanWords } from '../time/spanWords'
import { expectedCourse } from './expectedCourse'
import type { LevelAsked } from './levelReason'
import { givenBefore, takenByKind, type FoodTaken, type GivenFoods, type GivenToLot } from './givenFoods'
import { notEating, type FoodBecause, type NotEating, type NotEatingAsked } from './notEating'
import type { RoundRules } from './roundRules'
import type { Sign } from './rounds.schema'

const [hourMs, dayMs] = [3_600_000, 86_400_000]

/** Signs that are usual in a tank for some time yet: "pale: usual until 4 h from now". Those that are always usual for a kind go without saying. */
export function usualWords({ lots }: Pick<LevelAsked, 'lots'>, rules: RoundRules): string[] {
  const courses = lots.map(({ events, species }) => expectedCourse(events, species, rules))
  const longest = new Map<Sign, number>()
  for (const { signs } of courses) for (const [sign, { slightLeftH }] of signs) if (slightLeftH !== null) longest.set(sign, Math.max(longest.get(sign) ?? 0, slightLeftH))
  const hungryH = Math.max(0, ...courses.map(({ ateNoneLeftH }) => ateNoneLeftH))
  const words = [...longest].sort((a, b) => b[1] - a[1]).map(([sign, leftH]) => `${sign} usual for ${spanWords(leftH * 60)} yet`)
  return [...words, ...(hungryH > 0 ? [`eating nothing usual for ${spanWords(hungryH * 60)} yet`] : [])]
}

/** What is looked at besides today: fish that came two days ago, and a first meal. */
export function asksToday(lots: readonly LotFacts[], nowMs: number): string[] {
  return lots.flatMap(({ species, sinceMs, lastMeal, isBeforeBooks }) => {
    const hours = (nowMs - sinceMs) / hourMs
    if (isBeforeBooks) return []
    return [...(hours >= 36 && hours < 60 ? [`two days here: how does ${species} look?`] : []), ...(hours >= 20 && hours < 240 && lastMeal === null ? [`first meal of ${species}?`] : [])]
  })
}

/** What is known of foods. */
export interface FoodsKnown {
  /** In the house, by the words of the book. */
  onHand: readonly string[]
  /** What a seller said that a lot ate, by lot. */
  toldOf: (lotId: string) => readonly string[]
  /** What the kitchen gave a lot in its tank, newest first. */
  givenTo: (tankId: string, lotId: string) => readonly GivenFoods[]
  /** How often a kind was given a food here of late, and how often it ate of it. */
  takenBy: (speciesId: string) => readonly FoodTaken[]
}

/**
 * Foods of the house by the words of the book, and what sellers told.
 * @param told - as it was written on a list, by lot: words between commas.
 */
export function foodsKnown(foods: readonly { name: string; servesAs: readonly string[]; isOut?: boolean }[], told: readonly { lotId: string; ateBefore: string }[], given: readonly GivenToLot[] = [], tanks: readonly Pick<TankFacts, 'tankId' | 'looks'>[] = []): FoodsKnown {
  const byLot = new Map(told.map(({ lotId, ateBefore }) => [lotId, ateBefore.split(/[,;]/).map((each) => each.trim().toLowerCase()).filter(Boolean)]))
  const wordsOf = new Map(foods.map(({ name, servesAs }) => [name, servesAs.length > 0 ? servesAs : [name.toLowerCase()]]))
  const inWords = given.map((each) => ({ ...each, foods: [...new Set(each.foods.flatMap((food) => wordsOf.get(food) ?? [food.toLowerCase()]))] }))
  const [toLot, toKind] = [groupBy(inWords, ({ tankId, lotId }) => `${tankId} ${lotId}`), takenByKind(inWords, tanks)]
  return {
    onHand: [...new Set(foods.filter(({ isOut }) => isOut !== true).flatMap(({ name, servesAs }) => [name.toLowerCase(), ...servesAs]))],
    toldOf: (lotId) => byLot.get(lotId) ?? [],
    givenTo: (tankId, lotId) => toLot.get(`${tankId} ${lotId}`) ?? [],
    takenBy: (speciesId) => toKind.get(speciesId) ?? [],
  }
}

/** Whether a lot has gone without food for longer than usual since it came into this tank, and what to try. */
export function lotAppetite(lot: LotFacts, { tankId, looks }: Pick<TankFacts, 'tankId' | 'looks'>, { onHand, toldOf, givenTo, takenBy }: FoodsKnown, nowMs: number, rules: RoundRules): NotEating {
  const given = givenTo(tankId, lot.lotId)
  const answers: NotEatingAsked['answers'] = looks.filter(({ atMs }) => atMs >= lot.sinceMs).map((look) => ({ hoursAgo: hoursAgo(look.atMs, nowMs), ate: ateOf(look, lot.lotId), foods: givenBefore(look.atMs, given)?.foods ?? [] }))
  const { firstMealDays, bearsHunger, firstFoods, ways } = lot.book
  const bookFoods = (firstFoods ?? '').split(',').map((each) => each.trim()).filter(Boolean)
  const came = lot.sinceMs - lot.arrivedAtMs > dayMs ? 'move' : 'arrival'
  return notEating({ hoursHere: hoursAgo(lot.sinceMs, nowMs), came, firstMealDays, bearsHunger, answers, toldFoods: toldOf(lot.lotId), houseFoods: takenBy(lot.speciesId), bookFoods, onHand, habits: ways?.habits ?? [], mouth: ways?.mouth ?? null }, rules)
}

const becauseWords: Readonly<Record<FoodBecause, (many: boolean) => string>> = {
  'ate it here': (many) => `ate ${many ? 'them' : 'it'} here`,
  'ate it before': (many) => `ate ${many ? 'them' : 'it'} at the seller’s`,
  'others took it': (many) => `others of its kind took ${many ? 'them' : 'it'}`,
  book: (many) => `the book names ${many ? 'them' : 'it'}`,
  lure: (many) => `${many ? 'they tempt' : 'tempts'} many`,
}

/** What to say of a lot that does not eat; null where it is nothing to speak of. */
export function hungryWords({ species }: Pick<LotFacts, 'species'>, { listed, forH, next }: NotEating): string | null {
  if (!listed || forH === null) return null
  const tries = triesWords(next)
  return `${species}: no meal for ${spanWords(forH * 60)}.${tries === null ? '' : ` Try ${tries}.`}`
}

/** What to try next with why, in words; null where nothing is left to try. */
export function triesWords(next: NotEating['next']): string | null {
  const tries = [...groupBy(next, ({ because }) => because)].map(([because, foods]) => `${foods.map(({ food }) => food).join(', ')} (${becauseWords[because](foods.length > 1)})`)
  return tries.length > 0 ? tries.join('; ') : null
}
