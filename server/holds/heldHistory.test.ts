import { afterEach, beforeEach, expect, test } from '@jest/globals'
import { clockOf, type HoldClock } from '../../core/holds/holdClock'
import { signEvents } from '../../core/holds/lookEvents'
import { policiesById } from '../../core/holds/shippedHolds'
import { ifItCounts, undecidedSigns } from '../../core/holds/undecided'
import { createHeldHistoryStore } from './heldHistory.store'
import { createHeldMarkStore } from './heldMark.store'
import { createHeldRooms } from './heldRooms'
import { heldRoomOf, fishUnlikeTheBooks } from '../testing/heldRoomOf'
import { createTestRoom, plainBag, quietCheck, testNowMs, type TestRoom } from '../testing/testRoom'

// What people enter, as holds read it out of the books: from a bag that is opened to the clock of its fish.
const [minuteMs, hourMs, dayMs] = [60_000, 3_600_000, 86_400_000]
let room: TestRoom
let lots: Record<string, string>
beforeEach(async () => {
  room = await createTestRoom({ tankCount: 4, sharing: 'each its own' })
  await deliver([['Cherry barb', 8, 1, room.tanks[0]!], ['Honey gourami', 4, 1, room.tanks[1]!]])
})
afterEach(() => void room.db.raw.close())

async function deliver(lines: Parameters<TestRoom['crateOf']>[0]): Promise<void> {
  const crate = await room.crateOf(lines)
  for (const bag of crate.bags) await room.post(`/api/crates/${crate.id}/bags`, { ...plainBag([bag.id], bag.listed), happenedAtMs: room.clock.nowMs })
  later(2 * hourMs)
  await room.post(`/api/crates/${crate.id}/placements`, { tankId: null, happenedAtMs: room.clock.nowMs })
  lots = Object.fromEntries((room.db.raw.prepare('SELECT lot.id, species.name FROM lot JOIN species ON species.id = lot.species_id ORDER BY lot.created_at_ms').all() as { id: string; name: string }[]).map(({ id, name }) => [name, id]))
}
const tankId = (index = 0): string => room.tanks[index]!.id
const later = (ms: number): void => void (room.clock.nowMs += ms)
const held = () => heldRoomOf(room.db, room.clock.nowMs)
const clock = (species = 'Cherry barb', index = 0): HoldClock => clockOf(held(), lots[species] ?? '', tankId(index))
const told = ({ restarts }: HoldClock): string[] => restarts.map(({ cause, lost }) => `${cause} ${lost}`)
const check = (change: object, index = 0) => room.post('/api/checks', { ...quietCheck(tankId(index)), happenedAtMs: room.clock.nowMs, ...change })
const decide = (change: object, index = 0) => room.post(`/api/tanks/${tankId(index)}/sign-decisions`, { sign: 'spots', lotId: null, decision: 'confirmed', days: null, note: null, happenedAtMs: room.clock.nowMs, ...change })

test('a hold begins with the bag, whenever the fish came into their tank, and goes on with them', async () => {
  expect(clock()).toMatchObject({ status: 'holding', policy: 'shopHold', day: 1, begunOn: new Date(testNowMs).toISOString().slice(0, 10) })
  later(4 * dayMs)
  expect((await room.post(`/api/tanks/${tankId()}/moves`, { lotId: lots['Cherry barb'], quantity: 3, toTankId: tankId(2), note: null, happenedAtMs: room.clock.nowMs })).status).toBe(201)
  later(minuteMs)
  expect([clock().day, clock('Cherry barb', 2).day, fishUnlikeTheBooks(room.db, held())]).toEqual([5, 5, []])
})

test('a sign waits for a decision and counts from when it was seen; dismissed it never was, and a decision that is taken back asks again', async () => {
  later(4 * dayMs)
  await check({ signs: ['spots'] })
  later(dayMs)
  expect([clock().undecided.length, clock().waitsFor, told(clock())]).toEqual([1, ['days', 'decision'], []])
  const { id } = (await decide({})).body as { id: string }
  expect([clock().undecided, told(clock()), clock().day]).toEqual([[], ['sign 4'], 2])
  await room.post(`/api/sign-decisions/${id}/undo`, {})
  expect([clock().undecided.length, told(clock())]).toEqual([1, []])
  await decide({ decision: 'dismissed', note: 'sand' })
  expect([clock().undecided, told(clock()), clock().day]).toEqual([[], [], 6])
  // Seen on, it shares what was decided of it; on other fish it is another sign.
  await check({ signs: ['spots'] })
  expect(clock().undecided).toEqual([])
  await check({ signs: ['spots'] }, 1)
  expect([clock().undecided, clock('Honey gourami', 1).undecided.length]).toEqual([[], 1])
})

test('signs of one word in one tank share a decision, and what it would mean is known before anybody decides', async () => {
  const rules = { timeZone: 'UTC', tanks: Object.fromEntries(room.tanks.map(({ id }) => [id, id])), policies: policiesById(), goneAfter: {} }
  const history = createHeldHistoryStore(room.db)
  const rooms = createHeldRooms({ history, marks: createHeldMarkStore(room.db), rules: () => rules, usual: () => null })
  const signs = () => signEvents([...history.signs(0), ...history.deaths(0)], new Map())
  for (const index of [0, 0, 1]) {
    later(2 * dayMs)
    await check({ signs: ['spots'] }, index)
  }
  const now = rooms.at(room.clock.nowMs)
  const waiting = undecidedSigns(now, signs())
  expect(waiting.map(({ tank, word, signs: same }) => [tank, word, same.length])).toEqual([[tankId(1), 'spots', 1], [tankId(0), 'spots', 2]])
  const [, first] = waiting
  const ids = new Set(first!.signs.map(({ id }) => id))
  const counted = rooms.suppose(room.clock.nowMs, first!.signs[0]!.at * minuteMs, (event) => (event.kind === 'sign' && ids.has(event.id) ? { ...event, decision: 'confirmed' } : event))
  const started = testNowMs + 14 * dayMs
  const on = (ms: number): string => new Date(ms).toISOString().slice(0, 10)
  expect(ifItCounts(now, counted, first!)).toEqual([{ lot: lots['Cherry barb'], tank: tankId(0), before: on(started), after: on(started + 4 * dayMs), lost: 2, causes: ['sign'] }])
  expect(told(clock())).toEqual([])
})

test('a sign that is to be expected after a move is noted and asks nobody; the same sign later, or a clear one, does', async () => {
  const explained = (): string[] => clockOf(heldRoomOf(room.db, room.clock.nowMs, { isExplained: true }), lots['Cherry barb'] ?? '', tankId(2)).undecided
  later(4 * dayMs)
  await room.post(`/api/tanks/${tankId()}/moves`, { lotId: lots['Cherry barb'], quantity: 8, toTankId: tankId(2), note: null, happenedAtMs: room.clock.nowMs })
  later(3 * hourMs)
  await check({ signs: ['clamped fins'] }, 2)
  expect([explained(), clock('Cherry barb', 2).undecided.length]).toEqual([[], 1])
  // Clear, it is usual for two hours only; and slight, for twelve.
  await check({ signs: ['clamped fins'], marks: [{ sign: 'clamped fins', severity: 2, lotId: null }] }, 2)
  expect(explained()).toHaveLength(1)
  later(20 * hourMs)
  await check({ signs: ['clamped fins'] }, 2)
  expect(explained()).toHaveLength(2)
})

test('fish found dead are a sign that asks; one that jumped is none; a loss that is taken back asks nobody', async () => {
  later(dayMs)
  const lose = (cause: string) => room.post(`/api/tanks/${tankId()}/losses`, { lotId: lots['Cherry barb'], quantity: 1, cause, note: null, happenedAtMs: room.clock.nowMs })
  await lose('jumped')
  later(minuteMs)
  expect(clock().undecided).toEqual([])
  const { movementIds } = (await lose('found dead')).body as { movementIds: string[] }
  later(minuteMs)
  expect(clock().undecided).toHaveLength(1)
  await room.post(`/api/movements/${movementIds[0]}/reversal`, { reason: null, happenedAtMs: room.clock.nowMs })
  later(minuteMs)
  expect([clock().undecided, fishUnlikeTheBooks(room.db, held())]).toEqual([[], []])
})

test('how a tank ate counts for its fish, unless somebody said of a lot that it did not', async () => {
  await deliver([['Honey gourami', 5, 1, room.tanks[0]!]])
  const hasEaten = (species: string): boolean => held().groups.get(tankId())?.get(lots[species] ?? '')?.strands.every(({ meals }) => meals.at(-1) === 'all') ?? false
  await check({ answers: [{ lotId: lots['Honey gourami'], ate: 'none' }] })
  expect([hasEaten('Cherry barb'), hasEaten('Honey gourami')]).toEqual([true, false])
})

test('lots that stand together: what the books expect of each is what its hold counts, through losses, moves and a lot that somebody knew', async () => {
  later(3 * dayMs)
  const first = lots['Cherry barb'] ?? ''
  await deliver([['Cherry barb', 6, 1, room.tanks[0]!]])
  later(minuteMs)
  // The second delivery stands in the same tank: both wait for the later.
  expect(told(clockOf(held(), first, tankId()))).toEqual(['addition 3'])
  const fish = (quantity: number, lotIds: string[] = []) => ({ lotIds: lotIds.length > 0 ? lotIds : [first, lots['Cherry barb']], quantity })
  await room.post(`/api/tanks/${tankId()}/losses`, { ...fish(1), cause: 'found dead', note: null, happenedAtMs: room.clock.nowMs })
  await room.post(`/api/tanks/${tankId()}/moves`, { ...fish(5), toTankId: tankId(3), note: null, happenedAtMs: room.clock.nowMs + 1 })
  await room.post(`/api/tanks/${tankId()}/losses`, { lotId: first, quantity: 3, cause: 'found dead', note: null, happenedAtMs: room.clock.nowMs + 2 })
  later(2 * minuteMs)
  const shares = room.db.raw.prepare('SELECT count(*) AS shares FROM pool_share').get() as { shares: number }
  expect([shares.shares > 0, fishUnlikeTheBooks(room.db, held()), held().waiting]).toEqual([true, [], []])
})

test('a splash between two waters begins both again, and is forgotten when it is taken back', async () => {
  later(3 * dayMs)
  const said = await room.post('/api/contacts', { kind: 'splash', fromTankId: tankId(0), toTankId: tankId(1), litres: null, note: null, happenedAtMs: room.clock.nowMs })
  expect([said.status, clock().undecided, told(clock()), clock('Honey gourami', 1).waitsFor]).toEqual([201, [said.body.id], [], ['days', 'decision']])
  const decideBreach = (decision: string, note: string | null) => room.post(`/api/contacts/${said.body.id}/decisions`, { decision, note })
  expect((await decideBreach('dismissed', ' ')).body.errors).toMatchObject([{ path: 'note' }])
  await decideBreach('confirmed', null)
  expect([told(clock()), told(clock('Honey gourami', 1))]).toEqual([['exposure 3'], ['exposure 3']])
  await decideBreach('dismissed', 'the hose was new')
  expect([told(clock()), clock().undecided, (await room.post('/api/contacts/nothing/decisions', { decision: 'confirmed', note: null })).status]).toEqual([[], [], 404])
})
