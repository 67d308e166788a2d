import { uniformInt } from 'pure-rand/distribution/uniformInt'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'
import { roundOrder, walkBound } from '../core/rounds/roundOrder'
import type { RoundState } from '../core/rounds/roundState'
import { layOut, lengthOf, type WalkAsked, type WalkTank } from '../core/rounds/walk'
import { figuresOf, report, timed } from './figures'

const tanksInRoom = 400
/** What the first implementation of the rules took and found: docs/rounds.md. */
const stated = { bestMs: 16, medianMs: 60, bound: 1.07 }

/** A made-up room: twenty racks of twenty tanks, seven of ten settled, the others new, doubtful or sick. */
function roomOf(seed: number): WalkAsked {
  const generator = xoroshiro128plus(seed)
  const within = (min: number, max: number): number => uniformInt(generator, min, max)
  const stateOf = (): RoundState => {
    const of = within(1, 100)
    return of <= 80 ? 'settled' : of <= 92 ? 'new' : of <= 98 ? 'suspect' : 'sick'
  }
  const tanks = Array.from({ length: tanksInRoom }, (_, index): WalkTank => {
    const [rack, spot] = [Math.floor(index / 20), index % 20]
    return { code: `T${index}`, rack: `R${rack + 1}`, shelf: 1 + Math.floor(spot / 5), position: 1 + (spot % 5), system: `S${Math.floor(rack / 2)}`, zone: `Z${Math.floor(rack / 10)}`, state: stateOf(), source: `from ${within(1, 3)}` }
  })
  return { tanks }
}

/** The order of a round over a large room: how long it takes to find, how long it is beside what none can be below, and beside the order by code. */
export async function benchRounds(): Promise<void> {
  const rooms = Array.from({ length: 12 }, (_, seed) => roomOf(seed + 1))
  const [first] = rooms
  if (first) for (let warm = 0; warm < 3; warm += 1) roundOrder(first)
  const [takes, floors, bounds, byCode]: number[][] = [[], [], [], []]
  for (const asked of rooms) {
    takes?.push(await timed(() => roundOrder(asked)))
    floors?.push(await timed(() => layOut(asked)))
    const { seconds, isValid } = roundOrder(asked)
    if (!isValid) throw new Error('the order of a round goes back to a cleaner state')
    const walk = layOut(asked)
    bounds?.push(seconds / walkBound(asked))
    byCode?.push(seconds / lengthOf(walk, [...asked.tanks.keys()]).seconds)
  }
  const middle = (of: readonly number[] = []): number => figuresOf(of).median
  console.log(`\nOrder of a round over ${tanksInRoom} tanks: ${middle(takes).toFixed(0)} ms median, ${Math.min(...(takes ?? [])).toFixed(0)} at best (stated up to ${stated.medianMs}, ${stated.bestMs}); ${middle(bounds).toFixed(3)} times what none can be below (stated up to ${stated.bound}), ${middle(byCode).toFixed(2)} times the order by code`)
  report('The order of a round over 400 tanks', 'what each step costs, reckoned once', figuresOf(takes ?? []), figuresOf(floors ?? []), 20)
}
