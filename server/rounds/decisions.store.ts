import { and, eq, gte, isNull, lte, ne } from 'drizzle-orm'
import { sameSignMs } from '../../core/rounds/signDecision'
import type { Database } from '../db/open'
import { signDecision } from './decisions.table'

type Decision = typeof signDecision.$inferSelect

/** Queries about what was decided of signs. */
export function createDecisionsStore({ orm, raw }: Database) {
  // A sign that is seen on shares what was decided of it; one that was dismissed while it was slight asks anew when it is clear.
  const seenOn = raw.prepare(`UPDATE sign_decision SET last_ms = max(last_ms, ?4), last_key = ?5
    WHERE tank_id = ?1 AND sign = ?2 AND lot_id IS ?3 AND undone_at_ms IS NULL AND decision <> 'known' AND (decision = 'confirmed' OR severity >= ?6) AND first_ms <= ?4 AND last_ms >= ?4 - ${sameSignMs} RETURNING id, decision`)
  return {
    insert: (row: typeof signDecision.$inferInsert) => void orm.insert(signDecision).values(row).run(),
    byId: (id: string): Decision | null => orm.select().from(signDecision).where(eq(signDecision.id, id)).get() ?? null,
    undo: (id: string, by: { undoneById: string; undoneAtMs: number }) => void orm.update(signDecision).set(by).where(eq(signDecision.id, id)).run(),
    /** What was decided of these looks before is decided otherwise now; of other times it stands. What is known is a word of its own. */
    replace({ tankId, sign, lotId, decision, firstMs, lastMs }: Pick<Decision, 'tankId' | 'sign' | 'lotId' | 'decision' | 'firstMs' | 'lastMs'>, by: { undoneById: string; undoneAtMs: number }): void {
      const isKnown = decision === 'known' ? eq(signDecision.decision, 'known') : ne(signDecision.decision, 'known')
      orm.update(signDecision).set(by).where(and(eq(signDecision.tankId, tankId), eq(signDecision.sign, sign), lotId === null ? isNull(signDecision.lotId) : eq(signDecision.lotId, lotId), isNull(signDecision.undoneAtMs), isKnown, decision === 'known' ? undefined : and(lte(signDecision.firstMs, lastMs), gte(signDecision.lastMs, firstMs)))).run()
    },
    /** A sign was seen on: answers with the decisions that go on with it. */
    seenOn: ({ tankId, sign, lotId, severity, atMs, key }: { tankId: string; sign: string; lotId: string | null; severity: number; atMs: number; key: string }) => seenOn.all([tankId, sign, lotId, atMs, key, severity]) as Pick<Decision, 'id' | 'decision'>[],
  }
}
export type DecisionsStore = ReturnType<typeof createDecisionsStore>
