import type { ChartData, ChartOptions } from 'chart.js'
import type { LadderView } from '../../core/regimens/regimenView'
import { mgLWords } from '../../core/regimens/regimenWords'

/** What a chart is drawn with: the colours of the theme in force. */
export interface LevelInks {
  ink: string
  soft: string
  line: string
  water: string
  harm: string
  watch: string
}
const dayMs = 86_400_000
const axis = (inks: LevelInks, text: string) => ({ title: { display: true, text, color: inks.soft }, ticks: { color: inks.soft, maxTicksLimit: 6 }, grid: { color: inks.line }, border: { color: inks.line } })
const limit = (inks: LevelInks, value: number, content: string, ink: string) => ({ type: 'line' as const, yMin: value, yMax: value, borderColor: ink, borderWidth: 1, borderDash: [6, 4], label: { display: true, content, position: 'start' as const, backgroundColor: 'transparent', color: ink, yAdjust: -8, font: { size: 11 } }, inks })

/** The level of an agent over the days: its band and what is reckoned between, and over it what was read. */
export function toLevelChart({ path, readings, loMgL, hiMgL, targetMgL }: LadderView, nowMs: number, inks: LevelInks): { data: ChartData<'line'>; options: ChartOptions<'line'> } {
  const x = (atMs: number): number => (atMs - nowMs) / dayMs
  const line = (of: (point: LadderView['path'][number]) => number) => path.map((point) => ({ x: x(point.atMs), y: of(point) }))
  const read = (isOwn: boolean) => readings.filter(({ isOwnKit }) => isOwnKit === isOwn).map(({ atMs, mgL }) => ({ x: x(atMs), y: mgL }))
  const marks = { lo: limit(inks, loMgL, `from ${mgLWords(loMgL)}`, inks.soft), hi: limit(inks, hiMgL, `never above ${mgLWords(hiMgL)}`, inks.harm) }
  const { inks: _, ...lo } = marks.lo
  const { inks: __, ...hi } = marks.hi
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
      ...{ animation: false, responsive: true, maintainAspectRatio: false, parsing: false },
      scales: { x: { type: 'linear', ...axis(inks, 'days from now') }, y: { min: 0, max: top, ...axis(inks, 'mg/L') } },
      plugins: { legend: { display: false }, tooltip: { enabled: false }, annotation: { annotations: { lo, hi } } },
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
