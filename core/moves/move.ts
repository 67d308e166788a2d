import type { Booking } from '../tankChoice/bookings'
import type { RuleCode } from '../tankChoice/company'
import type { Animal, ChoiceTank } from '../tankChoice/tankChoice'
import type { Fight } from './fightWeight'
import type { Handled } from './handled'
import type { MoveLevel, SourcesRule } from './moveRules'

/** How doubtful a water is, as the round walks it: 0 settled, 1 new arrivals, 2 signs, 3 grave signs. */
export type Doubt = number

/** Fish of one lot that are to be moved. */
export interface MoveItem {
  lot: string
  n: number
  /** Fish of it that stand there. */
  have: number
  animal: Handled
  /** Null, here and below, is "not known": it forbids nothing, and is said. */
  supplier: string | null
  /** Where they were before, as one supplier may have several; the supplier where left out. */
  source?: string | null
  /** Days of a running hold served; null when it is not held. */
  heldDays?: number | null
  holdDays?: number | null
  restartsOnMove?: boolean
  movedHoursAgo?: number | null
  isDominant?: boolean
  course?: { agent: string; day: number; of: number } | null
  bookings?: readonly { by: string; n: number; why: 'plan' | 'promise' }[]
}

export interface MoveFrom {
  kind?: 'tank' | 'vessel' | 'bag'
  id: string
  waterId: string
  zoneId?: string | null
  doubt?: Doubt
  tempC?: number | null
  salinityPpt?: number | null
  agents?: readonly string[]
  binderUntil?: number | null
  /** Fish that stay there, beside those of the lots that move. */
  others?: readonly { species: string; quantity: number }[]
}

export interface MoveOccupant {
  lot: string
  animal: Animal
  quantity: number
  supplier: string | null
  source?: string | null
  heldDays?: number | null
}

export interface MoveTo extends Partial<Omit<ChoiceTank, 'occupants' | 'bookings' | 'id'>> {
  kind?: 'tank' | 'vessel' | 'outside'
  id?: string
  doubt?: Doubt
  binderUntil?: number | null
  isRetired?: boolean
  /** What its zone says of sources that have not met. */
  sourcesRule?: SourcesRule | null
  occupants?: readonly MoveOccupant[]
  /** Days that lots which come lose of their own hold there. */
  ownLost?: Readonly<Record<string, number>>
  /** Lots without a hold that would stand with held fish. */
  unprotected?: readonly string[]
  /** Every lot on its water; the occupants where left out. */
  onWater?: readonly LotOnWater[]
  bookings?: readonly Pick<Booking, 'plan' | 'takes' | 'isReady'>[]
  vessel?: { kind?: 'bucket' | 'box'; litres: number; air: boolean; ph?: number | null; wantMinutes?: number | null }
  /** Who takes them, where they leave. */
  forWhom?: string | null
}

export interface LotOnWater {
  lot: string
  source?: string | null
  heldDays?: number | null
  /** Whether its hold begins anew when others come. */
  restarts?: boolean
  /** Days that it loses then; all of them where left out. */
  lostDays?: number
}
/** A pairing of two lots that was not passed: they stay apart. */
export interface OpenPairing {
  lots: readonly [string, string]
  state: 'pairing' | 'failed'
  /** The tank in which a few of both stand together. */
  tankId: string
}

/** How two sources stand to each other. */
export interface SourcesMet {
  a: string
  b: string
  state: 'passed' | 'failed' | 'pairing' | 'together' | 'contact' | 'never'
  days: number | null
}

/** A move as it is asked for. Times are whole epoch minutes, lengths cm, weights g, volumes L. */
export interface MoveAsked {
  items: readonly MoveItem[]
  from: MoveFrom
  to: MoveTo
  now?: number
  waterGoesAlong?: boolean
  tools?: { name: string; zoneId: string | null; state: 'clean' | 'used' | 'in bath'; readyAt: number | null; carries: readonly { water: string; doubt: Doubt }[] } | null
  /** The most doubtful water touched since hands were washed today. */
  hands?: { water: string; doubt: Doubt } | null
  met?: readonly SourcesMet[]
  fights?: readonly (Fight & { a: string; b: string })[]
  isPairing?: boolean
  /** Pairings of lots that were not passed. */
  pairings?: readonly OpenPairing[]
  /** The plan that this move carries out. */
  byPlan?: string | null
  hospitalsFree?: number | null
  roomC?: number
}

/**
 * Reasons in the order in which they are told within a level. Codes of the rules of tank choice are the same words.
 */
export const moveCodes = [
  ...(['not-there', 'same-place', 'retired'] as const),
  ...(['eats', 'hunts', 'agent', 'agent-carried', 'salinity', 'water-kind', 'temperature', 'water-unknown', 'vessel-load', 'sick-to-well', 'held-there', 'hold-open', 'sources', 'pairing-open', 'course-open'] as const),
  ...(['not-clean', 'own-kind', 'no-common', 'too-small', 'overload', 'customer-tank', 'poisons', 'promised', 'plan-fish-out', 'plan-place-ready', 'plan-water'] as const),
  ...(['restarts', 'own-restart', 'unprotected', 'sources-lately', 'tools-bath', 'tools-dirty', 'tools-zone', 'order-back', 'wet-between-zones', 'step', 'binder-copper', 'binder', 'fought', 'introduce', 'eats-own'] as const),
  ...(['nibbles', 'agent-care', 'bully', 'group-left', 'group-small', 'moved-lately', 'plan-fish', 'plan-place', 'last-hospital'] as const),
  ...(['dominant-out', 'vessel-limit', 'shares', 'purpose', 'grazes', 'card', 'not-known'] as const),
] as const
export type MoveCode = (typeof moveCodes)[number]

/** Every rule of tank choice is a reason of the move check, so that neither allows what the other forbids. */
export type RuleIsReason = RuleCode extends MoveCode ? true : never

type Slot = string | number | null | readonly string[]
export interface MoveReason {
  code: MoveCode
  level: MoveLevel
  [slot: string]: Slot
}
