import { minuteOf } from '../contacts/contact'
import type { SignDecisionAs } from '../rounds/rounds.schema'
import type { Decision, HoldEvent, Sign } from './holdEvents'

/** A look at a tank, as it stands. */
export interface LookRow {
  id: string
  tankId: string
  ate: string
  answers: readonly { lotId: string; ate: string }[]
  atMs: number
  recordedAtMs: number
}
/** A sign that was seen, or fish found dead. */
export interface SignRow {
  id: string
  tankId: string
  lotId: string | null
  sign: string
  severity: number
  atMs: number
  recordedAtMs: number
}
/** What somebody decided of a sign; not taken back. */
export interface DecisionRow {
  tankId: string
  lotId: string | null
  sign: string
  as: SignDecisionAs
  severity: number
  firstMs: number
  lastMs: number
  untilMs: number | null
  happenedAtMs: number
}

/** A look says that somebody looked, and how the tank and single lots of it ate. */
export function lookEvents({ id, tankId, ate, answers, atMs, recordedAtMs }: LookRow): HoldEvent[] {
  const times = { at: minuteOf(atMs), recordedAt: minuteOf(recordedAtMs) }
  const own = Object.fromEntries(answers.map((each) => [each.lotId, each.ate]))
  return [{ kind: 'look', id: `${id}:look`, ...times, tank: tankId }, { kind: 'meal', id: `${id}:meal`, ...times, tank: tankId, answer: ate, ...(answers.length > 0 ? { own } : {}) }]
}

/** Fish found dead in a tank are the tank's sign, whoever they were; of other signs each is the lot's that it was seen on. */
const isOf = (decision: DecisionRow, { sign, lotId }: SignRow): boolean => decision.lotId === lotId || (sign === 'death' && decision.lotId === null)
const stands = ({ as, firstMs, lastMs, untilMs, happenedAtMs }: DecisionRow, { atMs }: SignRow): boolean => (as === 'known' ? happenedAtMs <= atMs && atMs < (untilMs ?? 0) : firstMs <= atMs && atMs <= lastMs)
const decidedAs: Readonly<Record<SignDecisionAs, Decision>> = { confirmed: 'confirmed', dismissed: 'dismissed', known: 'dismissed' }

/**
 * Signs with what was decided of them: the newest word that stands for that look. One that was slight when it was dismissed
 * says nothing of a clear one.
 */
export function signEvents(rows: readonly SignRow[], decisions: ReadonlyMap<string, readonly DecisionRow[]>): Sign[] {
  return rows.map((row): Sign => {
    const { id, tankId, lotId, sign, severity, atMs, recordedAtMs } = row
    const decided = (decisions.get(tankId) ?? []).filter((each) => each.sign === sign && isOf(each, row) && stands(each, row) && (each.as === 'confirmed' || each.severity >= severity))
    const newest = decided.reduce<DecisionRow | null>((best, each) => (best === null || each.happenedAtMs > best.happenedAtMs ? each : best), null)
    const event = { kind: 'sign' as const, id, at: minuteOf(atMs), recordedAt: minuteOf(recordedAtMs), tank: tankId, word: sign, isSlight: severity < 2, decision: newest ? decidedAs[newest.as] : ('open' as const) }
    return lotId === null ? event : { ...event, lot: lotId }
  })
}
