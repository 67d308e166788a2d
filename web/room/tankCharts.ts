import type { ChartData, ChartOptions } from 'chart.js'
import { readingKinds, showReading, type ReadingKind } from '../../core/room/glass.schema'
import { appetiteOf, oftenest, type TankHistory } from '../../core/room/tankHistory'
import type { Sign } from '../../core/rounds/rounds.schema'
import { toDisplay, unitLabel, type DisplayUnits } from '../../core/units/units'
import { axis, common, plain, type Inks } from '../ui/chartParts'

const dayMs = 86_400_000
/** A line between readings further apart would say that somebody knew what lay between. */
const togetherMs = 3 * dayMs

export interface Drawn<Kind extends 'line' | 'bar'> {
  data: ChartData<Kind>
  options: ChartOptions<Kind>
}

/** Days before now on the lower edge: 0 is now. */
const daysAgo = ({ toMs }: TankHistory, atMs: number): number => (atMs - toMs) / dayMs
const across = (history: TankHistory, inks: Inks) => {
  const scale = axis(inks, 'days ago')
  return { type: 'linear' as const, min: daysAgo(history, history.fromMs), max: 0, ...scale, ticks: { ...scale.ticks, callback: (value: string | number) => String(Math.abs(Math.round(Number(value)))) } }
}

/** Fish in the tank over the days, as a line that steps where fish came or went. */
export function toCountChart(history: TankHistory, inks: Inks): Drawn<'line'> {
  const points = [...history.counts, { atMs: history.toMs, fish: history.counts.at(-1)?.fish ?? 0 }].map(({ atMs, fish }) => ({ x: daysAgo(history, atMs), y: fish }))
  return {
    data: { datasets: [{ label: 'fish', data: points, stepped: true, borderColor: inks.ink, borderWidth: 2, pointRadius: 0, backgroundColor: inks.water, fill: 'origin' }] },
    options: { ...common, scales: { x: across(history, inks), y: { min: 0, grace: '10%', ...axis(inks, 'fish') } }, plugins: plain } as ChartOptions<'line'>,
  }
}

const answers = { 1: 'all', 0.75: 'most', 0.4: 'some', 0: 'none' } as const

/** A line that steps from moment to moment until now, for the lower edge of what was usual. */
const stepped = (history: TankHistory, points: readonly { atMs: number; y: number }[]): { x: number; y: number }[] => [...points, ...points.slice(-1).map(({ y }) => ({ atMs: history.toMs, y }))].map(({ atMs, y }) => ({ x: daysAgo(history, atMs), y }))

/** The band of what was usual: from its lower edge up to all. */
const band = (data: { x: number; y: number }[], inks: Inks) => ({ label: 'usual', data, stepped: true as const, borderColor: inks.soft, borderDash: [3, 3], borderWidth: 1, pointRadius: 0, backgroundColor: inks.water, fill: { value: 1 } })

/** What lies outside the band has a mark of its own. */
const marked = (points: readonly { isOutside: boolean }[], inks: Inks) => ({ pointStyle: points.map(({ isOutside }) => (isOutside ? 'triangle' : 'circle')), pointBackgroundColor: points.map(({ isOutside }) => (isOutside ? inks.watch : inks.ink)), pointBorderColor: inks.ink })

/** What was eaten at each look with food, over the band of what was usual. */
export function toAppetiteChart(history: TankHistory, inks: Inks): Drawn<'line'> {
  const usual = history.usual.appetite.map(({ atMs, least }) => ({ atMs, y: appetiteOf[least] ?? 0 }))
  const leastAt = (atMs: number): number => usual.findLast((each) => each.atMs <= atMs)?.y ?? 0
  const fed = history.looks.flatMap(({ atMs, ate }) => {
    const share = appetiteOf[ate]
    return share === null ? [] : [{ x: daysAgo(history, atMs), y: share, isOutside: share < leastAt(atMs) }]
  })
  const words = (value: string | number): string => answers[Number(value) as keyof typeof answers] ?? ''
  const scale = axis(inks, 'ate')
  return {
    data: {
      datasets: [
        { label: 'ate', data: fed, borderColor: inks.soft, borderWidth: 1, pointRadius: 4, clip: false, ...marked(fed, inks) },
        band(stepped(history, usual), inks),
      ],
    } as ChartData<'line'>,
    options: { ...common, scales: { x: across(history, inks), y: { min: -0.1, max: 1.1, ...scale, afterBuildTicks: (built: { ticks: { value: number }[] }) => (built.ticks = [0, 0.4, 0.75, 1].map((value) => ({ value }))), ticks: { ...scale.ticks, callback: words } } }, plugins: plain } as ChartOptions<'line'>,
  }
}

/** More signs than these are in the figures. */
const mostSigns = 5

/** Signs at looks, one line each, the most frequent on top; while one was usual its line lies in a band. */
export function toSignsChart(history: TankHistory, inks: Inks): Drawn<'line'> {
  const names = oftenest(history.looks).slice(0, mostSigns)
  const rowOf = (sign: string): number => names.length - 1 - names.findIndex((each) => each === sign)
  const seen = history.looks.flatMap(({ atMs, marks }) => {
    const worst = new Map<Sign, number>()
    for (const { sign, severity } of marks) worst.set(sign, Math.max(worst.get(sign) ?? 0, severity))
    return [...worst].flatMap(([sign, severity]) => {
      const isUsual = history.usual.signs.some((each) => each.sign === sign && each.fromMs <= atMs && atMs < each.toMs)
      return names.includes(sign) ? [{ x: daysAgo(history, atMs), y: rowOf(sign), severity, isUsual }] : []
    })
  })
  const usual = history.usual.signs.filter(({ sign }) => names.includes(sign)).flatMap(({ sign, fromMs, toMs }) => [{ x: daysAgo(history, fromMs), y: rowOf(sign) }, { x: daysAgo(history, toMs), y: rowOf(sign) }, { x: NaN, y: NaN }])
  const scale = axis(inks, '')
  return {
    data: {
      datasets: [
        { label: 'sign', data: seen, showLine: false, clip: false, pointRadius: seen.map(({ severity }) => (severity > 1 ? 7 : 4)), pointStyle: seen.map(({ isUsual }) => (isUsual ? 'circle' : 'triangle')), pointBackgroundColor: seen.map(({ isUsual }) => (isUsual ? inks.ink : inks.watch)), pointBorderColor: inks.ink },
        { label: 'usual', data: usual, borderColor: inks.water, borderWidth: 16, pointRadius: 0, spanGaps: false },
      ],
    } as ChartData<'line'>,
    options: { ...common, scales: { x: across(history, inks), y: { min: -0.6, max: names.length - 0.4, ...scale, afterBuildTicks: (built: { ticks: { value: number }[] }) => (built.ticks = names.map((_, value) => ({ value }))), ticks: { ...scale.ticks, maxTicksLimit: mostSigns + 1, callback: (value: string | number) => names[names.length - 1 - Number(value)] ?? '' } } }, plugins: plain } as ChartOptions<'line'>,
  }
}

/** Which share showed itself where somebody counted, over the share that usually does. */
export function toSeenChart(history: TankHistory, inks: Inks): Drawn<'line'> {
  const shareAt = (atMs: number): number => history.usual.shareSeen.findLast((each) => each.atMs <= atMs)?.share ?? 0
  const counted = history.looks.flatMap(({ atMs, seen }) => (seen && seen.of > 0 ? [{ x: daysAgo(history, atMs), y: Math.min(1, seen.fish / seen.of), isOutside: seen.fish < Math.floor(seen.of * shareAt(atMs)) }] : []))
  const scale = axis(inks, 'seen, of all')
  return {
    data: { datasets: [{ label: 'seen', data: counted, borderColor: inks.soft, borderWidth: 1, pointRadius: 4, clip: false, ...marked(counted, inks) }, band(stepped(history, history.usual.shareSeen.map(({ atMs, share }) => ({ atMs, y: share }))), inks)] } as ChartData<'line'>,
    options: { ...common, scales: { x: across(history, inks), y: { min: 0, max: 1.05, ...scale, ticks: { ...scale.ticks, stepSize: 0.25, callback: (value: string | number) => (Number(value) > 1 ? '' : `${Math.round(Number(value) * 100)} %`) } } }, plugins: plain } as ChartOptions<'line'>,
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
export function toReadingChart(history: TankHistory, what: ReadingKind, inks: Inks, units: DisplayUnits): Drawn<'line'> {
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
