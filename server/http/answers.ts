import { randomBytes } from 'node:crypto'
import { booksOf } from '../../core/commands/stream'

/** More addresses than devices ask at one moment. */
const mostKept = 300

/**
 * Answers of reads as they are sent, kept until something is written: devices that ask the same at the same time are
 * answered once, and one that has an answer still standing is told so instead of getting it again.
 * @param version - names what the books hold.
 */
export function createAnswers(version: () => string) {
  // Another start counts from the beginning, and so may a room that was restored.
  const start = randomBytes(6).toString('base64url')
  let kept = { books: '', bodies: new Map<string, string>() }

  /** Names the books as they stand. */
  const books = (): string => `${start}.${version()}`

  return {
    books,
    /**
     * Names what an answer goes by: the books, and the time as far as it goes with the clock.
     * @param staysMs - for how long it stands while nothing is written; Infinity as long as that.
     */
    tagAt: (staysMs: number, nowMs: number): string => `"${books()}.${staysMs === Infinity ? '' : `${staysMs}x${Math.floor(nowMs / staysMs)}`}"`,
    /** An answer as it is sent: what was made for the same tag and address before, or made now. */
    body(tag: string, address: string, make: () => string): string {
      const of = booksOf(tag)
      if (kept.books !== of || kept.bodies.size >= mostKept) kept = { books: of, bodies: new Map() }
      const key = `${tag} ${address}`
      const body = kept.bodies.get(key) ?? make()
      kept.bodies.set(key, body)
      return body
    },
  }
}
export type Answers = ReturnType<typeof createAnswers>
