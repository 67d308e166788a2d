import { TZDate } from '@date-fns/tz'
import { startOfDay } from 'date-fns'
import { unseenBox } from '../core/crates/box.schema'
import { claimSheet } from '../core/crates/claim'
import { bodyConditions, looks } from '../core/crates/crates.schema'
import type { BagView, CrateView } from '../core/crates/crateView'
import type { StockView } from '../core/ledger/stockView'
import type { TankSummary } from '../core/room/roomView'
import type { Sign } from '../core/rounds/rounds.schema'
import { entriesNamed } from '../core/species/speciesBook'
import type { Database } from '../server/db/open'
import { Problem } from '../server/http/problem'
import { createChance, type Chance } from './chance'
import { createCommander, type Commander } from './commander'
import { afterQuarantine, demoBroods, demoOrigins, demoSingles, demoSuppliers, dueLines, openLines, type DemoSupplier } from './demoBook'
import { acclimateCrate } from './acclimating'
import { drawBag } from './drawBag'
import { furnish, type Furnished } from './furnish'
import { createLosses, type Losses } from './losing'
import { moveAbout } from './moving'
import { keepHolds } from './endingHolds'
import { hangProbes } from './hangProbes'
import { planAhead } from './planning'
import { doRegularly } from './doneRegularly'
import { feedTheRoom } from './inTheKitchen'
import { hangOnTheGlass } from './onTheGlass'
import { putOnTheBench } from './onTheBench'
import { bringThoseTreated, treatWaters } from './treating'
import { learn } from './learning'
import { lookAtTrouble, stopEating, told } from './onTheRound'

const [minuteMs, hourMs, dayMs] = [60_000, 3_600_000, 86_400_000]
const fourMonths = 120
const quarantineDays = 14

interface Scene extends Furnished {
  commander: Commander
  chance: Chance
  losses: Losses
}

interface Line {
  species: string
  bags: number
  perBag: number
  tank: string
}

interface DemoOptions {
  /** Makes the history repeatable. */
  seed?: number
  /** How long the history is. */
  days?: number
}

/**
 * Fills an empty database with the demo room and four months of its history up to yesterday evening, all through the commands
 * of the interface.
 * @param nowMs - any moment of the day on which the demo starts.
 */
export async function makeHistory(db: Database, nowMs: number, timeZone: string, { seed = 42, days = fourMonths }: DemoOptions = {}): Promise<void> {
  const commander = createCommander(db)
  const scene: Scene = { commander, chance: createChance(seed), losses: createLosses(createChance(seed + 7)), ...(await furnish(commander, morningOf(nowMs - (days + 1) * dayMs, timeZone), timeZone)) }
  for (let daysAgo = days; daysAgo >= 1; daysAgo -= 1) await liveDay(scene, days, daysAgo, morningOf(nowMs - daysAgo * dayMs, timeZone))
}

/** Brings a room with its history to this moment: a good morning with one real trouble, whenever the demo is opened. */
export async function makeMorning(db: Database, nowMs: number, { seed = 42 }: DemoOptions = {}): Promise<void> {
  const commander = createCommander(db)
  const staff = commander.staff.listStaff()
  const lead = staff.find(({ role }) => role === 'lead')
  if (!lead) throw new Error('this room has no history')
  const tanks = new Map(commander.room(nowMs).tanks.map(({ code, id }) => [code, id]))
  await today({ commander, chance: createChance(seed + 1), losses: createLosses(createChance(seed + 7)), people: { lead, keepers: staff.filter(({ role }) => role === 'keeper') }, tanks }, nowMs)
}

/** Both at once, for a room that is read and not opened. */
export async function makeDemo(db: Database, nowMs: number, timeZone: string, options: DemoOptions = {}): Promise<void> {
  await makeHistory(db, nowMs, timeZone, options)
  await makeMorning(db, nowMs, options)
}

/** Half past eight by the room's clock, whenever the demo itself is started: a day's work stays on its day. */
const morningOf = (atMs: number, timeZone: string): number => startOfDay(new TZDate(atMs, timeZone)).getTime() + 8.5 * hourMs

async function liveDay(scene: Scene, days: number, daysAgo: number, atMs: number): Promise<void> {
  for (const [index, supplier] of demoSuppliers.entries()) {
    // Suppliers start on days of their own; nobody delivers into the last two days but those on the floor.
    if (daysAgo < 3 || (days - daysAgo) % supplier.everyDays !== index) continue
    const view = await takeIn(scene, supplier, chooseLines(scene, supplier, daysAgo, atMs), atMs)
    await openBags(scene, view, view.bags, atMs + 20 * minuteMs, supplier)
    const placedAtMs = atMs + (25 + view.bags.length) * minuteMs
    const school = await acclimateCrate(scene, view.id, { supplier: supplier.name, nth: Math.floor((days - daysAgo) / supplier.everyDays), atMs }, placedAtMs)
    scene.losses.came(scene.commander.crate(view.id, placedAtMs + 160 * minuteMs), school, placedAtMs)
    await settle(scene, view.id, placedAtMs + 160 * minuteMs, daysAgo)
  }
  await bringThoseTreated(scene, daysAgo, atMs + 2.5 * hourMs)
  await walkRound(scene, atMs + 3 * hourMs, null)
  await keepHolds(scene, daysAgo, atMs + 4.5 * hourMs)
  await leaveQuarantine(scene, atMs + 5 * hourMs)
  await sellAndLose(scene, atMs + 6 * hourMs)
  await scene.losses.lose(scene, daysAgo, atMs + 7 * hourMs)
  await learn(scene, daysAgo, atMs + 7.5 * hourMs)
  await happenOnce(scene, daysAgo, atMs + 8 * hourMs)
}

/** What is ordered: species whose tanks have run low, a few at a time. */
function chooseLines({ commander, chance }: Scene, { assortment }: DemoSupplier, daysAgo: number, atMs: number): Line[] {
  const fish = new Map(commander.room(atMs).tanks.map((tank) => [tank.code, tank.fish]))
  const low = assortment.flatMap(([species, fromBags, toBags, perBag, ...tanks]) => {
    const isSingle = demoSingles.includes(species)
    // Whoever stands alone is ordered when tank and sale tank are free, and not so late that today's would meet it.
    if (isSingle && (daysAgo < quarantineDays + 4 || tanks.some((code) => (fish.get(code) ?? 0) + (fish.get(afterQuarantine[code] ?? '') ?? 0) > 0))) return []
    const tank = tanks.find((code) => (fish.get(code) ?? 0) < perBag * toBags)
    return tank === undefined ? [] : [{ species, bags: chance.within(fromBags, toBags), perBag, tank }]
  })
  const wanted = chance.within(4, 7)
  const lines = low.filter((_, index) => (index * 7 + chance.within(0, 2)) % Math.max(1, Math.ceil(low.length / wanted)) === 0)
  const [species, bags, , perBag, tank] = assortment.find(([name]) => !demoSingles.includes(name)) ?? ['', 0, 0, 0, '']
  return lines.length > 0 ? lines : [{ species, bags, perBag, tank: tank ?? '' }]
}

async function takeIn(scene: Scene, supplier: DemoSupplier, lines: readonly Line[], expectedAtMs: number, { nowMs = expectedAtMs, hoursUnderWay = supplier.transitHours } = {}): Promise<CrateView> {
  const { commander, people } = scene
  // Announced the day before; what comes tomorrow was announced this morning, and is not packed yet.
  const atMs = Math.min(expectedAtMs - 20 * hourMs, nowMs - 70 * minuteMs)
  const packedAtMs = Math.round(expectedAtMs - hoursUnderWay * hourMs)
  const body = {
    supplier: supplier.name,
    expectedAtMs: Math.round(expectedAtMs),
    packedAtMs: packedAtMs < nowMs ? packedAtMs : null,
    carrier: supplier.carrier,
    lines: lines.map(({ species, bags, perBag }) => ({ species, count: bags * perBag, bags, perBag, tankId: null, origin: demoOrigins[species] ?? supplier.origin, priceEach: demoPrice(species) })),
  }
  const { id } = await commander.run<{ id: string }>('createCrate', {}, body, people.lead, atMs)
  await planTanks(scene, commander.crate(id, atMs), lines.map(({ tank }) => tank), atMs)
  return commander.crate(id, atMs)
}

/** Each line goes where it usually does; where that breaks a rule of the house, to the first tank of the same rack that does not. */
async function planTanks({ commander, people, tanks }: Scene, crate: CrateView, usual: readonly string[], atMs: number): Promise<void> {
  for (const [index, { id, version }] of crate.lines.entries()) {
    const choose = (code: string, override: string | null) => commander.run('chooseTank', { crateId: crate.id, lineId: id }, { tankId: tanks.get(code) ?? null, override, version }, people.lead, atMs)
    const usually = usual[index] ?? ''
    if (!(await firstThatFits(beside(tanks, usually), (code) => choose(code, null)))) await choose(usually, 'the rack is full until some are sold')
  }
}

/** A tank and the others of its rack. */
const beside = (tanks: ReadonlyMap<string, string>, code: string): string[] => [code, ...[...tanks.keys()].filter((each) => each !== code && each.split('-')[0] === code.split('-')[0])]

/** Tries tanks in their order until one breaks no rule; false when all do. */
async function firstThatFits(codes: readonly string[], go: (code: string) => Promise<unknown>): Promise<boolean> {
  for (const code of codes) {
    const isIn = await go(code).then(() => true, (error: unknown) => {
      if (error instanceof Problem && error.code === 'breaks-rule') return false
      throw error
    })
    if (isIn) return true
  }
  return false
}

/** Opens bags a minute apart. Most are plain; a death now and then, by supplier; one in twenty is a fish short or over. */
async function openBags({ commander, chance, people }: Scene, crate: CrateView, bags: readonly BagView[], fromMs: number, { oneDeadIn, shippingTempC, shippingSalinityPpt, shippingPh }: DemoSupplier): Promise<void> {
  for (const [index, bag] of bags.entries()) {
    const atMs = fromMs + index * minuteMs
    const dead = chance.oneIn(oneDeadIn) ? 1 : 0
    const off = chance.oneIn(20) && bag.listed > 2 ? chance.from([-1, 1]) : 0
    const isRead = chance.oneIn(4)
    const body = {
      ...{ bagIds: [bag.id], alive: bag.listed + off - dead, dead, concerns: dead ? [chance.from(looks)] : [], body: chance.oneIn(5) ? chance.from(bodyConditions) : null },
      skinTempC: isRead ? shippingTempC - chance.within(5, 30) / 10 : null,
      waterTempC: isRead ? shippingTempC - chance.within(0, 20) / 10 : null,
      salinityPpt: isRead && shippingSalinityPpt !== null ? shippingSalinityPpt + chance.within(-10, 10) / 10 : null,
      behaviour: dead ? chance.from(['subdued', 'distressed'] as const) : isRead ? 'lively' : null,
      ph: isRead ? Math.round((shippingPh - 0.6 + chance.within(0, 6) / 10) * 10) / 10 : null,
      note: dead ? chance.from(['water cloudy', 'torn fin', 'smells']) : null,
      happenedAtMs: atMs,
    }
    await commander.run('recordBags', { crateId: crate.id }, body, chance.from(people.keepers), atMs)
  }
}

/** After the work: the box described, what was lost claimed, the crate closed. */
async function settle({ commander, people, chance }: Scene, crateId: string, atMs: number, daysAgo: number): Promise<void> {
  const box = { ...unseenBox, isSound: true, isWet: chance.oneIn(8), packs: chance.from(['working', 'working', 'spent'] as const), packing: chance.from(['good', 'good', 'poor'] as const), hasCareSheet: chance.oneIn(2) }
  await commander.run('recordBox', { crateId }, { box, version: 1 }, people.lead, atMs)
  const { dead, missing, amount } = claimSheet(commander.crate(crateId, atMs))
  if (dead + missing > 0) {
    const isSettled = daysAgo > 10
    const settledAmount = isSettled ? Math.round(amount * chance.from([0.5, 1, 1]) * 100) / 100 : null
    await commander.run('editClaim', { crateId }, { state: isSettled ? 'settled' : 'sent', note: null, settledAmount, atMs, version: 0 }, people.lead, atMs)
  }
  await commander.run('closeCrate', { crateId }, { because: null, version: 1 }, people.lead, atMs + minuteMs)
}

/** An invented price, the same for a species every time. */
const demoPrice = (species: string): number => Math.round((1.2 + (entriesNamed(species)[0]?.adultCm as number) * 0.45) * 20) / 20

const mildSigns: Sign[] = ['hiding', 'clamped fins', 'pale', 'frayed fins', 'chased', 'thin']

/** Walks all stocked tanks in the order of the round, a few a minute; `only` leaves the rest for later. */
async function walkRound({ commander, chance, people }: Scene, atMs: number, only: ((tank: TankSummary, index: number) => boolean) | null): Promise<void> {
  const walker = chance.from([people.lead, ...people.keepers])
  const tanks = new Map(commander.room(atMs).tanks.map((tank) => [tank.id, tank]))
  const stops = commander.round(atMs).stops.flatMap(({ tankId }) => tanks.get(tankId) ?? [])
  for (const [index, tank] of stops.entries()) {
    if (only && !only(tank, index)) continue
    const happenedAtMs = atMs + index * 20_000
    const signs = chance.oneIn(30) ? [chance.from(mildSigns)] : []
    const isCounted = chance.oneIn(40)
    const body = {
      ...{ tankId: tank.id, roundNumber: 1, ate: chance.oneIn(18) ? chance.from(['some', 'none'] as const) : 'all', signs },
      ...{ seen: isCounted ? tank.fish : null, note: signs.length > 0 && chance.oneIn(2) ? 'look again tomorrow' : null, replacesId: null, happenedAtMs },
    }
    await commander.run('recordCheck', {}, body, walker, happenedAtMs)
  }
}

type Deed = 'releaseFish' | 'recordLoss' | 'moveFish' | 'correctCount' | 'addFish'
const act = <T = { movementIds: string[] }>({ commander, people, tanks, chance }: Scene, name: Deed, code: string, body: object, atMs: number): Promise<T> =>
  commander.run<T>(name, { tankId: tanks.get(code) ?? '' }, { ...body, happenedAtMs: atMs }, chance.from(people.keepers), atMs)

/** Marine fish whose two weeks are over go to the sale rack. */
async function leaveQuarantine(scene: Scene, atMs: number): Promise<void> {
  for (const [from, to] of Object.entries(afterQuarantine)) {
    for (const lot of scene.commander.tank(from, atMs).stock.filter(({ sinceMs, quantity }) => quantity > 0 && atMs - sinceMs > quarantineDays * dayMs)) {
      await firstThatFits(beside(scene.tanks, to), (code) => act(scene, 'moveFish', from, { lotId: lot.lotId, quantity: lot.quantity, toTankId: scene.tanks.get(code), note: 'two weeks served' }, atMs))
    }
  }
}

/** Who sells a fish, or finds one dead, sees its kind and not its lot. */
const ofKind = ({ speciesId, strain }: StockView) => ({ speciesId, strain })

/** Sales of the day, and a loss now and then, oftener among the newly come. */
async function sellAndLose(scene: Scene, atMs: number): Promise<void> {
  const { commander, chance } = scene
  const forSale = commander.room(atMs).tanks.filter((tank) => tank.fish > 2 && tank.hold === null && /^[RSMB]/.test(tank.code))
  for (let sale = 0; sale < 6 && forSale.length > 0; sale += 1) {
    const { code } = chance.from(forSale)
    const lot = commander.tank(code, atMs).stock[0]
    if (lot && lot.quantity > 2) await act(scene, 'releaseFish', code, { ...ofKind(lot), quantity: Math.min(lot.quantity - 1, chance.within(1, 6)), reason: 'sold', note: null }, atMs + sale * 20 * minuteMs)
  }
  for (const code of Object.values(afterQuarantine)) {
    const single = commander.tank(code, atMs).stock[0]
    if (single && demoSingles.includes(single.species) && chance.oneIn(25)) await act(scene, 'releaseFish', code, { ...ofKind(single), quantity: single.quantity, reason: 'sold', note: null }, atMs + 130 * minuteMs)
  }
  for (const tank of commander.room(atMs).tanks.filter(({ fish }) => fish > 1)) {
    if (!chance.oneIn(tank.hold ? 60 : 260)) continue
    const lot = commander.tank(tank.code, atMs).stock[0]
    if (lot) await act(scene, 'recordLoss', tank.code, { ...ofKind(lot), quantity: 1, cause: chance.from(['found dead', 'found dead', 'jumped', 'not found'] as const), note: null }, atMs + 140 * minuteMs)
  }
}

/** What happened once: broods, a move taken back, a count set right, two tanks parted. */
async function happenOnce(scene: Scene, daysAgo: number, atMs: number): Promise<void> {
  const { commander, people, tanks } = scene
  for (const [species, quantity, tank, ago, from] of demoBroods) if (ago === daysAgo) await act(scene, 'addFish', tank, { species, quantity, how: 'born', note: `fry from ${from}, now 1 cm` }, atMs)
  const largest = (code: string) => commander.tank(code, atMs).stock[0]
  const rasboras = largest('R1-01')
  if (daysAgo === 30 && rasboras) {
    const { movementIds } = await act(scene, 'moveFish', 'R1-01', { lotId: rasboras.lotId, quantity: Math.min(6, rasboras.quantity), toTankId: tanks.get('R1-08'), note: null }, atMs)
    await commander.run('reverseMovement', { movementId: movementIds[0] ?? '' }, { reason: 'wrong tank entered', happenedAtMs: atMs + 4 * minuteMs }, people.lead, atMs + 4 * minuteMs)
  }
  const snails = largest('M1-09')
  if (daysAgo === 14 && snails && snails.quantity > 3) await act(scene, 'correctCount', 'M1-09', { lotId: snails.lotId, expected: snails.quantity, counted: snails.quantity - 2, reason: 'counted twice, lights off' }, atMs)
  const jumper = ['M1-05', 'M1-04', 'M1-02', 'M1-03'].find((code) => largest(code))
  if (daysAgo === 3 && jumper) await act(scene, 'recordLoss', jumper, { lotId: largest(jumper)?.lotId, quantity: 1, cause: 'jumped', note: 'lid was open' }, atMs)
  const loaches = largest('S1-05')
  if (daysAgo === 6 && loaches && loaches.quantity > 12) await act(scene, 'moveFish', 'S1-05', { lotId: loaches.lotId, quantity: 6, toTankId: tanks.get('S1-06'), note: 'crowded' }, atMs)
}

/**
 * This morning: part of the round walked, one crate half opened on the floor, one to come tomorrow with its preparation under
 * way. The trouble are the loaches that do not eat; nothing is late. Newcomers are on their second day in the display.
 */
async function today(scene: Scene, nowMs: number): Promise<void> {
  const { commander, people } = scene
  await stopEating(scene, nowMs)
  await treatWaters(scene, nowMs)
  await moveAbout(scene, nowMs)
  await walkRound(scene, nowMs - 50 * minuteMs, (tank, index) => index < 30 && !told.has(tank.code))
  await lookAtTrouble(scene, nowMs)
  const [hatchery, , harbour] = demoSuppliers
  if (!hatchery || !harbour) return
  const linesOf = (lines: readonly (readonly [string, number, number, string])[]): Line[] => lines.map(([species, bags, perBag, tank]) => ({ species, bags, perBag, tank }))
  const due = await takeIn(scene, harbour, linesOf(dueLines), nowMs + 27 * hourMs, { nowMs })
  for (const { key } of commander.preparation(due.id, nowMs).slice(0, 3)) await commander.run('prepareStep', { crateId: due.id }, { step: key, isDone: true }, people.lead, nowMs - 15 * minuteMs)
  const open = await takeIn(scene, hatchery, linesOf(openLines), nowMs - 12 * minuteMs, { nowMs, hoursUnderWay: 19.7 })
  await openBags(scene, open, open.bags.slice(0, 9), nowMs - 11 * minuteMs, hatchery)
  await lostInTheBag(scene, open, nowMs - 90_000)
  await putOnTheBench(scene, open, nowMs)
  await planAhead(scene, nowMs)
  await hangOnTheGlass(scene, nowMs)
  await feedTheRoom(scene, nowMs)
  await doRegularly(scene, nowMs)
  await hangProbes(scene, nowMs)
  await handOver(scene, nowMs)
}

/** The late crew left a word for the morning. */
async function handOver({ commander, people }: Scene, nowMs: number): Promise<void> {
  const [, late = people.lead] = people.keepers
  await commander.run('leaveWord', {}, { words: 'R1-02: new heater since yesterday, look at it first' }, late, nowMs - 11 * hourMs)
}

/** One bag of the crate on the floor came badly: two dead, cloudy water, a picture of it. */
async function lostInTheBag({ commander, people }: Scene, crate: CrateView, atMs: number): Promise<void> {
  const bag = crate.bags[9]
  if (!bag) return
  await commander.run('addPhoto', { crateId: crate.id, bagId: bag.id }, { image: await drawBag(2), happenedAtMs: atMs }, people.lead, atMs)
  const found = { ...{ bagIds: [bag.id], alive: bag.listed - 2, dead: 2, concerns: ['water'], body: 'normal', skinTempC: 19.4, waterTempC: 20.1, salinityPpt: null, ph: 6.4, ammoniaMgL: 3.1, behaviour: 'subdued', note: 'cloudy, smells' }, happenedAtMs: atMs }
  await commander.run('recordBags', { crateId: crate.id }, found, people.lead, atMs)
}
