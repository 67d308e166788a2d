import type { ChartData, ChartOptions } from 'chart.js'
import type { Curve, CurveName, MethodCurves } from '../../core/acclimation/methodCurves'
import type { SpeciesLimits } from '../../core/acclimation/figures'
import { displayDigits, toDisplay, unitLabel, type DisplayUnits } from '../../core/units/units'

/** What a chart is drawn with: the colours of the theme in force. */
export interface ChartInks {
  ink: string
  soft: string
  line: string
  water: string
  harm: string
}

export interface CurveWords {
  title: string
  unit: string
  digits: number
}
export function curveWords(name: CurveName, units: DisplayUnits): CurveWords {
  if (name === 'unionisedMgL') return { title: 'NH3-N', unit: 'mg/L', digits: 3 }
  if (name === 'ph') return { title: 'pH', unit: '', digits: 2 }
  const quantity = quantityOf[name]
  return { title: quantity, unit: unitLabel(quantity, units), digits: displayDigits(quantity, units) }
}
const quantityOf = { tempC: 'temperature', salinityPpt: 'salinity' } as const

/** One curve in the units people see. */
export function curveInUnits(curve: Curve, name: CurveName, units: DisplayUnits): Curve {
  if (name !== 'tempC' && name !== 'salinityPpt') return curve
  const shown = (values: number[]): number[] => values.map((value) => toDisplay(quantityOf[name], value, units))
  return { low: shown(curve.low), likely: shown(curve.likely), high: shown(curve.high) }
}

/** The limit that stands in a picture as a line; only ammonia has one that is a level and no step. */
export const limitOf = (name: CurveName, limits: SpeciesLimits): number | null => (name === 'unionisedMgL' ? limits.nh3 : null)

/** The word “limit” stands above its line. */
const roomAboveLimit = 1.3

/** Data and options of one curve with its band; pure, so that what is drawn can be tested. */
export function toCurveChart({ atMin, curves }: MethodCurves, name: CurveName, limits: SpeciesLimits, inks: ChartInks, units: DisplayUnits): { data: ChartData<'line'>; options: ChartOptions<'line'> } {
  const { low, likely, high } = curveInUnits(curves[name], name, units)
  const { title, unit } = curveWords(name, units)
  const limit = limitOf(name, limits)
  const isLong = (atMin.at(-1) ?? 0) > 240
  const axis = (text: string) => ({ title: { display: true, text, color: inks.soft }, ticks: { color: inks.soft, maxTicksLimit: 6 }, grid: { color: inks.line }, border: { color: inks.line } })
  const points = (values: number[]) => values.map((y, nth) => ({ x: (atMin[nth] ?? 0) / (isLong ? 60 : 1), y }))
  // The limit is shown where it matters; far above the curve it would press it flat.
  const showsLimit = limit !== null && limit < Math.max(...high) * 3
  return {
    data: {
      datasets: [
        // The first is drawn on top.
        { label: 'likely', data: points(likely), borderColor: inks.ink, borderWidth: 2, pointRadius: 0, borderDash: [6, 3] },
        { label: 'eight of ten bags, low', data: points(low), borderWidth: 0, pointRadius: 0, fill: false },
        { label: 'eight of ten bags', data: points(high), borderWidth: 0, pointRadius: 0, backgroundColor: inks.water, fill: '-1' },
        ...(showsLimit ? [{ label: 'limit', data: [{ x: 0, y: limit }, { x: (atMin.at(-1) ?? 0) / (isLong ? 60 : 1), y: limit }], borderColor: inks.harm, borderWidth: 2, pointRadius: 0 }] : []),
      ],
    },
    options: {
      ...{ animation: false, responsive: true, maintainAspectRatio: false, parsing: false },
      scales: { x: { type: 'linear', min: 0, ...axis(isLong ? 'hours' : 'minutes') }, y: { ...axis(`${title}${unit && `, ${unit}`}`), ...(name === 'unionisedMgL' ? { min: 0 } : {}), ...(showsLimit ? { suggestedMax: limit * roomAboveLimit } : {}), grace: '5%' } },
      plugins: {
        legend: { display: false },
        tooltip: { enabled: false },
        annotation: showsLimit ? { annotations: { limit: { type: 'label', xValue: 0, yValue: limit ?? 0, content: [`limit ${limit?.toFixed(3)}`], color: inks.harm, position: { x: 'start', y: 'end' }, font: { weight: 'bold' } } } } : { annotations: {} },
      },
    } as ChartOptions<'line'>,
  }
}

/** The curve in a sentence, for whoever does not see it. */
export function curveSummary({ atMin, curves }: MethodCurves, name: CurveName, units: DisplayUnits): string {
  const { likely, low, high } = curveInUnits(curves[name], name, units)
  const { title, unit, digits } = curveWords(name, units)
  const top = likely.indexOf(Math.max(...likely))
  const figure = (value: number | undefined): string => `${(value ?? NaN).toFixed(digits)}${unit && ` ${unit}`}`
  return `${title}: begins at ${figure(likely[0])}, highest ${figure(likely[top])} after ${Math.round(atMin[top] ?? 0)} min (${figure(low[top])} to ${figure(high[top])}), ends at ${figure(likely.at(-1))}.`
}
