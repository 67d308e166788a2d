import { Link } from 'react-router'
import type { DueItem } from '../../core/due/due'
import { lowerFirst } from '../../core/words/lowerFirst'
import { nowMs } from '../api/clock'
import { formatSpan, formatTimer } from '../ui/format'
import { InUnits } from '../ui/InUnits'
import { useTick } from '../ui/useTick'
import { useDue } from '../api/useDue'

/** How long a clock is told to the second. */
const toTheSecondMs = 600_000

/** Clocks that run: the steps of the bench, fish in buckets and boxes, newcomers, and how long the fish of unfinished crates have been packed. */
export function ClockStrip() {
  const { items } = useDue()
  useTick(5000)
  const of = (asked: DueItem['kind']): DueItem[] => (items ?? []).filter(({ kind }) => kind === asked)
  const packed = of('crate').filter(({ urgency, sinceMs }) => urgency === 'now' && sinceMs !== null)
  // A box for days, and a look tomorrow, are no clocks yet.
  const clocks = (items ?? []).filter(({ kind, urgency, byMs }) => kind === 'run step' || (kind === 'hold' && byMs !== null && urgency !== 'later') || ((kind === 'vessel' || kind === 'introduction') && urgency !== 'later'))
  const running = [...clocks, ...packed.sort((a, b) => (a.sinceMs ?? 0) - (b.sinceMs ?? 0))]
  if (running.length === 0) return null
  return (
    <aside className="clock-strip" aria-label="Running clocks">
      {running.map((item, index) => (
        <Link key={item.id} to={item.to} className={index === 0 ? 'is-first' : undefined}>
          <strong>{figureOf(item)}</strong> <InUnits>{wordsOf(item)}</InUnits>
        </Link>
      ))}
    </aside>
  )
}

/** What is left of a step; how long fish have been packed. */
function figureOf({ kind, byMs, sinceMs }: DueItem): string {
  if (kind === 'crate') return formatSpan(nowMs() - (sinceMs ?? nowMs()))
  if (byMs === null) return 'now'
  const leftMs = byMs - nowMs()
  return Math.abs(leftMs) < toTheSecondMs ? formatTimer(leftMs) : formatSpan(leftMs)
}

const wordsOf = ({ kind, what, about }: DueItem): string => (kind === 'crate' ? `${what}, since packing` : `${about}: ${lowerFirst(what)}`)
