import type { HoldPoliciesView, PolicyView } from '../../core/holds/holdsView'
import type { RetirePolicy, SaveHoldRules, SavePolicy } from '../../core/holds/holds.schema'
import type { HoldPolicy } from '../../core/holds/policy'
import { usualPolicy } from '../../core/holds/policyFor'
import { policyWords } from '../../core/holds/policyWords'
import { readPolicy } from '../../core/holds/readPolicy.schema'
import type { AuditStore } from '../audit/audit.store'
import type { CommandContext } from '../http/endpoint'
import { parsedField } from '../http/parsedField'
import { fieldProblem, Problem } from '../http/problem'
import type { HoldBooksStore } from './holdBooks.store'

interface Collaborators {
  books: HoldBooksStore
  policies: () => ReadonlyMap<string, HoldPolicy>
  audit: AuditStore
}

/** The policies of the house, and which fish begin which. */
export function createHoldPolicies({ books, policies, audit }: Collaborators) {
  function view(): HoldPoliciesView {
    const own = new Map(books.policies().map((row) => [row.id, row]))
    const all = [...policies().values()].map((policy): PolicyView => {
      const row = own.get(policy.id)
      return { policy, version: row?.version ?? 0, isOwn: row !== undefined, isRetired: row?.retiredAtMs != null, words: policyWords(policy) }
    })
    return { policies: all, ...books.rules() }
  }

  function requireVersion(id: string, seen: number) {
    const row = books.policy(id)
    if ((row?.version ?? 0) !== seen) throw new Problem('stale', 'Somebody else changed this policy meanwhile', { current: view() })
    return row
  }

  return {
    view,

    saveHoldPolicy(context: CommandContext, { policy: typed, version }: SavePolicy) {
      const id = context.params.policyId ?? ''
      if (id === usualPolicy) throw fieldProblem('policy', 'The shop hold is as long as the house limit says; make a copy to change the rest')
      const read = readPolicy(parsedField('policy', typed))
      if (!read.ok) throw fieldProblem('policy', `${read.problems.slice(0, 5).join('. ')}.`)
      if (read.policy.id !== id) throw fieldProblem('policy', 'Its id is another one than that of its address')
      const row = requireVersion(id, version)
      books.writePolicy({ id, policy: read.policy, version: version + 1, retiredAtMs: row?.retiredAtMs ?? null })
      audit.insert({ atMs: context.nowMs, staffId: context.actor.id, action: 'edited', subject: `hold policy ${read.policy.name}`, changes: { policy: [row?.policy ?? null, read.policy] }, commandKey: context.key })
      return { version: version + 1 }
    },

    retireHoldPolicy(context: CommandContext, { isRetired, version }: RetirePolicy) {
      const row = requireVersion(context.params.policyId ?? '', version)
      if (!row) throw new Problem('not-found', 'Only a policy of the house’s own is taken out of use')
      books.writePolicy({ ...row, version: version + 1, retiredAtMs: isRetired === 1 ? context.nowMs : null })
      audit.insert({ atMs: context.nowMs, staffId: context.actor.id, action: isRetired === 1 ? 'retired' : 'edited', subject: `hold policy ${row.policy.name}`, commandKey: context.key })
      return { version: version + 1 }
    },

    saveHoldRules(context: CommandContext, { rules, version }: SaveHoldRules) {
      const before = books.rules()
      if (before.version !== version) throw new Problem('stale', 'Somebody else changed these rules meanwhile', { current: view() })
      const offered = new Set(view().policies.filter(({ isRetired }) => !isRetired).map(({ policy }) => policy.id))
      rules.forEach(({ policy }, index) => {
        if (!offered.has(policy)) throw fieldProblem(`rules[${index}].policy`, 'There is no such policy')
      })
      books.writeRules({ version: version + 1, rules, staffId: context.actor.id, commandKey: context.key, recordedAtMs: context.nowMs })
      audit.insert({ atMs: context.nowMs, staffId: context.actor.id, action: 'edited', subject: 'rules of holds', changes: { rules: [before.rules, rules] }, commandKey: context.key })
      return { version: version + 1 }
    },
  }
}
export type HoldPoliciesService = ReturnType<typeof createHoldPolicies>
