import { useState } from 'react'
import { Link } from 'react-router'
import type { ToolView } from '../../core/contacts/contactView'
import { sentenceOf } from '../api/ApiProblem'
import { useToolSets } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { Lead } from '../ui/Lead'
import { NumberChoice } from '../ui/NumberChoice'
import { Nothing, Trouble, Waiting } from '../ui/PageState'
import { Notice, Problem } from '../ui/Notice'
import { Sheet } from '../ui/Sheet'
import { useFormat } from '../ui/useFormat'
import { useContactWrites } from './useContacts'
import './contacts.css'

/** Tool sets: where each was since it was last clean, and its baths. */
export function ToolsPage() {
  const { tools, problem } = useToolSets()
  if (!tools) return problem ? <Trouble problem={problem} /> : <Waiting what="the tool sets" />
  const used = tools.filter(({ state }) => state === 'used').length
  return (
    <>
      <Lead title="Tool sets">{used === 0 ? 'All are clean, or in their bath.' : `${used} of ${tools.length} were in a water since they were last clean.`}</Lead>
      <Notice>By the label of the product: how strong, how long, and how it is rinsed. A set that only dried counts as used.</Notice>
      {tools.length === 0 && <Nothing>No tool set is entered yet. A lead adds them under Setup.</Nothing>}
      <ul className="record-list">
        {tools.map((tool) => (
          <Tool key={tool.id} tool={tool} />
        ))}
      </ul>
    </>
  )
}

function Tool({ tool: { id, name, zone, marking, state, readyAtMs, carries } }: { tool: ToolView }) {
  const format = useFormat()
  const { beginBath, endBath } = useContactWrites()
  const [isAsking, setAsking] = useState(false)
  const [problem, setProblem] = useState<unknown>(null)
  const done = (): void => {
    setProblem(null)
    setAsking(false)
  }
  return (
    <li className="record trace-row">
      <span>
        <strong>
          <Link to={`/contacts?start=tools:${id}&direction=forward`}>{name}</Link>
        </strong>
        <small>{[zone, marking].filter(Boolean).join(', ')}</small>
        <small>{state === 'used' ? `was in ${carries.join(', ')}` : state === 'in bath' && readyAtMs !== null ? `in its bath until ${format.moment(readyAtMs)}` : 'clean'}</small>
        {problem !== null && <Problem>{sentenceOf(problem)}</Problem>}
      </span>
      {state === 'in bath' ? <Button onClick={() => void endBath(id).then(done, setProblem)}>out of the bath</Button> : <Button onClick={() => setAsking(true)}>into the bath …</Button>}
      <Sheet title={`${name}: minutes by the label`} isOpen={isAsking} onClose={() => setAsking(false)}>
        <NumberChoice label="Minutes" most={240} direct={9} onChoose={(needMinutes) => void beginBath(id, needMinutes).then(done, setProblem)} />
      </Sheet>
    </li>
  )
}
