import { readFileSync } from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import type { CopiesView, NoticeFacts, Trial } from '../../core/keeping/notice'
import type { Database } from '../db/open'
import { askProgram } from '../program'
import { copiesIn } from './copies'

/** Where the last trial of a copy is written down. */
export const trialFile = (copies: string): string => join(copies, 'trial.json')

const lookEveryMs = 60_000
const hourMs = 3_600_000

function lastTrial(copies: string): Trial | null {
  try {
    return JSON.parse(readFileSync(trialFile(copies), 'utf8')) as Trial
  } catch {
    return null
  }
}

/** What a lead sees of the copies that are made by themselves. */
export const viewCopies = (copies: string | null): CopiesView => (copies === null ? { folder: null, hours: 0, days: 0, newest: null, trial: null } : { folder: resolve(copies), ...copiesIn(copies), trial: lastTrial(copies) })

interface Keeping {
  db: Database
  copies: string
  now(): number
  tell(facts: NoticeFacts): void
  /** Copies are made again. */
  isWell(): void
}

/**
 * Has a copy made whenever the newest is an hour old, as long as the room is served: looked at every minute, so that a
 * machine that slept makes up for it at once.
 * @returns how to stop.
 */
export function keepCopies({ db, copies, now, tell, isWell }: Keeping): () => void {
  let isAtWork = false
  const isMade = (): boolean => db.raw.prepare('SELECT 1 FROM room').get() !== undefined
  async function look(): Promise<void> {
    const lastMs = copiesIn(copies).newest?.atMs ?? null
    if (isAtWork || !isMade() || (lastMs !== null && Math.abs(now() - lastMs) < hourMs)) return
    isAtWork = true
    const why = String(await askProgram('keeping/copiesMain', null, [dirname(db.file), copies, String(now())]).catch((error: unknown) => String(error)))
    isAtWork = false
    if (why !== '') tell({ kind: 'copies-failing', why, lastMs })
    else isWell()
  }
  const safely = (): void => void look().catch((error: unknown) => tell({ kind: 'copies-failing', why: String(error), lastMs: null }))
  const timer = setInterval(safely, lookEveryMs)
  timer.unref()
  safely()
  return () => clearInterval(timer)
}
