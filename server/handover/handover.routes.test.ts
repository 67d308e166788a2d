import request from 'supertest'
import { afterEach, beforeEach, expect, test } from '@jest/globals'
import type { HandoverDue, HandoverView } from '../../core/handover/handoverView'
import { lastHere } from '../../core/handover/lastHere'
import { createTestRoom, quietCheck, type TestRoom } from '../testing/testRoom'

// Two people, one after the other: what the late one did is what the morning one reads, once.
const [minuteMs, hourMs, dayMs] = [60_000, 3_600_000, 86_400_000]
let room: TestRoom
let oona = ''
beforeEach(async () => {
  room = await createTestRoom({ tankCount: 4, sharing: 'each its own' })
  await room.post('/api/staff', { name: 'Oona', role: 'keeper', pin: '2222', passphrase: null })
  oona = ((await room.get('/api/session')).body as { staff: { id: string; name: string }[] }).staff.find(({ name }) => name === 'Oona')?.id ?? ''
})
afterEach(() => void room.db.raw.close())

const pins = new Map<string, string>()
async function identify(staffId: string): Promise<void> {
  await request(room.app).post('/api/session/recording').set('Cookie', room.cookie).send({ staffId, pin: pins.get(staffId) ?? (staffId === oona ? '2222' : '4711') })
}
async function read<T>(path: string, staffId: string): Promise<T> {
  await identify(staffId)
  return (await request(room.app).get(path).set('Cookie', room.cookie).set('X-Recording', staffId)).body as T
}
const view = (staffId = room.leadId) => read<HandoverView>('/api/handover', staffId)
const due = (staffId = room.leadId) => read<HandoverDue>('/api/handover/due', staffId)
async function asOona(path: string, body: object): Promise<Record<string, unknown>> {
  await identify(oona)
  const answer = await room.post(path, body, { staffId: oona })
  expect(answer.status).toBe(201)
  return answer.body as Record<string, unknown>
}
const tankId = (index: number): string => room.tanks[index]!.id
const at = (): { happenedAtMs: number } => ({ happenedAtMs: room.clock.nowMs })
const said = ({ sections }: HandoverView) => sections.map(({ title, rows }) => [title, rows.map(({ words, detail, mark }) => [words, detail, mark].filter((each) => each !== null).join(' | '))])

test('what the late crew did is read by the morning crew, what presses first, and once', async () => {
  const barbs = await room.addFish(room.tanks[0], 'Cherry barb', 9)
  const since = room.clock.nowMs
  room.clock.nowMs += 9 * hourMs
  await asOona('/api/checks', { ...quietCheck(tankId(0)), ...at(), ate: 'none', signs: ['clamped fins'], note: 'left food' })
  await asOona(`/api/tanks/${tankId(0)}/losses`, { lotId: barbs, quantity: 2, cause: 'found dead', note: null, ...at() })
  await asOona(`/api/tanks/${tankId(0)}/moves`, { lotId: barbs, quantity: 3, toTankId: tankId(1), note: null, ...at() })
  const sold = await asOona(`/api/tanks/${tankId(0)}/releases`, { lotId: barbs, quantity: 1, reason: 'sold', note: null, ...at() })
  await room.post(`/api/movements/${(sold.movementIds as string[])[0]}/reversal`, { reason: null, ...at() }, { staffId: oona })
  await asOona(`/api/tanks/${tankId(2)}/pins`, { words: 'new heater' })
  await asOona('/api/contacts', { kind: 'splash', fromTankId: tankId(0), toTankId: tankId(1), litres: null, note: 'bucket fell', ...at() })
  await asOona('/api/handover/words', { words: 'R1-01 first tomorrow' })
  room.clock.nowMs += 12 * hourMs
  const morning = await view()
  expect([morning.sinceMs, morning.notes.map(({ by, words }) => [by, words])]).toEqual([since, [['Oona', 'R1-01 first tomorrow']]])
  expect(said(morning)).toEqual([
    ['Lost', ['R1-01: 2 Cherry barb | found dead; Oona | harm']],
    ['Seen at tanks', ['R1-01: clamped fins; ate none; “left food” | watch']],
    ['Against a rule', ['splash: bucket fell | Oona | watch']],
    ['Notes on the glass', ['R1-03: new heater | Oona']],
    ['Fish that came, moved, left', ['R1-01 to R1-02: 3 Cherry barb | Oona']],
  ])
  expect(await due()).toMatchObject({ isDue: true, notes: 1 })
  // Whoever did it has nothing of it to read.
  expect(said(await view(oona)).flat(2).join()).not.toContain('Cherry barb | Oona')
  await room.post('/api/handover/read', { untilMs: morning.untilMs })
  room.clock.nowMs += 30 * minuteMs
  expect([said(await view()), await due()]).toEqual([[], { sinceMs: morning.untilMs, isDue: false, notes: 0 }])
  await asOona(`/api/tanks/${tankId(0)}/losses`, { lotId: barbs, quantity: 1, cause: 'jumped', note: null, ...at() })
  expect(said(await view())).toEqual([['Lost', ['R1-01: 1 Cherry barb | jumped; Oona | harm']]])
})

test('words are taken off by whoever left them or by a lead, and what is still to come was read by nobody', async () => {
  const { id } = await asOona('/api/handover/words', { words: ' ask about the pump ' })
  expect((await view()).notes.map(({ words }) => words)).toEqual(['ask about the pump'])
  const { body: mine } = await room.post('/api/handover/words', { words: 'mine' })
  await identify(oona)
  expect((await room.post(`/api/handover/words/${mine.id}/removal`, {}, { staffId: oona })).body.code).toBe('not-allowed')
  expect((await room.post(`/api/handover/words/${id as string}/removal`, {})).status).toBe(201)
  expect((await room.post(`/api/handover/words/${id as string}/removal`, {})).status).toBe(404)
  expect((await room.post('/api/handover/read', { untilMs: room.clock.nowMs + dayMs })).body.errors).toEqual([{ path: 'untilMs', message: 'Nobody has read what is still to come' }])
  expect((await room.post('/api/handover/words', { words: ' ' })).body.errors).toEqual([{ path: 'words', message: 'Note is missing' }])
})

test('feeds, chores and runs of others are told in a line each', async () => {
  await room.addFish(room.tanks[0], 'Cherry barb', 9)
  const place = { id: 'a', tankId: null, systemId: null, label: 'store room', uses: [], litres: null, fromTankId: null, fish: [] }
  const { body: chore } = await room.post('/api/chores', { name: 'Salt', kind: 'other', rule: { kind: 'every', days: 3, weekdays: [], fish: null, earlyDays: 0 }, startOn: '2031-05-01', places: [place], note: null, version: 0 })
  room.clock.nowMs += 6 * hourMs
  await asOona(`/api/chores/${chore.id}/done`, { placeId: 'a', ...at() })
  await asOona('/api/kitchen/ticks', { feedOn: '2031-05-04', feedId: 'day', step: 'give', what: 'R1', pieces: null, ...at() })
  expect(said(await view())).toEqual([['Kitchen and chores', ['feed of the day: 1 rack fed | Oona', 'Salt: store room | Oona']]])
})

test('somebody was last here when they stopped recording for four hours', () => {
  const nowMs = 100 * dayMs
  expect(lastHere([nowMs - minuteMs, nowMs - hourMs, nowMs - 14 * hourMs, nowMs - 15 * hourMs], nowMs)).toBe(nowMs - 14 * hourMs)
  expect(lastHere([nowMs - 5 * hourMs, nowMs - 6 * hourMs], nowMs)).toBe(nowMs - 5 * hourMs)
  expect(lastHere([], nowMs)).toBe(nowMs - dayMs)
  expect(lastHere([nowMs - minuteMs], nowMs)).toBe(nowMs - minuteMs - dayMs)
  expect(lastHere([nowMs - 40 * dayMs], nowMs)).toBe(nowMs - 14 * dayMs)
})
