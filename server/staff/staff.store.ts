import { and, asc, eq, sql } from 'drizzle-orm'
import type { StaffView } from '../../core/staff/staff.schema'
import type { Database } from '../db/open'
import { room } from '../room/room.table'
import { session, sessionRecorder, staff } from './staff.table'

export type StaffRow = typeof staff.$inferSelect
export type SessionRow = typeof session.$inferSelect

/** Queries about people and the devices they opened. */
export function createStaffStore({ orm }: Database) {
  const sessionByToken = orm.select().from(session).where(eq(session.tokenHash, sql.placeholder('tokenHash'))).prepare()
  const recorder = orm
    .select({ id: staff.id, name: staff.name, role: staff.role })
    .from(sessionRecorder)
    .innerJoin(staff, eq(staff.id, sessionRecorder.staffId))
    .where(and(eq(sessionRecorder.sessionId, sql.placeholder('sessionId')), eq(sessionRecorder.staffId, sql.placeholder('staffId'))))
    .prepare()
  return {
    room: () => orm.select().from(room).get() ?? null,
    createRoom: (values: Omit<typeof room.$inferInsert, 'id'>) => orm.insert(room).values({ id: 1, ...values }).run(),
    insertStaff: (values: typeof staff.$inferInsert) => orm.insert(staff).values(values).run(),
    staffByName: (name: string) => orm.select().from(staff).where(sql`lower(${staff.name}) = ${name.trim().toLowerCase()}`).get() ?? null,
    staffById: (id: string) => orm.select().from(staff).where(eq(staff.id, id)).get() ?? null,
    listStaff: (): StaffView[] => orm.select({ id: staff.id, name: staff.name, role: staff.role }).from(staff).orderBy(asc(staff.name)).all(),
    insertSession: (values: typeof session.$inferInsert) => orm.insert(session).values(values).run(),
    sessionByToken: (tokenHash: string): SessionRow | null => sessionByToken.get({ tokenHash }) ?? null,
    deleteSession: (id: string) => {
      orm.delete(sessionRecorder).where(eq(sessionRecorder.sessionId, id)).run()
      orm.delete(session).where(eq(session.id, id)).run()
    },
    addRecorder: (sessionId: string, staffId: string, identifiedAtMs: number) =>
      orm.insert(sessionRecorder).values({ sessionId, staffId, identifiedAtMs }).onConflictDoNothing().run(),
    recorder: (sessionId: string, staffId: string): StaffView | null => recorder.get({ sessionId, staffId }) ?? null,
    recorderIds: (sessionId: string) =>
      orm.select({ staffId: sessionRecorder.staffId }).from(sessionRecorder).where(eq(sessionRecorder.sessionId, sessionId)).all().map((row) => row.staffId),
  }
}
export type StaffStore = ReturnType<typeof createStaffStore>
