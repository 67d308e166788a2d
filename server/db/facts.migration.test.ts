import { cpSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, expect, test } from '@jest/globals'
import BetterSqlite3 from 'better-sqlite3'
import { drizzle } from 'drizzle-orm/better-sqlite3'
import { migrate } from 'drizzle-orm/better-sqlite3/migrator'
import request from 'supertest'
import { createApp } from '../app'
import { checkLedger } from '../ledger/checkLedger'
import { createTestRoom, plainBag, quietCheck, testNowMs, type TestRoom } from '../testing/testRoom'
import { openDatabase } from './open'

// The version before had no stays and no observations. What it kept is made here by taking a room of today back to its shape.
const before = 12
const dayMs = 86_400_000
const folder = mkdtempSync(join(tmpdir(), 'daily-crate-'))
let room: TestRoom
afterAll(() => room.db.close())

/** A room in which fish were moved, lost, taken back and entered late, and checks corrected. */
async function lived(): Promise<void> {
  room = await createTestRoom()
  const crate = await room.crateOf([['Cherry barb', 12, 2, room.tanks[0] ?? null]])
  for (const bag of crate.bags) await room.post(`/api/crates/${crate.id}/bags`, plainBag([bag.id], 6))
  await room.post(`/api/crates/${crate.id}/placements`, { tankId: null, happenedAtMs: testNowMs })
  const lotId = crate.lines[0].lotId as string
  const move = async (from: number, to: number, quantity: number, happenedAtMs: number) => (await room.post(`/api/tanks/${room.tanks[from]?.id}/moves`, { lotId, quantity, toTankId: room.tanks[to]?.id, note: null, happenedAtMs })).body.movementIds[0] as string
  room.clock.nowMs += 3 * dayMs
  await move(0, 1, 5, testNowMs + dayMs)
  await room.post(`/api/movements/${await move(1, 2, 5, testNowMs + 2 * dayMs)}/reversal`, { reason: null, happenedAtMs: room.clock.nowMs })
  await move(0, 3, 7, testNowMs + 2 * dayMs)
  await room.addFish(room.tanks[0], 'Kuhli loach', 3)
  const check = async (change: object) => (await room.post('/api/checks', { ...quietCheck(room.tanks[0]?.id ?? ''), ...change })).body.id as string
  const wrong = await check({ ate: 'some', signs: ['spots', 'hiding'], seen: 3, note: 'thin', happenedAtMs: testNowMs + dayMs })
  await check({ ate: 'none', signs: ['hiding'], replacesId: wrong, happenedAtMs: testNowMs + dayMs })
  await check({ ate: 'all', happenedAtMs: testNowMs + 2 * dayMs })
}

/** Puts the rows of a room into a database as the version before kept it. */
function takenBack(file: string): void {
  const migrations = join(folder, 'migrations')
  cpSync(join(__dirname, 'migrations'), migrations, { recursive: true })
  const journal = join(migrations, 'meta', '_journal.json')
  const { entries, ...rest } = JSON.parse(readFileSync(journal, 'utf8')) as { entries: object[] }
  writeFileSync(journal, JSON.stringify({ ...rest, entries: entries.slice(0, before) }))
  const raw = new BetterSqlite3(file)
  migrate(drizzle(raw), { migrationsFolder: migrations })
  raw.exec('PRAGMA foreign_keys=OFF')
  const tables = (raw.prepare(`SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%' AND name NOT LIKE '\\_\\_%' ESCAPE '\\'`).all() as { name: string }[]).map(({ name }) => name)
  for (const table of tables) {
    // What a later version dropped had its default.
    const still = new Set((room.db.raw.prepare(`PRAGMA table_info("${table}")`).all() as { name: string }[]).map(({ name }) => name))
    const columns = (raw.prepare(`PRAGMA table_info("${table}")`).all() as { name: string }[]).filter(({ name }) => still.has(name)).map(({ name }) => `"${name}"`).join(', ')
    const rows = room.db.raw.prepare(`SELECT ${columns} FROM "${table}"`).raw().all() as unknown[][]
    for (const row of rows) raw.prepare(`INSERT INTO "${table}" (${columns}) VALUES (${row.map(() => '?').join(', ')})`).run(row)
  }
  raw.close()
}

test('a room of the version before keeps its stock and its timelines, gets its stays, and its checks are carried over', async () => {
  await lived()
  const file = join(folder, 'room.sqlite')
  takenBack(file)
  const db = openDatabase(file)
  const rows = (from: TestRoom['db'], sql: string) => from.raw.prepare(sql).all()
  for (const sql of [
    'SELECT place_id, lot_id, quantity, since_ms FROM stock ORDER BY 1, 2',
    'SELECT * FROM movement ORDER BY seq',
    'SELECT * FROM stay ORDER BY place_id, lot_id, from_ms, opened_by_id',
    'SELECT * FROM "check" ORDER BY id',
    `SELECT o.kind, o.tank_id, o.lot_id, o.word, o.severity, o.value, o.note, o.check_id, o.staff_id, o.command_key, o.happened_at_ms, o.recorded_at_ms, b.kind AS by_kind, b.check_id AS by_check
       FROM observation o LEFT JOIN observation b ON b.seq = o.replaced_by_seq ORDER BY o.check_id, o.kind, o.word`,
  ]) expect(rows(db, sql)).toEqual(rows(room.db, sql))
  expect(rows(db, 'SELECT kind, count(*) AS n, count(replaced_by_seq) AS replaced FROM observation GROUP BY kind ORDER BY kind')).toEqual([{ kind: 'ate', n: 3, replaced: 1 }, { kind: 'note', n: 1, replaced: 1 }, { kind: 'seen', n: 1, replaced: 1 }, { kind: 'sign', n: 3, replaced: 2 }])
  expect([checkLedger(db).faults, rows(db, `SELECT name FROM sqlite_master WHERE name = 'observation_carried'`)]).toEqual([[], []])

  const app = createApp({ db, now: () => room.clock.nowMs })
  for (const { code } of room.tanks) {
    const tank = await request(app).get(`/api/tanks/${code}`).set('Cookie', room.cookie)
    expect([tank.status, tank.body]).toEqual([200, (await room.get(`/api/tanks/${code}`)).body])
  }
  expect(readdirSync(folder).filter((name) => name.startsWith('before-'))).toHaveLength(1)
  db.close()
})
