/**
 * What the books hold, in the pieces that screens show: writes say which of these they touch, reads which they tell of.
 * One of them may be named more closely by its id (`crate:7`).
 */
export const thingNames = [
  // The room and who works in it.
  'house', 'staff', 'device', 'notice', 'calendar',
  // What a lead keeps.
  'limit', 'school', 'register',
  // Fish in tanks, and what was seen of them.
  'tank', 'look', 'round', 'rescue', 'stocktake', 'sale', 'contact',
  // Moving them: what stands in buckets and boxes, lifts, fights, newcomers, moves that wait.
  'vessel', 'lift', 'fight', 'introduction', 'plan', 'chore',
  // The feed kitchen.
  'kitchen',
  // What is handed over to those who come next.
  'handover',
  // Holds and what they go by.
  'hold',
  // What is put into waters and done to them.
  'regimen',
  // What was learned from losses: alarms that were answered, outbreaks, trials, sheets.
  'outcome',
  // Probes in tanks.
  'probe',
  // Deliveries: what was promised, and the bags it came in.
  'crate', 'bag', 'claim', 'preparation', 'letter',
  // The bench.
  'run', 'recheck', 'airline',
  // All work that waits; told of by the server when it has become another.
  'due',
] as const
export type ThingName = (typeof thingNames)[number]
export type Thing = ThingName | `${ThingName}:${string}`

const nameOf = (thing: string): string => thing.split(':')[0] ?? ''

/** Answers whether what was touched is what is told of: a name alone means every one of it. */
export function meets(touched: readonly string[], about: readonly string[]): boolean {
  return touched.some((one) => about.some((other) => one === other || (nameOf(one) === nameOf(other) && (!one.includes(':') || !other.includes(':')))))
}
