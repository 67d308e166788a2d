import type { KnownFacts, When } from './planFacts'

export interface PlannedMove {
  lot: string
  n: number
  from: string
  to: string
}

/** Fish that are to be moved once something is so. It never moves a fish itself. */
export interface Plan {
  id: string
  /** When it was made; the earlier one has the fish. Any text that sorts by time. */
  made: string
  moves: readonly PlannedMove[]
  when: When
  /** *whole* bears nobody else in the places it goes to. */
  takes?: 'whole' | 'share'
  /** Its last day; null without end. */
  until?: string | null
  state?: 'open' | 'done' | 'dropped'
}

/** Fish of a lot that the house has, wherever they stand. */
export const inHouse = (facts: KnownFacts, lot: string): number => (facts.stock ?? []).filter((each) => each.lot === lot).reduce((sum, { n }) => sum + n, 0)
/** Fish of a lot that stand in a place. */
export const standing = (facts: KnownFacts, lot: string, place: string): number => (facts.stock ?? []).filter((each) => each.lot === lot && each.place === place).reduce((sum, { n }) => sum + n, 0)
/** Lots that a plan moves. */
export const ownLots = ({ moves }: Pick<Plan, 'moves'>): string[] => moves.map(({ lot }) => lot)
