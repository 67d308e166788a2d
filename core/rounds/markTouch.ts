import type { Mark } from '../facts/facts'
import type { Sign } from './rounds.schema'

/**
 * What another touch on a sign makes of what was marked: the first says it is there, the second that it is clear, the third
 * takes it off again. Where several lots stand in the tank, the third asks whose it is instead.
 * @example touchSign([], 'pale', false).marks // [{ sign: 'pale', severity: 1, lotId: null }]
 */
export function touchSign(marks: readonly Mark[], sign: Sign, hasSeveral: boolean): { marks: Mark[]; asksWhose: boolean } {
  const own = marks.filter((mark) => mark.sign === sign)
  const others = marks.filter((mark) => mark.sign !== sign)
  if (own.length === 0) return { marks: [...others, { sign, severity: 1, lotId: null }], asksWhose: false }
  if (own.every(({ severity }) => severity === 1)) return { marks: marks.map((mark) => (mark.sign === sign ? { ...mark, severity: 2 } : mark)), asksWhose: false }
  return hasSeveral ? { marks: [...marks], asksWhose: true } : { marks: others, asksWhose: false }
}

/** A sign is of one lot, or of the tank where that is null; it stays as clear as it was. */
export const markOf = (marks: readonly Mark[], sign: Sign, lotId: string | null): Mark[] => [...marks.filter((mark) => mark.sign !== sign), { sign, severity: Math.max(1, ...marks.filter((mark) => mark.sign === sign).map(({ severity }) => severity)), lotId }]

/** A sign is not there after all. */
export const withoutSign = (marks: readonly Mark[], sign: Sign): Mark[] => marks.filter((mark) => mark.sign !== sign)
