import { execFile } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { afterAll, expect, test } from '@jest/globals'
import { tries } from '../core/testing/tries'
import { openDatabase } from '../server/db/open'
import { checkLedger } from '../server/ledger/checkLedger'
import { createCommander } from './commander'
import { fishUnlikeTheBooks, heldRoomOf } from '../server/testing/heldRoomOf'
import { createServices } from '../server/services'
import type { Read } from '../server/http/endpoint'
import type { RegimensView } from '../core/regimens/regimenView'
import type { TodayView } from '../core/today/todayView'

const nowMs = Date.UTC(2031, 4, 4, 9, 10)
const dayMs = 86_400_000
/** Four months of a room take minutes to live through, and longer beside other tests. */
const historyMs = 1_200_000

const folder = mkdtempSync(join(tmpdir(), 'daily-crate-demo-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

async function demoAt(atMs: number, days: number) {
  const file = join(folder, `${atMs}-${days}.sqlite`)
  await promisify(execFile)(process.execPath, ['dist/server/makeDemo.js', file, String(atMs), String(days)])
  const db = openDatabase(file)
  const room = createCommander(db).room(atMs)
  return { db, room }
}

test('the demo room has four months of history in its full size, and its books are right', async () => {
  const { db, room } = await demoAt(nowMs, 120)
  expect(checkLedger(db).faults).toEqual([])
  // Four months of moves, pools, sales and vessels: holds count the fish that the books expect.
  const held = heldRoomOf(db, nowMs)
  expect([fishUnlikeTheBooks(db, held), held.waiting]).toEqual([[], []])
  expect([room.systems.length, room.tanks.length, new Set(room.systems.map(({ water }) => water)).size]).toEqual([9, 64, 3])
  const { species, suppliers } = db.raw.prepare('SELECT (SELECT count(DISTINCT species_id) FROM lot) AS species, (SELECT count(*) FROM supplier) AS suppliers').get() as { species: number; suppliers: number }
  expect([species >= 24, suppliers]).toEqual([true, 3])
  const span = db.raw.prepare('SELECT min(happened_at_ms) AS first, max(happened_at_ms) AS last FROM movement').get() as { first: number; last: number }
  expect(Math.round((nowMs - span.first) / dayMs)).toBe(121)
  expect(span.last).toBeLessThanOrEqual(nowMs)
  const kinds = (db.raw.prepare('SELECT DISTINCT kind FROM movement').all() as { kind: string }[]).map(({ kind }) => kind)
  expect(kinds.sort()).toEqual(['arrive', 'born', 'count-correction', 'dead-in-bag', 'loss', 'move', 'release', 'reversal'])
  const crates = db.raw.prepare('SELECT count(*) AS bags, count(r.id) AS opened FROM bag LEFT JOIN bag_record r ON r.bag_id = bag.id GROUP BY bag.crate_id ORDER BY opened').all() as { bags: number; opened: number }[]
  expect(crates.filter(({ opened }) => opened === 0)).toHaveLength(1)
  expect(crates.filter(({ bags, opened }) => opened > 0 && opened < bags)).toHaveLength(1)
  expect(room.tanks.some((tank) => tank.fish > 0 && !tank.isCheckedToday)).toBe(true)
  const { endpoints } = createServices({ db, now: () => nowMs })
  const ask = (path: string): unknown => endpoints.find((each): each is Read => each.kind === 'read' && each.path === path)?.read({ params: {}, query: {}, nowMs })
  const today = ask('/api/today') as TodayView
  // Nothing that is told of this morning hangs on whom chance ordered.
  const { running } = ask('/api/regimens') as RegimensView
  expect([running.map(({ title }) => title).sort(), running.filter(({ isAmiss }) => isAmiss)]).toEqual([['Copper, ionic, stepped', 'Copper, ionic, stepped', 'Low salinity', 'Tank transfer'], []])
  // Today has something true to show in every part.
  // A good morning: one trouble that has to be seen to, and nothing that is late.
  expect([today.runs.filter(({ isForgotten }) => isForgotten), today.rechecks, today.rescues, today.broken]).toEqual([[], [], [], []])
  const due = today.crates.find(({ openedCount }) => openedCount === 0)
  const steps = createCommander(db).preparation(due?.id ?? '', nowMs)
  expect([steps.length > 5, steps.filter(({ done }) => done !== null).length, steps.filter(({ dueAtMs, done }) => done === null && dueAtMs !== null && dueAtMs < nowMs).map(({ what }) => what)]).toEqual([true, 3, []])
  expect([today.crates.length, today.unchecked.length > 0, today.notEating.map(({ tankCode }) => tankCode), today.losses.length > 0, today.holds.length > 0]).toEqual([2, true, expect.arrayContaining(['H1-01']), true, true])
  db.close()
}, historyMs)

test('the same seed gives the same fish, whatever the day', async () => {
  const days = tries(30, 16)
  const [one, two] = [await demoAt(nowMs, days), await demoAt(nowMs + 100 * dayMs, days)]
  const fish = ({ room }: typeof one) => room.tanks.map(({ code, fish: count, mainSpecies }) => [code, count, mainSpecies])
  expect(fish(one)).toEqual(fish(two))
  for (const { db } of [one, two]) db.close()
})
