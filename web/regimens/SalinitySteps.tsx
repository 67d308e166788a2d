import { useState } from 'react'
import type { RegimenPlan } from '../../core/regimens/regimens.schema'
import type { RegimenView } from '../../core/regimens/regimenView'
import { shownDay } from '../../core/time/shownDay'
import { sentenceOf } from '../api/ApiProblem'
import { Button } from '../ui/Button'
import { TextField } from '../ui/Field'
import { Problem } from '../ui/Notice'
import { Table } from '../ui/Table'
import { useUnits } from '../ui/useUnits'
import type { RegimenWrites } from './useRegimens'

interface Props {
  salinity: NonNullable<RegimenView['salinity']>
  tankId: string
  isOpen: boolean
  writes: RegimenWrites
  regimenId: string
  plan: RegimenPlan
}

/** Dated steps of salinity, the next one to be done here, and what was read. */
export function SalinitySteps({ salinity, tankId, regimenId, isOpen, writes, plan }: Props) {
  const units = useUnits()
  const [problem, setProblem] = useState<string | null>(null)
  const { down, up, stage, nowPpt, isReadFirst, isStepped, driftPpt, reasons, isRefused } = salinity
  const [next] = stage === 'down' ? down : stage === 'up' ? up : []
  const rows = [...down.map((step) => ({ ...step, way: 'down' as const })), ...up.map((step) => ({ ...step, way: 'up' as const }))]
  const added = plan.kind !== 'low salinity' ? 0 : stage === 'down' ? plan.downPpt : plan.upPpt
  return (
    <section className="salinity" aria-label="Salinity">
      {nowPpt !== null && (
        <p>
          Read at <strong>{units.show('salinity', nowPpt)}</strong>.
        </p>
      )}
      {stage !== 'house' && reasons.length > 0 && (
        <ul className="dose-reasons" aria-label="What is said against low salinity">
          {reasons.map(({ code, answer, words }) => (
            <li key={code} className={answer === 'W' ? 'is-watch' : 'is-harm'}>
              {words}
            </li>
          ))}
        </ul>
      )}
      {isOpen && <ReadSalinity tankId={tankId} writes={writes} />}
      {isOpen && !isRefused && next && !isReadFirst && !isStepped && (
        <Button size="hand" look="act" onClick={() => void writes.change(tankId, regimenId, { litres: next.swapL, salinityPpt: added }).catch((error: unknown) => setProblem(sentenceOf(error)))}>
          <strong>{units.show('volume', Math.round(next.swapL * 10) / 10)} swapped</strong> for {added === 0 ? 'fresh water' : `water of ${units.show('salinity', added)}`}
        </Button>
      )}
      <Problem>{problem}</Problem>
      {rows.length > 0 && (
        <Table responsive>
          <thead>
            <tr>
              <th scope="col">day</th>
              <th scope="col">from ({units.label('salinity')})</th>
              <th scope="col">to</th>
              <th scope="col">swap</th>
              <th scope="col">salt mix for it</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ on, from, to, swapL, saltG, way }) => (
              <tr key={`${way} ${on}`}>
                <th scope="row" className="whole">{shownDay(on)}</th>
                <td>{units.figure('salinity', from)}</td>
                <td>{units.figure('salinity', to)}</td>
                <td>{units.show('volume', Math.round(swapL))}</td>
                <td>{saltG > 0 ? `${Math.round(saltG)} g` : 'none'}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
      {stage !== 'house' && driftPpt !== null && driftPpt > 0 && <p className="aside-word">Evaporation raises it by {units.change('salinity', driftPpt)} a day: top up with fresh water.</p>}
      <p className="aside-word">Down in a day or two; up slowly. Filter bacteria slow down: watch ammonia.</p>
    </section>
  )
}

/** What a meter of salinity shows. */
export function ReadSalinity({ tankId, writes }: { tankId: string; writes: RegimenWrites }) {
  const units = useUnits()
  const [typed, setTyped] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const save = (): void => {
    const value = units.read('salinity', typed)
    if (!Number.isFinite(value)) return setProblem('Say what was read')
    void writes.read(tankId, 'salinityPpt', value, null).then(() => (setTyped(''), setProblem(null)), (error: unknown) => setProblem(sentenceOf(error)))
  }
  return (
    <div className="field-row">
      <TextField label="salinity read" unit={units.label('salinity')} size="hand" inputMode="decimal" value={typed} onChange={setTyped} problem={problem} />
      <Button size="hand" onClick={save}>
        read
      </Button>
    </div>
  )
}
