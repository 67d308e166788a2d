import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { roomAsOf, type MovedThen, type RoomClock } from '../../core/room/roomAsOf'
import type { RoomThen } from '../../core/room/roomThen'
import { tries } from '../../core/testing/tries'
import { createFactsService } from '../facts/facts.service'
import { createFactsStore } from '../facts/facts.store'
import { standardLimits } from '../../core/limits/houseLimits'
import { noHolds } from '../testing/noHolds'
import { createTestRoom, testNowMs, type TestRoom } from '../testing/testRoom'
import { createPastService } from './past.service'
import { createPastStore } from './past.store'

const hourMs = 3_600_000
let room: TestRoom
beforeAll(async () => {
  room = await createTestRoom({ tankCount: 4 })
})
afterAll(() => room.db.close())

/** A number that is the same in every run. */
function random(seed: number): () => number {
  let state = seed
  return () => ((state = (state * 1_103_515_245 + 12_345) % 2_147_483_648) / 2_147_483_648)
}

const ledger = (): MovedThen[] => room.db.raw.prepare('SELECT id, lot_id AS lot, quantity AS n, from_place_id AS "from", to_place_id AS "to", happened_at_ms AS happenedAt, recorded_at_ms AS recordedAt, reverses_id AS reverses FROM movement ORDER BY seq').all() as MovedThen[]

/** Days of moves, losses, late entries and entries taken back. */
async function live(steps: number, chance: () => number): Promise<void> {
  const movements: string[] = []
  for (let step = 0; step < steps; step += 1) {
    room.clock.nowMs += Math.floor(chance() * 40) * 60_000
    const [from, to] = [Math.floor(chance() * 4), Math.floor(chance() * 4)]
    const tank = room.tanks[from]
    const happenedAtMs = room.clock.nowMs - (chance() < 0.3 ? Math.floor(chance() * 30) * hourMs : 0)
    const [kind] = ((await room.get(`/api/tanks/${tank?.code}`)).body as { stock: { speciesId: string; strain: null; quantity: number }[] }).stock
    const which = { speciesId: kind?.speciesId, strain: null, quantity: Math.max(1, Math.floor(chance() * (kind?.quantity ?? 1))) }
    const draw = chance()
    const answer =
      !kind || draw < 0.2
        ? await room.post(`/api/tanks/${tank?.id}/additions`, { species: chance() < 0.5 ? 'Cherry barb' : 'Honey gourami', quantity: 1 + Math.floor(chance() * 9), how: 'brought-in', note: null, happenedAtMs })
        : draw < 0.5
          ? await room.post('/api/moves', { from: { kind: 'tank', id: tank?.id }, to: { kind: 'tank', id: room.tanks[to]?.id }, fish: [which], toolSetId: null, waterGoesAlong: false, override: 'because', note: null, happenedAtMs })
          : draw < 0.75
            ? await room.post(`/api/tanks/${tank?.id}/losses`, { ...which, cause: 'found dead', note: null, happenedAtMs })
            : await room.post(`/api/movements/${movements[Math.floor(chance() * movements.length)] ?? 'none'}/reversal`, { reason: null, happenedAtMs })
    if (answer.status < 300) movements.push(...(answer.body.movementIds as string[]))
  }
}

test('as of 100 random moments it is what carrying the movements out says, by both clocks, while more are written', async () => {
  const chance = random(7)
  const facts = createFactsService({ store: createFactsStore(room.db), limits: () => standardLimits, holds: noHolds, binders: () => [] })
  // Marks so near that every moment lies behind some.
  const past = createPastService({ store: createPastStore(room.db), facts }, 10)
  const byKey = (rows: { place: string; lot: string; n: number }[]): Record<string, number> => Object.fromEntries(rows.map(({ place, lot, n }) => [`${place} ${lot}`, n]))
  for (let round = 0; round < 4; round += 1) {
    await live(tries(120, 30), chance)
    // Some of it is walked ahead, as a server does after its start.
    for (let step = 0; step < 3; step += 1) past.walkOn()
    const movements = ledger()
    for (let moment = 0; moment < 25; moment += 1) {
      const at = testNowMs - 40 * hourMs + Math.floor(chance() * (room.clock.nowMs - testNowMs + 45 * hourMs))
      for (const clock of ['books', 'happened'] as RoomClock[]) {
        const { stock, below } = roomAsOf({ movements, names: [], at, clock })
        expect(byKey(past.stockAt(at, clock))).toEqual(byKey([...stock, ...below]))
      }
    }
  }
  expect(ledger().length).toBeGreaterThan(60)
})

test('it tells who stood where then, under the names known then, and what happened since', async () => {
  const then = room.clock.nowMs + hourMs
  room.clock.nowMs = then
  const tank = room.tanks[0]
  const lotId = await room.addFish(tank, 'Kuhli loach', 5)
  room.clock.nowMs += 2 * hourMs
  await room.put(`/api/lots/${lotId}/name`, { species: 'Clown loach', strain: null, note: null, happenedAtMs: room.clock.nowMs })
  await room.post(`/api/tanks/${tank?.id}/losses`, { lotId, quantity: 2, cause: 'found dead', note: null, happenedAtMs: room.clock.nowMs })
  const read = async (query: string): Promise<RoomThen> => (await room.get(`/api/room/then${query}`)).body as RoomThen
  const changesIn = ({ tanks }: RoomThen, species: string) => tanks.find(({ code }) => code === tank?.code)?.changes.find((each) => each.species === species)
  expect(changesIn(await read(`?at=${then + hourMs}`), 'Clown loach')).toEqual({ species: 'Clown loach', then: 5, now: 3 })
  expect(changesIn(await read(`?at=${then + hourMs}&clock=books`), 'Kuhli loach')).toEqual({ species: 'Kuhli loach', then: 5, now: 0 })
  expect((await read(`?at=${then + hourMs}`)).since).toEqual({ loss: 2 })
  expect((await read('')).tanks.flatMap(({ changes }) => changes)).toEqual([])
  expect((await read('?at=soon')).atMs).toBe(room.clock.nowMs)
})
