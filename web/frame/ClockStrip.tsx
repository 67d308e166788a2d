import { Link } from 'react-router'
import { alarmsOf } from '../../core/bench/alarms'
import type { RunView } from '../../core/bench/benchView'
import { followRun } from '../../core/bench/followRun'
import { eachApart } from '../../core/collections/eachApart'
import { summaryStage } from '../../core/crates/crateView'
import { lowerFirst } from '../../core/words/lowerFirst'
import { nowMs } from '../api/clock'
import { useBenchView, useCrateSummaries, useLimits } from '../api/sharedReads'
import { formatSpan, formatTimer } from '../ui/format'
import { useTick } from '../ui/useTick'

interface Clock {
  key: string
  to: string
  figure: string
  words: string
  /** Smaller is more urgent. */
  rank: number
}

/** Clocks that run: the steps of the bench, and how long the fish of unfinished crates have been packed. */
export function ClockStrip() {
  const { crates } = useCrateSummaries({ refreshInterval: 60_000 })
  const { bench } = useBenchView({ refreshInterval: 15_000 })
  const limits = useLimits()
  useTick(5000)
  const atMs = nowMs()
  const clockOf = (run: RunView): Clock => {
    const now = followRun(run, limits, atMs)
    const isCalling = alarmsOf(run, now, limits, atMs).some(({ level }) => level === 'act')
    const left = now.dueAtMs === null || !Number.isFinite(now.dueAtMs) ? null : now.dueAtMs - atMs
    return { key: run.id, to: `/bench/runs/${run.id}`, figure: left === null ? 'now' : Math.abs(left) < 600_000 ? formatTimer(left) : formatSpan(left), words: `${run.sources[0]?.species ?? ''}: ${lowerFirst(now.step?.title ?? 'done')}`, rank: isCalling ? -1e12 : (left ?? 0) }
  }
  const live = (bench?.runs ?? []).filter(({ endedAtMs, outAtMs }) => endedAtMs === null && outAtMs === null)
  const runs = eachApart(live, clockOf, (run) => ({ key: run.id, to: `/bench/runs/${run.id}`, figure: '?', words: `run ${run.number} cannot be reckoned`, rank: -1e12 }))
  const packed = (crates ?? [])
    .filter((crate) => ['opening', 'placing'].includes(summaryStage(crate)) && crate.packedAtMs !== null)
    .map((crate): Clock => ({ key: crate.id, to: `/crates/${crate.id}`, figure: formatSpan(atMs - (crate.packedAtMs ?? 0)), words: `crate ${crate.number} since packing`, rank: 1e12 + (crate.packedAtMs ?? 0) }))
  const running = [...runs, ...packed].sort((a, b) => a.rank - b.rank)
  if (running.length === 0) return null
  return (
    <aside className="clock-strip" aria-label="Running clocks">
      {running.map(({ key, to, figure, words }, index) => (
        <Link key={key} to={to} className={index === 0 ? 'is-first' : undefined}>
          <strong>{figure}</strong> {words}
        </Link>
      ))}
    </aside>
  )
}
