import { uniformInt } from 'pure-rand/distribution/uniformInt'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'
import { contactKinds, type Clear, type Contact, type Stay } from '../core/contacts/contact'
import { indexContacts, type Recorded } from '../core/contacts/contactIndex'
import { traceContacts } from '../core/contacts/trace'
import { standardLimits } from '../core/limits/houseLimits'
import type { MoveAsked } from '../core/moves/move'
import { moveCheck } from '../core/moves/moveCheck'
import { choiceInstance } from '../core/testing/choiceInstance'
import { figuresOf, report, timed } from './figures'

const [waterCount, toolCount, contactCount, lotCount] = [400, 20, 100_000, 4000]
const [yearMinutes, questions] = [365 * 1440, 200]
/** Figures of the first implementation of the rules, ms of processor time: docs/contacts.md, docs/moves.md. */
const stated = { index: 500, median: 29, worst: 80, check: 0.12 }

/** A made-up room of a year: every third contact a tool, half of all both ways, stays of weeks, clears where nobody stood. */
function year(seed: number): Recorded {
  const generator = xoroshiro128plus(seed)
  const within = (min: number, max: number): number => uniformInt(generator, min, max)
  const water = (): string => `water:${within(1, waterCount)}`
  const kinds = contactKinds.filter((kind) => kind !== 'tool')
  const contacts = Array.from({ length: contactCount }, (_, index): Contact => {
    const [at, isTool] = [within(0, yearMinutes), index % 3 === 0]
    const from = water()
    return { id: `c${index}`, at, kind: isTool ? 'tool' : (kinds[within(0, kinds.length - 1)] ?? 'move'), from, to: isTool ? `tools:${within(1, toolCount)}` : water(), both: isTool || within(1, 3) === 1, planned: true }
  }).filter(({ from, to }) => from !== to)
  const stays = Array.from({ length: lotCount }, (_, index): Stay => {
    const from = within(0, yearMinutes)
    return { lot: `l${index % (lotCount / 2)}`, water: water(), from, until: from + within(1440, 60 * 1440) }
  })
  const clears = Array.from({ length: 3000 }, (): Clear => ({ node: within(1, 6) === 1 ? water() : `tools:${within(1, toolCount)}`, at: within(0, yearMinutes) }))
  return { contacts, stays, clears }
}

/** Tracing over a year of a large room, and a check of one move against each of its tanks. */
export async function benchMoves(): Promise<void> {
  const recorded = year(7)
  const indexMs = await timed(() => indexContacts(recorded))
  const index = indexContacts(recorded)
  const rows = [...index.out.values()].reduce((sum, ways) => sum + ways.length, 0)
  const asks: number[] = []
  const floors: number[] = []
  for (let nth = 0; nth < questions; nth += 1) {
    const [to, direction] = [yearMinutes - nth * 1440, nth % 2 === 0 ? ('forward' as const) : ('backward' as const)]
    asks.push(await timed(() => traceContacts(index, { start: `water:${1 + (nth % waterCount)}`, direction, from: to - 28 * 1440, to, maxHops: 2 })))
    // The floor: each way is looked at once.
    floors.push(await timed(() => [...index.out.values()].reduce((sum, ways) => sum + ways.reduce((many, way) => many + Number(way.first >= to - 28 * 1440 && way.last <= to), 0), 0)))
  }
  console.log(`\nTracing ${waterCount} waters, ${recorded.contacts.length.toLocaleString('en')} contacts (${rows.toLocaleString('en')} ways): index ${indexMs.toFixed(0)} ms once (stated ${stated.index}), worst question ${Math.max(...asks).toFixed(0)} ms (stated ${stated.worst}), median stated ${stated.median}`)
  report('A question, four weeks and two hops', 'each way looked at once', figuresOf(asks), figuresOf(floors), 10)
  benchChecks()
}

/** One kind of fish against every tank of a room of 400. */
function benchChecks(): void {
  const { lines, tanks } = choiceInstance(1, 400, 3)
  const [line] = lines
  if (!line) return
  const asked = tanks.map((tank): MoveAsked => ({ items: [{ lot: 'mover', n: line.count, have: line.count + 2, animal: line.animal, supplier: line.supplier }], from: { id: 'from', waterId: 'from', tempC: 25, salinityPpt: 0 }, to: { ...tank, occupants: tank.occupants.map((each, nth) => ({ ...each, lot: `there ${nth}` })) } }))
  const roundsOf = (work: (each: MoveAsked) => unknown): number[] =>
    Array.from({ length: 80 }, () => {
      const begun = performance.now()
      for (const each of asked) work(each)
      return performance.now() - begun
      // The first rounds are those of a program that has only just begun.
    }).slice(40)
  const [runs, floor] = [roundsOf((each) => moveCheck(each, standardLimits)), roundsOf((each) => JSON.stringify(each))]
  const figures = figuresOf(runs)
  console.log(`\n400 move checks: ${(figures.median / asked.length).toFixed(3)} ms each (stated ${stated.check})`)
  report('A move checked against 400 tanks', 'the same written as JSON once', figures, figuresOf(floor), 20)
}
