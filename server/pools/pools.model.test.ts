import { afterAll, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { lossCauses } from '../../core/ledger/movement'
import { millionthsPerFish } from '../../core/pools/shareOut'
import { tries } from '../../core/testing/tries'
import { createServices } from '../services'
import { openDatabase } from '../db/open'
import type { Actor, Command, Params } from '../http/endpoint'
import { toProblem } from '../http/toProblem'
import { checkLedger } from '../ledger/checkLedger'
import { newKey } from '../testing/testRoom'

// Random days of lots that stand together in two tanks and cannot be told apart: the number of fish against a pencil tally,
// both books against each other, and whatever is taken back against how it was.
const nowMs = Date.UTC(2031, 4, 4, 9)
const db = openDatabase(':memory:')
db.raw.exec('PRAGMA synchronous=OFF')
const { staff, dispatch, endpoints } = createServices({ db, now: () => nowMs })
const commands = new Map(endpoints.filter((each): each is Command => each.kind === 'command').map((each) => [each.name, each]))
afterAll(() => db.close())

const quantity = fc.integer({ min: 1, max: 6 })
const [tank, among] = [fc.nat({ max: 1 }), fc.oneof({ weight: 3, arbitrary: fc.constant<number[]>([]) }, fc.uniqueArray(fc.nat({ max: 3 }), { minLength: 1, maxLength: 3 }))]
const step = fc.oneof(
  { weight: 2, arbitrary: fc.record({ do: fc.constant('add' as const), tank, quantity, among, daysAgo: fc.nat({ max: 40 }) }) },
  { weight: 4, arbitrary: fc.record({ do: fc.constant('loss' as const), tank, quantity, among, cause: fc.constantFrom(...lossCauses) }) },
  { weight: 2, arbitrary: fc.record({ do: fc.constantFrom('move' as const, 'release' as const), tank, quantity, among }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('count' as const), tank, quantity: fc.nat({ max: 15 }), among, reason: fc.constantFrom('died unseen', 'unknown') }) },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('back' as const), tank, quantity: fc.nat({ max: 6 }), among }) },
)
type Step = typeof step extends fc.Arbitrary<infer S> ? S : never

let actor: Actor
const answers = { accepted: 0, refused: 0, attributed: 0 }
async function send<T>(name: string, params: Params, body: object): Promise<T | null> {
  try {
    const { answer } = await dispatch(commands.get(name) as Command, { key: newKey(), actor, params, body, nowMs })
    answers.accepted += 1
    return answer as T
  } catch (error) {
    expect(toProblem(error).status).toBeLessThan(500)
    answers.refused += 1
    return null
  }
}

interface Book {
  booked: Record<string, number>
  expected: Record<string, number>
}
class Days {
  tanks: string[] = []
  lots: string[] = []
  tally = [0, 0]
  done: { movementId: string; change: [number, number]; before: Book; isBack: boolean }[] = []
  speciesId = ''
  /** What was written last, with nothing taken back since. */
  newest = ''

  async begin(number: number): Promise<void> {
    const made = await send<{ tanks: { id: string }[] }>('addSystem', {}, { name: `System ${number}`, water: 'fresh', sharing: 'one water', sumpL: null, rack: `T${number}`, tankCount: 2, perShelf: 2, tankKind: 'glass', netVolumeL: null })
    this.tanks = made?.tanks.map(({ id }) => id) ?? []
  }

  /** Both books of both tanks. */
  book(): Book {
    const read = (table: string, column: string): Record<string, number> => Object.fromEntries((db.raw.prepare(`SELECT place_id || ' ' || lot_id AS key, ${column} AS n FROM ${table} WHERE place_id IN (?, ?) ORDER BY 1`).all(this.tanks) as { key: string; n: number }[]).map(({ key, n }) => [key, n]))
    return { booked: read('stock', 'quantity'), expected: read('expected_stock', 'millionths') }
  }

  async live(each: Step): Promise<void> {
    const [tankId, other] = [this.tanks[each.tank] ?? '', this.tanks[1 - each.tank] ?? '']
    const [there, before] = [this.tally[each.tank] ?? 0, this.book()]
    const which = { speciesId: this.speciesId || 'nobody', strain: null, lotIds: each.among.flatMap((index) => this.lots[index] ?? []) }
    if (each.do === 'add') {
      const made = await send<{ movementIds: string[]; lotId: string }>('addFish', { tankId }, { species: 'Cherry barb', quantity: each.quantity, how: 'brought-in', note: null, happenedAtMs: nowMs - each.daysAgo * 86_400_000 })
      this.lots.push(made?.lotId ?? '')
      this.speciesId = (db.raw.prepare('SELECT species_id AS id FROM lot WHERE id = ?').get(made?.lotId ?? '') as { id: string }).id
      return this.note(made, each.tank, each.quantity, 0, before)
    }
    if (each.do === 'back') return this.takeBack(each.quantity)
    const params = { tankId }
    const rest = { ...which, note: null, happenedAtMs: nowMs }
    if (each.do === 'count') {
      const made = await send<{ movementIds: string[] }>('correctCount', params, { ...which, expected: there, counted: each.quantity, reason: each.reason, happenedAtMs: nowMs })
      // Nobody can say whose fish are counted where the books have none; a lot that was named is believed.
      if (each.quantity < there && which.lotIds.length === 0) expect(made).not.toBeNull()
      if (each.quantity === there) expect(made).toBeNull()
      return this.note(made, each.tank, each.quantity - there, 0, before)
    }
    const bodies = { loss: ['recordLoss', { ...rest, cause: 'cause' in each ? each.cause : '' }], move: ['moveFish', { ...rest, toTankId: other }], release: ['releaseFish', { ...rest, reason: 'sold' }] } as const
    const [name, body] = bodies[each.do]
    const made = await send<{ movementIds: string[] }>(name, params, { ...body, quantity: each.quantity })
    if (which.lotIds.length === 0) expect(made !== null).toBe(there >= each.quantity)
    else if (made) expect(there).toBeGreaterThanOrEqual(each.quantity)
    if (made && which.lotIds.length === 0) answers.attributed += 1
    this.note(made, each.tank, -each.quantity, each.do === 'move' ? each.quantity : 0, before)
  }

  note(made: { movementIds: string[] } | null, at: number, here: number, there: number, before: Book): void {
    if (!made) return
    const change: [number, number] = at === 0 ? [here, there] : [there, here]
    this.tally = this.tally.map((fish, index) => fish + (change[index] ?? 0))
    this.newest = made.movementIds[0] ?? ''
    this.done.push({ movementId: made.movementIds[0] ?? '', change, before, isBack: false })
  }

  /** Taken back at once, everything is as it was; later, as many fish go back as came. */
  async takeBack(nth: number): Promise<void> {
    const entry = this.done[this.done.length - 1 - nth]
    if (!entry) return
    const made = await send('reverseMovement', { movementId: entry.movementId }, { reason: null, happenedAtMs: nowMs })
    if (entry.isBack) expect(made).toBeNull()
    if (!made) return
    entry.isBack = true
    this.tally = this.tally.map((fish, index) => fish - (entry.change[index] ?? 0))
    if (this.newest === entry.movementId) expect(this.book()).toEqual(entry.before)
    this.newest = ''
    this.done = this.done.filter((each) => each !== entry)
  }

  check(): void {
    const { booked, expected } = this.book()
    const sum = (book: Record<string, number>, tankId: string): number => Object.entries(book).reduce((all, [key, n]) => all + (key.startsWith(tankId) ? n : 0), 0)
    expect(Math.min(0, ...Object.values(booked), ...Object.values(expected))).toBe(0)
    this.tanks.forEach((tankId, index) => expect([sum(booked, tankId), sum(expected, tankId)]).toEqual([this.tally[index], (this.tally[index] ?? 0) * millionthsPerFish]))
  }
}

test('random days: no fish is lost or made, both books agree, and what is taken back is as it was', async () => {
  await staff.createFirstLead({ name: 'Imre', passphrase: 'tide pool at dawn', pin: '4711', roomName: 'Room', timeZone: 'UTC' })
  actor = staff.listStaff()[0] as Actor
  let number = 0
  await fc.assert(
    fc.asyncProperty(fc.array(step, { minLength: 2, maxLength: 14 }), async (steps) => {
      const days = new Days()
      await days.begin((number += 1))
      for (const each of steps) {
        await days.live(each)
        days.check()
      }
    }),
    { numRuns: tries(5000, 700) },
  )
  expect(checkLedger(db).faults).toEqual([])
  expect(Math.min(answers.accepted, answers.refused, answers.attributed)).toBeGreaterThan(tries(5000, 700) / 2)
}, 900_000)
