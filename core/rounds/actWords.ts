import { markedUnits, showSet } from '../units/units'
import type { ActProposal } from './actProposals'
import type { LevelReason } from './levelReason'
import { partChange } from './partChange'
import type { JudgedReading, RoundRules } from './roundRules'

/** What fresh water takes out, and a change is proposed for. */
const changed: readonly JudgedReading[] = ['nh3N', 'nitriteN']

/** A change of part of the water as it is proposed. */
export interface ProposedChange {
  times: number
  /** Share of the water each time, 0 to 1. */
  share: number
  /** Null where nobody knows how much water there is. */
  litresEach: number | null
}

/**
 * The change that brings what stands beyond its limit to half of the watch limit, at most half of the water each time; null
 * where none is of use.
 * @param volumeL - net volume of the water; null where it is not known.
 */
export function proposedChange(reasons: readonly LevelReason[], volumeL: number | null, { readings }: Pick<RoundRules, 'readings'>): ProposedChange | null {
  const plans = reasons.flatMap(({ why, what, said }) => {
    const watch = readings.find(({ kind }) => kind === what)?.high?.[0]
    const isChanged = why === 'reading' && (changed as readonly string[]).includes(what) && watch !== undefined
    return (isChanged && partChange({ volumeL: volumeL ?? 1, now: said?.value ?? 0, target: watch / 2 })) || []
  })
  const most = plans.sort((a, b) => b.changes - a.changes || b.share - a.share)[0]
  return most && most.changes > 0 ? { times: most.changes, share: most.share, litresEach: volumeL === null ? null : most.litresEach } : null
}

/** A proposal as a person reads it; a change with how much. One that raises pH can raise ammonia too, so that is said. Figures stand in it marked (`wordFigures`). */
export function actWords(proposal: ActProposal, change: ProposedChange | null, hasSump: boolean): string {
  if (proposal !== 'part change' || change === null) return proposal
  const { times, share, litresEach } = change
  const percent = `${Math.round(share * 100)} % of its water`
  const much = litresEach === null ? percent : `${showSet('volume', litresEach, markedUnits)}${hasSump ? ` in its tanks (${percent})` : ''}`
  return `part change: ${times === 1 ? much : `${times} times ${much}`}; fresh water that raises pH can raise ammonia`
}
