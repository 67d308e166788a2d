import { and, asc, eq, isNull, sql } from 'drizzle-orm'
import type { DeviceView, PersonView, StaffView } from '../../core/staff/staff.schema'
import { findNamed } from '../../core/words/nameKey'
import type { Database } from '../db/open'
import { room } from '../room/room.table'
import { session, sessionRecorder, staff } from './staff.table'

export type StaffRow = typeof staff.$inferSelect
export type SessionRow = typeof session.$inferSelect

/** Queries about people and the devices they opened. */
export function createStaffStore({ orm }: Database) {
  const sessionByToken = orm.select().from(session).where(eq(session.tokenHash, sql.placeholder('tokenHash'))).prepare()
  const recorder = orm
    .select({ id: staff.id, name: staff.name, role: staff.role, identifiedAtMs: sessionRecorder.identifiedAtMs })
    .from(sessionRecorder)
    .innerJoin(staff, eq(staff.id, sessionRecorder.staffId))
    .where(and(eq(sessionRecorder.sessionId, sql.placeholder('sessionId')), eq(sessionRecorder.staffId, sql.placeholder('staffId')), isNull(staff.retiredAtMs)))
    .prepare()
  const closeSessions = (ids: string[]): number => {
    for (const id of ids) {
      orm.delete(sessionRecorder).where(eq(sessionRecorder.sessionId, id)).run()
      orm.delete(session).where(eq(session.id, id)).run()
    }
    return ids.length
  }
  return {
    room: () => orm.select().from(room).get() ?? null,
    createRoom: (values: Omit<typeof room.$inferInsert, 'id'>) => orm.insert(room).values({ id: 1, ...values }).run(),
    insertStaff: (values: typeof staff.$inferInsert) => orm.insert(staff).values(values).run(),
    staffByName: (name: string) => findNamed(orm.select().from(staff).all(), name.trim()),
    staffById: (id: string) => orm.select().from(staff).where(eq(staff.id, id)).get() ?? null,
    listStaff: (): StaffView[] => orm.select({ id: staff.id, name: staff.name, role: staff.role }).from(staff).where(isNull(staff.retiredAtMs)).orderBy(asc(staff.name)).all(),
    people: (): PersonView[] =>
      orm
        .select({ id: staff.id, name: staff.name, role: staff.role, version: staff.version, retiredAtMs: staff.retiredAtMs, passphraseHash: staff.passphraseHash })
        .from(staff)
        .orderBy(asc(staff.name))
        .all()
        .map(({ passphraseHash, ...person }) => ({ ...person, opensDevices: passphraseHash !== null })),
    updateStaff: (id: string, values: Partial<typeof staff.$inferInsert>) => void orm.update(staff).set(values).where(eq(staff.id, id)).run(),
    updateRoom: (values: Partial<typeof room.$inferInsert>) => void orm.update(room).set(values).run(),
    devices: (nowMs: number): Omit<DeviceView, 'isThisOne'>[] =>
      orm
        .all<Omit<DeviceView, 'isThisOne' | 'recorders'> & { recorders: string | null }>(
          sql`SELECT s.id, s.device, opener.name AS openedBy, s.created_at_ms AS createdAtMs, s.last_seen_at_ms AS lastSeenAtMs, s.expires_at_ms AS expiresAtMs,
              (SELECT group_concat(staff.name, ', ') FROM session_recorder r JOIN staff ON staff.id = r.staff_id WHERE r.session_id = s.id) AS recorders
            FROM session s JOIN staff opener ON opener.id = s.opened_by_id WHERE s.expires_at_ms > ${nowMs} ORDER BY coalesce(s.last_seen_at_ms, s.created_at_ms) DESC`,
        )
        .map((row) => ({ ...row, recorders: row.recorders?.split(', ') ?? [] })),
    markSeen: (id: string, lastSeenAtMs: number) => void orm.update(session).set({ lastSeenAtMs }).where(eq(session.id, id)).run(),
    isSession: (id: string): boolean => orm.select({ id: session.id }).from(session).where(eq(session.id, id)).get() !== undefined,
    closeSession: (id: string) => closeSessions([id]),
    closeSessionsOf: (staffId: string, exceptId: string | null = null): number => closeSessions(orm.select({ id: session.id }).from(session).where(eq(session.openedById, staffId)).all().map((row) => row.id).filter((id) => id !== exceptId)),
    closeAllSessions: (): number => closeSessions(orm.select({ id: session.id }).from(session).all().map((row) => row.id)),
    forgetRecorder: (staffId: string) => void orm.delete(sessionRecorder).where(eq(sessionRecorder.staffId, staffId)).run(),
    insertSession: (values: typeof session.$inferInsert) => orm.insert(session).values(values).run(),
    sessionByToken: (tokenHash: string): SessionRow | null => sessionByToken.get({ tokenHash }) ?? null,
    addRecorder: (sessionId: string, staffId: string, identifiedAtMs: number) =>
      orm.insert(sessionRecorder).values({ sessionId, staffId, identifiedAtMs }).onConflictDoUpdate({ target: [sessionRecorder.sessionId, sessionRecorder.staffId], set: { identifiedAtMs } }).run(),
    recorder: (sessionId: string, staffId: string): (StaffView & { identifiedAtMs: number }) | null => recorder.get({ sessionId, staffId }) ?? null,
    recorderIds: (sessionId: string) =>
      orm.select({ staffId: sessionRecorder.staffId }).from(sessionRecorder).where(eq(sessionRecorder.sessionId, sessionId)).all().map((row) => row.staffId),
  }
}
export type StaffStore = ReturnType<typeof createStaffStore>
