import { randomBytes } from 'node:crypto'
import { addressOf, type ParamsOf, type ReadOf } from '../core/commands/declare'
import { booksOf, clockEveryMs, rereadAfterMs, type Alive, type Hello, type Told } from '../core/commands/stream'
import { meets } from '../core/commands/things'
import { roundsApi } from '../core/rounds/rounds.api'
import type { RoundView } from '../core/rounds/roundView'
import { timed } from './figures'

/** A question that stands on the screen, and what was answered last. */
interface OnScreen {
  declared: ReadOf
  params: Readonly<Record<string, string>>
  tag: string | null
  answer: unknown
}

/** What a device counts of its day. */
export interface Count {
  checksMs: number[]
  readsMs: number[]
  unchanged: number
  failed: string[]
}

/**
 * A device as a browser is one: signed in, a screen open, its stream of changes heard; what others touched is read anew by
 * the same rules as in the interface, and what it writes itself at once.
 */
export async function openDevice(url: string, who: { name: string; passphrase: string; pin: string }, screen: readonly ReadOf[], count: Count) {
  const shown = [...screen, roundsApi.readRound as ReadOf].map((declared): OnScreen => ({ declared, params: {}, tag: null, answer: undefined }))
  const own = new Set<string>()
  const aborter = new AbortController()
  let [cookie, staffId] = ['', '']
  let touched = new Set<string>()
  let timer: NodeJS.Timeout | null = null

  async function send(method: string, path: string, headers: Record<string, string> = {}, body?: object): Promise<Response> {
    const response = await fetch(url + path, { method, headers: { Cookie: cookie, 'X-Recording': staffId, 'Content-Type': 'application/json', ...headers }, body: body ? JSON.stringify(body) : null, signal: aborter.signal })
    cookie = response.headers.get('set-cookie')?.split(';')[0] ?? cookie
    if (response.status >= 400) count.failed.push(`${method} ${path}: ${response.status} ${await response.text()}`)
    return response
  }

  async function read(each: OnScreen): Promise<void> {
    const path = addressOf(each.declared, each.params)
    count.readsMs.push(await timed(async () => {
      const response = await send('GET', path, each.tag ? { 'If-None-Match': each.tag } : {})
      if (response.status === 304) count.unchanged += 1
      else if (response.ok) [each.tag, each.answer] = [response.headers.get('etag'), await response.json()]
    }))
  }
  const isAbout = (things: ReadonlySet<string>) => (each: OnScreen): boolean => meets([...things], each.declared.about(each.params as ParamsOf<string>, each.answer))
  const readAll = (which: (each: OnScreen) => boolean): Promise<unknown> => Promise.all(shown.filter(which).map(read))

  function wait(devices: number): void {
    timer ??= setTimeout(() => {
      timer = null
      const of = touched
      touched = new Set()
      void readAll(isAbout(of)).catch(() => undefined)
    }, rereadAfterMs(devices, Math.random()))
  }
  function hear(said: Hello | Told | Alive): void {
    if (!('touched' in said) && !('books' in said)) return
    if (!('touched' in said)) return void readAll(({ tag }) => tag !== null && booksOf(tag) !== said.books).catch(() => undefined)
    if (said.by !== null && own.has(said.by)) return
    for (const thing of said.touched) touched.add(thing)
    wait(said.devices)
  }
  async function listen(): Promise<void> {
    const { body } = await send('GET', '/api/events')
    let rest = ''
    const [reader, decoder] = [body!.getReader(), new TextDecoder()]
    for (let part = await reader.read(); !part.done; part = await reader.read()) {
      const lines = (rest + decoder.decode(part.value, { stream: true })).split('\n')
      rest = lines.pop() ?? ''
      for (const line of lines) if (line.startsWith('data: ')) hear(JSON.parse(line.slice(6)) as Hello | Told | Alive)
    }
  }

  await send('POST', '/api/session', {}, { name: who.name, passphrase: who.passphrase })
  const { staff } = (await (await send('GET', '/api/session')).json()) as { staff: { id: string; name: string }[] }
  staffId = staff.find(({ name }) => name === who.name)?.id ?? ''
  await send('POST', '/api/session/recording', {}, { staffId, pin: who.pin })
  await readAll(() => true)
  void listen().catch(() => undefined)
  const clock = setInterval(() => void readAll(() => true).catch(() => undefined), clockEveryMs)

  let nth = Math.floor(Math.random() * 60)
  return {
    /** Records a look at the next tank, and reads anew what that touches. */
    async check(): Promise<void> {
      const { id: roundId, number: roundNumber, stops } = shown.at(-1)?.answer as RoundView
      const tankId = stops[(nth += 1) % stops.length]?.tankId ?? ''
      const body = { tankId, roundId, roundNumber, ate: 'all' as const, signs: [], seen: null, note: null, replacesId: null, happenedAtMs: Date.now() }
      const key = randomBytes(15).toString('base64url')
      own.add(key)
      count.checksMs.push(await timed(async () => (await send('POST', '/api/checks', { 'Idempotency-Key': key }, body)).text()))
      await readAll(isAbout(new Set(roundsApi.recordCheck.touches({}, body))))
    },
    close(): void {
      clearInterval(clock)
      if (timer) clearTimeout(timer)
      aborter.abort()
    },
  }
}
