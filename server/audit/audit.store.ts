import { sql } from 'drizzle-orm'
import type { AuditLine } from '../../core/audit/auditView'
import type { Database } from '../db/open'
import { auditEntry } from './audit.table'

export type Changes = Record<string, [unknown, unknown]>
export interface AuditInsert {
  atMs: number
  staffId: string | null
  action: string
  subject: string
  changes?: Changes | null
  commandKey?: string | null
}

/** Writes and reads what was done here, by whom. */
export function createAuditStore({ orm }: Database) {
  return {
    insert: ({ changes = null, commandKey = null, ...entry }: AuditInsert) => void orm.insert(auditEntry).values({ ...entry, changes, commandKey }).run(),
    /** The newest lines before a moment: every accepted command, with what an edit changed, and what was no command. */
    lines: (beforeMs: number, limit: number, staffId: string | null): AuditLine[] =>
      orm
        .all<Omit<AuditLine, 'changes'> & { changes: string | null }>(
          sql`SELECT * FROM (
              SELECT c.key AS id, c.recorded_at_ms AS atMs, c.staff_id AS staffId, c.name AS action, coalesce(a.subject, '') AS subject, a.changes AS changes
                FROM command c LEFT JOIN audit_entry a ON a.command_key = c.key WHERE c.recorded_at_ms < ${beforeMs}
              UNION ALL
              SELECT 'a' || a.seq, a.at_ms, a.staff_id, a.action, a.subject, a.changes FROM audit_entry a WHERE a.command_key IS NULL AND a.at_ms < ${beforeMs}
            ) ${staffId === null ? sql`` : sql`WHERE staffId = ${staffId}`} ORDER BY atMs DESC, id LIMIT ${limit}`,
        )
        .map((row) => ({ ...row, changes: row.changes === null ? null : (JSON.parse(row.changes) as Changes) })),
  }
}
export type AuditStore = ReturnType<typeof createAuditStore>

/** Lists the fields that differ between two states, for the audit page and for whoever saves an old view. */
export function changesBetween(before: Readonly<Record<string, unknown>>, after: Readonly<Record<string, unknown>>): Changes {
  const fields = [...new Set([...Object.keys(before), ...Object.keys(after)])]
  return Object.fromEntries(fields.filter((field) => JSON.stringify(before[field] ?? null) !== JSON.stringify(after[field] ?? null)).map((field) => [field, [before[field] ?? null, after[field] ?? null]]))
}
