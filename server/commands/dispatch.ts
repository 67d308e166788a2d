import { createHash } from 'node:crypto'
import { eq, sql } from 'drizzle-orm'
import type { Thing } from '../../core/commands/things'
import type { Database } from '../db/open'
import type { Changes } from '../events/changes'
import { fieldProblem, Problem } from '../http/problem'
import type { Actor, Command, Params } from '../http/endpoint'
import { validated } from '../../core/fields/validated'
import { command as commandTable } from './commands.table'

export interface Dispatched {
  status: number
  answer: unknown
  /** True when this key was answered before and nothing was written now. */
  isReplay: boolean
}
export interface Call {
  key: string
  actor: Actor
  params: Params
  body: unknown
  nowMs: number
}
export type Dispatch = (command: Command, call: Call) => Promise<Dispatched>

const keyPattern = /^[A-Za-z0-9_-]{16,64}$/
/** How far a device's idea of now may be ahead of the server's. */
const futureToleranceMs = 5 * 60_000

/**
 * Makes the one door through which everything is written: looks the key up, checks the input, runs the command and keeps
 * its answer, the last two in one transaction.
 * @param beside - keeps what goes with a write, in its transaction, and answers what else that touched.
 * @throws Problem `key-reused` when the key was used for something else, `ahead-of-clock` when the input happened later
 *   than the server's clock stands; whatever the command throws.
 */
export function createDispatch(db: Database, changes: Pick<Changes, 'tell'> = { tell: () => undefined }, beside: (by: { key: string; staffId: string; nowMs: number }, touched: readonly Thing[]) => readonly Thing[] = () => []): Dispatch {
  const find = db.orm.select().from(commandTable).where(eq(commandTable.key, sql.placeholder('key'))).prepare()
  const keep = db.orm
    .insert(commandTable)
    .values({
      key: sql.placeholder('key'),
      name: sql.placeholder('name'),
      bodyHash: sql.placeholder('bodyHash'),
      status: sql.placeholder('status'),
      answer: sql.placeholder('answer'),
      staffId: sql.placeholder('staffId'),
      recordedAtMs: sql.placeholder('recordedAtMs'),
    })
    .prepare()

  function replay(key: string, bodyHash: string): Dispatched | null {
    const known = find.get({ key })
    if (!known) return null
    if (known.bodyHash !== bodyHash) throw new Problem('key-reused', 'This key was used before for something else; nothing was written')
    return { status: known.status, answer: JSON.parse(known.answer) as unknown, isReplay: true }
  }

  return async (command, { key, actor, params, body, nowMs }) => {
    if (!keyPattern.test(key)) throw fieldProblem('Idempotency-Key', 'Idempotency-Key must be 16 to 64 letters, digits, - or _')
    // First of all, and over the body as sent: what is in the books stays so, whatever a newer version, or a clock that was
    // put back, would say of it now.
    const bodyHash = hashOf(command, params, body ?? {})
    const known = replay(key, bodyHash)
    if (known) return known
    const input = validated(command.schema, body)
    refuseFuture(input, nowMs)
    const prepared = (await command.prepare?.(input)) as undefined
    const before = db.version()
    const touched = command.touches(params, input)
    let beyond: readonly Thing[] = []
    const dispatched = db.transact((): Dispatched => {
      // Looked up again: another request with this key may have been answered while we prepared.
      const meanwhile = command.prepare ? replay(key, bodyHash) : null
      if (meanwhile) return meanwhile
      const answer = command.run({ actor, key, nowMs, params }, input, prepared) ?? {}
      beyond = beside({ key, staffId: actor.id, nowMs }, touched)
      const status = command.method === 'post' ? 201 : 200
      keep.run({ key, name: command.name, bodyHash, status, answer: JSON.stringify(answer), staffId: actor.id, recordedAtMs: nowMs })
      return { status, answer, isReplay: false }
    })
    if (!dispatched.isReplay) db.acknowledge(nowMs)
    // Only what is in the books is told.
    if (!dispatched.isReplay) changes.tell({ command: command.name, params, touched: [...touched, ...beyond], written: { key, before, after: db.version() } })
    return dispatched
  }
}

function refuseFuture(input: unknown, nowMs: number): void {
  const happenedAtMs = (input as { happenedAtMs?: number }).happenedAtMs
  if (happenedAtMs === undefined || happenedAtMs <= nowMs + futureToleranceMs) return
  const message = 'Time it happened lies in the future'
  throw new Problem('ahead-of-clock', message, { errors: [{ path: 'happenedAtMs', message }], current: { nowMs } })
}

function hashOf(command: Command, params: Params, body: object): string {
  const open = Object.entries(body).filter(([field]) => !command.secrets?.includes(field))
  const left = { values: mostValues }
  return createHash('sha256').update(JSON.stringify([command.name, sorted(params, left), sorted(Object.fromEntries(open), left)])).digest('base64url')
}

/** Nothing that is written nests deeper or holds more; what does would exhaust whoever goes through it. */
const [deepest, mostValues] = [12, 200_000]

// Two devices may name the same fields in another order.
function sorted(value: unknown, left: { values: number }, depth = 0): unknown {
  if (depth > deepest) throw new Problem('malformed-request', 'The request nests too deep to be read')
  if ((left.values -= 1) < 0) throw new Problem('too-large', 'The request holds more than anything of ours')
  if (Array.isArray(value)) return value.map((each) => sorted(each, left, depth + 1))
  if (value === null || typeof value !== 'object') return value
  return Object.entries(value)
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([field, each]) => [field, sorted(each, left, depth + 1)])
}
