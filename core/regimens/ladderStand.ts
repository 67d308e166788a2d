import type { HoldClock } from '../holds/holdClock'
import type { HoldPolicy } from '../holds/policy'
import { dayInZone } from '../time/dayInZone'
import { daysBetween } from '../time/daysBetween'
import type { LadderStand } from './offerDose'

export interface StandAsked {
  /** The clock of the fish that take longest under a policy that steps this agent; null where none are held so. */
  held: { clock: Pick<HoldClock, 'phase' | 'day' | 'waitsFor'>; policy: HoldPolicy } | null
  /** Days at level that the house asks for where no clock does. */
  levelDays: number
  /** Doses of this ladder, oldest first, and the level that each went for. */
  doses: readonly { atMs: number; towardsMgL: number | null }[]
  targetMgL: number
  /** When it was first read within its range, or above, since its first dose; null while it was not: that it is raised, whatever its doses went for. */
  inRangeMs: number | null
  timeZone: string
  nowMs: number
}

const hourMs = 3_600_000
/** A dose that goes for nearly all of the target raises it. */
const raisedShare = 0.99
/** Answers whether a dose went for the whole target, not a part of it. */
export const raises = ({ towardsMgL }: { towardsMgL: number | null }, targetMgL: number): boolean => towardsMgL !== null && towardsMgL >= raisedShare * targetMgL

/** The phase in which a policy keeps an agent at its level; -1 where it does not step it. */
export const levelPhase = ({ agents, phases }: HoldPolicy, agent: string): number => (agents.includes(agent) ? phases.findIndex(({ counts }) => counts === 'atLevel') : -1)

/** Which stage a phase is: before the one that counts at level, that one, or after it; null where all are passed. */
function stageOf({ phases }: HoldPolicy, phase: string | null): 'part' | 'level' | 'down' {
  const [at, level] = [phases.findIndex(({ id }) => id === phase), phases.findIndex(({ counts }) => counts === 'atLevel')]
  if (phase === null || at > level) return 'down'
  return at === level ? 'level' : 'part'
}

/**
 * Where a ladder stands: entered until its first dose; then by the phase of the clock of its fish, or, where none are held
 * by it, by what its doses went for. Nothing counts as at level that was not raised.
 * Source: docs/regimens.md#ladder.
 */
export function ladderStand({ held, levelDays: asked, doses, targetMgL, inRangeMs, timeZone, nowMs }: StandAsked): LadderStand {
  const last = doses.at(-1)
  const isRaised = inRangeMs !== null || doses.some((dose) => raises(dose, targetMgL))
  const levelDays = held ? (held.policy.phases.find(({ counts }) => counts === 'atLevel')?.days ?? asked) : asked
  const at = (stage: LadderStand['stage'], servedDays: number): LadderStand => ({ stage, hoursInStage: last ? (nowMs - last.atMs) / hourMs : 0, isEating: held !== null && !held.clock.waitsFor.includes('eating'), servedDays, levelDays })
  if (!last) return at('enter', 0)
  if (!isRaised) return at('part', 0)
  if (held) {
    const stage = stageOf(held.policy, held.clock.phase)
    // Raised already, whatever days its clock still counts: nothing is raised twice.
    return stage === 'part' ? at('level', 0) : at(stage, stage === 'level' ? Math.max(0, (held.clock.day ?? 1) - 1) : levelDays)
  }
  const servedDays = inRangeMs === null ? 0 : daysBetween(dayInZone(inRangeMs, timeZone), dayInZone(nowMs, timeZone))
  return servedDays >= levelDays ? at('down', levelDays) : at('level', servedDays)
}
