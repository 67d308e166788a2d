import { sql, type SQL } from 'drizzle-orm'
import type { AuditLine, AuditPage } from '../../core/audit/auditView'
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

/** A command, or an entry that belongs to none. */
interface Row {
  id: string
  atMs: number
  staffId: string | null
  action: string
  seq: number | null
}

/** Writes and reads what was done here, by whom. */
export function createAuditStore({ orm }: Database) {
  /** A command may have changed several things; each is a line. */
  function linesOf({ seq: own, ...row }: Row): AuditLine[] {
    const details = orm.all<{ seq: number; subject: string; changes: string | null }>(sql`SELECT seq, subject, changes FROM audit_entry WHERE ${own === null ? sql`command_key = ${row.id}` : sql`seq = ${own}`} ORDER BY seq`)
    if (details.length === 0) return [{ ...row, subject: '', changes: null }]
    return details.map(({ seq, subject, changes }, nth) => ({ ...row, id: nth === 0 ? row.id : `${row.id} ${seq}`, subject, changes: changes === null ? null : (JSON.parse(changes) as Changes) }))
  }
  return {
    insert: ({ changes = null, commandKey = null, ...entry }: AuditInsert) => void orm.insert(auditEntry).values({ ...entry, changes, commandKey }).run(),
    /**
     * A page of what was done, newest first: every accepted command, with what an edit changed, and what was no command.
     * Many things may bear one moment, so a page ends at an entry and not at a moment. Either half reads as far as the page
     * goes and no further, however long the history is (the plus sign keeps the database to the index by time).
     */
    page(before: { atMs: number; id: string } | null, limit: number, staffId: string | null): AuditPage {
      const after = (atMs: SQL, id: SQL): SQL => (before === null ? sql`1` : sql`${atMs} <= ${before.atMs} AND (${atMs} < ${before.atMs} OR ${id} > ${before.id})`)
      const by = (column: SQL): SQL => (staffId === null ? sql`1` : sql`${column} = ${staffId}`)
      const rows = orm.all<Row>(
        sql`SELECT * FROM (SELECT key AS id, recorded_at_ms AS atMs, staff_id AS staffId, name AS action, NULL AS seq FROM command
              WHERE ${after(sql`recorded_at_ms`, sql`key`)} AND ${by(sql`staff_id`)} ORDER BY recorded_at_ms DESC, key LIMIT ${limit})
            UNION ALL
            SELECT * FROM (SELECT 'a' || seq, at_ms, staff_id, action, seq FROM audit_entry
              WHERE +command_key IS NULL AND ${after(sql`at_ms`, sql`'a' || seq`)} AND ${by(sql`staff_id`)} ORDER BY at_ms DESC, 'a' || seq LIMIT ${limit})
            ORDER BY atMs DESC, id LIMIT ${limit}`,
      )
      const last = rows.length === limit ? rows.at(-1) : undefined
      return { lines: rows.flatMap(linesOf), before: last ? `${last.atMs}.${last.id}` : null }
    },
  }
}
export type AuditStore = ReturnType<typeof createAuditStore>

/** Lists the fields that differ between two states, for the audit page and for whoever saves an old view. */
export function changesBetween(before: Readonly<Record<string, unknown>>, after: Readonly<Record<string, unknown>>): Changes {
  const fields = [...new Set([...Object.keys(before), ...Object.keys(after)])]
  return Object.fromEntries(fields.filter((field) => JSON.stringify(before[field] ?? null) !== JSON.stringify(after[field] ?? null)).map((field) => [field, [before[field] ?? null, after[field] ?? null]]))
}
