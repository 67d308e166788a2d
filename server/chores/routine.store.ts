import { and, eq, isNull, sql } from 'drizzle-orm'
import type { ChorePlace } from '../../core/chores/chores.schema'
import type { ChoreSetUp } from '../../core/chores/choreView'
import type { Database } from '../db/open'
import { chore, choreDone, supplyStock } from './chores.table'

/** What was done of chores at their places, as it is read. */
export interface DoneRow {
  id: string
  choreId: string
  placeId: string
  place: string
  name: string
  by: string
  atMs: number
}

/** Queries about work that comes round. */
export function createRoutineStore({ orm }: Pick<Database, 'orm'>) {
  const setUp = (row: typeof chore.$inferSelect): ChoreSetUp => ({ ...row, rule: JSON.parse(row.rule) as ChoreSetUp['rule'], places: JSON.parse(row.places) as ChorePlace[] })
  return {
    chores: (): ChoreSetUp[] => orm.select().from(chore).where(isNull(chore.retiredAtMs)).orderBy(chore.name, chore.id).all().map(setUp),
    chore(id: string): (ChoreSetUp & { isRetired: boolean }) | null {
      const row = orm.select().from(chore).where(eq(chore.id, id)).get()
      return row ? { ...setUp(row), isRetired: row.retiredAtMs !== null } : null
    },
    insert: (row: typeof chore.$inferInsert) => void orm.insert(chore).values(row).run(),
    update: (id: string, row: Partial<typeof chore.$inferInsert>) => void orm.update(chore).set(row).where(eq(chore.id, id)).run(),

    /** When each place was last done, up to a day. */
    lastDone: (choreId: string, placeId: string, on: string): string | null =>
      orm.get<{ on: string | null }>(sql`SELECT max(done_on) AS "on" FROM chore_done WHERE chore_id = ${choreId} AND place_id = ${placeId} AND done_on <= ${on} AND undone_at_ms IS NULL`)?.on ?? null,
    doneOn: (on: string): DoneRow[] =>
      orm.all(sql`SELECT d.id, d.chore_id AS choreId, d.place_id AS placeId, d.place, chore.name, staff.name AS "by", d.happened_at_ms AS atMs FROM chore_done d JOIN chore ON chore.id = d.chore_id JOIN staff ON staff.id = d.staff_id
        WHERE d.done_on = ${on} AND d.undone_at_ms IS NULL ORDER BY d.happened_at_ms DESC, d.rowid DESC`),
    done: (id: string) => orm.select().from(choreDone).where(eq(choreDone.id, id)).get() ?? null,
    sameDone: (choreId: string, placeId: string, on: string): string | null => orm.select({ id: choreDone.id }).from(choreDone).where(and(eq(choreDone.choreId, choreId), eq(choreDone.placeId, placeId), eq(choreDone.doneOn, on), isNull(choreDone.undoneAtMs))).get()?.id ?? null,
    insertDone: (row: typeof choreDone.$inferInsert) => void orm.insert(choreDone).values(row).run(),
    undo: (id: string, undone: { undoneAtMs: number; undoneById: string }) => void orm.update(choreDone).set(undone).where(eq(choreDone.id, id)).run(),

    piecesOf: (item: string): number | null => orm.get<{ after: number } | undefined>(sql`SELECT after FROM supply_stock WHERE item = ${item} ORDER BY seq DESC LIMIT 1`)?.after ?? null,
    usedBy: (doneId: string): { item: string; pieces: number }[] => orm.all(sql`SELECT item, -sum(pieces) AS pieces FROM supply_stock WHERE done_id = ${doneId} GROUP BY item`),
    insertStock: (row: typeof supplyStock.$inferInsert) => void orm.insert(supplyStock).values(row).run(),
    /** Fish that came in bags or by hand since a moment; what stood here before the books did not come. */
    arrivals: (sinceMs: number): { atMs: number; fish: number }[] => orm.all(sql`SELECT m.happened_at_ms AS atMs, m.quantity AS fish FROM movement m JOIN lot ON lot.id = m.lot_id AND lot.is_before_books = 0 WHERE m.kind = 'arrive' AND m.happened_at_ms >= ${sinceMs} AND NOT EXISTS (SELECT 1 FROM movement back WHERE back.reverses_id = m.id)`),
    systemNames: (): Map<string, string> => new Map(orm.all<{ id: string; name: string }>(sql`SELECT id, name FROM system`).map(({ id, name }) => [id, name])),
    speciesNames: (ids: readonly string[]): Map<string, string> => new Map(orm.all<{ id: string; name: string }>(sql`SELECT id, name FROM species WHERE id IN (SELECT value FROM json_each(${JSON.stringify(ids)}))`).map(({ id, name }) => [id, name])),
  }
}
export type RoutineStore = ReturnType<typeof createRoutineStore>
