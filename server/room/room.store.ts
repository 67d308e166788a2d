import { asc, eq, isNull, sql } from 'drizzle-orm'
import type { Ate, Sign } from '../../core/rounds/rounds.schema'
import { findNamed } from '../../core/words/nameKey'
import type { Database } from '../db/open'
import { room, system, tank } from './room.table'

export type TankRow = typeof tank.$inferSelect

/** The newest standing check of a tank. */
export interface LastCheckRow {
  tankId: string
  ate: Ate
  signs: Sign[]
  note: string | null
  roundOn: string
  happenedAtMs: number
}

/** Queries about the room, its systems and tanks. */
export function createRoomStore({ orm }: Database) {
  const tankById = orm.select().from(tank).where(eq(tank.id, sql.placeholder('id'))).prepare()
  return {
    room: () => orm.select().from(room).get() ?? null,
    systems: () => orm.select().from(system).where(isNull(system.retiredAtMs)).orderBy(asc(system.name)).all(),
    systemByName: (name: string) => findNamed(orm.select().from(system).all(), name),
    insertSystem: (values: typeof system.$inferInsert) => void orm.insert(system).values(values).run(),
    insertTank: (values: typeof tank.$inferInsert) => void orm.insert(tank).values(values).run(),
    /** Tanks in use, in rack order. */
    tanks: () => orm.select().from(tank).where(isNull(tank.retiredAtMs)).orderBy(asc(tank.rack), asc(tank.shelf), asc(tank.position)).all(),
    tanksOfRack: (rack: string) => orm.select().from(tank).where(eq(tank.rack, rack)).all(),
    tankById: (id: string): TankRow | null => tankById.get({ id }) ?? null,
    tankByCode: (code: string): TankRow | null => orm.select().from(tank).where(eq(tank.code, code)).get() ?? null,
    /** The newest standing check of every tank that has one, or of one tank; of rounds before `round` when given. */
    lastChecks: (before: { on: string; number: number } | null, tankId: string | null = null): LastCheckRow[] =>
      orm
        .all<Omit<LastCheckRow, 'signs'> & { signs: string }>(
          sql`SELECT c.tank_id AS tankId, c.ate, c.signs, c.note, c.round_on AS roundOn, c.happened_at_ms AS happenedAtMs FROM tank
            JOIN "check" c ON c.id = (SELECT id FROM "check" WHERE tank_id = tank.id AND replaced_by_id IS NULL
              ${before ? sql`AND (round_on < ${before.on} OR (round_on = ${before.on} AND round_number < ${before.number}))` : sql``}
              ORDER BY happened_at_ms DESC, recorded_at_ms DESC LIMIT 1) ${tankId === null ? sql`` : sql`WHERE tank.id = ${tankId}`}`,
        )
        .map((row) => ({ ...row, signs: JSON.parse(row.signs) as Sign[] })),
  }
}
export type RoomStore = ReturnType<typeof createRoomStore>
