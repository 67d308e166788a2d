import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { createServices } from '../server/services'
import { openDatabase, type Database } from '../server/db/open'
import type { Read } from '../server/http/endpoint'
import { figuresOf, report, timed } from './figures'
import { insertInto } from './insertInto'

const nowMs = Date.UTC(2031, 4, 4, 9)
const dayMs = 86_400_000
const tankCount = 1000
/** Entries of a busy room in a day: a longer history has more days, not fuller ones. */
const perDay = 1400
/** Entries of a busy tank in a day. */
const perTankDay = 10
const runs = 200

/** Asks for the Room with a short and a very long history, in turn. */
export async function benchRoom(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'daily-crate-bench-'))
  const short = createRoom(openDatabase(join(folder, 'short.sqlite')), 10_000)
  const long = createRoom(openDatabase(join(folder, 'long.sqlite')), 1_000_000)
  const timings = { short: [] as number[], long: [] as number[] }
  for (let run = 0; run < runs + 10; run += 1) {
    const [shortMs, longMs] = [await timed(() => short('/api/room', {})), await timed(() => long('/api/room', {}))]
    if (run < 10) continue
    timings.short.push(shortMs)
    timings.long.push(longMs)
  }
  report('Room of 1,000 tanks with 1,000,000 movements', 'the same with 10,000 movements', figuresOf(timings.long), figuresOf(timings.short), 1.2)
  await benchPast(long)
  await benchTankPage(folder)
  rmSync(folder, { recursive: true, force: true })
}

/** The room as of random moments of a million movements, against the room now. */
async function benchPast(ask: Asked): Promise<void> {
  const [then, now]: [number[], number[]] = [[], []]
  const firstMs = await timed(() => ask('/api/room/then', { at: nowMs - dayMs, clock: 'happened' }))
  for (let run = 0; run < runs; run += 1) {
    // Spread over all of the history, in no order.
    const at = nowMs - ((run * 7919) % 700) * dayMs - 3_600_000
    then.push(await timed(() => ask('/api/room/then', { at, clock: run % 2 === 0 ? 'happened' : 'books' })))
    now.push(await timed(() => ask('/api/room', {})))
  }
  console.log(`\nAs of a moment, 1,000,000 movements: the first question ${firstMs.toFixed(0)} ms, once after a start`)
  report('The room as of a moment', 'the room now', figuresOf(then), figuresOf(now), 3)
}

/** The page of a tank with a long story against one with a short story. */
async function benchTankPage(folder: string): Promise<void> {
  const [long, short] = [50_000, 500].map((entries) => createRoom(openDatabase(join(folder, `tank${entries}.sqlite`)), entries, 1, perTankDay))
  const timings: [number[], number[]] = [[], []]
  const page = (ask: Asked): unknown => [ask('/api/tanks/:code', { entries: 40, only: null }), ask('/api/tanks/:code/history', { days: 14 })]
  for (let run = 0; run < runs + 10; run += 1) {
    const [longMs, shortMs] = [await timed(() => page(long!)), await timed(() => page(short!))]
    if (run < 10) continue
    timings[0].push(longMs)
    timings[1].push(shortMs)
  }
  report('Page of a tank with 50,000 entries', 'the same with 500 entries', figuresOf(timings[0]), figuresOf(timings[1]), 1.2)
}

/** Asks a question of a room. */
type Asked = (path: string, query: object) => unknown

/** Fills a database row by row (the triggers keep its stock) and returns what asks it. */
function createRoom(db: Database, movements: number, tanks = tankCount, aDay = perDay): Asked {
  db.raw.exec('PRAGMA synchronous=OFF')
  db.transact(() => fill(db, movements, tanks, aDay))
  const { endpoints } = createServices({ db, now: () => nowMs })
  const reads = new Map(endpoints.filter((each): each is Read => each.kind === 'read').map((each) => [each.path, each]))
  return (path, query) => {
    const asked = reads.get(path)
    if (!asked) throw new Error(`there is no ${path} to ask`)
    return asked.read({ params: { code: 'R0-0' }, query: query as Record<string, unknown>, nowMs })
  }
}

/** Writes a room of so many tanks and movements, row by row, so that the triggers keep its stock. */
export function fill({ raw }: Database, movements: number, tanks = tankCount, aDay = perDay): void {
  const insert = insertInto({ raw })
  insert('room', 'id, name, time_zone')(1, 'Bench', 'UTC')
  insert('staff', 'id, name, role, pin_hash, created_at_ms')('s', 'Imre', 'lead', '-', 0)
  insert('species', 'id, name, name_key, created_at_ms')('sp', 'Cherry barb', 'cherry barb', 0)
  insert('system', 'id, name, water')('sys', 'Rack', 'fresh')
  const [place, tank, lot] = [insert('place', 'id, kind'), insert('tank', 'id, code, kind, system_id, rack, shelf, position'), insert('lot', 'id, code, species_id, origin, created_at_ms')]
  const movement = insert('movement', 'id, kind, lot_id, from_place_id, to_place_id, quantity, reason, staff_id, command_key, happened_at_ms, recorded_at_ms')
  const check = insert('check', 'id, tank_id, round_on, round_number, ate, signs, expected, staff_id, command_key, happened_at_ms, recorded_at_ms')
  for (let index = 0; index < tanks; index += 1) {
    place(`t${index}`, 'tank')
    tank(`t${index}`, `R${Math.floor(index / 40)}-${index % 40}`, 'glass', 'sys', `R${Math.floor(index / 40)}`, Math.floor((index % 40) / 8), index % 8)
    lot(`l${index}`, `L${index}`, 'sp', 'bench', 0)
  }
  for (let index = 0; index < movements; index += 1) {
    const atMs = nowMs - Math.floor(((movements - index) / aDay) * dayMs)
    const [tankId, lotId] = [`t${index % tanks}`, `l${index % tanks}`]
    // Each tank: five come, then two are sold, one dies, one moves on; so stock stays a few fish a tank.
    const turn = Math.floor(index / tanks) % 4
    if (turn === 0) movement(`m${index}`, 'born', lotId, 'outside', tankId, 5, null, 's', 'k', atMs, atMs)
    else if (turn === 1) movement(`m${index}`, 'release', lotId, tankId, 'outside', 2, 'sold', 's', 'k', atMs, atMs)
    else if (turn === 2) movement(`m${index}`, 'loss', lotId, tankId, 'outside', 1, null, 's', 'k', atMs, atMs)
    else movement(`m${index}`, 'release', lotId, tankId, 'outside', 1, 'given', 's', 'k', atMs, atMs)
    if (index % 7 === 0) check(`c${index}`, tankId, new Date(atMs).toISOString().slice(0, 10), 1, 'all', '[]', 5, 's', 'k', atMs, atMs)
  }
}
