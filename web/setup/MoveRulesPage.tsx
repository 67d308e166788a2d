import { Form } from 'react-bootstrap'
import type { MoveRulesView } from '../../core/moves/moveView'
import { useSession } from '../api/session'
import { Button } from '../ui/Button'
import { FormField, FormProblem } from '../ui/FormField'
import { Lead } from '../ui/Lead'
import { Trouble, Waiting } from '../ui/PageState'
import { StaleChoice } from '../ui/StaleChoice'
import { Table } from '../ui/Table'
import { useFormat } from '../ui/useFormat'
import { useVersionedForm } from '../ui/useVersionedForm'
import { useMoveRules } from './useSetup'
import './setup.css'

/** The numbers behind contacts, moves, catching and introductions: as shipped, and what the house changed. */
export function MoveRulesPage() {
  const { rules, problem, change } = useMoveRules()
  if (!rules) return problem ? <Trouble problem={problem} /> : <Waiting what="the rules" />
  return <Rules rules={rules} change={change} />
}

const asText = (changes: object): string => JSON.stringify(changes, null, 2)

function Rules({ rules, change }: { rules: MoveRulesView; change: (rules: string, version: number) => Promise<{ version: number }> }) {
  const { recorder } = useSession()
  const format = useFormat()
  const { shipped, changes, changedBy, changedAtMs } = rules
  const { form, submit, stale, isBusy } = useVersionedForm({ row: rules, toFields: ({ changes: now }) => ({ rules: asText(now) }), write: ({ rules: text }, version) => change(text, version) })
  return (
    <>
      <Lead title="Rules of moves">House guidance for contacts, moves, catching and introductions. Change one where you know better; what needs a lead always does.</Lead>
      {recorder.role === 'lead' && (
        <Form noValidate onSubmit={(event) => (event.preventDefault(), void submit())} className="entry-form">
          {stale && <StaleChoice one="set of rules" fields={[{ label: 'rules', mine: form.getValues().rules, theirs: asText(stale.theirs.changes) }]} onMine={stale.onMine} onTheirs={stale.onTheirs} />}
          <FormField form={form} name="rules" label="What is other here" as="textarea" rows={6} hint='one object, such as {"liftsPerDay": 4, "levels": {"shares": "off"}}' />
          {changedBy !== null && changedAtMs !== null && <p className="aside-word">Changed last by {changedBy}, {format.day(changedAtMs)}.</p>}
          <FormProblem form={form} />
          <Button type="submit" look="act" disabled={isBusy}>
            Save the rules
          </Button>
        </Form>
      )}
      <Table responsive>
        <thead>
          <tr>
            <th>rule</th>
            <th>shipped</th>
            <th>here</th>
          </tr>
        </thead>
        <tbody>
          {Object.entries(shipped).map(([name, value]) => (
            <tr key={name}>
              <td>{name}</td>
              <td>{shown(value)}</td>
              <td>{name in changes ? <strong>{shown((changes as Record<string, unknown>)[name])}</strong> : ''}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </>
  )
}

const shown = (value: unknown): string => (Array.isArray(value) ? value.join(', ') : typeof value === 'object' && value !== null ? Object.entries(value).map(([key, each]) => `${key} ${String(each)}`).join(', ') || 'none' : String(value))
