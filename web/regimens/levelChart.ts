import type { ChartData, ChartOptions } from 'chart.js'
import type { LadderView } from '../../core/regimens/regimenView'
import { mgLWords } from '../../core/regimens/regimenWords'
import { axis, common, plain, type Inks } from '../ui/chartParts'

const dayMs = 86_400_000
const limit = (value: number, content: string, ink: string) => ({ type: 'line' as const, yMin: value, yMax: value, borderColor: ink, borderWidth: 1, borderDash: [6, 4], label: { display: true, content, position: 'start' as const, backgroundColor: 'transparent', color: ink, yAdjust: -8, font: { size: 11 } } })

/** The level of an agent over the days: its band and what is reckoned between, and over it what was read. */
export function toLevelChart({ path, readings, loMgL, hiMgL, targetMgL }: LadderView, nowMs: number, inks: Inks): { data: ChartData<'line'>; options: ChartOptions<'line'> } {
  const x = (atMs: number): number => (atMs - nowMs) / dayMs
  const line = (of: (point: LadderView['path'][number]) => number) => path.map((point) => ({ x: x(point.atMs), y: of(point) }))
  const read = (isOwn: boolean) => readings.filter(({ isOwnKit }) => isOwnKit === isOwn).map(({ atMs, mgL }) => ({ x: x(atMs), y: mgL }))
  const annotations = { lo: limit(loMgL, `from ${mgLWords(loMgL)}`, inks.soft), hi: limit(hiMgL, `never above ${mgLWords(hiMgL)}`, inks.harm) }
  const top = Math.max(hiMgL, targetMgL, ...path.map(({ hi: band }) => band), ...readings.map(({ mgL }) => mgL)) * 1.15
  return {
    data: {
      datasets: [
        { label: 'read with its kit', data: read(true), showLine: false, pointRadius: 5, pointBackgroundColor: inks.ink, pointBorderColor: inks.ink },
        { label: 'reckoned', data: line(({ c }) => c), borderColor: inks.soft, borderDash: [4, 3], borderWidth: 2, pointRadius: 0 },
        { label: 'band, 90 of 100', data: line(({ hi: band }) => band), borderColor: 'transparent', pointRadius: 0, backgroundColor: inks.water, fill: '+1' },
        { label: 'band, lower', data: line(({ lo: band }) => band), borderColor: 'transparent', pointRadius: 0 },
        ...(readings.some(({ isOwnKit }) => !isOwnKit) ? [{ label: 'another kit', data: read(false), showLine: false, pointRadius: 5, pointStyle: 'crossRot' as const, pointBorderColor: inks.watch, pointBorderWidth: 2 }] : []),
      ],
    } as ChartData<'line'>,
    options: {
      ...common,
      scales: { x: { type: 'linear', ...axis(inks, 'days from now') }, y: { min: 0, max: top, ...axis(inks, 'mg/L') } },
      plugins: { ...plain, annotation: { annotations } },
    } as ChartOptions<'line'>,
  }
}

/** The chart in a sentence. */
export function levelWords({ offer: { level, product }, loMgL, hiMgL }: LadderView): string {
  if (!level) return `${product.name} never went into this water, as far as is written down.`
  const age = level.ageH === null ? 'never read' : `read ${Math.round(level.ageH)} h ago`
  const where = level.mgL > hiMgL ? 'above its range' : level.mgL < loMgL ? 'below its range' : 'in its range'
  return `About ${mgLWords(level.mgL)} (${figure(level.lo)} to ${figure(level.hi)}), ${where}; ${age}${level.isJump ? ', and that reading could not be' : ''}.`
}

const figure = (mgL: number): string => String(Number(mgL.toPrecision(3)))
