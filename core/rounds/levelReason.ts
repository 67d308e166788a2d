import { byText } from '../contacts/contact'
import type { AcceptedSign, LookAtTank, LotInTank } from './seenInTank'
import type { JudgedReading } from './roundRules'

/** Quiet: nothing to do. Watch: somebody looks again today. Act: now. */
export type TankLevelName = 'quiet' | 'watch' | 'act'

/** Why a tank is not quiet. */
export type LevelWhy = 'sign' | 'go together' | 'appetite' | 'in several lots' | 'loss' | 'losses beyond usual' | 'jumped or eaten' | 'unseen' | 'reading' | 'drift' | 'neighbour' | 'whole water' | 'hold'

/** What a level's reason says beyond its points, for the words. */
export interface SaidOfReason {
  /** Of a sign: its severity at the look that counts, which day running, and how long before the newest look. */
  severity?: number
  dayRunning?: number
  rememberedH?: number
  /** Of an appetite: the day of the refusal. */
  day?: number
  /** Of a reading: the value; of a drift: towards which side. */
  value?: number
  isRising?: boolean
  /** Of neighbours: their tanks. */
  tanks?: readonly string[]
}
export interface LevelReason {
  why: LevelWhy
  /** A sign, a group, a kind of reading, a number of fish: by `why`. */
  what: string
  /** Null where all lots of the tank share it. */
  lot: string | null
  points: number
  said?: SaidOfReason
}

/** The order reasons are told in: the weightiest first. */
export const byWeight = (a: LevelReason, b: LevelReason): number => b.points - a.points || byText(a.why, b.why) || byText(a.what, b.what) || byText(a.lot ?? '', b.lot ?? '')

/** What a tank shows to others on its water. */
export type Shown = 'skin' | 'gills' | 'wasting' | 'water'
export interface Neighbour {
  tank: string
  shows: readonly Shown[]
  isAct: boolean
}
export type UnseenVerdict = 'none' | 'fewer than usual' | 'count when handy' | 'look for it' | 'write off?'

/** What a tank's level is judged by. */
export interface LevelAsked {
  lots: readonly LotInTank[]
  purpose?: string | null
  /** Tanks with fish on its water, this one too. */
  stockedOnWater?: number
  rounds: readonly LookAtTank[]
  losses?: readonly { hoursAgo: number; quantity: number; cause: string | null }[]
  unseen?: readonly { verdict: UnseenVerdict }[]
  readings?: readonly { kind: JudgedReading; hoursAgo: number; value: number }[]
  /** What the water is kept at. */
  targets?: Partial<Record<JudgedReading, number | null>>
  neighbours?: readonly Neighbour[]
  accepted?: readonly AcceptedSign[]
  /** An ammonia binder works: its kit reads what is bound. */
  hasBinder?: boolean
  /** Fish of this water were sold or sent within two weeks. */
  soldLately?: boolean
}
