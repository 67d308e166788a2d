import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import type { CrateView } from '../../core/crates/crateView'
import type { OutcomeLotsView } from '../../core/outcomes/outcomes.api'
import { groupings } from '../../core/outcomes/outcomeLot'
import { outcomesPage } from '../../core/outcomes/outcomesPage'
import { tries } from '../../core/testing/tries'
import { createTestRoom, plainBag, testNowMs, type TestRoom, type TestTank } from '../testing/testRoom'

// Random days entered as staff enter them, against a pencil that only knows what it wrote down: whoever came alive stands in
// a tank, died or went, lot by lot and day by day; what was taken back never was.
const dayMs = 86_400_000
/** A device nobody opened anew is signed out later. */
const lastMs = testNowMs + 28 * dayMs
const [tankAt, nth, few] = [fc.nat({ max: 3 }), fc.nat({ max: 9 }), fc.integer({ min: 1, max: 4 })]
const take = fc.record({ do: fc.constant('take' as const), tank: tankAt, fish: fc.integer({ min: 3, max: 12 }), dead: fc.nat({ max: 2 }) })
const step = fc.oneof(
  { weight: 2, arbitrary: take },
  { weight: 3, arbitrary: fc.record({ do: fc.constant('next day' as const), days: fc.integer({ min: 1, max: 9 }) }) },
  { weight: 4, arbitrary: fc.record({ do: fc.constantFrom('lose' as const, 'miss' as const, 'sell' as const), nth, quantity: few }) },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('somebody died' as const), nth, quantity: few }) },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('move' as const), nth, quantity: few, tank: tankAt }) },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('count' as const), nth, off: fc.integer({ min: -2, max: 2 }) }) },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('take back' as const) }) },
)
type Step = typeof step extends fc.Arbitrary<infer T> ? T : never
const days = fc.tuple(take, fc.array(step, { minLength: 8, maxLength: 20 })).map(([first, rest]): Step[] => [first, ...rest])

interface Pencil {
  received: number
  deadInBag: number
  /** Fish that died in tanks, and the last entry of the books with how to strike it. */
  died: number
  last: { id: string; strike: () => void } | null
}
interface Standing {
  tank: TestTank
  lotId: string
  speciesId: string
  quantity: number
}

async function standing(room: TestRoom): Promise<Standing[]> {
  const views = await Promise.all(room.tanks.map(async (tank) => ({ tank, stock: (await room.get(`/api/tanks/${tank.code}`)).body.stock as Omit<Standing, 'tank'>[] })))
  return views.flatMap(({ tank, stock }) => stock.map(({ lotId, speciesId, quantity }) => ({ tank, lotId, speciesId, quantity })))
}

/** Takes a step as a person would who sees the tank; one that the server refuses has no consequence. */
async function live(room: TestRoom, pencil: Pencil, asked: Step): Promise<void> {
  const happenedAtMs = room.clock.nowMs
  if (asked.do === 'next day') return void (room.clock.nowMs = Math.min(lastMs, room.clock.nowMs + asked.days * dayMs))
  if (asked.do === 'take') return taken(room, pencil, asked)
  if (asked.do === 'take back') {
    if (pencil.last && (await room.post(`/api/movements/${pencil.last.id}/reversal`, { reason: null, happenedAtMs: room.clock.nowMs })).status === 201) pencil.last.strike()
    return void (pencil.last = null)
  }
  const all = await standing(room)
  const own = all[asked.nth % Math.max(1, all.length)]
  if (!own) return
  const { tank, lotId, speciesId } = own
  const write = async (path: string, body: object, died: number): Promise<void> => {
    const { status, body: answer } = await room.post(`/api/tanks/${tank.id}/${path}`, { ...body, happenedAtMs })
    // What breaks a rule of the house is refused; what is written wrongly would make this test blind.
    if (status !== 201) return expect(JSON.stringify(answer)).not.toContain('Nothing here is called')
    pencil.died += died
    const [id] = (answer as { movementIds?: string[] }).movementIds ?? []
    pencil.last = id === undefined ? null : { id, strike: () => void (pencil.died -= died) }
  }
  if (asked.do === 'count') {
    const counted = Math.max(0, own.quantity + asked.off)
    return write('counts', { lotId, expected: own.quantity, counted, reason: 'counted again' }, 0)
  }
  const quantity = Math.min(asked.quantity, own.quantity)
  if (asked.do === 'lose') return write('losses', { lotId, quantity, cause: 'found dead', note: null }, quantity)
  if (asked.do === 'miss') return write('losses', { lotId, quantity, cause: 'not found', note: null }, quantity)
  if (asked.do === 'somebody died') return write('losses', { speciesId, strain: null, quantity, cause: 'found dead', note: null }, quantity)
  if (asked.do === 'move') return write('moves', { lotId, quantity, toTankId: room.tanks[asked.tank]?.id, override: 'a test', note: null }, 0)
  return write('releases', { lotId, quantity, reason: 'sold', heldBecause: 'a test', note: null }, 0)
}

async function taken(room: TestRoom, pencil: Pencil, { tank: at, fish, dead }: Extract<Step, { do: 'take' }>): Promise<void> {
  const tank = room.tanks[at] as TestTank
  const crate = (await room.crateOf([['Cherry barb', fish, 1, tank]], 'a test')) as CrateView
  const happenedAtMs = room.clock.nowMs
  expect((await room.post(`/api/crates/${crate.id}/bags`, { ...plainBag([crate.bags[0]?.id ?? ''], fish - dead), dead, happenedAtMs })).status).toBe(201)
  expect((await room.post(`/api/crates/${crate.id}/placements`, { tankId: tank.id, override: 'a test', happenedAtMs })).status).toBe(201)
  Object.assign(pencil, { received: pencil.received + fish, deadInBag: pencil.deadInBag + dead, last: null })
}

const sum = <T>(all: readonly T[], of: (each: T) => number): number => all.reduce((total, each) => total + of(each), 0)

test('random days: every fish that came alive stands in a tank, died or went, whatever was moved, counted again or taken back', async () => {
  await fc.assert(
    fc.asyncProperty(days, async (steps) => {
      const room = await createTestRoom({ tankCount: 4, sharing: 'each its own' })
      const pencil: Pencil = { received: 0, deadInBag: 0, died: 0, last: null }
      for (const asked of steps) await live(room, pencil, asked)
      const { lots } = (await room.get('/api/outcomes/lots')).body as OutcomeLotsView
      const stock = await standing(room)
      expect([sum(lots, ({ received }) => received), sum(lots, ({ deadInBag }) => deadInBag)]).toEqual([pencil.received, pencil.deadInBag])
      const isDeath = ([, pattern]: readonly [number, number, number]): boolean => pattern >= 0
      for (const { lot, n, exits, until, opened } of lots) {
        const went = sum(exits, ([, , fish]) => fish)
        expect(went).toBeLessThanOrEqual(n + 1e-6)
        expect(exits.every(([day, , fish]) => day >= 0 && day <= until && fish > 0)).toBe(true)
        expect([lot, opened >= '2031-05-04']).toEqual([lot, true])
      }
      const left = sum(lots, ({ n, exits }) => n - sum(exits, ([, , fish]) => fish))
      expect(left).toBeCloseTo(sum(stock, ({ quantity }) => quantity), 5)
      // Fish that came to light again never died: no more deaths than the pencil has, and as many where nobody counted.
      const dead = sum(lots, ({ exits }) => sum(exits.filter(isDeath), ([, , fish]) => fish))
      expect(dead).toBeLessThanOrEqual(pencil.died + 1e-6)
      if (!steps.some((each) => each.do === 'count')) expect(dead).toBeCloseTo(pencil.died, 5)
      expect(room.faults()).toEqual([])
      room.db.close()
    }),
    { numRuns: tries(200, 12) },
  )
}, 480_000)

test('a room without a crate: nothing to follow, nothing rings, and no sentence claims anything', async () => {
  const room = await createTestRoom({ tankCount: 4 })
  const view = (await room.get('/api/outcomes/lots')).body as OutcomeLotsView
  expect(view).toMatchObject({ lots: [], notFollowed: 0 })
  expect((await room.get('/api/outcomes/alarms')).body).toMatchObject({ alarms: [] })
  for (const by of groupings) {
    const page = outcomesPage({ lots: view.lots, today: view.today, rules: view.rules, question: { by, day: 14, died: 'anything', supplier: null, species: null, origin: null, from: null, until: null, pair: null } })
    expect([page.sentence, page.curves, page.comparisons]).toEqual(['No lot of these has been opened yet.', [], []])
  }
  room.db.close()
})
