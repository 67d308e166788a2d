import { gapPpt, type AcclimationQuestion } from '../acclimation/question'
import { crossingGapPpt } from '../acclimation/schools'

/** A look at fish after they were moved: when, and what is usual by then. */
export interface PlannedRecheck {
  label: string
  dueAtMs: number
  /** The normal course of this method; leaving it is the alarm. */
  usual: string
}

/** How a fish looked at once, or at a recheck. */
export const looksAfter = ['as expected', 'better', 'worse'] as const
export type LookAfter = (typeof looksAfter)[number]

const minuteMs = 60_000
const hourMs = 60 * minuteMs

/**
 * Plans when fish are looked at again, and says what is usual by then for the way they came.
 * @param morningMs - when people come in the next morning, by the clock of the room.
 * @param darkHours - how long the lights stay off; null when they are on.
 * Source: handbook, expected course.
 */
export function planRechecks(question: AcclimationQuestion, outAtMs: number, morningMs: number, darkHours: number | null = null): PlannedRecheck[] {
  const isCrossing = gapPpt(question) > crossingGapPpt
  const isWeak = question.tolerance === 'delicate' || question.tolerance === 'very delicate'
  const hides = isWeak ? 'hides, pale, fins clamped; may not come out' : 'pale, fins clamped, hiding'
  const rechecks: PlannedRecheck[] = [
    { label: '15 min', dueAtMs: outAtMs + 15 * minuteMs, usual: isCrossing ? 'on the bottom, breathing fast' : `${hides}; one that lies down may still recover` },
    { label: '1 h', dueAtMs: outAtMs + hourMs, usual: isCrossing ? 'on the bottom, breathing fast' : `${hides}; upright, breathing calmer` },
    { label: '4 h', dueAtMs: outAtMs + 4 * hourMs, usual: isCrossing ? 'on the bottom, breathing fast' : 'hiding, colour coming back; does not eat yet' },
    { label: 'next morning', dueAtMs: morningMs, usual: isCrossing ? 'still low and fast; that is usual for up to two days' : 'colour back, out at times; some eat' },
  ]
  const later: PlannedRecheck[] = isCrossing ? [{ label: '24 h', dueAtMs: outAtMs + 24 * hourMs, usual: 'calmer; may still lie low' }, { label: '48 h', dueAtMs: outAtMs + 48 * hourMs, usual: 'up and breathing as before; lying low longer than this is the alarm' }] : []
  return withLightsUp([...rechecks, ...later], darkHours === null ? null : { label: `${darkHours} h`, dueAtMs: outAtMs + darkHours * hourMs }).sort((a, b) => a.dueAtMs - b.dueAtMs)
}

/** Turning the lights up is a look of its own, or part of one that is due then anyway. */
function withLightsUp(rechecks: readonly PlannedRecheck[], lightsUp: Pick<PlannedRecheck, 'label' | 'dueAtMs'> | null): PlannedRecheck[] {
  if (lightsUp === null) return [...rechecks]
  const words = 'lights up slowly now'
  if (rechecks.some(({ dueAtMs }) => dueAtMs === lightsUp.dueAtMs)) return rechecks.map((each) => (each.dueAtMs === lightsUp.dueAtMs ? { ...each, usual: `${words}; ${each.usual}` } : each))
  return [...rechecks, { ...lightsUp, usual: `${words}; hiding, some come out as it gets light; being chased is the alarm` }]
}
