import { existsSync, mkdirSync, mkdtempSync, readFileSync, symlinkSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { createTestRoom, type TestRoom } from '../testing/testRoom'

const folder = mkdtempSync(join(tmpdir(), 'daily-crate-mailbox-'))
let room: TestRoom
beforeAll(async () => {
  room = await createTestRoom({ mailboxFolder: folder })
})
afterAll(() => room.db.close())

const letters = async (): Promise<{ id: string; name: string }[]> => (await room.get('/api/mailbox')).body.letters
const idOf = async (name: string): Promise<string> => (await letters()).find((letter) => letter.name === name)?.id ?? ''

test('an empty mailbox, then a list in it: its bytes as they are, put away once it is taken in', async () => {
  expect((await room.get('/api/mailbox')).body).toEqual({ letters: [], isSimulated: true })
  writeFileSync(join(folder, 'week 21.csv'), 'species,count,bags\nCherry barb,16,2\n')
  const id = await idOf('week 21.csv')
  const letter = await room.get(`/api/mailbox/${id}`)
  expect([letter.headers['content-type'], String(letter.body)]).toEqual(['application/octet-stream', 'species,count,bags\nCherry barb,16,2\n'])
  expect((await room.post(`/api/mailbox/${id}/filing`, {})).status).toBe(201)
  expect([await letters(), existsSync(join(folder, 'taken', 'week 21.csv'))]).toEqual([[], true])
  // A second device was a little later.
  expect((await room.post(`/api/mailbox/${id}/filing`, {})).status).toBe(201)
  expect((await room.get(`/api/mailbox/${id}`)).status).toBe(404)
})

test('a letter of the same name as one that was taken in is another letter, and neither takes the other’s place', async () => {
  const lists = ['species,count,bags\nCherry barb,16,2\n', 'species,count,bags\nHoney gourami,9,1\n']
  const ids: string[] = []
  for (const list of lists) {
    writeFileSync(join(folder, 'same name.csv'), list)
    ids.push(await idOf('same name.csv'))
    // Whoever still has the first one on screen puts nothing away that they have not read.
    if (ids.length === 2) await room.post(`/api/mailbox/${ids[0]}/filing`, {})
    expect((await letters()).map(({ name }) => name)).toEqual(['same name.csv'])
    await room.post(`/api/mailbox/${ids.at(-1)}/filing`, {})
  }
  expect(['same name.csv', 'same name (2).csv'].map((name) => readFileSync(join(folder, 'taken', name), 'utf8'))).toEqual(lists)
})

test('other files, folders and ways out of the folder are not there; what is too large is no list', async () => {
  writeFileSync(join(folder, 'list.csv'), 'species,count,bags\n')
  writeFileSync(join(folder, 'photo.png'), 'x')
  writeFileSync(join(folder, 'secret.txt'), 'x')
  mkdirSync(join(folder, 'folder.csv'))
  symlinkSync('/etc/hostname', join(folder, 'way-out.csv'))
  expect((await letters()).map(({ name }) => name)).toEqual(['list.csv'])
  writeFileSync(join(folder, 'huge.json'), 'x'.repeat(2_000_001))
  expect((await room.get(`/api/mailbox/${await idOf('huge.json')}`)).body.detail).toMatch(/larger than any packing list/)
})
