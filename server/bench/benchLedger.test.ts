import { afterEach, beforeEach, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { figureInputs } from '../../core/bench/bagFigures'
import type { BenchSubject, BenchView, RunView } from '../../core/bench/benchView'
import { createTestRoom, plainBag, type TestRoom } from '../testing/testRoom'
import { tries } from '../../core/testing/tries'
import { productValues } from '../../core/testing/productValues'

let room: TestRoom
beforeEach(async () => void (room = await createTestRoom({ sharing: 'each its own' })))
afterEach(() => {
  expect(room.faults()).toEqual([])
  room.db.close()
})

const now = (): number => room.clock.nowMs
const post = async <T = Record<string, unknown>>(path: string, body: object): Promise<T & { code?: string; errors?: { path: string; message: string }[]; detail?: string }> => (await room.post(path, body)).body
const subjectOf = async (lineId: string): Promise<BenchSubject> => (await room.get(`/api/bench/subject?line=${lineId}`)).body
const runNow = async (id: string): Promise<RunView> => (await room.get(`/api/bench/runs/${id}`)).body
const bodyOf = (subject: BenchSubject, schoolKey: string | null, more: object = {}) => ({
  ...{ kind: 'acclimation', schoolKey, agentId: null, tankId: subject.tank?.id ?? null, toOutside: null, isPooled: true, vessel: 'bucket', vesselL: 60, dropsPerMl: 20, isDark: false, sentence: null, predicted: null, happenedAtMs: now() },
  sources: subject.sources.map(({ placeId, lotId, quantity }) => ({ placeId, lotId, quantity })),
  figures: Object.fromEntries(figureInputs.map(({ name }) => [name, subject.figures[name]?.value ?? null])),
  words: subject.words,
  ...more,
})
/** A crate of lines, all opened. */
async function openedCrate(lines: [string, number, number][], findings: object = {}) {
  const crate = await room.crateOf(lines.map(([species, count, bags], index) => [species, count, bags, room.tanks[index] ?? null]), 'as the bench is tried')
  for (const bag of crate.bags) await post(`/api/crates/${crate.id}/bags`, { ...plainBag([bag.id], bag.listed), ...findings })
  return crate as { id: string; lines: { id: string; lotId: string }[]; bags: { id: string }[] }
}

test('a dip is refused for fish that were not found strong, bag by bag, and taken for those that were', async () => {
  const weak = await openedCrate([['Cherry barb', 4, 2]])
  const agent = await post<{ id: string }>('/api/setup/agents', { values: productValues({ name: 'hydrogen peroxide', strengthMgPerMl: 30, dipMgL: 75, dipMinutes: 5, cautions: 'eye protection' }) })
  const dip = { kind: 'dip', agentId: agent.id }
  expect((await post('/api/bench/runs', bodyOf(await subjectOf(weak.lines[0]?.id ?? ''), null, dip))).errors).toEqual([{ path: 'kind', message: 'A dip is only for fish that arrived strong; bag 1: no concern was noted' }])
  const strong = await openedCrate([['Cherry barb', 4, 2]], { behaviour: 'lively', body: 'full' })
  const subject = await subjectOf(strong.lines[0]?.id ?? '')
  expect(subject.triage?.step).toBe('as planned; a harsher entry dip is possible')
  const { id } = await post<{ id: string }>('/api/bench/runs', bodyOf(subject, null, dip))
  expect((await runNow(id)).plan.steps.map(({ title, minutes }) => [title, minutes])).toEqual([['Make the dip up', null], ['Fish in', null], ['Dip', 5], ['Net over into R1-01', null]])
})

test('two lots in one bucket are counted apart', async () => {
  const crate = await openedCrate([['Cherry barb', 4, 1], ['Zebra danio', 6, 1]])
  const [first, second] = [await subjectOf(crate.lines[0]?.id ?? ''), await subjectOf(crate.lines[1]?.id ?? '')]
  const both = { ...first, sources: [...first.sources, ...second.sources] }
  const { id } = await post<{ id: string }>('/api/bench/runs', bodyOf(both, 'siphon'))
  const step = (stepIndex: number) => post(`/api/bench/runs/${id}/steps`, { stepIndex, happenedAtMs: now() })
  await step(0)
  await step(1)
  const count = (counts: object[]) => post(`/api/bench/runs/${id}/count`, { stepIndex: 2, counts, tankId: null, look: 'better', cause: 'jumped', note: null, happenedAtMs: now() })
  const lots = crate.lines.map(({ lotId }) => lotId)
  expect((await count([{ lotId: lots[0], alive: 0, dead: 0 }])).errors?.[0]).toEqual({ path: 'counts', message: 'Nobody was counted out' })
  expect((await count([{ lotId: lots[0], alive: 4, dead: 0 }, { lotId: lots[0], alive: 1, dead: 0 }])).errors?.[0]?.message).toBe('A lot is counted twice')
  expect(await count([{ lotId: lots[0], alive: 4, dead: 0 }, { lotId: lots[1], alive: 5, dead: 1 }])).toEqual({ alive: 9, dead: 1, rest: 0 })
  expect(await room.stockIn(room.tanks[0])).toEqual({ [lots[0] ?? '']: 4, [lots[1] ?? '']: 5 })
})

test('lines that go to the same tank may share a vessel: their bags are one subject, judged by the one that bears least', async () => {
  const crate = await openedCrate([['Cherry barb', 4, 2], ['Zebra danio', 6, 1], ['Honey gourami', 2, 1]])
  const [barbs = '', danios = ''] = crate.lines.map(({ id }) => id)
  expect((await room.put(`/api/crates/${crate.id}/lines/${danios}/tank`, { tankId: room.tanks[0]?.id, version: 1 })).status).toBe(200)
  expect((await subjectOf(barbs)).company).toEqual([{ lineId: danios, species: 'Zebra danio', bags: 1, fish: 6 }])
  const both = await subjectOf(`${barbs}&line=${danios}`)
  expect(both).toMatchObject({ title: '2 bags of Cherry barb and 1 bag of Zebra danio', lineIds: [barbs, danios], company: [], tank: { code: 'R1-01' } })
  expect(both.figures).toMatchObject({ bags: { value: 3 }, fish: { value: 3 } })
  expect(both.sources.map(({ species, quantity }) => [species, quantity])).toEqual([['Cherry barb', 2], ['Cherry barb', 2], ['Zebra danio', 6]])
  // A look that says no frees the plan of both.
  const { id } = await post<{ id: string }>('/api/bench/runs', bodyOf(both, null, { kind: 'look', schoolKey: null }))
  expect((await runNow(id)).crate).toEqual({ id: crate.id, number: 1 })
  expect((await subjectOf(barbs)).sources).toEqual([])
  await post(`/api/bench/runs/${id}/steps`, { stepIndex: 0, happenedAtMs: now() })
  await post(`/api/bench/runs/${id}/decision`, { outcome: 'do not add', note: null, happenedAtMs: now() })
  expect((await room.get(`/api/crates/${crate.id}`)).body.lines.map(({ tank }: { tank: { code: string } | null }) => tank?.code ?? null)).toEqual([null, null, 'R1-03'])
})

test('bags of two crates are not poured together; a line that is not there is said', async () => {
  const [one, other] = [await openedCrate([['Cherry barb', 4, 1]]), await openedCrate([['Cherry barb', 4, 1]])]
  const [first, second] = [await subjectOf(one.lines[0]?.id ?? ''), await subjectOf(other.lines[0]?.id ?? '')]
  const refused = await post<{ errors: object[] }>('/api/bench/runs', bodyOf({ ...first, sources: [...first.sources, ...second.sources] }, 'siphon'))
  expect(refused.errors).toEqual([{ path: 'sources', message: 'Bags of different crates came in different water: acclimate them apart' }])
  const [mixed, missing] = [await room.get(`/api/bench/subject?line=${one.lines[0]?.id}&line=${other.lines[0]?.id}`), await room.get(`/api/bench/subject?line=${one.lines[0]?.id}&line=none`)]
  expect([mixed.status, missing.status]).toEqual([409, 404])
})

test('a ramp goes on for days after the fish are in: each day a step, then the run ends', async () => {
  const crate = await openedCrate([['Silver mono', 3, 1]], { salinityPpt: 10 })
  const subject = await subjectOf(crate.lines[0]?.id ?? '')
  const figures = { ...bodyOf(subject, 'ramp').figures, tankPpt: 34 }
  const { id } = await post<{ id: string }>('/api/bench/runs', bodyOf(subject, 'ramp', { figures, words: { ...subject.words, waterClass: 'brackish', spareTank: 'yes' } }))
  const { plan } = await runNow(id)
  const out = plan.steps.findIndex(({ countsOut }) => countsOut)
  // Nobody goes on before the tank was read to stand at what the bag reads.
  const go = (): Promise<{ detail?: string }> => post(`/api/bench/runs/${id}/steps`, { stepIndex: 0, happenedAtMs: now() })
  const read = (salinityPpt: number) => post(`/api/bench/runs/${id}/readings`, { tempC: null, salinityPpt, ph: null, tanMgL: null, isSimulated: false, happenedAtMs: now() })
  expect((await go()).detail).toBe('Read the tank first: it must stand within 1.0 ppt of 10.0 ppt')
  await read(34)
  expect((await go()).detail).toContain('Read the tank first')
  await read(10.5)
  for (let index = 0; index < plan.steps.length; index += 1) {
    room.clock.nowMs += (plan.steps[index]?.minutes ?? 1) * 60_000
    if (index === out) await post(`/api/bench/runs/${id}/count`, { stepIndex: index, counts: [{ lotId: crate.lines[0]?.lotId, alive: 3, dead: 0 }], tankId: null, look: 'as expected', cause: 'unknown', note: null, happenedAtMs: now() })
    else await post(`/api/bench/runs/${id}/steps`, { stepIndex: index, happenedAtMs: now() })
    const run = await runNow(id)
    expect([run.outAtMs !== null, run.endedAtMs !== null]).toEqual([index >= out, index === plan.steps.length - 1])
  }
  expect(plan.steps.filter(({ toPpt }) => toPpt !== null).at(-1)?.toPpt).toBe(34)
  const { rechecks } = (await room.get('/api/bench')).body as BenchView
  expect(rechecks.map(({ label }) => label)).toEqual(['15 min', '1 h', '4 h', 'next morning', '24 h', '48 h'])
})

// Whatever people do on the bench, in whatever order, every fish is accounted for.
test('random work on the bench: fish that arrived are in bags, vessels and tanks, or booked as lost', async () => {
  const deeds = fc.array(fc.record({ deed: fc.constantFrom('start', 'step', 'step', 'step', 'undo', 'count', 'stop', 'place', 'undoBag', 'read'), pick: fc.nat(), school: fc.constantFrom('straight', 'netOver', 'siphon', 'rapid', 'step', 'drip'), off: fc.integer({ min: -2, max: 2 }), dead: fc.integer({ min: 0, max: 2 }) }), { minLength: 8, maxLength: 30 })
  await fc.assert(
    fc.asyncProperty(deeds, async (list) => {
      const crate = await openedCrate([['Cherry barb', 8, 2], ['Zebra danio', 9, 3]])
      const lotIds = crate.lines.map(({ lotId }) => lotId)
      const fish = (sql: string): number => Number((room.db.raw.prepare(sql).get(lotIds) as { n: number | null }).n ?? 0)
      for (const { deed, pick, school, off, dead } of list) {
        const runs = ((await room.get('/api/bench')).body as BenchView).runs.filter(({ endedAtMs }) => endedAtMs === null)
        const run = runs[pick % Math.max(1, runs.length)]
        const index = run?.events.filter(({ kind }) => kind === 'step').length ?? 0
        if (deed === 'start') {
          const subject = await subjectOf(crate.lines[pick % 2]?.id ?? '')
          if (subject.sources.length > 0) await post('/api/bench/runs', bodyOf(subject, school))
        } else if (deed === 'place') await post(`/api/crates/${crate.id}/placements`, { tankId: null, happenedAtMs: now() })
        else if (deed === 'undoBag') await post(`/api/crates/${crate.id}/undone-bags`, { bagIds: [crate.bags[pick % 5]?.id], happenedAtMs: now() })
        else if (!run) continue
        else if (deed === 'step') await post(`/api/bench/runs/${run.id}/steps`, { stepIndex: index, happenedAtMs: now() })
        else if (deed === 'undo') await post(`/api/bench/runs/${run.id}/undone-entries`, { eventId: run.events.at(-1)?.id ?? 'none', happenedAtMs: now() })
        else if (deed === 'read') await post(`/api/bench/runs/${run.id}/readings`, { tempC: 24, salinityPpt: null, ph: null, tanMgL: null, isSimulated: false, happenedAtMs: now() })
        else if (deed === 'stop') await post(`/api/bench/runs/${run.id}/stop`, { because: 'another way', happenedAtMs: now() })
        else await post(`/api/bench/runs/${run.id}/count`, { stepIndex: index, counts: run.standing.map(({ lotId, quantity }) => ({ lotId, alive: Math.max(0, quantity - dead + off), dead })), tankId: null, look: 'as expected', cause: 'found dead', note: null, happenedAtMs: now() })
        expect(room.faults()).toEqual([])
      }
      const placed = fish('SELECT sum(quantity) AS n FROM stock WHERE lot_id IN (?, ?)')
      const came = fish("SELECT sum(CASE WHEN from_place_id = 'outside' THEN quantity ELSE 0 END) - sum(CASE WHEN to_place_id = 'outside' THEN quantity ELSE 0 END) AS n FROM movement WHERE lot_id IN (?, ?)")
      expect(placed).toBe(came)
      // Nobody stands in the vessel of a run that has ended.
      expect(Number((room.db.raw.prepare('SELECT coalesce(sum(stock.quantity), 0) AS n FROM stock JOIN run ON run.id = stock.place_id WHERE run.ended_at_ms IS NOT NULL').get() as { n: number }).n)).toBe(0)
      // No bag is on two open runs.
      expect(room.db.raw.prepare('SELECT s.place_id FROM run_source s JOIN run ON run.id = s.run_id AND run.ended_at_ms IS NULL AND run.out_at_ms IS NULL JOIN bag ON bag.id = s.place_id GROUP BY s.place_id HAVING count(*) > 1').all()).toEqual([])
    }),
    { numRuns: tries(25, 10) },
  )
})
