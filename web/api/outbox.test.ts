import { beforeEach, describe, expect, jest, test } from '@jest/globals'
import type { ProblemCode } from '../../core/problem/problem'
import { ApiProblem, Unreachable } from './ApiProblem'
import { createOutbox, type OutboxEntry } from './outbox'

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
/** A page that was reloaded does nothing any more. */
let isGone = false
const start = (refresh = async () => undefined as unknown) =>
  createOutbox({
    storage,
    refresh,
    wait: () => (isGone ? new Promise(() => undefined) : (turn() as Promise<void>)),
    send: async ({ key }) => {
      const error = fail(key)
      if (error) throw error
      sent.push(key)
      return { key }
    },
  })
beforeEach(() => {
  storage = memoryStorage()
  sent = []
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
    const outbox = start(() => new Promise((resolve) => (release = () => resolve(null))))
    await outbox.push(entry('a'), { refusals: 'tray' })
    await turn()
    expect(outbox.snapshot()).toMatchObject({ waiting: 0, next: null, pending: [{ key: 'a' }] })
    release()
    await turn()
    expect(outbox.snapshot().pending).toEqual([])
  })

  test('an answered entry whose effect cannot be read anew stays on screen, also while more is sent', async () => {
    let canRead = false
    const outbox = start(async () => {
      if (!canRead) throw new Unreachable()
    })
    await outbox.push(entry('a'), { refusals: 'tray' })
    await outbox.push(entry('b'), { refusals: 'tray' })
    await turn()
    expect([sent, outbox.snapshot().pending.map(({ key }) => key), outbox.snapshot().waiting]).toEqual([['a', 'b'], ['a', 'b'], 0])
    canRead = true
    await turn()
    await turn()
    await turn()
    expect(outbox.snapshot()).toMatchObject({ pending: [], state: 'idle' })
  })

  test('a refusal goes to the form that asked, or to the tray, and nothing behind it waits', async () => {
    fail = (key) => (key === 'bad' || key === 'form' ? problem('conflict', 409) : null)
    const outbox = start()
    void outbox.push(entry('bad'), { refusals: 'tray' })
    await expect(outbox.push(entry('form'), { refusals: 'form' })).rejects.toThrow('conflict!')
    await outbox.push(entry('good'), { refusals: 'tray' })
    expect(outbox.snapshot().refused).toEqual([{ entry: entry('bad'), reason: 'conflict!' }])
    expect([sent, storage.held.size]).toEqual([['good'], 0])
    outbox.dismiss('bad')
    expect(outbox.snapshot().refused).toEqual([])
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

  test('a server that keeps failing at one entry does not hold up the rest for ever', async () => {
    fail = (key) => (key === 'poison' ? problem('internal', 500) : null)
    const outbox = start()
    void outbox.push(entry('poison'), { refusals: 'tray' })
    await outbox.push(entry('good'), { refusals: 'tray' })
    expect(outbox.snapshot().refused.map(({ entry: { key } }) => key)).toEqual(['poison'])
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
