import { useState } from 'react'
import type { FieldValues, UseFormReturn } from 'react-hook-form'
import { ruleRefusalOf, type AgainstRule } from './RuleRefusal'
import { submitInto } from './submitInto'

/**
 * Sends a form that a rule may refuse. What a rule refuses is given back for `RuleRefusal`, which sends it again with a
 * reason; anything else goes beside its field.
 */
export function useRuleSubmit<T extends FieldValues>(form: UseFormReturn<T>, write: (values: T, against: AgainstRule | null) => Promise<unknown>, onDone: () => void = () => undefined) {
  const [refused, setRefused] = useState<unknown>(null)
  const submit = (against: AgainstRule | null): Promise<void> => {
    setRefused(null)
    return form.handleSubmit(async (values) => {
      const send = (): Promise<unknown> =>
        write(values, against).catch((problem: unknown) => {
          if (ruleRefusalOf(problem)) setRefused(problem)
          throw problem
        })
      if (await submitInto(form, send)) onDone()
    })()
  }
  return { refused, submit }
}
