/** What was read of a water, newest and over the newest day. */
export interface WaterReading {
  value: number
  day: number
  lowest: number
  highest: number
}
/** What is known of a water that tanks share: what was read in it, and what was put into it. */
export interface WaterState {
  readings: ReadonlyMap<string, WaterReading>
  /** The day of the last dose of each agent that is in it. */
  agents: ReadonlyMap<string, number>
}
export const clearWater: WaterState = { readings: new Map(), agents: new Map() }

/** Days after its last dose on which an agent is gone by itself; an agent that is not named stays until it is cleared. */
export type GoneAfterDays = Readonly<Record<string, number>>

/** What was put into a water and is still there. */
export function agentsIn({ agents }: WaterState, day: number, goneAfter: GoneAfterDays): string[] {
  return [...agents].filter(([agent, dosed]) => day - dosed < (goneAfter[agent] ?? Infinity)).map(([agent]) => agent)
}

export const withReading = (water: WaterState, what: string, value: number, day: number): WaterState => {
  const before = water.readings.get(what)
  const [lowest, highest] = before?.day === day ? [Math.min(before.lowest, value), Math.max(before.highest, value)] : [value, value]
  return { ...water, readings: new Map(water.readings).set(what, { value, day, lowest, highest }) }
}
export const withDose = (water: WaterState, agent: string, day: number): WaterState => ({ ...water, agents: new Map(water.agents).set(agent, day) })
export const withoutAgents = (water: WaterState, gone: readonly string[]): WaterState => ({ ...water, agents: new Map([...water.agents].filter(([agent]) => !gone.includes(agent))) })

/** Whether a value lies in a range with an open end or two. */
export const isWithin = (value: number, { lo, hi }: { lo: number | null; hi: number | null }): boolean => (lo === null || value >= lo) && (hi === null || value <= hi)

/** Whether a day closed at a level: the newest reading in range and not too old, none of that day out of range. */
export function closedAtLevel({ readings }: WaterState, { what, gapDays, ...range }: { what: string; lo: number | null; hi: number | null; gapDays: number }, day: number): boolean {
  const reading = readings.get(what)
  if (!reading || day - reading.day > gapDays || !isWithin(reading.value, range)) return false
  return reading.day !== day || (isWithin(reading.lowest, range) && isWithin(reading.highest, range))
}
