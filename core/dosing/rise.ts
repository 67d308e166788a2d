import { dosingLimits } from './agents'

/** A level with its spread, mg/L. */
export interface KnownLevel {
  c: number
  sd: number
}
/**
 * What a dose may raise a level by, mg/L: to the target, and with the upper end of its band no higher than the limit.
 * @param rel - how exactly the dose can be measured out, as a share of it.
 * @param hi - the limit, mg/L; null without one.
 * @returns with `isCut` where the limit decided: dose this, read, then the rest.
 */
export function riseTo(target: number, { c, sd }: KnownLevel, hi: number | null, rel: number): { rise: number; isCut: boolean } {
  const [wanted, most] = [target - c, hi === null ? Infinity : (hi - c - dosingLimits.bandZ * sd) / (1 + dosingLimits.bandZ * rel)]
  return { rise: Math.max(0, Math.min(wanted, most)), isCut: most < wanted }
}
