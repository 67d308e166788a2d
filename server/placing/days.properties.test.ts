import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { figureInputs } from '../../core/bench/bagFigures'
import type { BenchSubject, RunView } from '../../core/bench/benchView'
import { differenceCauses } from '../../core/bench/bench.schema'
import { tries } from '../../core/testing/tries'
import { createServices } from '../services'
import { openDatabase } from '../db/open'
import type { Actor, Command, Params, Read } from '../http/endpoint'
import { Problem } from '../http/problem'
import { toProblem } from '../http/toProblem'
import { checkLedger } from '../ledger/checkLedger'
import { newKey } from '../testing/testRoom'

// Random days of deliveries, runs and moves against a pencil and four rules of thumb that know nothing of ours: fish in
// are fish out, place by place; nobody stands where anybody would see that they must not; all of it can be taken back.
const nowMs = Date.UTC(2031, 4, 4, 9)
async function openRoom() {
  const db = openDatabase(':memory:')
  db.raw.exec('PRAGMA synchronous=OFF')
  const { staff, dispatch, endpoints } = createServices({ db, now: () => nowMs })
  await staff.createFirstLead({ name: 'Imre', passphrase: 'tide pool at dawn', pin: '4711', roomName: 'Room', timeZone: 'UTC' })
  const commands = new Map(endpoints.filter((each): each is Command => each.kind === 'command').map((each) => [each.name, each]))
  const reads = new Map(endpoints.filter((each): each is Read => each.kind === 'read').map((each) => [each.path, each]))
  return { db, dispatch, commands, reads, lead: staff.listStaff()[0] as Actor }
}
/** A room of so many days; more tanks than any house has would only make it slow. */
const daysInRoom = 20
let room: Awaited<ReturnType<typeof openRoom>>
const raw = () => room.db.raw
const ask = <T>(path: string, params: Params, query: Record<string, string> = {}): T => room.reads.get(path)!.read({ params, query, nowMs }) as T

/** The books of a room are right, and every loss and correction says why. */
function closeRoom(): void {
  expect(checkLedger(room.db).faults).toEqual([])
  const causeless = raw().prepare(`SELECT count(*) AS n FROM movement WHERE (kind = 'loss' AND cause IS NULL) OR (kind = 'count-correction' AND reason IS NULL)`).get() as { n: number }
  expect(causeless.n).toBe(0)
  room.db.close()
}

const kinds = [
  { name: 'Cherry barb', water: 'fresh', isPrey: true },
  { name: 'Kuhli loach', water: 'fresh', isPrey: true },
  { name: 'Blue-green chromis', water: 'marine', isPrey: false },
  { name: 'Oscar', water: 'fresh', isPrey: false },
  { name: 'Grey lampeye', water: null, isPrey: false },
] as const

const nth = fc.nat({ max: 3 })
const tankAt = fc.nat({ max: 2 })
const few = fc.nat({ max: 5 })
const crate = fc.record({ do: fc.constant('crate' as const), kind: fc.nat({ max: 4 }), bags: fc.integer({ min: 1, max: 3 }), each: fc.integer({ min: 1, max: 6 }), tank: fc.option(tankAt, { nil: null }) })
const opened = fc.record({ do: fc.constant('open' as const), nth, dead: fc.nat({ max: 1 }), off: fc.integer({ min: -1, max: 1 }) })
const placed = fc.record({ do: fc.constant('place' as const), nth })
const begun = fc.record({ do: fc.constant('run' as const), nth, tank: tankAt })
const counted = fc.record({ do: fc.constant('count' as const), isRight: fc.boolean(), nth, tank: tankAt, alive: few, dead: fc.nat({ max: 2 }), missing: fc.nat({ max: 2 }), difference: fc.option(fc.constantFrom(...differenceCauses), { nil: null }) })
const moved = fc.record({ do: fc.constant('move' as const), nth, quantity: fc.integer({ min: 1, max: 6 }), tank: tankAt })
const added = fc.record({ do: fc.constant('add' as const), kind: fc.nat({ max: 4 }), tank: tankAt, quantity: fc.integer({ min: 1, max: 8 }) })
const step = fc.oneof(
  { weight: 4, arbitrary: crate },
  { weight: 8, arbitrary: opened },
  { weight: 6, arbitrary: placed },
  { weight: 5, arbitrary: begun },
  { weight: 6, arbitrary: fc.record({ do: fc.constant('go on' as const), nth }) },
  { weight: 7, arbitrary: counted },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('take back' as const) }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('end' as const), nth, tank: tankAt }) },
  { weight: 2, arbitrary: added },
  { weight: 4, arbitrary: moved },
  { weight: 2, arbitrary: fc.record({ do: fc.constantFrom('loss' as const, 'release' as const), nth, quantity: fc.integer({ min: 1, max: 3 }) }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('say' as const), nth, water: fc.constantFrom('fresh', 'marine') }) },
)
type Step = typeof step extends fc.Arbitrary<infer T> ? T : never
/** Now and then a lead gives a reason at once. */
const decidedNow = fc.nat({ max: 5 }).map((n) => n === 0)
const some = <T>(arbitrary: fc.Arbitrary<T>, minLength: number, maxLength: number) => fc.array(fc.record({ step: arbitrary, isDecided: decidedNow }), { minLength, maxLength })
/** A morning with something to do, a crate placed, a run counted out, a move, then anything in any order. */
const day = fc.tuple(some(crate, 2, 3), some(added, 1, 2), some(opened, 3, 6), some(placed, 1, 1), some(begun, 1, 2), some(counted, 1, 2), some(moved, 1, 2), some(step, 4, 14)).map((parts) => parts.flat())

interface Pencil {
  bag: number
  vessel: number
  tank: number
}

/** One day in a room of its own: what was sent, and what a pencil has of it. */
class Day {
  readonly pencil: Pencil = { bag: 0, vessel: 0, tank: 0 }
  /** How each thing that was done is taken back, newest last. */
  readonly backs: { back: () => Promise<void>; delta: Pencil }[] = []
  readonly crates: string[] = []
  readonly runs: string[] = []
  hasEnded = false
  private readonly decided = new Set<string>()

  constructor(private readonly tanks: { id: string; code: string; water: string }[]) {}

  async send<T>(name: string, params: Params, body: object, key = newKey()): Promise<T | null> {
    try {
      return (await room.dispatch(room.commands.get(name) as Command, { key, actor: room.lead, params, body, nowMs })).answer as T
    } catch (error) {
      if (!(error instanceof Problem)) expect(toProblem(error).status).toBeLessThan(500)
      return null
    }
  }

  private add(delta: Partial<Pencil>): void {
    for (const kind of ['bag', 'vessel', 'tank'] as const) this.pencil[kind] += delta[kind] ?? 0
  }
  private did(delta: Partial<Pencil>, back: () => Promise<void>): void {
    this.add(delta)
    this.backs.push({ back, delta: { bag: 0, vessel: 0, tank: 0, ...delta } })
  }
  async takeBack(): Promise<void> {
    const last = this.backs.pop()
    if (!last) return
    await last.back()
    this.add({ bag: -last.delta.bag, vessel: -last.delta.vessel, tank: -last.delta.tank })
  }
  private must = async (name: string, params: Params, body: object): Promise<void> => expect([name, await this.send(name, params, { ...body, happenedAtMs: nowMs })]).toEqual([name, expect.anything()])

  private readonly species = (lotId: string): (typeof kinds)[number] => {
    const row = raw().prepare('SELECT species.name FROM lot JOIN species ON species.id = lot.species_id WHERE lot.id = ?').get(lotId) as { name: string }
    return kinds.find(({ name }) => name === row.name) as (typeof kinds)[number]
  }
  private said = (lotId: string): string | null => (raw().prepare('SELECT water FROM lot WHERE id = ?').get(lotId) as { water: string | null }).water
  private stockOf = (placeId: string): { lotId: string; quantity: number }[] => raw().prepare('SELECT lot_id AS lotId, quantity FROM stock WHERE place_id = ? AND quantity > 0').all(placeId) as { lotId: string; quantity: number }[]
  private all = (): Map<string, { lotId: string; quantity: number }[]> => new Map(this.tanks.map(({ id }) => [id, this.stockOf(id)]))

  /** What anybody would see: sea fish in fresh water, fish nobody knows, small ones with an oscar that lives there. */
  private expectSound(before: Map<string, { lotId: string; quantity: number }[]>, isDecided: boolean): void {
    for (const tank of this.tanks) {
      const there = before.get(tank.id) ?? []
      for (const { lotId, quantity } of this.stockOf(tank.id)) {
        if (quantity <= (there.find((each) => each.lotId === lotId)?.quantity ?? 0)) continue
        const { water, isPrey } = this.species(lotId)
        const lives = water ?? this.said(lotId)
        expect(lives).not.toBeNull()
        if (isDecided) this.decided.add(`${lotId} ${tank.id}`)
        if (this.decided.has(`${lotId} ${tank.id}`)) continue
        expect([lives, tank.water]).toEqual([tank.water, tank.water])
        expect(isPrey && there.some((each) => this.species(each.lotId).name === 'Oscar')).toBe(false)
      }
    }
  }

  private decide = (lotId: string | undefined, tankId: string): void => void this.decided.add(`${lotId ?? ''} ${tankId}`)

  private run = (index: number): RunView | null => {
    const id = this.runs[index % Math.max(1, this.runs.length)]
    const run = id === undefined ? null : ask<RunView>('/api/bench/runs/:runId', { runId: id })
    return run && run.endedAtMs === null ? run : null
  }

  async live(each: Step, isDecided: boolean): Promise<boolean> {
    const against = isDecided ? { override: 'the lead has seen it' } : {}
    const before = this.all()
    const target = 'tank' in each && each.tank !== null ? this.tanks[each.tank] : undefined
    switch (each.do) {
      case 'crate': {
        const line = { species: kinds[each.kind]?.name, count: each.bags * each.each, bags: each.bags, perBag: null, tankId: target?.id ?? null, ...against }
        const made = await this.send<{ id: string }>('createCrate', {}, { supplier: 'Hollow Reed Hatchery', expectedAtMs: null, packedAtMs: nowMs - 3_600_000, lines: [line] })
        if (!made) return false
        this.crates.push(made.id)
        // What is decided for the plan holds for the placing.
        if (isDecided && target) this.decide(this.crateAt(this.crates.length - 1)?.lines[0]?.lotId, target.id)
        return true
      }
      case 'open': {
        const crate = this.crateAt(each.nth)
        const bag = crate && (raw().prepare('SELECT id, listed FROM bag WHERE crate_id = ? AND NOT EXISTS (SELECT 1 FROM bag_record r WHERE r.bag_id = bag.id AND r.undone_at_ms IS NULL) ORDER BY number').get(crate.id) as { id: string; listed: number } | undefined)
        if (!crate || !bag) return false
        const alive = Math.max(1, bag.listed + each.off - each.dead)
        const found = { bagIds: [bag.id], alive, dead: each.dead, concerns: [], body: null, skinTempC: null, waterTempC: 24, salinityPpt: 0.3, note: null, happenedAtMs: nowMs }
        if (!(await this.send('recordBags', { crateId: crate.id }, found))) return false
        this.did({ bag: alive }, () => this.must('undoBags', { crateId: crate.id }, { bagIds: [bag.id] }))
        return true
      }
      case 'place': {
        const crate = this.crateAt(each.nth)
        const key = newKey()
        const answer = crate && (await this.send<{ placed: number }>('placeBags', { crateId: crate.id }, { tankId: null, happenedAtMs: nowMs }, key))
        if (!crate || !answer) return false
        this.did({ bag: -answer.placed, tank: answer.placed }, () => this.must('undoPlacement', { crateId: crate.id }, { placementKey: key }))
        this.expectSound(before, false)
        return true
      }
      case 'run':
        return this.begin(each.nth, target?.id ?? '', isDecided ? against : null)
      case 'go on':
        return this.goOn(this.run(each.nth))
      case 'count': {
        const run = this.run(each.nth)
        const lot = run?.standing[0]
        if (!run || !lot || !target) return false
        const stepIndex = run.events.filter(({ kind }) => kind === 'step').length
        // Most counts are right, and go where they were planned.
        const alive = each.isRight ? Math.min(each.alive + 1, lot.quantity) : each.alive
        const [dead, missing, difference] = each.isRight ? [0, 0, null] : [each.dead, each.missing, each.difference]
        const answer = await this.send<{ rest: number }>('countOut', { runId: run.id }, { stepIndex, counts: [{ lotId: lot.lotId, alive, dead, missing, difference }], tankId: each.isRight ? null : target.id, look: 'as expected', cause: 'found dead', note: null, happenedAtMs: nowMs, ...against })
        if (!answer) return false
        const where = run.inVessel > 0 ? 'vessel' : 'bag'
        const more = Math.max(0, alive + dead - lot.quantity)
        // Nobody is written off who was not said to be gone.
        expect(answer.rest).toBe(lot.quantity + more - alive - dead - missing)
        expect(more + missing === 0 || difference !== null).toBe(true)
        this.did({ [where]: more - alive - dead - missing, tank: alive }, () => this.undoNewest(run.id))
        this.expectSound(before, isDecided)
        return true
      }
      case 'take back':
        await this.takeBack()
        return true
      case 'end': {
        const run = this.run(each.nth)
        if (!run || !target || !(await this.send('stopRun', { runId: run.id }, { because: 'the bucket leaks', tankId: run.inVessel > 0 ? target.id : null, happenedAtMs: nowMs, ...against }))) return false
        this.hasEnded = true
        this.add({ vessel: -run.inVessel, tank: run.inVessel })
        this.backs.length = 0
        this.expectSound(before, isDecided)
        return true
      }
      case 'add': {
        const answer = await this.send<{ movementIds: string[] }>('addFish', { tankId: target?.id ?? '' }, { species: kinds[each.kind]?.name, quantity: each.quantity, how: 'brought-in', note: null, happenedAtMs: nowMs })
        if (!answer) return false
        this.did({ tank: each.quantity }, () => this.must('reverseMovement', { movementId: answer.movementIds[0] ?? '' }, { reason: null }))
        return true
      }
      case 'move':
      case 'loss':
      case 'release': {
        const [from, lots] = [...before].find(([, rows]) => rows.length > 0) ?? []
        const lot = lots?.[each.nth % lots.length]
        if (from === undefined || !lot) return false
        const rest = each.do === 'move' ? { toTankId: target?.id ?? '', note: null, ...against } : each.do === 'loss' ? { cause: 'jumped', note: null } : { reason: 'sold', note: null }
        const name = { move: 'moveFish', loss: 'recordLoss', release: 'releaseFish' }[each.do]
        const answer = await this.send<{ movementIds: string[] }>(name, { tankId: from }, { lotId: lot.lotId, quantity: each.quantity, happenedAtMs: nowMs, ...rest })
        if (!answer) return false
        this.did(each.do === 'move' ? {} : { tank: -each.quantity }, () => this.must('reverseMovement', { movementId: answer.movementIds[0] ?? '' }, { reason: null }))
        if (each.do === 'move') this.expectSound(before, isDecided)
        return true
      }
      case 'say': {
        const lotId = this.crateAt(each.nth)?.lines[0]?.lotId ?? [...before.values()].flat()[0]?.lotId
        return lotId !== undefined && (await this.send('sayWater', {}, { lotIds: [lotId], water: each.water })) !== null
      }
    }
  }

  /** The next step of a run, where it is not the one that counts out. */
  private async goOn(run: RunView | null): Promise<boolean> {
    if (!run) return false
    const stepIndex = run.events.filter(({ kind }) => kind === 'step').length
    if (!(await this.send('doStep', { runId: run.id }, { stepIndex, happenedAtMs: nowMs }))) return false
    const poured = run.plan.steps[stepIndex]?.fish === 'vessel' ? run.standing.reduce((sum, { quantity }) => sum + quantity, 0) - run.inVessel : 0
    this.did({ bag: -poured, vessel: poured }, () => this.undoNewest(run.id))
    return true
  }

  private crateAt(index: number): { id: string; lines: { id: string; lotId: string }[] } | null {
    const id = this.crates[index % Math.max(1, this.crates.length)]
    return id === undefined ? null : { id, lines: raw().prepare('SELECT id, lot_id AS lotId FROM line WHERE crate_id = ? ORDER BY position').all(id) as { id: string; lotId: string }[] }
  }
  private undoNewest = async (runId: string): Promise<void> => {
    const { events } = ask<RunView>('/api/bench/runs/:runId', { runId })
    await this.must('undoRunEvent', { runId }, { eventId: events.at(-1)?.id ?? '' })
  }

  private async begin(index: number, tankId: string, against: object | null): Promise<boolean> {
    const { id: lineId, lotId } = this.crateAt(index)?.lines[0] ?? {}
    if (lineId === undefined) return false
    await this.live({ do: 'open', nth: index, dead: 0, off: 0 }, false)
    const subject = ask<BenchSubject>('/api/bench/subject', {}, { line: lineId, tank: tankId })
    const figures = Object.fromEntries(figureInputs.map(({ name }) => [name, subject.figures[name]?.value ?? null]))
    const body = { kind: 'acclimation', schoolKey: 'siphon', agentId: null, tankId, toOutside: null, isPooled: true, vessel: 'tub', vesselL: 900, dropsPerMl: 20, isDark: false, sentence: null, predicted: null, happenedAtMs: nowMs, ...(against ?? {}) }
    const words = { ...subject.words, waterClass: this.species(lotId ?? '').water === 'marine' ? 'marine' : 'hard' }
    const made = await this.send<{ id: string }>('startRun', {}, { ...body, figures, words, sources: subject.sources.map(({ placeId, lotId, quantity }) => ({ placeId, lotId, quantity })) })
    if (!made) return false
    if (against) this.decide(lotId, tankId)
    this.runs.push(made.id)
    this.did({}, () => this.must('stopRun', { runId: made.id }, { because: 'taken back' }))
    while (await this.goOn(this.run(this.runs.length - 1)));
    return true
  }

  /** What the books have, by kind of place. */
  books(): Pencil {
    const ids = [...this.tanks.map(({ id }) => id), ...this.runs, ...this.crates.flatMap((crateId) => (raw().prepare('SELECT id FROM bag WHERE crate_id = ?').all(crateId) as { id: string }[]).map(({ id }) => id))]
    const rows = raw().prepare(`SELECT p.kind, coalesce(sum(stock.quantity), 0) AS fish FROM place p JOIN stock ON stock.place_id = p.id WHERE p.id IN (SELECT value FROM json_each(?)) GROUP BY p.kind`).all(JSON.stringify(ids)) as { kind: keyof Pencil; fish: number }[]
    return { bag: 0, vessel: 0, tank: 0, ...Object.fromEntries(rows.map(({ kind, fish }) => [kind, fish])) }
  }
}

test('random days through the commands: fish in are fish out, nobody stands against a rule, differences have causes, all is taken back', async () => {
  room = await openRoom()
  const done = new Map<string, [accepted: number, refused: number]>()
  let rack = 0
  await fc.assert(
    fc.asyncProperty(day, async (steps) => {
      rack += 1
      if (rack % daysInRoom === 0) {
        closeRoom()
        room = await openRoom()
      }
      const makeRack = async (water: string, count: number): Promise<{ id: string; code: string; water: string }[]> => {
        const body = { name: `${water} ${rack}`, water, sharing: 'each its own', sumpL: null, rack: `${water === 'fresh' ? 'F' : 'M'}${rack}`, tankCount: count, perShelf: 3, tankKind: 'glass', netVolumeL: null }
        const made = await room.dispatch(room.commands.get('addSystem') as Command, { key: newKey(), actor: room.lead, params: {}, body, nowMs })
        return (made.answer as { tanks: { id: string; code: string }[] }).tanks.map((tank) => ({ ...tank, water }))
      }
      const today = new Day([...(await makeRack('fresh', 2)), ...(await makeRack('marine', 1))])
      for (const { step: each, isDecided } of steps) {
        const isIn = await today.live(each, isDecided)
        const [yes, no] = done.get(each.do) ?? [0, 0]
        done.set(each.do, isIn ? [yes + 1, no] : [yes, no + 1])
        expect(today.books()).toEqual(today.pencil)
      }
      while (!today.hasEnded && today.backs.length > 0) await today.takeBack()
      if (!today.hasEnded) expect(today.books()).toEqual({ bag: 0, vessel: 0, tank: 0 })
    }),
    { numRuns: tries(5000, 100) },
  )
  closeRoom()
  // Days on which nothing was let in, or nothing refused, prove nothing.
  for (const name of ['crate', 'place', 'run', 'count', 'move']) expect([name, ...(done.get(name) ?? []).map((times) => times > 5)]).toEqual([name, true, true])
}, 2_400_000)
