import { execFileSync } from 'node:child_process'
import { createWriteStream, existsSync, mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync, statSync, symlinkSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import { create } from 'tar'
import { openDatabase, type Database } from '../db/open'
import { checkLedger } from '../ledger/checkLedger'
import { createTestRoom, plainBag, quietCheck, type TestRoom } from '../testing/testRoom'
import { makeBackup, restoreBackup } from './backup'
import { copiesIn, makeCopies, tryCopy } from './copies'
import { exportRoom } from './exportRoom'
import { databaseIn, photosIn, takeFolder } from './folder'
import { importRoom } from './importRoom'
import { columnsOf, exportedTables, leftOutTables } from './tables'
import { tries } from '../../core/testing/tries'

const root = mkdtempSync(join(tmpdir(), 'daily-crate-keeping-'))
const folder = join(root, 'room')
let room: TestRoom

/** A room with some of everything in its books. */
beforeAll(async () => {
  mkdirSync(photosIn(folder), { recursive: true })
  writeFileSync(join(photosIn(folder), 'bag-1.jpg'), Buffer.from([0xff, 0xd8, 0xff, 0, 7]))
  room = await createTestRoom({ file: databaseIn(folder) })
  await room.post('/api/setup/species/adoptions', { names: ['Kuhli loach', 'Royal gramma'] })
  await room.put('/api/house-limits/shopHoldDays', { value: 10, source: 'tried here', version: 0 })
  await room.post('/api/setup/zones', { values: { name: 'Ümlaut "zone", with\nnothing odd', note: '=1+1', sourcesRule: null } })
  const crate = await room.crateOf([['Cherry barb', 20, 3, room.tanks[0] ?? null], ['Kuhli loach', 6, 2, room.tanks[1] ?? null]])
  for (const bag of crate.bags) await room.post(`/api/crates/${crate.id}/bags`, { ...plainBag([bag.id], bag.listed), salinityPpt: 0.3 })
  await room.post(`/api/crates/${crate.id}/placements`, { tankId: null, happenedAtMs: room.happenedAtMs })
  await room.addFish(room.tanks[2], 'Honey gourami', 5)
  const check = (await room.post('/api/checks', quietCheck(room.tanks[0]?.id ?? ''))).body.id
  await room.post('/api/checks', { ...quietCheck(room.tanks[0]?.id ?? ''), ate: 'some', replacesId: check })
})
afterAll(() => {
  room.db.close()
  rmSync(root, { recursive: true, force: true })
})

const tableOf = (db: Database, table: string): unknown[] => db.raw.prepare(`SELECT * FROM "${table}" ORDER BY 1, 2`).all()
const writeExport = async (db: Database, file: string): Promise<void> => pipeline(Readable.from(exportRoom(db.raw, folder, 1)), createWriteStream(file))

describe('full export and import', () => {
  test('every table is either exported or left out for a reason', () => {
    const tables = (room.db.raw.prepare(`SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite%' AND name NOT LIKE '\\_\\_%' ESCAPE '\\'`).all() as { name: string }[]).map(({ name }) => name)
    expect(tables.sort()).toEqual([...exportedTables, ...leftOutTables].sort())
    // Types the import checks by: a column of another kind would slip past it.
    for (const table of exportedTables) for (const { name, type } of columnsOf(room.db.raw, table)) expect([table, name, ['INTEGER', 'REAL', 'TEXT']]).toEqual([table, name, expect.arrayContaining([type])])
  })

  test('export, import into an empty folder: equal tables, equal stock, photos too; valid JSON all through', async () => {
    const file = join(root, 'room.json')
    await writeExport(room.db, file)
    expect(JSON.parse(readFileSync(file, 'utf8'))).toMatchObject({ format: 'daily-crate/room', version: 1, tables: { room: [{ name: 'Lantern Quay' }] } })
    const target = join(root, 'imported')
    const seen: number[] = []
    expect((await importRoom(file, target, (done) => void seen.push(done))).photos).toBe(1)
    const db = openDatabase(databaseIn(target))
    for (const table of [...exportedTables, 'stock']) expect([table, tableOf(db, table)]).toEqual([table, tableOf(room.db, table)])
    expect([checkLedger(db).faults, readFileSync(join(photosIn(target), 'bag-1.jpg'))]).toEqual([[], readFileSync(join(photosIn(folder), 'bag-1.jpg'))])
    expect(seen.length).toBeGreaterThan(0)
    db.close()
    await expect(importRoom(file, target)).rejects.toThrow(/room in .* already/)
    expect(readdirSync(target).filter((name) => name.startsWith('.'))).toEqual([])
  })

  test('an export of a version that had fewer tables comes in', async () => {
    const [file, target] = [join(root, 'earlier.json'), join(root, 'earlier')]
    await writeExport(room.db, file)
    writeFileSync(file, readFileSync(file, 'utf8').replace(/"notice":\[\n(.*\n)*?\],\n|,\n"notice":\[(.*\n)*?\]|\],\n"notice":\[/, ''))
    expect(readFileSync(file, 'utf8')).not.toContain('"notice"')
    await importRoom(file, target)
    expect(existsSync(databaseIn(target))).toBe(true)
  })

  test('what somebody had typed of a water in an export of before was found there', async () => {
    const [file, target] = [join(root, 'typed.json'), join(root, 'typed')]
    await writeExport(room.db, file)
    writeFileSync(file, readFileSync(file, 'utf8').replace(/("name":"Fresh sale rack")/, '"agents":"[\\"copper\\",\\"medicine dyes\\"]",$1'))
    await importRoom(file, target)
    const db = openDatabase(databaseIn(target))
    expect(db.raw.prepare(`SELECT DISTINCT word FROM hold_entry WHERE kind = 'found' ORDER BY word`).all()).toEqual([{ word: 'copperIonic' }, { word: 'malachite green' }, { word: 'methyleneBlue' }])
    db.close()
  })

  const spoil: [what: string, change: (lines: string[]) => string[], says: RegExp][] = [
    ['of another program', () => ['{"hello":1}'], /Line 1: this is not a full export/],
    ['no JSON at all', () => ['PK\u0003\u0004'], /Line 1: this is not a full export/],
    ['of a later version', (lines) => [String(lines[0]).replace('"version":1', '"version":9'), ...lines.slice(1)], /version 9; this program reads version 1/],
    ['that was cut', (lines) => lines.slice(0, -6), /ends before its end/],
    ['cut inside a row', (lines) => lines.map((line) => (line.includes('"pin_hash"') ? line.slice(0, 40) : line)), /Line \d+: .*not a whole row/],
    ['with a row taken out', (lines) => lines.filter((line) => !line.includes('"kind":"tank"') || !line.endsWith(',')), /promises \d+ rows and holds \d+|cannot be taken in|not right/],
    ['with a table nobody knows', (lines) => lines.map((line) => line.replace('"zone":[', '"moon":[')), /no table moon here/],
    ['with a column nobody knows', (lines) => lines.map((line) => line.replace('"time_zone"', '"moon_phase"')), /no column moon_phase/],
    ['with text for a number', (lines) => lines.map((line) => line.replace(/"quantity":\d+/, '"quantity":"many"')), /quantity must be a whole number/],
    ['with fish from nowhere', (lines) => lines.map((line) => line.replace(/("kind":"move".*"quantity":)\d+/, '$1900')), /below zero/],
    ['with a role nobody has', (lines) => lines.map((line) => line.replace('"role":"lead"', '"role":"owner"')), /Line \d+: .*role must be one of keeper, lead, not owner/],
    ['with a water that is none', (lines) => lines.map((line) => line.replace(/("name":"Fresh sale rack".*"water":")fresh/, '$1salty')), /water must be one of/],
    ['with a line that never ends', (lines) => [...lines.slice(0, 4), 'x'.repeat(45_000_000)], /Line 5: this line is too long/],
    ['with a hold by a policy of nobody', (lines) => lines.map((line) => line.replace('"policy_id":"shopHold"', '"policy_id":"lunar"')), /there is no hold policy lunar/],
    ['with a photo that would leave its folder', (lines) => lines.map((line) => line.replace('bag-1.jpg', '../../bag-1.jpg')), /plain file name/],
  ]
  test.each(spoil)('a file %s is refused with its line, and nothing stands in the folder', async (_what, change, says) => {
    const good = join(root, 'good.json')
    await writeExport(room.db, good)
    const [bad, target] = [join(root, 'bad.json'), join(root, 'nothing')]
    writeFileSync(bad, change(readFileSync(good, 'utf8').split('\n')).join('\n'))
    await expect(importRoom(bad, target)).rejects.toThrow(says)
    expect(readdirSync(target)).toEqual([])
  })
})

describe('copies by themselves', () => {
  const copies = join(root, 'copies')
  const hourMs = 3_600_000
  const startMs = Date.UTC(2031, 4, 4, 0, 10)

  test('one an hour and one a day stay; pictures lie beside them once; the newest brings all of it back', async () => {
    for (let hour = 0; hour < 30; hour += 1) expect(await makeCopies(folder, copies, startMs + hour * hourMs)).toBe(hour % 24 === 0)
    expect(copiesIn(copies)).toMatchObject({ hours: 24, days: 2 })
    expect(readdirSync(copies).sort().filter((name) => name.startsWith('hour'))[0]).toBe('hour-2031-05-04T06.tgz')
    const target = join(root, 'from-copy')
    await restoreBackup(join(copies, 'hour-2031-05-05T05.tgz'), target, 0)
    expect([existsSync(databaseIn(target)), readFileSync(join(photosIn(target), 'bag-1.jpg'))]).toEqual([true, readFileSync(join(photosIn(folder), 'bag-1.jpg'))])
    expect(await tryCopy(join(copies, 'day-2031-05-05.tgz'), startMs)).toMatchObject({ name: 'day-2031-05-05.tgz', movements: checkLedger(room.db).movements })
    expect(readdirSync(copies).filter((name) => name.startsWith('.'))).toEqual([])
  })

  test('a copy whose books are not right is no trial: it is said, and tried again until one is', async () => {
    const [wrong, file] = [join(root, 'wrong'), join(root, 'wrong.tgz')]
    await restoreBackup(join(copies, 'day-2031-05-05.tgz'), wrong, 0)
    const db = openDatabase(databaseIn(wrong))
    db.raw.exec('UPDATE stock SET quantity = quantity + 1')
    db.close()
    await makeBackup(wrong, file)
    await expect(tryCopy(file, startMs)).rejects.toThrow(/books in this backup are not right .*movements come to/)
    const hidden = join(root, 'wrong-copies')
    const look = (atMs: number): string => execFileSync(process.execPath, ['dist/server/copiesMain.js', wrong, hidden, String(atMs)], { encoding: 'utf8' })
    for (const hour of [0, 1]) expect(look(startMs + hour * hourMs)).toMatch(/are not right/)
    const right = openDatabase(databaseIn(wrong))
    right.raw.exec('UPDATE stock SET quantity = quantity - 1')
    right.close()
    expect([look(startMs + 2 * hourMs), existsSync(join(hidden, 'trial.json'))]).toEqual(['', true])
  })

  test('of many days a month stays', async () => {
    for (let day = 0; day < 40; day += 1) writeFileSync(join(copies, `day-2030-${String(1 + Math.floor(day / 28)).padStart(2, '0')}-${String((day % 28) + 1).padStart(2, '0')}.tgz`), '')
    await makeCopies(folder, copies, startMs + 31 * hourMs)
    expect(readdirSync(copies).filter((name) => name.startsWith('day')).sort().slice(-3)).toEqual(['day-2030-02-12.tgz', 'day-2031-05-04.tgz', 'day-2031-05-05.tgz'])
    expect(readdirSync(copies).filter((name) => name.startsWith('day'))).toHaveLength(30)
  })
})

test('what a take-in that was cut off left behind is cleared away by whoever takes the folder next', () => {
  const target = join(root, 'cut-off')
  for (const scratch of ['.import-x', '.restore-x']) mkdirSync(join(target, scratch), { recursive: true })
  takeFolder(target)()
  expect(readdirSync(target)).toEqual(['room.lock'])
})

test('what holds a room is for the account that runs it alone, from before too', () => {
  const target = join(root, 'private')
  mkdirSync(photosIn(target), { recursive: true, mode: 0o755 })
  writeFileSync(databaseIn(target), '', { mode: 0o644 })
  const letGo = takeFolder(target)
  writeFileSync(join(photosIn(target), 'new.jpg'), '')
  const modeOf = (file: string): string => (statSync(file).mode & 0o777).toString(8)
  expect([databaseIn(target), join(target, 'room.lock'), photosIn(target), join(photosIn(target), 'new.jpg')].map(modeOf)).toEqual(['600', '600', '700', '600'])
  letGo()
})

describe('backup', () => {
  test('backups in the middle of a write storm: each restores to right books that hold all that was acknowledged before it', async () => {
    let isStorming = true
    let acknowledged = 0
    const storm = Array.from({ length: 4 }, async () => {
      while (isStorming) {
        await room.addFish(room.tanks[3], 'Honey gourami', 1)
        acknowledged += 1
      }
    })
    for (let nth = 0; nth < tries(20, 6); nth += 1) {
      const before = acknowledged
      const [file, target] = [join(root, `backup-${nth}.tgz`), join(root, `restored-${nth}`)]
      await makeBackup(folder, file)
      await restoreBackup(file, target, 0)
      const db = openDatabase(databaseIn(target))
      const fish = (db.raw.prepare(`SELECT coalesce(sum(quantity), 0) AS n FROM stock WHERE place_id = ?`).get(room.tanks[3]?.id) as { n: number }).n
      expect([checkLedger(db).faults, fish >= before, existsSync(join(photosIn(target), 'bag-1.jpg'))]).toEqual([[], true, true])
      db.close()
    }
    isStorming = false
    await Promise.all(storm)
    expect(acknowledged).toBeGreaterThan(20)
  }, 600_000)

  test('what stood there before is set aside, not deleted', async () => {
    const [file, target] = [join(root, 'aside.tgz'), join(root, 'aside')]
    await makeBackup(folder, file)
    await restoreBackup(file, target, 0)
    const aside = await restoreBackup(file, target, Date.UTC(2031, 4, 4))
    expect(aside).toMatch(/before-2031-05-04T00-00-00-000Z$/)
    expect(readdirSync(String(aside)).sort()).toEqual(expect.arrayContaining(['photos', 'room.sqlite']))
  })

  test('a file that is no backup leaves the room as it was', async () => {
    const target = join(root, 'untouched')
    mkdirSync(target)
    writeFileSync(databaseIn(target), 'stand-in')
    writeFileSync(join(root, 'no.tgz'), 'plain text')
    mkdirSync(join(root, 'other'))
    writeFileSync(join(root, 'other', 'room.sqlite'), 'x')
    await create({ gzip: true, file: join(root, 'other.tgz'), cwd: join(root, 'other') }, ['room.sqlite'])
    // A picture that is a link, soft or hard.
    mkdirSync(join(root, 'linked', 'photos'), { recursive: true })
    writeFileSync(join(root, 'linked', 'daily-crate.txt'), 'daily-crate/backup 1\n')
    writeFileSync(join(root, 'linked', 'room.sqlite'), 'x')
    symlinkSync('/etc/passwd', join(root, 'linked', 'photos', 'bag.jpg'))
    await create({ gzip: true, file: join(root, 'linked.tgz'), cwd: join(root, 'linked') }, ['daily-crate.txt', 'room.sqlite', 'photos/bag.jpg'])
    await expect(restoreBackup(join(root, 'linked.tgz'), target, 0)).rejects.toThrow(/holds a link \(photos\/bag.jpg\)/)
    for (const [file, says] of [['no.tgz', /not a backup/], ['other.tgz', /not a backup/], ['missing.tgz', /no file/]] as const) await expect(restoreBackup(join(root, file), target, 0)).rejects.toThrow(says)
    expect([readdirSync(target), readFileSync(databaseIn(target), 'utf8')]).toEqual([['room.sqlite'], 'stand-in'])
  })
})

test('a folder has one program at a time', () => {
  const letGo = takeFolder(join(root, 'locked'))
  expect(() => takeFolder(join(root, 'locked'))).toThrow(/running on .* already/)
  letGo()
  takeFolder(join(root, 'locked'))()
})
