import { useState } from 'react'
import { speciesGroups } from '../../core/dosing/agents'
import type { HoldPoliciesView } from '../../core/holds/holdsView'
import type { PolicyRule } from '../../core/holds/policyFor'
import { waters } from '../../core/room/room.schema'
import { origins } from '../../core/setup/words'
import { sentenceOf } from '../api/ApiProblem'
import { useRegister } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { ChoiceField } from '../ui/Field'
import { Problem } from '../ui/Notice'
import { useHoldPolicyWrites } from './useSetup'

/** Which fish begin which hold, in order: a change is kept with one touch more. */
export function HoldRules({ view, mayEdit }: { view: HoldPoliciesView; mayEdit: boolean }) {
  const { saveRules } = useHoldPolicyWrites()
  const { rows: suppliers } = useRegister('suppliers')
  const [draft, setDraft] = useState<PolicyRule[] | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const rules = draft ?? view.rules
  const offered = view.policies.filter(({ isRetired }) => !isRetired)
  const set = (index: number, more: Record<string, string>): void => setDraft(rules.map((rule, at) => (at === index ? withoutBlank({ ...rule, ...more }) : rule)))
  const save = (): void => void saveRules(rules, view.version).then(() => (setDraft(null), setProblem(null)), (error: unknown) => setProblem(sentenceOf(error)))
  const choices: [keyof Omit<PolicyRule, 'policy'>, string, readonly string[]][] = [['water', 'water', waters], ['group', 'group', speciesGroups], ['supplier', 'supplier', (suppliers ?? []).map(({ values }) => String(values.name))], ['origin', 'origin', origins]]
  return (
    <section className="row-section" aria-label="Which fish begin which">
      <h2>Which fish begin which</h2>
      {rules.length === 0 && <p className="aside-word">Everything begins the shop hold.</p>}
      <ol className="own-steps">
        {rules.map((rule, index) => (
          <li key={index}>
            <div className="field-row">
              {choices.map(([field, label, values]) => (
                <ChoiceField key={field} label={`${label} of rule ${index + 1}`} isDisabled={!mayEdit} value={rule[field] ?? ''} onChange={(value) => set(index, { [field]: value })}>
                  <option value="">any {label}</option>
                  {[...new Set([...values, ...(rule[field] ? [rule[field]] : [])])].map((value) => (
                    <option key={value} value={value}>
                      {value}
                    </option>
                  ))}
                </ChoiceField>
              ))}
              <ChoiceField label={`policy of rule ${index + 1}`} isDisabled={!mayEdit} value={rule.policy} onChange={(policy) => set(index, { policy })}>
                {offered.map(({ policy }) => (
                  <option key={policy.id} value={policy.id}>
                    {policy.name}
                  </option>
                ))}
              </ChoiceField>
            </div>
            {mayEdit && (
              <Button look="quiet" onClick={() => setDraft(rules.filter((_, at) => at !== index))}>
                not this rule
              </Button>
            )}
          </li>
        ))}
      </ol>
      {mayEdit && (
        <div className="entry-buttons">
          <Button onClick={() => setDraft([...rules, { policy: offered[0]?.policy.id ?? '' }])}>one more rule</Button>
          {draft && (
            <Button look="act" onClick={save}>
              keep these rules
            </Button>
          )}
        </div>
      )}
      <Problem>{problem}</Problem>
    </section>
  )
}

const withoutBlank = (rule: PolicyRule & Record<string, string>): PolicyRule => Object.fromEntries(Object.entries(rule).filter(([, value]) => value !== '')) as unknown as PolicyRule
