import { useState } from 'react'
import { Link } from 'react-router'
import { benchApi } from '../../core/bench/bench.api'
import type { DeskLine } from '../../core/desk/calculations'
import { sentenceOf } from '../api/ApiProblem'
import { nowMs } from '../api/clock'
import { useBench } from '../api/sharedReads'
import { useWrite } from '../api/useOutbox'

/** Takes the flow of a calculation into a run of the bench: the one it came from, or any that is open. */
export function TakeIntoRun({ runId, lines }: { runId: string | null; lines: readonly DeskLine[] }) {
  const { bench } = useBench()
  const write = useWrite()
  const [said, setSaid] = useState<{ id: string; words: string } | null>(null)
  const flow = lines.find(({ unit }) => unit === 'mL/min')?.value
  const open = (bench?.runs ?? []).filter(({ id, endedAtMs, outAtMs }) => endedAtMs === null && outAtMs === null && (runId === null || id === runId))
  if (typeof flow !== 'number' || !(flow > 0) || open.length === 0) return null
  const take = (id: string): void => {
    write(benchApi.setFlow, { params: { runId: id }, label: 'a flow from the Water desk', body: { mlPerMin: flow, happenedAtMs: nowMs() } }, { refusals: 'form' })
      .then(() => setSaid({ id, words: `${Math.round(flow)} mL a minute is set there.` }))
      .catch((error: unknown) => setSaid({ id, words: sentenceOf(error) }))
  }
  return (
    <div className="entry-buttons">
      {open.map(({ id, number, sources }) => (
        <button key={id} type="button" className="button" onClick={() => take(id)}>
          Set this flow in run {number}, {sources[0]?.species}
        </button>
      ))}
      {said && (
        <p role="status">
          {said.words} <Link to={`/bench/runs/${said.id}`}>to the run</Link>
        </p>
      )}
    </div>
  )
}
