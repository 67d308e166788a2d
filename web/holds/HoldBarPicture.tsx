import type { HoldBar } from '../../core/holds/holdBar'
import { addDays, daysBetween } from '../../core/time/daysBetween'
import { shownDay } from '../../core/time/shownDay'

/** Days that the bars of one water are drawn over, so that they can be held against each other. */
export interface BarSpan {
  from: string
  to: string
}

/** From the first day of any to the last that any of them may need. */
export function spanOf(bars: readonly HoldBar[]): BarSpan {
  const [from = '', to = ''] = [[...bars.map(({ from }) => from)].sort()[0], [...bars.flatMap(({ earliest, wish, today }) => [earliest, wish ?? today, today])].sort().at(-1)]
  return { from, to }
}

/** A hold as a bar over its days; what it says stands beside it in words. */
export function HoldBarPicture({ bar, span }: { bar: HoldBar; span: BarSpan }) {
  const days = Math.max(1, daysBetween(span.from, span.to))
  const at = (on: string): number => Math.min(100, Math.max(0, (daysBetween(span.from, on) / days) * 100))
  const between = (from: string, to: string) => ({ left: `${at(from)}%`, width: `${Math.max(0, at(to) - at(from))}%` })
  const isEndHeard = at(bar.earliest) < 60
  return (
    <span className="hold-picture" aria-hidden="true">
      <span className="hold-track" />
      {bar.restarts.filter(({ lost }) => lost > 0).map(({ on, lost }) => (
        <span key={`${on} ${lost}`} className="hold-lost" style={between(addDays(on, -lost) ?? on, on)} />
      ))}
      {bar.parts.map(({ phase, from, to, state }) => (
        <span key={phase} className={`hold-part is-${state}`} style={between(from, to)}>
          {state === 'now' && <span className="hold-served" style={{ width: `${daysBetween(from, to) > 0 ? Math.min(100, (Math.max(0, daysBetween(from, bar.today)) / daysBetween(from, to)) * 100) : 0}%` }} />}
          {bar.parts.length > 1 && <span className="hold-phase">{phase}</span>}
        </span>
      ))}
      {bar.restarts.map(({ on, cause }) => (
        <span key={`${on} ${cause}`} className="hold-again" style={{ left: `${at(on)}%` }} />
      ))}
      <span className="hold-today" style={{ left: `${at(bar.today)}%` }} />
      {bar.wish && <span className="hold-wish" style={{ left: `${at(bar.wish)}%` }} />}
      <span className={isEndHeard ? 'hold-date is-right' : 'hold-date'} style={isEndHeard ? { left: `${at(bar.earliest)}%` } : { right: `${100 - at(bar.earliest)}%` }}>
        {shownDay(bar.earliest)}
      </span>
    </span>
  )
}
