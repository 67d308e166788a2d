import { afterEach, beforeEach, describe, expect, test } from '@jest/globals'
import { Agent } from 'node:http'
import request, { type Response } from 'supertest'
import { createApp } from '../app'
import { openDatabase } from '../db/open'
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

  test('one first lead is made at a time, and whoever comes after is turned away before anything is hashed for them', async () => {
    const db = openDatabase(':memory:')
    const app = createApp({ db, now: () => testNowMs })
    const body = { name: 'Imre', passphrase: 'tide pool at dawn', pin: '4711', roomName: 'Room', timeZone: 'UTC' }
    const call = () => request(app).post('/api/session/first-lead').send(body)
    const together = await Promise.all([call(), call(), call()])
    expect(together.map(({ status }) => status).sort()).toEqual([201, 409, 409])
    expect(together.filter(({ body }) => /at this moment/.test(String(body.detail)))).toHaveLength(2)
    for (let tries = 2; tries < 10; tries += 1) expect((await call()).status).toBe(409)
    expect((await call()).body.code).toBe('too-many-tries')
    db.close()
  })

  test('signing in again ends what was open on that device, and other devices of that person if they wish', async () => {
    const cookieOf = (answer: Response): string => String(answer.headers['set-cookie']?.[0]).split(';')[0] ?? ''
    const isOpen = async (cookie: string): Promise<boolean> => (await request(room.app).get('/api/room').set('Cookie', cookie)).status === 200
    const first = cookieOf(await signIn('Imre', 'tide pool at dawn'))
    const second = cookieOf(await signIn('Imre', 'tide pool at dawn').set('Cookie', first))
    expect([await isOpen(first), await isOpen(second), await isOpen(room.cookie)]).toEqual([false, true, true])
    const third = cookieOf(await request(room.app).post('/api/session').send({ name: 'Imre', passphrase: 'tide pool at dawn', closesOthers: true }))
    expect([await isOpen(second), await isOpen(room.cookie), await isOpen(third)]).toEqual([false, false, true])
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

  test('a PIN is guessed ten times, from however many addresses: counted by device and by person', async () => {
    const oona = await addKeeper()
    const guess = (address: string, staffId: string, pin: string, cookie = room.cookie) => identify(staffId, pin, cookie).agent(new Agent({ localAddress: address }))
    for (let tried = 0; tried < 10; tried += 1) expect((await guess(`127.0.1.${tried + 1}`, oona, `900${tried}`)).status).toBe(422)
    // This device, for anybody; this person, on any device; whoever was not tried, elsewhere.
    expect((await guess('127.0.2.1', room.leadId, '4711')).body.code).toBe('too-many-tries')
    const other = String((await signIn('Imre', 'tide pool at dawn')).headers['set-cookie']?.[0]).split(';')[0] ?? ''
    expect((await guess('127.0.2.2', oona, '2222', other)).body.code).toBe('too-many-tries')
    expect((await guess('127.0.2.3', room.leadId, '4711', other)).status).toBe(200)
  })

  test('what a lead alone may do asks for the PIN again after ten minutes without it, a keeper’s work never', async () => {
    const [lead, tank] = [room.leadId, room.tanks[0]!.id]
    const asLead = (path: string, body?: object) => {
      const asked = (body ? request(room.app).post(path) : request(room.app).get(path)).set('Cookie', room.cookie).set('X-Recording', lead).set('Idempotency-Key', newKey())
      return body ? asked.send(body) : asked
    }
    const person = (name: string) => asLead('/api/staff', { name, role: 'keeper', pin: '2222', passphrase: null })
    for (const [minutes, name] of [[9, 'Oona'], [18, 'Teodor']] as const) {
      room.clock.nowMs = testNowMs + minutes * 60_000
      // Going on with it is as good as the PIN.
      expect((await person(name)).status).toBe(201)
    }
    room.clock.nowMs = testNowMs + 29 * 60_000
    expect([(await person('Ines')).body.code, (await asLead('/api/keeping/export')).body.code]).toEqual(['unidentified', 'unidentified'])
    expect((await room.get('/api/people')).status).toBe(403)
    expect([(await asLead('/api/people')).status, (await asLead('/api/checks', quietCheck(tank))).status]).toEqual([200, 201])
    await identify(lead, '4711')
    expect((await person('Ines')).status).toBe(201)
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

describe('people and devices', () => {
  const asLead = (path: string) => request(room.app).get(path).set('Cookie', room.cookie).set('X-Recording', room.leadId)
  const person = async (id: string) => (await asLead('/api/people')).body.people.find((each: { id: string }) => each.id === id)
  const cookieOf = (answer: { headers: Record<string, unknown> }): string => String((answer.headers['set-cookie'] as string[] | undefined)?.[0]).split(';')[0] ?? ''

  test('a new PIN is asked for on every device, the old one opens nothing more', async () => {
    const oona = await addKeeper()
    await identify(oona, '2222')
    expect((await room.post(`/api/staff/${oona}/pin`, { pin: '777777' })).status).toBe(201)
    expect((await room.post('/api/checks', quietCheck(room.tanks[0]!.id), { staffId: oona })).body.code).toBe('unidentified')
    expect((await identify(oona, '2222')).status).toBe(422)
    expect((await identify(oona, '777777')).status).toBe(200)
  })

  test('whoever is retired records nothing more, and comes back as they were; their entries keep their name', async () => {
    const oona = await addKeeper()
    await identify(oona, '2222')
    await room.post('/api/checks', quietCheck(room.tanks[0]!.id), { staffId: oona })
    expect((await room.post(`/api/staff/${oona}/retirement`, { isRetired: true, version: 1 })).status).toBe(201)
    expect((await room.post('/api/checks', quietCheck(room.tanks[0]!.id), { staffId: oona })).body.code).toBe('unidentified')
    expect((await identify(oona, '2222')).status).toBe(422)
    expect((await request(room.app).get('/api/staff').set('Cookie', room.cookie)).body.staff).toHaveLength(1)
    expect((await room.get('/api/tanks/R1-01')).body.timeline[0].staffName).toBe('Oona')
    await room.post(`/api/staff/${oona}/retirement`, { isRetired: false, version: 2 })
    expect((await identify(oona, '2222')).status).toBe(200)
  })

  test('the room is never without a lead who can open devices, and nobody retires themselves', async () => {
    expect((await room.post(`/api/staff/${room.leadId}/retirement`, { isRetired: true, version: 1 })).body.detail).toMatch(/Nobody retires themselves/)
    expect((await room.put(`/api/staff/${room.leadId}`, { name: 'Imre', role: 'keeper', version: 1 })).body.detail).toMatch(/last lead/)
    expect((await room.post(`/api/staff/${room.leadId}/passphrase`, { passphrase: null })).body.detail).toMatch(/last lead/)
    expect((await person(room.leadId))).toMatchObject({ role: 'lead', opensDevices: true, version: 1 })
  })

  test('a changed person is refused to whoever saw the old one, with what stands there now', async () => {
    const oona = await addKeeper()
    await room.put(`/api/staff/${oona}`, { name: 'Oona', role: 'lead', version: 1 })
    const stale = await room.put(`/api/staff/${oona}`, { name: 'Una', role: 'keeper', version: 1 })
    expect([stale.status, stale.body.current]).toEqual([409, expect.objectContaining({ name: 'Oona', role: 'lead', version: 2 })])
    expect(JSON.stringify(stale.body)).not.toMatch(/argon2/)
  })

  test('a device in other hands is closed from here; a new passphrase closes those that person opened', async () => {
    const other = cookieOf(await signIn('Imre', 'tide pool at dawn'))
    const { devices } = (await asLead('/api/devices')).body
    expect(devices).toHaveLength(2)
    const theirs = devices.find((device: { isThisOne: boolean }) => !device.isThisOne)
    await room.post(`/api/devices/${theirs.id}/closing`, {})
    expect((await request(room.app).get('/api/room').set('Cookie', other)).body.code).toBe('signed-out')
    expect((await room.post(`/api/devices/${theirs.id}/closing`, {})).status).toBe(404)

    const teodor = (await room.post('/api/staff', { name: 'Teodor', role: 'lead', pin: '3333', passphrase: 'lid on, fish jump' })).body.id
    const his = cookieOf(await signIn('Teodor', 'lid on, fish jump'))
    await room.post(`/api/staff/${teodor}/passphrase`, { passphrase: 'another one, longer' })
    expect((await request(room.app).get('/api/room').set('Cookie', his)).body.code).toBe('signed-out')
    await room.post('/api/devices/closing', {})
    expect((await room.get('/api/room')).body.code).toBe('signed-out')
  })

  test('a new passphrase of one’s own closes one’s other devices if wished, and never the one it is typed on', async () => {
    const other = cookieOf(await signIn('Imre', 'tide pool at dawn'))
    const isOpen = async (): Promise<boolean> => (await request(room.app).get('/api/room').set('Cookie', other)).status === 200
    await room.post(`/api/staff/${room.leadId}/passphrase`, { passphrase: 'ebb tide at noon', closesDevices: false })
    expect(await isOpen()).toBe(true)
    await room.post(`/api/staff/${room.leadId}/passphrase`, { passphrase: 'ebb tide at dusk', closesDevices: true })
    expect([await isOpen(), (await room.get('/api/room')).status]).toEqual([false, 200])
  })

  test('units and name of the room change for every device', async () => {
    const settings = { name: 'Lantern Quay Fishroom', timeZone: 'Europe/Lisbon', temperatureUnit: '°F', volumeUnit: 'gal', salinityUnit: 'SG', sgReference: '20/20', version: 1 }
    expect((await room.put('/api/room/settings', settings)).status).toBe(200)
    expect((await request(room.app).get('/api/session').set('Cookie', room.cookie)).body).toMatchObject({ roomName: 'Lantern Quay Fishroom', timeZone: 'Europe/Lisbon', units: { temperatureUnit: '°F', sgReference: '20/20' }, roomVersion: 2 })
    for (const change of [{ version: 1 }, { version: 2, timeZone: 'Moon/Crater' }, { version: 2, sgReference: '17/3' }]) expect([409, 422]).toContain((await room.put('/api/room/settings', { ...settings, ...change })).status)
  })
})
