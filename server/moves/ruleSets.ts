import type { RuleCode } from '../../core/tankChoice/company'

/** Hard rules that only a move can break; the others are those of tank choice, in its words. */
export const ofMoves: ReadonlySet<string> = new Set<RuleCode>(['agent-carried', 'vessel-load', 'sick-to-well', 'hold-open', 'pairing-open', 'course-open', 'promised', 'plan-fish-out'])

/** What nobody asks of fish that come back from a box into the tank they lived in: it was so before. */
export const ofHome: ReadonlySet<string> = new Set<RuleCode>(['too-small', 'overload', 'own-kind', 'water-kind', 'water-unknown', 'salinity', 'temperature', 'no-common', 'not-clean', 'customer-tank'])
