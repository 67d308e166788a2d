import { cpSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { makeDemo } from '../demo/makeDemo'
import { createServices } from '../server/services'
import { openDatabase, type Database } from '../server/db/open'
import type { Read } from '../server/http/endpoint'
import { figuresOf, report, timed } from './figures'
import { insertInto } from './insertInto'

const nowMs = Date.UTC(2031, 4, 4, 9)
const dayMs = 86_400_000
const [crates, checks, commands] = [1000, 200_000, 300_000]
const [rounds, warmUp] = [60, 10]
const aim = 1.3

/** Asks for every screen of the demo room, as it is and with years of history behind it, in turn; each time after somebody wrote something. */
export async function benchHistory(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'daily-crate-bench-'))
  const made = openDatabase(join(folder, 'young.sqlite'))
  made.raw.exec('PRAGMA synchronous=OFF')
  await makeDemo(made, nowMs, 'UTC')
  made.raw.exec('PRAGMA wal_checkpoint(TRUNCATE)')
  made.close()
  cpSync(join(folder, 'young.sqlite'), join(folder, 'old.sqlite'))
  const [young, old] = [openDatabase(join(folder, 'young.sqlite')), openDatabase(join(folder, 'old.sqlite'))]
  for (const db of [young, old]) db.raw.exec('PRAGMA synchronous=OFF')
  old.transact(() => addHistory(old))
  for (const [name, ask] of Object.entries(screensOf(young))) {
    const askOld = screensOf(old)[name] ?? ask
    const timings = { young: [] as number[], old: [] as number[] }
    for (let round = 0; round < rounds + warmUp; round += 1) {
      touch(young)
      touch(old)
      const [youngMs, oldMs] = [await timed(ask), await timed(askOld)]
      if (round < warmUp) continue
      timings.young.push(youngMs)
      timings.old.push(oldMs)
    }
    report(`${name} with ${crates.toLocaleString('en')} more crates, ${commands.toLocaleString('en')} commands and ${checks.toLocaleString('en')} checks`, 'the same without', figuresOf(timings.old), figuresOf(timings.young), aim)
  }
  young.close()
  old.close()
  rmSync(folder, { recursive: true, force: true })
}

/** Something is written: what was known of the room is read anew. */
const touch = ({ raw }: Database): void => void raw.exec('UPDATE room SET version = version')

function screensOf(db: Database): Record<string, () => unknown> {
  const { endpoints } = createServices({ db, now: () => nowMs })
  const read = (path: string, params: Record<string, string> = {}) => {
    const endpoint = endpoints.find((each): each is Read => each.kind === 'read' && each.path === path)
    if (!endpoint) throw new Error(`there is no ${path}`)
    return () => endpoint.read({ params, query: {}, nowMs })
  }
  const { id: crateId } = db.raw.prepare('SELECT id FROM crate WHERE closed_at_ms IS NULL ORDER BY number LIMIT 1').get() as { id: string }
  return { Today: read('/api/today'), Crates: read('/api/crates'), Crate: read('/api/crates/:crateId', { crateId }), Bench: read('/api/bench'), Room: read('/api/room'), Round: read('/api/rounds/today'), Tank: read('/api/tanks/:code', { code: 'R1-02' }), Audit: read('/api/audit'), 'What is due': read('/api/due') }
}

/** Years before the demo began: crates that came, were placed and sold, checks of every tank, commands. */
function addHistory({ raw }: Database): void {
  const insert = insertInto({ raw })
  const one = (sql: string): string => Object.values(raw.prepare(sql).get() as object)[0] as string
  const [staffId, speciesId, supplierId] = [one('SELECT id FROM staff LIMIT 1'), one('SELECT id FROM species LIMIT 1'), one('SELECT id FROM supplier LIMIT 1')]
  const tanks = (raw.prepare('SELECT id FROM tank ORDER BY code').all() as { id: string }[]).map(({ id }) => id)
  const beganMs = nowMs - 130 * dayMs
  const number = Number(one('SELECT max(number) FROM crate'))
  const [crate, lot, line] = [insert('crate', 'id, number, supplier_id, expected_at_ms, packed_at_ms, closed_at_ms, created_at_ms'), insert('lot', 'id, code, species_id, origin, created_at_ms'), insert('line', 'id, crate_id, position, count, lot_id, version')]
  const [place, bag, record] = [insert('place', 'id, kind'), insert('bag', 'id, line_id, crate_id, number, listed'), insert('bag_record', 'id, bag_id, alive, dead, concerns, staff_id, command_key, happened_at_ms, recorded_at_ms')]
  const movement = insert('movement', 'id, kind, lot_id, from_place_id, to_place_id, quantity, reason, staff_id, command_key, happened_at_ms, recorded_at_ms')
  for (let index = 0; index < crates; index += 1) {
    const atMs = beganMs - (crates - index) * dayMs
    crate(`hc${index}`, number + 1 + index, supplierId, atMs, atMs - dayMs, atMs + dayMs, atMs - dayMs)
    for (let lines = 0; lines < 3; lines += 1) {
      const lotId = `hl${index}-${lines}`
      lot(lotId, `${number + 1 + index}-h${lines}`, speciesId, 'bench', atMs)
      line(`h${lotId}`, `hc${index}`, lines + 1, 40, lotId, 1)
      const tankId = tanks[(index + lines) % tanks.length] ?? ''
      for (let bags = 0; bags < 5; bags += 1) {
        const bagId = `hb${index}-${lines}-${bags}`
        place(bagId, 'bag')
        bag(bagId, `h${lotId}`, `hc${index}`, lines * 5 + bags + 1, 8)
        record(`hr${bagId}`, bagId, 8, 0, '[]', staffId, `hk${index}`, atMs, atMs)
        movement(`ha${bagId}`, 'arrive', lotId, 'outside', bagId, 8, null, staffId, `hk${index}`, atMs, atMs)
        movement(`hm${bagId}`, 'move', lotId, bagId, tankId, 8, null, staffId, `hk${index}`, atMs, atMs)
        movement(`hs${bagId}`, 'release', lotId, tankId, 'outside', 8, 'sold', staffId, `hk${index}`, atMs + 20 * dayMs, atMs + 20 * dayMs)
      }
    }
  }
  const [check, observation, command] = [insert('check', 'id, tank_id, round_on, round_number, ate, signs, expected, staff_id, command_key, happened_at_ms, recorded_at_ms'), insert('observation', 'kind, tank_id, word, check_id, staff_id, command_key, happened_at_ms, recorded_at_ms'), insert('command', 'key, name, body_hash, status, answer, staff_id, recorded_at_ms')]
  for (let index = 0; index < checks; index += 1) {
    const atMs = beganMs - Math.floor(((checks - index) / tanks.length) * dayMs)
    const tankId = tanks[index % tanks.length] ?? ''
    check(`hq${index}`, tankId, new Date(atMs).toISOString().slice(0, 10), 1, 'all', '[]', 5, staffId, `hq${index}`, atMs, atMs)
    observation('ate', tankId, 'all', `hq${index}`, staffId, `hq${index}`, atMs, atMs)
  }
  for (let index = 0; index < commands; index += 1) command(`hist${index}`.padEnd(16, '-'), 'recordCheck', '-', 201, '{}', staffId, beganMs - (commands - index) * 1000)
}
