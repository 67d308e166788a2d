import type { inksOf } from './inksOf'

/** What a chart is drawn with: the colours of the theme in force. */
export type Inks = ReturnType<typeof inksOf>

/** An axis with its title and unit; no words, no title. */
export const axis = (inks: Pick<Inks, 'soft' | 'line'>, text: string) => ({ title: { display: text !== '', text, color: inks.soft }, ticks: { color: inks.soft, maxTicksLimit: 6 }, grid: { color: inks.line }, border: { color: inks.line } })
/** Charts stand still and fill what they stand in. */
export const common = { animation: false, responsive: true, maintainAspectRatio: false, parsing: false } as const
/** What stands beside a chart says what a legend would. */
export const plain = { legend: { display: false }, tooltip: { enabled: false } } as const
