import { existsSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { goneAfterDays, shippedAgents } from '../../core/dosing/agents'
import { createClockReader } from '../../core/holds/clockReader'
import { clockOf } from '../../core/holds/holdClock'
import { allGroups, type HoldRoom } from '../../core/holds/holdRoom'
import { policiesById } from '../../core/holds/shippedHolds'
import { tries } from '../../core/testing/tries'
import { fishUnlikeTheBooks, heldRoomOf } from '../testing/heldRoomOf'
import { createTestRoom, plainBag, quietCheck, testNowMs, type TestRoom } from '../testing/testRoom'
import { createHeldHistoryStore } from './heldHistory.store'
import { createHeldMarkStore } from './heldMark.store'
import { createHeldFile, heldFileOf } from './heldFile'
import { createHeldRooms, type HeldRooms } from './heldRooms'

// Random days, entered late, corrected and taken back: holds that are kept while people work against holds played from the beginning.
const [minuteMs, hourMs, dayMs] = [60_000, 3_600_000, 86_400_000]
const clocks = (room: HoldRoom) => Object.fromEntries([...allGroups(room)].map(({ lot, place }) => [`${lot} ${place}`, clockOf(room, lot, place)]))
const read = createClockReader()
const remembered = (room: HoldRoom) => Object.fromEntries([...allGroups(room)].map((group) => [`${group.lot} ${group.place}`, read(room, group)]))

type Step =
  | { do: 'deliver' | 'splash'; tank: number; to: number }
  | { do: 'move' | 'loss'; tank: number; to: number; quantity: number }
  | { do: 'reverse'; tank: number; nth: number }
  | { do: 'check'; tank: number; isSpotty: boolean; isCorrected: boolean; ate: 'all' | 'none' }
  | { do: 'decide' | 'undo'; tank: number; nth: number }
const [tank, nth] = [fc.nat({ max: 2 }), fc.nat({ max: 4 })]
const step: fc.Arbitrary<Step> = fc.oneof(
  { weight: 1, arbitrary: fc.record({ do: fc.constantFrom('deliver' as const, 'splash' as const), tank, to: tank }) },
  { weight: 3, arbitrary: fc.record({ do: fc.constantFrom('move' as const, 'move' as const, 'loss' as const), tank, to: tank, quantity: fc.integer({ min: 1, max: 4 }) }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('reverse' as const), tank, nth }) },
  { weight: 3, arbitrary: fc.record({ do: fc.constant('check' as const), tank, isSpotty: fc.boolean(), isCorrected: fc.boolean(), ate: fc.constantFrom('all' as const, 'none' as const) }) },
  { weight: 2, arbitrary: fc.record({ do: fc.constantFrom('decide' as const, 'undo' as const), tank, nth }) },
)
const day = fc.array(fc.record({ step, hoursAgo: fc.oneof(fc.constant(0), fc.nat({ max: 200 })) }), { minLength: 2, maxLength: 8 })

let room: TestRoom
let accepted = 0
afterAll(() => room?.db.close())

const made = { movements: [] as string[], decisions: [] as string[], checks: {} as Record<string, string> }

async function live(each: Step, atMs: number): Promise<void> {
  const [tankId, otherId] = [room.tanks[each.tank]!.id, room.tanks['to' in each ? each.to : 0]!.id]
  const said = async (path: string, body: object) => {
    const answer = await room.post(path, body)
    if (answer.status === 201) accepted += 1
    return (answer.status === 201 ? answer.body : {}) as { id?: string; movementIds?: string[] }
  }
  const lot = (room.db.raw.prepare('SELECT lot_id AS id FROM stock WHERE place_id = ? AND quantity > 0 ORDER BY lot_id').all(tankId) as { id: string }[])[0]?.id
  if (each.do === 'deliver') {
    const crate = await room.crateOf([['Cherry barb', 6, 1, room.tanks[each.tank]!]], 'as asked')
    for (const bag of crate.bags) await said(`/api/crates/${crate.id}/bags`, { ...plainBag([bag.id], bag.listed), happenedAtMs: atMs })
    await said(`/api/crates/${crate.id}/placements`, { tankId: null, happenedAtMs: room.clock.nowMs })
  } else if (each.do === 'splash') await said('/api/contacts', { kind: 'splash', fromTankId: tankId, toTankId: otherId, litres: null, note: null, happenedAtMs: atMs })
  else if (each.do === 'check') {
    const before = each.isCorrected ? (made.checks[tankId] ?? null) : null
    const { id } = await said('/api/checks', { ...quietCheck(tankId), ate: each.ate, signs: each.isSpotty ? ['spots'] : [], replacesId: before, happenedAtMs: atMs })
    if (id) made.checks[tankId] = id
  } else if (each.do === 'decide') {
    const { id } = await said(`/api/tanks/${tankId}/sign-decisions`, { sign: 'spots', lotId: null, decision: each.nth > 2 ? 'dismissed' : 'confirmed', days: null, note: each.nth > 2 ? 'sand' : null, happenedAtMs: atMs })
    if (id) made.decisions.push(id)
  } else if (each.do === 'undo') await said(`/api/sign-decisions/${made.decisions.at(-1 - each.nth) ?? 'none'}/undo`, {})
  else if (each.do === 'reverse') await said(`/api/movements/${made.movements.at(-1 - each.nth) ?? 'none'}/reversal`, { reason: null, happenedAtMs: atMs })
  else if (each.do === 'move' || each.do === 'loss') {
    const fish = { lotId: lot ?? 'none', quantity: each.quantity, note: null, happenedAtMs: atMs }
    const { movementIds = [] } = await said(`/api/tanks/${tankId}/${each.do === 'move' ? 'moves' : 'losses'}`, each.do === 'move' ? { ...fish, toTankId: otherId } : { ...fish, cause: 'found dead' })
    made.movements.push(...movementIds)
  }
}

/** A device is let in for three weeks; then another room is lived in. */
const daysInRoom = 15
let days = 0
let kept: HeldRooms
let started: () => HeldRooms
const folder = mkdtempSync(join(tmpdir(), 'daily-crate-'))
let rooms = 0
async function furnish(): Promise<void> {
  room?.db.close()
  room = await createTestRoom({ tankCount: 3, sharing: 'each its own', file: join(folder, `room${(rooms += 1)}.sqlite`) })
  const rules = { timeZone: 'UTC', tanks: Object.fromEntries(room.tanks.map(({ id }) => [id, id])), policies: policiesById(), goneAfter: goneAfterDays(shippedAgents) }
  started = () => createHeldRooms({ history: createHeldHistoryStore(room.db), marks: createHeldMarkStore(room.db), rules: () => rules, usual: () => null, file: createHeldFile(room.db) })
  kept = started()
  Object.assign(made, { movements: [], decisions: [], checks: {} })
  days = 0
}
/** A room that has fish to lose days from its first day. */
async function settle(): Promise<void> {
  await furnish()
  for (const to of [0, 1]) await live({ do: 'deliver', tank: to, to }, room.clock.nowMs)
}

test('random days: holds that were kept are those of the books, however late, corrected or taken back', async () => {
  let restarts = 0
  await fc.assert(
    fc.asyncProperty(day, async (steps) => {
      if (!room || days >= daysInRoom) await settle()
      for (const { step: each, hoursAgo } of steps) {
        await live(each, room.clock.nowMs - hoursAgo * hourMs)
        room.clock.nowMs += 7 * minuteMs
        const now = remembered(kept.at(room.clock.nowMs))
        restarts += Object.values(now).flatMap((clock) => clock.restarts).length
        expect(now).toEqual(clocks(heldRoomOf(room.db, room.clock.nowMs)))
      }
      room.clock.nowMs += dayMs
      days += 1
      const [held, afresh] = [kept.at(room.clock.nowMs), heldRoomOf(room.db, room.clock.nowMs)]
      expect(clocks(held)).toEqual(clocks(afresh))
      // A server that starts now reads what was kept of yesterday, and plays on from there.
      expect(clocks(started().at(room.clock.nowMs))).toEqual(clocks(afresh))
      // Entries that contradict each other (more fish moved from a tank than stood there on that day) wait for ever, and the fish with them.
      if (held.waiting.length === 0) expect(fishUnlikeTheBooks(room.db, held)).toEqual([])
    }),
    { numRuns: tries(200, 45) },
  )
  // Much must have happened, or the days were not worth living.
  expect([accepted > tries(200, 45), restarts > tries(200, 45)]).toEqual([true, true])
})

test('what was kept of other books, or was spoiled, is played anew', async () => {
  await furnish()
  const crate = await room.crateOf([['Cherry barb', 8, 1, room.tanks[0] ?? null]])
  await room.post(`/api/crates/${crate.id}/bags`, plainBag([crate.bags[0].id], 8))
  await room.post(`/api/crates/${crate.id}/placements`, { tankId: null, happenedAtMs: testNowMs })
  room.clock.nowMs += 5 * dayMs
  const right = clocks(heldRoomOf(room.db, room.clock.nowMs))
  started().at(room.clock.nowMs)
  const path = heldFileOf(room.db.file)
  expect(existsSync(path)).toBe(true)
  const [text, held] = [readFileSync(path, 'utf8'), () => clocks(started().at(room.clock.nowMs))]
  expect(held()).toEqual(right)
  for (const spoiled of ['', 'no JSON', text.slice(0, -20), text.replace('"n":8', '"n":9').replace('8000000', '9000000'), text.replace('"movement":', '"movement":1')]) {
    writeFileSync(path, spoiled)
    expect(held()).toEqual(right)
  }
})
