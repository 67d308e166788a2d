/** What went wrong with the room's own keeping, as values; it is put into words where it is shown. */
export type NoticeFacts =
  /** Entries that were answered for and are not in the books: the end of the journal was lost. */
  | { kind: 'entries-missing'; entries: number; movements: number; fromMs: number | null; untilMs: number }
  /** The books do not add up. */
  | { kind: 'books-wrong'; faults: string[] }
  /** No copy has been made by itself for a while. */
  | { kind: 'copies-failing'; why: string; lastMs: number | null }

/** A notice that no lead has put away yet. */
export interface NoticeView {
  id: string
  atMs: number
  facts: NoticeFacts
}

/** What is known of the copies that are made by themselves. */
export interface CopiesView {
  /** Folder they lie in; null while they are switched off. */
  folder: string | null
  hours: number
  days: number
  /** The newest one; null before the first. */
  newest: { name: string; atMs: number; bytes: number } | null
  /** The last trial of bringing one back; null before the first. */
  trial: Trial | null
}

/** A copy was brought back in a folder of its own, opened, and its books were right; one of which that is not so is no trial, and is said. */
export interface Trial {
  name: string
  atMs: number
  tookMs: number
  movements: number
}
