/** One thing that was done, as a lead reads it. */
export interface AuditLine {
  id: string
  atMs: number
  /** Null for a try by somebody nobody knows. */
  staffId: string | null
  /** The command, or `signIn`, `signOut` and the like. */
  action: string
  subject: string
  changes: Record<string, [unknown, unknown]> | null
}
export interface AuditPage {
  lines: AuditLine[]
  /** Ask again with this to go further back; null at the end. */
  before: string | null
}
