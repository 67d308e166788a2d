import { goneAfterDays, shippedAgents } from '../core/dosing/agents'
import { createClockReader } from '../core/holds/clockReader'
import { allGroups } from '../core/holds/holdRoom'
import { policiesById } from '../core/holds/shippedHolds'
import { openDatabase, type Database } from '../server/db/open'
import { createHeldHistoryStore } from '../server/holds/heldHistory.store'
import { createHeldMarkStore } from '../server/holds/heldMark.store'
import { createHeldRooms } from '../server/holds/heldRooms'
import { figuresOf, report, timed } from './figures'
import { insertInto } from './insertInto'

const nowMs = Date.UTC(2031, 4, 4, 9)
const [minuteMs, dayMs] = [60_000, 86_400_000]
const [tankCount, lotCount, systemCount] = [400, 2000, 10]
const [runs, warmUp, aim] = [80, 40, 1.3]

/** Clocks of a full house, all read after somebody looked at a tank: with five years of days behind them, and with a month. */
export async function benchHolds(): Promise<void> {
  const [long, short] = [heldHouse(5 * 365), heldHouse(30)]
  console.log(`\nHolds of ${tankCount} tanks and ${lotCount.toLocaleString('en')} lots: the first question ${(await timed(long)).toFixed(0)} ms with five years, ${(await timed(short)).toFixed(0)} ms with a month, once after a start`)
  const timings: [number[], number[]] = [[], []]
  for (let run = 0; run < runs + warmUp; run += 1) {
    const [longMs, shortMs] = [await timed(long), await timed(short)]
    if (run < warmUp) continue
    timings[0].push(longMs)
    timings[1].push(shortMs)
  }
  report('All clocks after a look, five years of events', 'the same with one month', figuresOf(timings[0]), figuresOf(timings[1]), aim)
}

/** A room of which every tank was looked at on each day; what is returned looks at one more and reads every clock. */
function heldHouse(days: number): () => number {
  const db = openDatabase(':memory:')
  db.transact(() => fill(db, days))
  const tanks = Object.fromEntries(Array.from({ length: tankCount }, (_, index) => [`t${index}`, `sys${index % systemCount}`]))
  const rules = { timeZone: 'UTC', tanks, policies: policiesById(), goneAfter: goneAfterDays(shippedAgents) }
  const rooms = createHeldRooms({ history: createHeldHistoryStore(db), marks: createHeldMarkStore(db), rules: () => rules, usual: () => null })
  const [look, read] = [inserts(db).check, createClockReader()]
  let atMs = nowMs
  return () => {
    atMs += minuteMs
    look(`late${atMs}`, `t${(atMs / minuteMs) % tankCount}`, '2031-05-04', 2, 'all', '[]', 20, 's', 'k', atMs, atMs)
    const room = rooms.at(atMs)
    return [...allGroups(room)].map((group) => read(room, group)).length
  }
}

function inserts({ raw }: Database) {
  const insert = insertInto({ raw })
  return {
    insert,
    check: insert('check', 'id, tank_id, round_on, round_number, ate, signs, expected, staff_id, command_key, happened_at_ms, recorded_at_ms'),
    movement: insert('movement', 'id, kind, lot_id, from_place_id, to_place_id, quantity, reason, staff_id, command_key, happened_at_ms, recorded_at_ms'),
  }
}

function fill(db: Database, days: number): void {
  const { insert, check, movement } = inserts(db)
  insert('room', 'id, name, time_zone')(1, 'Bench', 'UTC')
  insert('staff', 'id, name, role, pin_hash, created_at_ms')('s', 'Imre', 'lead', '-', 0)
  insert('species', 'id, name, name_key, created_at_ms')('sp', 'Cherry barb', 'cherry barb', 0)
  insert('hold_start', 'id, at_ms, carried_at_ms')(1, 0, 0)
  const [system, place, tank, lot] = [insert('system', 'id, name, water'), insert('place', 'id, kind'), insert('tank', 'id, code, kind, system_id, rack, shelf, position'), insert('lot', 'id, code, species_id, origin, created_at_ms')]
  for (let index = 0; index < systemCount; index += 1) system(`sys${index}`, `Rack ${index}`, 'fresh')
  for (let index = 0; index < tankCount; index += 1) {
    place(`t${index}`, 'tank')
    tank(`t${index}`, `R${Math.floor(index / 40)}-${index % 40}`, 'glass', `sys${index % systemCount}`, `R${Math.floor(index / 40)}`, Math.floor((index % 40) / 8), index % 8)
  }
  const beganMs = nowMs - days * dayMs
  const begin = insert('hold_begin', 'lot_id, policy_id, skipped, command_key, recorded_at_ms')
  for (let index = 0; index < lotCount; index += 1) {
    // Spread over all of the days, each lot through two tanks, some of it sold.
    const atMs = beganMs + Math.floor((index / lotCount) * (days - 1)) * dayMs
    const [from, to] = [`t${(index * 7) % tankCount}`, `t${(index * 11 + 3) % tankCount}`]
    lot(`l${index}`, `L${index}`, 'sp', 'bench', atMs)
    begin(`l${index}`, 'shopHold', '[]', 'k', atMs)
    movement(`a${index}`, 'arrive', `l${index}`, 'outside', from, 9, null, 's', 'k', atMs, atMs)
    if (from !== to) movement(`m${index}`, 'move', `l${index}`, from, to, 9, null, 's', 'k', atMs + 6 * 3_600_000, atMs)
    movement(`r${index}`, 'release', `l${index}`, from === to ? from : to, 'outside', 4, 'sold', 's', 'k', atMs + 12 * 3_600_000, atMs)
  }
  for (let day = 0; day < days; day += 1)
    for (let index = 0; index < tankCount; index += 1) {
      const atMs = beganMs + day * dayMs + index * minuteMs
      check(`c${day}-${index}`, `t${index}`, new Date(atMs).toISOString().slice(0, 10), 1, index % 9 === 0 ? 'most' : 'all', '[]', 20, 's', 'k', atMs, atMs)
    }
}
