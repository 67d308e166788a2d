import { uniformInt } from 'pure-rand/distribution/uniformInt'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'
import { bodyConditions, looks } from '../core/crates/crates.schema'
import type { BagView, CrateView } from '../core/crates/crateView'
import type { TankSummary } from '../core/room/roomView'
import type { Sign } from '../core/rounds/rounds.schema'
import type { Database } from '../server/db/open'
import type { Actor } from '../server/http/endpoint'
import { createCommander, type Commander } from './commander'
import { demoPeople, demoSystems, dueCrate, openCrate, pastCrates, type DemoCrate } from './demoBook'

const minuteMs = 60_000
const hourMs = 60 * minuteMs
const dayMs = 24 * hourMs

/** Chance from a seed: the same seed gives the same six weeks. */
interface Chance {
  from<T>(values: readonly T[]): T
  within(min: number, max: number): number
  oneIn(n: number): boolean
}

function createChance(seed: number): Chance {
  const generator = xoroshiro128plus(seed)
  const within = (min: number, max: number): number => uniformInt(generator, min, max)
  return { within, oneIn: (n) => within(1, n) === 1, from: (values) => values[within(0, values.length - 1)] as (typeof values)[number] }
}

interface Scene {
  commander: Commander
  chance: Chance
  people: { lead: Actor; keepers: Actor[] }
  tanks: Map<string, string>
}

/**
 * Fills an empty database with the demo room and six weeks of its history, all through the commands of the interface.
 * @param nowMs - the moment the demo starts; every date is relative to it.
 * @param seed - makes the history repeatable.
 */
export async function makeDemo(db: Database, nowMs: number, timeZone: string, seed = 42): Promise<{ commands: number }> {
  const commander = createCommander(db)
  const scene: Scene = { commander, chance: createChance(seed), ...(await openRoom(commander, nowMs - 43 * dayMs, timeZone)) }
  for (let daysAgo = 42; daysAgo >= 1; daysAgo -= 1) await liveDay(scene, daysAgo, nowMs - daysAgo * dayMs)
  await today(scene, nowMs)
  return { commands: commander.written }
}

async function openRoom(commander: Commander, atMs: number, timeZone: string): Promise<Pick<Scene, 'people' | 'tanks'>> {
  commander.clock.nowMs = atMs
  await commander.staff.createFirstLead({ ...demoPeople.lead, roomName: 'Lantern Quay Fishroom', timeZone })
  const imre = commander.staff.listStaff()[0]
  if (!imre) throw new Error('the first lead was not made')
  for (const keeper of demoPeople.keepers) await commander.run('addStaff', {}, { ...keeper, role: 'keeper', passphrase: null }, imre, atMs)
  const keepers = commander.staff.listStaff().filter((person) => person.role === 'keeper')
  const tanks = new Map<string, string>()
  for (const system of demoSystems) {
    const made = await commander.run<{ tanks: { id: string; code: string }[] }>('addSystem', {}, system, imre, atMs)
    for (const tank of made.tanks) tanks.set(tank.code, tank.id)
  }
  return { people: { lead: imre, keepers }, tanks }
}

async function liveDay(scene: Scene, daysAgo: number, atMs: number): Promise<void> {
  for (const crate of pastCrates.filter((each) => each.daysAgo === daysAgo)) {
    const view = await takeIn(scene, crate, atMs)
    await openBags(scene, view, view.bags, atMs + 20 * minuteMs)
    await scene.commander.run('placeBags', { crateId: view.id }, { tankId: null, happenedAtMs: atMs + 95 * minuteMs }, scene.people.lead, atMs + 95 * minuteMs)
  }
  await walkRound(scene, atMs + 2 * hourMs, null)
  await sellAndLose(scene, daysAgo, atMs + 6 * hourMs)
}

async function takeIn({ commander, people, tanks }: Scene, { supplier, hoursUnderWay, lines }: DemoCrate, expectedAtMs: number): Promise<CrateView> {
  const atMs = expectedAtMs - 20 * hourMs
  const body = {
    supplier,
    expectedAtMs: Math.round(expectedAtMs),
    packedAtMs: Math.round(expectedAtMs - hoursUnderWay * hourMs),
    lines: lines.map(([species, bags, perBag, tank]) => ({ species, count: bags * perBag, bags, perBag, tankId: tanks.get(tank) ?? null })),
  }
  const { id } = await commander.run<{ id: string }>('createCrate', {}, body, people.lead, atMs)
  return commander.crate(id, atMs)
}

/** Opens bags a minute apart. Most are plain; one in nine has a death, one in fourteen is a fish short or over. */
async function openBags({ commander, chance, people }: Scene, crate: CrateView, bags: readonly BagView[], fromMs: number): Promise<void> {
  for (const [index, bag] of bags.entries()) {
    const atMs = fromMs + index * minuteMs
    const dead = chance.oneIn(9) ? 1 : 0
    const off = chance.oneIn(14) && bag.listed > 2 ? chance.from([-1, 1]) : 0
    const isRead = chance.oneIn(4)
    const body = {
      ...{ bagIds: [bag.id], alive: bag.listed + off - dead, dead, concerns: dead ? [chance.from(looks)] : [], body: chance.oneIn(5) ? chance.from(bodyConditions) : null },
      skinTempC: isRead ? chance.within(215, 245) / 10 : null,
      waterTempC: isRead ? chance.within(205, 240) / 10 : null,
      salinityPpt: null,
      note: dead ? chance.from(['water cloudy', 'torn fin', 'smells']) : null,
      happenedAtMs: atMs,
    }
    await commander.run('recordBags', { crateId: crate.id }, body, chance.from(people.keepers), atMs)
  }
}

const mildSigns: Sign[] = ['hiding', 'clamped fins', 'pale', 'frayed fins', 'chased', 'thin']

/** Walks all stocked tanks half a minute apart; `only` leaves the rest for later. */
async function walkRound({ commander, chance, people }: Scene, atMs: number, only: ((tank: TankSummary, index: number) => boolean) | null): Promise<void> {
  const walker = chance.from([people.lead, ...people.keepers])
  const stops = commander.room(atMs).tanks.filter((tank) => tank.fish > 0)
  for (const [index, tank] of stops.entries()) {
    if (only && !only(tank, index)) continue
    const happenedAtMs = atMs + index * 30_000
    const signs = chance.oneIn(22) ? [chance.from(mildSigns)] : []
    const isCounted = chance.oneIn(30)
    const body = {
      ...{ tankId: tank.id, roundNumber: 1, ate: chance.oneIn(15) ? chance.from(['some', 'none'] as const) : 'all', signs },
      ...{ seen: isCounted ? tank.fish : null, note: signs.length > 0 && chance.oneIn(2) ? 'look again tomorrow' : null, replacesId: null, happenedAtMs },
    }
    await commander.run('recordCheck', {}, body, walker, happenedAtMs)
  }
}

/** Two or three sales a day, a loss now and then, one move taken back, one count set right, one spawning. */
async function sellAndLose({ commander, chance, people, tanks }: Scene, daysAgo: number, atMs: number): Promise<void> {
  const keeper = chance.from(people.keepers)
  const stocked = commander.room(atMs).tanks.filter((tank) => tank.fish > 4)
  const act = async (name: string, code: string, body: object, minutes: number): Promise<{ movementIds: string[] }> =>
    commander.run(name, { tankId: tanks.get(code) ?? '' }, { ...body, happenedAtMs: atMs + minutes * minuteMs }, keeper, atMs + minutes * minuteMs)
  const largestLot = (code: string) => commander.tank(code, atMs).stock[0]

  for (let sale = 0; sale < 2 && stocked.length > 0; sale += 1) {
    const code = chance.from(stocked).code
    const lot = largestLot(code)
    if (lot && lot.quantity > 3) await act('releaseFish', code, { lotId: lot.lotId, quantity: chance.within(1, 3), reason: 'sold', note: null }, sale * 40)
  }
  if (chance.oneIn(5) && stocked.length > 0) {
    const code = chance.from(stocked).code
    const lot = largestLot(code)
    if (lot) await act('recordLoss', code, { lotId: lot.lotId, quantity: 1, cause: chance.from(['found dead', 'jumped', 'not found'] as const), note: null }, 90)
  }
  const rasboras = largestLot('R1-01')
  if (daysAgo === 30 && rasboras) {
    const { movementIds } = await act('moveFish', 'R1-01', { lotId: rasboras.lotId, quantity: 6, toTankId: tanks.get('R1-08'), note: null }, 100)
    await commander.run('reverseMovement', { movementId: movementIds[0] ?? '' }, { reason: 'wrong tank entered', happenedAtMs: atMs + 104 * minuteMs }, keeper, atMs + 104 * minuteMs)
  }
  if (daysAgo === 17) await act('addFish', 'R1-08', { species: 'Cherry barb', quantity: 14, how: 'born', note: 'fry from R1-02, now 1 cm' }, 110)
  const snails = largestLot('M1-05')
  if (daysAgo === 14 && snails) await act('correctCount', 'M1-05', { lotId: snails.lotId, expected: snails.quantity, counted: snails.quantity - 2, reason: 'counted twice, lights off' }, 120)
  const loaches = largestLot('R1-04')
  if (daysAgo === 6 && loaches && loaches.quantity > 5) await act('moveFish', 'R1-04', { lotId: loaches.lotId, quantity: 5, toTankId: tanks.get('R1-07'), note: 'crowded' }, 130)
}

/** This morning: part of the round walked, one crate half opened on the floor, one still on the road. */
async function today(scene: Scene, nowMs: number): Promise<void> {
  const { commander, chance, people, tanks } = scene
  await walkRound(scene, nowMs - 50 * minuteMs, (_, index) => index < 9)
  const gobies = commander.tank('M1-06', nowMs).stock[0]
  const at = { tankId: tanks.get('R1-02') ?? '', roundNumber: 1, ate: 'some', signs: ['clamped fins'], seen: null, note: 'left food two days running', replacesId: null }
  await commander.run('recordCheck', {}, { ...at, happenedAtMs: nowMs - 40 * minuteMs }, chance.from(people.keepers), nowMs - 40 * minuteMs)
  if (gobies) await commander.run('recordLoss', { tankId: tanks.get('M1-06') ?? '' }, { lotId: gobies.lotId, quantity: 1, cause: 'jumped', note: 'lid was open', happenedAtMs: nowMs - 35 * minuteMs }, people.lead, nowMs - 35 * minuteMs)
  await takeIn(scene, dueCrate, nowMs + 3 * hourMs)
  const open = await takeIn(scene, openCrate, nowMs - 12 * minuteMs)
  await openBags(scene, open, open.bags.slice(0, 9), nowMs - 11 * minuteMs)
}
