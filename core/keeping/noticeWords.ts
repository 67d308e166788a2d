import type { NoticeFacts } from './notice'

const plural = (count: number, one: string, many: string): string => `${count.toLocaleString('en')} ${count === 1 ? one : many}`

/**
 * Says in one sentence what went wrong, and in a second what to do.
 * @param moment - words a moment as it is worded where this is read.
 */
export function noticeWords(facts: NoticeFacts, moment: (atMs: number) => string): { what: string; then: string } {
  switch (facts.kind) {
    case 'entries-missing': {
      const entries = facts.entries > 0 ? plural(facts.entries, 'entry that was answered for is', 'entries that were answered for are') : plural(facts.movements, 'movement that was answered for is', 'movements that were answered for are')
      const when = facts.fromMs === null ? `until ${moment(facts.untilMs)}` : `between ${moment(facts.fromMs)} and ${moment(facts.untilMs)}`
      return { what: `${entries} not in the books, recorded ${when}: the disk lost the end of the journal.`, then: 'Count the tanks and bags that were worked on in that time and enter it again; then look at the disk, and at its power.' }
    }
    case 'books-wrong':
      return {
        what: `The books of this room do not add up: ${facts.faults[0] ?? 'unknown'}${facts.faults.length > 1 ? `, and ${facts.faults.length - 1} more` : ''}.`,
        then: 'Counts may be wrong. Stop the room and restore the newest copy (npm run restore); npm run check says whether all is right.',
      }
    case 'copies-failing':
      return { what: `No copy of this room was made ${facts.lastMs === null ? 'yet' : `since ${moment(facts.lastMs)}`}: ${facts.why}.`, then: 'Make room on that disk, or name another folder in CRATE_COPIES.' }
  }
}
