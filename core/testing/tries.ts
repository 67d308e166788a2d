/**
 * How often something is tried in a test: as often as it says in the long run (`npm run test:long`), no more than
 * `shortly` times in `npm test`, which is run many times a day.
 */
export const tries = (inFull: number, shortly = 1000): number => (process.env.CRATE_LONG ? inFull : Math.min(inFull, shortly))
