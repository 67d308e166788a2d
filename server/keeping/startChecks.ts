import type { NoticeFacts } from '../../core/keeping/notice'
import type { Database } from '../db/open'
import { countBooks, readTally } from '../db/tally'
import type { LedgerCheck } from '../ledger/checkLedger'
import { askProgram } from '../program'

/** Says what was answered for and is not in the books: the tally beside them is ahead of them. Null when all is there. */
export function missingEntries({ raw, file }: Database): NoticeFacts | null {
  const tally = readTally(file)
  if (!tally) return null
  const { commands, movements } = countBooks(raw)()
  if (tally.commands <= commands && tally.movements <= movements) return null
  const { fromMs } = raw.prepare('SELECT max(recorded_at_ms) AS fromMs FROM command').get() as { fromMs: number | null }
  return { kind: 'entries-missing', entries: Math.max(0, tally.commands - commands), movements: Math.max(0, tally.movements - movements), fromMs, untilMs: tally.atMs }
}

/**
 * Goes through all of the books in a process of its own: years of them take longer than a start may.
 * @returns what is wrong with them; null when nothing is.
 */
export async function wrongBooks({ file }: Pick<Database, 'file'>): Promise<NoticeFacts | null> {
  const { faults } = JSON.parse(String(await askProgram('ledger/checkMain', null, [file]))) as LedgerCheck
  return faults.length > 0 ? { kind: 'books-wrong', faults: faults.slice(0, 20) } : null
}
