import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import request from 'supertest'
import { totalBags, type CrateView } from '../../core/crates/crateView'
import { createTestRoom, plainBag, type TestRoom } from '../testing/testRoom'

let room: TestRoom
beforeAll(async () => {
  room = await createTestRoom()
})
afterAll(() => room.db.close())

const view = async (crate: CrateView): Promise<CrateView> => (await room.get(`/api/crates/${crate.id}`)).body
const readList = (text: string | Buffer) =>
  request(room.app).post('/api/packing-lists/read').set('Cookie', room.cookie).set('Content-Type', 'text/csv').send(text)

describe('a crate from list to tank', () => {
  test('a plain bag puts its fish in the bag, placing puts them in the planned tank', async () => {
    const [r1] = room.tanks
    const crate = await room.crateOf([['Cherry barb', 16, 2, r1!]])
    const [first, second] = crate.bags
    expect((await room.post(`/api/crates/${crate.id}/bags`, plainBag([first.id], 8))).status).toBe(201)
    expect((await view(crate)).bags.map((bag) => bag.inBag)).toEqual([8, 0])
    await room.post(`/api/crates/${crate.id}/bags`, { ...plainBag([second.id], 6), dead: 1, concerns: ['water'], body: 'thin', waterTempC: 21.5, note: 'cloudy' })
    const opened = await view(crate)
    expect(totalBags(opened.bags)).toMatchObject({ opened: 2, listed: 16, alive: 14, dead: 1, short: 1, extra: 0, inBags: 14 })
    expect(opened.bags[1]?.record).toMatchObject({ alive: 6, dead: 1, concerns: ['water'], body: 'thin', waterTempC: 21.5, note: 'cloudy', staffName: 'Imre' })
    const placed = await room.post(`/api/crates/${crate.id}/placements`, { tankId: null, happenedAtMs: room.happenedAtMs })
    expect(placed.body).toEqual({ placed: 14, left: 0 })
    expect((await view(crate)).went).toEqual([{ lineId: crate.lines[0].id, tankCode: 'R1-01', fish: 14 }])
    expect(await room.stockIn(r1)).toEqual({ [crate.lines[0].lotId]: 14 })
    expect(room.faults()).toEqual([])
  })

  test('"the same" records several bags with one command, or none of them', async () => {
    const crate = await room.crateOf([['Kuhli loach', 30, 3, room.tanks[1]!]])
    const [a, b, c] = crate.bags.map((bag: { id: string }) => bag.id)
    await room.post(`/api/crates/${crate.id}/bags`, plainBag([b], 10))
    const clash = await room.post(`/api/crates/${crate.id}/bags`, plainBag([a, b, c], 10))
    expect(clash.status).toBe(409)
    expect(clash.body.detail).toMatch(/Bag 2 was recorded already \(10 alive, 0 dead, by Imre\)/)
    expect((await view(crate)).bags.map((bag) => bag.inBag)).toEqual([0, 10, 0])
    expect((await room.post(`/api/crates/${crate.id}/bags`, plainBag([a, c], 10))).status).toBe(201)
    expect(totalBags((await view(crate)).bags)).toMatchObject({ opened: 3, alive: 30 })
  })

  test('undo gives the bag back, and says what is in the way once its fish moved on', async () => {
    const crate = await room.crateOf([['Honey gourami', 5, 1, room.tanks[2]!]])
    const bagId = crate.bags[0].id
    await room.post(`/api/crates/${crate.id}/bags`, { ...plainBag([bagId], 4), dead: 1 })
    expect((await room.post(`/api/crates/${crate.id}/undone-bags`, { bagIds: [bagId], happenedAtMs: room.happenedAtMs })).status).toBe(201)
    expect((await view(crate)).bags[0]).toMatchObject({ record: null, inBag: 0 })
    expect((await room.post(`/api/crates/${crate.id}/undone-bags`, { bagIds: [bagId], happenedAtMs: room.happenedAtMs })).body.detail).toBe('Bag 1 has no record to undo')
    await room.post(`/api/crates/${crate.id}/bags`, plainBag([bagId], 5))
    await room.post(`/api/crates/${crate.id}/placements`, { tankId: room.tanks[2]!.id, happenedAtMs: room.happenedAtMs })
    const late = await room.post(`/api/crates/${crate.id}/undone-bags`, { bagIds: [bagId], happenedAtMs: room.happenedAtMs })
    expect(late.status).toBe(409)
    expect(late.body.detail).toBe('Only 0 of these 5 fish are still there (5 went on to R1-03). Take that back first.')
    expect(room.faults()).toEqual([])
  })

  test('a placing is taken back whole: every fish returns to its bag, or none does', async () => {
    const [r1, r2] = room.tanks
    const crate = await room.crateOf([['Cherry barb', 6, 3, r1!], ['Kuhli loach', 4, 1, r2!]])
    const ids = crate.bags.map((bag: { id: string }) => bag.id)
    await room.post(`/api/crates/${crate.id}/bags`, plainBag(ids.slice(0, 3), 2))
    await room.post(`/api/crates/${crate.id}/bags`, plainBag(ids.slice(3), 4))
    await room.post(`/api/crates/${crate.id}/placements`, { tankId: null, happenedAtMs: room.happenedAtMs })
    const { lastPlacement } = await view(crate)
    expect(lastPlacement).toMatchObject({ fish: 10, staffId: room.leadId })
    const undo = () => room.post(`/api/crates/${crate.id}/undone-placements`, { placementKey: lastPlacement?.key, happenedAtMs: room.happenedAtMs })
    const loss = await room.post(`/api/tanks/${r2!.id}/losses`, { lotId: crate.lines[1].lotId, quantity: 1, cause: 'jumped', note: null, happenedAtMs: room.happenedAtMs })
    expect((await undo()).body.detail).toBe('Only 3 of these 4 fish are still there (1 left by a loss). Take that back first.')
    expect(totalBags((await view(crate)).bags).inBags).toBe(0)
    await room.post(`/api/movements/${loss.body.movementIds[0]}/reversal`, { reason: null, happenedAtMs: room.happenedAtMs })
    expect((await undo()).body).toEqual({ returned: 10 })
    expect((await view(crate)).bags.map((bag) => bag.inBag)).toEqual([2, 2, 2, 4])
    expect((await undo()).status).toBe(409)
    expect((await view(crate)).lastPlacement).toBeNull()
    expect(room.faults()).toEqual([])
  })

  test('a tank chosen on an old view is refused with the value that stands', async () => {
    const crate = await room.crateOf([['Dwarf rainbowfish', 4, 1, null]])
    const address = `/api/crates/${crate.id}/lines/${crate.lines[0].id}/tank`
    expect((await room.put(address, { tankId: room.tanks[3]!.id, version: 1 })).body).toEqual({ version: 2 })
    const stale = await room.put(address, { tankId: null, version: 1 })
    expect(stale.status).toBe(409)
    expect(stale.body).toMatchObject({ code: 'stale', current: { tankId: room.tanks[3]!.id, version: 2 } })
  })
})

describe('reading a packing list', () => {
  const heading = 'species,count,bags,per bag,tank\n'
  test.each([
    ['plain', `${heading}Cherry barb,22,3,8,R1-01\n`],
    ['byte-order mark and CRLF', `\ufeffSpecies,Count,Bags,Per Bag,Tank\r\n"Cherry barb",22,3,8,r1-01\r\n\r\n`],
    ['semicolons', 'species;count;bags;per bag;tank\nCherry barb;22;3;8;R1-01\n'],
    ['tabs, other order, another column', 'tank\tcolour\tper_bag\tbags\tspecies\tcount\nR1-01\tred\t8\t3\tCherry barb\t22\n'],
  ])('%s', async (_, csv) => {
    const answer = await readList(csv)
    expect(answer.status).toBe(200)
    expect(answer.body.lines).toMatchObject([{ species: 'Cherry barb', count: 22, bags: 3, perBag: 8, tankId: room.tanks[0]!.id, isNewSpecies: false }])
  })

  test('what else a list says of its lines is read with them; a decimal comma is a decimal point', async () => {
    const answer = await readList('species;count;bags;price each;size;capture;eats;promised;invoiced\nPuntius titteya;8;1;2,50;3.5;hand net;granules;display;9\n')
    expect(answer.body.lines).toMatchObject([{ species: 'Puntius titteya', isNewSpecies: false, priceEach: 2.5, sizeCm: 3.5, capture: 'hand net', ateBefore: 'granules', promisedTo: 'display', billed: 9 }])
    const crate = await room.crateOf([['puntius TITTEYA', 8, 1, null], ['Cherry barb', 8, 1, null]])
    expect(crate.lines.map(({ species }: { species: string }) => species)).toEqual(['Cherry barb', 'Cherry barb'])
  })

  test('fifty megabytes are refused before they are read', async () => {
    expect((await readList(Buffer.alloc(50_000_000, 'a'))).status).toBe(413)
  })

  test('Windows-1252 is read as it was written', async () => {
    const answer = await readList(Buffer.from('species,count,bags\nScal\xe1rio p\xe9rola,4,2\n', 'latin1'))
    expect(answer.body.lines[0]).toMatchObject({ species: 'Scalário pérola', isNewSpecies: true, tankId: null })
  })

  test.each([
    ['empty file', '', 'row 1, species', /empty/],
    ['no heading', 'Cherry barb,22,3\n', 'row 1, species', /no column "species"/],
    ['heading twice', 'species,bags,bags\nA,1,1\n', 'row 1, bags', /twice/],
    ['open quote', `${heading}"Cherry barb,22,3,8,\nKuhli loach,1,1,1,\n`, 'row 2, species', /does not close/],
    ['words for a number', `${heading}Cherry barb,many,3,8,\n`, 'row 2, count', /whole number, not "many"/],
    ['fraction', `${heading}Cherry barb,22.5,3,8,\n`, 'row 2, count', /whole number/],
    ['negative', `${heading}Cherry barb,22,-3,8,\n`, 'row 2, bags', /below zero/],
    ['zero', `${heading}Cherry barb,0,3,,\n`, 'row 2, count', /is 0/],
    ['figures that cannot all be true', `${heading}Cherry barb,22,2,8,\n`, 'row 2, per bag', /2 bags of 8 do not make 22/],
    ['more bags than fish', `${heading}Cherry barb,2,5,,\n`, 'row 2, per bag', /5 bags cannot share 2/],
    ['unknown tank', `${heading}Cherry barb,8,1,8,Z9-99\n`, 'row 2, tank', /no tank Z9-99/],
    ['no species', `${heading},8,1,8,\n`, 'row 2, species', /names no species/],
    ['comma in a name', `${heading}Barb, cherry,8,1,8,R1-01\n`, 'row 2, species', /needs quotes/],
    ['neither count nor per bag', 'species,bags,count\nCherry barb,2,\n', 'row 2, count', /needs a count/],
    ['heading only', heading, 'row 2, species', /no line/],
    ['zero byte', `${heading}Cherry\0barb,8,1,8,\n`, 'row 1, species', /not a text file/],
    ['an archive called .csv', 'PK\u0003\u0004\u0014\u0000\u0008', 'row 1, species', /not a text file/],
    ['a heading in other words', 'Ware,How many\nPuntius titteya,4\n', 'row 1, species', /no column "species".*say below which column/],
    ['a price with its money', 'species,count,bags,price\nCherry barb,8,1,2.50 EUR\n', 'row 2, price', /plain number without its unit, not "2.50 EUR"/],
    ['a price below nothing', 'species,count,bags,price\nCherry barb,8,1,-2\n', 'row 2, price', /plain number/],
    ['sizes in mixed units', 'species,count,bags,size cm\nCherry barb,8,1,3\nKuhli loach,8,1,2 in\n', 'row 3, size cm', /without its unit, not "2 in"/],
    ['a size of nothing', 'species,count,bags,size cm\nCherry barb,8,1,0\n', 'row 2, size cm', /below 0.2/],
    ['a size of a whale', 'species,count,bags,size cm\nCherry barb,8,1,900\n', 'row 2, size cm', /above 200/],
    ['a formula for a count', `${heading}Cherry barb,=2+2,1,8,\n`, 'row 2, count', /whole number, not "=2\+2"/],
    ['an origin nobody knows', 'species,count,bags,origin\nCherry barb,8,1,moon\n', 'row 2, origin', /wild, captive bred, pond raised or unknown/],
    ['a certainty nobody knows', 'species,count,bags,identity\nCherry barb,8,1,maybe\n', 'row 2, identity', /sure, likely or doubtful/],
    ['a story for a name', `${heading}${'x'.repeat(81)},8,1,8,\n`, 'row 2, species', /longer than 80/],
    ['a story for what it ate', `species,count,bags,seen eating\nCherry barb,8,1,${'x'.repeat(81)}\n`, 'row 2, seen eating', /longer than 80/],
    ['more fish than a line holds', `${heading}Cherry barb,20001,9,,\n`, 'row 2, count', /above 20000/],
    ['more fish than a bag holds', `${heading}Cherry barb,,1,5001,\n`, 'row 2, per bag', /above 5000/],
    ['too many bags in all', `${heading}A,600,600,,\nB,600,600,,\n`, 'row 1, bags', /at most 1000 bags/],
  ])('%s is told by row and column', async (_, csv, path, message) => {
    const answer = await readList(csv)
    expect(answer.status).toBe(422)
    expect(answer.headers['content-type']).toMatch(/^application\/problem\+json/)
    expect(answer.body.errors).toContainEqual(expect.objectContaining({ path, message: expect.stringMatching(message) }))
  })
})
