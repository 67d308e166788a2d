import { millionthsPerFish, shareOut } from './shareOut'

/** A lot in a pool, in both books: whole fish as the ledger has them, and the fish that are to be expected of it. */
export interface PooledLot {
  /** Its code: lots stand in the order of their names. */
  lot: string
  booked: number
  /** Fish to be expected of it, in millionths. All lots together: as many as are booked. */
  expected: number
  /** Whole days since it arrived. */
  days: number
}

/** Whether somebody knew whose fish it was, or the books had to take it to be some. */
export const hows = ['seen', 'attributed'] as const
export type How = (typeof hows)[number]

export interface Attributed {
  ok: true
  how: How
  /** Whole fish by lot, none left out that gives or gets any. */
  movements: { lot: string; quantity: number }[]
  /** Fish that were another lot's in the books until now, one each. */
  swaps: { from: string; to: string }[]
  /** What the event counts for in each lot, in millionths. */
  shares: { lot: string; millionths: number }[]
  after: PooledLot[]
}

export type NotAttributed = { ok: false; problem: 'too few' | 'no such lot' | 'nothing to correct' | 'name a lot'; available: number }

/** Which fish an event can have been about. */
export interface About {
  /** Lots it can only have been of; none named means all of them. */
  among?: readonly string[]
  /** How much likelier fish of a lot were than their number says. */
  weightOf?: ((lot: PooledLot) => number) | undefined
}

interface State extends PooledLot {
  isCandidate: boolean
}

/**
 * Takes fish out of a pool in both books: a loss, a move, a release, fewer counted than booked. Source: docs/pools.md.
 * @param quantity - whole fish, at least 1.
 * @returns what is booked on which lot, or why nothing can be: `too few` with the fish that are there.
 * @example takeOut([{ lot: 'A', booked: 8, expected: 8e6, days: 40 }], 1).movements // [{ lot: 'A', quantity: 1 }]
 */
export function takeOut(lots: readonly PooledLot[], quantity: number, { among = [], weightOf = () => 1 }: About = {}): Attributed | NotAttributed {
  const available = lots.reduce((sum, { booked }) => sum + booked, 0)
  if (quantity > available) return { ok: false, problem: 'too few', available }
  const states = byName(lots).map((lot): State => ({ ...lot, isCandidate: among.length === 0 || among.includes(lot.lot) }))
  const candidates = states.filter(({ isCandidate }) => isCandidate)
  if (candidates.length === 0) return { ok: false, problem: 'no such lot', available }
  const wanted = quantity * millionthsPerFish
  believeWhatWasSeen(states, wanted)
  const shares = sharesOf(candidates, wanted, weightOf)
  candidates.forEach((lot, index) => (lot.expected -= shares[index] ?? 0))
  const swaps = reattribute(states, quantity)
  const taken = pickOneByOne(candidates, quantity, (lot) => (lot.booked > 0 ? lot.booked * millionthsPerFish - lot.expected : null), -1)
  return answer(states, candidates, taken, shares, swaps)
}

/**
 * Adds fish that were counted beyond what is booked: to the lot somebody named, else as the pool has them.
 * @param quantity - whole fish, at least 1.
 * @param among - lots they can only be of; none named means that nobody knows.
 * @returns `name a lot` where nothing is left to go by.
 */
export function addBack(lots: readonly PooledLot[], quantity: number, among: readonly string[] = []): Attributed | NotAttributed {
  const states = byName(lots).map((lot): State => ({ ...lot, isCandidate: among.length === 0 || among.includes(lot.lot) }))
  const candidates = states.filter(({ isCandidate }) => isCandidate)
  const expected = candidates.reduce((sum, lot) => sum + lot.expected, 0)
  if (expected === 0 && (candidates.length !== 1 || among.length === 0)) return { ok: false, problem: 'name a lot', available: 0 }
  const shares = shareOut(quantity * millionthsPerFish, candidates.map(({ expected: weight }) => ({ weight: expected === 0 ? 1 : weight })))
  candidates.forEach((lot, index) => (lot.expected += shares[index] ?? 0))
  const added = pickOneByOne(candidates, quantity, (lot) => lot.expected - lot.booked * millionthsPerFish, 1)
  return answer(states, candidates, added, shares, [])
}

/** Sets a pool to what was counted, by one of the two. */
export function countTo(lots: readonly PooledLot[], counted: number, about: About = {}): Attributed | NotAttributed {
  const booked = lots.reduce((sum, lot) => sum + lot.booked, 0)
  if (counted === booked) return { ok: false, problem: 'nothing to correct', available: booked }
  return counted < booked ? takeOut(lots, booked - counted, about) : addBack(lots, counted - booked, about.among)
}

/**
 * Says what is to be expected when so many fish of a lot are known to be there: the others of its pool give, or get back what
 * was expected of it beyond that. Null where nothing changes.
 * @param millionths - at least so many, or no more either where that is known.
 */
export function expectAtLeast(lots: readonly PooledLot[], lot: string, millionths: number, isExact: boolean): PooledLot[] | null {
  const states = byName(lots).map((each): State => ({ ...each, isCandidate: each.lot === lot }))
  const named = states.find(({ isCandidate }) => isCandidate)
  if (!named || named.expected === millionths || (named.expected > millionths && !isExact)) return null
  if (named.expected < millionths) believeWhatWasSeen(states, millionths)
  else {
    const others = states.filter(({ isCandidate }) => !isCandidate)
    const hasFish = others.some(({ expected }) => expected > 0)
    const given = shareOut(named.expected - millionths, others.map(({ expected, booked }) => ({ weight: hasFish ? expected : booked })))
    others.forEach((each, index) => (each.expected += given[index] ?? 0))
    named.expected = millionths
  }
  return states.map(({ isCandidate: _, ...each }) => each)
}

const byName = <Lot extends PooledLot>(lots: readonly Lot[]): Lot[] => [...lots].sort((a, b) => (a.lot < b.lot ? -1 : a.lot > b.lot ? 1 : 0))

/** What is seen outweighs what was expected: where less is expected of the candidates than was seen of them, the others give. */
function believeWhatWasSeen(states: readonly State[], wanted: number): void {
  const [candidates, others] = [states.filter(({ isCandidate }) => isCandidate), states.filter(({ isCandidate }) => !isCandidate)]
  const expected = candidates.reduce((sum, lot) => sum + lot.expected, 0)
  if (expected >= wanted) return
  const given = shareOut(wanted - expected, others.map((lot) => ({ weight: lot.expected, cap: lot.expected })))
  others.forEach((lot, index) => (lot.expected -= given[index] ?? 0))
  const taken = shareOut(wanted - expected, candidates.map((lot) => ({ weight: expected === 0 ? 1 : lot.expected })))
  candidates.forEach((lot, index) => (lot.expected += taken[index] ?? 0))
}

/** Shares by what is expected of each and how likely it was, and of no lot more than is expected of it. */
function sharesOf(candidates: readonly State[], wanted: number, weightOf: (lot: PooledLot) => number): number[] {
  const weights = candidates.map((lot) => lot.expected * weightOf(lot))
  const isFull = candidates.map(() => false)
  for (;;) {
    const open = candidates.flatMap((_, index) => (isFull[index] ? [] : [index]))
    const left = wanted - candidates.reduce((sum, lot, index) => sum + (isFull[index] ? lot.expected : 0), 0)
    const weighed = open.reduce((sum, index) => sum + (weights[index] ?? 0), 0)
    const overfull = open.filter((index) => (left * (weights[index] ?? 0)) / weighed > (candidates[index]?.expected ?? 0))
    if (overfull.length === 0) {
      const parts = shareOut(left, open.map((index) => ({ weight: weights[index] ?? 0, cap: candidates[index]?.expected ?? 0 })))
      return candidates.map((lot, index) => (isFull[index] ? lot.expected : (parts[open.indexOf(index)] ?? 0)))
    }
    for (const index of overfull) isFull[index] = true
  }
}

/** Fish that the books have with the wrong lot go over, one at a time, until the candidates have as many as are taken. */
function reattribute(states: readonly State[], quantity: number): Attributed['swaps'] {
  const swaps: Attributed['swaps'] = []
  const candidates = states.filter(({ isCandidate }) => isCandidate)
  const excess = (lot: State): number => lot.booked * millionthsPerFish - lot.expected
  for (let held = candidates.reduce((sum, { booked }) => sum + booked, 0); held < quantity; held += 1) {
    const from = best(states.filter((lot) => !lot.isCandidate && lot.booked > 0), excess)
    const to = best(candidates, (lot) => -excess(lot))
    if (!from || !to) throw new RangeError('the two books of a pool do not have equal sums')
    from.booked -= 1
    to.booked += 1
    swaps.push({ from: from.lot, to: to.lot })
  }
  return swaps
}

/** The lot with the most; of equal ones the older, then the first by name. */
const best = (lots: readonly State[], amount: (lot: State) => number): State | undefined => lots.reduce<State | undefined>((most, lot) => (!most || amount(lot) > amount(most) || (amount(lot) === amount(most) && lot.days > most.days) ? lot : most), undefined)

/** Whole fish one at a time, always of the lot that has most of what counts; null of one that cannot give. */
function pickOneByOne(lots: readonly State[], quantity: number, amount: (lot: State) => number | null, step: 1 | -1): Map<string, number> {
  const picked = new Map<string, number>()
  for (let count = 0; count < quantity; count += 1) {
    const lot = best(lots.filter((each) => amount(each) !== null), (each) => amount(each) ?? 0)
    if (!lot) throw new RangeError('the two books of a pool do not have equal sums')
    lot.booked += step
    picked.set(lot.lot, (picked.get(lot.lot) ?? 0) + 1)
  }
  return picked
}

function answer(states: readonly State[], candidates: readonly State[], picked: ReadonlyMap<string, number>, shares: readonly number[], swaps: Attributed['swaps']): Attributed {
  return {
    ok: true,
    how: candidates.length === 1 ? 'seen' : 'attributed',
    movements: states.flatMap(({ lot }) => (picked.has(lot) ? [{ lot, quantity: picked.get(lot) ?? 0 }] : [])),
    swaps,
    shares: candidates.flatMap(({ lot }, index) => (shares[index] ? [{ lot, millionths: shares[index] }] : [])),
    after: states.map(({ isCandidate: _, ...lot }) => lot),
  }
}
