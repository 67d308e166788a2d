import { spawn, type ChildProcess } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Room } from './room'

/** A server of our own, as `npm start` runs it, on data of its own. It can be killed and started again. */
export class TestServer extends Room {
  private child: ChildProcess | null = null
  private readonly data = mkdtempSync(join(tmpdir(), 'daily-crate-'))

  private constructor(
    private readonly host: string,
    private readonly port: number,
  ) {
    super(`http://${host}:${port}`)
  }

  static async start(host: string): Promise<TestServer> {
    const server = new TestServer(host, await freePort(host))
    await server.up()
    return server
  }

  /** Starts the process and waits until it answers. */
  async up(): Promise<void> {
    this.child = spawn(process.execPath, ['dist/server/main.js'], {
      env: { ...process.env, CRATE_DATA: this.data, CRATE_COPIES: 'off', CRATE_HOST: this.host, CRATE_PORT: String(this.port) },
      stdio: ['ignore', 'ignore', 'inherit'],
    })
    for (let tries = 0; tries < 200; tries += 1) {
      if (await fetch(`${this.url}/api/session`).then((answer) => answer.ok, () => false)) return
      await new Promise((resolve) => setTimeout(resolve, 100))
    }
    throw new Error('the server did not come up')
  }

  /** Kills the process as a power cut would, without a chance to tidy up. */
  async kill(): Promise<void> {
    const { child } = this
    if (!child || child.exitCode !== null) return
    const gone = new Promise((resolve) => child.once('exit', resolve))
    child.kill('SIGKILL')
    await gone
  }

  /** Kills it for good. */
  async end(): Promise<void> {
    await this.kill()
    rmSync(this.data, { recursive: true, force: true })
  }
}

async function freePort(host: string): Promise<number> {
  const probe = createServer()
  await new Promise<void>((resolve) => probe.listen(0, host, resolve))
  const address = probe.address()
  await new Promise((resolve) => probe.close(resolve))
  return typeof address === 'object' && address ? address.port : 0
}
