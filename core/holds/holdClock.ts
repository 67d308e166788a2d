import { byText } from '../contacts/contact'
import { writtenDay } from '../time/zoneDays'
import { earliestOf } from './gates'
import { departuresOf, groupOf, type Group, type HoldRoom } from './holdRoom'
import { earliestOfHeld, heldOf, latestOf, waitsOf, type Held } from './playHolds'
import { backTo, type HoldPolicy } from './policy'
import { daysOf, isPassed, phaseOf, sendBack, servedOf, type Restart } from './strand'

export type HoldStatus = 'gone' | 'noHold' | 'ended' | 'endedEarly' | 'holding' | 'ready'
/** A restart as it is told. */
export interface ToldRestart {
  on: string
  cause: Restart['cause']
  id: string
  phase: string | null
  lost: number
}
/** The clock of fish of one lot in one tank. Nothing is typed into it: it follows from what was recorded. */
export interface HoldClock {
  status: HoldStatus
  policy: string | null
  /** Null where all are passed. */
  phase: string | null
  /** Day of the phase, 1 being the first; above `of` it is served and waits for a gate. */
  day: number | null
  of: number | null
  begunOn: string | null
  phaseBegunOn: string | null
  restarts: ToldRestart[]
  /** Gates by name, `days`, `decision`. */
  waitsFor: string[]
  /** Not before this day. */
  earliest: string | null
  /** The earliest day if a sign, or fish added, sent everybody back today; null where no rule would. */
  ifSign: string | null
  ifAddition: string | null
  /** Signs and breaches that nobody has decided. */
  undecided: string[]
  ended: { on: string; days: number; gates: string[]; reason: string | null } | null
  departures: { id: string; on: string; n: number; days: number; gates: string[] }[]
}

const noClock = { policy: null, phase: null, day: null, of: null, begunOn: null, phaseBegunOn: null, restarts: [], waitsFor: [], earliest: null, ifSign: null, ifAddition: null, undecided: [] }
const unique = (words: readonly string[]): string[] => [...new Set(words)].sort(byText)

function toldRestarts(held: readonly Held[]): ToldRestart[] {
  const told = held.flatMap(({ hold }) => hold.restarts.map(({ day, ...restart }) => ({ on: writtenDay(day), ...restart })))
  const distinct = new Map(told.map((each) => [JSON.stringify([each.on, each.cause, each.id, each.phase, each.lost]), each]))
  return [...distinct.values()].sort((a, b) => byText(a.on, b.on) || byText(a.cause, b.cause) || byText(a.id, b.id) || byText(a.phase ?? '', b.phase ?? '') || a.lost - b.lost)
}

/** The latest earliest day if every strand with such a rule began again now. */
function ifSentBack(held: readonly Held[], rule: (policy: HoldPolicy) => { back: string } | null): string | null {
  if (held.every(({ hold }) => backTo(hold.policy, rule(hold.policy)) < 0)) return null
  const days = held.map(({ strand, where }) => {
    const sent = sendBack(strand, rule, { day: where.day, at: Number.MAX_SAFE_INTEGER, cause: 'sign', id: '' })
    return sent.hold ? earliestOf(sent, sent.hold, where) : where.day
  })
  return writtenDay(Math.max(...days))
}

/** Fish are shown by the history that takes longest. */
export function slowest(held: readonly Held[]): Held {
  const begun = ({ hold }: Held): number => hold.begins[hold.phase]?.day ?? 0
  return [...held].sort((a, b) => earliestOfHeld(b) - earliestOfHeld(a) || a.hold.phase - b.hold.phase || begun(b) - begun(a) || byText(a.hold.policy.id, b.hold.policy.id))[0] as Held
}

function runningClock(held: readonly Held[], departures: HoldClock['departures']): HoldClock {
  const { hold, where } = slowest(held)
  const waits = waitsOf(held)
  const isDone = isPassed(hold)
  return {
    status: waits.length === 0 ? 'ready' : 'holding',
    policy: hold.policy.id,
    phase: phaseOf(hold)?.id ?? null,
    day: isDone ? null : servedOf(hold, hold.phase, where.day) + 1,
    of: isDone ? null : daysOf(hold, hold.phase),
    begunOn: writtenDay(Math.min(...held.map((each) => each.hold.begunDay))),
    phaseBegunOn: writtenDay(hold.begins[hold.phase]?.day ?? hold.begunDay),
    restarts: toldRestarts(held),
    waitsFor: waits,
    earliest: writtenDay(latestOf(held)),
    ifSign: ifSentBack(held, ({ onSign }) => onSign),
    ifAddition: ifSentBack(held, ({ onAddition }) => onAddition),
    undecided: unique(held.flatMap((each) => each.hold.undecided)),
    ended: null,
    departures,
  }
}

function endedClock({ strands }: Group, departures: HoldClock['departures']): HoldClock {
  const ended = strands.flatMap((strand) => strand.ended ?? []).sort((a, b) => b.day - a.day || b.days - a.days)[0]
  if (!ended) return { status: 'noHold', ...noClock, ended: null, departures }
  const { day, days, gates, reason } = ended
  return { status: days > 0 || gates.length > 0 ? 'endedEarly' : 'ended', ...noClock, ended: { on: writtenDay(day), days, gates: [...gates], reason }, departures }
}

/**
 * Reads the clock of a group from a room that was played up to now.
 * Source: docs/holds.md; house guidance from the trade's usual lengths.
 * @returns `gone` where nobody of the lot stands there.
 */
export function clockOf(room: HoldRoom, lot: string, tank: string): HoldClock {
  const departures = (departuresOf(room, lot, tank) ?? [])
    .map(({ id, day, n, days, gates }) => ({ id, on: writtenDay(day), n, days, gates: [...gates] }))
    .sort((a, b) => byText(a.on, b.on) || byText(a.id, b.id))
  const group = groupOf(room, lot, tank)
  if (!group) return { status: 'gone', ...noClock, ended: null, departures }
  const held = heldOf(room, group, room.day ?? 0)
  return held.length > 0 ? runningClock(held, departures) : endedClock(group, departures)
}
