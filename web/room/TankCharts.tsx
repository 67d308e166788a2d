import { CategoryScale, Chart, Filler, LinearScale, LineElement, PointElement } from 'chart.js'
import annotation from 'chartjs-plugin-annotation'
import { useState } from 'react'
import { Line } from 'react-chartjs-2'
import { readingKinds, readingNames, showReading } from '../../core/room/glass.schema'
import { appetiteWords, countWords, historyDays, oftenest, seenWords, signsWords, type TankHistory } from '../../core/room/tankHistory'
import type { DisplayUnits } from '../../core/units/units'
import { Button } from '../ui/Button'
import { inksOf } from '../ui/inksOf'
import { Table } from '../ui/Table'
import { useFormat } from '../ui/useFormat'
import { useTheme } from '../ui/useTheme'
import { useUnits } from '../ui/useUnits'
import { toAppetiteChart, toCountChart, toReadingChart, toSeenChart, toSignsChart } from './tankCharts'
import { useTankHistory } from './useRoom'

Chart.register(LineElement, PointElement, LinearScale, CategoryScale, Filler, annotation)

/** How a tank fared: its number, its appetite, what was read; each with a sentence first and its figures behind it. */
export default function TankCharts({ code }: { code: string }) {
  const [days, setDays] = useState<number>(historyDays[0])
  const { history } = useTankHistory(code, days)
  return (
    <section className="tank-charts" aria-label="Over the days">
      <h2>
        Over the days
        <span className="filters" role="group" aria-label="Days">
          {historyDays.map((each) => (
            <Button key={each} aria-pressed={days === each} onClick={() => setDays(each)}>
              {each}
            </Button>
          ))}
        </span>
      </h2>
      {history && <Drawn history={history} />}
    </section>
  )
}

function Drawn({ history }: { history: TankHistory }) {
  const { isLightsOff } = useTheme()
  const { display: units } = useUnits()
  const inks = inksOf()
  const read = readingNames.filter((what) => history.readings.some((each) => each.what === what))
  const charts = [
    { key: 'fish', words: countWords(history.counts), drawn: toCountChart(history, inks) },
    ...(history.looks.length > 0 ? [{ key: 'ate', words: appetiteWords(history.looks), drawn: toAppetiteChart(history, inks) }] : []),
    ...(oftenest(history.looks).length > 0 ? [{ key: 'signs', words: signsWords(history.looks), drawn: toSignsChart(history, inks) }] : []),
    ...(history.looks.some(({ seen }) => seen !== null) ? [{ key: 'seen', words: seenWords(history.looks), drawn: toSeenChart(history, inks) }] : []),
    ...read.map((what) => ({ key: what, words: lastWords(history, what, units), drawn: toReadingChart(history, what, inks, units) })),
  ]
  return (
    <>
      <div className="tank-chart-list">
        {charts.map(({ key, words, drawn }) => (
          <figure key={`${key} ${isLightsOff}`}>
            <figcaption>{words}</figcaption>
            <div className="tank-chart">
              <Line data={drawn.data} options={drawn.options} role="img" aria-label={words} />
            </div>
          </figure>
        ))}
      </div>
      {history.looks.length > 0 && <p className="aside-word">Shaded: what was usual for the fish that stand here now, after what happened to them. A triangle lies outside it.</p>}
      <Figures history={history} />
    </>
  )
}

function lastWords({ readings }: TankHistory, what: (typeof readingNames)[number], units: DisplayUnits): string {
  const last = readings.findLast((each) => each.what === what)
  return last ? `${readingKinds[what].label}: ${showReading(what, last.value, units)}, read by ${last.by}${last.instrument ? ` with ${last.instrument}` : ''}.` : readingKinds[what].label
}

/** The same in figures, for whoever cannot see a picture. */
function Figures({ history }: { history: TankHistory }) {
  const format = useFormat()
  const { display: units } = useUnits()
  const rows = [
    ...history.counts.map(({ atMs, fish }) => ({ atMs, words: `${fish} fish` })),
    ...history.looks.map(({ atMs, ate, marks, seen }) => ({ atMs, words: [`ate: ${ate}`, ...marks.map(({ sign, severity }) => `${sign}${severity > 1 ? ', clear' : ''}`), ...(seen ? [`${seen.fish} of ${seen.of} seen`] : [])].join('; ') })),
    ...history.usual.signs.map(({ sign, fromMs, toMs }) => ({ atMs: fromMs, words: `${sign} usual until ${format.moment(toMs)}` })),
    ...history.readings.map(({ atMs, what, value }) => ({ atMs, words: `${readingKinds[what].label} ${showReading(what, value, units)}` })),
  ].sort((a, b) => b.atMs - a.atMs)
  return (
    <details>
      <summary>in figures</summary>
      <Table>
        <tbody>
          {rows.slice(0, 200).map(({ atMs, words }, index) => (
            <tr key={index}>
              <th scope="row">{format.moment(atMs)}</th>
              <td>{words}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      {rows.length > 200 && <p className="aside-word">The newest 200 of {rows.length}.</p>}
    </details>
  )
}
