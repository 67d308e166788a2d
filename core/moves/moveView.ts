import type { MoveLine } from './moveWords'
import type { MoveChecked } from './moveCheck'

/** What speaks against a move, before the fish are netted. */
export interface MoveCheckView {
  verdict: MoveChecked['verdict']
  /** One line a code, the gravest first. */
  lines: MoveLine[]
  points: number
  looks: MoveChecked['looks']
}
