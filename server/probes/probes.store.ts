import { eq, sql } from 'drizzle-orm'
import type { Probe, ProbeSample } from '../../core/probes/probe'
import type { Database } from '../db/open'
import { probe, probeSample } from './probes.table'

export interface ProbeRow extends Probe {
  version: number
  addedById: string
}

/** Queries about probes. */
export function createProbesStore({ orm }: Pick<Database, 'orm'>) {
  return {
    inUse: (): ProbeRow[] => orm.all(sql`SELECT id, name, tank_id AS tankId, measure, every_min AS everyMin, fault, added_at_ms AS addedAtMs, version, added_by_id AS addedById FROM probe WHERE retired_at_ms IS NULL ORDER BY name, id`),
    byId: (id: string) => orm.select().from(probe).where(eq(probe.id, id)).get() ?? null,
    insert: (row: typeof probe.$inferInsert) => void orm.insert(probe).values(row).run(),
    update: (id: string, row: Partial<typeof probe.$inferInsert>) => void orm.update(probe).set(row).where(eq(probe.id, id)).run(),
    /** Newest first. */
    samples: (probeId: string, sinceMs: number): ProbeSample[] => orm.all(sql`SELECT at_ms AS atMs, value FROM probe_sample WHERE probe_id = ${probeId} AND at_ms >= ${sinceMs} ORDER BY at_ms DESC`),
    lastMs: (probeId: string): number | null => orm.get<{ atMs: number | null }>(sql`SELECT max(at_ms) AS atMs FROM probe_sample WHERE probe_id = ${probeId}`).atMs,
    insertSample: (row: typeof probeSample.$inferInsert) => void orm.insert(probeSample).values(row).run(),
    forget: (probeId: string, beforeMs: number) => void orm.run(sql`DELETE FROM probe_sample WHERE probe_id = ${probeId} AND at_ms < ${beforeMs}`),
  }
}
export type ProbesStore = ReturnType<typeof createProbesStore>
