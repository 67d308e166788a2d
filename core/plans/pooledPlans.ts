import { byText } from '../contacts/contact'
import { groupBy } from '../collections/groupBy'
import type { Plan } from './plan'
import type { LotKnown, PlanFact, When } from './planFacts'
import { sizeEstimate } from './sizeEstimate'
import type { PlanRules } from './conditionState'

// People act on fish of a kind; the books know lots. Fish of one kind whose lots stand together anywhere cannot be told
// apart, so plans count them as one: a *unit*, named by its first lot.

/** Fish of a lot in a place. */
export interface StockRow {
  place: string
  lot: string
  /** Species and strain, in any one text. */
  kind: string
  n: number
}

/** Fish of one kind that a plan moves, with the lots they could have been when it was made. */
export interface PlannedKind {
  speciesId: string
  strain: string | null
  lotIds: string[]
  quantity: number
}

/** A plan as it is kept. */
export interface StoredPlan {
  id: string
  number: number
  madeAtMs: number
  fromTankId: string
  toTankId: string
  fish: PlannedKind[]
  when: When
  takes: 'whole' | 'share'
  untilOn: string | null
  state: 'open' | 'done' | 'dropped'
}

/** The unit of each lot that stands in the house. */
export function unitsOf(stock: readonly StockRow[]): Map<string, string> {
  const parent = new Map<string, string>()
  const root = (lot: string): string => {
    const up = parent.get(lot) ?? lot
    return up === lot ? lot : root(up)
  }
  const rows = stock.filter(({ n }) => n > 0)
  for (const { lot } of rows) parent.set(lot, lot)
  for (const together of groupBy(rows, ({ place, kind }) => JSON.stringify([place, kind])).values()) {
    const roots = [...new Set(together.map(({ lot }) => root(lot)))].sort(byText)
    for (const each of roots) parent.set(each, roots[0] ?? each)
  }
  return new Map([...parent.keys()].map((lot) => [lot, root(lot)]))
}

/** Fish as plans count them. */
export function pooledStock(stock: readonly StockRow[], units: ReadonlyMap<string, string>): { place: string; lot: string; n: number }[] {
  const rows = groupBy(stock.filter(({ n }) => n > 0), ({ place, lot }) => JSON.stringify([place, units.get(lot) ?? lot]))
  return [...rows.values()].map((all) => ({ place: all[0]?.place ?? '', lot: units.get(all[0]?.lot ?? '') ?? '', n: all.reduce((sum, { n }) => sum + n, 0) }))
}

/** The unit of fish of a plan: of those that stand where it takes them from, else wherever they are; the lot itself once all are gone. */
export function unitOfFish({ lotIds }: Pick<PlannedKind, 'lotIds'>, fromTankId: string, stock: readonly StockRow[], units: ReadonlyMap<string, string>): string {
  const here = lotIds.find((lot) => stock.some((row) => row.lot === lot && row.place === fromTankId && row.n > 0))
  const known = here ?? lotIds.find((lot) => units.has(lot))
  return known === undefined ? (lotIds[0] ?? '') : (units.get(known) ?? known)
}

/** A plan as its rules are asked of it: fish by unit, and whatever it waits for of them. */
export function asPlan(stored: StoredPlan, stock: readonly StockRow[], units: ReadonlyMap<string, string>): Plan {
  const unit = (fish: PlannedKind): string => unitOfFish(fish, stored.fromTankId, stock, units)
  const unitOfLot = (lot: string): string => {
    const fish = stored.fish.find(({ lotIds }) => lotIds.includes(lot))
    return fish ? unit(fish) : (units.get(lot) ?? lot)
  }
  const asked = (when: When): When => ('all' in when ? { all: when.all.map(asked) } : 'any' in when ? { any: when.any.map(asked) } : withUnit(when, unitOfLot))
  return {
    // Of two made in the same moment the first number has the fish.
    ...{ id: stored.id, made: `${new Date(stored.madeAtMs).toISOString()} ${String(stored.number).padStart(9, '0')}`, takes: stored.takes, until: stored.untilOn, state: stored.state, when: asked(stored.when) },
    moves: stored.fish.map((fish) => ({ lot: unit(fish), n: fish.quantity, from: stored.fromTankId, to: stored.toTankId })),
  }
}

const withUnit = (fact: PlanFact, unitOfLot: (lot: string) => string): PlanFact => ('lot' in fact && fact.lot !== undefined ? { ...fact, lot: unitOfLot(fact.lot) } : fact)

/**
 * What is known of the length of a unit: of its lots the one that is shortest by now, and nothing where one was never
 * measured, because a plan must not move the small with the large.
 */
export function pooledLot(lots: readonly LotKnown[], today: string, rules: PlanRules): LotKnown {
  const byLength = lots.map((lot) => ({ lot, cm: sizeEstimate(lot, today, rules).cm })).sort((a, b) => (a.cm ?? -1) - (b.cm ?? -1))
  const [shortest] = byLength
  if (!shortest) return { adultCm: null, sizes: [] }
  return shortest.lot
}

/** Fish of a plan by lot, as far as they stand anywhere: first those where it takes them from. */
export function fishOfPlan<Row extends StockRow>({ lotIds, quantity }: PlannedKind, fromTankId: string, stock: readonly Row[]): Row[] {
  let left = quantity
  const rows = stock.filter(({ lot }) => lotIds.includes(lot)).sort((a, b) => Number(b.place === fromTankId) - Number(a.place === fromTankId))
  return rows.flatMap((row) => {
    const n = Math.min(left, row.n)
    left -= n
    return n > 0 ? [{ ...row, n }] : []
  })
}

/**
 * Shares out over the lots of a pool how many fish a plan counts on: first over what others leave, so that nobody is warned
 * of fish that are enough for all.
 * @param leaving - fish of a lot that are about to go.
 */
export function countedOn(quantity: number, pool: readonly Pick<StockRow, 'lot' | 'n'>[], leaving: (lot: string) => number): Map<string, number> {
  let short = quantity
  const parts = new Map<string, number>()
  const share = (lot: string, most: number): void => {
    const part = Math.min(short, most)
    short -= part
    parts.set(lot, (parts.get(lot) ?? 0) + part)
  }
  const stays = (lot: string, n: number): number => Math.max(0, n - leaving(lot))
  for (const { lot, n } of pool) share(lot, stays(lot, n))
  for (const { lot, n } of pool) share(lot, n - stays(lot, n))
  return parts
}
