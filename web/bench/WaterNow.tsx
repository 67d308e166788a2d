import { Link } from 'react-router'
import type { RunView } from '../../core/bench/benchView'
import type { RunNow } from '../../core/bench/followRun'
import { unionisedMgL } from '../../core/water/ammonia'
import { formatSpan } from '../ui/format'
import { Table } from '../ui/Table'
import { useUnits } from '../ui/useUnits'

/** The water as the model has it, beside what was read. */
export function WaterNow({ run, now, atMs }: { run: RunView; now: RunNow; atMs: number }) {
  const units = useUnits()
  const water = now.water.now
  const last = (key: 'tempC' | 'salinityPpt' | 'ph' | 'tanMgL') => run.events.findLast((event) => event.kind === 'reading' && event[key] !== null)
  const age = (atReadMs: number): string => `${formatSpan(atMs - atReadMs)} ago`
  if (!water) return null
  const rows: [string, string, ReturnType<typeof last>, (value: number) => string][] = [
    ['temperature', units.show('temperature', water.tempC), last('tempC'), (value) => units.show('temperature', value)],
    ['salinity', units.show('salinity', water.salinityPpt), last('salinityPpt'), (value) => units.show('salinity', value)],
    ['pH', water.ph.toFixed(1), last('ph'), (value) => value.toFixed(2)],
  ]
  const [ph, tan] = [last('ph'), last('tanMgL')]
  const measuredNh3 = ph?.ph != null && tan?.tanMgL != null ? unionisedMgL(tan.tanMgL, ph.ph, last('tempC')?.tempC ?? water.tempC, last('salinityPpt')?.salinityPpt ?? water.salinityPpt) : null
  // What was read goes with it, and the estimate for what was not.
  const ammoniaQuery = new URLSearchParams({ ph: (ph?.ph ?? water.ph).toFixed(2), tempC: (last('tempC')?.tempC ?? water.tempC).toFixed(1), salinityPpt: (last('salinityPpt')?.salinityPpt ?? water.salinityPpt).toFixed(1), ...(tan?.tanMgL != null ? { tan: String(tan.tanMgL) } : {}) }).toString()
  return (
    <Table className="water-now" aria-label="Water now">
      <thead>
        <tr>
          <th scope="col">water</th>
          <th scope="col">measured</th>
          <th scope="col">estimated</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(([label, estimate, reading, show]) => {
          const value = reading && (label === 'temperature' ? reading.tempC : label === 'salinity' ? reading.salinityPpt : reading.ph)
          return (
            <tr key={label}>
              <th scope="row">{label}</th>
              <td>
                {value != null ? (
                  <>
                    <strong>{show(value)}</strong> <small>{age(reading?.atMs ?? atMs)}{reading?.isSimulated ? ', simulated meter' : ''}</small>
                  </>
                ) : (
                  '–'
                )}
              </td>
              <td className="is-estimate">≈ {estimate}</td>
            </tr>
          )
        })}
        <tr>
          <th scope="row">
            <Link to={`/desk/ammonia?${ammoniaQuery}`}>NH3-N</Link>
          </th>
          {now.hasBinder ? (
            <td colSpan={2}>withheld: while a binder works, figures for ammonia mean nothing</td>
          ) : (
            <>
              <td>{measuredNh3 === null ? '–' : <strong>{measuredNh3.toFixed(3)} mg/L</strong>}</td>
              <td className="is-estimate">
                ≈ {water.unionisedMgL.toFixed(3)} mg/L, limit {now.water.limits.nh3.toFixed(3)}
              </td>
            </>
          )}
        </tr>
      </tbody>
    </Table>
  )
}
