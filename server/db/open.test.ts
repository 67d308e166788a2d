import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { cpSync, mkdtempSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import BetterSqlite3 from 'better-sqlite3'
import { drizzle } from 'drizzle-orm/better-sqlite3'
import { migrate } from 'drizzle-orm/better-sqlite3/migrator'
import { createTestRoom, type TestRoom } from '../testing/testRoom'
import { openDatabase, type Database } from './open'
import { missingTriggers } from './triggers'

describe('binding', () => {
  const db = openDatabase(':memory:')
  afterAll(() => db.close())

  test.each([
    ['a boolean', true],
    ['a date', new Date(0)],
    ['an object', { a: 1 }],
    ['a nested list', [[1]]],
    ['a function', () => 1],
    ['a symbol', Symbol('x')],
    ['nothing', undefined],
    ['NaN', Number.NaN],
    ['Infinity', Number.POSITIVE_INFINITY],
    ['text with a zero byte', 'a\0b'],
  ])('%s is refused with an ordinary error, and the process lives', (_, value) => {
    for (const method of ['get', 'all', 'run'] as const) expect(() => db.raw.prepare('SELECT ?')[method](value)).toThrow(/cannot be bound/)
  })

  test.each([[null], [7], [2.5], [7n], ['text'], [new Uint8Array([1, 2])]])('%s goes in and comes out', (value) => {
    const row = db.raw.prepare('SELECT ? AS value').get(value) as { value: unknown }
    expect(Object.keys(row)).toEqual(['value'])
    expect(value instanceof Uint8Array ? new Uint8Array(row.value as Buffer) : row.value).toEqual(typeof value === 'bigint' ? 7 : value)
  })
})

describe('a transaction', () => {
  const count = (db: Database): number => (db.raw.prepare('SELECT count(*) AS n FROM supplier').get() as { n: number }).n
  const insert = (db: Database, id: string): void => void db.raw.prepare('INSERT INTO supplier (id, name) VALUES (?, ?)').run(id, id)

  test('is all or nothing, and refuses to wait for a promise', () => {
    const db = openDatabase(':memory:')
    db.transact(() => insert(db, 'a'))
    expect(() =>
      db.transact(() => {
        insert(db, 'b')
        throw new Error('stop')
      }),
    ).toThrow('stop')
    expect(() => db.transact(async () => insert(db, 'c'))).toThrow(/promise/)
    expect(count(db)).toBe(1)
    db.close()
  })

  test('has a version of its own: what was read while it stood is not taken for what holds once it is undone', () => {
    const db = openDatabase(':memory:')
    const [before, versions] = [db.version(), [] as string[]]
    expect(db.version()).toBe(before)
    const write = (id: string, end: () => void) => db.transact(() => (insert(db, id), versions.push(db.version()), end()))
    expect(() => write('a', () => { throw new Error('stop') })).toThrow('stop')
    versions.push(db.version())
    write('b', () => undefined)
    expect(db.version()).toBe(versions.at(-1))
    expect(new Set([before, ...versions]).size).toBe(4)
    db.close()
  })

  test('leaves what was read as it is when it is refused before it wrote', () => {
    const db = openDatabase(':memory:')
    insert(db, 'a')
    const before = db.version()
    expect(() => db.transact(() => { throw new Error('not there') })).toThrow('not there')
    expect(db.version()).toBe(before)
    db.close()
  })

  test('opening again keeps the data; triggers that were dropped are put back', () => {
    const file = join(mkdtempSync(join(tmpdir(), 'daily-crate-')), 'room.sqlite')
    const first = openDatabase(file)
    insert(first, 'a')
    first.raw.exec('DROP TRIGGER movement_never_deleted')
    expect(missingTriggers(first.raw)).toEqual(['movement_never_deleted'])
    first.close()
    const again = openDatabase(file)
    expect([count(again), missingTriggers(again.raw)]).toEqual([1, []])
    again.close()
  })

  test('opening waits for a program that holds the file for a moment, as one does that is just ending', async () => {
    const file = join(mkdtempSync(join(tmpdir(), 'daily-crate-')), 'room.sqlite')
    const holds = `const db = new (require('better-sqlite3'))(process.argv[1]); db.exec('PRAGMA journal_mode=WAL; PRAGMA locking_mode=EXCLUSIVE; BEGIN IMMEDIATE'); console.log('held'); setTimeout(() => process.exit(), 300)`
    await once(spawn(process.execPath, ['-e', holds, file]).stdout, 'data')
    expect(() => openDatabase(file).close()).not.toThrow()
  })

  test('a file that is no database is refused and left as it was', () => {
    const file = join(mkdtempSync(join(tmpdir(), 'daily-crate-')), 'room.sqlite')
    writeFileSync(file, 'this is a shopping list, not a database. '.repeat(100))
    expect(() => openDatabase(file)).toThrow()
    expect(readFileSync(file, 'utf8')).toContain('shopping list')
  })
})

describe('an update', () => {
  const [folder, newest] = [mkdtempSync(join(tmpdir(), 'daily-crate-')), 'SELECT max(created_at) AS atMs FROM __drizzle_migrations']
  const file = join(folder, 'room.sqlite')

  test('copies the database before its shape changes, and only then', () => {
    // As a version with fewer migrations left it.
    const earlier = join(folder, 'migrations')
    cpSync(join(__dirname, 'migrations'), earlier, { recursive: true })
    const journal = join(earlier, 'meta', '_journal.json')
    const { entries, ...rest } = JSON.parse(readFileSync(journal, 'utf8')) as { entries: object[] }
    writeFileSync(journal, JSON.stringify({ ...rest, entries: entries.slice(0, 10) }))
    const raw = new BetterSqlite3(file)
    migrate(drizzle(raw), { migrationsFolder: earlier })
    raw.close()
    expect(readdirSync(folder).filter((name) => name.startsWith('before-'))).toEqual([])
    openDatabase(file).close()
    const [copy, ...others] = readdirSync(folder).filter((name) => name.startsWith('before-'))
    expect([others, statSync(join(folder, String(copy))).mode & 0o777]).toEqual([[], 0o600])
    const before = new BetterSqlite3(join(folder, String(copy)))
    expect([before.prepare(`SELECT count(*) AS n FROM sqlite_master WHERE name = 'notice'`).all(), before.prepare(`SELECT count(*) AS n FROM sqlite_master WHERE name = 'movement'`).all()]).toEqual([[{ n: 0 }], [{ n: 1 }]])
    before.close()
    openDatabase(file).close()
    expect(readdirSync(folder).filter((name) => name.startsWith('before-'))).toEqual([copy])
  })

  test('an older program leaves the database of a newer one alone', () => {
    const db = openDatabase(file)
    db.raw.prepare('INSERT INTO __drizzle_migrations (hash, created_at) VALUES (?, ?)').run('of tomorrow', (db.raw.prepare(newest).get() as { atMs: number }).atMs + 1)
    db.close()
    expect(() => openDatabase(file)).toThrow(/A newer version of Daily Crate has kept this room/)
  })
})

describe('the database itself holds the ledger', () => {
  let room: TestRoom
  let lotId: string
  const columns = 'id, kind, lot_id, from_place_id, to_place_id, quantity, reverses_id, reason, staff_id, command_key, happened_at_ms, recorded_at_ms'
  const write = (values: { id?: string; kind: string; from: string; to: string; quantity: unknown; reverses?: string | null; reason?: string | null }, verb = 'INSERT') =>
    room.db.raw
      .prepare(`${verb} INTO movement (${columns}) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, 'k', 1, 1)`)
      .run(values.id ?? `m${Math.random()}`, values.kind, lotId, values.from, values.to, values.quantity, values.reverses ?? null, values.reason ?? null, room.leadId)
  const tank = (index: number): string => room.tanks[index]?.id ?? ''
  beforeAll(async () => {
    room = await createTestRoom()
    lotId = await room.addFish(room.tanks[0], 'Cherry barb', 10)
    write({ id: 'move', kind: 'move', from: tank(0), to: tank(1), quantity: 4 })
  })
  afterAll(() => room.db.close())

  test.each<[string, () => unknown, RegExp]>([
    ['a place below zero', () => write({ kind: 'move', from: tank(0), to: tank(2), quantity: 7 }), /below zero/],
    ['a place that never held the lot', () => write({ kind: 'loss', from: tank(3), to: 'outside', quantity: 1 }), /below zero/],
    ['no fish', () => write({ kind: 'move', from: tank(0), to: tank(1), quantity: 0 }), /movement_quantity/],
    ['fewer than no fish', () => write({ kind: 'move', from: tank(0), to: tank(1), quantity: -2 }), /movement_quantity/],
    ['half a fish', () => write({ kind: 'move', from: tank(0), to: tank(1), quantity: 1.5 }), /movement_quantity/],
    ['fish in words', () => write({ kind: 'move', from: tank(0), to: tank(1), quantity: 'two' }), /movement_quantity|below zero/],
    ['from a place to itself', () => write({ kind: 'move', from: tank(0), to: tank(0), quantity: 1 }), /movement_places/],
    ['an unknown place', () => write({ kind: 'move', from: tank(0), to: 'nowhere', quantity: 1 }), /FOREIGN KEY/],
    ['an unknown kind', () => write({ kind: 'teleport', from: tank(0), to: tank(1), quantity: 1 }), /movement_direction/],
    ['an arrival from inside', () => write({ kind: 'arrive', from: tank(0), to: tank(1), quantity: 1 }), /movement_direction/],
    ['a loss to another tank', () => write({ kind: 'loss', from: tank(0), to: tank(1), quantity: 1 }), /movement_direction/],
    ['a correction without a reason', () => write({ kind: 'count-correction', from: 'outside', to: tank(1), quantity: 1 }), /movement_direction/],
    ['a reversal of nothing', () => write({ kind: 'reversal', from: tank(1), to: tank(0), quantity: 4 }), /mirror/],
    ['a move that claims to reverse', () => write({ kind: 'move', from: tank(1), to: tank(0), quantity: 4, reverses: 'move' }), /movement_reversal/],
    ['a reversal of another quantity', () => write({ kind: 'reversal', from: tank(1), to: tank(0), quantity: 3, reverses: 'move' }), /mirror/],
    ['a reversal the same way round', () => write({ kind: 'reversal', from: tank(0), to: tank(1), quantity: 4, reverses: 'move' }), /mirror/],
    ['a changed movement', () => room.db.raw.prepare('UPDATE movement SET quantity = 5 WHERE id = ?').run('move'), /never changed/],
    ['a deleted movement', () => room.db.raw.prepare('DELETE FROM movement WHERE id = ?').run('move'), /never deleted/],
    ['a replaced movement', () => write({ id: 'move', kind: 'move', from: tank(0), to: tank(1), quantity: 1 }, 'INSERT OR REPLACE'), /never deleted/],
    ['a replaced row number', () => room.db.raw.prepare(`INSERT OR REPLACE INTO movement (seq, ${columns}) SELECT seq, 'x', kind, lot_id, from_place_id, to_place_id, 1, NULL, NULL, staff_id, 'k', 1, 1 FROM movement WHERE id = 'move'`).run(), /never deleted/],
    ['an upsert', () => room.db.raw.prepare(`INSERT INTO movement (${columns}) SELECT ${columns} FROM movement WHERE id = 'move' ON CONFLICT (id) DO UPDATE SET quantity = 9`).run(), /never changed|below zero/],
    ['a forgotten command', () => room.db.raw.prepare('DELETE FROM command').run(), /never deleted/],
  ])('%s is refused', (_, attempt, message) => {
    const before = room.db.raw.prepare('SELECT * FROM stock ORDER BY place_id').all()
    expect(attempt).toThrow(message)
    expect(room.db.raw.prepare('SELECT * FROM stock ORDER BY place_id').all()).toEqual(before)
    expect(room.faults()).toEqual([])
  })

  test('a reversal happens once and is not reversed itself', () => {
    write({ id: 'back', kind: 'reversal', from: tank(1), to: tank(0), quantity: 4, reverses: 'move' })
    expect(() => write({ kind: 'reversal', from: tank(1), to: tank(0), quantity: 4, reverses: 'move' })).toThrow()
    write({ kind: 'move', from: tank(0), to: tank(1), quantity: 4 })
    expect(() => write({ kind: 'reversal', from: tank(1), to: tank(0), quantity: 4, reverses: 'move' })).toThrow(/UNIQUE/)
    expect(() => write({ kind: 'reversal', from: tank(0), to: tank(1), quantity: 4, reverses: 'back' })).toThrow(/mirror/)
  })

  test('the check finds stock that was tampered with', () => {
    room.db.raw.exec('UPDATE stock SET quantity = quantity + 1')
    expect(room.faults().length).toBeGreaterThan(0)
    room.db.raw.exec('UPDATE stock SET quantity = quantity - 1')
    expect(room.faults()).toEqual([])
  })
})
