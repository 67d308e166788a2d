import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { createServices } from '../server/app'
import { openDatabase, type Database } from '../server/db/open'
import type { Read } from '../server/http/endpoint'
import { figuresOf, report, timed } from './figures'

const nowMs = Date.UTC(2031, 4, 4, 9)
const dayMs = 86_400_000
const tankCount = 1000
/** Entries of a busy room in a day: a longer history has more days, not fuller ones. */
const perDay = 1400
const runs = 200

/** Asks for the Room with a short and a very long history, in turn. */
export async function benchRoom(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'daily-crate-bench-'))
  const short = createRoom(openDatabase(join(folder, 'short.sqlite')), 10_000)
  const long = createRoom(openDatabase(join(folder, 'long.sqlite')), 1_000_000)
  const timings = { short: [] as number[], long: [] as number[] }
  for (let run = 0; run < runs + 10; run += 1) {
    const [shortMs, longMs] = [await timed(short), await timed(long)]
    if (run < 10) continue
    timings.short.push(shortMs)
    timings.long.push(longMs)
  }
  report('Room of 1,000 tanks with 1,000,000 movements', 'the same with 10,000 movements', figuresOf(timings.long), figuresOf(timings.short), 1.2)
  rmSync(folder, { recursive: true, force: true })
}

/** Fills a database row by row (the triggers keep its stock) and returns the query of the Room. */
function createRoom(db: Database, movements: number): () => unknown {
  db.raw.exec('PRAGMA synchronous=OFF')
  db.transact(() => fill(db, movements))
  const { endpoints } = createServices({ db, now: () => nowMs })
  const room = endpoints.find((endpoint): endpoint is Read => endpoint.kind === 'read' && endpoint.path === '/api/room')
  if (!room) throw new Error('there is no Room to ask')
  return () => room.read({ params: {}, query: {}, nowMs })
}

/** Writes a room of 1,000 tanks with so many movements, row by row, so that the triggers keep its stock. */
export function fill({ raw }: Database, movements: number): void {
  const insert = (table: string, columns: string) => {
    const statement = raw.prepare(`INSERT INTO "${table}" (${columns}) VALUES (${columns.split(',').map(() => '?').join(', ')})`)
    return (...values: (string | number | null)[]) => void statement.run(values)
  }
  insert('room', 'id, name, time_zone')(1, 'Bench', 'UTC')
  insert('staff', 'id, name, role, pin_hash, created_at_ms')('s', 'Imre', 'lead', '-', 0)
  insert('species', 'id, name, name_key, created_at_ms')('sp', 'Cherry barb', 'cherry barb', 0)
  insert('system', 'id, name, water')('sys', 'Rack', 'fresh')
  const [place, tank, lot] = [insert('place', 'id, kind'), insert('tank', 'id, code, kind, system_id, rack, shelf, position'), insert('lot', 'id, code, species_id, origin, created_at_ms')]
  const movement = insert('movement', 'id, kind, lot_id, from_place_id, to_place_id, quantity, reason, staff_id, command_key, happened_at_ms, recorded_at_ms')
  const check = insert('check', 'id, tank_id, round_on, round_number, ate, signs, expected, staff_id, command_key, happened_at_ms, recorded_at_ms')
  for (let index = 0; index < tankCount; index += 1) {
    place(`t${index}`, 'tank')
    tank(`t${index}`, `R${Math.floor(index / 40)}-${index % 40}`, 'glass', 'sys', `R${Math.floor(index / 40)}`, Math.floor((index % 40) / 8), index % 8)
    lot(`l${index}`, `L${index}`, 'sp', 'bench', 0)
  }
  for (let index = 0; index < movements; index += 1) {
    const atMs = nowMs - Math.floor(((movements - index) / perDay) * dayMs)
    const [tankId, lotId] = [`t${index % tankCount}`, `l${index % tankCount}`]
    // Each tank: five come, then two are sold, one dies, one moves on; so stock stays a few fish a tank.
    const turn = Math.floor(index / tankCount) % 4
    if (turn === 0) movement(`m${index}`, 'born', lotId, 'outside', tankId, 5, null, 's', 'k', atMs, atMs)
    else if (turn === 1) movement(`m${index}`, 'release', lotId, tankId, 'outside', 2, 'sold', 's', 'k', atMs, atMs)
    else if (turn === 2) movement(`m${index}`, 'loss', lotId, tankId, 'outside', 1, null, 's', 'k', atMs, atMs)
    else movement(`m${index}`, 'release', lotId, tankId, 'outside', 1, 'given', 's', 'k', atMs, atMs)
    if (index % 7 === 0) check(`c${index}`, tankId, new Date(atMs).toISOString().slice(0, 10), 1, 'all', '[]', 5, 's', 'k', atMs, atMs)
  }
}
