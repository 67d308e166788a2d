import { gateName, mealAnswers, type EatingGate, type Gate, type Phase, type StepsGate } from './policy'
import { daysOf, isPassed, phaseOf, servedOf, type Hold, type Strand } from './strand'
import { agentsIn, isWithin, type GoneAfterDays, type WaterState } from './waterState'

/** The water fish stand in, and the day. */
export interface Where {
  water: WaterState
  goneAfter: GoneAfterDays
  day: number
}
const minutesPerHour = 60

function hasEaten({ meals, mealDay }: Strand, { answers, atLeast, withinDays }: EatingGate, day: number): boolean {
  const newest = meals.slice(-answers)
  const least = mealAnswers.indexOf(atLeast)
  return newest.length === answers && mealDay !== null && day - mealDay <= withinDays && newest.every((answer) => mealAnswers.findIndex((each) => each === answer) >= least)
}

/**
 * Steps that count: with hours between them, one that comes later than it may is a new entry, and neither it nor those
 * before it count.
 */
export function countedSteps({ steps, cameAt }: Strand, { of, everyH, lateH = 0 }: StepsGate): number {
  const done = steps.filter((step) => step.of === of)
  if (everyH === undefined) return done.length
  return done.reduce((counted, { at }, index) => (at - (done[index - 1]?.at ?? cameAt) > (everyH + lateH) * minutesPerHour ? 0 : counted + 1), 0)
}

function isOpen(gate: Gate, strand: Strand, { water, goneAfter, day }: Where): boolean {
  switch (gate.gate) {
    case 'eating':
      return hasEaten(strand, gate, day)
    case 'fillingOut':
      return strand.bodyState === 'normal' || strand.bodyState === 'full'
    case 'looked':
      return strand.lookedDay !== null && day - strand.lookedDay <= gate.withinDays
    case 'cleared':
      return agentsIn(water, day, goneAfter).length === 0
    case 'pairing':
      return strand.pairing?.result === 'passed' && strand.pairing.startedAt >= (strand.lastMeetingAt ?? -Infinity)
    case 'steps':
      return countedSteps(strand, gate) >= gate.times
    case 'reading': {
      const reading = water.readings.get(gate.what)
      return reading !== undefined && day - reading.day <= gate.withinDays && isWithin(reading.value, gate)
    }
  }
}

/** Names of the gates that are closed. */
export const closedGates = (gates: readonly Gate[], strand: Strand, where: Where): string[] => gates.filter((gate) => !isOpen(gate, strand, where)).map(gateName)

const isServed = (hold: Hold, day: number): boolean => servedOf(hold, hold.phase, day) >= daysOf(hold, hold.phase)

/** Whether the phase a hold is in may be passed: nothing undecided, its days served, its gates open. */
export const mayPass = (strand: Strand, hold: Hold, where: Where): boolean => hold.undecided.length === 0 && isServed(hold, where.day) && closedGates(phaseOf(hold)?.gates ?? [], strand, where).length === 0

/** What a hold waits for: gates by name, `days`, `decision`. */
export function waitsFor(strand: Strand, hold: Hold, where: Where): string[] {
  const decision = hold.undecided.length > 0 ? ['decision'] : []
  if (isPassed(hold)) return [...closedGates(hold.policy.release, strand, where), ...decision]
  return [...(isServed(hold, where.day) ? [] : ['days']), ...closedGates(phaseOf(hold)?.gates ?? [], strand, where), ...decision]
}

/** Days that a phase still needs at least: its own, and those of its timed steps. */
export function needOf(strand: Strand, hold: Hold, index: number, day: number): number {
  const phase = hold.policy.phases[index] as Phase
  const isNow = index === hold.phase
  const timed = (phase.gates ?? []).flatMap((gate) => (gate.gate === 'steps' && gate.everyH !== undefined ? [Math.ceil(((gate.times - (isNow ? countedSteps(strand, gate) : 0) - 1) * gate.everyH) / 24)] : []))
  return Math.max(0, daysOf(hold, index) - (isNow ? servedOf(hold, index, day) : 0), ...timed)
}

/** The earliest day on which a hold could be ready, were every gate given as soon as asked. */
export function earliestOf(strand: Strand, hold: Hold, where: Where): number {
  if (isPassed(hold)) return waitsFor(strand, hold, where).length === 0 ? (hold.begins[hold.phase]?.day ?? where.day) : where.day
  return hold.policy.phases.reduce((day, _, index) => (index < hold.phase ? day : day + needOf(strand, hold, index, where.day)), where.day)
}
