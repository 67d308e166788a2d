import { Form } from 'react-bootstrap'
import { useForm } from 'react-hook-form'
import { Link } from 'react-router'
import { claimClock } from '../../core/crates/claim'
import type { BagTotals, CrateView } from '../../core/crates/crateView'
import { crateStage } from '../../core/crates/crateSummary'
import { nowMs } from '../api/clock'
import { useSession } from '../api/session'
import { Button } from '../ui/Button'
import { FormField, FormProblem } from '../ui/FormField'
import { formatSpan, plural } from '../ui/format'
import { submitInto } from '../ui/submitInto'
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
  const form = useForm({ defaultValues: { because: '' } })
  const stage = crateStage(totals, crate.closedAtMs)
  const close = form.handleSubmit(({ because }) => submitInto(form, () => closeCrate({ because: because.trim() || null, version: crate.version })))
  if (stage === 'due') return null
  if (stage === 'closed') {
    return recorder.role === 'lead' ? (
      <>
        <p>
          <Button look="quiet" onClick={() => void submitInto(form, () => reopenCrate(crate.version))}>
            open this crate again
          </Button>
        </p>
        <FormProblem form={form} />
      </>
    ) : null
  }
  return (
    <details className="close-crate" open={stage === 'done'}>
      <summary>Close this crate</summary>
      <p className="aside-word">
        {totals.listed} {crate.hasList ? 'listed' : 'counted'}, {totals.alive} alive, {totals.dead} dead, {totals.short} short, {totals.extra} extra, {totals.placed} placed, {totals.inBags} still in bags.
      </p>
      <Form noValidate onSubmit={(event) => void close(event)}>
        {stage !== 'done' && <FormField form={form} name="because" label="why now" size="hand" maxLength={500} placeholder="needed while fish are in bags or bags are shut" autoComplete="off" />}
        <FormProblem form={form} />
        <Button type="submit">Close the crate</Button>
      </Form>
    </details>
  )
}
