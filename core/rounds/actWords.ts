import { showSet, markedUnits } from '../units/units'
import type { ActProposal } from './actProposals'
import type { LevelReason } from './levelReason'
import { partChange } from './partChange'
import type { JudgedReading, RoundRules } from './roundRules'

/** What fresh water takes out, and a change is proposed for. */
const changed: readonly JudgedReading[] = ['nh3N', 'nitriteN']

/**
 * A proposal as a person reads it; a change of part of the water with how much: to half of the watch limit, at most half of
 * the water each. A change that raises pH can raise ammonia too, so that is said. Figures stand in it marked (`wordFigures`).
 * @param volumeL - net volume of the water; null where it is not known: then its share is told.
 */
export function actWords(proposal: ActProposal, reasons: readonly LevelReason[], volumeL: number | null, { readings }: Pick<RoundRules, 'readings'>): string {
  if (proposal !== 'part change') return proposal
  const plans = reasons.flatMap(({ why, what, said }) => {
    const watch = readings.find(({ kind }) => kind === what)?.high?.[0]
    const isChanged = why === 'reading' && (changed as readonly string[]).includes(what) && watch !== undefined
    return (isChanged && partChange({ volumeL: volumeL ?? 1, now: said?.value ?? 0, target: watch / 2 })) || []
  })
  const most = plans.sort((a, b) => b.changes - a.changes || b.share - a.share)[0]
  if (!most || most.changes === 0) return proposal
  const much = volumeL === null ? `${Math.round(most.share * 100)} % of its water` : showSet('volume', most.litresEach, markedUnits)
  return `part change: ${most.changes === 1 ? much : `${most.changes} times ${much}`}; fresh water that raises pH can raise ammonia`
}
