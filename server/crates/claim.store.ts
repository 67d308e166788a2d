import { eq } from 'drizzle-orm'
import type { Database } from '../db/open'
import { claim, crate, supplier } from './crates.table'

/** Queries about claims. */
export function createClaimStore({ orm }: Database) {
  return {
    claimOf: (crateId: string) => orm.select().from(claim).where(eq(claim.crateId, crateId)).get() ?? null,
    rulesOf: (crateId: string): string | null => orm.select({ rules: supplier.claimRules }).from(crate).innerJoin(supplier, eq(supplier.id, crate.supplierId)).where(eq(crate.id, crateId)).get()?.rules ?? null,
    keep: (values: typeof claim.$inferInsert) => void orm.insert(claim).values(values).onConflictDoUpdate({ target: claim.crateId, set: values }).run(),
  }
}
export type ClaimStore = ReturnType<typeof createClaimStore>
