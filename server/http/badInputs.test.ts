import { afterAll, beforeAll, describe, expect, test } from '@jest/globals'
import request from 'supertest'
import { createTestRoom, newKey, plainBag, quietCheck, testNowMs, type TestRoom } from '../testing/testRoom'

let room: TestRoom
/** Addresses and good bodies of every write; each bad input is one of these with one thing wrong. */
let good: Record<string, { method: 'post' | 'put'; path: string; body: Record<string, unknown> }>
let before: string
const happenedAtMs = testNowMs
const tables = ['command', 'movement', 'stock', 'bag_record', 'check', 'crate', 'line', 'bag', 'lot', 'tank', 'system', 'staff', 'species', 'supplier', 'place', 'room', 'house_limit', 'audit_entry', 'list_mapping']
const everything = (): string => JSON.stringify(tables.map((table) => room.db.raw.prepare(`SELECT * FROM "${table}"`).all()))

beforeAll(async () => {
  room = await createTestRoom()
  const [tank, other] = room.tanks
  const lotId = await room.addFish(tank, 'Cherry barb', 10)
  const crate = await room.crateOf([['Kuhli loach', 10, 2, tank!]])
  const list = { species: 'Cherry barb', count: 8, bags: 1, perBag: 8, tankId: null }
  good = {
    move: { method: 'post', path: `/api/tanks/${tank!.id}/moves`, body: { lotId, quantity: 1, toTankId: other!.id, note: null, happenedAtMs } },
    loss: { method: 'post', path: `/api/tanks/${tank!.id}/losses`, body: { lotId, quantity: 1, cause: 'jumped', note: null, happenedAtMs } },
    release: { method: 'post', path: `/api/tanks/${tank!.id}/releases`, body: { lotId, quantity: 1, reason: 'sold', note: null, happenedAtMs } },
    count: { method: 'post', path: `/api/tanks/${tank!.id}/counts`, body: { lotId, expected: 10, counted: 9, reason: 'counted', happenedAtMs } },
    add: { method: 'post', path: `/api/tanks/${tank!.id}/additions`, body: { species: 'Cherry barb', quantity: 1, how: 'born', note: null, happenedAtMs } },
    crate: { method: 'post', path: '/api/crates', body: { supplier: 'Hollow Reed', expectedAtMs: null, packedAtMs: null, lines: [list] } },
    bag: { method: 'post', path: `/api/crates/${crate.id}/bags`, body: plainBag([crate.bags[0].id], 5) },
    undo: { method: 'post', path: `/api/crates/${crate.id}/undone-bags`, body: { bagIds: [crate.bags[0].id], happenedAtMs } },
    place: { method: 'post', path: `/api/crates/${crate.id}/placements`, body: { tankId: null, happenedAtMs } },
    unplace: { method: 'post', path: `/api/crates/${crate.id}/undone-placements`, body: { placementKey: 'never-placed', happenedAtMs } },
    choose: { method: 'put', path: `/api/crates/${crate.id}/lines/${crate.lines[0].id}/tank`, body: { tankId: null, version: 1 } },
    check: { method: 'post', path: '/api/checks', body: quietCheck(tank!.id) },
    system: { method: 'post', path: '/api/systems', body: { name: 'New', water: 'fresh', sharing: 'each its own', sumpL: null, rack: 'R9', tankCount: 2, perShelf: 2, tankKind: 'glass', netVolumeL: null } },
    editCrate: { method: 'put', path: `/api/crates/${crate.id}`, body: { supplier: 'Hollow Reed', expectedAtMs: null, packedAtMs: null, note: null, version: 1 } },
    addLine: { method: 'post', path: `/api/crates/${crate.id}/lines`, body: { ...list } },
    editLine: { method: 'put', path: `/api/crates/${crate.id}/lines/${crate.lines[0].id}`, body: { species: 'Kuhli loach', count: 10, bags: 2, perBag: null, version: 1 } },
    supplier: { method: 'post', path: '/api/setup/suppliers', body: { values: { name: 'Pale Harbour', shippingTempC: 24, shippingSalinityPpt: null, shippingPh: null, shippingAlkalinityMeqL: null, usualWater: null, claimWindowHours: null, claimRules: null, transitHours: null, note: null } } },
    suppliers: { method: 'post', path: '/api/setup/suppliers/import', body: { rows: [{ id: null, version: null, values: { name: 'Pale Harbour', shippingTempC: 24, shippingSalinityPpt: null, shippingPh: null, shippingAlkalinityMeqL: null, usualWater: null, claimWindowHours: null, claimRules: null, transitHours: null, note: null } }] } },
    adopt: { method: 'post', path: '/api/setup/species/adoptions', body: { names: ['Zebra danio'] } },
    limit: { method: 'put', path: '/api/house-limits/tempRise', body: { value: 2, source: null, version: 0 } },
    settings: { method: 'put', path: '/api/room/settings', body: { name: 'Room', timeZone: 'UTC', temperatureUnit: '°C', volumeUnit: 'L', salinityUnit: 'ppt', sgReference: '25/25', version: 1 } },
    pin: { method: 'post', path: `/api/staff/${room.leadId}/pin`, body: { pin: '4712' } },
    passphrase: { method: 'post', path: `/api/staff/${room.leadId}/passphrase`, body: { passphrase: 'another one, longer' } },
    rename: { method: 'put', path: `/api/staff/${room.leadId}`, body: { name: 'Imre', role: 'lead', version: 1 } },
    person: { method: 'post', path: '/api/staff', body: { name: 'Oona', role: 'keeper', pin: '2222', passphrase: null } },
  }
  before = everything()
})
afterAll(() => room.db.close())

const send = (name: string, change: Record<string, unknown>) => {
  const target = good[name]!
  return target.method === 'post' ? room.post(target.path, { ...target.body, ...change }) : room.put(target.path, { ...target.body, ...change })
}
const expectProblem = (answer: request.Response, status: number, path?: string): void => {
  expect([answer.status, answer.body]).toEqual([status, expect.objectContaining({ status, detail: expect.stringMatching(/\w/) })])
  expect(answer.headers['content-type']).toMatch(/^application\/problem\+json/)
  if (path) expect(answer.body.errors.map((each: { path: string }) => each.path)).toContain(path)
  expect(JSON.stringify(answer.body)).not.toMatch(/\bat .*\.ts|node_modules|SQLITE|Error:/)
  expect(everything()).toBe(before)
}
const huge = 'x'.repeat(100_000)

describe('the same for what a lead sets up and what is corrected', () => {
  test.each<[string, string, unknown]>([
    ['editCrate', 'supplier', ''], ['editCrate', 'supplier', 7], ['editCrate', 'expectedAtMs', 'tomorrow'], ['editCrate', 'expectedAtMs', 1.5], ['editCrate', 'note', huge], ['editCrate', 'version', 0], ['editCrate', 'version', null],
    ['addLine', 'species', '   '], ['addLine', 'species', 'a\0b'], ['addLine', 'count', 0], ['addLine', 'count', '8'], ['addLine', 'bags', 1.5], ['addLine', 'bags', 1001], ['addLine', 'perBag', -1], ['addLine', 'tankId', 'nowhere'], ['addLine', 'origin', 'moon'],
    ['editLine', 'identity', 'perhaps'], ['editLine', 'count', null], ['editLine', 'strain', ['albino']], ['editLine', 'promisedTo', huge], ['editLine', 'version', '1'], ['editLine', 'moon', 1],
    ['adopt', 'names', []], ['adopt', 'names', 'Zebra danio'], ['adopt', 'names', null],
    ['limit', 'value', '2'], ['limit', 'value', null], ['limit', 'value', 1e9], ['limit', 'value', -1], ['limit', 'source', huge], ['limit', 'version', -1],
    ['settings', 'name', ''], ['settings', 'timeZone', 'Moon/Crater'], ['settings', 'temperatureUnit', 'K'], ['settings', 'volumeUnit', 'pint'], ['settings', 'salinityUnit', null], ['settings', 'sgReference', '17/3'],
    ['pin', 'pin', '12'], ['pin', 'pin', 4711], ['pin', 'pin', '١٢٣٤'], ['passphrase', 'passphrase', 'short'], ['rename', 'role', 'owner'], ['rename', 'name', ' '], ['rename', 'version', 1e12],
  ])('%s with %s = %j', async (name, field, value) => expectProblem(await send(name, { [field]: value }), 422, field))

  test.each<[string, Record<string, unknown>, string]>([
    ['a name that is none', { name: '' }, 'values.name'],
    ['water too hot to ship', { shippingTempC: 400 }, 'values.shippingTempC'],
    ['text for a figure', { shippingPh: 'seven' }, 'values.shippingPh'],
    ['a list for a figure', { transitHours: [1] }, 'values.transitHours'],
    ['a field no supplier has', { phone: '1' }, 'values.phone'],
  ])('a supplier with %s', async (_what, change, path) => {
    const values = { ...(good.supplier!.body.values as object), ...change }
    expectProblem(await send('supplier', { values }), 422, path)
    expectProblem(await send('suppliers', { rows: [{ id: null, version: null, values }] }), 422, `rows[0].${path}`)
  })

  test('a list that is none, or endless', async () => {
    for (const rows of [null, {}, [], [7], Array.from({ length: 2001 }, () => (good.suppliers!.body.rows as unknown[])[0])]) expectProblem(await send('suppliers', { rows }), 422)
    expectProblem(await send('supplier', { values: null }), 422)
  })

  test('what is not there is not found', async () => {
    for (const [method, path, body] of [['put', '/api/setup/suppliers/nobody', { version: 1, ...good.supplier!.body }], ['post', '/api/setup/tanks/nobody/retirement', { version: 1, isRetired: true }], ['put', '/api/house-limits/constructor', good.limit!.body], ['put', '/api/staff/nobody', good.rename!.body]] as const) {
      expectProblem(await (method === 'put' ? room.put(path, body) : room.post(path, body)), 404)
    }
  })
})

describe('a wrong value names its field and writes nothing', () => {
  test.each<[string, string, unknown]>([
    ['move', 'quantity', true], ['move', 'quantity', '1'], ['move', 'quantity', -1], ['move', 'quantity', 0], ['move', 'quantity', 1.5], ['move', 'quantity', null],
    ['move', 'quantity', {}], ['move', 'quantity', [1]], ['move', 'quantity', 1e300], ['move', 'quantity', 99], ['move', 'lotId', true], ['move', 'lotId', 'unknown'],
    ['move', 'lotId', '../..'], ['move', 'lotId', 'a\0b'], ['move', 'lotId', null], ['move', 'toTankId', ''], ['move', 'toTankId', { $ne: '' }], ['move', 'note', false],
    ['move', 'note', huge], ['move', 'note', 'a\0b'], ['move', 'happenedAtMs', 'yesterday'], ['move', 'happenedAtMs', testNowMs + 3_600_000], ['move', 'happenedAtMs', -5],
    ['move', 'happenedAtMs', true], ['move', 'colour', 'red'], ['loss', 'cause', 'bored'], ['loss', 'cause', true], ['loss', 'cause', null], ['loss', 'quantity', 11],
    ['release', 'reason', 'escaped'], ['release', 'quantity', 2.5], ['count', 'counted', -1], ['count', 'counted', 10], ['count', 'reason', ''], ['count', 'reason', '   '],
    ['count', 'lotId', 'unknown'], ['count', 'expected', false], ['add', 'species', ''], ['add', 'species', huge], ['add', 'species', 7], ['add', 'how', 'found'], ['add', 'quantity', 20_001],
    ['crate', 'supplier', ''], ['crate', 'supplier', true], ['crate', 'lines', []], ['crate', 'lines', null], ['crate', 'lines', 'one'], ['crate', 'expectedAtMs', 'tomorrow'],
    ['bag', 'bagIds', []], ['bag', 'bagIds', 'all'], ['bag', 'bagIds', null], ['bag', 'alive', true], ['bag', 'alive', -1], ['bag', 'alive', 0.5], ['bag', 'dead', 'two'],
    ['bag', 'dead', 5001], ['bag', 'concerns', ['weather']], ['bag', 'concerns', ['water', 'water']], ['bag', 'concerns', null], ['bag', 'body', 'round'], ['bag', 'body', true],
    ['bag', 'skinTempC', 99], ['bag', 'waterTempC', '21'], ['bag', 'waterTempC', false], ['bag', 'salinityPpt', -0.1], ['bag', 'note', huge], ['undo', 'bagIds', [true]],
    ['place', 'tankId', 'unknown'], ['place', 'tankId', 5], ['unplace', 'placementKey', true], ['unplace', 'happenedAtMs', null], ['choose', 'version', '1'], ['choose', 'version', 0], ['choose', 'tankId', 'unknown'], ['check', 'tankId', 'unknown'],
    ['check', 'ate', 'lots'], ['check', 'ate', true], ['check', 'signs', ['dancing']], ['check', 'signs', 'spots'], ['check', 'seen', -1], ['check', 'seen', 1.5], ['check', 'seen', true],
    ['check', 'roundNumber', 0], ['check', 'replacesId', 'unknown'], ['system', 'rack', 'r 1'], ['system', 'tankCount', 0], ['system', 'tankCount', 100], ['system', 'water', 'salty'],
    ['system', 'netVolumeL', 0], ['system', 'name', 'Fresh sale rack'], ['person', 'pin', '12'], ['person', 'pin', 1234], ['person', 'role', 'owner'], ['person', 'name', 'imre'],
    ['person', 'passphrase', 'short'],
  ])('%s, %s (%#)', async (name, field, value) => {
    const answer = await send(name, { [field]: value })
    const element = Array.isArray(value) && value.length === 1 && field !== 'quantity' ? `${field}[0]` : field
    expectProblem(answer, 422, element)
  })

  test.each([
    ['a line without fish', { count: 0 }, 'lines[0].count'],
    ['a line whose bags do not add up', { perBag: 3 }, 'lines[0].perBag'],
    ['a line for an unknown tank', { tankId: 'unknown' }, 'lines[0].tankId'],
    ['a line with a stray field', { price: 2 }, 'lines[0].price'],
  ])('%s', async (_, change, path) => {
    const [line] = good.crate!.body.lines as Record<string, unknown>[]
    expectProblem(await send('crate', { lines: [{ ...line, ...change }] }), 422, path)
  })

  test('more bags than a crate may hold', async () => {
    const [line] = good.crate!.body.lines as Record<string, unknown>[]
    expectProblem(await send('crate', { lines: Array(3).fill({ ...line, count: 400, bags: 400, perBag: 1 }) }), 422, 'lines')
  })

  test('one bag of another crate spoils them all', async () => {
    expectProblem(await send('bag', { bagIds: [...(good.bag!.body.bagIds as string[]), 'elsewhere'] }), 422, 'bagIds[1]')
  })

  test('every missing field is named at once', async () => {
    const answer = await room.post(good.bag!.path, {})
    expectProblem(answer, 422)
    expect(answer.body.errors.map((each: { path: string }) => each.path).sort()).toEqual(Object.keys(good.bag!.body).sort())
  })
})

describe('a request that cannot be taken', () => {
  const raw = (body: string | Buffer, type = 'application/json') =>
    request(room.app).post(good.move!.path).set('Cookie', room.cookie).set('X-Recording', room.leadId).set('Idempotency-Key', newKey()).set('Content-Type', type).send(body)

  test.each<[string, () => PromiseLike<request.Response>, number, string?]>([
    ['broken JSON', () => raw('{"quantity": 1,'), 400],
    ['JSON with NaN', () => raw('{"quantity": NaN}'), 400],
    ['deep nesting', () => raw('['.repeat(100_000)), 400],
    ['a list', () => raw('[]'), 422],
    ['a bare word', () => raw('"move"'), 422],
    ['null', () => raw('null'), 422],
    ['a prototype', () => raw('{"__proto__": {"quantity": 1}}'), 422, 'quantity'],
    ['no body', () => raw(''), 422, 'quantity'],
    ['a form', () => raw('quantity=1', 'application/x-www-form-urlencoded'), 422, 'quantity'],
    ['an unknown charset', () => raw('{}', 'application/json; charset=klingon'), 400],
    ['a false length of compression', () => raw(Buffer.from('not gzip')).set('Content-Encoding', 'gzip'), 400],
    ['three megabytes', () => raw(JSON.stringify({ note: 'x'.repeat(3_000_000) })), 413],
    ['no key', () => request(room.app).post(good.move!.path).set('Cookie', room.cookie).set('X-Recording', room.leadId).send(good.move!.body), 422, 'Idempotency-Key'],
    ['a short key', () => room.post(good.move!.path, good.move!.body, { key: 'abc' }), 422, 'Idempotency-Key'],
    ['a strange key', () => room.post(good.move!.path, good.move!.body, { key: 'a key with blanks in it' }), 422, 'Idempotency-Key'],
    ['nobody recording', () => request(room.app).post(good.move!.path).set('Cookie', room.cookie).set('Idempotency-Key', newKey()).send(good.move!.body), 403],
    ['somebody who gave no PIN', () => room.post(good.move!.path, good.move!.body, { staffId: 'somebody' }), 403],
    ['no session', () => request(room.app).post(good.move!.path).set('X-Recording', room.leadId).set('Idempotency-Key', newKey()).send(good.move!.body), 401],
    ['a forged session', () => request(room.app).post(good.move!.path).set('Cookie', 'crate_session=forged').set('X-Recording', room.leadId).set('Idempotency-Key', newKey()).send(good.move!.body), 401],
    ['a page that hides where it is from', () => request(room.app).post('/api/session/recording').set('Cookie', room.cookie).set('Origin', 'null').send({ staffId: room.leadId, pin: '4711' }), 403],
    ['a name that is not ours', () => request(room.app).get('/api/session').set('Host', 'fish.elsewhere.example'), 403],
    ['a page that opens a device for somebody', () => request(room.app).post('/api/session').set('Origin', 'http://elsewhere.example').send({ name: 'Imre', passphrase: 'tide pool at dawn' }), 403],
    ['another page', () => request(room.app).post(good.move!.path).set('Cookie', room.cookie).set('X-Recording', room.leadId).set('Origin', 'http://elsewhere.example').set('Idempotency-Key', newKey()).send(good.move!.body), 403],
    ['an unknown tank', () => room.post('/api/tanks/unknown/moves', good.move!.body), 404],
    ['an unknown crate', () => room.post('/api/crates/unknown/bags', good.bag!.body), 404],
    ['an unknown movement', () => room.post('/api/movements/unknown/reversal', { reason: null, happenedAtMs }), 404],
    ['an unknown address', () => room.get('/api/anything'), 404],
    ['a path trick', () => room.get('/api/crates/..%2f..%2fetc%2fpasswd'), 404],
    ['a zero byte in a path', () => room.get('/api/crates/a%00b'), 404],
    ['a broken escape', () => room.get('/api/crates/%E0%A4%A'), 400],
    ['a very long id', () => room.get(`/api/tanks/${'x'.repeat(5000)}`), 404],
    ['a tank that is not there', () => room.get('/api/tanks/Z9-99'), 404],
    ['an empty list', () => request(room.app).post('/api/packing-lists/read').set('Cookie', room.cookie).set('Content-Type', 'text/csv').send(''), 422, 'row 1, species'],
    ['a stale choice', () => send('choose', { version: 7 }), 409],
    ['a stale count', () => send('count', { expected: 3 }), 409],
    ['an undo of a shut bag', () => send('undo', {}), 409],
    ['nothing to place', () => send('place', {}), 409],
    ['nothing placed to take back', () => send('unplace', {}), 409],
  ])('%s', async (_, attempt, status, ...path) => expectProblem(await attempt(), status, path[0]))
})

// Left out is what another of them made stale, double or unidentified by then.
test('after all of that the process lives and takes good input', async () => {
  for (const name of Object.keys(good).filter((each) => !['undo', 'unplace', 'count', 'editLine', 'suppliers', 'pin'].includes(each))) expect([name, (await send(name, {})).status]).toEqual([name, good[name]!.method === 'put' ? 200 : 201])
  expect(room.faults()).toEqual([])
})
