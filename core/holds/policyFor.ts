import { byText } from '../contacts/contact'
import { shippedMatrix, type Verdict } from '../dosing/agents'
import type { HoldPolicy } from './policy'

/** Fish for which a policy is chosen. */
export interface HeldLot {
  water: string
  /** Its hold group in the species book; null where nobody knows what fish this is. */
  group: string | null
  /** Other hold groups that it belongs to. */
  otherGroups?: readonly string[]
  supplier: string | null
  origin: string | null
  isWeak?: boolean
}
/** Which lots a policy is for: all that is named has to be so. */
export interface PolicyRule {
  policy: string
  water?: string
  group?: string
  supplier?: string
  origin?: string
}
export interface ChosenPolicy {
  policy: string
  /** The rule that chose it; null where none did. */
  rule: number | null
  /** Rules that fitted and were passed over, because their medicine does not fit the fish or what stands in the water. */
  skipped: { policy: string; why: string[] }[]
}
/** What holds where no rule of the house says otherwise. */
export const usualPolicy = 'shopHold'

const isRefused = (verdict: Verdict | undefined): boolean => verdict === 'R' || verdict === 'X'
const fields = ['water', 'supplier', 'origin'] as const
const conditionOf = (group: string | null): string[] => (group === null ? ['unknownSpecies'] : group === 'other' ? [] : [group])

/**
 * Chooses a policy for fish: the first rule that fits and none of whose agents is refused for them.
 * @param contents - what stands in their water, by the names of the table of refusals.
 */
export function policyFor(rules: readonly PolicyRule[], lot: HeldLot, contents: readonly string[], policies: ReadonlyMap<string, HoldPolicy>): ChosenPolicy {
  const groups = [...(lot.group === null ? [] : [lot.group]), ...(lot.otherGroups ?? [])]
  const isOf = (rule: PolicyRule): boolean => fields.every((field) => (rule[field] ?? null) === null || rule[field] === lot[field]) && ((rule.group ?? null) === null || groups.includes(rule.group ?? ''))
  const conditions = [...conditionOf(lot.group), ...(lot.otherGroups ?? []).filter((group) => group !== 'other'), ...(lot.isWeak ? ['weakFish'] : []), ...contents]
  const skipped: ChosenPolicy['skipped'] = []
  for (const [index, rule] of rules.entries()) {
    const policy = policies.get(rule.policy)
    if (!policy || !isOf(rule)) continue
    const why = [...new Set(policy.agents.flatMap((agent) => conditions.filter((condition) => isRefused(shippedMatrix[condition]?.[agent])).map((condition) => `${agent}:${condition}`)))].sort(byText)
    if (why.length === 0) return { policy: rule.policy, rule: index, skipped }
    skipped.push({ policy: rule.policy, why })
  }
  return { policy: usualPolicy, rule: null, skipped }
}
