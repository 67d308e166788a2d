import { Chart, Filler, LinearScale, LineElement, PointElement } from 'chart.js'
import annotation from 'chartjs-plugin-annotation'
import { Line } from 'react-chartjs-2'
import type { LadderView } from '../../core/regimens/regimenView'
import { mgLWords } from '../../core/regimens/regimenWords'
import { inksOf } from '../ui/inksOf'
import { Table } from '../ui/Table'
import { useFormat } from '../ui/useFormat'
import { useTheme } from '../ui/useTheme'
import { levelWords, toLevelChart } from './levelChart'

Chart.register(LineElement, PointElement, LinearScale, Filler, annotation)

/** The level over the days: what was read over the band of what is reckoned; a sentence first and the figures behind it. */
export default function LevelChart({ ladder, nowMs }: { ladder: LadderView; nowMs: number }) {
  const { isLightsOff } = useTheme()
  const format = useFormat()
  const words = levelWords(ladder)
  const { data, options } = toLevelChart(ladder, nowMs, inksOf())
  return (
    <figure className="level-figure" key={String(isLightsOff)}>
      <figcaption>{words}</figcaption>
      <div className="level-chart">
        <Line data={data} options={options} role="img" aria-label={words} />
      </div>
      <p className="aside-word">Points: read with its kit. Dashed: reckoned from litres, doses and changes, with the band it lies in nine times of ten. Nothing is dosed on what is reckoned alone.</p>
      {ladder.readings.length > 0 && (
        <details>
          <summary>readings in figures</summary>
          <Table>
            <tbody>
              {[...ladder.readings].reverse().map(({ atMs, mgL, kit, isBelow, isOwnKit }) => (
                <tr key={`${atMs} ${mgL}`}>
                  <th scope="row">{format.moment(atMs)}</th>
                  <td>
                    {isBelow ? 'under ' : ''}
                    {mgLWords(mgL)}
                  </td>
                  <td>{kit === null ? 'nobody said with which kit' : isOwnKit ? kit : `${kit}: says nothing of it`}</td>
                </tr>
              ))}
            </tbody>
          </Table>
        </details>
      )}
    </figure>
  )
}
