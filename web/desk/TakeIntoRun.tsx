import { useState } from 'react'
import { Link } from 'react-router'
import type { DeskLine } from '../../core/desk/calculations'
import { sentenceOf } from '../api/ApiProblem'
import { useBench } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { useSetFlow } from './useSetFlow'

/** Takes the flow of a calculation into a run of the bench: the one it came from, or any that is open. */
export function TakeIntoRun({ runId, lines }: { runId: string | null; lines: readonly DeskLine[] }) {
  const { bench } = useBench()
  const setFlow = useSetFlow()
  const [said, setSaid] = useState<{ id: string; words: string } | null>(null)
  const flow = lines.find(({ unit }) => unit === 'mL/min')?.value
  const open = (bench?.runs ?? []).filter(({ id, endedAtMs, outAtMs }) => endedAtMs === null && outAtMs === null && (runId === null || id === runId))
  if (typeof flow !== 'number' || !(flow > 0) || open.length === 0) return null
  const take = (id: string): void => {
    setFlow(id, flow)
      .then(() => setSaid({ id, words: `${Math.round(flow)} mL a minute is set there.` }))
      .catch((error: unknown) => setSaid({ id, words: sentenceOf(error) }))
  }
  return (
    <div className="entry-buttons">
      {open.map(({ id, number, sources }) => (
        <Button key={id} onClick={() => take(id)}>
          Set this flow in run {number}, {sources[0]?.species}
        </Button>
      ))}
      {said && (
        <p role="status">
          {said.words} <Link to={`/bench/runs/${said.id}`}>to the run</Link>
        </p>
      )}
    </div>
  )
}
