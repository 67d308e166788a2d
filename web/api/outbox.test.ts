import { beforeEach, describe, expect, jest, test } from '@jest/globals'
import type { ProblemCode } from '../../core/problem/problem'
import { ApiProblem, Unreachable } from './ApiProblem'
import { createOutbox, type Reread } from './outbox'
import type { OutboxEntry } from './outboxEntry'

const memoryStorage = () => {
  const held = new Map<string, string>()
  return {
    held,
    get length() {
      return held.size
    },
    key: (index: number) => [...held.keys()][index] ?? null,
    getItem: (slot: string) => held.get(slot) ?? null,
    setItem: (slot: string, value: string) => void held.set(slot, value),
    removeItem: (slot: string) => void held.delete(slot),
  }
}
const entry = (key: string): OutboxEntry => ({ key, command: 'recordBags', method: 'POST', path: '/api/x', body: { n: 1 }, staffId: 's', label: key })
const problem = (code: ProblemCode, status: number) => new ApiProblem({ type: '', code, title: '', status, detail: `${code}!` })
const turn = () => new Promise((resolve) => setTimeout(resolve, 5))

let storage: ReturnType<typeof memoryStorage>
let sent: string[]
let fail: (key: string) => unknown
let bodies: unknown[]
/** A page that was reloaded does nothing any more. */
let isGone = false
let deviceNowMs = 1_000_000
const allRead = async (): Promise<ReadonlySet<string>> => new Set()
const start = (refresh: (reread: Reread) => Promise<ReadonlySet<string>> = allRead) =>
  createOutbox({
    storage,
    refresh,
    deviceNowMs: () => deviceNowMs,
    wait: () => (isGone ? new Promise(() => undefined) : (turn() as Promise<void>)),
    send: async ({ key, body }) => {
      const error = fail(key)
      if (error) throw error
      sent.push(key)
      bodies.push(body)
      return { key }
    },
  })
beforeEach(() => {
  storage = memoryStorage()
  sent = []
  bodies = []
  deviceNowMs = 1_000_000
  isGone = false
  fail = () => null
})

describe('the outbox', () => {
  test('sends in order and forgets what was answered', async () => {
    const outbox = start()
    const answers = ['a', 'b', 'c'].map((key) => outbox.push(entry(key), { refusals: 'tray' }))
    expect(storage.held.size).toBe(3)
    expect(await Promise.all(answers)).toEqual([{ key: 'a' }, { key: 'b' }, { key: 'c' }])
    await turn()
    expect([sent, storage.held.size, outbox.snapshot().pending.length, outbox.snapshot().state]).toEqual([['a', 'b', 'c'], 0, 0, 'idle'])
  })

  test('keeps everything through an outage and a reload, same keys, same order', async () => {
    fail = () => new Unreachable()
    isGone = true
    const before = start()
    for (const key of ['a', 'b']) void before.push(entry(key), { refusals: 'tray' })
    await turn()
    expect(before.snapshot()).toMatchObject({ state: 'unreachable', waiting: 2 })
    const held = new Map(storage.held)
    storage = memoryStorage()
    for (const [slot, value] of held) storage.setItem(slot, value)
    fail = () => null
    isGone = false
    const after = start()
    void after.push(entry('c'), { refusals: 'tray' })
    await turn()
    expect(sent).toEqual(['a', 'b', 'c'])
    expect(storage.held.size).toBe(0)
  })

  test('an answered entry stays on screen until the screen is refreshed', async () => {
    let release = (): void => undefined
    const outbox = start(() => new Promise((resolve) => (release = () => resolve(new Set()))))
    await outbox.push(entry('a'), { refusals: 'tray' })
    await turn()
    expect(outbox.snapshot()).toMatchObject({ waiting: 0, next: null, pending: [{ key: 'a' }] })
    release()
    await turn()
    expect(outbox.snapshot().pending).toEqual([])
  })

  test('an answered entry whose effect cannot be read anew stays on screen, also while more is sent', async () => {
    let canRead = false
    const asked: Reread[] = []
    const outbox = start(async (reread) => {
      asked.push(reread)
      return new Set(canRead ? [] : ['room'])
    })
    await outbox.push({ ...entry('a'), touches: ['look:1', 'round'] }, { refusals: 'tray' })
    await outbox.push({ ...entry('b'), touches: ['tank:2'] }, { refusals: 'tray' })
    await turn()
    expect([sent, outbox.snapshot().pending.map(({ key }) => key), outbox.snapshot().waiting]).toEqual([['a', 'b'], ['a', 'b'], 0])
    canRead = true
    await turn()
    await turn()
    await turn()
    expect(outbox.snapshot()).toMatchObject({ pending: [], state: 'idle', isUnread: false })
    // What got through is not read over and over for the one that does not.
    expect(new Set(asked.flatMap(({ touched }) => touched ?? ['everything']))).toEqual(new Set(['look:1', 'round', 'tank:2']))
    expect(asked.at(-1)).toEqual({ touched: [], names: new Set(['room']) })
  })

  test('a refusal goes to the form that asked, or to the tray, and nothing behind it waits', async () => {
    fail = (key) => (key === 'bad' || key === 'form' ? problem('conflict', 409) : null)
    const outbox = start()
    void outbox.push(entry('bad'), { refusals: 'tray' })
    await expect(outbox.push(entry('form'), { refusals: 'form' })).rejects.toThrow('conflict!')
    await outbox.push(entry('good'), { refusals: 'tray' })
    expect(outbox.snapshot().refused).toEqual([{ entry: entry('bad'), reason: 'conflict!' }])
    expect([sent, start().snapshot().refused.length]).toEqual([['good'], 1])
    outbox.dismiss('bad')
    expect([outbox.snapshot().refused, start().snapshot().refused, storage.held.size]).toEqual([[], [], 0])
  })

  test('a form that was left before its refusal says it in the tray; a secret is not kept there', async () => {
    fail = () => problem('conflict', 409)
    const outbox = start()
    const left = { refusals: 'form', isFormThere: () => false } as const
    await expect(outbox.push(entry('form'), left)).rejects.toThrow('conflict!')
    await expect(outbox.push({ ...entry('pin'), body: { pin: '1234' } }, { ...left, isSecret: true })).rejects.toThrow('conflict!')
    expect(outbox.snapshot().refused.map(({ entry: { key, body } }) => [key, body])).toEqual([['form', entry('form').body], ['pin', null]])
    expect([...storage.held.values()].join()).not.toContain('1234')
  })

  test.each(['signed-out', 'unidentified'] as const)('%s: waits for a person, then goes on', async (code) => {
    fail = () => problem(code, 401)
    const outbox = start()
    void outbox.push(entry('a'), { refusals: 'tray' })
    await turn()
    expect(outbox.snapshot()).toMatchObject({ state: code, waiting: 1, next: { key: 'a' } })
    fail = () => null
    outbox.resume()
    await turn()
    expect(sent).toEqual(['a'])
  })

  test('what one person recorded does not wait for the PIN of another', async () => {
    fail = (key) => (key === 'of somebody else' ? problem('unidentified', 403) : null)
    const outbox = start()
    void outbox.push(entry('of somebody else'), { refusals: 'tray' })
    await outbox.push(entry('mine'), { refusals: 'tray' })
    for (let more = 0; more < 4; more += 1) await turn()
    expect([sent, outbox.snapshot().state, outbox.snapshot().next?.key, outbox.snapshot().pending.length]).toEqual([['mine'], 'unidentified', 'of somebody else', 1])
    fail = () => null
    outbox.resume()
    await turn()
    expect(sent).toEqual(['mine', 'of somebody else'])
  })

  test('a server that keeps failing at one entry does not hold up the rest, and loses nothing of it', async () => {
    fail = (key) => (key === 'poison' ? problem('internal', 500) : null)
    const outbox = start()
    void outbox.push(entry('poison'), { refusals: 'tray' })
    await outbox.push(entry('good'), { refusals: 'tray' })
    await turn()
    expect(outbox.snapshot()).toMatchObject({ refused: [], stuck: [{ key: 'poison' }], pending: [{ key: 'poison' }] })
    for (let more = 0; more < 10; more += 1) await turn()
    expect(storage.held.size).toBe(1)
    fail = () => null
    for (let more = 0; more < 4; more += 1) await turn()
    expect([sent, storage.held.size, outbox.snapshot().state]).toEqual([['good', 'poison'], 0, 'idle'])
  })

  test('or is given up by a person, and said until it is read', async () => {
    fail = () => problem('internal', 500)
    const outbox = start()
    void outbox.push(entry('poison'), { refusals: 'tray' })
    for (let more = 0; more < 10; more += 1) await turn()
    outbox.giveUp('poison')
    await turn()
    expect(outbox.snapshot()).toMatchObject({ pending: [], refused: [{ entry: { key: 'poison' } }] })
    expect(start().snapshot()).toMatchObject({ pending: [], refused: [{ entry: { key: 'poison' } }] })
  })

  test('a full disk is waited out, in order, however long it takes', async () => {
    fail = () => problem('storage-full', 507)
    const outbox = start()
    for (const key of ['a', 'b', 'c']) void outbox.push(entry(key), { refusals: 'tray' })
    for (let more = 0; more < 20; more += 1) await turn()
    expect(outbox.snapshot()).toMatchObject({ state: 'failing', reason: 'storage-full!', waiting: 3, stuck: [], refused: [] })
    expect(storage.held.size).toBe(3)
    fail = () => null
    for (let more = 0; more < 4; more += 1) await turn()
    expect([sent, storage.held.size]).toEqual([['a', 'b', 'c'], 0])
  })

  test('what happened later than the server’s clock stands waits; what did not goes past it', async () => {
    const ahead = new ApiProblem({ type: '', code: 'ahead-of-clock', title: '', status: 422, detail: 'ahead', current: { nowMs: 500_000 } })
    fail = (key) => (key === 'a' ? ahead : null)
    const outbox = start()
    void outbox.push({ ...entry('a'), body: { n: 1, happenedAtMs: 2_000_000 } }, { refusals: 'tray' })
    await outbox.push(entry('b'), { refusals: 'tray' })
    for (let more = 0; more < 4; more += 1) await turn()
    expect([sent, outbox.snapshot().state, outbox.snapshot().serverNowMs, outbox.snapshot().refused]).toEqual([['b'], 'ahead', 500_000, []])
    // A minute after the touch a person says to go by the server's clock: there too it was a minute ago.
    deviceNowMs += 60_000
    fail = () => null
    outbox.putOnServerClock()
    await turn()
    expect([sent, bodies.at(-1)]).toEqual([['b', 'a'], { n: 1, happenedAtMs: 440_000 }])
  })

  test('two pages of one device keep apart what they wrote, and the one that stays sends what the other left', async () => {
    fail = () => new Unreachable()
    isGone = true
    const [first, second] = [start(), start()]
    void first.push(entry('a'), { refusals: 'tray' })
    deviceNowMs += 1
    void second.push(entry('b'), { refusals: 'tray' })
    expect(storage.held.size).toBe(2)
    second.share()
    expect(second.snapshot().waiting).toBe(1)
    // The first one is closed: nobody sends its entry any more.
    deviceNowMs += 60_000
    second.share()
    expect(second.snapshot().pending.map(({ key }) => key)).toEqual(['a', 'b'])
    const sentElsewhere = 'a'
    storage.removeItem(`crate.outbox.${sentElsewhere}`)
    second.share()
    expect(second.snapshot().pending.map(({ key }) => key)).toEqual(['b'])
  })

  test('entries that an earlier version kept go out with this one', async () => {
    storage.setItem('crate.outbox.000000000007', JSON.stringify(entry('old')))
    const outbox = start()
    expect([outbox.snapshot().waiting, [...storage.held.keys()]]).toEqual([1, ['crate.outbox.old']])
    void outbox.push(entry('new'), { refusals: 'tray' })
    for (let more = 0; more < 3; more += 1) await turn()
    expect([sent, storage.held.size]).toEqual([['old', 'new'], 0])
  })

  test('secrets are never stored; a browser that stores nothing is admitted', async () => {
    fail = () => new Unreachable()
    const outbox = start()
    void outbox.push(entry('pin'), { refusals: 'form', isSecret: true })
    expect(storage.held.size).toBe(0)
    storage.setItem = jest.fn(() => {
      throw new Error('full')
    })
    void outbox.push(entry('a'), { refusals: 'tray' })
    expect(outbox.snapshot().isKept).toBe(false)
    await turn()
    fail = () => null
    outbox.resume()
    await turn()
    await turn()
    expect(sent).toEqual(['pin', 'a'])
  })
})
