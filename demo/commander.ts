import { createHash } from 'node:crypto'
import type { BenchSubject, RunView } from '../core/bench/benchView'
import type { CrateView } from '../core/crates/crateView'
import type { StepView } from '../core/crates/preparation'
import type { IntroductionView } from '../core/moves/introductionView'
import type { RegisterName, RegisterRow } from '../core/setup/registers'
import type { RoomView, TankView } from '../core/room/roomView'
import type { RoundView } from '../core/rounds/roundView'
import type { StaffView } from '../core/staff/staff.schema'
import { createServices } from '../server/services'
import type { Database } from '../server/db/open'
import type { Command, Params, Read } from '../server/http/endpoint'

/**
 * Speaks to the services as a browser would, at any moment of the past: the same commands, checks and transactions,
 * only without the network.
 */
export function createCommander(db: Database) {
  const clock = { nowMs: 0 }
  const { staff, dispatch, endpoints } = createServices({ db, now: () => clock.nowMs })
  const commands = new Map(endpoints.filter((each): each is Command => each.kind === 'command').map((each) => [each.name, each]))
  const reads = new Map(endpoints.filter((each): each is Read => each.kind === 'read').map((each) => [each.path, each]))
  // A commander that comes later has keys of its own.
  const { before } = db.raw.prepare('SELECT count(*) AS before FROM command').get() as { before: number }
  let written = 0

  async function run<T>(name: string, params: Params, body: object, actor: StaffView, atMs: number): Promise<T> {
    const command = commands.get(name)
    if (!command) throw new Error(`there is no command ${name}`)
    clock.nowMs = atMs
    written += 1
    const key = createHash('sha256').update(`demo ${before} ${written}`).digest('base64url').slice(0, 24)
    return (await dispatch(command, { key, actor: { ...actor, isPinFresh: true, sessionId: null }, params, body, nowMs: atMs })).answer as T
  }

  function ask<T>(path: string, params: Params, nowMs: number, query: Record<string, string> = {}): T {
    const read = reads.get(path)
    if (!read) throw new Error(`there is no read ${path}`)
    return read.read({ params, query, nowMs }) as T
  }

  return {
    staff,
    clock,
    run,
    ask,
    crate: (crateId: string, nowMs: number) => ask<CrateView>('/api/crates/:crateId', { crateId }, nowMs),
    preparation: (crateId: string, nowMs: number) => ask<{ steps: StepView[] }>('/api/crates/:crateId/preparation', { crateId }, nowMs).steps,
    room: (nowMs: number) => ask<RoomView>('/api/room', {}, nowMs),
    round: (nowMs: number) => ask<RoundView>('/api/rounds/today', {}, nowMs),
    tank: (code: string, nowMs: number) => ask<TankView>('/api/tanks/:code', { code }, nowMs),
    subject: (query: Record<string, string>, nowMs: number) => ask<BenchSubject>('/api/bench/subject', {}, nowMs, query),
    benchRun: (runId: string, nowMs: number) => ask<RunView>('/api/bench/runs/:runId', { runId }, nowMs),
    introduction: (introductionId: string, nowMs: number) => ask<IntroductionView>('/api/introductions/:introductionId', { introductionId }, nowMs),
    rows: (register: RegisterName, nowMs: number) => ask<{ rows: RegisterRow[] }>(`/api/setup/${register}`, {}, nowMs).rows,
  }
}
export type Commander = ReturnType<typeof createCommander>
