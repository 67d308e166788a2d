import { afterEach, beforeEach, describe, expect, test } from '@jest/globals'
import Papa from 'papaparse'
import request, { type Response } from 'supertest'
import type { RegisterName, RegisterRow, RegisterValues } from '../../core/setup/registers'
import { createTestRoom, type TestRoom } from '../testing/testRoom'

let room: TestRoom
beforeEach(async () => void (room = await createTestRoom()))
afterEach(() => room.db.close())

const rows = async (register: RegisterName): Promise<RegisterRow[]> => (await room.get(`/api/setup/${register}`)).body.rows
const row = async (register: RegisterName, field: string, value: string): Promise<RegisterRow> => (await rows(register)).find((each) => each.values[field] === value) as RegisterRow
const sendFile = (path: string, file: string | Buffer): Promise<Response> =>
  Promise.resolve(request(room.app).post(path).set('Cookie', room.cookie).set('X-Recording', room.leadId).set('Content-Type', 'text/csv').send(file))
const preview = (register: RegisterName, file: string): Promise<Response> => sendFile(`/api/setup/${register}/csv/preview`, file)
const csvOf = async (register: RegisterName): Promise<string> => (await room.get(`/api/setup/${register}/csv`)).text

const supplier = (name: string, change: RegisterValues = {}): { values: RegisterValues } => ({
  values: { name, shippingTempC: 24, shippingSalinityPpt: null, shippingPh: 7.2, shippingAlkalinityMeqL: null, usualWater: null, claimWindowHours: null, claimRules: null, transitHours: 20, note: null, ...change },
})

describe('a list a lead keeps', () => {
  test('add, edit, retire, bring back; everything stands in the audit', async () => {
    const { id } = (await room.post('/api/setup/suppliers', supplier('  Pale   Harbour '))).body
    expect((await row('suppliers', 'name', 'Pale Harbour')).version).toBe(1)
    expect((await room.put(`/api/setup/suppliers/${id}`, { version: 1, ...supplier('Pale Harbour', { shippingTempC: 25 }) })).body).toEqual({ version: 2 })
    await room.post(`/api/setup/suppliers/${id}/retirement`, { version: 2, isRetired: true })
    expect((await row('suppliers', 'name', 'Pale Harbour')).retiredAtMs).toBe(room.clock.nowMs)
    expect((await room.post('/api/setup/suppliers', supplier('PALE harbour'))).body.errors[0].message).toMatch(/retired; bring it back instead/)
    await room.post(`/api/setup/suppliers/${id}/retirement`, { version: 3, isRetired: false })
    const { lines } = (await room.get('/api/audit').then(() => request(room.app).get('/api/audit').set('Cookie', room.cookie).set('X-Recording', room.leadId))).body
    expect(lines.filter((line: { subject: string }) => line.subject.includes('Pale Harbour')).map((line: { action: string }) => line.action).sort()).toEqual(['addSuppliers', 'editSuppliers', 'retireSuppliers', 'retireSuppliers'])
    expect(lines.find((line: { action: string }) => line.action === 'editSuppliers').changes).toEqual({ shippingTempC: [24, 25] })
  })

  test('a stale save is refused with what stands there now, and changes nothing', async () => {
    const { id } = (await room.post('/api/setup/suppliers', supplier('Pale Harbour'))).body
    await room.put(`/api/setup/suppliers/${id}`, { version: 1, ...supplier('Pale Harbour', { transitHours: 30 }) })
    const stale = await room.put(`/api/setup/suppliers/${id}`, { version: 1, ...supplier('Pale Harbour', { transitHours: 10 }) })
    expect([stale.status, stale.body.code, stale.body.current.values.transitHours, stale.body.current.version]).toEqual([409, 'stale', 30, 2])
    expect((await row('suppliers', 'name', 'Pale Harbour')).values.transitHours).toBe(30)
  })

  test('what is in use is not retired: tanks with fish or a plan, systems with tanks', async () => {
    await room.addFish(room.tanks[0], 'Cherry barb', 4)
    await room.crateOf([['Kuhli loach', 5, 1, room.tanks[1] ?? null]])
    const retire = (register: string, id: string | undefined) => room.post(`/api/setup/${register}/${id}/retirement`, { version: 1, isRetired: true })
    expect((await retire('tanks', room.tanks[0]?.id)).body.detail).toBe('R1-01 holds 4 fish; move them first')
    expect((await retire('tanks', room.tanks[1]?.id)).body.detail).toMatch(/crate is planned into R1-02/)
    expect((await retire('systems', room.systemId)).body.detail).toMatch(/4 of its tanks are still in use/)
    expect((await retire('tanks', room.tanks[2]?.id)).status).toBe(201)
    expect((await room.get('/api/room')).body.tanks.map((tank: { code: string }) => tank.code)).toEqual(['R1-01', 'R1-02', 'R1-04'])
    const planned = await room.post('/api/crates', { supplier: 'Hollow Reed', expectedAtMs: null, packedAtMs: null, lines: [{ species: 'Cherry barb', count: 2, bags: 1, perBag: null, tankId: room.tanks[2]?.id }] })
    expect(planned.body.errors[0]).toEqual({ path: 'lines[0].tankId', message: 'There is no such tank' })
  })

  test('a bag that stayed shut in a closed crate keeps no tank', async () => {
    const crate = await room.crateOf([['Kuhli loach', 5, 1, room.tanks[1] ?? null]])
    expect((await room.post(`/api/crates/${crate.id}/closing`, { because: 'it never came', version: crate.version })).status).toBe(201)
    expect((await room.post(`/api/setup/tanks/${room.tanks[1]?.id}/retirement`, { version: 1, isRetired: true })).status).toBe(201)
  })

  test('two tanks do not stand on one spot, and no tank holds more than it measures', async () => {
    const tank = await row('tanks', 'code', 'R1-01')
    const twin = { ...tank.values, code: 'R1-09' }
    expect((await room.post('/api/setup/tanks', { values: twin })).body.errors[0]).toEqual({ path: 'values.position', message: 'R1-01 stands there already' })
    expect((await room.put(`/api/setup/tanks/${tank.id}`, { version: 1, values: { ...tank.values, grossVolumeL: 50, netVolumeL: 60 } })).body.errors[0].message).toMatch(/cannot be more than its gross/)
  })

  test('species of the book come in with what the book knows; those that are here stay as they are', async () => {
    await room.addFish(room.tanks[0], 'cherry barb', 2)
    const before = await row('species', 'name', 'Cherry barb')
    expect(before.values).toMatchObject({ scientificName: 'Rohanella titteya', water: 'fresh' })
    expect((await room.post('/api/setup/species/adoptions', { names: ['Cherry barb', 'Kuhli loach', 'Nothing known'] })).body).toEqual({ adopted: 1 })
    expect((await rows('species')).map(({ values }) => values.name)).toEqual(['Cherry barb', 'Kuhli loach'])
  })
})

describe('files out and in', () => {
  test('what goes out comes in again as no change', async () => {
    await room.post('/api/setup/species/adoptions', { names: ['Cherry barb', 'Kuhli loach', 'Royal gramma'] })
    for (const register of ['systems', 'tanks', 'species'] as const) {
      const read = await preview(register, await csvOf(register))
      expect([read.status, new Set(read.body.rows.map((each: { change: string }) => each.change))]).toEqual([200, new Set(['same'])])
    }
  })

  test('the preview says what would be new and what would change; taking in does just that', async () => {
    await room.post('/api/setup/suppliers', supplier('Pale Harbour'))
    const read = await preview('suppliers', 'name;shipping pH;usual time in the bag (h)\nPale Harbour;8,1;26\nHollow Reed;7;9\n')
    expect(read.body.rows.map(({ key, change, changes }: Record<string, unknown>) => [key, change, changes])).toEqual([['Pale Harbour', 'changed', ['shipping pH', 'usual time in the bag']], ['Hollow Reed', 'new', []]])
    expect(await rows('suppliers')).toHaveLength(1)
    const taken = await room.post('/api/setup/suppliers/import', { rows: read.body.rows.map(({ id, version, values }: Record<string, unknown>) => ({ id, version, values })) })
    expect(taken.body).toEqual({ rows: 2 })
    // Columns the file left out keep what was there.
    expect((await row('suppliers', 'name', 'Pale Harbour')).values).toMatchObject({ shippingPh: 8.1, transitHours: 26, shippingTempC: 24 })
  })

  test('one row that no longer fits, and nothing is taken in', async () => {
    const { rows: read } = (await preview('suppliers', 'name\nPale Harbour\nHollow Reed')).body
    await room.post('/api/setup/suppliers', supplier('Hollow Reed'))
    const refused = await room.post('/api/setup/suppliers/import', { rows: read.map(({ id, version, values }: Record<string, unknown>) => ({ id, version, values })) })
    expect([refused.status, refused.body.errors[0].path]).toEqual([422, 'rows[1].values.name'])
    expect((await rows('suppliers')).map(({ values }) => values.name)).toEqual(['Hollow Reed'])
  })

  test('a cell that a spreadsheet would run goes out neutralised and comes in as it was', async () => {
    const traps = ['=HYPERLINK("x")', '+1+1', '-2+3', '@SUM(A1)', '＝1+1', '＋1', '－2', '＠SUM(A1)']
    for (const [index, note] of traps.entries()) await room.post('/api/setup/zones', { values: { name: `Zone ${index}`, note, sourcesRule: null } })
    const file = await csvOf('zones')
    const cells = Papa.parse<string[]>(file, { skipEmptyLines: true }).data.slice(1).map((line) => line[1] ?? '')
    expect(cells).toHaveLength(traps.length)
    for (const cell of cells) expect(cell).toMatch(/^'/)
    expect((await preview('zones', file)).body.rows.map((each: { change: string }) => each.change)).toEqual(traps.map(() => 'same'))
  })
})

const tanksHeading = 'code,system,kind,rack,row,position,gross volume,net volume'
const speciesHeading = 'name,water,temperature from,temperature to,pH from,pH to,sensitive to,usual share seen'
// What is wrong, the file, and what the answer must say: row, column, and a word of the remedy.
const badFiles: [what: string, register: RegisterName | 'packing list', file: string | Buffer, row: number, column: string, remedy: RegExp][] = [
  ['nothing in it', 'suppliers', '', 1, 'species', /empty/],
  ['a heading and no row', 'suppliers', 'name\n', 2, 'name', /no row under it/],
  ['no key column', 'suppliers', 'firm,note\nPale Harbour,x', 1, 'name', /first row must name the columns/],
  ['a column twice', 'suppliers', 'name,name\nA,B', 1, 'name', /leave one of them out/],
  ['more cells than headings', 'suppliers', 'name,note\nPale, Harbour,x', 2, 'name', /needs quotes/],
  ['the same row twice', 'suppliers', 'name\nPale Harbour\npale  harbour', 3, 'name', /same supplier as row 2/],
  ['a word for a number', 'suppliers', 'name,shipping pH\nA,about seven', 2, 'shipping pH', /must be a number/],
  ['a number with its unit', 'suppliers', 'name,shipping temperature\nA,24 °C', 2, 'shipping temperature', /without its unit/],
  ['a pH nobody ships', 'suppliers', 'name,shipping pH\nA,15', 2, 'shipping pH', /at most 10/],
  ['400 degrees', 'suppliers', 'name,shipping temperature\nA,400', 2, 'shipping temperature', /at most 45/],
  ['60 ppt', 'suppliers', 'name,shipping salinity\nA,60', 2, 'shipping salinity', /at most 42/],
  ['a blank key', 'suppliers', 'name,note\n,x', 2, 'name', /missing/],
  ['a name longer than any', 'suppliers', `name\n${'x'.repeat(81)}`, 2, 'name', /at most 80/],
  ['a control character', 'suppliers', 'name\nA\u0007B', 2, 'name', /cannot be kept/],
  ['a quote that stays open', 'suppliers', 'name,note\n"Pale Harbour,x\nB,y', 2, 'species', /does not close/],
  ['a picture', 'suppliers', Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 0, 0, 13]), 1, 'species', /not a text file/],
  ['an archive named .csv', 'suppliers', Buffer.from('504b03041400000000000000', 'hex'), 1, 'species', /not a text file/],
  ['a system that is not there', 'tanks', `${tanksHeading}\nR2-01,Moon rack,glass,R2,1,1,60,50`, 2, 'system', /add it first/],
  ['a kind that is none', 'tanks', `${tanksHeading}\nR2-01,Fresh sale rack,bowl,R2,1,1,60,50`, 2, 'kind', /one of glass, tub/],
  ['a code in no form', 'tanks', `${tanksHeading}\n1/2,Fresh sale rack,glass,R2,1,1,60,50`, 2, 'code', /capital letters/],
  ['half a row number', 'tanks', `${tanksHeading}\nR2-01,Fresh sale rack,glass,R2,1.5,1,60,50`, 2, 'row', /whole number/],
  ['row zero', 'tanks', `${tanksHeading}\nR2-01,Fresh sale rack,glass,R2,0,1,60,50`, 2, 'row', /at least 1/],
  ['a range that ends before it begins', 'species', `${speciesHeading}\nX,fresh,28,22,6,7,,`, 2, 'temperature to', /ends below where it begins/],
  ['a water nobody knows', 'species', `${speciesHeading}\nX,mud,22,28,6,7,,`, 2, 'usually traded in', /one of fresh, brackish, marine/],
  ['a sensitivity nobody knows', 'species', `${speciesHeading}\nX,fresh,22,28,6,7,netting; noise,`, 2, 'sensitive to', /separated by semicolons/],
  ['an agent where it stood before', 'species', `${speciesHeading}\nX,fresh,22,28,6,7,netting; copper,`, 2, 'sensitive to', /agents have columns of their own now/],
  ['more than all of them seen', 'species', `${speciesHeading}\nX,fresh,22,28,6,7,,140`, 2, 'usual share seen', /at most 100/],
  ['a list without bags', 'packing list', 'species,count\nCherry barb,5', 1, 'bags', /no column "bags"/],
  ['no fish at all', 'packing list', 'species,count,bags\nCherry barb,0,2', 2, 'count', /count/i],
  ['half a bag', 'packing list', 'species,count,bags\nCherry barb,5,1.5', 2, 'bags', /bags/i],
  ['an origin that is none', 'packing list', 'species,count,bags,origin\nCherry barb,5,1,moon', 2, 'origin', /wild, captive bred, pond raised or unknown/],
  ['a certainty that is none', 'packing list', 'species,count,bags,identity\nCherry barb,5,1,perhaps', 2, 'identity', /sure, likely or doubtful/],
  ['a tank that is not there', 'packing list', 'species,count,bags,tank\nCherry barb,5,1,Z9-99', 2, 'tank', /no tank Z9-99/],
  ['fewer fish than bags', 'packing list', 'species,count,bags\nCherry barb,2,5', 2, 'per bag', /./],
  ['JSON cut in the middle', 'packing list', '{"format":"daily-crate/packing-list","version":1,"lines":[{"spec', 1, 'file', /export the list again/],
  ['JSON of another program', 'packing list', '{"format":"else","version":1,"lines":[{"species":"X","count":1,"bags":1}]}', 1, 'format', /daily-crate\/packing-list/],
  ['JSON with a text for a count', 'packing list', '{"format":"daily-crate/packing-list","version":1,"lines":[{"species":"X","count":"five","bags":1}]}', 1, 'count', /Line 1: Count must be a number/],
]

describe('bad files', () => {
  test.each(badFiles)('%s (%s) is told by row, column and remedy; nothing is taken in', async (_what, register, file, atRow, column, remedy) => {
    const tables = () => JSON.stringify(['supplier', 'tank', 'species', 'crate', 'command'].map((table) => room.db.raw.prepare(`SELECT * FROM ${table}`).all()))
    const before = tables()
    const answer = await sendFile(register === 'packing list' ? '/api/packing-lists/read' : `/api/setup/${register}/csv/preview`, file)
    expect([answer.status, answer.type]).toEqual([422, 'application/problem+json'])
    expect(answer.body.errors[0]).toMatchObject({ row: atRow, column })
    expect(answer.body.errors[0].message).toMatch(remedy)
    expect(tables()).toBe(before)
  })
})
