import { eq, sql } from 'drizzle-orm'
import { isDoneByItself, type AskedChore } from '../../core/chores/askedChore'
import type { AskChore, EndChore } from '../../core/chores/chores.schema'
import type { Database } from '../db/open'
import type { FactsService } from '../facts/facts.service'
import type { CommandContext } from '../http/endpoint'
import { Problem } from '../http/problem'
import { newId } from '../newId'
import type { RegimensStore } from '../regimens/regimens.store'
import { askedChore } from './chores.table'

/** What nobody did for so long is asked for no more. */
const openDays = 7
const [minuteMs, dayMs] = [60_000, 86_400_000]

interface Collaborators {
  db: Pick<Database, 'orm' | 'version'>
  facts: Pick<FactsService, 'all' | 'requireTank'>
  /** What was changed of a water is kept for the levels of what is in it. */
  waters: Pick<RegimensStore, 'insertChange' | 'undoChangesOf'>
}

/** Work at tanks that somebody asked for. */
export function createChoresService({ db: { orm, version }, facts, waters }: Collaborators) {
  let known: { version: string; minute: number; open: readonly AskedChore[] } | null = null

  function reckon(nowMs: number): AskedChore[] {
    const rows = orm.all<AskedChore>(
      sql`SELECT c.id, c.tank_id AS tankId, tank.code AS tankCode, c.kind, c.litres_each AS litresEach, c.times, c.by_ms AS byMs, c.asked_at_ms AS askedAtMs, staff.name AS askedBy
        FROM asked_chore c JOIN tank ON tank.id = c.tank_id JOIN staff ON staff.id = c.asked_by_id WHERE c.asked_at_ms >= ${nowMs - openDays * dayMs} AND c.ended_at_ms IS NULL ORDER BY c.by_ms, c.rowid`,
    )
    if (rows.length === 0) return []
    const tanks = facts.all(nowMs)
    return rows.filter((row) => {
      const tank = tanks.get(row.tankId)
      const readings = [...tanks.values()].flatMap((each) => (each.water.id === tank?.water.id ? each.readings : []))
      return tank !== undefined && !isDoneByItself(row, tank, readings)
    })
  }

  /** What is asked for and not done, the nearest first. */
  function open(nowMs: number): readonly AskedChore[] {
    const minute = Math.floor(nowMs / minuteMs)
    if (known?.version !== version() || known.minute !== minute) known = { version: version(), minute, open: reckon(nowMs) }
    return known.open
  }

  return {
    open,
    /** Asks for work once: the same is not asked for twice. */
    askChore({ actor, key, nowMs }: CommandContext, { tankId, kind, withinMin, litresEach, times }: AskChore) {
      facts.requireTank(tankId, 'tankId', nowMs)
      const same = open(nowMs).find((each) => each.tankId === tankId && each.kind === kind)
      if (same) return { id: same.id }
      const id = newId()
      orm.insert(askedChore).values({ id, tankId, kind, litresEach, times, byMs: nowMs + withinMin * minuteMs, askedById: actor.id, commandKey: key, askedAtMs: nowMs }).run()
      return { id }
    },
    endChore({ params, actor, key, nowMs }: CommandContext, { as }: EndChore) {
      const row = orm.select().from(askedChore).where(eq(askedChore.id, params.choreId ?? '')).get()
      if (!row) throw new Problem('not-found', 'Nobody asked for this')
      const ended = as === 'open' ? { endedAs: null, endedById: null, endedAtMs: null } : { endedAs: as, endedById: actor.id, endedAtMs: nowMs }
      waters.undoChangesOf({ askedChoreId: row.id }, { undoneAtMs: nowMs, undoneById: actor.id })
      const changed = as === 'done' && row.kind === 'part change' && row.litresEach !== null ? { tankId: row.tankId, litres: row.litresEach, askedChoreId: row.id, staffId: actor.id, commandKey: key, happenedAtMs: nowMs, recordedAtMs: nowMs } : null
      if (changed) for (let time = 0; time < row.times; time += 1) waters.insertChange({ id: newId(), ...changed })
      orm.update(askedChore).set(ended).where(eq(askedChore.id, row.id)).run()
      return {}
    },
  }
}
export type ChoresService = ReturnType<typeof createChoresService>
