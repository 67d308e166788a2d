import { and, eq, isNull, sql } from 'drizzle-orm'
import type { Database } from '../db/open'
import { bagPhoto } from './crates.table'

/** Queries about pictures of bags. */
export function createPhotosStore({ orm }: Database) {
  return {
    insert: (values: typeof bagPhoto.$inferInsert) => void orm.insert(bagPhoto).values(values).run(),
    /** A picture that was not taken away. */
    photo: (id: string) => orm.select().from(bagPhoto).where(and(eq(bagPhoto.id, id), isNull(bagPhoto.removedAtMs))).get() ?? null,
    countOfBag: (bagId: string): number => orm.select({ n: sql<number>`count(*)` }).from(bagPhoto).where(and(eq(bagPhoto.bagId, bagId), isNull(bagPhoto.removedAtMs))).get()?.n ?? 0,
    markRemoved: (id: string, by: { removedById: string; removedAtMs: number }) => void orm.update(bagPhoto).set(by).where(eq(bagPhoto.id, id)).run(),
  }
}
export type PhotosStore = ReturnType<typeof createPhotosStore>
