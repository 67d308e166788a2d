import { minuteOf } from '../contacts/contact'
import { transferSchedule, type TransferSchedule } from '../dosing/transferSchedule'
import type { TransferPlan } from './regimens.schema'

/** Fish came into a tank of a transfer. */
export interface Transferred {
  tankId: string
  atMs: number
}
export interface TransferAsked {
  plan: Pick<TransferPlan, 'tankIds' | 'transfers' | 'everyH' | 'lateH' | 'cleanDryH'>
  startedAtMs: number
  /** Transfers that were made, oldest first, wherever they went. */
  done: readonly Transferred[]
  /** When each tank was cleaned last. */
  cleaned: readonly Transferred[]
  /** Temperature and salinity where they stand, and where they go next; null where either is not known. */
  match: { from: { T: number; S: number }; to: { T: number; S: number } } | null
  timeZone: string
  nowMs: number
}
/** A tank that they left, and that is to be cleaned and dried before it serves again. */
export interface TankToClean {
  tankId: string
  leftAtMs: number
  /** When they come back into it; null if never. */
  neededAtMs: number | null
}
export interface TransferNow extends TransferSchedule {
  /** Where they stand, and where they go next; null when all are done. */
  atTankId: string
  nextTankId: string | null
  toClean: TankToClean[]
}

const minuteMs = 60_000

/** The tanks in the order in which they served and will: where fish went elsewhere than in turn, turns go on from there. */
export function tanksInTurn(tankIds: readonly string[], done: readonly Transferred[], wanting: number): string[] {
  const been = [tankIds[0] ?? '', ...done.map(({ tankId }) => tankId)]
  const from = tankIds.indexOf(been.at(-1) ?? '')
  return [...been, ...Array.from({ length: wanting }, (_, index) => tankIds[(from + 1 + index) % tankIds.length] ?? '')]
}

/**
 * How a transfer stands: what counts, when they go on and where, which tanks are to be cleaned.
 * Source: docs/regimens.md#transfers.
 */
export function transferNow({ plan, startedAtMs, done, cleaned, match, timeZone, nowMs }: TransferAsked): TransferNow {
  const { tankIds, transfers, everyH, lateH, cleanDryH } = plan
  const tanks = tanksInTurn(tankIds, done, transfers)
  const schedule = transferSchedule({ start: minuteOf(startedAtMs), tanks, transfers, everyH, lateH, cleanDryH, done: done.map(({ atMs }) => minuteOf(atMs)), now: minuteOf(nowMs), timeZone, match })
  const atTankId = done.at(-1)?.tankId ?? tankIds[0] ?? ''
  const left = new Map<string, number>()
  for (const [index, { atMs }] of done.entries()) left.set(tanks[index] ?? '', atMs)
  left.delete(atTankId)
  const isClean = (tankId: string, leftAtMs: number): boolean => cleaned.some((each) => each.tankId === tankId && each.atMs >= leftAtMs)
  return {
    ...schedule,
    ...{ atTankId, nextTankId: schedule.rows[0]?.to ?? null },
    toClean: [...left].filter(([tankId, leftAtMs]) => !isClean(tankId, leftAtMs)).map(([tankId, leftAtMs]) => {
      const next = schedule.rows.find(({ to }) => to === tankId)
      return { tankId, leftAtMs, neededAtMs: next ? next.due * minuteMs : null }
    }),
  }
}
