import { emptyRoom, type Departure, type Group, type HoldRoom, type HoldRules } from './holdRoom'
import type { Hold, Strand } from './strand'
import type { WaterReading } from './waterState'

// A room of held fish as text, so that it need not be played again from the beginning after a start.

interface WrittenStrand extends Omit<Strand, 'hold'> {
  hold: (Omit<Hold, 'policy'> & { policy: string }) | null
}
interface Written {
  day: number | null
  groups: (Omit<Group, 'strands'> & { strands: WrittenStrand[] })[]
  tankWaters: [string, string][]
  tanksOf: [string, string[]][]
  waters: [string, { readings: [string, WaterReading][]; agents: [string, number][] }][]
  waiting: HoldRoom['waiting']
  retryAt: number | null
  departures: [string, [string, readonly Departure[]][]][]
}

/** Writes a room down as it is. */
export function writeRoom({ day, groups, tankWaters, tanksOf, waters, waiting, retryAt, departures }: HoldRoom): string {
  const strandOf = ({ hold, ...strand }: Strand): WrittenStrand => ({ ...strand, hold: hold && { ...hold, policy: hold.policy.id } })
  const written: Written = {
    day,
    groups: [...groups.values()].flatMap((lots) => [...lots.values()].map(({ strands, ...group }) => ({ ...group, strands: strands.map(strandOf) }))),
    tankWaters: [...tankWaters],
    tanksOf: [...tanksOf].map(([water, tanks]) => [water, [...tanks]]),
    waters: [...waters].map(([water, { readings, agents }]) => [water, { readings: [...readings], agents: [...agents] }]),
    waiting,
    retryAt,
    departures: [...departures].map(([place, lots]) => [place, [...lots]]),
  }
  return JSON.stringify(written)
}

/**
 * Reads a room that was written down.
 * @throws Error when the text is none, or names a policy that there is not any more.
 */
export function readRoom(text: string, rules: HoldRules): HoldRoom {
  const { day, groups, tankWaters, tanksOf, waters, waiting, retryAt, departures } = JSON.parse(text) as Written
  const strandOf = ({ hold, ...strand }: WrittenStrand): Strand => {
    if (hold === null) return { ...strand, hold }
    const policy = rules.policies.get(hold.policy)
    if (!policy) throw new RangeError(`There is no hold policy ${hold.policy}`)
    return { ...strand, hold: { ...hold, policy } }
  }
  const room = emptyRoom(rules)
  const places = new Map<string, Map<string, Group>>()
  for (const { strands, ...group } of groups) places.set(group.place, (places.get(group.place) ?? new Map<string, Group>()).set(group.lot, { ...group, strands: strands.map(strandOf) }))
  return {
    ...room,
    ...{ day, waiting, retryAt, groups: places, tankWaters: new Map(tankWaters), departures: new Map(departures.map(([place, lots]) => [place, new Map(lots)])) },
    tanksOf: new Map(tanksOf.map(([water, tanks]) => [water, new Set(tanks)])),
    waters: new Map(waters.map(([water, { readings, agents }]) => [water, { readings: new Map(readings), agents: new Map(agents) }])),
  }
}
