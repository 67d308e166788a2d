import type { ChartData, ChartOptions } from 'chart.js'
import { readingKinds, showReading, type ReadingKind } from '../../core/room/glass.schema'
import { appetiteOf, type TankHistory } from '../../core/room/tankHistory'
import { toDisplay, unitLabel, type DisplayUnits } from '../../core/units/units'

/** What a chart is drawn with: the colours of the theme in force. */
export interface TankInks {
  ink: string
  soft: string
  line: string
  water: string
  harm: string
  watch: string
}

const dayMs = 86_400_000
/** A line between readings further apart would say that somebody knew what lay between. */
const togetherMs = 3 * dayMs

export interface Drawn<Kind extends 'line' | 'bar'> {
  data: ChartData<Kind>
  options: ChartOptions<Kind>
}

const axis = (inks: TankInks, text: string) => ({ title: { display: text !== '', text, color: inks.soft }, ticks: { color: inks.soft, maxTicksLimit: 6 }, grid: { color: inks.line }, border: { color: inks.line } })

/** Days before now on the lower edge: 0 is now. */
const daysAgo = ({ toMs }: TankHistory, atMs: number): number => (atMs - toMs) / dayMs
const across = (history: TankHistory, inks: TankInks) => {
  const scale = axis(inks, 'days ago')
  return { type: 'linear' as const, min: daysAgo(history, history.fromMs), max: 0, ...scale, ticks: { ...scale.ticks, callback: (value: string | number) => String(Math.abs(Math.round(Number(value)))) } }
}
const common = { animation: false, responsive: true, maintainAspectRatio: false, parsing: false } as const
const plain = { legend: { display: false }, tooltip: { enabled: false } } as const

/** Fish in the tank over the days, as a line that steps where fish came or went. */
export function toCountChart(history: TankHistory, inks: TankInks): Drawn<'line'> {
  const points = [...history.counts, { atMs: history.toMs, fish: history.counts.at(-1)?.fish ?? 0 }].map(({ atMs, fish }) => ({ x: daysAgo(history, atMs), y: fish }))
  return {
    data: { datasets: [{ label: 'fish', data: points, stepped: true, borderColor: inks.ink, borderWidth: 2, pointRadius: 0, backgroundColor: inks.water, fill: 'origin' }] },
    options: { ...common, scales: { x: across(history, inks), y: { min: 0, grace: '10%', ...axis(inks, 'fish') } }, plugins: plain } as ChartOptions<'line'>,
  }
}

const answers = { 1: 'all', 0.75: 'most', 0.4: 'some', 0: 'none' } as const

/** What was eaten at each look with food; one with signs has a mark of its own. */
export function toAppetiteChart(history: TankHistory, inks: TankInks): Drawn<'line'> {
  const fed = history.ate.flatMap(({ atMs, ate, signs }) => {
    const share = appetiteOf[ate]
    return share === null ? [] : [{ x: daysAgo(history, atMs), y: share, signs }]
  })
  const words = (value: string | number): string => answers[Number(value) as keyof typeof answers] ?? ''
  const scale = axis(inks, 'ate')
  return {
    data: {
      datasets: [
        { label: 'ate', data: fed, borderColor: inks.soft, borderWidth: 1, pointRadius: 4, clip: false, pointStyle: fed.map(({ signs }) => (signs > 0 ? 'triangle' : 'circle')), pointBackgroundColor: fed.map(({ y, signs }) => (signs > 0 || y < 0.5 ? inks.watch : inks.ink)), pointBorderColor: inks.ink },
      ],
    },
    options: { ...common, scales: { x: across(history, inks), y: { min: -0.1, max: 1.1, ...scale, afterBuildTicks: (built: { ticks: { value: number }[] }) => (built.ticks = [0, 0.4, 0.75, 1].map((value) => ({ value }))), ticks: { ...scale.ticks, callback: words } } }, plugins: plain } as ChartOptions<'line'>,
  }
}

/** A figure in the units people see. */
const readingShown = (what: ReadingKind, value: number, units: DisplayUnits): number => {
  const { quantity } = readingKinds[what]
  return quantity ? toDisplay(quantity, value, units) : value
}
const readingUnit = (what: ReadingKind, units: DisplayUnits): string => {
  const { quantity, unit } = readingKinds[what]
  return quantity ? unitLabel(quantity, units) : unit
}

/** Readings of one kind with the range that all who live there bear; the limit is written on its line. */
export function toReadingChart(history: TankHistory, what: ReadingKind, inks: TankInks, units: DisplayUnits): Drawn<'line'> {
  const shown = (value: number): number => readingShown(what, value, units)
  const readings = history.readings.filter((each) => each.what === what)
  const points = readings.map(({ atMs, value }) => ({ x: daysAgo(history, atMs), y: shown(value) }))
  const bears = history.bears.find((each) => each.what === what)
  const limits = (['min', 'max'] as const).flatMap((end) => (typeof bears?.[end] === 'number' ? [{ end, at: shown(bears[end]), words: `they bear ${showReading(what, bears[end], units)}` }] : []))
  const unit = readingUnit(what, units)
  return {
    data: {
      datasets: [
        { label: readingKinds[what].label, data: points, borderColor: inks.ink, borderWidth: 2, clip: false, pointRadius: 4, pointBackgroundColor: inks.ink, segment: { borderDash: ({ p0, p1 }: { p0: { parsed: { x: number } }; p1: { parsed: { x: number } } }) => ((p1.parsed.x - p0.parsed.x) * dayMs > togetherMs ? [2, 5] : undefined) } },
        ...limits.map(({ at }) => ({ label: 'bear', data: [{ x: daysAgo(history, history.fromMs), y: at }, { x: 0, y: at }], borderColor: inks.harm, borderWidth: 1, pointRadius: 0 })),
      ],
    } as ChartData<'line'>,
    options: {
      ...common,
      scales: { x: across(history, inks), y: { grace: '15%', ...axis(inks, unit || readingKinds[what].label) } },
      plugins: { ...plain, annotation: { annotations: Object.fromEntries(limits.map(({ end, at, words }) => [end, { type: 'label', xValue: daysAgo(history, history.fromMs), yValue: at, content: [words], color: inks.harm, position: { x: 'start', y: end === 'max' ? 'start' : 'end' }, font: { size: 11 } }])) } },
    } as ChartOptions<'line'>,
  }
}
