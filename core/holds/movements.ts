import type { Leave, Movement } from './holdEvents'
import { changeStrands, groupOf, groupsAt, isVessel, nameTank, putGroup, requirePolicy, standsIn, waterOf, type HoldRoom } from './holdRoom'
import { newcomer, type Strand } from './strand'

/** Where fish stood before the movements of a minute, and which of these moved them. */
export interface Moved {
  /** Their water; null where they have only now come. */
  before: string | null
  /** New to everyone: they came, or left a vessel that they shared with fish of another water. */
  isNew: boolean
  ids: readonly string[]
  /** Where they stand now. */
  place: string
}
/** The strands that the movements of a minute moved. Every moved strand is an object of its own. */
export type Movers = Map<Strand, Moved>

export const millionths = (n: number): number => Math.round(n * 1e6)

/** Sets fish down beside those of their lot. */
function join(room: HoldRoom, lot: string, place: string, n: number, strands: readonly Strand[]): void {
  const there = groupOf(room, lot, place)
  putGroup(room, { lot, place, millionths: (there?.millionths ?? 0) + n, strands: [...(there?.strands ?? []), ...strands] })
}

/** Fish of a lot leave a place; nobody knows which, so those that stay keep every history. Null where there are not so many. */
function takeOut(room: HoldRoom, lot: string, place: string, n: number): readonly Strand[] | null {
  const there = groupOf(room, lot, place)
  if (!there || there.millionths < n) return null
  putGroup(room, { ...there, millionths: there.millionths - n })
  return there.strands
}

function arrive(room: HoldRoom, movers: Movers, { id, at, lot, tank, n, policy: policyId, openedAt }: { id: string; at: number; lot: string; tank: string; n: number; policy: string | null; openedAt?: number }): void {
  const policy = policyId === null ? null : requirePolicy(room, policyId)
  const beganAt = policy?.start === 'opened' ? (openedAt ?? at) : at
  const strand = newcomer(policy, room.days.dayOf(beganAt), at)
  movers.set(strand, { before: null, isNew: true, ids: [id], place: tank })
  join(room, lot, tank, millionths(n), [strand])
}

/** A strand that is moved, as an object of its own, with where it stood before this minute. */
function moved(room: HoldRoom, movers: Movers, place: string, strand: Strand, id: string, to: string, change: Partial<Strand> = {}, isNew = false): Strand {
  const known = movers.get(strand) ?? { before: standsIn(room, place, strand), isNew: false, ids: [] }
  const made = { ...strand, ...change }
  movers.set(made, { before: known.before, isNew: known.isNew || isNew, ids: [...known.ids, id], place: to })
  return made
}

function move(room: HoldRoom, movers: Movers, { id, lot, from, to, n }: { id: string; lot: string; from: string; to: string; n: number }): boolean {
  if (from === to) return groupOf(room, lot, from) !== undefined
  const strands = takeOut(room, lot, from, millionths(n))
  if (!strands) return false
  const [leaves, enters] = [isVessel(from), isVessel(to)]
  const taken = strands.map((strand) => {
    const origin = enters ? (leaves ? strand.from : from) : null
    return moved(room, movers, from, strand, id, to, { from: origin, isMixed: enters && strand.isMixed }, leaves && !enters && strand.isMixed)
  })
  join(room, lot, to, millionths(n), taken)
  return true
}

function plumb(room: HoldRoom, movers: Movers, { id, tank, water }: { id: string; tank: string; water: string }): void {
  const vessels = [...room.groups.keys()].filter(isVessel).flatMap((place) => groupsAt(room, place))
  const counted = (strand: Strand, place: string): boolean => place === tank || (isVessel(place) && strand.from === tank)
  changeStrands(room, [...groupsAt(room, tank), ...vessels], (strand, { place }) => (counted(strand, place) ? moved(room, movers, place, strand, id, place) : strand))
  room.tankWaters.set(tank, water)
  nameTank(room, tank, waterOf(room, tank))
}

/** Does one movement. False where more fish would go than stand there: it waits for entries that come later. */
function doMovement(room: HoldRoom, movers: Movers, movement: Movement, minute: number): boolean {
  const { id, kind } = movement
  switch (kind) {
    case 'arrive':
      arrive(room, movers, movement)
      return true
    case 'plumb':
      plumb(room, movers, movement)
      return true
    case 'move':
      return move(room, movers, movement)
    case 'loss':
      return takeOut(room, movement.lot, movement.tank, millionths(movement.n)) !== null
    case 'count': {
      const { lot, tank, by } = movement
      if (by < 0) return takeOut(room, lot, tank, millionths(-by)) !== null
      const there = groupOf(room, lot, tank)
      if (there) putGroup(room, { ...there, millionths: there.millionths + millionths(by) })
      else if (by > 0) arrive(room, movers, { id, at: minute, lot, tank, n: by, policy: null })
      return true
    }
  }
}

/**
 * Does the movements of a minute: those that wait first, in the order they came to wait, from the front again after each
 * that could be done.
 * @param leave - does a departure that waits.
 */
export function doMovements(room: HoldRoom, movements: readonly Movement[], minute: number, leave: (leaving: Leave) => boolean): Movers {
  const movers: Movers = new Map()
  const tryOne = (each: Movement | Leave): boolean => (each.kind === 'leave' ? leave(each) : doMovement(room, movers, each, minute))
  let waiting = [...room.waiting]
  for (let index = 0; index < waiting.length; ) {
    const each = waiting[index]
    if (each && tryOne(each)) {
      waiting = waiting.filter((other) => other !== each)
      index = 0
    } else index += 1
  }
  room.waiting = [...waiting, ...movements.filter((each) => !tryOne(each))]
  return movers
}
