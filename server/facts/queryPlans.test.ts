import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { productValues } from '../../core/testing/productValues'
import { createServices } from '../services'
import type { Read } from '../http/endpoint'
import { createTestRoom, plainBag, quietCheck, testNowMs, type TestRoom } from '../testing/testRoom'

// Whatever a screen reads goes by an index wherever a table grows with the years: a plan that scans one is found here
// before a room has a history to be slow with.
const growing = ['movement', 'check', 'observation', 'command', 'crate', 'line', 'bag', 'bag_record', 'bag_photo', 'lot', 'run', 'run_source', 'run_event', 'run_movement', 'recheck', 'water_load', 'tank_override', 'audit_entry', 'stay', 'round', 'contact', 'lift', 'fight', 'introduction_event', 'moved_individual', 'lot_name', 'lot_length', 'pool_event', 'pool_share', 'pool_movement', 'sign_decision', 'sign_reach', 'asked_chore', 'kitchen_tick', 'food_stock', 'given', 'feeding_order', 'chore_done', 'supply_stock', 'handover_word', 'handover_read', 'probe_sample', 'hold_begin', 'hold_entry', 'hold_carried', 'breach_decision', 'pairing', 'pairing_result', 'regimen', 'dose', 'water_change', 'water_contents', 'alarm_answer', 'trial_crate', 'trial_look']
/** Screens that people have open all day; those of Setup are read now and then, and show whole tables. */
const screens = ['/api/today', '/api/due', '/api/crates', '/api/crates/:crateId', '/api/crates/:crateId/placements', '/api/crates/:crateId/preparation', '/api/crates/:crateId/tank-choice', '/api/bench', '/api/bench/runs/:runId', '/api/room', '/api/tanks/:code', '/api/rounds/today', '/api/move-check', '/api/move-choices', '/api/tanks/:tankId/catch', '/api/vessels', '/api/introductions', '/api/introduction-plan', '/api/contacts/trace', '/api/tools', '/api/plans', '/api/plan-choices', '/api/kitchen', '/api/kitchen/larder', '/api/chores', '/api/probes', '/api/regimens', '/api/regimens/:regimenId', '/api/tanks/:code/dose-offer']
/** What is asked of those that say more than their address. */
const queries: Record<string, () => object> = {
  '/api/move-check': () => ({ from: `tank:${tank(0)}`, to: `tank:${tank(1)}`, fish: list() }),
  '/api/move-choices': () => ({ from: `tank:${tank(0)}`, fish: list() }),
  '/api/tanks/:tankId/catch': () => ({ fish: list() }),
  '/api/introduction-plan': () => ({ from: tank(0), to: tank(1), fish: list() }),
  '/api/tanks/:code/dose-offer': () => ({ product: productId, regimen: params.regimenId, lead: null }),
  '/api/contacts/trace': () => ({ start: `tank:${tank(0)}` }),
}
let speciesId = ''
const list = (): string => JSON.stringify([{ speciesId, strain: null, lotIds: [], quantity: 1 }])
const tank = (nth: number): string => room.tanks[nth]?.id ?? ''

let room: TestRoom
let reads: Read[]
const asked = new Map<string, Set<string>>()
let path = ''
const params = { crateId: '', runId: '', code: 'R1-01', tankId: '', regimenId: '' }
let productId = ''
const unsaid = { from: null, to: null, fish: null, tools: null, water: null, plan: null, chosen: null, mirror: null, divider: null, dominants: null, start: null, direction: null, days: null, hops: null, kinds: null, at: null, clock: null, only: null }

beforeAll(async () => {
  room = await createTestRoom()
  const crate = await room.crateOf([['Cherry barb', 12, 2, room.tanks[0] ?? null]])
  params.crateId = crate.id
  await room.post(`/api/crates/${crate.id}/bags`, plainBag([crate.bags[0].id], 6))
  await room.post('/api/checks', { ...quietCheck(room.tanks[0]?.id ?? ''), happenedAtMs: testNowMs })
  await room.addFish(room.tanks[0], 'Cherry barb', 6)
  params.tankId = tank(0)
  const label = { strengthMgPerMl: 10, strengthBasis: 'as copper', targetMgL: 0.18, targetBasis: 'as copper' }
  productId = (await room.post('/api/setup/agents', { values: productValues({ name: 'Copper', agent: 'copper (ionic)', ...label }) })).body.id as string
  params.regimenId = (await room.post('/api/regimens/ladders', { tankId: tank(0), note: null, happenedAtMs: testNowMs, kind: 'ladder', productId, levelDays: 21 })).body.id as string
  speciesId = (await room.get('/api/tanks/R1-01')).body.stock[0].speciesId
  // What is prepared from here on is what screens ask.
  const { raw } = room.db
  for (const { name } of raw.prepare(`SELECT name FROM sqlite_master WHERE type = 'index' AND sql LIKE '% WHERE %'`).all() as { name: string }[]) small.add(name)
  const prepare = raw.prepare.bind(raw)
  Object.assign(raw, { prepare: (sql: string) => (asked.set(path, (asked.get(path) ?? new Set()).add(sql)), prepare(sql)) })
  reads = createServices({ db: room.db, now: () => testNowMs }).endpoints.filter((each): each is Read => each.kind === 'read')
})
afterAll(() => room.db.close())

/** Indexes of what is open alone, which is never much. */
const small = new Set<string>()
/** What goes by these finds a good part of all there ever was. */
const coarse = /INDEX (movement_kind \(kind=\?\)|observation_sign \(word=\?\))/

/** Names of tables that a statement goes through from end to end, or as good as that, by the name it gives them. */
function scanned(sql: string): string[] {
  const plan = room.db.raw.prepare(`EXPLAIN QUERY PLAN ${sql}`).all(...([] as unknown[])) as { detail: string }[]
  const aliases = new Map([...sql.matchAll(/(?:FROM|JOIN)\s+"?(\w+)"?\s+(?:AS\s+)?"?(\w+)"?/gi)].map(([, table = '', alias = '']) => [alias, table]))
  return plan.flatMap(({ detail }) => {
    const [, name = '', index = ''] = /^SCAN (\w+)(?:.* INDEX (\w+))?/.exec(detail) ?? []
    if (coarse.test(detail)) return [detail]
    if (small.has(index)) return []
    const table = growing.includes(name) ? name : (aliases.get(name) ?? '')
    return growing.includes(table) ? [`${table}: ${detail}`] : []
  })
}

test.each(screens)('%s goes by indexes', (screen) => {
  const read = reads.find((each) => each.path === screen)
  if (!read) throw new Error(`there is no ${screen}`)
  path = screen
  try {
    read.read({ params, query: { ...unsaid, ...queries[screen]?.() }, nowMs: testNowMs })
  } catch (error) {
    // A run that is not there: its statements were prepared all the same.
    expect(String(error)).toContain('no such')
  }
  const statements = [...(asked.get(screen) ?? []), ...(asked.get('') ?? [])].filter((sql) => /^\s*(select|with)\b/i.test(sql))
  expect(statements.length).toBeGreaterThan(0)
  path = 'plans'
  expect(statements.flatMap((sql) => scanned(sql).map((how) => `${how} in ${sql.replace(/\s+/g, ' ').slice(0, 120)}`))).toEqual([])
})
