import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeEach, expect, test } from '@jest/globals'
import sharp from 'sharp'
import request from 'supertest'
import type { TankHistory } from '../../core/room/tankHistory'
import type { TankView } from '../../core/room/roomView'
import { createTestRoom, quietCheck, testNowMs, type TestRoom } from '../testing/testRoom'

const [hourMs, dayMs] = [3_600_000, 86_400_000]
let room: TestRoom
beforeEach(async () => {
  room = await createTestRoom({ tankCount: 3, photosFolder: mkdtempSync(join(tmpdir(), 'daily-crate-glass-')) })
})
afterEach(() => room.db.close())

const tank = (nth = 0) => room.tanks[nth] as { id: string; code: string }
const view = async (nth = 0): Promise<TankView> => (await room.get(`/api/tanks/${tank(nth).code}`)).body as TankView
const history = async (nth = 0, days = 14): Promise<TankHistory> => (await room.get(`/api/tanks/${tank(nth).code}/history?days=${days}`)).body as TankHistory
const read = (what: string, value: unknown, happenedAtMs = testNowMs, nth = 0) => room.post(`/api/tanks/${tank(nth).id}/readings`, { what, value, instrument: null, happenedAtMs })

test('a reading holds for all of its water, is taken back once, and what no instrument shows is refused beside it', async () => {
  const { seq } = (await read('tempC', 24.5, testNowMs - hourMs)).body as { seq: number }
  expect((await history(1)).readings).toMatchObject([{ what: 'tempC', value: 24.5, by: 'Imre', atMs: testNowMs - hourMs }])
  expect((await read('ph', 24.5)).body.errors).toEqual([{ path: 'value', message: 'A reading of pH lies between 3 and 11' }])
  expect((await read('tempC', null)).body.errors[0]).toEqual({ path: 'value', message: 'Say what was read' })
  expect((await room.post(`/api/readings/${seq}/undo`, {})).status).toBe(201)
  expect((await room.post(`/api/readings/${seq}/undo`, {})).status).toBe(409)
  expect((await room.post('/api/readings/none/undo', {})).status).toBe(409)
  expect((await history(1)).readings).toEqual([])
})

test('the number over the days steps with what came and went; what was taken back never was; what is older stays outside', async () => {
  const lotId = await room.addFish(tank(), 'Cherry barb', 10)
  room.clock.nowMs += 20 * dayMs
  const now = room.clock.nowMs
  const lose = (quantity: number, daysAgo: number) => room.post(`/api/tanks/${tank().id}/losses`, { lotId, quantity, cause: 'found dead', note: null, happenedAtMs: now - daysAgo * dayMs })
  await lose(2, 5)
  const { movementIds } = (await lose(3, 3)).body as { movementIds: string[] }
  await room.post(`/api/movements/${movementIds[0]}/reversal`, { reason: null, happenedAtMs: now })
  await room.post('/api/checks', { ...quietCheck(tank().id), ate: 'some', signs: ['hiding'], happenedAtMs: now - dayMs })
  expect(await history()).toMatchObject({ counts: [{ atMs: now - 14 * dayMs, fish: 10 }, { atMs: now - 5 * dayMs, fish: 8 }], looks: [{ ate: 'some', marks: [{ severity: 1 }] }] })
  expect((await history(0, 60)).counts.map(({ fish }) => fish)).toEqual([0, 10, 8])
  expect((await room.get('/api/tanks/R9-99/history')).status).toBe(404)
})

test('a note hangs on the glass until somebody takes it off', async () => {
  const { id } = (await room.post(`/api/tanks/${tank().id}/pins`, { words: ' look behind the filter ' })).body as { id: string }
  expect((await view()).pins).toMatchObject([{ words: 'look behind the filter', by: 'Imre' }])
  expect((await room.post(`/api/tanks/${tank().id}/pins`, { words: ' ' })).body.errors).toEqual([{ path: 'words', message: 'Note is missing' }])
  expect((await room.post(`/api/pins/${id}/removal`, {})).status).toBe(201)
  expect((await room.post(`/api/pins/${id}/removal`, {})).status).toBe(409)
  expect((await view()).pins).toEqual([])
})

test('a picture is kept, shown to whoever is let in, and taken off', async () => {
  const image = (await sharp({ create: { width: 12, height: 8, channels: 3, background: '#39a' } }).png().toBuffer()).toString('base64')
  const { photoId } = (await room.post(`/api/tanks/${tank().id}/photos`, { image, happenedAtMs: testNowMs })).body as { photoId: string }
  expect((await view()).photos).toMatchObject([{ id: photoId, by: 'Imre' }])
  expect((await room.get(`/api/tank-photos/${photoId}`)).type).toBe('image/jpeg')
  expect((await request(room.app).get(`/api/tank-photos/${photoId}`)).status).toBe(401)
  expect((await room.post(`/api/tanks/${tank().id}/photos`, { image: 'AAAA', happenedAtMs: testNowMs })).status).toBe(422)
  await room.post(`/api/tank-photos/${photoId}/removal`, {})
  expect([(await view()).photos, (await room.get(`/api/tank-photos/${photoId}`)).status]).toEqual([[], 404])
})

test('the page tells of the tanks on its water, and its story by kinds', async () => {
  const lotId = await room.addFish(tank(), 'Cherry barb', 10)
  await room.post(`/api/tanks/${tank().id}/losses`, { lotId, quantity: 1, cause: 'jumped', note: null, happenedAtMs: testNowMs })
  await room.post('/api/checks', { ...quietCheck(tank(1).id), signs: ['white spots'], happenedAtMs: testNowMs })
  await room.post('/api/checks', { ...quietCheck(tank().id), happenedAtMs: testNowMs })
  expect((await view()).neighbours.map(({ code }) => code)).toEqual([tank(1).code, tank(2).code])
  const story = async (only: string): Promise<string[]> => ((await room.get(`/api/tanks/${tank().code}?only=${only}`)).body as TankView).timeline.map((entry) => (entry.type === 'movement' ? entry.kind : entry.type))
  expect([await story('losses'), await story('looks'), await story('moves'), await story('counts')]).toEqual([['loss'], ['check'], ['arrive'], []])
  expect((await story('all')).sort()).toEqual(['arrive', 'check', 'loss'])
})
