import { byText } from '../contacts/contact'
import type { StepKind } from './policy'

/** Whether somebody said what a sign or a breach is. */
export type Decision = 'open' | 'confirmed' | 'dismissed'

interface At {
  id: string
  /** The minute it happened, whole minutes of the epoch. */
  at: number
  /** The minute somebody wrote it down. */
  recordedAt?: number
  /** The entry that this one stands for. */
  replaces?: string
}
interface OfGroup {
  lot: string
  tank: string
}
/** Fish that come: bought, born, transferred in. */
export interface Arrive extends At, OfGroup {
  kind: 'arrive'
  n: number
  /** The hold they begin; null without one. */
  policy: string | null
  openedAt?: number
}
export interface Plumb extends At {
  kind: 'plumb'
  tank: string
  water: string
}
export interface Move extends At {
  kind: 'move'
  lot: string
  from: string
  to: string
  n: number
}
export interface Loss extends At, OfGroup {
  kind: 'loss'
  n: number
}
export interface Count extends At, OfGroup {
  kind: 'count'
  by: number
}
export interface PolicyChange extends At, OfGroup {
  kind: 'policy'
  to: string
  phase?: string
  reason?: string
}
export interface Lengthen extends At, OfGroup {
  kind: 'lengthen'
  days: number
  reason?: string
}
/** Signs that were to be expected, from this minute. */
export interface Course extends At, OfGroup {
  kind: 'course'
  words: readonly string[]
  /** Words that are usual only where they were slight. */
  slightWords?: readonly string[]
  hours: number
}
export interface Look extends At {
  kind: 'look'
  tank: string
}
export interface Meal extends At {
  kind: 'meal'
  tank: string
  lot?: string
  answer: string
  /** Answers of lots that did not eat as the tank did. */
  own?: Readonly<Record<string, string>>
}
export interface Body extends At {
  kind: 'body'
  tank: string
  lot?: string
  state: string
}
export interface Reading extends At {
  kind: 'reading'
  tank: string
  what: string
  value: number
}
export interface Step extends At {
  kind: 'step'
  tank: string
  lot?: string
  of: StepKind | 'cleared' | 'found'
  agent?: string
}
export interface Pairing extends At {
  kind: 'pairing'
  lots: readonly string[]
  startedAt: number
  result: 'passed' | 'failed'
}
/** A breach: a net, a hose, a splash from one water to another. */
export interface Exposure extends At {
  kind: 'exposure'
  tanks: readonly string[]
  /** Waters, where they and no tanks are known. */
  waters?: readonly string[]
  decision: Decision
}
export interface Sign extends At {
  kind: 'sign'
  tank: string
  lot?: string
  word: string
  /** Slight, or one fish of many. */
  isSlight?: boolean
  decision: Decision
}
export interface End extends At, OfGroup {
  kind: 'end'
  reason?: string
}
export interface Leave extends At, OfGroup {
  kind: 'leave'
  n: number
}
/** Takes back what it replaces, and is nothing itself. */
export interface Retract extends At {
  kind: 'retract'
}
export type Movement = Arrive | Plumb | Move | Loss | Count
export type HoldFact = PolicyChange | Lengthen | Course | Look | Meal | Body | Reading | Step | Pairing | Exposure | Sign
export type HoldEvent = Movement | HoldFact | End | Leave | Retract

/** What comes first inside one minute. */
const kindOrder: readonly HoldEvent['kind'][] = ['arrive', 'plumb', 'move', 'loss', 'count', 'policy', 'lengthen', 'course', 'look', 'meal', 'body', 'reading', 'step', 'pairing', 'exposure', 'sign', 'end', 'leave', 'retract']
const placeOf = new Map(kindOrder.map((kind, index) => [kind, index]))

export const isMovement = (event: HoldEvent): event is Movement => (placeOf.get(event.kind) ?? 0) <= 4
export const isFact = (event: HoldEvent): event is HoldFact => !isMovement(event) && (placeOf.get(event.kind) ?? 0) <= 15

/** Orders events as they are played: by minute, then by kind, then by id. The order of entry is nothing. */
export const byTurn = (a: HoldEvent, b: HoldEvent): number => a.at - b.at || (placeOf.get(a.kind) ?? 0) - (placeOf.get(b.kind) ?? 0) || byText(a.id, b.id)

/**
 * Events that count, in the order they are played.
 * @param now - the minute until which.
 * @param knownAt - only what was written down by then: what did the clock say on Tuesday?
 */
export function eventsInForce(events: readonly HoldEvent[], now: number, knownAt?: number): HoldEvent[] {
  const known = knownAt === undefined ? events : events.filter(({ recordedAt }) => recordedAt === undefined || recordedAt <= knownAt)
  const replaced = new Set(known.flatMap(({ replaces }) => replaces ?? []))
  return known.filter(({ id, kind, at }) => !replaced.has(id) && kind !== 'retract' && at <= now).sort(byTurn)
}
