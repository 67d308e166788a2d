import { fork, type ChildProcess } from 'node:child_process'
import { racks, Room, type Pass } from './room'

/** A room whose clock can be put, and which is cleared away after its test. */
export class OpenRoom extends Room {
  constructor(
    url: string,
    pass: Pass,
    private readonly ask: (deed: 'standAt' | 'forgetPins' | 'tell' | 'fillDisk' | 'breakRun' | 'close', more?: object) => Promise<unknown>,
    /** Session of the device under test, as a Cookie header; empty where nobody has signed in yet. */
    readonly device: string,
  ) {
    super(url, { ...pass })
  }

  /** Says what went wrong with the room's keeping, as a start would. */
  tell = (facts: object): Promise<unknown> => this.ask('tell', { facts })
  /** Lets it be an hour since anybody gave their PIN. */
  forgetPins = (): Promise<unknown> => this.ask('forgetPins')
  /** Lets the room's clock stand at a moment; pages learn of it with their next load. */
  standAt = (atMs: number): Promise<unknown> => this.ask('standAt', { atMs })
  /** Fills the disk under it, or makes room again. */
  fillDisk = (isFull: boolean): Promise<unknown> => this.ask('fillDisk', { isFull })
  /** Breaks a run beyond following, as a fault of ours might. */
  breakRun = (runId: string): Promise<unknown> => this.ask('breakRun', { runId })
  end = (): Promise<unknown> => this.ask('close')
}

/**
 * The server of one worker: one process that opens a room for each test, empty or as a copy of one that was furnished and
 * signed in to once. Starting, furnishing and signing in take longer than most journeys.
 */
export class Rooms {
  private asked = 0
  private furnished: Promise<{ file: string; pass: Pass; device: string }> | null = null

  private constructor(private readonly child: ChildProcess) {}

  /** @param hasPages - whether it hands out the built interface. */
  static start({ hasPages = true } = {}): Rooms {
    return new Rooms(fork('dist/server/rooms.js', hasPages ? ['dist/web'] : [], { stdio: ['ignore', 'inherit', 'inherit', 'ipc'], execArgv: ['--enable-source-maps'] }))
  }

  async end(): Promise<void> {
    const gone = new Promise((resolve) => this.child.once('exit', resolve))
    this.child.disconnect()
    await gone
  }

  /** A room that nobody has opened yet. */
  empty = (): Promise<OpenRoom> => this.open(null, { cookie: '', staffId: '' }, '')

  /** A copy of the furnished room, one device signed in to it. */
  async copy(): Promise<OpenRoom> {
    this.furnished ??= this.furnish()
    const { file, pass, device } = await this.furnished
    return this.open(file, pass, device)
  }

  private async furnish(): Promise<{ file: string; pass: Pass; device: string }> {
    const { room, url } = await this.ask<{ room: number; url: string }>('open', { from: null })
    const first = new Room(url)
    const pass = await first.furnish(racks)
    const { cookie } = await first.openDevice()
    return { ...(await this.ask<{ file: string }>('keep', { room })), pass, device: cookie }
  }

  private async open(from: string | null, pass: Pass, device: string): Promise<OpenRoom> {
    const { room, url } = await this.ask<{ room: number; url: string }>('open', { from })
    return new OpenRoom(url, pass, (deed, more = {}) => this.ask(deed, { room, ...more }), device)
  }

  private ask<T>(deed: string, asked: object): Promise<T> {
    const id = (this.asked += 1)
    return new Promise<T>((resolve, reject) => {
      const gone = (): void => reject(new Error('the server of the rooms has ended'))
      const hear = (said: { id: number; result?: T; error?: string }): void => {
        if (said.id !== id) return
        this.child.off('message', hear).off('exit', gone)
        if (said.error === undefined) resolve(said.result as T)
        else reject(new Error(said.error))
      }
      this.child.on('message', hear).once('exit', gone)
      this.child.send({ id, deed, asked })
    })
  }
}
