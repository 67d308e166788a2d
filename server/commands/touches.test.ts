import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import sharp from 'sharp'
import request from 'supertest'
import { productValues } from '../../core/testing/productValues'
import { figureInputs } from '../../core/bench/bagFigures'
import type { AlarmsView } from '../../core/outcomes/outcomeViews'
import type { BenchSubject, BenchView, RunView } from '../../core/bench/benchView'
import { addressOf } from '../../core/commands/declare'
import { meets, type Thing } from '../../core/commands/things'
import { unseenBox } from '../../core/crates/box.schema'
import type { CrateView } from '../../core/crates/crateView'
import type { FloorTank, FloorView } from '../../core/room/floor'
import type { KindForSale, SalesView } from '../../core/sales/salesView'
import type { StocktakeView } from '../../core/stocktake/stocktakeView'
import { registers, type RegisterName, type RegisterRow } from '../../core/setup/registers'
import { dueSources } from '../../core/due/dueSources'
import type { HoldsView } from '../../core/holds/holdsView'
import type { DeviceView, PersonView } from '../../core/staff/staff.schema'
import { createServices, type Services } from '../services'
import type { Command, Read } from '../http/endpoint'
import { createTestRoom, newKey, plainBag, quietCheck, testNowMs, type TestRoom } from '../testing/testRoom'
import { capital } from '../../core/words/capital'

// A device reads anew only what tells of something a write says it touched. So every write is done here once, and whatever
// a read answers differently after it must have been named: a touch that is not declared would leave screens as they were.

let room: TestRoom
let services: Services
let commands: Map<string, Command>
let reads: Read[]
let oona: string
const tried = new Set<string>()
const missed: string[] = []
/** What the reads of single things are asked of. */
const known: Record<string, Set<string>> = { crateId: new Set(), runId: new Set(), code: new Set(), tankId: new Set(), introductionId: new Set(), regimenId: new Set() }
/** Questions that say more than their address: what is asked of them, once there is something to ask about. */
const asked: Record<string, object> = { find: { q: 'barb' } }
const mailboxFolder = mkdtempSync(join(tmpdir(), 'daily-crate-mailbox-'))

beforeAll(async () => {
  room = await createTestRoom({ tankCount: 10, sharing: 'each its own', mailboxFolder })
  services = createServices({ db: room.db, now: () => room.clock.nowMs, mailboxFolder })
  commands = new Map(services.endpoints.filter((each): each is Command => each.kind === 'command').map((each) => [each.name, each]))
  reads = services.endpoints.filter((each): each is Read => each.kind === 'read' && each.name !== 'readMeter' && each.name !== 'readSubject')
  for (const { code } of room.tanks) known.code?.add(code)
  // Fish of which the book knows something: what a lead changes there shows on every screen.
  await room.post('/api/setup/species/adoptions', { names: ['Cherry barb', 'Honey gourami', 'Kuhli loach', 'Oscar'] })
})
afterAll(() => room.db.close())

interface Answered {
  read: Read
  params: Record<string, string>
  answer: unknown
}

/** What every read answers now, by address. */
let last: { version: string; all: Map<string, Answered> } | null = null
function askAll(): Map<string, Answered> {
  const version = `${room.db.version()} ${room.clock.nowMs} ${Object.values(known).map(({ size }) => size).join()}`
  last = last?.version === version ? last : { version, all: readAll() }
  return last.all
}
function readAll(): Map<string, Answered> {
  const actor = { id: room.leadId, name: 'Imre', role: 'lead' as const, isPinFresh: true, sessionId: null }
  const all = reads.flatMap((read) => {
    const name = /:(\w+)/.exec(read.path)?.[1]
    return (name === undefined ? [{}] : [...(known[name] ?? [])].map((id) => ({ [name]: id }))).map((params: Record<string, string>) => {
      const query = { from: null, to: null, fish: null, tools: null, water: null, plan: null, chosen: null, mirror: null, divider: null, dominants: null, start: null, direction: null, days: null, hops: null, kinds: null, at: null, clock: null, only: null, entries: 40, ...asked[read.name] }
      return [addressOf(read, params), { read, params, answer: answerOf(() => read.read({ params, query, actor, nowMs: room.clock.nowMs })) }] as const
    })
  })
  return new Map(all)
}

/** As a device gets it; what is not there any more is an answer too. */
function answerOf(ask: () => unknown): unknown {
  try {
    return JSON.parse(JSON.stringify(ask())) as unknown
  } catch {
    return undefined
  }
}

/** Does a write as a device would, and notes every read that it changed without saying so. */
async function act<T = object>(name: string, params: Record<string, string>, body: object, staffId = room.leadId): Promise<T> {
  const command = commands.get(name)
  if (!command) throw new Error(`there is no command ${name}`)
  const before = askAll()
  const answer = await request(room.app)[command.method](addressOf(command, params)).set({ Cookie: room.cookie, 'X-Recording': staffId, 'Idempotency-Key': newKey() }).send(body)
  if (answer.status >= 300) throw new Error(`${name}: ${JSON.stringify(answer.body)}`)
  const touched = command.touches(params, body)
  const after = askAll()
  for (const [address, { read, params: of, answer: was }] of before) {
    if (JSON.stringify(was) === JSON.stringify(after.get(address)?.answer)) continue
    // What is due is told of by the server, once it has looked.
    const about: readonly Thing[] = read.name === 'readDue' ? dueSources : read.about(of, was)
    if (!meets(touched, about)) missed.push(`${name} changed ${address} and says it touched ${touched.join(', ')}`)
  }
  tried.add(name)
  return answer.body as T
}

const happenedAtMs = testNowMs
const tank = (nth: number) => room.tanks[nth]?.id ?? ''
const view = async (id: string): Promise<CrateView> => (await room.get(`/api/crates/${id}`)).body as CrateView
const line = (species: string, nth: number | null, count = 6, bags = 2) => ({ species, count, bags, perBag: null, tankId: nth === null ? null : tank(nth) })

async function crateOf(...lines: object[]): Promise<CrateView> {
  const { id } = await act<{ id: string }>('createCrate', {}, { supplier: 'Hollow Reed Hatchery', expectedAtMs: happenedAtMs + 3_600_000, packedAtMs: happenedAtMs - 3_600_000, lines })
  known.crateId?.add(id)
  return view(id)
}

async function runOf(subject: BenchSubject, more: object = {}): Promise<RunView> {
  const { id } = await act<{ id: string }>('startRun', {}, {
    ...{ kind: 'acclimation', schoolKey: 'drip', agentId: null, tankId: subject.tank?.id ?? null, toOutside: null, isPooled: true, vessel: 'bucket', vesselL: 20, dropsPerMl: 20, isDark: false, sentence: null, predicted: null, happenedAtMs },
    sources: subject.sources.map(({ placeId, lotId, quantity }) => ({ placeId, lotId, quantity })),
    figures: Object.fromEntries(figureInputs.map(({ name }) => [name, subject.figures[name]?.value ?? null])),
    words: subject.words,
    ...more,
  })
  known.runId?.add(id)
  return (await room.get(`/api/bench/runs/${id}`)).body as RunView
}

/** A row of a list by its first use: every list has the same four writes. */
async function keepRow(register: string, values: object): Promise<string> {
  const name = capital(register)
  const { id } = await act<{ id: string }>(`add${name}`, {}, { values })
  await act(`edit${name}`, { id }, { version: 1, values })
  await act(`retire${name}`, { id }, { version: 2, isRetired: true })
  await act(`retire${name}`, { id }, { version: 3, isRetired: false })
  await act(`import${name}`, {}, { rows: [{ id, version: 4, values }] })
  return id
}
const emptyOf = (register: RegisterName, values: object): object => ({ ...Object.fromEntries(registers[register].fields.map(({ name, kind }) => [name, kind === 'choices' ? [] : null])), ...values })

test('who works here', async () => {
  oona = (await act<{ id: string }>('addStaff', {}, { name: 'Oona', role: 'keeper', pin: '2222', passphrase: null })).id
  const teodor = (await act<{ id: string }>('addStaff', {}, { name: 'Teodor', role: 'keeper', pin: '3333', passphrase: null })).id
  const person = async (): Promise<PersonView> => ((await request(room.app).get('/api/people').set({ Cookie: room.cookie, 'X-Recording': room.leadId })).body as { people: PersonView[] }).people.find(({ id }) => id === teodor) as PersonView
  await act('editStaff', { staffId: teodor }, { name: 'Teo', role: 'keeper', version: 1 })
  await act('resetPin', { staffId: teodor }, { pin: '4444' })
  await act('setPassphrase', { staffId: teodor }, { passphrase: 'a heron on the post' })
  await act('retireStaff', { staffId: teodor }, { isRetired: true, version: (await person()).version })
  const secret = `${newKey()}${newKey()}${newKey()}`.slice(0, 43)
  await act('makeCalendar', {}, { secret })
  await act('revokeCalendar', {}, {})
  services.notices.tell({ kind: 'disk', freeMb: 12 } as never, testNowMs)
  const { notices } = (await room.get('/api/session')).body as { notices: { id: string }[] }
  await act('seeNotice', { noticeId: notices[0]?.id ?? '' }, {})
})

test('a crate from its list to its claim', async () => {
  let crate = await crateOf(line('Cherry barb', 0, 12, 2), line('Honey gourami', 1), line('Nobody knows this fish', null))
  const { id: crateId } = crate
  const of = { crateId }
  await act('editCrate', of, { supplier: 'Pale Harbour Livestock', expectedAtMs: happenedAtMs, packedAtMs: happenedAtMs - 7_200_000, note: 'two boxes', version: crate.version, carrier: null })
  const { id: lineId } = await act<{ id: string }>('addLine', of, line('Kuhli loach', 2))
  await act('editLine', { ...of, lineId }, { ...line('Kuhli loach', 3), version: 1 })
  await act('removeLine', { ...of, lineId }, { version: 2 })
  await act('recordBox', of, { box: unseenBox, version: 1 })
  const { steps } = (await room.get(`/api/crates/${crateId}/preparation`)).body as { steps: { key: string }[] }
  await act('prepareStep', of, { step: steps[0]?.key, isDone: true })
  const [barbs, gouramis, unknown] = (await view(crateId)).lines
  const { version } = await act<{ version: number }>('chooseTank', { ...of, lineId: gouramis?.id ?? '' }, { tankId: tank(4), version: gouramis?.version })
  await act('chooseTanks', of, { choices: [{ lineId: gouramis?.id, tankId: tank(1), version }] })
  const bags = crate.bags.map(({ id }) => id)
  await act('recordBags', of, plainBag(bags.slice(0, 1), 6))
  await act('undoBags', of, { bagIds: bags.slice(0, 1), happenedAtMs })
  await act('recordBags', of, { ...plainBag(bags.slice(0, 2), 5), dead: 1 })
  await act('recordBags', of, plainBag(bags.slice(2), 3))
  await act('identifyLine', { ...of, lineId: barbs?.id ?? '' }, { species: 'Harlequin rasbora', identity: 'sure', strain: null, version: barbs?.version })
  await act('sayWater', {}, { lotIds: [unknown?.lotId], water: 'fresh' })
  const image = (await sharp({ create: { width: 8, height: 8, channels: 3, background: '#888' } }).png().toBuffer()).toString('base64')
  const { photoId } = await act<{ photoId: string }>('addPhoto', { ...of, bagId: bags[0] ?? '' }, { image, happenedAtMs })
  await act('removePhoto', { ...of, photoId }, { happenedAtMs })
  await act('placeBags', of, { tankId: tank(0), happenedAtMs })
  crate = await view(crateId)
  await act('undoPlacement', of, { placementKey: crate.lastPlacement?.key, happenedAtMs })
  await act('placeBags', of, { tankId: null, happenedAtMs })
  await act('editClaim', of, { state: 'sent', note: null, settledAmount: null, atMs: happenedAtMs, version: 0 })
  await act('closeCrate', of, { because: 'the rest went back', version: (await view(crateId)).version })
  await act('reopenCrate', of, { version: (await view(crateId)).version })
  const { id: unlisted } = await act<{ id: string }>('createCrate', {}, { supplier: 'Brackwater Nurseries', expectedAtMs: null, packedAtMs: null, lines: [], hasList: false })
  known.crateId?.add(unlisted)
  await act('addBag', { crateId: unlisted }, { ...plainBag([newKey()], 4), species: null })
  writeFileSync(join(mailboxFolder, 'list.csv'), 'species,count\nCherry barb,4\n')
  const { letters } = (await room.get('/api/mailbox')).body as { letters: { id: string }[] }
  await act('fileLetter', { letterId: letters[0]?.id ?? '' }, {})
})

test('fish in tanks, and looks at them', async () => {
  const { lotId } = await act<{ lotId: string }>('addFish', { tankId: tank(5) }, { species: 'Cherry barb', quantity: 9, how: 'brought-in', note: null, happenedAtMs })
  await act('moveFish', { tankId: tank(5) }, { lotId, quantity: 2, toTankId: tank(6), note: null, happenedAtMs })
  const { movementIds } = await act<{ movementIds: string[] }>('recordLoss', { tankId: tank(5) }, { lotId, quantity: 1, cause: 'jumped', note: null, happenedAtMs })
  await act('reverseMovement', { movementId: movementIds[0] ?? '' }, { reason: null, happenedAtMs })
  const { stock } = (await room.get(`/api/tanks/${room.tanks[5]?.code}`)).body as { stock: { speciesId: string }[] }
  await act('recordLoss', { tankId: tank(5) }, { lotId, quantity: 1, cause: 'not found', note: null, happenedAtMs })
  await act('findFish', { tankId: tank(5) }, { speciesId: stock[0]?.speciesId, strain: null, quantity: 1, happenedAtMs })
  await act('releaseFish', { tankId: tank(5) }, { lotId, quantity: 1, reason: 'sold', note: null, happenedAtMs })
  await act('correctCount', { tankId: tank(5) }, { lotId, expected: 6, counted: 5, reason: 'counted again', happenedAtMs })
  await act('recordCheck', {}, { ...quietCheck(tank(5)), ate: 'none', signs: ['chased'] })
  await act('recordCheck', {}, { ...quietCheck(tank(5)), signs: ['gasping'], happenedAtMs: happenedAtMs + 1 })
  const { id: decisionId } = await act<{ id: string }>('decideSign', { tankId: tank(5) }, { sign: 'gasping', lotId: null, decision: 'confirmed', days: null, note: null, happenedAtMs })
  await act('undoDecision', { decisionId }, {})
  const { id: choreId } = await act<{ id: string }>('askChore', {}, { tankId: tank(5), kind: 'part change', withinMin: 60, litresEach: 20, times: 1 })
  await act('endChore', { choreId }, { as: 'done' })
  const { id: foodId } = await act<{ id: string }>('addFoods', {}, { values: { name: 'Mysis', kind: 'frozen', thawMinutes: 60, pieceG: null, dryPercent: null, proteinPercent: null, mouths: [], outMinutes: null, servesAs: ['mysis'], note: null } })
  await act('changeFoodStock', { foodId }, { why: 'counted', pieces: 20 })
  const { id: orderId } = await act<{ id: string }>('orderFeeding', {}, { kind: 'every other day', lotId: null, tankId: tank(5), foodId: null, days: null, note: null })
  await act('endFeeding', { orderId }, {})
  const { id: tickId } = await act<{ id: string }>('tickKitchen', {}, { feedOn: new Date(happenedAtMs).toISOString().slice(0, 10), feedId: 'day', step: 'thaw', what: foodId, pieces: 2, happenedAtMs })
  await act('undoTick', { tickId }, {})
  const chore = { name: 'Change', kind: 'water change', rule: { kind: 'every', days: 3, weekdays: [], fish: null, earlyDays: 0 }, startOn: '2031-05-01', places: [{ id: 'a', tankId: tank(5), systemId: null, label: null, uses: [{ item: 'hose', count: 1 }], litres: 10, fromTankId: tank(0), fish: [] }], note: null, version: 0 }
  const { id: routineId } = await act<{ id: string }>('addChore', {}, chore)
  await act('changeSupplies', {}, { item: 'hose', why: 'counted', pieces: 3 })
  const { id: doneId } = await act<{ id: string }>('doChore', { choreId: routineId }, { placeId: 'a', happenedAtMs })
  await act('undoChore', { doneId }, {})
  await act('editChore', { choreId: routineId }, { ...chore, name: 'Change, small', version: 1 })
  await act('retireChore', { choreId: routineId }, { version: 2 })
  const probe = { name: 'P1', tankId: tank(5), measure: 'tempC', everyMin: 15, fault: 'none', version: 0 }
  const { id: probeId } = await act<{ id: string }>('addProbe', {}, probe)
  await act('pollProbes', {}, {})
  await act('editProbe', { probeId }, { ...probe, name: 'P2', version: 1 })
  await act('retireProbe', { probeId }, { version: 2 })
  const { id: wordId } = await act<{ id: string }>('leaveWord', {}, { words: 'heater of R1-02 is new' })
  await act('takeWordOff', { wordId }, {})
  await act('tickHandover', {}, { untilMs: happenedAtMs })
  const { id: roundId } = (await room.get('/api/rounds/today')).body as { id: string }
  await act('splitRound', { roundId }, { people: 2, happenedAtMs })
  await act('leaveRound', { roundId }, { happenedAtMs })
  await act('closeRound', { roundId }, { isClosed: true, happenedAtMs })
  await act('addFish', { tankId: tank(7) }, { species: 'Oscar', quantity: 1, how: 'brought-in', note: null, happenedAtMs })
  await request(room.app).post('/api/session/recording').set('Cookie', room.cookie).send({ staffId: oona, pin: '2222' })
  await act('moveFish', { tankId: tank(5) }, { lotId, quantity: 1, toTankId: tank(7), note: null, happenedAtMs, isRescue: true, override: 'its tank leaks' }, oona)
  const { rescues } = (await room.get('/api/today')).body as { rescues: { key: string }[] }
  await act('seeRescue', { key: rescues[0]?.key ?? '' }, {})
})

test('counting the room', async () => {
  const { id: stocktakeId } = await act<{ id: string }>('beginStocktake', {}, { kind: 'count', happenedAtMs })
  await act('countTank', { stocktakeId }, { tankId: tank(4), kinds: [{ species: 'Zebra danio', strain: null, counted: 7 }], source: null, happenedAtMs })
  await act('importCounts', { stocktakeId }, { csv: 'tank,species,count\nR1-04,Guppy,4', happenedAtMs })
  const { stocktake } = (await room.get('/api/stocktake')).body as { stocktake: StocktakeView }
  const parts = stocktake.differences.map(({ tankId, speciesId, strain, way, quantity, reason, toTankId }) => ({ tankId, speciesId, strain, way, quantity, reason, toTankId }))
  await act('bookStocktake', { stocktakeId }, { parts, happenedAtMs })
  await act('unbookStocktake', { stocktakeId }, { happenedAtMs })
  await act('dropStocktake', { stocktakeId }, { happenedAtMs })
})

test('a till’s list of sales', async () => {
  const { kinds } = (await room.get('/api/sales')).body as SalesView
  const kind = kinds[0] as KindForSale
  const row = { key: '["a"] 1', item: 'A12', on: '2031-05-04', count: 1, speciesId: kind.speciesId, strain: kind.strain, isAgain: false, parts: [{ tankId: kind.tanks[0]?.tankId, quantity: 1 }] }
  const { id } = await act<{ id: string }>('bookSales', {}, { rows: [row], heading: 'item|count', mapping: { item: 0, count: 1 }, heldBecause: 'they asked', happenedAtMs })
  await act('unbookSales', { saleId: id }, { happenedAtMs })
})

test('the bench', async () => {
  const opened = async (nth: number): Promise<{ crate: CrateView; subject: BenchSubject }> => {
    const crate = await crateOf(line('Cherry barb', nth))
    await act('recordBags', { crateId: crate.id }, { ...plainBag(crate.bags.map(({ id }) => id), 3), waterTempC: 22 })
    return { crate, subject: (await room.get(`/api/bench/subject?line=${crate.lines[0]?.id}`)).body as BenchSubject }
  }
  const at = (minutes: number): number => (room.clock.nowMs = happenedAtMs + minutes * 60_000)
  const run = await runOf((await opened(2)).subject)
  const of = { runId: run.id }
  await act('doStep', of, { stepIndex: 0, happenedAtMs: at(20) })
  await act('doStep', of, { stepIndex: 1, happenedAtMs: at(21) })
  await act('setFlow', of, { mlPerMin: 25, happenedAtMs: at(22) })
  await act('recordRunReading', of, { tempC: 23.5, salinityPpt: null, ph: null, tanMgL: null, isSimulated: false, happenedAtMs: at(23) })
  await act('setRunSwitch', of, { what: 'air', isOn: true, happenedAtMs: at(24) })
  await act('snoozeAlarm', of, { alarm: 'lid', happenedAtMs: at(25) })
  await act('noteRun', of, { note: 'calm', happenedAtMs: at(26) })
  const { events } = (await room.get(`/api/bench/runs/${run.id}`)).body as RunView
  await act('undoRunEvent', of, { eventId: events.at(-1)?.id, happenedAtMs: at(27) })
  await act('doStep', of, { stepIndex: 2, happenedAtMs: at(90) })
  await act('countOut', of, { stepIndex: 3, counts: [{ lotId: run.sources[0]?.lotId, alive: 6, dead: 0 }], tankId: null, look: 'as expected', cause: 'unknown', note: null, happenedAtMs: at(91) })
  const { rechecks } = (await room.get('/api/bench')).body as BenchView
  await act('doRecheck', { recheckId: rechecks[0]?.id ?? '' }, { look: 'worse', note: null, happenedAtMs: at(106) })
  await act('keepAirline', {}, { name: 'Blue', dropsPerMl: 18 })
  const stopped = await runOf((await opened(3)).subject)
  await act('stopRun', { runId: stopped.id }, { because: 'the pump failed', happenedAtMs: at(107) })
  const look = await runOf((await opened(3)).subject, { kind: 'look', schoolKey: 'look' })
  await act('decideLook', { runId: look.id }, { outcome: 'do not add', note: null, happenedAtMs: at(108) })
})

test('moves, what they leave behind, and what met', async () => {
  await request(room.app).post('/api/session/recording').set('Cookie', room.cookie).send({ staffId: room.leadId, pin: '4711' })
  const zones = await keepRow('toolSets', emptyOf('toolSets', { name: 'Blue nets' }))
  const [bucket, box] = [await keepRow('vessels', emptyOf('vessels', { name: 'Bucket', kind: 'bucket', litres: 20, air: 'yes' })), await keepRow('vessels', emptyOf('vessels', { name: 'Box', kind: 'box', litres: 3 }))]
  await room.addFish(room.tanks[6], 'Honey gourami', 6)
  await room.addFish(room.tanks[8], 'Honey gourami', 1)
  const { stock } = (await room.get(`/api/tanks/${room.tanks[6]?.code}`)).body as { stock: { lotId: string; speciesId: string }[] }
  const [{ lotId = '', speciesId = '' } = {}] = stock
  const here = { kind: 'tank', id: tank(6) }
  const fish = [{ speciesId, strain: null, quantity: 1 }]
  known.tankId?.add(tank(6))
  const list = JSON.stringify(fish.map((each) => ({ ...each, lotIds: [] })))
  Object.assign(asked, {
    readMoveCheck: { from: `tank:${tank(6)}`, to: `tank:${tank(8)}`, fish: list, tools: zones },
    readMoveChoices: { from: `tank:${tank(6)}`, fish: list },
    readCatch: { fish: list },
    readIntroductionPlan: { from: tank(6), to: tank(8), fish: list },
    readTrace: { start: `tank:${tank(6)}`, direction: 'forward' },
  })
  const move = (from: object, to: object, more: object = {}) => act<{ movementIds: string[] }>('moveTogether', {}, { from, to, fish, toolSetId: zones, waterGoesAlong: true, note: null, happenedAtMs, ...more })
  await move(here, { kind: 'vessel', id: bucket }, { fish: [{ ...fish[0], quantity: 2, chosen: [{ sex: 'male', mark: null }] }] })
  await act('loseInVessel', { vesselId: bucket }, { speciesId, strain: null, quantity: 1, cause: 'jumped', note: null, happenedAtMs })
  await move({ kind: 'vessel', id: bucket }, here)
  const { id: liftId } = await act<{ id: string }>('recordLift', { tankId: tank(6) }, { happenedAtMs })
  await act('undoLift', { liftId }, { happenedAtMs })
  const { id: fightId } = await act<{ id: string }>('recordFight', { tankId: tank(6) }, { speciesAId: speciesId, speciesBId: speciesId, harm: 'hurt', happenedAtMs })
  await act('undoFight', { fightId }, { happenedAtMs })
  await act('changeRoundLists', {}, { rules: '{"signs": [{"sign": "thin", "slight": 3}]}', version: 0 })
  await act('changeMoveRules', {}, { rules: '{"liftsPerDay": 3, "levels": {"group-small": "off"}}', version: 0 })

  const met = { kind: 'joined', fromTankId: tank(6), toTankId: tank(8), litres: null, note: null, happenedAtMs }
  const { id: joined } = await act<{ id: string }>('recordContact', {}, met)
  await act('endContact', { contactId: joined }, { happenedAtMs })
  await act('undoContact', { contactId: joined }, { happenedAtMs })
  await act('useTools', { toolSetId: zones }, { tankId: tank(8), isBreach: true, note: null, happenedAtMs })
  await act('beginBath', { toolSetId: zones }, { needMinutes: 10, agent: null, happenedAtMs })
  await act('endBath', { toolSetId: zones }, { happenedAtMs })
  await act('clearWater', { tankId: tank(9) }, { note: null, happenedAtMs })

  const { id } = await act<{ id: string }>('beginIntroduction', {}, { tankId: tank(8), fromTankId: tank(6), fish, hasMirror: false, hasDivider: false, dominants: [speciesId], happenedAtMs })
  known.introductionId?.add(id)
  const happened = (kind: string, more: object = {}) => act('recordIntroduction', { introductionId: id }, { kind, stepIndex: null, who: null, level: null, vesselId: null, toTankId: null, note: null, happenedAtMs, ...more })
  await happened('step', { stepIndex: 0 })
  await happened('in')
  await happened('look', { level: 'hurt', who: 'Honey gourami' })
  await happened('box', { who: 'Honey gourami', vesselId: box })
  await act('undoIntroduction', { introductionId: id }, { happenedAtMs })
  await act('endIntroduction', { introductionId: id }, { happenedAtMs })
  await act('renameLot', { lotId }, { species: 'Kuhli loach', strain: null, note: null, happenedAtMs })
})

test('moves that wait, and what hangs on tanks', async () => {
  await act('addFish', { tankId: tank(7) }, { species: 'Honey gourami', quantity: 6, how: 'brought-in', note: null, happenedAtMs })
  const { stock } = (await room.get(`/api/tanks/${room.tanks[7]?.code}`)).body as { stock: { speciesId: string; species: string }[] }
  const speciesId = stock.find(({ species }) => species === 'Honey gourami')?.speciesId ?? ''
  const planned = { fromTankId: tank(7), toTankId: tank(9), fish: [{ speciesId, strain: null, quantity: 6 }], join: 'any', takes: 'whole', untilOn: null, note: null }
  const { id: planId } = await act<{ id: string }>('makePlan', {}, { ...planned, facts: [{ is: 'thing', thing: 'caves', n: 2 }, { is: 'size', cm: 4 }] })
  await act('countThing', {}, { thing: 'caves', have: 2 })
  await act('countThing', {}, { thing: 'caves', have: 0 })
  await act('recordLength', { tankId: tank(7) }, { speciesId, strain: null, cm: 4.2, happenedAtMs })
  await act('moveTogether', {}, { from: { kind: 'tank', id: tank(7) }, to: { kind: 'tank', id: tank(9) }, fish: planned.fish, toolSetId: null, waterGoesAlong: false, planId, override: 'a test', note: null, happenedAtMs })
  await act('endPlan', { planId }, { as: 'open' })

  const { seq } = await act<{ seq: number }>('recordReading', { tankId: tank(7) }, { what: 'tempC', value: 24.5, instrument: null, happenedAtMs })
  await act('undoReading', { seq: String(seq) }, {})
  const { id: pinId } = await act<{ id: string }>('pinNote', { tankId: tank(7) }, { words: 'look behind the filter' })
  await act('unpinNote', { pinId }, {})
  const image = (await sharp({ create: { width: 8, height: 8, channels: 3, background: '#888' } }).png().toBuffer()).toString('base64')
  const { photoId } = await act<{ photoId: string }>('addTankPhoto', { tankId: tank(7) }, { image, happenedAtMs })
  await act('removeTankPhoto', { photoId }, {})

  const floor = (await room.get('/api/floor')).body as FloorView
  const [a, b] = floor.tanks
  const spot = ({ rack, shelf, position }: FloorTank) => ({ rack, shelf, position })
  if (!a || !b || !floor.racks[0]) throw new Error('there are no tanks')
  await act('arrangeTanks', {}, { tanks: [{ id: a.id, ...spot(b), version: a.version }, { id: b.id, ...spot(a), version: b.version }] })
  await act('arrangeRacks', {}, { racks: [{ rack: floor.racks[0].rack, perShelf: floor.racks[0].perShelf, version: floor.racks[0].version, shelves: floor.racks[0].shelves + 1, x: 3, y: 1, isTurned: true }] })
  await act('placeSinks', {}, { sinks: [{ x: 0, y: 4 }] })
})

test('holds: what people decide, end and change', async () => {
  room.clock.nowMs = happenedAtMs
  const crate = await crateOf(line('Cherry barb', 8), line('Honey gourami', 9))
  for (const { id } of crate.bags) await act('recordBags', { crateId: crate.id }, plainBag([id], 3))
  await act('placeBags', { crateId: crate.id }, { tankId: null, happenedAtMs })
  const { groups } = (await room.get('/api/holds')).body as HoldsView
  const of = (species: string) => groups.filter((group) => group.species === species && [tank(8), tank(9)].includes(group.placeId)).map(({ lotId, placeId }) => ({ lotId, placeId }))
  await act('recordCheck', {}, { ...quietCheck(tank(8)), roundNumber: 2, signs: ['spots'] })
  await act('decideHeldSign', {}, { tankId: tank(8), word: 'spots', decision: 'confirmed', note: null, happenedAtMs })
  const { id: contactId } = await act<{ id: string }>('recordContact', {}, { kind: 'splash', fromTankId: tank(8), toTankId: tank(9), litres: null, note: null, happenedAtMs })
  await act('decideBreach', { contactId }, { decision: 'dismissed', note: 'a dry drop' })
  await act('lengthenHold', {}, { fish: of('Honey gourami'), days: 3, reason: 'thin', happenedAtMs })
  await act('recordBody', {}, { tankId: tank(9), lotId: null, state: 'normal', happenedAtMs })
  const { ids } = await act<{ ids: string[] }>('endHolds', {}, { fish: of('Honey gourami'), reason: 'sold on', happenedAtMs })
  await act('undoHoldEntry', { entryId: ids[0] ?? '' }, {})
  const own = { id: 'house1', name: 'Four weeks', start: 'placed', phases: [{ id: 'watch', kind: 'watch', days: 28 }], onSign: null, onAddition: null, onTreatment: { back: 'watch' }, release: [], agents: [] }
  await act('saveHoldPolicy', { policyId: 'house1' }, { policy: JSON.stringify(own), version: 0 })
  await act('changeHold', {}, { fish: of('Honey gourami'), policyId: 'house1', phase: null, reason: 'our own', happenedAtMs })
  await act('saveHoldRules', {}, { rules: [{ policy: 'house1', water: 'fresh' }], version: 0 })
  await act('retireHoldPolicy', { policyId: 'house1' }, { isRetired: 1, version: 1 })
  const { groups: now } = (await room.get('/api/holds')).body as HoldsView
  const [barb, gourami] = ['Cherry barb', 'Honey gourami'].map((species) => now.find((group) => group.species === species && [tank(8), tank(9)].includes(group.placeId)))
  await act('moveFish', { tankId: tank(8) }, { lotId: barb?.lotId, quantity: 2, toTankId: tank(9), note: null, happenedAtMs, override: 'a pairing' })
  const { id: pairingId } = await act<{ id: string }>('startPairing', {}, { lotA: barb?.lotId, lotB: gourami?.lotId, tankId: tank(9), looksH: [24, 48], happenedAtMs })
  await act('endPairing', { pairingId }, { reason: 'fought', happenedAtMs })
  // Praziquantel goes into the water, and is out of it again.
  room.db.raw.prepare("INSERT INTO observation (kind, tank_id, word, value, staff_id, command_key, happened_at_ms, recorded_at_ms) VALUES ('dose', ?, 'praziquantel', 100, ?, 'k', ?, ?)").run([tank(9), room.leadId, happenedAtMs, happenedAtMs])
  await act('recordCleared', {}, { tankId: tank(9), agent: 'praziquantel', happenedAtMs })
})

test('regimens: what is put into a water, changed of it and done over days', async () => {
  room.clock.nowMs = happenedAtMs
  const own = { agent: 'praziquantel', strengthMgPerMl: 10, strengthBasis: 'as product', targetMgL: 2, targetBasis: 'as product' }
  const { id: productId } = await act<{ id: string }>('addAgents', {}, { values: productValues({ name: 'Own praziquantel', ...own }) })
  const { id: foodId } = await act<{ id: string }>('addFoods', {}, { values: emptyOf('foods', { name: 'Fleas with medicine', kind: 'frozen', servesAs: ['water fleas'] }) })
  const of = { tankId: tank(6) }
  await act('recordContents', of, { contents: ['binder'], binderUntilMs: happenedAtMs + 3_600_000 })
  await act('recordContents', of, { contents: [], binderUntilMs: null })
  await act('recordFound', of, { agent: 'salt', happenedAtMs })
  const begun = async (name: string, plan: object): Promise<string> => {
    const { id } = await act<{ id: string }>(name, {}, { tankId: tank(6), note: null, happenedAtMs, ...plan })
    known.regimenId?.add(id)
    return id
  }
  const course = { fromOn: '2031-05-04', days: 1, pauseDays: 6, times: 2, onSignDays: 0, mostDays: 0 }
  const { id: saltId } = await act<{ id: string }>('addAgents', {}, { values: productValues({ name: 'Own salt', agent: 'salt', activePercent: 100, strengthBasis: 'as product', targetMgL: 2000, targetBasis: 'as product' }) })
  const ladder = await begun('startLadder', { kind: 'ladder', productId: saltId, levelDays: 21 })
  await begun('startDoses', { kind: 'doses', productId, ...course })
  const feed = await begun('startMedicatedFeed', { kind: 'medicated feed', foodId, ...course })
  await begun('startTransfer', { kind: 'transfer', tankIds: [tank(6), tank(7)], transfers: 4, everyH: 72, lateH: 6, cleanDryH: 24 })
  const low = await begun('startLowSalinity', { kind: 'low salinity', startOn: '2031-05-04', lowPpt: 12, housePpt: 34, holdDays: 3, fallPerDay: 12, upPerDay: 8, downPpt: 0, upPpt: 40, evapLPerDay: 1 })
  const { id: doseId } = await act<{ id: string }>('recordDose', of, { productId, regimenId: ladder, given: 3, towardsMgL: 2, ticked: [], reason: null, isDone: true, happenedAtMs })
  await act('undoDose', { doseId }, {})
  const { id: changeId } = await act<{ id: string }>('recordWaterChange', of, { litres: 20, productId: null, mixMgL: null, salinityPpt: 0, regimenId: low, happenedAtMs })
  await act('undoWaterChange', { changeId }, {})
  await act('recordRegimenStep', { regimenId: feed }, { kind: 'feed', tankId: tank(6), happenedAtMs })
  for (const regimenId of known.regimenId ?? []) await act('endRegimen', { regimenId }, { reason: 'served', happenedAtMs })
})

test('outcomes: alarms, a trial and a sheet', async () => {
  room.clock.nowMs = happenedAtMs
  // Whoever stands there settles; then half of them die in a day.
  const added = await room.post(`/api/tanks/${tank(9)}/additions`, { species: 'Cherry barb', quantity: 60, how: 'brought-in', note: null, happenedAtMs })
  expect(added.body).toMatchObject({ lotId: expect.any(String) })
  await act('recordLoss', { tankId: tank(9) }, { lotId: added.body.lotId, quantity: 30, cause: 'found dead', note: null, happenedAtMs })
  const { alarms } = (await room.get('/api/outcomes/alarms')).body as AlarmsView
  await act('answerAlarm', {}, { stream: alarms.find(({ state }) => state === 'sudden')?.stream, found: 'heater stuck', outbreak: 'Heater in May' })
  const { outbreaks } = (await room.get('/api/outcomes/alarms')).body as AlarmsView
  await act('undoOutbreak', { outbreakId: outbreaks[0]?.id ?? '' }, {})
  const opened = async (): Promise<{ id: string; lotId: string }> => {
    const { body: made } = await room.post('/api/crates', { supplier: 'Hollow Reed Hatchery', expectedAtMs: null, packedAtMs: null, lines: [{ ...line('Cherry barb', 8, 10, 1), override: 'a test' }] })
    const { bags, lines } = await view(made.id as string)
    await room.post(`/api/crates/${made.id}/bags`, plainBag(bags.map(({ id }) => id), 10))
    await room.post(`/api/crates/${made.id}/placements`, { tankId: tank(8), override: 'a test', happenedAtMs })
    return { id: made.id as string, lotId: lines[0]?.lotId ?? '' }
  }
  await opened()
  const trial = { schoolA: 'Net-over', schoolB: 'Slow drip, still', suppliers: ['Hollow Reed Hatchery'], day: 1, looks: 1, lossPercentA: 5, lossPercentB: 80, note: null }
  const { id: trialId, cratesPerSchool } = await act<{ id: string; cratesPerSchool: number }>('startTrial', {}, trial)
  for (let each = 0; each < 2 * cratesPerSchool; each += 1) {
    const { id: crateId, lotId } = await opened()
    const body = { crateId, worstA: 0.4, worstB: 0.5, hasBinder: false }
    if (each > 0) expect((await room.post(`/api/outcomes/trials/${trialId}/crates`, body)).status).toBe(201)
    else {
      await act('takePart', { trialId }, body)
      await room.post(`/api/tanks/${tank(8)}/losses`, { lotId, quantity: 4, cause: 'found dead', note: null, happenedAtMs })
      await act('answerTrialPause', { trialId }, { crateId, words: 'a leaking bag' })
    }
  }
  room.clock.nowMs = happenedAtMs + 2 * 86_400_000
  await request(room.app).post('/api/session/recording').set('Cookie', room.cookie).send({ staffId: room.leadId, pin: '4711' })
  await act('takeTrialLook', { trialId }, {})
  const { id: second } = await act<{ id: string }>('startTrial', {}, trial)
  await act('endTrial', { trialId: second }, { because: 'nobody has the time' })
  await act('keepSheet', {}, { month: '2031-05' })
  room.clock.nowMs = happenedAtMs
})

test('what a lead keeps', async () => {
  await request(room.app).post('/api/session/recording').set('Cookie', room.cookie).send({ staffId: room.leadId, pin: '4711' })
  const zoneId = await keepRow('zones', emptyOf('zones', { name: 'Quarantine' }))
  await keepRow('toolSets', emptyOf('toolSets', { name: 'Red', zoneId }))
  const systemId = await keepRow('systems', emptyOf('systems', { name: 'Back rack', water: 'fresh' }))
  await keepRow('tanks', emptyOf('tanks', { code: 'B1-01', systemId, kind: 'glass', rack: 'B1', shelf: 1, position: 1 }))
  const supplierId = await keepRow('suppliers', emptyOf('suppliers', { name: 'Salt Mill Fish', claimWindowHours: 6 }))
  await keepRow('sources', emptyOf('sources', { name: 'The pond', supplierId, origin: 'pond raised' }))
  await keepRow('species', emptyOf('species', { name: 'Grey lampeye' }))
  await keepRow('foods', emptyOf('foods', { name: 'Copepods', kind: 'frozen' }))
  await keepRow('feeds', emptyOf('feeds', { name: 'morning feed', hour: 9, dayPercent: 60 }))
  await keepRow('agents', emptyOf('agents', { name: 'Methylene blue', strengthMgPerMl: 10, bathMgL: 2, bathMinutes: 20 }))
  await act('adoptSpecies', {}, { names: ['Royal gramma'] })
  // Rows that stand behind fish in the room.
  for (const [register, key] of [['species', 'Cherry barb'], ['suppliers', 'Hollow Reed Hatchery'], ['systems', 'Fresh sale rack'], ['tanks', 'R1-03']] as const) {
    const { rows } = (await room.get(`/api/setup/${register}`)).body as { rows: RegisterRow[] }
    const row = rows.find(({ values }) => Object.values(values)[0] === key || values.name === key || values.code === key)
    const changed = { species: { name: 'Barb of cherries' }, suppliers: { name: 'Hollow Reed' }, systems: { name: 'Front rack', tempC: 26 }, tanks: { code: 'R1-99' } }[register]
    await act(`edit${register.charAt(0).toUpperCase()}${register.slice(1)}`, { id: row?.id ?? '' }, { version: row?.version, values: { ...row?.values, ...changed } })
  }
  await act('addSystem', {}, { name: 'Third rack', water: 'marine', sharing: 'one water', sumpL: 100, rack: 'M1', tankCount: 2, perShelf: 2, tankKind: 'glass', netVolumeL: 60 })
  await act('changeLimit', { key: 'shopHoldDays' }, { value: 12, source: null, version: 0 })
  const school = { name: 'By the door', handsPerBagMin: 2, handsPerLotMin: 0, steps: [{ step: 'float', minutes: 20, times: null, share: null, handling: 'none' }, { step: 'transfer', minutes: null, times: null, share: null, handling: 'none' }] }
  const { id: schoolId } = await act<{ id: string }>('addSchool', {}, school)
  await act('editSchool', { schoolId }, { ...school, handsPerBagMin: 3, version: 1 })
  await act('chooseDefault', { situation: 'short' }, { schoolKey: schoolId, version: 0 })
  await act('chooseDefault', { situation: 'short' }, { schoolKey: null, version: 1 })
  await act('retireSchool', { schoolId }, { isRetired: true, version: 2 })
  const { roomVersion } = (await room.get('/api/session')).body as { roomVersion: number }
  await act('changeRoom', {}, { name: 'Lantern Quay', timeZone: 'Europe/Lisbon', temperatureUnit: '°F', volumeUnit: 'gal', salinityUnit: 'ppt', sgReference: '25/25', version: roomVersion })
})

test('devices; and then every write there is was done, and every read that changed was named', async () => {
  await request(room.app).post('/api/session').send({ name: 'Imre', passphrase: 'tide pool at dawn' })
  const { devices } = (await request(room.app).get('/api/devices').set({ Cookie: room.cookie, 'X-Recording': room.leadId })).body as { devices: DeviceView[] }
  await act('closeDevice', { sessionId: devices.find(({ isThisOne }) => !isThisOne)?.id ?? '' }, {})
  await act('closeAllDevices', {}, {})
  expect([...commands.keys()].filter((name) => !tried.has(name))).toEqual([])
  expect(missed).toEqual([])
})
