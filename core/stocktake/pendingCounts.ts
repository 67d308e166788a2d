import type { Pending } from '../commands/pending'
import { nameKey } from '../words/nameKey'
import type { CountTank } from './stocktake.schema'
import type { StocktakeView, TankToCount } from './stocktakeView'

/** Shows a stocktake with the counts that wait on this device; how they differ from the books is said once they are in. */
export function withPendingCounts({ stocktake }: { stocktake: StocktakeView | null }, pending: readonly Pending[]): { stocktake: StocktakeView | null } {
  const counts = pending.flatMap(({ command, params, isTouch, input }) => (command === 'countTank' && isTouch && params.stocktakeId === stocktake?.id ? [input as CountTank] : []))
  return { stocktake: stocktake && counts.length > 0 ? { ...stocktake, tanks: stocktake.tanks.map((tank) => counts.filter(({ tankId }) => tankId === tank.tankId).reduce(withCount, tank)) } : stocktake }
}

function withCount(tank: TankToCount, { kinds, source, happenedAtMs }: CountTank): TankToCount {
  const isSame = (a: { species: string; strain: string | null }, b: { species: string; strain: string | null }): boolean => nameKey(a.species) === nameKey(b.species) && a.strain === b.strain
  const known = tank.kinds.filter(({ booked }) => booked > 0).map((each) => ({ ...each, counted: kinds.find((kind) => isSame(kind, each))?.counted ?? 0 }))
  const others = kinds.filter((kind) => !known.some((each) => isSame(kind, each))).map(({ species, strain, counted }) => ({ speciesId: '', species, strain, booked: 0, counted }))
  return { ...tank, kinds: [...known, ...others], source, countedAtMs: happenedAtMs, countedBy: tank.countedBy ?? '' }
}
