import { randomBytes } from 'node:crypto'

export const lead = { name: 'Imre', passphrase: 'tide pool at dawn', pin: '4711' }
const zone = 'UTC'

/** A system of a room: name, water, rack, number of tanks. */
export type SystemOf = [string, 'fresh' | 'marine', string, number]

/** Two racks of eight tanks, fresh and marine: the room of every journey. */
export const racks: SystemOf[] = [
  ['Fresh sale rack', 'fresh', 'R1', 8],
  ['Marine sale rack', 'marine', 'M1', 8],
]

/** What a device needs to be let in: its session and who is recording. */
export interface Pass {
  cookie: string
  staffId: string
}

/** A room over HTTP, as its lead. */
export class Room {
  constructor(
    readonly url: string,
    private readonly pass: Pass = { cookie: '', staffId: '' },
  ) {}

  /** Makes the room: first lead, and its systems. Returns the lead's pass. */
  async furnish(systems: readonly SystemOf[]): Promise<Pass> {
    const answer = await this.send('POST', '/api/session/first-lead', { ...lead, roomName: 'Lantern Quay', timeZone: zone })
    this.pass.cookie = cookieOf(answer)
    const session = (await this.get('/api/session')) as { staff: { id: string }[] }
    this.pass.staffId = session.staff[0]?.id ?? ''
    for (const [name, water, rack, tankCount] of systems) await this.post('/api/systems', { name, water, rack, tankCount, sharing: 'each its own', sumpL: null, perShelf: 4, tankKind: 'glass', netVolumeL: 60 })
    return this.pass
  }

  /** Opens one more device for the lead, with a session of its own. */
  async openDevice(): Promise<Pass> {
    const device = new Room(this.url)
    device.pass.cookie = cookieOf(await device.send('POST', '/api/session', { name: lead.name, passphrase: lead.passphrase }))
    device.pass.staffId = this.pass.staffId
    await device.post('/api/session/recording', { staffId: this.pass.staffId, pin: lead.pin })
    return device.pass
  }

  async get<T = unknown>(path: string): Promise<T> {
    return (await this.send('GET', path)).json() as Promise<T>
  }

  post = <T = unknown>(path: string, body: unknown): Promise<T> => this.write<T>('POST', path, body)
  put = <T = unknown>(path: string, body: unknown): Promise<T> => this.write<T>('PUT', path, body)
  private async write<T>(method: string, path: string, body: unknown): Promise<T> {
    const answer = await this.send(method, path, body)
    if (!answer.ok) throw new Error(`${path}: ${answer.status} ${await answer.text()}`)
    return (await answer.json()) as T
  }

  /** Stock of every tank as `{ 'R1-01': { 'Cherry barb': 8 } }`; empty tanks are left out. */
  async stock(): Promise<Record<string, Record<string, number>>> {
    const { tanks } = await this.get<{ tanks: { code: string; fish: number }[] }>('/api/room')
    const stock: Record<string, Record<string, number>> = {}
    for (const { code } of tanks.filter((tank) => tank.fish > 0)) {
      const view = await this.get<{ stock: { species: string; quantity: number }[] }>(`/api/tanks/${code}`)
      stock[code] = Object.fromEntries(view.stock.map(({ species, quantity }) => [species, quantity]))
    }
    return stock
  }

  private send(method: string, path: string, body?: unknown): Promise<Response> {
    return fetch(`${this.url}${path}`, {
      method,
      headers: { Cookie: this.pass.cookie, 'X-Recording': this.pass.staffId, 'Idempotency-Key': randomBytes(15).toString('base64url'), 'Content-Type': 'application/json' },
      body: body === undefined ? null : JSON.stringify(body),
    })
  }
}

const cookieOf = (answer: Response): string => {
  if (!answer.ok) throw new Error(`no session: ${answer.status}`)
  return (answer.headers.get('set-cookie') ?? '').split(';')[0] ?? ''
}
