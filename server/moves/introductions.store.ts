import { and, desc, eq, isNull, max, or, gte, sql } from 'drizzle-orm'
import type { Database } from '../db/open'
import { newId } from '../newId'
import { tank } from '../room/room.table'
import { staff } from '../staff/staff.table'
import { introduction, introductionEvent } from './moves.table'

export type IntroductionRow = typeof introduction.$inferSelect
export type IntroductionEventRow = typeof introductionEvent.$inferSelect & { by: string }

/** Queries about introductions. */
export function createIntroductionsStore({ orm }: Database) {
  return {
    /** Those that go on, and those that ended since a moment; the newest first. */
    open: (sinceMs: number): IntroductionRow[] => orm.select().from(introduction).where(and(isNull(introduction.undoneAtMs), or(isNull(introduction.endedAtMs), gte(introduction.endedAtMs, sinceMs)))).orderBy(desc(introduction.number)).all(),
    byId: (id: string): IntroductionRow | null => orm.select().from(introduction).where(eq(introduction.id, id)).get() ?? null,
    openIn: (tankId: string): IntroductionRow | null => orm.select().from(introduction).where(and(eq(introduction.tankId, tankId), isNull(introduction.endedAtMs), isNull(introduction.undoneAtMs))).get() ?? null,
    nextNumber: (): number => (orm.select({ last: max(introduction.number) }).from(introduction).get()?.last ?? 0) + 1,
    insert: (row: typeof introduction.$inferInsert): void => void orm.insert(introduction).values(row).run(),
    setEnded: (id: string, endedAtMs: number | null): void => void orm.update(introduction).set({ endedAtMs }).where(eq(introduction.id, id)).run(),
    /** What happened, in the order of time. */
    events: (introductionId: string): IntroductionEventRow[] =>
      orm.select({ event: introductionEvent, by: staff.name }).from(introductionEvent).innerJoin(staff, eq(staff.id, introductionEvent.staffId)).where(and(eq(introductionEvent.introductionId, introductionId), isNull(introductionEvent.undoneAtMs))).orderBy(introductionEvent.atMs, sql`introduction_event.rowid`).all().map(({ event, by }) => ({ ...event, by })),
    insertEvent: (row: Omit<typeof introductionEvent.$inferInsert, 'id'>): string => {
      const id = newId()
      orm.insert(introductionEvent).values({ id, ...row }).run()
      return id
    },
    undoEvent: (id: string, by: { undoneById: string; undoneAtMs: number }): void => void orm.update(introductionEvent).set(by).where(eq(introductionEvent.id, id)).run(),
    codeOf: (tankId: string): string => orm.select({ code: tank.code }).from(tank).where(eq(tank.id, tankId)).get()?.code ?? '',
  }
}
export type IntroductionsStore = ReturnType<typeof createIntroductionsStore>
