import { and, eq, isNull, sql } from 'drizzle-orm'
import type { Database } from '../db/open'
import { staff } from '../staff/staff.table'
import { trial, trialCrate, trialLookTaken } from './outcomes.table'

export type TrialRow = typeof trial.$inferSelect
export type TrialCrateRow = typeof trialCrate.$inferSelect

/** Queries about trials. */
export function createTrialsStore({ orm }: Database) {
  return {
    all: (): TrialRow[] => orm.select().from(trial).orderBy(sql`${trial.number} DESC`).all(),
    running: (): TrialRow[] => orm.select().from(trial).where(isNull(trial.endedAtMs)).all(),
    one: (id: string): TrialRow | null => orm.select().from(trial).where(eq(trial.id, id)).get() ?? null,
    nextNumber: (): number => (orm.get<{ n: number | null }>(sql`SELECT max(number) AS n FROM trial`)?.n ?? 0) + 1,
    insert: (row: typeof trial.$inferInsert): void => void orm.insert(trial).values(row).run(),
    end: (id: string, by: { endedAtMs: number; endedById: string; endedBecause: string }): void => void orm.update(trial).set(by).where(eq(trial.id, id)).run(),
    crates: (trialId: string): TrialCrateRow[] => orm.select().from(trialCrate).where(eq(trialCrate.trialId, trialId)).orderBy(trialCrate.recordedAtMs, trialCrate.place).all(),
    crate: (trialId: string, crateId: string): TrialCrateRow | null => orm.select().from(trialCrate).where(and(eq(trialCrate.trialId, trialId), eq(trialCrate.crateId, crateId))).get() ?? null,
    insertCrate: (row: typeof trialCrate.$inferInsert): void => void orm.insert(trialCrate).values(row).run(),
    looks: (trialId: string): (typeof trialLookTaken.$inferSelect & { by: string })[] =>
      orm.select({ look: trialLookTaken, by: staff.name }).from(trialLookTaken).innerJoin(staff, eq(staff.id, trialLookTaken.staffId)).where(eq(trialLookTaken.trialId, trialId)).orderBy(trialLookTaken.recordedAtMs).all().map(({ look, by }) => ({ ...look, by })),
    insertLook: (row: typeof trialLookTaken.$inferInsert): void => void orm.insert(trialLookTaken).values(row).run(),
    supplierOf: (crateId: string): { number: number; supplier: string } | null => orm.get(sql`SELECT crate.number, supplier.name AS supplier FROM crate JOIN supplier ON supplier.id = crate.supplier_id WHERE crate.id = ${crateId}`) ?? null,
    schoolNames: (): string[] => orm.all<{ name: string }>(sql`SELECT DISTINCT run.plan ->> '$.school.name' AS name FROM run WHERE run.plan ->> '$.kind' = 'acclimation' AND run.plan ->> '$.school.name' IS NOT NULL ORDER BY name`).map(({ name }) => name),
  }
}
export type TrialsStore = ReturnType<typeof createTrialsStore>
