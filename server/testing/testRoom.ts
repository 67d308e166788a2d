import { randomBytes } from 'node:crypto'
import pino from 'pino'
import request, { type Response } from 'supertest'
import type { Sharing } from '../../core/room/room.schema'
import { createApp } from '../app'
import { openDatabase } from '../db/open'
import { checkLedger } from '../ledger/checkLedger'

export const testNowMs = Date.UTC(2031, 4, 4, 9, 0)
export const newKey = (): string => randomBytes(15).toString('base64url')

export interface TestTank {
  id: string
  code: string
}

/**
 * A room in memory behind the real app, spoken to over HTTP: one lead signed in and recording, one system of tanks.
 * The clock stands at `testNowMs` until a test moves it.
 */
export async function createTestRoom({ tankCount = 4, sharing = 'one water', file = ':memory:', photosFolder, mailboxFolder }: { tankCount?: number; sharing?: Sharing; file?: string; photosFolder?: string; mailboxFolder?: string } = {}) {
  const db = openDatabase(file)
  const clock = { nowMs: testNowMs }
  const app = createApp({ db, now: () => clock.nowMs, photosFolder, mailboxFolder, log: pino({ level: 'silent' }) })
  const signIn = await request(app).post('/api/session/first-lead').send({ name: 'Imre', passphrase: 'tide pool at dawn', pin: '4711', roomName: 'Lantern Quay', timeZone: 'UTC' })
  const cookie = String(signIn.headers['set-cookie']?.[0]).split(';')[0] ?? ''
  const session = await request(app).get('/api/session').set('Cookie', cookie)
  const leadId = String(session.body.staff[0].id)

  const get = (path: string): Promise<Response> => Promise.resolve(request(app).get(path).set('Cookie', cookie))
  const send = (method: 'post' | 'put', path: string, body: unknown, key: string, staffId: string) =>
    request(app)[method](path).set('Cookie', cookie).set('X-Recording', staffId).set('Idempotency-Key', key).set('Content-Type', 'application/json').send(JSON.stringify(body))
  /** Writes; the lead gives their PIN again where it is asked for, as a person would in a test that moves the clock. */
  async function write(method: 'post' | 'put', path: string, body: unknown, { key = newKey(), staffId = leadId } = {}): Promise<Response> {
    const answer = await send(method, path, body, key, staffId)
    if (staffId !== leadId || answer.body?.code !== 'unidentified') return answer
    await request(app).post('/api/session/recording').set('Cookie', cookie).send({ staffId, pin: '4711' })
    return send(method, path, body, key, staffId)
  }
  const post = (path: string, body: unknown, options?: { key?: string; staffId?: string }): Promise<Response> => write('post', path, body, options)
  const put = (path: string, body: unknown): Promise<Response> => write('put', path, body)

  const system = await post('/api/systems', { name: 'Fresh sale rack', water: 'fresh', sharing, sumpL: 420, rack: 'R1', tankCount, perShelf: 4, tankKind: 'glass', netVolumeL: 60 })
  const tanks = system.body.tanks as TestTank[]
  const happenedAtMs = testNowMs

  /** Takes in a crate of lines given as [species, count, bags, tank or null] and returns its view; `override` is the lead's reason for tanks that break a rule. */
  async function crateOf(lines: [string, number, number, TestTank | null][], override: string | null = null) {
    const created = await post('/api/crates', {
      supplier: 'Hollow Reed Hatchery',
      expectedAtMs: null,
      packedAtMs: null,
      lines: lines.map(([species, count, bags, tank]) => ({ species, count, bags, perBag: null, tankId: tank?.id ?? null, override })),
    })
    return (await get(`/api/crates/${created.body.id}`)).body
  }

  /** Fish of a species put into a tank without a crate; returns the lot. */
  const addFish = async (tank: TestTank | undefined, species: string, quantity: number): Promise<string> =>
    (await post(`/api/tanks/${tank?.id}/additions`, { species, quantity, how: 'brought-in', note: null, happenedAtMs })).body.lotId

  const stockIn = async (tank: TestTank | undefined): Promise<Record<string, number>> => {
    const view = await get(`/api/tanks/${tank?.code}`)
    return Object.fromEntries(view.body.stock.map((row: { lotId: string; quantity: number }) => [row.lotId, row.quantity]))
  }

  return { db, app, clock, cookie, leadId, tanks, systemId: String(system.body.systemId), happenedAtMs, get, post, put, crateOf, addFish, stockIn, faults: () => checkLedger(db).faults }
}
export type TestRoom = Awaited<ReturnType<typeof createTestRoom>>

/** The answers of a plain bag, for tests that change one of them. */
export const plainBag = (bagIds: string[], alive: number) => ({
  ...{ bagIds, alive, dead: 0, concerns: [] as string[], body: null as string | null, skinTempC: null as number | null },
  ...{ waterTempC: null as number | null, salinityPpt: null as number | null, note: null as string | null, happenedAtMs: testNowMs },
})

/** A quiet check, likewise. */
export const quietCheck = (tankId: string) => ({ tankId, roundNumber: 1, ate: 'all', signs: [] as string[], seen: null as number | null, note: null as string | null, replacesId: null as string | null, happenedAtMs: testNowMs })
