import { afterAll, beforeAll, expect, test } from '@jest/globals'
import request, { type Response } from 'supertest'
import { openDatabase } from '../db/open'
import { createTestRoom, newKey, quietCheck, type TestRoom } from '../testing/testRoom'
import { createAnswers } from './answers'

let room: TestRoom
beforeAll(async () => {
  room = await createTestRoom()
})
afterAll(() => room.db.close())

const ask = (path: string, tag = '', staffId = room.leadId): Promise<Response> => Promise.resolve(request(room.app).get(path).set({ Cookie: room.cookie, 'X-Recording': staffId, ...(tag ? { 'If-None-Match': tag } : {}) }))
const tagOf = async (path: string): Promise<string> => String((await ask(path)).headers.etag)

test.each(['/api/room', '/api/rounds/today', '/api/today', '/api/due', '/api/crates', '/api/setup/tanks', '/api/people'])('%s is answered again only when something was written, or its time is over', async (path) => {
  const tag = await tagOf(path)
  const [again, unknown] = [await ask(path, tag), await ask(path, '"of before"')]
  expect([again.status, again.text, again.headers.etag, unknown.status]).toEqual([304, '', tag, 200])
  await room.post('/api/checks', quietCheck(room.tanks[0]?.id ?? ''))
  const anew = await ask(path, tag)
  expect([anew.status, anew.headers.etag === tag]).toEqual([200, false])
})

test('what goes with the clock is asked for again as it goes on; what does not stands', async () => {
  const [today, tanks] = [await tagOf('/api/today'), await tagOf('/api/setup/tanks')]
  room.clock.nowMs += 60_000
  expect([(await ask('/api/today', today)).status, (await ask('/api/setup/tanks', tanks)).status]).toEqual([200, 304])
})

test('nobody is told that an answer stands who may not have it; what does not come from the books alone has no tag', async () => {
  const tag = await tagOf('/api/people')
  const { id } = (await room.post('/api/staff', { name: 'Oona', role: 'keeper', pin: '2222', passphrase: null })).body as { id: string }
  expect((await request(room.app).get('/api/people').set('If-None-Match', tag)).status).toBe(401)
  expect([(await ask('/api/people', tag, id)).status, (await ask('/api/mailbox')).headers.etag]).toEqual([403, undefined])
})

test('a person is never given what another was answered', async () => {
  const { id } = (await room.post('/api/staff', { name: 'Teodor', role: 'keeper', pin: '3333', passphrase: null })).body as { id: string }
  await request(room.app).post('/api/session/recording').set('Cookie', room.cookie).send({ staffId: id, pin: '3333' })
  await room.post('/api/calendar', { secret: `${newKey()}${newKey()}${newKey()}`.slice(0, 43) })
  expect([(await ask('/api/calendar')).body.sinceMs, (await ask('/api/calendar', '', id)).body.sinceMs]).toEqual([room.clock.nowMs, null])
})

test('an answer is made once for all who ask the same of the same books, and forgotten with them', () => {
  const db = openDatabase(':memory:')
  const answers = createAnswers(db.version)
  let made = 0
  const body = (address: string): string => answers.body(answers.tagAt(Infinity, 0), address, () => `${address} ${(made += 1)}`)
  expect([body('/a'), body('/a'), body('/b')]).toEqual(['/a 1', '/a 1', '/b 2'])
  db.raw.exec("INSERT INTO supplier (id, name) VALUES ('s', 'Hollow Reed')")
  expect(body('/a')).toBe('/a 3')
  // Another start of the program counts from the beginning; its tags are others all the same.
  expect(createAnswers(db.version).tagAt(Infinity, 0)).not.toBe(answers.tagAt(Infinity, 0))
  db.close()
})
