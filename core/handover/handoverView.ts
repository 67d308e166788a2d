import type { RowMark } from './handoverSections'

/** Words that somebody left for those who come after. */
export interface HandoverNote {
  id: string
  by: string
  atMs: number
  words: string
}
/** One thing that happened, with the place where it is looked at. */
export interface HandoverRow {
  words: string
  detail: string | null
  to: string | null
  mark: RowMark | null
}
export interface HandoverSection {
  title: string
  rows: HandoverRow[]
}
/** What happened since somebody was last here, as far as others did it. */
export interface HandoverView {
  sinceMs: number
  untilMs: number
  notes: HandoverNote[]
  sections: HandoverSection[]
}
/** Whether somebody has something to read. */
export interface HandoverDue {
  sinceMs: number
  /** They were away and have not read it. */
  isDue: boolean
  notes: number
}
