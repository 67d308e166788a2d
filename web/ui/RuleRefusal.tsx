import { useState } from 'react'
import type { RuleRefusal as Refusal } from '../../core/placing/ruleRefusal'
import { ApiProblem, errorsByField, sentenceOf } from '../api/ApiProblem'
import { useSession } from '../api/session'
import { Button } from './Button'
import { TextField } from './Field'
import { Problem } from './Notice'
import { SayWater } from './SayWater'

/** Why fish go somewhere against a rule; a keeper's counts as a rescue. */
export interface AgainstRule {
  override: string
  isRescue?: boolean
}

/** The rules that a refusal names; null for any other problem. */
export const ruleRefusalOf = (problem: unknown): Refusal | null => (problem instanceof ApiProblem && problem.code === 'breaks-rule' ? (problem.current as Refusal) : null)

interface Props {
  problem: unknown
  /** Sends the same again: with a reason, or as it was once the water was said. */
  onAgain: (against: AgainstRule | null) => void
  /** Whether the fish are in the hand: in distress a keeper alone may go on. */
  mayRescue?: boolean
}

/**
 * A refusal by a rule of the house, and what can be done: say the water of fish nobody knows, a lead's reason, or in
 * distress a keeper's. Nothing where the problem is another one.
 */
export function RuleRefusal({ problem, onAgain, mayRescue = false }: Props) {
  const { recorder } = useSession()
  const [reason, setReason] = useState('')
  const refusal = ruleRefusalOf(problem)
  if (!refusal) return null
  const isLead = recorder.role === 'lead'
  const isUnsaid = refusal.rules.some(({ code }) => code === 'water-unknown')
  const mayDecide = refusal.mayOverrule && (isLead || mayRescue)
  return (
    <section className="rule-refusal" aria-label="Against a rule">
      <p role="alert">{(problem as ApiProblem).message}</p>
      {isUnsaid && refusal.unsaid.length > 0 && <SayWater of={refusal.unsaid} onSaid={() => onAgain(null)} />}
      {mayDecide && (
        <div className="against-rule">
          <TextField label={isLead ? 'Why all the same' : 'What is wrong with the fish'} isLabelHidden size="hand" maxLength={500} placeholder={isLead ? 'why all the same' : 'fish in distress, and no lead here: what is wrong'} value={reason} onChange={setReason} />
          <Button size="hand" disabled={reason.trim() === ''} onClick={() => onAgain({ override: reason.trim(), ...(isLead ? {} : { isRescue: true }) })}>
            {isLead ? 'All the same' : 'Rescue'} <small>{isLead ? 'the reason is kept' : 'a lead looks at it later'}</small>
          </Button>
        </div>
      )}
    </section>
  )
}

/** Whatever was refused: a rule with what can be done about it, anything else in its sentence. Nothing while nothing is. */
export function Refused(props: Props) {
  if (props.problem === null || ruleRefusalOf(props.problem)) return <RuleRefusal {...props} />
  return (
    <Problem>
      {Object.values(errorsByField(props.problem) ?? {})[0] ?? sentenceOf(props.problem)}
    </Problem>
  )
}
