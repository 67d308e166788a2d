import { eq, inArray, sql } from 'drizzle-orm'
import type { SaleMapping } from '../../core/sales/readSales'
import type { Database } from '../db/open'
import { saleList, saleMapping, saleRow, saleWord } from './sales.table'

/** Queries about lists of sales. */
export function createSalesStore({ orm }: Database) {
  return {
    /** The newest lists that were taken in. */
    lists: (limit: number) => orm.all<{ id: string; bookedAtMs: number; staffName: string; rows: number; fish: number; takenBackAtMs: number | null }>(sql`SELECT l.id, l.booked_at_ms AS bookedAtMs, staff.name AS staffName, l.rows, l.fish, l.taken_back_at_ms AS takenBackAtMs FROM sale_list l JOIN staff ON staff.id = l.booked_by_id ORDER BY l.booked_at_ms DESC LIMIT ${limit}`),
    byId: (id: string) => orm.select().from(saleList).where(eq(saleList.id, id)).get() ?? null,
    insertList: (row: typeof saleList.$inferInsert) => void orm.insert(saleList).values(row).run(),
    takeBack: (id: string, takenBackAtMs: number): void => {
      orm.update(saleList).set({ takenBackAtMs }).where(eq(saleList.id, id)).run()
      orm.delete(saleRow).where(eq(saleRow.listId, id)).run()
    },
    insertRow: (listId: string, rowKey: string) => void orm.insert(saleRow).values({ listId, rowKey }).onConflictDoNothing().run(),
    booked: (keys: readonly string[]): ReadonlySet<string> => new Set(orm.select({ key: saleRow.rowKey }).from(saleRow).where(inArray(saleRow.rowKey, [...keys])).all().map(({ key }) => key)),
    meaning: (wordKey: string) => orm.select().from(saleWord).where(eq(saleWord.wordKey, wordKey)).get() ?? null,
    remember: (row: typeof saleWord.$inferInsert) => void orm.insert(saleWord).values(row).onConflictDoUpdate({ target: saleWord.wordKey, set: { speciesId: row.speciesId, strain: row.strain } }).run(),
    mappingOf: (heading: string): SaleMapping | null => orm.select().from(saleMapping).where(eq(saleMapping.heading, heading)).get()?.mapping ?? null,
    rememberMapping: (heading: string, mapping: SaleMapping) => void orm.insert(saleMapping).values({ heading, mapping }).onConflictDoUpdate({ target: saleMapping.heading, set: { mapping } }).run(),
  }
}
export type SalesStore = ReturnType<typeof createSalesStore>
