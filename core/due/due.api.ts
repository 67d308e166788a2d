import { answers, named, read } from '../commands/declare'
import type { DueItem } from './due'

/** What is due, on screen. */
export const dueApi = named({
  /** all work that waits, the most urgent first; *broken* names what could not be worked out */
  readDue: read({ path: '/api/due', access: 'device', about: () => ['due'], staysMs: 5000, answer: answers<{ items: DueItem[]; broken: string[] }>() }),
})
