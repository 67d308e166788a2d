import type { LevelAsked, LevelReason, Shown } from './levelReason'
import { signRule, type RoundRules } from './roundRules'
import type { Sign } from './rounds.schema'

/** What is proposed where a tank calls for somebody now, in the order it is done. */
export const actProposalNames = ['look again within 1 h', 'take readings', 'part change', 'separate the fighters', 'hospital tank', 'close the water', 'restart the hold after confirmation', 'tell the lead', 'tell the supplier', 'tell who took fish', 'ask a veterinarian'] as const
export type ActProposal = (typeof actProposalNames)[number]

const freshReadingH = 4
/** Fish that came so lately are their supplier's matter too, in days. */
const supplierDays = 14
/** So much has to speak for a fish to be ill rather than startled. */
const hospitalFrom = 3

/** Whether a sign speaks for illness strongly enough that its fish would go to hospital; fights do not. */
export const isIllSign = ({ why, what, points }: LevelReason, rules: RoundRules): boolean => why === 'sign' && points >= hospitalFrom && !signRule(rules, what as Sign).isFight

/** Proposals for a tank at act. They name no disease, dose nothing and write nothing off: docs/rounds.md. */
export function actProposals(asked: LevelAsked, reasons: readonly LevelReason[], shows: readonly Shown[], isGrave: boolean, rules: RoundRules): ActProposal[] {
  const has = (why: LevelReason['why'], what?: string): boolean => reasons.some((reason) => reason.why === why && (what === undefined || reason.what === what))
  const isRead = (kind: string): boolean => (asked.readings ?? []).some((reading) => reading.kind === kind && reading.hoursAgo <= freshReadingH)
  const [isHeld, isBeyond] = [asked.lots.some(({ inHold }) => inHold), has('losses beyond usual')]
  const isSpreading = has('neighbour') || has('whole water') || shows.includes('skin')
  const isProposed: Record<ActProposal, boolean> = {
    'look again within 1 h': true,
    'take readings': !isRead('tempC') || (!asked.hasBinder && !isRead('nh3N')),
    'part change': has('reading', 'nh3N') || has('reading', 'nitriteN'),
    'separate the fighters': has('sign', 'chased'),
    'hospital tank': reasons.some((reason) => isIllSign(reason, rules)) && !isSpreading && !has('reading') && asked.purpose !== 'hospital',
    'close the water': isSpreading || isBeyond,
    'restart the hold after confirmation': isHeld && (has('hold') || isBeyond),
    'tell the lead': true,
    'tell the supplier': isBeyond && asked.lots.some(({ days }) => days < supplierDays),
    'tell who took fish': asked.soldLately === true && (isSpreading || isBeyond),
    'ask a veterinarian': isGrave || isBeyond || has('neighbour'),
  }
  return actProposalNames.filter((proposal) => isProposed[proposal])
}
