import { shippedMoveRules, type MoveRules } from './moveRules'

/** What a fight did, from being chased on. */
export const fightHarms = ['chased', 'hurt', 'killed'] as const
export type FightHarm = (typeof fightHarms)[number]
const weights: Record<FightHarm, number> = { chased: 1, hurt: 2, killed: 4 }

/** A fight that somebody saw. */
export interface Fight {
  /** Net volume of the tank it was in, L. */
  volumeL: number | null
  daysAgo: number
  harm: FightHarm
  /** Whether it was these very fish; others of their kinds count half. */
  isSameFish: boolean
}

/**
 * How much what was seen of two kinds says about a new place: halved with time, and less in a larger tank than the one
 * they fought in. House guidance, docs/moves.md.
 * @param volumeL - of the new place; null where nobody knows.
 * @example fightWeight([{ volumeL: 60, daysAgo: 0, harm: 'hurt', isSameFish: true }], 240) // 0.5
 */
export function fightWeight(fights: readonly Fight[], volumeL: number | null, { fightHalfLifeDays }: Pick<MoveRules, 'fightHalfLifeDays'> = shippedMoveRules): number {
  const size = (of: number | null): number => (of === null || volumeL === null ? 0.5 : volumeL <= of ? 1 : of / volumeL)
  return fights.reduce((sum, fight) => sum + weights[fight.harm] * (fight.isSameFish ? 1 : 0.5) * size(fight.volumeL) * 2 ** -(fight.daysAgo / fightHalfLifeDays), 0)
}
