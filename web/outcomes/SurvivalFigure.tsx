import { Chart, Filler, LinearScale, LineElement, PointElement } from 'chart.js'
import annotation from 'chartjs-plugin-annotation'
import { Line } from 'react-chartjs-2'
import type { CurveShown } from '../../core/outcomes/outcomesPage'
import { inksOf } from '../ui/inksOf'
import { useTheme } from '../ui/useTheme'
import { curveWords, dashes, seriesInks, toSurvivalChart } from './survivalChart'

Chart.register(LineElement, PointElement, LinearScale, Filler, annotation)

/** Survival as curves with bands, what each line is beside them. */
export default function SurvivalFigure({ curves, day, marked = null }: { curves: readonly CurveShown[]; day: number; marked?: { day: number; words: string } | null }) {
  const { isLightsOff } = useTheme()
  const inks = inksOf()
  const { data, options } = toSurvivalChart(curves, day, inks, marked)
  const colours = seriesInks(inks)
  return (
    <figure className="survival-figure" key={String(isLightsOff)}>
      <div className="survival-chart">
        <Line data={data} options={options} role="img" aria-label={curveWords(curves, day)} />
      </div>
      <figcaption>
        <ul className="survival-lines">
          {curves.map(({ name, greyFrom }, index) => (
            <li key={name}>
              <svg viewBox="0 0 36 8" width="36" height="8" aria-hidden="true">
                <line x1="0" y1="4" x2="36" y2="4" stroke={colours[index % colours.length]} strokeWidth="2" strokeDasharray={(dashes[index % dashes.length] ?? []).join(' ')} />
              </svg>
              {name}
              {greyFrom !== null && <small> grey from day {greyFrom}: fewer than 10 fish or 2 crates left</small>}
            </li>
          ))}
        </ul>
      </figcaption>
    </figure>
  )
}
