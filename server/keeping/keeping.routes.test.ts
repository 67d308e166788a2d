import { execFile, spawn, type ChildProcess } from 'node:child_process'
import { closeSync, existsSync, mkdtempSync, openSync, readFileSync, readdirSync, rmSync, statSync, writeFileSync, writeSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import request from 'supertest'
import { openDatabase } from '../db/open'
import { checkLedger } from '../ledger/checkLedger'
import { createTestRoom, type TestRoom } from '../testing/testRoom'
import { restoreBackup } from './backup'
import { databaseIn } from './folder'

const root = mkdtempSync(join(tmpdir(), 'daily-crate-keep-'))
const folder = join(root, 'room')
let room: TestRoom
beforeAll(async () => {
  room = await createTestRoom({ file: databaseIn(folder) })
  await room.addFish(room.tanks[0], 'Cherry barb', 12)
})
afterAll(() => {
  room.db.close()
  rmSync(root, { recursive: true, force: true })
})

const asLead = (path: string) => request(room.app).get(path).set('Cookie', room.cookie).set('X-Recording', room.leadId)

describe('over HTTP', () => {
  test('what there is to keep', async () => {
    const { body } = await asLead('/api/keeping')
    expect(body).toMatchObject({ movements: 1, photos: 0 })
    expect([body.rows > 10, body.databaseBytes > 1000]).toEqual([true, true])
  })

  test('a backup comes as a file that restores; taking it stands in the audit', async () => {
    const answer = await asLead('/api/keeping/backup').buffer(true).parse((response, done) => {
      const parts: Buffer[] = []
      response.on('data', (part: Buffer) => parts.push(part))
      response.on('end', () => done(null, Buffer.concat(parts)))
    })
    expect([answer.status, answer.headers['content-disposition']]).toEqual([200, 'attachment; filename=daily-crate-2031-05-04T0900.tgz'])
    writeFileSync(join(root, 'from-http.tgz'), answer.body as Buffer)
    await restoreBackup(join(root, 'from-http.tgz'), join(root, 'from-http'), 0)
    const db = openDatabase(databaseIn(join(root, 'from-http')))
    expect(checkLedger(db)).toMatchObject({ movements: 1, faults: [] })
    db.close()
    expect((await asLead('/api/audit')).body.lines.map((line: { action: string }) => line.action)).toContain('backup')
  })

  test('everything comes as JSON, with the number of its rows ahead', async () => {
    const answer = await asLead('/api/keeping/export')
    expect([answer.headers['x-rows'], answer.type]).toEqual([String(answer.body.rows), 'application/json'])
    expect(answer.body.tables.lot).toHaveLength(1)
  })

  test('one copy is made at a time; the other is told, and the next one goes through', async () => {
    const answers = await Promise.all([asLead('/api/keeping/export'), asLead('/api/keeping/export'), asLead('/api/keeping/backup')])
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409, 409])
    expect((await asLead('/api/keeping/export')).status).toBe(200)
  })

  test('a room in memory has nothing to copy, and says so', async () => {
    const bare = await createTestRoom()
    const answer = await request(bare.app).get('/api/keeping/backup').set('Cookie', bare.cookie).set('X-Recording', bare.leadId)
    expect([answer.status, answer.body.detail]).toEqual([409, 'This room is kept in memory only'])
    bare.db.close()
  })
})

interface Ended {
  code: number
  said: string
}
const keep = (args: string[], data: string): Promise<Ended> =>
  new Promise((resolve) => {
    execFile(process.execPath, ['dist/server/keep.js', ...args], { env: { ...process.env, CRATE_DATA: data } }, (error, stdout, stderr) => resolve({ code: error ? Number(error.code) : 0, said: stdout + stderr }))
  })

describe('from the command line', () => {
  test('backup while the room runs, restore into another folder', async () => {
    const file = join(root, 'line.tgz')
    expect(await keep(['backup', file], folder)).toMatchObject({ code: 0, said: expect.stringContaining('The room is kept in') })
    expect(await keep(['restore', file], join(root, 'line'))).toMatchObject({ code: 0 })
    expect([existsSync(databaseIn(join(root, 'line'))), statSync(file).mode & 0o777]).toEqual([true, 0o600])
    // Whether it would, without touching any room.
    expect(await keep(['try', file], join(root, 'nowhere'))).toMatchObject({ code: 0, said: expect.stringMatching(/brings the room back: 1 movements, books right, \d/) })
    expect(existsSync(join(root, 'nowhere'))).toBe(false)
  })
  test('export and import, with progress', async () => {
    const [file, data] = [join(root, 'line.json'), join(root, 'line')]
    expect(await keep(['export', file], data)).toMatchObject({ code: 0, said: expect.stringMatching(/of \d+ rows \(100 %\)/) })
    expect(await keep(['import', file], join(root, 'again'))).toMatchObject({ code: 0, said: expect.stringMatching(/\d+ rows and 0 photos are in/) })
    expect(await keep(['import', file], join(root, 'again'))).toMatchObject({ code: 1, said: expect.stringContaining('There is a room in') })
  })
  test.each([
    [[], /Say what and which file/],
    [['backup'], /Say what and which file/],
    [['burn', 'x'], /Say what and which file/],
    [['restore', '/no/such/file.tgz'], /There is no file/],
    [['try', '/no/such/file.tgz'], /There is no file/],
    [['import', '/no/such/file.json'], /There is no file/],
  ])('%j ends with a sentence and nothing done', async (args, says) => {
    const data = join(root, `nothing-${args.join('-').replace(/\W/g, '')}`)
    const { code, said } = await keep(args, data)
    expect([code, said]).toEqual([1, expect.stringMatching(says)])
    expect(existsSync(data) ? readdirSync(data).filter((name) => name !== 'room.lock') : []).toEqual([])
  })
})

describe('starting', () => {
  const start = (env: Record<string, string>): { child: ChildProcess; first: Promise<Ended> } => {
    const child = spawn(process.execPath, ['dist/server/main.js'], { env: { ...process.env, CRATE_PORT: '0', CRATE_COPIES: 'off', ...env }, stdio: ['ignore', 'pipe', 'pipe'] })
    const first = new Promise<Ended>((resolve) => {
      let said = ''
      const hear = (part: Buffer): void => {
        said += String(part)
        if (said.includes('Daily Crate is at')) resolve({ code: -1, said })
      }
      child.stdout?.on('data', hear)
      child.stderr?.on('data', hear)
      child.once('exit', (code) => resolve({ code: code ?? -1, said }))
    })
    return { child, first }
  }

  test('a room whose database is damaged does not start, says what is wrong and how to go on', async () => {
    const data = join(root, 'damaged')
    await restoreBackup(join(root, 'line.tgz'), data, 0)
    const db = openDatabase(databaseIn(data))
    // A page of the index by which commands are found.
    const { page } = db.raw.prepare(`SELECT rootpage AS page FROM sqlite_master WHERE name = 'command_recorded'`).get() as { page: number }
    const { bytes } = db.raw.prepare('SELECT page_size AS bytes FROM pragma_page_size').get() as { bytes: number }
    db.raw.exec('PRAGMA wal_checkpoint(TRUNCATE)')
    db.close()
    const file = openSync(databaseIn(data), 'r+')
    writeSync(file, Buffer.alloc(200, 0x5a), 0, 200, (page - 1) * bytes + 8)
    closeSync(file)
    const refused = await start({ CRATE_DATA: data }).first
    expect(refused).toMatchObject({ code: 1, said: expect.stringMatching(/damaged[^]*npm run restore/) })
  }, 60_000)

  test('a second program on the same folder is refused in plain words', async () => {
    const data = join(root, 'line')
    const { takeFolder } = await import('./folder')
    const letGo = takeFolder(data)
    expect(await start({ CRATE_DATA: data }).first).toMatchObject({ code: 1, said: expect.stringContaining('Daily Crate is running on') })
    letGo()
  }, 60_000)
})

test('what lies in the folder after all of this is the room and its lock, no leftovers', () => {
  expect(readdirSync(folder).filter((name) => name.startsWith('.'))).toEqual([])
  expect(readFileSync(databaseIn(folder)).subarray(0, 15).toString()).toBe('SQLite format 3')
})
