import { zoneDays, type ZoneDays } from '../time/zoneDays'
import type { HoldPolicy } from './policy'
import type { Strand } from './strand'
import type { Leave, Movement } from './holdEvents'
import { clearWater, type GoneAfterDays, type WaterState } from './waterState'

/** Fish of one lot in one place, with the histories they may have had. */
export interface Group {
  lot: string
  place: string
  /** Expected fish, in whole millionths: fish of lots that stand together are shares. */
  millionths: number
  strands: readonly Strand[]
}
/** Fish that left: what their hold was short of. */
export interface Departure {
  id: string
  day: number
  n: number
  days: number
  gates: readonly string[]
}
/** What a room's clocks are played with. */
export interface HoldRules {
  timeZone: string
  /** Tanks and the waters they belong to; a tank that is not named has its own. */
  tanks: Readonly<Record<string, string>>
  policies: ReadonlyMap<string, HoldPolicy>
  goneAfter: GoneAfterDays
}
/** A room of held fish at a moment. What stands in its lists is never changed in place, the lists themselves are. */
export interface HoldRoom {
  rules: HoldRules
  days: ZoneDays
  /** The day that is open; null before the first event. */
  day: number | null
  groups: Map<string, ReadonlyMap<string, Group>>
  /** The water of each tank that is named, as it is plumbed now. */
  tankWaters: Map<string, string>
  /** Tanks of each water that fish stood in, or that was named. */
  tanksOf: Map<string, ReadonlySet<string>>
  waters: Map<string, WaterState>
  /** Movements of more fish than stood there, in the order they came to wait. */
  waiting: readonly (Movement | Leave)[]
  /** The minute in which they are tried again, after fish came to where they are wanted; null where none have. */
  retryAt: number | null
  /** Fish that left, by the place they left and by lot. */
  departures: Map<string, ReadonlyMap<string, readonly Departure[]>>
  /** Places and waters in which something changed this minute: only there may a phase be passed before midnight. */
  touched: { places: Set<string>; waters: Set<string> }
}

/** Nothing has changed yet. */
export const untouched = (): HoldRoom['touched'] => ({ places: new Set(), waters: new Set() })

export function emptyRoom(rules: HoldRules): HoldRoom {
  const tanksOf = new Map<string, Set<string>>()
  for (const [tank, water] of Object.entries(rules.tanks)) tanksOf.set(water, (tanksOf.get(water) ?? new Set()).add(tank))
  return { rules, days: zoneDays(rules.timeZone), day: null, groups: new Map(), tankWaters: new Map(Object.entries(rules.tanks)), tanksOf, waters: new Map(), waiting: [], retryAt: null, departures: new Map(), touched: untouched() }
}
/** The room as it is now, to be played on without touching it. */
export const copyRoom = (room: HoldRoom): HoldRoom => ({ ...room, groups: new Map(room.groups), tankWaters: new Map(room.tankWaters), tanksOf: new Map(room.tanksOf), waters: new Map(room.waters), departures: new Map(room.departures), touched: untouched() })

/**
 * A policy by its id.
 * @throws RangeError when the house has none of that name.
 */
export function requirePolicy({ rules }: HoldRoom, id: string): HoldPolicy {
  const policy = rules.policies.get(id)
  if (!policy) throw new RangeError(`There is no hold policy ${id}`)
  return policy
}

const vesselMark = 'vessel:'
export const isVessel = (place: string): boolean => place.startsWith(vesselMark)
/** A place as holds call it, of a tank or of anything else that fish stand in. */
export const placeMark = (id: string, isTank: boolean): string => (isTank ? id : `${vesselMark}${id}`)
/** The id behind a place. */
export const placeId = (place: string): string => (isVessel(place) ? place.slice(vesselMark.length) : place)
export const groupKey = (lot: string, place: string): string => `${lot}\n${place}`

/** The water of a place: of a tank its system's, of a vessel its own. */
export const waterOf = ({ tankWaters }: HoldRoom, place: string): string => (isVessel(place) ? place : (tankWaters.get(place) ?? `tank:${place}`))
/** The water that fish count as standing in: those in a vessel in that of the tank they came from. */
export const standsIn = (room: HoldRoom, place: string, { from }: Pick<Strand, 'from'>): string => waterOf(room, isVessel(place) && from !== null ? from : place)
export const setWater = (room: HoldRoom, water: string, state: WaterState): void => {
  room.waters.set(water, state)
  room.touched.waters.add(water)
}
export const waterState = (room: HoldRoom, water: string): WaterState => room.waters.get(water) ?? clearWater

export const groupsAt = ({ groups }: HoldRoom, place: string): Group[] => [...(groups.get(place)?.values() ?? [])]
export const groupOf = ({ groups }: HoldRoom, lot: string, place: string): Group | undefined => groups.get(place)?.get(lot)
/** What left of a lot from a place, in the order it left. */
export const departuresOf = ({ departures }: HoldRoom, lot: string, place: string): readonly Departure[] | undefined => departures.get(place)?.get(lot)
export function addDeparture(room: HoldRoom, lot: string, place: string, departure: Departure): void {
  room.departures.set(place, new Map(room.departures.get(place)).set(lot, [...(departuresOf(room, lot, place) ?? []), departure]))
}
export function* allGroups({ groups }: HoldRoom): Generator<Group> {
  for (const lots of groups.values()) yield* lots.values()
}

/** Sets a group down; one without fish is gone. */
export function putGroup(room: HoldRoom, group: Group): void {
  room.touched.places.add(group.place)
  const before = room.groups.get(group.place)
  const lots = new Map(before)
  if (group.millionths > 0) lots.set(group.lot, group)
  else lots.delete(group.lot)
  if (lots.size === 0) room.groups.delete(group.place)
  else room.groups.set(group.place, lots)
  if (!before && lots.size > 0 && !isVessel(group.place)) nameTank(room, group.place, waterOf(room, group.place))
}
/** Keeps in mind that a tank belongs to a water. */
export function nameTank({ tanksOf }: HoldRoom, tank: string, water: string): void {
  const tanks = tanksOf.get(water)
  if (!tanks?.has(tank)) tanksOf.set(water, new Set(tanks).add(tank))
}

/** Groups with fish that count as standing in a water: in its tanks, and in vessels. */
export function groupsOfWater(room: HoldRoom, water: string): Group[] {
  const inTanks = [...(room.tanksOf.get(water) ?? [])].filter((tank) => waterOf(room, tank) === water).flatMap((tank) => groupsAt(room, tank))
  const inVessels = [...room.groups.keys()].filter(isVessel).flatMap((place) => groupsAt(room, place)).filter(({ place, strands }) => strands.some((strand) => standsIn(room, place, strand) === water))
  return [...inTanks, ...inVessels]
}

/** Groups in whose place or water something changed since this was asked. */
export function takeTouched(room: HoldRoom): Group[] {
  const { places, waters } = room.touched
  const found = new Set([...[...places].flatMap((place) => groupsAt(room, place)), ...[...waters].flatMap((water) => groupsOfWater(room, water))])
  room.touched = untouched()
  return [...found]
}

/** Changes strands of some groups; a strand that comes back as it was is left alone. */
export function changeStrands(room: HoldRoom, groups: readonly Group[], change: (strand: Strand, group: Group) => Strand): void {
  for (const group of groups) {
    const strands = group.strands.map((strand) => change(strand, group))
    if (strands.some((strand, index) => strand !== group.strands[index])) putGroup(room, { ...group, strands })
  }
}
