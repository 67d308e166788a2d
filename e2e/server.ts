import { spawn, type ChildProcess } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { mkdtempSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

export const lead = { name: 'Imre', passphrase: 'tide pool at dawn', pin: '4711' }
const zone = 'UTC'

/** A server of our own, as `npm start` runs it, on data of its own. It can be killed and started again. */
export class TestServer {
  private child: ChildProcess | null = null
  private readonly data = mkdtempSync(join(tmpdir(), 'daily-crate-'))
  private cookie = ''
  private staffId = ''
  private clock: string | null = null

  private constructor(
    readonly host: string,
    readonly port: number,
  ) {}

  static async start(host = '127.0.0.1'): Promise<TestServer> {
    const server = new TestServer(host, await freePort(host))
    await server.up()
    return server
  }

  get url(): string {
    return `http://${this.host}:${this.port}`
  }

  /** Starts the process and waits until it answers. */
  async up(): Promise<void> {
    this.child = spawn(process.execPath, ['--import', 'tsx', 'server/main.ts'], {
      env: { ...process.env, CRATE_DATA: this.data, CRATE_HOST: this.host, CRATE_PORT: String(this.port), ...(this.clock ? { CRATE_CLOCK: this.clock } : {}) },
      stdio: ['ignore', 'ignore', 'inherit'],
    })
    for (let tries = 0; tries < 200; tries += 1) {
      if (await fetch(`${this.url}/api/session`).then((answer) => answer.ok, () => false)) return
      await new Promise((resolve) => setTimeout(resolve, 100))
    }
    throw new Error('the server did not come up')
  }

  /** Lets the room's clock stand at a moment: the server is killed and started again, as it must be able to bear at any time. */
  async standAt(atMs: number): Promise<void> {
    this.clock = new Date(atMs).toISOString()
    await this.kill()
    await this.up()
  }

  /** Kills the process as a power cut would, without a chance to tidy up. */
  async kill(): Promise<void> {
    const { child } = this
    if (!child || child.exitCode !== null) return
    const gone = new Promise((resolve) => child.once('exit', resolve))
    child.kill('SIGKILL')
    await gone
  }

  /** Makes the room: first lead, and systems given as [name, water, rack, tanks]. */
  async furnish(systems: [string, 'fresh' | 'marine', string, number][]): Promise<void> {
    const answer = await this.send('POST', '/api/session/first-lead', { ...lead, roomName: 'Lantern Quay', timeZone: zone })
    this.cookie = (answer.headers.get('set-cookie') ?? '').split(';')[0] ?? ''
    const session = (await this.get('/api/session')) as { staff: { id: string }[] }
    this.staffId = session.staff[0]?.id ?? ''
    for (const [name, water, rack, tankCount] of systems) await this.post('/api/systems', { name, water, rack, tankCount, sumpL: null, perShelf: 4, tankKind: 'glass', netVolumeL: 60 })
  }

  async get<T = unknown>(path: string): Promise<T> {
    return (await this.send('GET', path)).json() as Promise<T>
  }

  async post<T = unknown>(path: string, body: unknown): Promise<T> {
    const answer = await this.send('POST', path, body)
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
      headers: { Cookie: this.cookie, 'X-Recording': this.staffId, 'Idempotency-Key': randomBytes(15).toString('base64url'), 'Content-Type': 'application/json' },
      body: body === undefined ? null : JSON.stringify(body),
    })
  }
}

async function freePort(host: string): Promise<number> {
  const probe = createServer()
  await new Promise<void>((resolve) => probe.listen(0, host, resolve))
  const address = probe.address()
  await new Promise((resolve) => probe.close(resolve))
  return typeof address === 'object' && address ? address.port : 0
}
