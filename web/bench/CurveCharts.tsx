import { Chart, Filler, LinearScale, LineElement, PointElement } from 'chart.js'
import annotation from 'chartjs-plugin-annotation'
import { useEffect, useState } from 'react'
import { Line } from 'react-chartjs-2'
import { curveNames, type MethodCurves } from '../../core/acclimation/methodCurves'
import type { SpeciesLimits } from '../../core/acclimation/figures'
import { inksOf } from '../ui/inksOf'
import { Table } from '../ui/Table'
import { useTheme } from '../ui/useTheme'
import { useUnits } from '../ui/useUnits'
import { curveInUnits, curveSummary, curveWords, toCurveChart } from './curveChart'

Chart.register(LineElement, PointElement, LinearScale, Filler, annotation)

/** Counts up to a number, one at a time, so that no single moment of drawing holds a touch up. */
function useOneByOne(most: number): number {
  const [count, setCount] = useState(0)
  useEffect(() => {
    if (count >= most) return
    const timer = setTimeout(() => setCount(count + 1), 30)
    return () => clearTimeout(timer)
  }, [count, most])
  return count
}

/** Temperature, salinity, pH and ammonia over the minutes of one school, each with its band and a table behind it. */
export function CurveCharts({ curves, limits, name }: { curves: MethodCurves; limits: SpeciesLimits; name: string }) {
  const { isLightsOff } = useTheme()
  const { display: units } = useUnits()
  const inks = inksOf()
  const shown = Object.fromEntries(curveNames.map((each) => [each, curveInUnits(curves.curves[each], each, units)])) as MethodCurves['curves']
  const drawn = useOneByOne(curveNames.length)
  return (
    <section className="curves" aria-label={`Curves of ${name}`}>
      {curveNames.slice(0, drawn).map((each) => {
        const { data, options } = toCurveChart(curves, each, limits, inks, units)
        return (
          <figure key={`${each} ${isLightsOff}`}>
            <figcaption>{curveWords(each, units).title}</figcaption>
            <div className="curve-box">
              <Line data={data} options={options} role="img" aria-label={curveSummary(curves, each, units)} />
            </div>
          </figure>
        )
      })}
      <details>
        <summary>figures of the curves</summary>
        <Table>
          <thead>
            <tr>
              <th scope="col">min</th>
              {curveNames.map((each) => (
                <th key={each} scope="col" className="number">
                  {curveWords(each, units).title}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {curves.atMin.map((at, nth) =>
              nth % 10 === 0 ? (
                <tr key={nth}>
                  <th scope="row">{Math.round(at)}</th>
                  {curveNames.map((each) => (
                    <td key={each} className="number">
                      {shown[each].likely[nth]?.toFixed(curveWords(each, units).digits)}
                    </td>
                  ))}
                </tr>
              ) : null,
            )}
          </tbody>
        </Table>
      </details>
      <p className="aside-word">Dashed: the likely bag. Band: eight of ten plausible bags. The last moment is the tank’s own water.</p>
    </section>
  )
}
