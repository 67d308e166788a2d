import { afterEach, beforeEach, expect, test } from '@jest/globals'
import request from 'supertest'
import type { AuditPage } from '../../core/audit/auditView'
import { houseLimitKeys, type LimitView } from '../../core/limits/houseLimits'
import { createTestRoom, type TestRoom } from '../testing/testRoom'

let room: TestRoom
beforeEach(async () => void (room = await createTestRoom()))
afterEach(() => room.db.close())

const asLead = <T>(path: string): Promise<T> => Promise.resolve(request(room.app).get(path).set('Cookie', room.cookie).set('X-Recording', room.leadId)).then(({ body }) => body as T)
const limit = async (key: string): Promise<LimitView> => ((await room.get('/api/house-limits')).body.limits as LimitView[]).find((each) => each.key === key) as LimitView

test('every limit has a standard until a lead changes it; then it says who, when and why', async () => {
  expect((await room.get('/api/house-limits')).body.limits).toHaveLength(houseLimitKeys.length)
  expect(await limit('tempRise')).toMatchObject({ value: 3, version: 0, changedBy: null })
  await room.put('/api/house-limits/tempRise', { value: 2.5, source: 'what we saw in May', version: 0 })
  expect(await limit('tempRise')).toEqual({ key: 'tempRise', value: 2.5, source: 'what we saw in May', version: 1, changedBy: 'Imre', changedAtMs: room.clock.nowMs })
  const stale = await room.put('/api/house-limits/tempRise', { value: 9, source: null, version: 0 })
  expect([stale.status, stale.body.current.value]).toEqual([409, 2.5])
})

test.each([
  ['tempRise', { value: 400, source: null, version: 0 }, 422],
  ['tempRise', { value: 'hot', source: null, version: 0 }, 422],
  ['tempRise', { value: null, source: null, version: 0 }, 422],
  ['moonPhase', { value: 1, source: null, version: 0 }, 404],
  ['toString', { value: 1, source: null, version: 0 }, 404],
])('limit %s does not take %j', async (key, body, status) => {
  expect((await room.put(`/api/house-limits/${key}`, body)).status).toBe(status)
})

test('no line of the audit is lost between pages, however many bear one moment', async () => {
  for (let nth = 0; nth < 230; nth += 1) await room.post(`/api/tanks/${room.tanks[0]?.id}/additions`, { species: 'Cherry barb', quantity: 1, how: 'born', note: null, happenedAtMs: room.clock.nowMs })
  const seen: AuditPage['lines'] = []
  for (let before: string | null = ''; before !== null; ) {
    const page: AuditPage = await asLead<AuditPage>(`/api/audit?before=${before}`)
    seen.push(...page.lines)
    before = page.before
  }
  const kept = room.db.raw.prepare('SELECT (SELECT count(*) FROM command) + (SELECT count(*) FROM audit_entry WHERE command_key IS NULL) AS n').get() as { n: number }
  expect([seen.length >= 230, seen.length, new Set(seen.map(({ id }) => id)).size]).toEqual([true, kept.n, kept.n])
})

test('the audit reads back page by page, by person, and holds no secret', async () => {
  const oona = (await room.post('/api/staff', { name: 'Oona', role: 'keeper', pin: '2222', passphrase: null })).body.id
  await request(room.app).post('/api/session/recording').set('Cookie', room.cookie).send({ staffId: oona, pin: '2222' })
  for (let nth = 0; nth < 120; nth += 1) {
    room.clock.nowMs += 1000
    await room.post(`/api/tanks/${room.tanks[0]?.id}/additions`, { species: 'Cherry barb', quantity: 1, how: 'born', note: null, happenedAtMs: room.clock.nowMs }, { staffId: nth % 3 === 0 ? oona : room.leadId })
  }
  await room.post(`/api/staff/${oona}/pin`, { pin: '98765432' })
  const first = await asLead<AuditPage>('/api/audit')
  const second = await asLead<AuditPage>(`/api/audit?before=${first.before}`)
  expect([first.lines.length, second.before]).toEqual([100, null])
  expect(new Set([...first.lines, ...second.lines].map(({ id }) => id)).size).toBe(first.lines.length + second.lines.length)
  expect((await asLead<AuditPage>(`/api/audit?staffId=${oona}`)).lines).toHaveLength(40)
  expect(JSON.stringify([first, second])).not.toContain('98765432')
})
