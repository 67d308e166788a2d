import { asc, eq, isNull, sql } from 'drizzle-orm'
import { findNamed } from '../../core/words/nameKey'
import type { Database } from '../db/open'
import { room, system, tank } from './room.table'

export type TankRow = typeof tank.$inferSelect

/** Queries about the room, its systems and tanks. */
export function createRoomStore({ orm }: Database) {
  const theRoom = orm.select().from(room).prepare()
  const tankById = orm.select().from(tank).where(eq(tank.id, sql.placeholder('id'))).prepare()
  return {
    room: () => theRoom.get() ?? null,
    systems: () => orm.select().from(system).where(isNull(system.retiredAtMs)).orderBy(asc(system.name)).all(),
    systemByName: (name: string) => findNamed(orm.select().from(system).all(), name),
    insertSystem: (values: typeof system.$inferInsert) => void orm.insert(system).values(values).run(),
    insertTank: (values: typeof tank.$inferInsert) => void orm.insert(tank).values(values).run(),
    tanksOfRack: (rack: string) => orm.select().from(tank).where(eq(tank.rack, rack)).all(),
    tankById: (id: string): TankRow | null => tankById.get({ id }) ?? null,
    tankByCode: (code: string): TankRow | null => orm.select().from(tank).where(eq(tank.code, code)).get() ?? null,
  }
}
export type RoomStore = ReturnType<typeof createRoomStore>
