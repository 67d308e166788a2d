import { spawn, type ChildProcess } from 'node:child_process'
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { newKey } from './testRoom'

/** Collects whatever nobody holds, over and over: what a busy day does to a process by and by. */
export const collecting = ['--expose-gc', '--import', 'data:text/javascript,setInterval(gc,100).unref()']

const patienceMs = 15_000

/**
 * A server as `npm start` runs it, in a process of its own on a folder of its own, with a page to stand for the interface:
 * it can be killed and started again.
 */
export function createRealServer() {
  const folder = mkdtempSync(join(tmpdir(), 'daily-crate-'))
  mkdirSync(join(folder, 'dist', 'web'), { recursive: true })
  writeFileSync(join(folder, 'dist', 'web', 'index.html'), '<!doctype html><title>room</title>')
  let [running, url, headers]: [ChildProcess | null, string, Record<string, string>] = [null, '', {}]

  /** Runs one of the built programs on the folder; what it says is passed on. */
  const spawnProgram = (name: string, { args = [] as string[], nodeArgs = [] as string[], env = {} as Record<string, string> } = {}): ChildProcess =>
    spawn(process.execPath, [...nodeArgs, resolve(`dist/server/${name}.js`), ...args], { cwd: folder, env: { ...process.env, CRATE_DATA: folder, CRATE_DEMO_DATA: folder, CRATE_PORT: '0', CRATE_COPIES: 'off', ...env }, stdio: ['ignore', 'pipe', 'pipe'], detached: true })

  async function start(options: Parameters<typeof spawnProgram>[1] = {}): Promise<string> {
    const child = spawnProgram('main', options)
    running = child
    url = await new Promise<string>((found, fail) => {
      let said = ''
      child.stdout?.on('data', (chunk: Buffer) => {
        const address = /http:\S+/.exec((said += String(chunk)))?.[0]
        if (address) found(address)
      })
      child.stderr?.on('data', (chunk: Buffer) => (said += String(chunk)))
      child.once('exit', (code) => fail(new Error(`the server ended with ${code}: ${said}`)))
    })
    return url
  }

  async function kill(): Promise<void> {
    if (!running || running.exitCode !== null || running.signalCode !== null) return
    const gone = new Promise((ended) => running?.once('exit', ended))
    // What it started goes with it, as when the power goes.
    process.kill(-(running.pid ?? 0), 'SIGKILL')
    await gone
  }

  const post = (path: string, body: unknown, key = newKey()): Promise<Response> => fetch(url + path, { method: 'POST', headers: { ...headers, 'Idempotency-Key': key }, body: JSON.stringify(body) })

  return {
    folder,
    start,
    kill,
    process: (): ChildProcess | null => running,
    /** Runs a program to its end; one that goes on is ended, and has no code. */
    async run(name: string, options: Parameters<typeof spawnProgram>[1] = {}): Promise<{ code: number | null; said: string }> {
      const child = spawnProgram(name, options)
      let said = ''
      for (const stream of [child.stdout, child.stderr]) stream?.on('data', (chunk: Buffer) => (said += String(chunk)))
      const patience = setTimeout(() => child.kill('SIGKILL'), patienceMs)
      const code = await new Promise<number | null>((ended) => child.once('close', ended))
      clearTimeout(patience)
      return { code, said }
    },
    /** Makes the room's first lead, who records from then on, and a tank; answers its id. */
    async furnish(): Promise<string> {
      const json = { 'Content-Type': 'application/json' }
      const opened = await fetch(`${url}/api/session/first-lead`, { method: 'POST', headers: json, body: JSON.stringify({ name: 'Imre', passphrase: 'tide pool at dawn', pin: '4711', roomName: 'Room', timeZone: 'UTC' }) })
      const Cookie = (opened.headers.get('set-cookie') ?? '').split(';')[0] ?? ''
      const session = (await (await fetch(`${url}/api/session`, { headers: { Cookie } })).json()) as { staff: { id: string }[] }
      headers = { ...json, Cookie, 'X-Recording': session.staff[0]?.id ?? '' }
      const { tanks } = (await (await post('/api/systems', { name: 'Rack', water: 'fresh', sharing: 'each its own', sumpL: null, rack: 'R1', tankCount: 1, perShelf: 1, tankKind: 'glass', netVolumeL: null })).json()) as { tanks: { id: string }[] }
      return String(tanks[0]?.id)
    },
    get: (path: string) => fetch(url + path, { headers }),
    post,
    async end(): Promise<void> {
      await kill()
      rmSync(folder, { recursive: true, force: true })
    },
  }
}
export type RealServer = ReturnType<typeof createRealServer>
