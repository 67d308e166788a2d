import { fork } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { join } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import { figuresOf, quantile, report, timed } from './figures'

const rounds = 600
const warmUp = 150

/** Devices that write at once, how often each, and how many times in turn with the bare route. */
const [devices, each, turns] = [50, 6, 3]

interface Ports {
  ours: number
  floor: number
}

/** Records checks and bags over HTTP, each beside the bare route in turn, so that both meet the same machine. */
export async function benchWrites(): Promise<void> {
  const server = fork(join(import.meta.dirname, 'writesServer.ts'), { execArgv: ['--import', 'tsx'] })
  const { ours, floor } = await new Promise<Ports>((resolve) => server.once('message', (message) => resolve(message as Ports)))
  const room = await openRoom(`http://127.0.0.1:${ours}`)
  const bare = (body: unknown) => fetch(`http://127.0.0.1:${floor}/`, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) }).then((answer) => answer.text())

  const { tanks } = await room.post<{ tanks: { id: string }[] }>('/api/systems', { name: 'Rack', water: 'fresh', sharing: 'each its own', sumpL: null, rack: 'R1', tankCount: 16, perShelf: 4, tankKind: 'glass', netVolumeL: null })
  const checkOf = (index: number) => ({ tankId: tanks[index % 16]?.id, roundNumber: 1, ate: 'all', signs: [], seen: null, note: null, replacesId: null, happenedAtMs: Date.now() })
  await compare('Record a check over HTTP', (index) => room.post('/api/checks', checkOf(index)), (index) => bare(checkOf(index)))

  for (const [what, betweenMs] of [['Record a check on fifty devices, each once a second', 1000], ['Record a check on fifty devices, each again as soon as it is answered', 0]] as const) await compareAtOnce(what, betweenMs, (index) => room.post('/api/checks', checkOf(index)), (index) => bare(checkOf(index)))
  const recorded = (await Promise.all(tanks.map(async (_, index) => (await room.get<{ timeline: { type: string }[] }>(`/api/tanks/R1-${String(index + 1).padStart(2, '0')}?entries=500`)).timeline.filter(({ type }) => type === 'check').length))).reduce((sum, each) => sum + each, 0)
  const sent = rounds + warmUp + 2 * (turns + 1) * devices * each
  console.log(`  ${sent} checks were sent, ${recorded} are recorded: ${sent === recorded ? 'none lost, none doubled' : 'NOT all'}`)

  const line = { species: 'Cherry barb', count: 800, bags: 800, perBag: 1, tankId: null }
  const { id } = await room.post<{ id: string }>('/api/crates', { supplier: 'Hollow Reed Hatchery', expectedAtMs: null, packedAtMs: null, lines: [line] })
  const { bags } = await room.get<{ bags: { id: string }[] }>(`/api/crates/${id}`)
  const bagOf = (index: number) => ({ bagIds: [bags[index]?.id], alive: 1, dead: 0, concerns: [], body: null, skinTempC: null, waterTempC: null, salinityPpt: null, note: null, happenedAtMs: Date.now() })
  await compare('Record a bag over HTTP (record, movement, stock)', (index) => room.post(`/api/crates/${id}/bags`, bagOf(index)), (index) => bare(bagOf(index)))
  server.kill()
}

async function compare(what: string, ours: (index: number) => Promise<unknown>, floor: (index: number) => Promise<unknown>): Promise<void> {
  const timings = { ours: [] as number[], floor: [] as number[] }
  for (let index = 0; index < rounds + warmUp; index += 1) {
    const [ourMs, floorMs] = [await timed(() => ours(index)), await timed(() => floor(index))]
    if (index < warmUp) continue
    timings.ours.push(ourMs)
    timings.floor.push(floorMs)
  }
  report(what, 'bare route, one insert', figuresOf(timings.ours), figuresOf(timings.floor), 2)
}

/** The same from many devices at once; in turns with the bare route. The first turn is not counted. */
async function compareAtOnce(what: string, betweenMs: number, ours: (index: number) => Promise<unknown>, floor: (index: number) => Promise<unknown>): Promise<void> {
  const timings = { ours: [] as number[], floor: [] as number[] }
  const storm = (write: (index: number) => Promise<unknown>, into: number[]): Promise<unknown> =>
    Promise.all(Array.from({ length: devices }, async (_, device) => {
      await pause(Math.random() * betweenMs)
      for (let nth = 0; nth < each; nth += 1, await pause(betweenMs)) into.push(await timed(() => write(device * each + nth)))
    }))
  for (let turn = 0; turn <= turns; turn += 1) {
    const [warmOurs, warmFloor] = turn === 0 ? [[], []] : [timings.ours, timings.floor]
    await storm(ours, warmOurs)
    await storm(floor, warmFloor)
  }
  report(what, 'bare route, one insert, as many', figuresOf(timings.ours), figuresOf(timings.floor), 2)
  const [p99, floorP99] = [quantile(timings.ours, 0.99), quantile(timings.floor, 0.99)]
  console.log(`  ${'99th percentile'.padEnd(34)}${p99.toFixed(2).padStart(8)} to ${floorP99.toFixed(2)}: ${(p99 / floorP99).toFixed(2)} times, aim: below 3, ${p99 / floorP99 < 3 ? 'met' : 'NOT met'}`)
}

async function openRoom(url: string) {
  const send = async <T>(path: string, method: string, body: unknown, headers: Record<string, string> = {}): Promise<{ answer: T; cookie: string }> => {
    const response = await fetch(url + path, { method, headers: { 'Content-Type': 'application/json', ...headers }, body: body === undefined ? null : JSON.stringify(body) })
    const answer = (await response.json()) as T
    if (!response.ok) throw new Error(`${path}: ${JSON.stringify(answer)}`)
    return { answer, cookie: (response.headers.get('set-cookie') ?? '').split(';')[0] ?? '' }
  }
  const { cookie } = await send('/api/session/first-lead', 'POST', { name: 'Imre', passphrase: 'tide pool at dawn', pin: '4711', roomName: 'Bench', timeZone: 'UTC' })
  const session = await send<{ staff: { id: string }[] }>('/api/session', 'GET', undefined, { Cookie: cookie })
  const recording = { Cookie: cookie, 'X-Recording': session.answer.staff[0]?.id ?? '' }
  return {
    get: async <T>(path: string) => (await send<T>(path, 'GET', undefined, recording)).answer,
    post: async <T>(path: string, body: unknown) => (await send<T>(path, 'POST', body, { ...recording, 'Idempotency-Key': randomBytes(15).toString('base64url') })).answer,
  }
}
