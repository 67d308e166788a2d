import { afterAll, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { placeKinds } from '../../core/ledger/movement'
import { createServices } from '../services'
import { openDatabase } from '../db/open'
import type { Actor, Command, Params } from '../http/endpoint'
import { toProblem } from '../http/toProblem'
import { newId } from '../newId'
import { newKey } from '../testing/testRoom'
import { checkLedger } from './checkLedger'
import { tries } from '../../core/testing/tries'

// Random days of a fishroom against the simplest tally there is: a number for each lot in each tank. Every lot is of a kind of
// its own; those that cannot be told apart live in server/pools/pools.model.test.ts.
const nowMs = Date.UTC(2031, 4, 4, 9)
const db = openDatabase(':memory:')
// Nothing here outlives the test; waiting for the disk would only make it slow.
db.raw.exec('PRAGMA synchronous=OFF')
const { staff, dispatch, endpoints } = createServices({ db, now: () => nowMs })
const commands = new Map(endpoints.filter((each): each is Command => each.kind === 'command').map((each) => [each.name, each]))
afterAll(() => db.close())

type Step =
  | { do: 'add'; tank: number; quantity: number }
  | { do: 'move'; tank: number; lot: number; quantity: number; to: number }
  | { do: 'loss' | 'release'; tank: number; lot: number; quantity: number }
  | { do: 'count'; tank: number; lot: number; counted: number }
  | { do: 'reverse'; nth: number }
const tankIndex = fc.nat({ max: 2 })
const lotIndex = fc.nat({ max: 3 })
const quantity = fc.integer({ min: 1, max: 12 })
const step: fc.Arbitrary<Step> = fc.oneof(
  { weight: 2, arbitrary: fc.record({ do: fc.constant('add' as const), tank: tankIndex, quantity }) },
  { weight: 3, arbitrary: fc.record({ do: fc.constant('move' as const), tank: tankIndex, lot: lotIndex, quantity, to: tankIndex }) },
  { weight: 2, arbitrary: fc.record({ do: fc.constantFrom('loss' as const, 'release' as const), tank: tankIndex, lot: lotIndex, quantity }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('count' as const), tank: tankIndex, lot: lotIndex, counted: fc.nat({ max: 15 }) }) },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('reverse' as const), nth: fc.nat({ max: 9 }) }) },
)
/** Happened up to a month before it was recorded, in any order; sent once or three times. */
const day = fc.array(fc.record({ step, hoursAgo: fc.nat({ max: 720 }), isRepeated: fc.boolean() }), { minLength: 1, maxLength: 14 })

/** What a person with a pencil would keep. */
class Tally {
  lots: string[] = []
  fish = new Map<string, number>()
  done: { id: string; from: string | null; to: string | null; quantity: number; isBack: boolean }[] = []

  at = (tank: string, lot: string): number => this.fish.get(`${tank} ${lot}`) ?? 0
  private add = (place: string | null, lot: string, by: number): void => {
    const tank = place && `${place} ${lot}`
    if (tank) this.fish.set(tank, (this.fish.get(tank) ?? 0) + by)
  }
  book(id: string, lot: string, from: string | null, to: string | null, amount: number): void {
    this.add(from, lot, -amount)
    this.add(to, lot, amount)
    this.done.push({ id, from, to, quantity: amount, isBack: false })
    this.lotOf.set(id, lot)
  }
  lotOf = new Map<string, string>()
  back(nth: number): boolean {
    const entry = this.done[nth]
    const lot = entry && this.lotOf.get(entry.id)
    if (!entry || !lot || entry.isBack || (entry.to !== null && this.at(entry.to, lot) < entry.quantity)) return false
    this.add(entry.to, lot, -entry.quantity)
    this.add(entry.from, lot, entry.quantity)
    entry.isBack = true
    return true
  }
}

test('random days: stock equals the tally, never below zero, replays change nothing, backdating breaks nothing', async () => {
  await staff.createFirstLead({ name: 'Imre', passphrase: 'tide pool at dawn', pin: '4711', roomName: 'Room', timeZone: 'UTC' })
  const imre = staff.listStaff()[0] as Actor
  let accepted = 0
  let refused = 0

  async function send(name: string, params: Params, body: object, isRepeated: boolean): Promise<{ movementIds: string[]; lotId?: string } | null> {
    const call = { key: newKey(), actor: imre, params, body, nowMs }
    try {
      const first = await dispatch(commands.get(name) as Command, call)
      for (let again = 0; isRepeated && again < 2; again += 1) {
        const replay = await dispatch(commands.get(name) as Command, call)
        expect(replay).toEqual({ ...first, isReplay: true })
      }
      accepted += 1
      return first.answer as { movementIds: string[]; lotId?: string }
    } catch (error) {
      expect(toProblem(error).status).toBeLessThan(500)
      refused += 1
      return null
    }
  }

  await fc.assert(
    fc.asyncProperty(day, async (steps) => {
      const tanks = await makeTanks(imre)
      const tally = new Tally()
      for (const { step: each, hoursAgo, isRepeated } of steps) await live(each, nowMs - hoursAgo * 3_600_000, isRepeated, tanks, tally, send)
      for (const tank of tanks) {
        for (const lot of tally.lots) {
          const row = db.raw.prepare('SELECT quantity FROM stock WHERE place_id = ? AND lot_id = ?').get(tank, lot) as { quantity: number } | undefined
          expect(row?.quantity ?? 0).toBe(tally.at(tank, lot))
          expect(tally.at(tank, lot)).toBeGreaterThanOrEqual(0)
        }
      }
    }),
    { numRuns: tries(2000) },
  )
  expect(checkLedger(db).faults).toEqual([])
  // Both answers must have been met often, or the days were not worth living.
  expect(Math.min(accepted, refused)).toBeGreaterThan(tries(2000))
}, 300_000)

test('places of every kind are known to the database', () => {
  for (const kind of placeKinds.filter((each) => each !== 'outside')) expect(() => db.raw.prepare('INSERT INTO place (id, kind) VALUES (?, ?)').run(newId(), kind)).not.toThrow()
  expect(() => db.raw.prepare('INSERT INTO place (id, kind) VALUES (?, ?)').run(newId(), 'pond')).toThrow(/place_kind/)
})

let rack = 0
async function makeTanks(actor: Actor): Promise<string[]> {
  rack += 1
  const body = { name: `System ${rack}`, water: 'fresh', sharing: 'each its own', sumpL: null, rack: `T${rack}`, tankCount: 3, perShelf: 3, tankKind: 'glass', netVolumeL: null }
  const made = await dispatch(commands.get('addSystem') as Command, { key: newKey(), actor, params: {}, body, nowMs })
  return (made.answer as { tanks: { id: string }[] }).tanks.map(({ id }) => id)
}

type Send = (name: string, params: Params, body: object, isRepeated: boolean) => Promise<{ movementIds: string[]; lotId?: string } | null>

async function live(step: Step, happenedAtMs: number, isRepeated: boolean, tanks: string[], tally: Tally, send: Send): Promise<void> {
  if (step.do === 'reverse') {
    const target = tally.done[step.nth]
    const answer = await send('reverseMovement', { movementId: target?.id ?? 'none' }, { reason: null, happenedAtMs }, isRepeated)
    expect(answer !== null).toBe(tally.back(step.nth))
    return
  }
  const tank = tanks[step.tank] ?? ''
  const params = { tankId: tank }
  if (step.do === 'add') {
    const answer = await send('addFish', params, { species: `Barb ${tally.lots.length}`, quantity: step.quantity, how: 'born', note: null, happenedAtMs }, isRepeated)
    await send('sayWater', {}, { lotIds: [answer?.lotId ?? ''], water: 'fresh' }, false)
    tally.lots.push(answer?.lotId ?? '')
    tally.book(answer?.movementIds[0] ?? '', answer?.lotId ?? '', null, tank, step.quantity)
    return
  }
  const lotId = tally.lots[step.lot] ?? 'unknown'
  const there = tally.at(tank, lotId)
  if (step.do === 'count') {
    const answer = await send('correctCount', params, { lotId, expected: there, counted: step.counted, reason: 'counted', happenedAtMs }, isRepeated)
    expect(answer !== null).toBe(lotId !== 'unknown' && step.counted !== there)
    if (answer) tally.book(answer.movementIds[0] ?? '', lotId, step.counted < there ? tank : null, step.counted < there ? null : tank, Math.abs(step.counted - there))
    return
  }
  const to = step.do === 'move' ? (tanks[step.to] ?? '') : null
  const rest = step.do === 'move' ? { toTankId: to } : step.do === 'loss' ? { cause: 'unknown' } : { reason: 'sold' }
  const name = { move: 'moveFish', loss: 'recordLoss', release: 'releaseFish' }[step.do]
  const answer = await send(name, params, { lotId, quantity: step.quantity, note: null, happenedAtMs, ...rest }, isRepeated)
  expect(answer !== null).toBe(there >= step.quantity && to !== tank)
  if (answer) tally.book(answer.movementIds[0] ?? '', lotId, tank, to, step.quantity)
}
