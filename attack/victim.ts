import { spawn, spawnSync, type ChildProcess } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { demoPeople } from '../demo/demoBook'
import { databaseIn } from '../server/keeping/folder'

const { lead } = demoPeople
const built = (name: string): string => join('dist', 'server', `${name}.js`)
/** History of the room that is attacked. */
const demoDays = 20

/** A write with its key, its body as it goes over the wire. */
export interface Write {
  method: string
  path: string
  key: string
  body: string
}

export interface Answer {
  status: number
  type: string
  text: string
  isReplay: boolean
  tookMs: number
}

/** A real server on the demo's room, in a folder of its own, on loopback. */
export function createVictim() {
  const folder = mkdtempSync(join(tmpdir(), 'daily-crate-attack-'))
  let [child, url, said]: [ChildProcess | null, string, string] = [null, '', '']
  let [cookie, staffId] = ['', '']
  let isDying = false
  const deaths: string[] = []

  const options = (env: Record<string, string>) => ({ env: { ...process.env, CRATE_DATA: folder, CRATE_COPIES: join(folder, 'copies'), CRATE_PORT: '0', ...env }, stdio: ['ignore', 'pipe', 'pipe'] as ['ignore', 'pipe', 'pipe'] })

  async function start(env: Record<string, string> = {}): Promise<void> {
    isDying = false
    const own = spawn(process.execPath, [built('main')], options(env))
    child = own
    said = ''
    url = await new Promise<string>((found, fail) => {
      for (const stream of [own.stdout, own.stderr]) {
        stream.on('data', (chunk: Buffer) => {
          said = (said + String(chunk)).slice(-100_000)
          const address = /is at (http:\S+)/.exec(said)?.[1]
          if (address) found(address)
        })
      }
      own.once('exit', (code) => fail(new Error(`the server ended with ${code}: ${said}`)))
    })
    own.once('exit', (code, signal) => void (isDying || deaths.push(`${code ?? signal}: ${said.slice(-400)}`)))
  }

  async function kill(): Promise<void> {
    const own = child
    if (!own || own.exitCode !== null || own.signalCode !== null) return
    isDying = true
    const gone = new Promise((ended) => own.once('exit', ended))
    own.kill('SIGKILL')
    await gone
  }

  async function ask(method: string, path: string, { body = undefined as string | undefined, headers = {} as Record<string, string> } = {}): Promise<Answer | null> {
    const from = performance.now()
    try {
      const answer = await fetch(url + path, { method, headers: { Cookie: cookie, 'X-Recording': staffId, ...headers }, ...(body === undefined ? {} : { body }), signal: AbortSignal.timeout(60_000) })
      const text = await answer.text()
      return { status: answer.status, type: answer.headers.get('Content-Type') ?? '', text, isReplay: answer.headers.get('Idempotent-Replay') === 'true', tookMs: performance.now() - from }
    } catch {
      return null
    }
  }

  /** Sends a write as it stands, for the first time or again. */
  const send = ({ method, path, key, body }: Write): Promise<Answer | null> => ask(method, path, { body, headers: { 'Content-Type': 'application/json', 'Idempotency-Key': key } })

  return {
    database: databaseIn(folder),
    deaths,
    start,
    kill,
    ask,
    isUp: (): boolean => !isDying,
    /** Furnishes the room with some weeks of the demo. */
    furnish(): void {
      const { status } = spawnSync(process.execPath, [built('makeDemo'), databaseIn(folder), String(Date.now()), String(demoDays)], { stdio: 'inherit' })
      if (status !== 0) throw new Error('the demo room could not be made')
    },
    /** Opens a device as the lead, who records on it. */
    async signIn(): Promise<void> {
      const json = { 'Content-Type': 'application/json' }
      const opened = await fetch(`${url}/api/session`, { method: 'POST', headers: json, body: JSON.stringify({ name: lead.name, passphrase: lead.passphrase }) })
      cookie = (opened.headers.get('set-cookie') ?? '').split(';')[0] ?? ''
      const view = (await (await fetch(`${url}/api/session`, { headers: { Cookie: cookie } })).json()) as { staff: { id: string; name: string }[] }
      staffId = view.staff.find(({ name }) => name === lead.name)?.id ?? ''
      await fetch(`${url}/api/session/recording`, { method: 'POST', headers: { ...json, Cookie: cookie }, body: JSON.stringify({ staffId, pin: lead.pin }) })
    },
    leadId: (): string => staffId,
    async get<T>(path: string): Promise<T> {
      const answer = await ask('GET', path)
      if (answer?.status !== 200) throw new Error(`${path} answered ${answer?.status}: ${answer?.text.slice(0, 300)}`)
      return JSON.parse(answer.text) as T
    },
    send,
    /** A second server on the same folder; returns how it ended, null when it had to be ended. */
    second: (): number | null => spawnSync(process.execPath, [built('main')], { ...options({}), timeout: 15_000 }).status,
    async end(): Promise<void> {
      await kill()
      rmSync(folder, { recursive: true, force: true })
    },
  }
}
export type Victim = ReturnType<typeof createVictim>
