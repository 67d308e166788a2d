import type { MoveRulesView } from '../../core/moves/moveView'
import { useSession } from '../api/session'
import { Lead } from '../ui/Lead'
import { Trouble, Waiting } from '../ui/PageState'
import { Table } from '../ui/Table'
import { RulesForm } from './RulesForm'
import { useMoveRules } from './useSetup'
import './setup.css'

/** The numbers behind contacts, moves, catching and introductions: as shipped, and what the house changed. */
export function MoveRulesPage() {
  const { rules, problem, change } = useMoveRules()
  if (!rules) return problem ? <Trouble problem={problem} /> : <Waiting what="the rules" />
  return <Rules rules={rules} change={change} />
}

function Rules({ rules, change }: { rules: MoveRulesView; change: (rules: string, version: number) => Promise<{ version: number }> }) {
  const { recorder } = useSession()
  const { shipped, changes } = rules
  return (
    <>
      <Lead title="Rules of moves">House guidance for contacts, moves, catching and introductions. Change one where you know better; what needs a lead always does.</Lead>
      {recorder.role === 'lead' && <RulesForm rules={rules} change={change} one="set of rules" hint='one object, such as {"liftsPerDay": 4, "levels": {"shares": "off"}}' />}
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
