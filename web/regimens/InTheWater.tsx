import { useState } from 'react'
import { shippedAgents } from '../../core/dosing/agents'
import type { TreatedWaterView } from '../../core/regimens/regimenView'
import { shownDay } from '../../core/time/shownDay'
import { sentenceOf } from '../api/ApiProblem'
import { Button } from '../ui/Button'
import { ChoiceField } from '../ui/Field'
import { Problem } from '../ui/Notice'
import type { RegimenWrites } from './useRegimens'

/** What is in the water of a tank: what went in by hands that wrote nothing down, and what is out again. */
export function InTheWater({ tankId, water, writes }: { tankId: string; water: TreatedWaterView | undefined; writes: RegimenWrites }) {
  const [agent, setAgent] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const there = water?.agents ?? []
  const after = (done: Promise<unknown>): void => void done.then(() => (setAgent(''), setProblem(null)), (error: unknown) => setProblem(sentenceOf(error)))
  return (
    <section className="in-water" aria-label="In this water">
      <h2>In this water</h2>
      {there.length === 0 && <p className="aside-word">Nothing, as far as is written down.</p>}
      <ul>
        {there.map(({ agent: each, name, goneOn }) => (
          <li key={each} className="record log-line">
            <span>
              {name}
              <small>{goneOn === null ? 'until it is cleared' : `until ${shownDay(goneOn)}`}</small>
            </span>
            <Button onClick={() => after(writes.cleared(tankId, each))}>{name} is out</Button>
          </li>
        ))}
      </ul>
      <details className="folded">
        <summary>something is in it that nobody wrote down</summary>
        <div className="field-row">
          <ChoiceField label="found in it" size="hand" value={agent} onChange={setAgent}>
            <option value="">which agent</option>
            {Object.entries(shippedAgents).map(([id, { name }]) => (
              <option key={id} value={id} disabled={there.some((each) => each.agent === id)}>
                {name}
              </option>
            ))}
          </ChoiceField>
          <Button size="hand" disabled={agent === ''} onClick={() => after(writes.found(tankId, agent))}>
            it is in
          </Button>
        </div>
      </details>
      <Problem>{problem}</Problem>
    </section>
  )
}
