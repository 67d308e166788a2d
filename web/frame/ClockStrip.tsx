import { useEffect, useState } from 'react'
import { Link } from 'react-router'
import { summaryStage } from '../../core/crates/crateView'
import { nowMs } from '../api/clock'
import { useCrateSummaries } from '../api/sharedReads'
import { formatSpan } from '../ui/format'

/** Clocks that run for fish in bags: how long each unfinished crate has been packed, longest first. */
export function ClockStrip() {
  const { crates } = useCrateSummaries({ refreshInterval: 60_000 })
  useTick(30_000)
  const running = (crates ?? [])
    .filter((crate) => ['opening', 'placing'].includes(summaryStage(crate)))
    .filter((crate) => crate.packedAtMs !== null)
    .sort((a, b) => (a.packedAtMs ?? 0) - (b.packedAtMs ?? 0))
  if (running.length === 0) return null
  return (
    <aside className="clock-strip" aria-label="Running clocks">
      {running.map((crate, index) => (
        <Link key={crate.id} to={`/crates/${crate.id}`} className={index === 0 ? 'is-first' : undefined}>
          <strong>{formatSpan(nowMs() - (crate.packedAtMs ?? 0))}</strong> crate {crate.number} since packing
        </Link>
      ))}
    </aside>
  )
}

/** Draws again every so often, because a clock is on screen. */
function useTick(everyMs: number): void {
  const [, setTicks] = useState(0)
  useEffect(() => {
    const timer = setInterval(() => setTicks((ticks) => ticks + 1), everyMs)
    return () => clearInterval(timer)
  }, [everyMs])
}
