import { noHolds } from '../testing/noHolds'
import { afterAll, expect, test } from '@jest/globals'
import fc from 'fast-check'
import type { TankFacts } from '../../core/facts/facts'
import { eventsOf, type Touch } from '../../core/facts/eventsOf'
import { foldFacts } from '../../core/facts/foldFacts'
import { standardLimits } from '../../core/limits/houseLimits'
import { ateAnswers, signs } from '../../core/rounds/rounds.schema'
import { tries } from '../../core/testing/tries'
import { createServices } from '../services'
import { openDatabase, type Database } from '../db/open'
import type { Actor, Command, Params } from '../http/endpoint'
import { toProblem } from '../http/toProblem'
import { slowFacts } from '../testing/slowFacts'
import { newKey } from '../testing/testRoom'
import { createFactsService } from './facts.service'
import { createFactsStore } from './facts.store'

// Random days in three tanks: what is known of them, kept while commands come in, against the ledger read the long way round.
const [hourMs, dayMs] = [3_600_000, 86_400_000]
const limits = standardLimits
/** A room is left after so many days: reading all of its ledger takes longer by the day. */
const daysInRoom = 60

type Step =
  | { do: 'add'; tank: number; quantity: number }
  | { do: 'move'; tank: number; lot: number; quantity: number; to: number }
  | { do: 'loss' | 'release'; tank: number; lot: number; quantity: number; isEaten: boolean }
  | { do: 'count'; tank: number; lot: number; counted: number }
  | { do: 'reverse'; nth: number }
  | { do: 'check'; tank: number; ate: (typeof ateAnswers)[number]; signs: (typeof signs)[number][]; seen: number | null; corrects: number | null }
const [tank, lot, quantity] = [fc.nat({ max: 2 }), fc.nat({ max: 3 }), fc.integer({ min: 1, max: 9 })]
const step: fc.Arbitrary<Step> = fc.oneof(
  { weight: 3, arbitrary: fc.record({ do: fc.constant('add' as const), tank, quantity }) },
  { weight: 3, arbitrary: fc.record({ do: fc.constant('move' as const), tank, lot, quantity, to: tank }) },
  { weight: 2, arbitrary: fc.record({ do: fc.constantFrom('loss' as const, 'release' as const), tank, lot, quantity, isEaten: fc.boolean() }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('count' as const), tank, lot, counted: fc.nat({ max: 12 }) }) },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('reverse' as const), nth: fc.nat({ max: 9 }) }) },
  { weight: 4, arbitrary: fc.record({ do: fc.constant('check' as const), tank, ate: fc.constantFrom(...ateAnswers), signs: fc.uniqueArray(fc.constantFrom(...signs), { maxLength: 2 }), seen: fc.option(fc.nat({ max: 9 })), corrects: fc.option(fc.nat({ max: 3 })) }) },
)
/** Entered in this order, from devices whose entries come late; `isLooked` says whether somebody reads in between. */
const day = fc.array(fc.record({ step, hoursAgo: fc.oneof(fc.constant(0), fc.nat({ max: 300 })), isLooked: fc.boolean() }), { minLength: 1, maxLength: 12 })

/** Fish that left a tank and whose leaving is taken back were never away; not left to chance, which may miss it. */
const backAgain: { step: Step; hoursAgo: number; isLooked: boolean }[] = [
  { step: { do: 'add', tank: 0, quantity: 5 }, hoursAgo: 20, isLooked: false },
  { step: { do: 'move', tank: 0, lot: 0, quantity: 5, to: 1 }, hoursAgo: 5, isLooked: false },
  { step: { do: 'reverse', nth: 1 }, hoursAgo: 0, isLooked: false },
]

class Scene {
  readonly db: Database = openDatabase(':memory:')
  nowMs = Date.UTC(2031, 4, 4, 9)
  private readonly services = createServices({ db: this.db, now: () => this.nowMs })
  private readonly commands = new Map(this.services.endpoints.filter((each): each is Command => each.kind === 'command').map((each) => [each.name, each]))
  readonly store = createFactsStore(this.db)
  readonly facts: ReturnType<typeof createFactsService>
  private actor!: Actor
  tanks: string[] = []
  lots: string[] = []
  movements: string[] = []
  checks: { id: string; tank: string }[] = []
  days = 0

  constructor(readonly counts: { accepted: number; refused: number }) {
    this.db.raw.exec('PRAGMA synchronous=OFF')
    this.facts = createFactsService({ store: this.store, limits: () => limits, holds: noHolds, binders: () => [] })
    this.services.changes.listen(this.facts.listen)
  }

  async furnish(): Promise<void> {
    await this.services.staff.createFirstLead({ name: 'Imre', passphrase: 'tide pool at dawn', pin: '4711', roomName: 'Room', timeZone: 'UTC' })
    this.actor = this.services.staff.listStaff()[0] as Actor
    const made = (await this.send('addSystem', {}, { name: 'System', water: 'fresh', sharing: 'each its own', sumpL: null, rack: 'T1', tankCount: 3, perShelf: 3, tankKind: 'glass', netVolumeL: null })) as { tanks: { id: string }[] }
    this.tanks = made.tanks.map(({ id }) => id)
  }

  async send(name: string, params: Params, body: object): Promise<unknown> {
    try {
      const { answer } = await this.services.dispatch(this.commands.get(name) as Command, { key: newKey(), actor: this.actor, params, body, nowMs: this.nowMs })
      this.counts.accepted += 1
      return answer
    } catch (error) {
      expect(toProblem(error).status).toBeLessThan(500)
      this.counts.refused += 1
      return null
    }
  }

  /** Lives one step; the touch it was, where a device knows all of it. */
  async live(each: Step, happenedAtMs: number): Promise<Touch | null> {
    const at = (index: number): string => this.tanks[index] ?? ''
    const lotId = 'lot' in each ? (this.lots[each.lot] ?? 'unknown') : ''
    if (each.do === 'reverse') return void (await this.send('reverseMovement', { movementId: this.movements[each.nth] ?? 'none' }, { reason: null, happenedAtMs })), null
    if (each.do === 'add') {
      const made = (await this.send('addFish', { tankId: at(each.tank) }, { species: 'Cherry barb', quantity: each.quantity, how: 'born', note: null, happenedAtMs })) as { lotId: string; movementIds: string[] } | null
      if (made) this.lots.push(made.lotId)
      if (made) this.movements.push(...made.movementIds)
      return null
    }
    if (each.do === 'check') {
      const old = each.corrects === null ? undefined : this.checks[this.checks.length - 1 - each.corrects]
      const input = { tankId: at(each.tank), roundNumber: 1, ate: each.ate, signs: each.signs, seen: each.seen, note: null, replacesId: old?.id ?? null, happenedAtMs }
      const made = (await this.send('recordCheck', {}, input)) as { id: string } | null
      if (made) this.checks.push({ id: made.id, tank: at(each.tank) })
      return made ? { key: made.id, command: 'recordCheck', input } : null
    }
    const tankId = at(each.tank)
    const bodies = {
      move: () => ['moveFish', { lotId, quantity: 'quantity' in each ? each.quantity : 0, toTankId: each.do === 'move' ? at(each.to) : '', note: null, happenedAtMs }] as const,
      loss: () => ['recordLoss', { lotId, quantity: 'quantity' in each ? each.quantity : 0, cause: 'isEaten' in each && each.isEaten ? 'eaten' : 'unknown', note: null, happenedAtMs }] as const,
      release: () => ['releaseFish', { lotId, quantity: 'quantity' in each ? each.quantity : 0, reason: 'sold', note: null, happenedAtMs }] as const,
      count: () => ['correctCount', { lotId, expected: this.fish(tankId, lotId), counted: 'counted' in each ? each.counted : 0, reason: 'counted', happenedAtMs }] as const,
    }
    const [command, input] = bodies[each.do]()
    const made = (await this.send(command, { tankId }, input)) as { movementIds: string[] } | null
    if (!made) return null
    this.movements.push(...made.movementIds)
    return { key: made.movementIds[0] ?? '', command, tankId, input } as Touch
  }

  fish = (tankId: string, lotId: string): number => (this.db.raw.prepare('SELECT quantity FROM stock WHERE place_id = ? AND lot_id = ?').get(tankId, lotId) as { quantity: number } | undefined)?.quantity ?? 0

  /** A month later, with all fish sold but those of one lot. */
  async nextMonth(): Promise<void> {
    for (const [index, lotId] of this.lots.entries()) for (const tankId of this.tanks) if (index > 0 && this.fish(tankId, lotId) > 0) await this.send('releaseFish', { tankId }, { lotId, quantity: this.fish(tankId, lotId), reason: 'sold', note: null, happenedAtMs: this.nowMs })
    this.lots = this.lots.slice(0, 1).filter((lotId) => this.tanks.some((tankId) => this.fish(tankId, lotId) > 0) && this.days % 5 !== 0)
    ;[this.movements, this.checks] = [[], []]
    this.nowMs += 31 * dayMs
    this.days += 1
  }
}

/** Facts as the long way round has them. */
const asSlow = ({ lots, looks, losses, fights }: TankFacts, looksMs: number) => ({
  lots: lots.map(({ lotId, quantity: fish, sinceMs, lastAnswer, lastMeal, losses: own }) => ({ lotId, quantity: fish, sinceMs, lastAnswer, lastMeal, losses: own.map(({ id }) => id).sort() })).sort((a, b) => (a.lotId < b.lotId ? -1 : 1)),
  newest: looks[0]?.id ?? null,
  looks: looks.filter(({ atMs }) => atMs >= looksMs).map(({ id, ate, signs: seen, seen: count, note }) => [id, ate, JSON.stringify(seen), count, note]),
  losses: losses.map(({ id }) => id).sort(),
  fights: fights.map(({ id }) => id).sort(),
})

/** Whether a device knows all that a touch is about: it corrects no look, and finds no fish of a lot that stands elsewhere. */
const isAllKnown = (touch: Touch, before: ReadonlyMap<string, TankFacts>): boolean =>
  touch.command === 'recordCheck' ? touch.input.replacesId === null : touch.command !== 'correctCount' || before.get(touch.tankId)?.lots.some(({ lotId }) => lotId === touch.input.lotId) === true

let scene: Scene | null = null
afterAll(() => scene?.db.close())

test('random days: what is known of tanks is what the ledger says, however late, corrected or taken back', async () => {
  const counts = { accepted: 0, refused: 0 }
  let folded = 0
  await fc.assert(
    fc.asyncProperty(day, async (steps) => {
      if (!scene || scene.days >= daysInRoom) {
        scene?.db.close()
        scene = new Scene(counts)
        await scene.furnish()
      }
      const { facts, store, nowMs } = scene
      const hourAgoMs = Math.floor(nowMs / hourMs) * hourMs
      const horizon = { looksMs: hourAgoMs - 10 * dayMs, lossesMs: hourAgoMs - (Math.max(limits.recentLossDays, 7) + 1) * dayMs, fightsMs: hourAgoMs - limits.fightMemoryDays * dayMs }
      for (const { step: each, hoursAgo, isLooked } of steps) {
        const before = isLooked ? facts.all(nowMs) : null
        const touch = await scene.live(each, nowMs - hoursAgo * hourMs)
        // What a device can tell by itself: a touch of now that corrects nothing.
        if (!before || !touch || hoursAgo > 0 || !isAllKnown(touch, before)) continue
        folded += 1
        const after = facts.all(nowMs)
        for (const tankId of scene.tanks) {
          const told = eventsOf(touch, (id) => before.get(id)).reduce<TankFacts>(foldFacts, before.get(tankId) as TankFacts)
          expect(asSlow(told, horizon.looksMs)).toEqual(asSlow(after.get(tankId) as TankFacts, horizon.looksMs))
        }
      }
      const afresh = createFactsService({ store, limits: () => limits, holds: noHolds, binders: () => [] })
      for (const tankId of scene.tanks) {
        const slow = slowFacts(scene.db.raw, tankId, horizon)
        expect(asSlow(facts.all(nowMs).get(tankId) as TankFacts, horizon.looksMs)).toEqual(slow)
        expect(facts.all(nowMs).get(tankId)).toEqual(afresh.tank(tankId, nowMs))
      }
      await scene.nextMonth()
    }),
    { numRuns: tries(5000, 2000), examples: [[backAgain]] },
  )
  // Both answers must have been met often, and touches folded, or the days were not worth living.
  expect(Math.min(counts.accepted, counts.refused)).toBeGreaterThan(tries(5000, 2000))
  expect(folded).toBeGreaterThan(20)
}, 900_000)
