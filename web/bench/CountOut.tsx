import { useState } from 'react'
import { Link } from 'react-router'
import type { RunView } from '../../core/bench/benchView'
import { looksAfter, type LookAfter } from '../../core/bench/expectedCourse'
import { lossCauses, type LossCause } from '../../core/ledger/movement'
import { sentenceOf } from '../api/ApiProblem'
import { useRoomView } from '../api/sharedReads'
import { Stepper } from '../ui/Stepper'
import { tankLabel } from '../ui/TankOptions'
import { runTo } from './laneWords'
import { useRunWrites } from './useBench'

/** Fish counted out of their vessel into the tank: the count is set to what the books say, so that a right one takes one touch. */
export function CountOut({ run, stepIndex }: { run: RunView; stepIndex: number }) {
  const { countOut } = useRunWrites(run.id)
  const { room } = useRoomView()
  const [counts, setCounts] = useState(() => new Map(run.standing.map(({ lotId, quantity }) => [lotId, { alive: quantity, dead: 0 }])))
  const [look, setLook] = useState<LookAfter>('as expected')
  const [cause, setCause] = useState<LossCause>('found dead')
  const [tankId, setTankId] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const [isSending, setSending] = useState(false)
  const at = (lotId: string, quantity: number) => counts.get(lotId) ?? { alive: quantity, dead: 0 }
  const set = (lotId: string, value: { alive: number; dead: number }): void => setCounts(new Map(counts).set(lotId, value))
  const alive = run.standing.reduce((sum, { lotId, quantity }) => sum + at(lotId, quantity).alive, 0)
  const dead = run.standing.reduce((sum, { lotId, quantity }) => sum + at(lotId, quantity).dead, 0)
  const booked = run.standing.reduce((sum, { quantity }) => sum + quantity, 0)
  const send = async (): Promise<void> => {
    setSending(true)
    try {
      await countOut({ stepIndex, counts: run.standing.map(({ lotId, quantity }) => ({ lotId, ...at(lotId, quantity) })), tankId: tankId || null, look, cause, note: null })
    } catch (error) {
      setProblem(sentenceOf(error))
    }
    setSending(false)
  }
  if (run.standing.length === 0)
    return (
      <p className="notice">
        No fish of this run stand in bags or vessel any more. They may have been placed from <Link to={run.crate ? `/crates/${run.crate.id}/unpack` : '/room'}>Unpack</Link>; end the run below.
      </p>
    )
  return (
    <section className="count-out" aria-label="Count out">
      {run.standing.map(({ lotId, species, lotCode, quantity }) => {
        const value = at(lotId, quantity)
        return (
          <div key={lotId} className="count-lot">
            <p>
              <strong>{species}</strong> <small>lot {lotCode}, {quantity} in the books</small>
            </p>
            <Stepper label={`alive ${species}`} value={value.alive} max={20_000} onChange={(next) => set(lotId, { ...value, alive: next })} />
            <button type="button" className={value.dead > 0 ? 'hand-button is-dead' : 'hand-button'} aria-label={`${value.dead} dead ${species}, one more`} onClick={() => set(lotId, { alive: Math.max(0, value.alive - 1), dead: value.dead + 1 })}>
              {value.dead} dead
            </button>
            {value.dead > 0 && (
              <button type="button" className="quiet-button" onClick={() => set(lotId, { alive: value.alive + 1, dead: value.dead - 1 })}>
                one less
              </button>
            )}
          </div>
        )
      })}
      <div className="look-choice" role="group" aria-label="How they look">
        {looksAfter.map((each) => (
          <button key={each} type="button" className="hand-button" aria-pressed={look === each} onClick={() => setLook(each)}>
            {each}
          </button>
        ))}
      </div>
      <div className="readings">
        {dead > 0 && (
          <label className="reading">
            <span>cause</span>
            <select className="form-select" value={cause} onChange={(event) => setCause(event.currentTarget.value as LossCause)}>
              {lossCauses.map((each) => (
                <option key={each}>{each}</option>
              ))}
            </select>
          </label>
        )}
        {run.tank && (
          <label className="reading">
            <span>into</span>
            <select className="form-select" value={tankId} onChange={(event) => setTankId(event.currentTarget.value)}>
              <option value="">{run.tank.code}, as planned</option>
              {(room?.tanks ?? []).filter(({ id }) => id !== run.tank?.id).map((tank) => (
                <option key={tank.id} value={tank.id}>
                  {tankLabel(tank)}
                </option>
              ))}
            </select>
          </label>
        )}
      </div>
      {alive + dead !== booked && <p className="aside-word">{Math.abs(alive + dead - booked)} {alive + dead > booked ? 'more than the books say: they come in as counted.' : 'fewer than the books say: they go out as counted.'}</p>}
      {problem && <p role="alert" className="form-problem">{problem}</p>}
      <div className="thumb-bar">
        <button type="button" className="hand-button act" disabled={isSending} onClick={() => void send()}>
          <strong>
            {alive} into {room?.tanks.find(({ id }) => id === tankId)?.code ?? runTo(run)}
          </strong>
          <small>{dead > 0 ? `${dead} dead` : look}</small>
        </button>
      </div>
    </section>
  )
}
