import { afterEach, beforeEach, describe, expect, test } from '@jest/globals'
import { ValidationError, object, string } from 'yup'
import { openDatabase, type Database } from '../db/open'
import { UnbindableError } from '../db/guard'
import type { Actor, Command } from '../http/endpoint'
import { Problem } from '../http/problem'
import { toProblem } from '../http/toProblem'
import { newKey } from '../testing/testRoom'
import { createDispatch, type Dispatch } from './dispatch'

const nowMs = Date.UTC(2031, 4, 4, 9)
const actor: Actor = { id: 's', name: 'Imre', role: 'lead', isPinFresh: true, sessionId: null }
let db: Database
let dispatch: Dispatch
beforeEach(() => {
  db = openDatabase(':memory:')
  db.raw.prepare(`INSERT INTO staff (id, name, role, pin_hash, created_at_ms) VALUES ('s', 'Imre', 'lead', '-', 0)`).run()
  dispatch = createDispatch(db)
})
afterEach(() => db.close())

const suppliers = (): number => (db.raw.prepare('SELECT count(*) AS n FROM supplier').get() as { n: number }).n
const commandsKept = (): number => (db.raw.prepare('SELECT count(*) AS n FROM command').get() as { n: number }).n
const addSupplier = (change: { fails?: boolean; prepare?: () => Promise<undefined>; secrets?: 'word'[] } = {}): Command => ({
  kind: 'command',
  method: 'post',
  path: '/api/x',
  access: 'lead',
  name: 'addSupplier',
  schema: object({ name: string().required(), word: string() }),
  secrets: change.secrets,
  touches: () => ['register'],
  prepare: change.prepare,
  run: ({ key }, input) => {
    const { name } = input as { name: string }
    db.raw.prepare('INSERT INTO supplier (id, name) VALUES (?, ?)').run(key, name)
    if (change.fails) throw new Error('halfway')
    return { made: name }
  },
})
const call = (body: object, key = newKey()) => ({ key, actor, params: {}, body, nowMs })

describe('one key, one transaction', () => {
  test('what fails halfway leaves nothing, neither the row nor the key', async () => {
    const key = newKey()
    await expect(dispatch(addSupplier({ fails: true }), call({ name: 'Reed' }, key))).rejects.toThrow('halfway')
    expect([suppliers(), commandsKept()]).toEqual([0, 0])
    expect(await dispatch(addSupplier(), call({ name: 'Reed' }, key))).toEqual({ status: 201, answer: { made: 'Reed' }, isReplay: false })
  })

  test('the same key twice at once, while something slow is prepared, is still one', async () => {
    const slow = addSupplier({ prepare: () => new Promise((resolve) => setTimeout(() => resolve(undefined), 20)) })
    const same = call({ name: 'Reed' })
    const answers = await Promise.all([dispatch(slow, same), dispatch(slow, same), dispatch(slow, same)])
    expect(answers.map(({ isReplay }) => isReplay).sort()).toEqual([false, true, true])
    expect([suppliers(), commandsKept()]).toEqual([1, 1])
  })

  test('a secret takes no part in what a key stands for; everything else does', async () => {
    const secret = addSupplier({ secrets: ['word'] })
    const key = newKey()
    await dispatch(secret, call({ name: 'Reed', word: 'one' }, key))
    expect((await dispatch(secret, call({ name: 'Reed', word: 'two' }, key))).isReplay).toBe(true)
    await expect(dispatch(secret, call({ name: 'Quay', word: 'one' }, key))).rejects.toMatchObject({ code: 'key-reused' })
    expect(JSON.stringify(db.raw.prepare('SELECT * FROM command').all())).not.toMatch(/one|two/)
  })
})

describe('whatever is thrown becomes a problem that leaks nothing', () => {
  const status = (code: number): Error => Object.assign(new Error('inner words'), { status: code })
  test.each<[string, unknown, string, number]>([
    ['a problem', new Problem('conflict', 'No.'), 'conflict', 409],
    ['a complaint about a field', new ValidationError('wrong', 1, 'quantity'), 'invalid-input', 422],
    ['a value that cannot be bound', new UnbindableError('inner words'), 'invalid-input', 422],
    ['a body that is too large', status(413), 'too-large', 413],
    ['a body that cannot be read', status(400), 'malformed-request', 400],
    ['a fault of ours', new TypeError('inner words'), 'internal', 500],
    ['a fault of the disk', status(507), 'internal', 500],
    ['a thrown word', 'inner words', 'internal', 500],
    ['nothing', null, 'internal', 500],
  ])('%s', (_, thrown, code, httpStatus) => {
    const problem = toProblem(thrown)
    expect([problem.code, problem.status]).toEqual([code, httpStatus])
    expect(JSON.stringify(problem.toBody())).not.toMatch(/inner words/)
  })
})
