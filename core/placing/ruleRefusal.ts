import type { BrokenRule } from '../tankChoice/company'

/** What stands beside a refusal `breaks-rule`: the rules, and what a person can do about them. */
export interface RuleRefusal {
  rules: (Pick<BrokenRule, 'why'> & { code: BrokenRule['code'] | 'plan-double' | 'plan-stuck' })[]
  tank: { id: string; code: string }
  /** Lots of which nobody has said which water they live in. */
  unsaid: { lotId: string; species: string }[]
  /** Whether a lead's reason lets them pass. */
  mayOverrule: boolean
}
