import type { Tolerance } from '../setup/words'
import type { Animal } from '../tankChoice/tankChoice'
import type { MoveRules } from './moveRules'

/** An animal that is handled, and how much handling it bears. */
export interface Handled extends Animal {
  tolerance?: Tolerance
}

/** Weight of one, g: as the book says, else by its length (condition factor); null where neither is known. */
export const gramsOf = ({ massG, sizeCm }: Pick<Animal, 'massG' | 'sizeCm'>, { gramsPerCm3 }: Pick<MoveRules, 'gramsPerCm3'>): number | null => massG ?? (sizeCm === null ? null : gramsPerCm3 * sizeCm ** 3)

const tolerances: readonly Tolerance[] = ['hardy', 'normal', 'delicate', 'very delicate']

/** What the most delicate of several bears; *normal* where nobody said. */
export const mostDelicate = (fish: readonly { tolerance?: Tolerance }[]): Tolerance =>
  tolerances[Math.max(...fish.map(({ tolerance = 'normal' }) => tolerances.indexOf(tolerance)), fish.length === 0 ? 1 : 0)] ?? 'normal'
