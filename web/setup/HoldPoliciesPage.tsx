import { useState } from 'react'
import type { PolicyView } from '../../core/holds/holdsView'
import { usualPolicy } from '../../core/holds/policyFor'
import { sentenceOf } from '../api/ApiProblem'
import { useHoldPolicies } from '../api/sharedReads'
import { useSession } from '../api/session'
import { Button, ButtonLink } from '../ui/Button'
import { Lead } from '../ui/Lead'
import { Problem } from '../ui/Notice'
import { Trouble, Waiting } from '../ui/PageState'
import { RowSection } from '../ui/Rows'
import { HoldRules } from './HoldRules'
import { PolicyForm } from './PolicyForm'
import { useHoldPolicyWrites } from './useSetup'
import './setup.css'

/** How long fish are held, and which fish begin which hold. */
export function HoldPoliciesPage() {
  const { policies, problem } = useHoldPolicies()
  const { recorder } = useSession()
  const [open, setOpen] = useState<{ of: PolicyView; isCopy: boolean } | null>(null)
  if (!policies) return problem ? <Trouble problem={problem} /> : <Waiting what="the policies" />
  const isLead = recorder.role === 'lead'
  const taken = new Set(policies.policies.map(({ policy }) => policy.id))
  return (
    <>
      <Lead title="Holds">Fish out of a bag begin the first hold below that fits them, else the shop hold. A policy of your own is made from a copy.</Lead>
      {open && <PolicyForm key={`${open.of.policy.id} ${String(open.isCopy)}`} of={open.of} isCopy={open.isCopy} taken={taken} onDone={() => setOpen(null)} />}
      <HoldRules view={policies} mayEdit={isLead} />
      <RowSection title="Policies" count={policies.policies.length}>
        {policies.policies.map((each) => (
          <PolicyRow key={each.policy.id} each={each} mayEdit={isLead} onOpen={(isCopy) => setOpen({ of: each, isCopy })} />
        ))}
      </RowSection>
    </>
  )
}

function PolicyRow({ each, mayEdit, onOpen }: { each: PolicyView; mayEdit: boolean; onOpen: (isCopy: boolean) => void }) {
  const { policy, isOwn, isRetired, words } = each
  const { retire } = useHoldPolicyWrites()
  const [problem, setProblem] = useState<string | null>(null)
  return (
    <li className="record policy-row">
      <p>
        <strong>{policy.name}</strong> {isOwn && <small>of the house{isRetired ? ', out of use' : ''}</small>}
        <small>{words}</small>
      </p>
      {mayEdit && (
        <div className="entry-buttons" role="group" aria-label={policy.name}>
          {policy.phases.length > 0 && <Button onClick={() => onOpen(true)}>copy</Button>}
          {policy.id === usualPolicy && <ButtonLink to="/setup/limits#shopHoldDays">its days</ButtonLink>}
          {isOwn && <Button onClick={() => onOpen(false)}>change</Button>}
          {isOwn && <Button onClick={() => void retire(each).then(() => setProblem(null), (error: unknown) => setProblem(sentenceOf(error)))}>{isRetired ? 'use it again' : 'out of use'}</Button>}
        </div>
      )}
      <Problem>{problem}</Problem>
    </li>
  )
}
