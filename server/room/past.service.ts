import { groupBy } from '../../core/collections/groupBy'
import type { TankFacts } from '../../core/facts/facts'
import { outsidePlaceId } from '../../core/ledger/movement'
import type { RoomClock } from '../../core/room/roomAsOf'
import type { RoomThen, Since, TankThen } from '../../core/room/roomThen'
import type { FactsService } from '../facts/facts.service'
import type { Cursor, PastRow, PastStore } from './past.store'

/** Fish by place and lot at a moment, and what had happened until then. */
interface Books {
  fish: Map<string, number>
  until: Since
}
interface Mark {
  cursor: Cursor
  /** The latest moment of what was walked: of the books' clock, which may have been set back. */
  latestMs: number
  keys: string[]
  counts: Int32Array
  until: Since
}

const keyOf = (place: string, lot: string): string => `${place} ${lot}`
const start: Mark = { cursor: { atMs: -1, seq: 0 }, latestMs: -1, keys: [], counts: new Int32Array(0), until: {} }

interface Collaborators {
  store: PastStore
  facts: Pick<FactsService, 'all'>
}

/**
 * The room as of any moment: by what the books said then, or as it was by all that is known today.
 * @param apart - the walk through the ledger leaves a mark after so many movements; from the last one before it a moment is near.
 */
export function createPastService({ store, facts }: Collaborators, apart = 4000) {
  const marks: Record<RoomClock, Mark[]> = { books: [start], happened: [start] }
  let [version, lastSeq] = ['', 0]

  /** What was written late, or taken back, makes marks after its moment void; the books themselves only grow. */
  function catchUp(): void {
    if (version === store.version()) return
    // With no mark left there is nothing that could be void.
    const touched = marks.happened.length + marks.books.length > 2 ? store.touchedSince(lastSeq) : { earliestMs: null, lastSeq: store.lastSeq() }
    if (touched.earliestMs !== null) marks.happened = marks.happened.filter(({ latestMs }) => latestMs < (touched.earliestMs ?? 0))
    ;[version, lastSeq] = [store.version(), touched.lastSeq]
  }

  /** Walks on from the last mark before a moment, and leaves marks on the way. */
  function booksAt(atMs: number, clock: RoomClock): Books {
    catchUp()
    const known = marks[clock]
    const mark = known.findLast(({ latestMs }) => latestMs <= atMs) ?? start
    const books = booksOf(mark)
    let { cursor, latestMs } = mark
    for (let isWhole = true; ; ) {
      const rows = store.rows(clock, cursor, apart)
      const counting = rows.filter((row) => row.atMs <= atMs)
      for (const row of counting) book(books, row)
      isWhole &&= counting.length === rows.length
      const last = rows.at(-1)
      // By when it happened nothing comes after that; the books' clock may have been set back.
      const isPast = clock === 'happened' ? counting.length < rows.length : counting.length === 0
      if (!last || rows.length < apart || isPast) return books
      cursor = { atMs: last.atMs, seq: last.seq }
      latestMs = Math.max(latestMs, ...rows.map((row) => row.atMs))
      if (isWhole && !known.some((each) => each.cursor.seq === cursor.seq && each.cursor.atMs === cursor.atMs)) leave(known, books, cursor, latestMs)
    }
  }

  const booksOf = ({ keys, counts, until }: Mark): Books => ({ fish: new Map(keys.map((key, index) => [key, counts[index] ?? 0])), until: { ...until } })

  function leave(known: Mark[], { fish, until }: Books, cursor: Cursor, latestMs: number): void {
    const standing = [...fish].filter(([, n]) => n !== 0)
    known.push({ cursor, latestMs, keys: standing.map(([key]) => key), counts: Int32Array.from(standing, ([, n]) => n), until: { ...until } })
    known.sort((a, b) => a.latestMs - b.latestMs || a.cursor.seq - b.cursor.seq)
  }

  function book({ fish, until }: Books, { kind, lot, from, to, n }: PastRow): void {
    if (from !== outsidePlaceId) fish.set(keyOf(from, lot), (fish.get(keyOf(from, lot)) ?? 0) - n)
    if (to !== outsidePlaceId) fish.set(keyOf(to, lot), (fish.get(keyOf(to, lot)) ?? 0) + n)
    until[kind] = (until[kind] ?? 0) + n
  }

  /** What lots were called: by the books as was known then, else as they are called now. */
  function namesAt(lots: readonly string[], atMs: number, clock: RoomClock): Map<string, string> {
    const rows = groupBy(store.names(lots), ({ lot }) => lot)
    return new Map([...rows].map(([lot, names]) => {
      const now = names.find(({ isNow }) => isNow === 1)?.species ?? ''
      const then = clock === 'books' ? names.findLast(({ isNow, recordedAt }) => isNow === 0 && recordedAt <= atMs) : undefined
      return [lot, then?.species ?? now]
    }))
  }

  return {
    /**
     * Leaves the next mark of either clock, so that the first question of a long history waits for nobody to walk all of it.
     * @returns whether there is more to walk.
     */
    walkOn(): boolean {
      catchUp()
      return (['happened', 'books'] as const).some((clock) => {
        const last = marks[clock].reduce((far, mark) => (clock === 'books' ? (mark.cursor.seq > far.cursor.seq ? mark : far) : mark), start)
        const rows = store.rows(clock, last.cursor, apart)
        const end = rows.at(-1)
        if (!end || rows.length < apart) return false
        const books = booksOf(last)
        for (const row of rows) book(books, row)
        leave(marks[clock], books, { atMs: end.atMs, seq: end.seq }, Math.max(last.latestMs, ...rows.map((row) => row.atMs)))
        return true
      })
    },

    /** Fish of each lot in each place at a moment, of places and lots with any; those below nothing are dates that cannot be. */
    stockAt: (atMs: number, clock: RoomClock): { place: string; lot: string; n: number }[] =>
      [...booksAt(atMs, clock).fish].flatMap(([key, n]) => {
        const [place = '', lot = ''] = key.split(' ')
        return n === 0 ? [] : [{ place, lot, n }]
      }),

    view(atMs: number, clock: RoomClock, nowMs: number): RoomThen {
      const [then, now] = [booksAt(atMs, clock), booksAt(Number.MAX_SAFE_INTEGER, clock)]
      const tanks = [...facts.all(nowMs).values()]
      const lots = [...new Set([...then.fish, ...now.fish].flatMap(([key, n]) => (n === 0 ? [] : [key.split(' ')[1] ?? ''])))]
      const [names, today] = [namesAt(lots, atMs, clock), namesAt(lots, Number.MAX_SAFE_INTEGER, clock)]
      const placesThen = byPlace(then.fish, names)
      const placesNow = byPlace(now.fish, today)
      const inTanks = new Set(tanks.map(({ tankId }) => tankId))
      const codes = new Map(tanks.map(({ tankId, code }) => [tankId, code]))
      const below = [...then.fish].filter(([, n]) => n < 0).map(([key, n]) => {
        const [place = '', lot = ''] = key.split(' ')
        return { place: codes.get(place) ?? 'a bag, bucket or box', species: names.get(lot) ?? '', n }
      })
      const elsewhere = [...placesThen].filter(([place]) => !inTanks.has(place)).reduce((sum, [, kinds]) => sum + [...kinds.values()].reduce((all, n) => all + n, 0), 0)
      return { atMs, clock, fromMs: store.firstMs(), tanks: tanks.map((tank) => tankThen(tank, placesThen.get(tank.tankId), placesNow.get(tank.tankId))).filter(({ isRetired, fish }) => !isRetired || fish > 0), elsewhere, since: sinceOf(then.until, now.until), below }
    },
  }
}
export type PastService = ReturnType<typeof createPastService>

type Kinds = Map<string, number>

/** Fish of each kind in each place. */
function byPlace(fish: ReadonlyMap<string, number>, names: ReadonlyMap<string, string>): Map<string, Kinds> {
  const places = new Map<string, Kinds>()
  for (const [key, n] of fish) {
    if (n <= 0) continue
    const [place = '', lot = ''] = key.split(' ')
    const kinds = places.get(place) ?? new Map<string, number>()
    kinds.set(names.get(lot) ?? '', (kinds.get(names.get(lot) ?? '') ?? 0) + n)
    places.set(place, kinds)
  }
  return places
}

function tankThen({ tankId: id, code, kind, rack, shelf, position, isRetired }: TankFacts, then: Kinds = new Map(), now: Kinds = new Map()): TankThen {
  const largest = [...then].sort(([, a], [, b]) => b - a)
  const changes = [...new Set([...then.keys(), ...now.keys()])].map((species) => ({ species, then: then.get(species) ?? 0, now: now.get(species) ?? 0 })).filter((each) => each.then !== each.now)
  return { ...{ id, code, kind, rack, shelf, position, isRetired }, fish: largest.reduce((sum, [, n]) => sum + n, 0), mainSpecies: largest[0]?.[0] ?? null, speciesCount: then.size, changes: changes.sort((a, b) => Math.abs(b.now - b.then) - Math.abs(a.now - a.then)) }
}

const sinceOf = (then: Since, now: Since): Since => Object.fromEntries(Object.entries(now).map(([kind, n]) => [kind, n - (then[kind as keyof Since] ?? 0)]).filter(([, n]) => n !== 0))
