import { randomBytes } from 'node:crypto'
import type { Command, Endpoint } from '../server/http/endpoint'
import { mutated } from './mutate'
import type { Random } from './random'
import { validBody, type Pools } from './validBody'
import type { Answer, Victim, Write } from './victim'

export interface Rush {
  sent: number
  byStatus: Map<number, number>
  /** Endpoints that were asked, and those that took something. */
  asked: Set<string>
  taken: Set<string>
  faults: string[]
  /** What the server said is in the books. */
  acknowledged: Write[]
  slowestMs: number
  slowest: string
}
export const newRush = (): Rush => ({ sent: 0, byStatus: new Map(), asked: new Set(), taken: new Set(), faults: [], acknowledged: [], slowestMs: 0, slowest: '' })

/** A key as a device makes one. */
export const newKey = (): string => randomBytes(15).toString('base64url')

/** What closes the device that strikes is asked seldom; it is opened again. */
const closing = /\/devices\/|\/api\/session(\/recording)?$|\/passphrase$|\/pin$|\/retirement$/
/** What starts a process or writes a whole room, and how often it is asked at most. */
const heavy = /\/(tank-search|keeping\/(backup|export)|claim\/pdf)$/
const heavyOdds = 0.02
/** The stream of changes never ends; signing out and new secrets of the lead would end the attack. */
const isLeftOut = ({ method, path }: Endpoint): boolean => path === '/api/events' || (method === 'delete' && path === '/api/session') || path === '/api/session/first-lead'

const strangeParts = ['x', 'toString', '__proto__', '..', '%2e%2e', '%00', 'a'.repeat(65), '%F0%9F%90%9F', '%ED%A0%80', '0', 'null']

/** Ids of the room, and of each crate those of what is in it, so that addresses and bodies speak of one thing. */
export interface Here {
  ids: Pools
  families: Record<string, Pools>
}

/** Ids of the room by the names under which addresses and bodies ask for them. */
export async function poolsOf(victim: Victim): Promise<Here> {
  const ids = (rows: readonly { id: string }[]): string[] => rows.map(({ id }) => id)
  const { tanks } = await victim.get<{ tanks: { id: string; code: string }[] }>('/api/room')
  const { crates } = await victim.get<{ crates: { id: string; number: number }[] }>('/api/crates')
  const { runs, rechecks } = await victim.get<{ runs: { id: string; events: { id: string }[] }[]; rechecks: { id: string }[] }>('/api/bench')
  const views = await Promise.all(crates.slice(0, 4).map(({ id }) => victim.get<{ lines: { id: string; lotId: string }[]; bags: { id: string }[] }>(`/api/crates/${id}`)))
  const stocks = await Promise.all(tanks.slice(0, 6).map(({ code }) => victim.get<{ stock: { lotId: string }[]; timeline?: { id: string }[] }>(`/api/tanks/${code}`)))
  const { staff } = await victim.get<{ staff: { id: string }[] }>('/api/staff')
  const rows = await Promise.all(['suppliers', 'systems', 'tanks', 'species', 'agents', 'foods', 'zones'].map(async (name) => [name, ids((await victim.get<{ rows: { id: string }[] }>(`/api/setup/${name}`)).rows)] as const))
  const tankIds = ids(tanks).slice(0, 12)
  const lots = [...stocks.flatMap(({ stock }) => stock.map(({ lotId }) => lotId)), ...views.flatMap(({ lines }) => lines.map(({ lotId }) => lotId))]
  const ofCrate = views.map(({ lines, bags }) => ({ lineId: ids(lines), bagId: ids(bags), lotId: lines.map(({ lotId }) => lotId) }))
  return {
    families: Object.fromEntries(crates.slice(0, 4).map(({ id }, index) => [id, ofCrate[index] ?? {}])),
    ids: {
      ...{ tankId: tankIds, toTankId: tankIds, code: tanks.map(({ code }) => code), crateId: ids(crates), lineId: views.flatMap(({ lines }) => ids(lines)), bagId: views.flatMap(({ bags }) => ids(bags)).slice(0, 60), lotId: lots },
      ...{ placeId: [...tankIds, ...views.flatMap(({ bags }) => ids(bags)).slice(0, 20)], runId: ids(runs), recheckId: ids(rechecks), eventId: runs.flatMap(({ events }) => ids(events)), staffId: ids(staff).filter((id) => id !== victim.leadId()) },
      ...{ id: rows.flatMap(([, each]) => each.slice(0, 5)), agentId: rows.find(([name]) => name === 'agents')?.[1] ?? [], schoolKey: ['drip', 'netOver', 'siphon', 'overflow'], situation: ['usual', 'crossing'], systemId: rows.find(([name]) => name === 'systems')?.[1] ?? [] },
    },
  }
}

/** Sends one request that is wrong somewhere, or right at an end of what is allowed, and notes what came of it. */
export async function strike(victim: Victim, endpoints: readonly Endpoint[], random: Random, pools: Here, rush: Rush): Promise<void> {
  const endpoint = random.pick(endpoints)
  if (isLeftOut(endpoint) || ((heavy.test(endpoint.path) || closing.test(endpoint.path)) && !random.chance(heavyOdds))) return
  const path = addressOf(endpoint.path, random, pools)
  rush.asked.add(`${endpoint.method} ${endpoint.path}`)
  const family = pools.families?.[crateOf(endpoint.path, path)] ?? {}
  const answer = await (endpoint.kind === 'command' ? strikeCommand(victim, endpoint, path, random, { ...pools.ids, ...family }, rush) : strikeOther(victim, endpoint, path, random, pools.ids))
  note(rush, endpoint, path, answer)
  if (answer?.status === 401) await victim.signIn().catch(() => undefined)
}

function strikeOther(victim: Victim, endpoint: Endpoint, path: string, random: Random, pools: Pools): Promise<Answer | null> {
  const body = endpoint.method === 'get' ? {} : { body: random.pick(['', '{}', '[]', 'null', '"\\ud800"', '{"a":', 'species,count,bags\nA,1,1', ','.repeat(5000), '\u0000\u0001']), headers: { 'Content-Type': random.pick(['application/json', 'text/csv', 'text/plain', 'application/xml', 'application/json; charset=latin9']) } }
  const query = random.chance(0.5) ? '' : `?${random.pick(['number', 'q', 'line', 'lot', 'from', 'tank', 'olderThanMs', 'columns', 'supplier', 'staffId', '__proto__'])}=${random.pick(['', '1', '-1', 'NaN', '%ED%A0%80', '%00', '1e400', 'toString', 'x'.repeat(3000), ...(pools.lineId ?? []).slice(0, 2)])}`
  return victim.ask(endpoint.method.toUpperCase(), path + query, body)
}

async function strikeCommand(victim: Victim, endpoint: Command, path: string, random: Random, pools: Pools, rush: Rush): Promise<Answer | null> {
  const valid = validBody(endpoint.schema, random, pools)
  const body = JSON.stringify(random.chance(0.5) ? valid : mutated(valid, random)) ?? 'null'
  const key = random.chance(0.97) ? newKey() : random.pick(['', 'short', 'x'.repeat(65), 'with space in it here'])
  const write = { method: endpoint.method.toUpperCase(), path, key, body }
  const answer = await victim.send(write)
  if (answer && answer.status < 300) {
    rush.taken.add(`${endpoint.method} ${endpoint.path}`)
    rush.acknowledged.push(write)
  }
  return answer
}

function addressOf(path: string, random: Random, { ids, families }: Here): string {
  const crates = Object.keys(families)
  const crateId = random.chance(0.8) && crates.length > 0 ? random.pick(crates) : undefined
  const own: Pools = crateId === undefined ? {} : { crateId: [crateId], ...families[crateId] }
  return path.replace(/:([A-Za-z]+)/g, (_, name: string) => {
    const pool = (path.includes(':crateId') ? own[name] : undefined) ?? ids[name] ?? []
    return pool.length === 0 || random.chance(0.1) ? random.pick(strangeParts) : encodeURIComponent(random.pick(pool))
  })
}

const crateOf = (path: string, address: string): string => (path.startsWith('/api/crates/:crateId') ? (address.split('/')[3] ?? '') : '')

function note(rush: Rush, endpoint: Endpoint, path: string, answer: Answer | null): void {
  const status = answer?.status ?? 0
  rush.byStatus.set(status, (rush.byStatus.get(status) ?? 0) + 1)
  if (!answer) return
  rush.sent += 1
  const what = `${endpoint.method} ${path.slice(0, 120)}`
  if (status >= 500 && status !== 507 && status !== 503) rush.faults.push(`${what} answered ${status}: ${answer.text.slice(0, 200)}`)
  else if (status >= 400 && !answer.type.includes('application/problem+json')) rush.faults.push(`${what} answered ${status} as ${answer.type}`)
  else if (/\bat .*\.(ts|js):\d+/.test(answer.text) && status >= 400) rush.faults.push(`${what} told where it stands in our code`)
  if (answer.tookMs > rush.slowestMs) [rush.slowestMs, rush.slowest] = [answer.tookMs, `${what} (${status})`]
}
