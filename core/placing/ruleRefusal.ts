import type { BrokenRule } from '../tankChoice/company'

/** What stands beside a refusal `breaks-rule`: the rules, and what a person can do about them. */
export interface RuleRefusal {
  rules: BrokenRule[]
  tank: { id: string; code: string }
  /** Lots of which nobody has said which water they live in. */
  unsaid: { lotId: string; species: string }[]
  /** Whether a lead's reason lets them pass. */
  mayOverrule: boolean
}
