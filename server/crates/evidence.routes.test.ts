import { mkdtempSync, readdirSync, readFileSync } from 'node:fs'
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import sharp from 'sharp'
import request from 'supertest'
import type { CrateView } from '../../core/crates/crateView'
import { unseenBox } from '../../core/crates/box.schema'
import { emptyValues } from '../../core/setup/registerCsv'
import { registers } from '../../core/setup/registers'
import { createTestRoom, plainBag, type TestRoom } from '../testing/testRoom'

let room: TestRoom
const photos = mkdtempSync(join(tmpdir(), 'daily-crate-photos-'))
beforeAll(async () => {
  room = await createTestRoom({ photosFolder: photos })
  const values = { ...emptyValues(registers.suppliers.fields), name: 'Hollow Reed Hatchery', claimWindowHours: 12, claimRules: 'picture of the dead in the shut bag' }
  expect((await room.post('/api/setup/suppliers', { values })).status).toBe(201)
})
afterAll(() => room.db.close())

const view = async (crate: CrateView): Promise<CrateView> => (await room.get(`/api/crates/${crate.id}`)).body
const open = (crate: CrateView, bag: number, more: object) => room.post(`/api/crates/${crate.id}/bags`, { ...plainBag([crate.bags[bag]!.id], 8), ...more })
const { happenedAtMs } = { happenedAtMs: Date.UTC(2031, 4, 4, 9, 0) }
const picture = (width: number, height: number): Promise<Buffer> =>
  sharp({ create: { width, height, channels: 3, background: '#b9d9d2' } }).jpeg().withExif({ IFD0: { Artist: 'somebody', Copyright: 'where it was taken' } }).toBuffer()
const addPhoto = (crate: CrateView, image: string, bag = 0) => room.post(`/api/crates/${crate.id}/bags/${crate.bags[bag]!.id}/photos`, { image, happenedAtMs })

describe('what is found in a bag', () => {
  test('behaviour, pH, ammonia, binder and mishap are kept with the bag', async () => {
    const crate: CrateView = await room.crateOf([['Cherry barb', 8, 1, room.tanks[0]!]])
    expect((await open(crate, 0, { ph: 6.8, ammoniaMgL: 2.5, hasBinder: true, behaviour: 'distressed', mishap: 'mislabelled' })).status).toBe(201)
    expect((await view(crate)).bags[0]?.record).toMatchObject({ ph: 6.8, ammoniaMgL: 2.5, hasBinder: true, behaviour: 'distressed', mishap: 'mislabelled' })
    for (const [field, value] of [['ph', 15], ['ammoniaMgL', -1], ['behaviour', 'sleepy'], ['hasBinder', 1], ['mishap', 'lost']] as const) {
      expect((await open(crate, 0, { [field]: value })).body.errors?.[0]?.path).toBe(field)
    }
  })

  test('an extra bag becomes a line and a lot of its own; taken back it leaves no bag', async () => {
    const crate: CrateView = await room.crateOf([['Cherry barb', 8, 1, room.tanks[0]!]])
    const added = await room.post(`/api/crates/${crate.id}/added-bags`, { species: 'Honey gourami', alive: 4, dead: 1, note: null, happenedAtMs })
    expect(added.body).toMatchObject({ number: 2 })
    const now = await view(crate)
    expect(now.lines.map(({ species, count, identity }) => [species, count, identity])).toEqual([['Cherry barb', 8, null], ['Honey gourami', 0, 'likely']])
    expect(now.bags[1]).toMatchObject({ listed: 0, inBag: 4, record: { alive: 4, dead: 1 } })
    await room.post(`/api/crates/${crate.id}/undone-bags`, { bagIds: [added.body.bagId], happenedAtMs })
    const after = await view(crate)
    expect([after.lines.length, after.bags.length, room.faults()]).toEqual([1, 1, []])
  })

  test('a crate without a list: counted first, named later, nothing short or extra', async () => {
    const created = await room.post('/api/crates', { supplier: 'Hollow Reed Hatchery', expectedAtMs: null, packedAtMs: null, lines: [], hasList: false })
    const path = `/api/crates/${created.body.id}`
    for (const alive of [6, 3]) expect((await room.post(`${path}/added-bags`, { species: null, alive, dead: 0, note: null, happenedAtMs })).status).toBe(201)
    const crate: CrateView = (await room.get(path)).body
    expect([crate.hasList, crate.bags.map(({ listed, inBag }) => [listed, inBag]), crate.lines.map(({ species, identity }) => [species, identity])]).toEqual([false, [[6, 6], [3, 3]], [['Not identified yet', 'doubtful'], ['Not identified yet', 'doubtful']]])
    expect((await room.put(`${path}/lines/${crate.lines[0]!.id}/identity`, { species: 'Kuhli loach', identity: 'sure', strain: null, version: 1 })).status).toBe(200)
    const named: CrateView = (await room.get(path)).body
    expect([named.lines[0]?.species, named.bags[0]?.inBag, room.faults()]).toEqual(['Kuhli loach', 6, []])
    expect((await room.put(`${path}/lines/${crate.lines[0]!.id}/identity`, { species: 'Cherry barb', identity: 'sure', strain: null, version: 1 })).body.code).toBe('stale')
    expect((await room.post('/api/crates', { supplier: 'x', expectedAtMs: null, packedAtMs: null, lines: [] })).body.errors[0].message).toBe('The list has no line')
    expect((await room.post(`${path}/added-bags`, { species: null, alive: 0, dead: 0, note: null, happenedAtMs })).status).toBe(422)
  })

  test('bags of no list hold all that a listed bag holds; several alike are one lot, under names the device gave', async () => {
    const created = await room.post('/api/crates', { supplier: 'Hollow Reed Hatchery', expectedAtMs: null, packedAtMs: null, lines: [], hasList: false })
    const path = `/api/crates/${created.body.id}`
    const bag = { species: null, alive: 3, dead: 1, concerns: ['water'], body: 'thin', skinTempC: 22, waterTempC: 23, salinityPpt: 0.2, ph: 6.9, behaviour: 'subdued', note: 'two tails', happenedAtMs }
    const first = await room.post(`${path}/added-bags`, { ...bag, bagIds: ['device-1'] })
    expect(first.body).toMatchObject({ bagId: 'device-1', number: 1 })
    expect((await room.post(`${path}/added-bags`, { ...bag, bagIds: ['device-2', 'device-3'], lineId: first.body.lineId })).body).toMatchObject({ number: 2, lineId: first.body.lineId })
    const crate: CrateView = (await room.get(path)).body
    expect([crate.lines.length, crate.bags.map(({ id, inBag, lineId }) => [id, inBag, lineId === first.body.lineId])]).toEqual([1, [['device-1', 3, true], ['device-2', 3, true], ['device-3', 3, true]]])
    expect(crate.bags[2]?.record).toMatchObject({ concerns: ['water'], body: 'thin', waterTempC: 23, salinityPpt: 0.2, ph: 6.9, behaviour: 'subdued', note: 'two tails' })
    expect((await room.post(`${path}/added-bags`, { ...bag, bagIds: ['device-1'] })).body.errors).toEqual([{ path: 'bagIds[0]', message: 'There is such a bag already' }])
    const listed: CrateView = await room.crateOf([['Cherry barb', 8, 1, null]])
    expect((await room.post(`/api/crates/${listed.id}/added-bags`, { ...bag, lineId: listed.lines[0]!.id })).body.errors[0].path).toBe('lineId')
    expect((await room.post(`${path}/added-bags`, { ...bag, concerns: ['smell'] })).status).toBe(422)
  })

  test('the box: two who describe it at once are told; a crate is closed when all is out, or with a reason', async () => {
    const crate: CrateView = await room.crateOf([['Cherry barb', 16, 2, room.tanks[0]!]])
    const box = { ...unseenBox, isSound: false, isWet: true, packs: 'spent', packing: 'poor' }
    expect((await room.put(`/api/crates/${crate.id}/box`, { box, version: 1 })).body).toEqual({ version: 2 })
    expect((await room.put(`/api/crates/${crate.id}/box`, { box, version: 1 })).body.current).toMatchObject({ box, version: 2 })
    await open(crate, 0, {})
    const refused = await room.post(`/api/crates/${crate.id}/closing`, { because: null, version: crate.version })
    expect([refused.status, refused.body.errors[0].message]).toEqual([422, '8 fish still stand in bags and 1 bags are still shut: place and open them, or say why the crate is closed so'])
    expect((await room.post(`/api/crates/${crate.id}/closing`, { because: 'second bag went back unopened', version: crate.version })).status).toBe(201)
    expect((await open(crate, 1, {})).body.detail).toBe('This crate is closed; open it again to change what is in it')
    const closed = await view(crate)
    expect([closed.closedBecause, closed.closedAtMs]).toEqual(['second bag went back unopened', room.clock.nowMs])
    expect((await room.post(`/api/crates/${crate.id}/reopening`, { version: closed.version })).status).toBe(201)
    expect((await open(crate, 1, {})).status).toBe(201)
  })
})

describe('pictures', () => {
  test('a picture is made anew: upright, smaller, without what else was in the file; only devices of the room see it', async () => {
    const crate: CrateView = await room.crateOf([['Cherry barb', 8, 1, room.tanks[0]!]])
    const before = await picture(2400, 1200)
    expect(before.includes('somebody')).toBe(true)
    const { body, status } = await addPhoto(crate, before.toString('base64'))
    expect(status).toBe(201)
    const served = await request(room.app).get(`/api/photos/${body.photoId}`).set('Cookie', room.cookie)
    const kept = served.body as Buffer
    expect([served.headers['content-type'], (await sharp(kept).metadata()).width, kept.includes('somebody'), readFileSync(join(photos, `${body.photoId}.jpg`)).equals(kept)]).toEqual(['image/jpeg', 1600, false, true])
    expect((await request(room.app).get(`/api/photos/${body.photoId}`)).status).toBe(401)
    expect((await view(crate)).bags[0]?.photos).toEqual([body.photoId])
    expect((await room.post(`/api/crates/${crate.id}/photos/${body.photoId}/removal`, { happenedAtMs })).status).toBe(201)
    expect([(await view(crate)).bags[0]?.photos, (await room.get(`/api/photos/${body.photoId}`)).status]).toEqual([[], 404])
  })

  test.each([
    ['text', Buffer.from('this is no picture').toString('base64'), /no picture that can be kept/],
    ['a page', Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>').toString('base64'), /no picture that can be kept/],
    ['an archive called a picture', Buffer.from('504b0304140000000800', 'hex').toString('base64'), /no picture that can be kept/],
    ['a GIF', Buffer.from('R0lGODlhAQABAIAAAAAAAP///yH5BAEAAAAALAAAAAABAAEAAAIBRAA7', 'base64').toString('base64'), /no picture that can be kept/],
    ['nothing', '', /empty/],
    ['no base64', '%%%', /base64/],
    ['too much', 'A'.repeat(1_900_001), /too large/],
  ])('%s is refused in words', async (_, image, words) => {
    const crate: CrateView = await room.crateOf([['Cherry barb', 8, 1, room.tanks[0]!]])
    const count = readdirSync(photos).length
    const { status, body } = await addPhoto(crate, image)
    expect([status, body.errors[0].path]).toEqual([422, 'image'])
    expect(body.errors[0].message).toMatch(words)
    expect(readdirSync(photos)).toHaveLength(count)
  })

  test('a line whose shut bag has a picture stays, and is split anew no more; also when the picture was taken away', async () => {
    const crate: CrateView = await room.crateOf([['Cherry barb', 8, 1, room.tanks[0]!], ['Honey gourami', 4, 1, room.tanks[1]!]])
    const { body } = await addPhoto(crate, (await picture(40, 40)).toString('base64'))
    await room.post(`/api/crates/${crate.id}/photos/${body.photoId}/removal`, { happenedAtMs })
    const line = crate.lines[0]!
    const removal = await room.post(`/api/crates/${crate.id}/lines/${line.id}/removal`, { version: 1 })
    expect([removal.status, removal.body.detail]).toEqual([409, 'A picture of a bag of this line was taken already, so the line stays'])
    const edit = await room.put(`/api/crates/${crate.id}/lines/${line.id}`, { species: 'Cherry barb', count: 20, bags: 2, perBag: null, tankId: null, override: null, origin: null, strain: null, identity: null, promisedTo: null, billed: null, sizeCm: null, priceEach: null, version: 1 })
    expect([edit.status, edit.body.errors]).toEqual([422, [{ path: 'count', message: 'A picture of a bag of this line was taken already; fish and bags of the list stay as they are' }]])
  })

  test('a picture cut off in the middle, one more than six, and a bag that is not there', async () => {
    const crate: CrateView = await room.crateOf([['Cherry barb', 8, 1, room.tanks[0]!]])
    const whole = await picture(200, 100)
    expect((await addPhoto(crate, whole.subarray(0, Math.floor(whole.length / 2)).toString('base64'))).status).toBe(422)
    for (let count = 0; count < 6; count += 1) expect((await addPhoto(crate, whole.toString('base64'))).status).toBe(201)
    expect((await addPhoto(crate, whole.toString('base64'))).body.detail).toMatch(/at most 6 pictures/)
    expect((await room.post(`/api/crates/${crate.id}/bags/nothing/photos`, { image: whole.toString('base64'), happenedAtMs })).status).toBe(404)
  })
})

describe('the claim', () => {
  async function troubled() {
    const created = await room.post('/api/crates', {
      ...{ supplier: 'Hollow Reed Hatchery', expectedAtMs: null, packedAtMs: happenedAtMs - 20 * 3_600_000, carrier: 'Night van' },
      lines: [
        { species: 'Cherry barb', count: 24, bags: 3, perBag: 8, tankId: null, priceEach: 1.45 },
        { species: '=Kuhli loach', count: 5, bags: 1, perBag: 5, tankId: null, priceEach: null },
        { species: 'Honey gourami', count: 6, bags: 1, perBag: 6, tankId: null, priceEach: 4 },
      ],
    })
    const crate: CrateView = (await room.get(`/api/crates/${created.body.id}`)).body
    await open(crate, 0, { alive: 6, dead: 2, ph: 6.4, waterTempC: 19.5, note: 'cloudy' })
    await open(crate, 1, { alive: 7 })
    await open(crate, 2, { alive: 9 })
    await open(crate, 3, { alive: 4, dead: 1 })
    await open(crate, 4, { alive: 6 })
    return crate
  }

  test('counts dead and missing by line: one too many in a bag makes up for one short in another', async () => {
    const crate = await troubled()
    await addPhoto(crate, (await picture(300, 200)).toString('base64'))
    const { body } = await room.get(`/api/crates/${crate.id}/claim`)
    expect(body).toMatchObject({ state: 'draft', version: 0, rules: 'picture of the dead in the shut bag', sheet: { dead: 3, missing: 0, amount: 2.9, unpriced: 1 } })
    expect(body.sheet.lines.map((line: { species: string; dead: number; missing: number; amount: number | null }) => [line.species, line.dead, line.missing, line.amount])).toEqual([['Cherry barb', 2, 0, 2.9], ['=Kuhli loach', 1, 0, null]])
    const today = (await room.get('/api/today')).body as { claims: { crateId: string; leftMs: number; dead: number; missing: number }[] }
    expect(today.claims.find(({ crateId }) => crateId === crate.id)).toMatchObject({ leftMs: 12 * 3_600_000, dead: 3, missing: 0 })
  })

  test('goes out as CSV without formulas and as PDF that says the same', async () => {
    const crate = await troubled()
    await addPhoto(crate, (await picture(300, 200)).toString('base64'))
    await room.put(`/api/crates/${crate.id}/claim`, { state: 'draft', note: 'Two boxes stood in the sun', settledAmount: null, atMs: null, version: 0 })
    const csv = (await room.get(`/api/crates/${crate.id}/claim/csv`)).text
    expect(csv.split('\r\n').slice(1).map((row) => row.split(',').slice(3, 9).join())).toEqual(['Cherry barb,1,8,6,2,0', 'Cherry barb,2,8,7,0,1', `"'=Kuhli loach",4,5,4,1,0`])
    const pdf = await request(room.app).get(`/api/crates/${crate.id}/claim/pdf`).set('Cookie', room.cookie).buffer(true).parse((response, done) => {
      const parts: Buffer[] = []
      response.on('data', (part: Buffer) => parts.push(part))
      response.on('end', () => done(null, Buffer.concat(parts)))
    })
    const bytes = pdf.body as Buffer
    expect([pdf.headers['content-type'], bytes.subarray(0, 5).toString(), bytes.includes('/Subtype /Image')]).toEqual(['application/pdf', '%PDF-', true])
  })

  test('draft, sent, settled with its amount; a stale step is told; settled without an amount is refused', async () => {
    const crate = await troubled()
    const step = (state: string, version: number, settledAmount: number | null = null) => room.put(`/api/crates/${crate.id}/claim`, { state, note: null, settledAmount, atMs: null, version })
    expect((await step('sent', 0)).body).toEqual({ version: 1 })
    expect((await step('sent', 0)).body.code).toBe('stale')
    expect((await step('settled', 1)).body.errors[0]).toMatchObject({ path: 'settledAmount' })
    expect((await step('settled', 1, 2.9)).body).toEqual({ version: 2 })
    expect((await room.get(`/api/crates/${crate.id}/claim`)).body).toMatchObject({ state: 'settled', settledAmount: 2.9, sentAtMs: room.clock.nowMs })
    expect((await view(crate)).claimState).toBe('settled')
    const today = (await room.get('/api/today')).body as { claims: { crateId: string }[] }
    expect(today.claims.some(({ crateId }) => crateId === crate.id)).toBe(false)
  })
})

test('the stream of changes tells at once what was written, and is shut to strangers', async () => {
  const server = createServer(room.app)
  try {
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
    const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}/api/events`
    expect((await fetch(url)).status).toBe(401)
    const aborter = new AbortController()
    const stream = await fetch(url, { headers: { Cookie: room.cookie }, signal: aborter.signal })
    const reader = stream.body!.pipeThrough(new TextDecoderStream()).getReader()
    expect((await reader.read()).value).toContain('retry')
    const crate: CrateView = await room.crateOf([['Cherry barb', 8, 1, room.tanks[0]!]])
    await open(crate, 0, {})
    let heard = ''
    while (!heard.includes('"bag:')) heard += (await reader.read()).value ?? ''
    expect(heard).toContain(`data: {"touched":["bag:${crate.id}"],"by":"`)
    aborter.abort()
  } finally {
    server.closeAllConnections()
    server.close()
  }
})
