import { afterEach, beforeEach, describe, expect, test } from '@jest/globals'
import request from 'supertest'
import { createApp, createServices } from '../app'
import { openDatabase } from '../db/open'
import type { Endpoint } from '../http/endpoint'
import { createTestRoom, newKey, quietCheck, testNowMs, type TestRoom } from '../testing/testRoom'

let room: TestRoom
beforeEach(async () => {
  room = await createTestRoom()
})
afterEach(() => room.db.close())

const signIn = (name: string, passphrase: string) => request(room.app).post('/api/session').send({ name, passphrase })
const identify = (staffId: string, pin: string, cookie = room.cookie) => request(room.app).post('/api/session/recording').set('Cookie', cookie).send({ staffId, pin })
const addKeeper = async (name = 'Oona'): Promise<string> => (await room.post('/api/staff', { name, role: 'keeper', pin: '2222', passphrase: null })).body.id

describe('opening a device', () => {
  test('the first start happens once', async () => {
    const db = openDatabase(':memory:')
    const app = createApp({ db, now: () => testNowMs })
    expect((await request(app).get('/api/session')).body).toMatchObject({ state: 'first-start', staff: [] })
    const body = { name: 'Imre', passphrase: 'tide pool at dawn', pin: '4711', roomName: 'Room', timeZone: 'Nowhere/Pond' }
    const wrong = await request(app).post('/api/session/first-lead').send(body)
    expect([wrong.status, wrong.body.errors]).toEqual([422, [{ path: 'timeZone', message: 'Time zone is not known here' }]])
    expect((await request(app).post('/api/session/first-lead').send({ ...body, timeZone: 'UTC' })).status).toBe(201)
    expect((await request(app).post('/api/session/first-lead').send({ ...body, timeZone: 'UTC' })).status).toBe(409)
    expect((await request(app).get('/api/session')).body.state).toBe('signed-out')
    db.close()
  })

  test('name and passphrase open it; the cookie is out of reach of scripts', async () => {
    const answer = await signIn('imre', 'tide pool at dawn')
    expect(answer.status).toBe(201)
    expect(answer.headers['set-cookie']?.[0]).toMatch(/^crate_session=[\w-]{43}; .*HttpOnly; SameSite=Strict$/)
    expect(answer.headers['set-cookie']?.[0]).not.toMatch(/Secure/)
    expect(answer.headers['strict-transport-security']).toBeUndefined()
    expect(answer.headers['content-security-policy']).not.toMatch(/upgrade-insecure/)
  })

  test('under TLS the cookie is Secure', async () => {
    const app = createApp({ db: room.db, now: () => testNowMs, isSecure: true })
    const answer = await request(app).post('/api/session').send({ name: 'Imre', passphrase: 'tide pool at dawn' })
    expect(answer.headers['set-cookie']?.[0]).toMatch(/Secure/)
    expect(answer.headers['strict-transport-security']).toBeDefined()
  })

  test('wrong tries say the same for a wrong name and a wrong passphrase, and are counted', async () => {
    await addKeeper()
    const tries = [await signIn('Imre', 'not the passphrase'), await signIn('Nobody', 'not the passphrase'), await signIn('Oona', '2222')]
    expect(new Set(tries.map((answer) => answer.body.detail)).size).toBe(1)
    for (let wrong = 3; wrong < 10; wrong += 1) await signIn('Imre', 'not the passphrase')
    const locked = await signIn('Imre', 'tide pool at dawn')
    expect([locked.status, locked.body.code]).toEqual([429, 'too-many-tries'])
  })

  test('a session ends after thirty days, and when the device is closed', async () => {
    room.clock.nowMs += 31 * 24 * 3_600_000
    expect((await room.get('/api/room')).status).toBe(401)
    room.clock.nowMs = testNowMs
    expect((await room.get('/api/room')).status).toBe(200)
    await request(room.app).delete('/api/session').set('Cookie', room.cookie)
    expect((await room.get('/api/room')).body.code).toBe('signed-out')
  })
})

describe('who is recording', () => {
  test('is known by PIN, per device, and stands on every entry', async () => {
    const oona = await addKeeper()
    expect((await room.post('/api/checks', quietCheck(room.tanks[0]!.id), { staffId: oona })).body.code).toBe('unidentified')
    expect((await identify(oona, '9999')).body.errors[0]).toEqual({ path: 'pin', message: 'That is not the PIN' })
    expect((await identify(oona, '2222')).body).toEqual({ id: oona, name: 'Oona', role: 'keeper' })
    expect((await room.post('/api/checks', quietCheck(room.tanks[0]!.id), { staffId: oona })).status).toBe(201)
    expect((await room.get('/api/tanks/R1-01')).body.timeline[0]).toMatchObject({ type: 'check', staffName: 'Oona' })
    const other = String((await signIn('Imre', 'tide pool at dawn')).headers['set-cookie']?.[0]).split(';')[0] ?? ''
    const elsewhere = await request(room.app).post('/api/checks').set('Cookie', other).set('X-Recording', oona).set('Idempotency-Key', newKey()).send(quietCheck(room.tanks[0]!.id))
    expect(elsewhere.body.code).toBe('unidentified')
  })

  test('PIN and passphrase leave no trace but their hashes', async () => {
    const key = newKey()
    const body = { name: 'Teodor', role: 'keeper', pin: '31415926', passphrase: 'lid on, fish jump' }
    expect((await room.post('/api/staff', body, { key })).status).toBe(201)
    expect((await room.post('/api/staff', { ...body, pin: '1111' }, { key })).status).toBe(201)
    const everything = JSON.stringify([room.db.raw.prepare('SELECT * FROM command').all(), room.db.raw.prepare('SELECT * FROM staff').all()])
    expect(everything).not.toMatch(/31415926|fish jump/)
  })
})

describe('denied unless allowed', () => {
  const address = ({ path }: Endpoint): string => path.replace(/:\w+/g, 'any')
  const call = (endpoint: Endpoint, headers: Record<string, string>) => request(room.app)[endpoint.method](address(endpoint)).set({ 'Idempotency-Key': newKey(), ...headers }).send()

  test('every route refuses a device that is not open, but for the few that open it', async () => {
    const { endpoints } = createServices({ db: room.db, now: () => testNowMs })
    const open: string[] = []
    for (const endpoint of endpoints) {
      const answer = await call(endpoint, {})
      if (answer.status !== 401) open.push(`${endpoint.method} ${endpoint.path}`)
    }
    expect(open).toEqual(['get /api/session', 'post /api/session/first-lead', 'post /api/session', 'delete /api/session'])
    expect((await request(room.app).get('/api/anything')).status).toBe(401)
  })

  test('what is for leads is refused to keepers, before the request is even read', async () => {
    const oona = await addKeeper()
    await identify(oona, '2222')
    const { endpoints } = createServices({ db: room.db, now: () => testNowMs })
    const forLeads = endpoints.filter((endpoint) => endpoint.access === 'lead')
    expect(forLeads.map(({ path }) => path)).toEqual(['/api/staff', '/api/systems'])
    for (const endpoint of forLeads) expect((await call(endpoint, { Cookie: room.cookie, 'X-Recording': oona })).body.code).toBe('not-allowed')
  })
})
