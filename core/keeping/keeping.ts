import type { CopiesView } from './notice'

/** Name and version of the full export, written into every file; see docs/formats.md. */
export const roomFormat = 'daily-crate/room'
export const roomFormatVersion = 1

/** What a lead sees before keeping a copy. */
export interface KeepingView {
  /** Rows of all tables that an export holds. */
  rows: number
  movements: number
  photos: number
  /** Size of the database, in bytes. */
  databaseBytes: number
  copies: CopiesView
}
