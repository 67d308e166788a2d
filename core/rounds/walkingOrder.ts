import { graveSigns, type Sign } from './rounds.schema'

export interface Stoppable {
  code: string
  rack: string
  shelf: number
  position: number
  water: string
  signs: readonly Sign[]
  /** Days since the newest fish came in; null when never. */
  daysSinceArrival: number | null
}

/**
 * Orders the tanks of a round so that hands and nets go from clean to doubtful: settled tanks first, new arrivals after
 * them, tanks with signs last; within each group along the racks.
 * @param newArrivalDays - house limit: fish that came within so many days are new arrivals.
 * @param walk - racks in the order one walks by them; by name where nobody placed them on the floor.
 */
export function walkingOrder<T extends Stoppable>(stops: readonly T[], newArrivalDays: number, walk: readonly string[] = []): T[] {
  const place = new Map(walk.map((rack, index) => [rack, index]))
  const onTheWay = ({ rack }: T): number => place.get(rack) ?? Infinity
  const along = (a: T, b: T): number => a.water.localeCompare(b.water) || compare(onTheWay(a), onTheWay(b)) || a.rack.localeCompare(b.rack, 'en', { numeric: true }) || a.shelf - b.shelf || a.position - b.position
  return [...stops].sort((a, b) => doubt(a, newArrivalDays) - doubt(b, newArrivalDays) || along(a, b))
}

/** As numbers compare, where both may be without end. */
const compare = (a: number, b: number): number => (a === b ? 0 : a - b)

/** How doubtful a tank is: 0 settled, 1 new arrivals, 2 signs, 3 grave signs. */
export function doubt({ signs, daysSinceArrival }: Pick<Stoppable, 'signs' | 'daysSinceArrival'>, newArrivalDays: number): number {
  if (signs.some((sign) => graveSigns.includes(sign))) return 3
  if (signs.length > 0) return 2
  return daysSinceArrival !== null && daysSinceArrival < newArrivalDays ? 1 : 0
}
