import type { TankPurpose } from '../room/room.schema'

/** Fish of the kind that was sold in one tank. */
export interface SaleTank {
  tankId: string
  code: string
  purpose: TankPurpose | null
  fish: number
  isHeld: boolean
}

export interface SalePart {
  tankId: string
  quantity: number
}

/** How a tank is found for what was sold, as it is said to people. */
export const saleTankRule = 'Taken from a sale tank before any other, from one out of its hold before one in it, and then where most of them stand; where those are not enough, from the next.'

const rankOf = ({ purpose }: SaleTank): number => (purpose === 'sale' ? 0 : purpose === null || purpose === 'display' ? 1 : 2)

/** The tanks that something sold may have come from, the likeliest first. */
export const likeliestFirst = (tanks: readonly SaleTank[]): SaleTank[] => [...tanks].filter(({ fish }) => fish > 0).sort((a, b) => rankOf(a) - rankOf(b) || Number(a.isHeld) - Number(b.isHeld) || b.fish - a.fish || (a.code < b.code ? -1 : 1))

/**
 * Says which tanks fish were likely sold from; null where fewer stand in all of them.
 * @param first - tank that somebody named; it comes before all others.
 */
export function tanksForSale(tanks: readonly SaleTank[], count: number, first: string | null = null): SalePart[] | null {
  const ordered = likeliestFirst(tanks).sort((a, b) => Number(b.tankId === first) - Number(a.tankId === first))
  const parts: SalePart[] = []
  let left = count
  for (const { tankId, fish } of ordered) {
    const quantity = Math.min(left, fish)
    if (quantity > 0) parts.push({ tankId, quantity })
    left -= quantity
  }
  return left === 0 ? parts : null
}
