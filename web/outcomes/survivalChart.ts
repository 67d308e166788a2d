import type { ChartData, ChartOptions } from 'chart.js'
import type { CurveShown } from '../../core/outcomes/outcomesPage'
import { axis, common, plain, type Inks } from '../ui/chartParts'

/** Lines are told apart by their dashes first, by their colour second. */
export const dashes: readonly (readonly number[])[] = [[], [8, 4], [2, 3], [10, 3, 2, 3]]
export const seriesInks = (inks: Inks): string[] => [inks.ink, inks.harm, inks.watch, inks.soft]

interface Marked {
  day: number
  words: string
}

/** Curves of survival as steps with their bands; grey from where few are left. */
export function toSurvivalChart(curves: readonly CurveShown[], day: number, inks: Inks, marked: Marked | null = null): { data: ChartData<'line'>; options: ChartOptions<'line'> } {
  const colours = seriesInks(inks)
  const known = curves.map(({ points }) => points.filter(({ survival }) => survival !== null))
  const lowest = Math.min(1, ...known.flat().map(({ low }) => low ?? 1))
  const at = (points: CurveShown['points'], of: (point: CurveShown['points'][number]) => number | null) => points.map((point) => ({ x: point.day, y: 100 * (of(point) ?? 0) }))
  return {
    data: {
      datasets: curves.flatMap(({ name, greyFrom }, index) => {
        const points = known[index] ?? []
        const colour = colours[index % colours.length] ?? inks.ink
        return [
          { label: name, data: at(points, ({ survival }) => survival), stepped: 'before' as const, borderColor: colour, borderDash: [...(dashes[index % dashes.length] ?? [])], borderWidth: 2, pointRadius: 0, segment: { borderColor: ({ p0 }: { p0: { parsed: { x: number | null } } }) => (greyFrom !== null && (p0.parsed.x ?? 0) >= greyFrom ? inks.line : undefined) } },
          { label: `${name}, band`, data: at(points, ({ high }) => high), stepped: 'before' as const, borderColor: 'transparent', backgroundColor: `color-mix(in srgb, ${colour} 12%, transparent)`, pointRadius: 0, fill: '+1' },
          { label: `${name}, band below`, data: at(points, ({ low }) => low), stepped: 'before' as const, borderColor: 'transparent', pointRadius: 0 },
        ]
      }),
    } as ChartData<'line'>,
    options: {
      ...common,
      scales: { x: { type: 'linear', min: 0, max: 30, ...axis(inks, 'days since opening') }, y: { min: Math.max(0, Math.floor(lowest * 20) * 5), max: 100, ...axis(inks, 'alive of 100') } },
      plugins: { ...plain, annotation: { annotations: { day: upright(day, `day ${day}`, inks.soft), ...(marked ? { marked: upright(marked.day, marked.words, inks.harm) } : {}) } } },
    } as ChartOptions<'line'>,
  }
}

const upright = (day: number, content: string, ink: string) => ({ type: 'line' as const, xMin: day, xMax: day, borderColor: ink, borderWidth: 1, borderDash: [6, 4], label: { display: true, content, position: 'start' as const, backgroundColor: 'transparent', color: ink, xAdjust: 24, font: { size: 11 } } })

/** The curves in a sentence, for whoever does not see them. */
export function curveWords(curves: readonly CurveShown[], day: number): string {
  const said = curves.map(({ name, points }) => {
    const { survival = null, low = null, high = null } = points.find((point) => point.day === day) ?? {}
    return survival === null ? `${name}: not known to day ${day} yet` : `${name}: ${percentOf(survival)} alive on day ${day} (${percentOf(low)} to ${percentOf(high)})`
  })
  return `${said.join('. ')}.`
}

/** A share as it is read: whole per cent, one decimal near the ends, where it matters. */
export function percentOf(share: number | null): string {
  if (share === null) return '–'
  const near = Math.min(share, 1 - share)
  return `${(100 * share).toFixed(near > 0 && near < 0.1 ? 1 : 0)} %`
}
