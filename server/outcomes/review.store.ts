import { eq } from 'drizzle-orm'
import type { Database } from '../db/open'
import { staff } from '../staff/staff.table'
import { monthlySheet } from './outcomes.table'

/** Queries about monthly sheets that were kept. */
export function createReviewStore({ orm }: Database) {
  return {
    kept: (month: string) => orm.select({ figures: monthlySheet.figures, by: staff.name, atMs: monthlySheet.recordedAtMs }).from(monthlySheet).innerJoin(staff, eq(staff.id, monthlySheet.staffId)).where(eq(monthlySheet.month, month)).get() ?? null,
    keep: (row: typeof monthlySheet.$inferInsert): void => void orm.insert(monthlySheet).values(row).onConflictDoUpdate({ target: monthlySheet.month, set: row }).run(),
  }
}
export type ReviewStore = ReturnType<typeof createReviewStore>
