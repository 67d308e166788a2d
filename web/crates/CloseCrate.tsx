import { useState } from 'react'
import { Link } from 'react-router'
import { claimClock } from '../../core/crates/claim'
import { crateStage, type BagTotals, type CrateView } from '../../core/crates/crateView'
import { errorsByField, sentenceOf } from '../api/ApiProblem'
import { nowMs } from '../api/clock'
import { useSession } from '../api/session'
import { formatSpan, plural } from '../ui/format'
import { useCrateEdits } from './useCrates'

/** How long losses of this crate can still be claimed, once there are any. */
export function ClaimClockLine({ crate, totals }: { crate: CrateView; totals: BagTotals }) {
  const clock = claimClock(crate.arrivedAtMs, crate.claimWindowHours, nowMs())
  const lost = totals.dead + Math.max(0, totals.short - totals.extra)
  if (lost === 0 || crate.claimState === 'settled') return null
  if (crate.claimState === 'sent') return <p className="claim-clock">The claim for {lost} fish is sent.</p>
  const left = clock === null ? 'No claim time is agreed with this supplier.' : clock.leftMs > 0 ? `${formatSpan(clock.leftMs)} left to claim.` : `The time to claim ended ${formatSpan(-clock.leftMs)} ago.`
  return (
    <p className="claim-clock is-watch">
      {plural(totals.dead, 'fish', 'fish')} dead{totals.short > totals.extra ? `, ${totals.short - totals.extra} missing` : ''}. {left} <Link to={`/crates/${crate.id}/claim`}>Claim sheet</Link>
    </p>
  )
}

/** Closing: at once when every fish is out of its bag, else with a reason. */
export function CloseCrate({ crate, totals }: { crate: CrateView; totals: BagTotals }) {
  const { recorder } = useSession()
  const { closeCrate, reopenCrate } = useCrateEdits(crate.id)
  const [because, setBecause] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const stage = crateStage(totals, crate.closedAtMs)
  const attempt = async (work: () => Promise<unknown>): Promise<void> => {
    setProblem(null)
    await work().catch((error: unknown) => setProblem(errorsByField(error)?.because ?? sentenceOf(error)))
  }
  if (stage === 'due') return null
  if (stage === 'closed') {
    return recorder.role === 'lead' ? (
      <p>
        <button type="button" className="quiet-button" onClick={() => void attempt(() => reopenCrate(crate.version))}>
          open this crate again
        </button>
        {problem}
      </p>
    ) : null
  }
  return (
    <details className="close-crate" open={stage === 'done'}>
      <summary>Close this crate</summary>
      <p className="aside-word">
        {totals.listed} {crate.hasList ? 'listed' : 'counted'}, {totals.alive} alive, {totals.dead} dead, {totals.short} short, {totals.extra} extra, {totals.placed} placed, {totals.inBags} still in bags.
      </p>
      {stage !== 'done' && (
        <label className="note-line">
          why now
          <input value={because} maxLength={500} placeholder="needed while fish are in bags or bags are shut" onChange={(event) => setBecause(event.currentTarget.value)} />
        </label>
      )}
      {problem && (
        <p className="form-problem" role="alert">
          {problem}
        </p>
      )}
      <button type="button" className="button" onClick={() => void attempt(() => closeCrate({ because: because.trim() || null, version: crate.version }))}>
        Close the crate
      </button>
    </details>
  )
}
