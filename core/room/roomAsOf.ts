import { byText } from '../contacts/contact'

/** A movement as it is put back to a moment; times in whatever unit the moment is asked in. */
export interface MovedThen {
  id: string
  lot: string
  n: number
  from: string
  to: string
  happenedAt: number
  recordedAt: number
  reverses: string | null
}
/** What a lot was called since a moment. */
export interface NamedThen {
  lot: string
  species: string
  recordedAt: number
}

/** *books*: what could be known then. *happened*: how it was, by all that is known today. */
export const roomClocks = ['books', 'happened'] as const
export type RoomClock = (typeof roomClocks)[number]

export interface StoodThen {
  place: string
  lot: string
  n: number
  /** Null where nobody had named it yet. */
  species: string | null
}

/** Not a place of the room: fish come from there and go there. */
export const outside = 'outside'

/**
 * Puts the room back to a moment. By the books every movement recorded until then counts, and lots have the names known
 * then; as it happened, what was taken back never was, the rest counts by when it happened, and a lot always was what it is
 * called now.
 * @returns fish of each lot in each place, by place and lot, and apart what comes out below nothing: dates that cannot be,
 * which are shown and never hidden.
 */
export function roomAsOf({ movements, names, at, clock }: { movements: readonly MovedThen[]; names: readonly NamedThen[]; at: number; clock: RoomClock }): { stock: StoodThen[]; below: Omit<StoodThen, 'species'>[] } {
  const takenBack = new Set(movements.flatMap(({ reverses }) => reverses ?? []))
  const counts = ({ id, recordedAt, happenedAt, reverses }: MovedThen): boolean => (clock === 'books' ? recordedAt <= at : reverses === null && !takenBack.has(id) && happenedAt <= at)
  const sums = new Map<string, { place: string; lot: string; n: number }>()
  const add = (place: string, lot: string, n: number): void => {
    if (place === outside) return
    const key = JSON.stringify([place, lot])
    const there = sums.get(key)
    if (there) there.n += n
    else sums.set(key, { place, lot, n })
  }
  for (const movement of movements) {
    if (!counts(movement)) continue
    add(movement.from, movement.lot, -movement.n)
    add(movement.to, movement.lot, movement.n)
  }
  const all = [...sums.values()].sort((a, b) => byText(a.place, b.place) || byText(a.lot, b.lot))
  const called = namesAt(names, clock === 'books' ? at : Infinity)
  return { stock: all.filter(({ n }) => n > 0).map((each) => ({ ...each, species: called.get(each.lot) ?? null })), below: all.filter(({ n }) => n < 0) }
}

/** The newest name of each lot that was known at a moment. */
function namesAt(names: readonly NamedThen[], at: number): Map<string, string> {
  const known = names.filter(({ recordedAt }) => recordedAt <= at)
  return new Map([...known].sort((a, b) => a.recordedAt - b.recordedAt).map(({ lot, species }) => [lot, species]))
}
