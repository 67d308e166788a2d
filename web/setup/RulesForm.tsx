import { Form } from 'react-bootstrap'
import { Button } from '../ui/Button'
import { FormField, FormProblem } from '../ui/FormField'
import { StaleChoice } from '../ui/StaleChoice'
import { useFormat } from '../ui/useFormat'
import { useVersionedForm } from '../ui/useVersionedForm'

interface Changed {
  changes: object
  version: number
  changedBy: string | null
  changedAtMs: number | null
}
const asText = (changes: object): string => JSON.stringify(changes, null, 2)

/** What a house has otherwise than shipped, as JSON; for a lead. */
export function RulesForm<Rules extends Changed>({ rules, change, one, hint }: { rules: Rules; change: (rules: string, version: number) => Promise<{ version: number }>; one: string; hint: string }) {
  const format = useFormat()
  const { changedBy, changedAtMs } = rules
  const { form, submit, stale, isBusy } = useVersionedForm({ row: rules as Changed, toFields: ({ changes: now }) => ({ rules: asText(now) }), write: ({ rules: text }, version) => change(text, version) })
  return (
    <Form noValidate onSubmit={(event) => (event.preventDefault(), void submit())} className="entry-form">
      {stale && <StaleChoice one={one} fields={[{ label: 'rules', mine: form.getValues().rules, theirs: asText(stale.theirs.changes) }]} onMine={stale.onMine} onTheirs={stale.onTheirs} />}
      <FormField form={form} name="rules" label="What is other here" as="textarea" rows={6} hint={hint} />
      {changedBy !== null && changedAtMs !== null && <p className="aside-word">Changed last by {changedBy}, {format.day(changedAtMs)}.</p>}
      <FormProblem form={form} />
      <Button type="submit" look="act" disabled={isBusy}>
        Save the rules
      </Button>
    </Form>
  )
}
