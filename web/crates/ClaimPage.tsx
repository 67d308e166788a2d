import { Form } from 'react-bootstrap'
import { useWatch } from 'react-hook-form'
import { useParams } from 'react-router'
import { claimClock, claimStates, type ClaimLine, type ClaimSheet, type ClaimStanding, type ClaimView } from '../../core/crates/claim'
import { addressOf } from '../../core/commands/declare'
import { evidenceApi } from '../../core/crates/crates.api'
import type { CrateView } from '../../core/crates/crateView'
import { nowMs } from '../api/clock'
import { Button, ButtonLink } from '../ui/Button'
import { FormField, FormProblem } from '../ui/FormField'
import { formatSpan, plural } from '../ui/format'
import { Lead } from '../ui/Lead'
import { Nothing, Trouble, Waiting } from '../ui/PageState'
import { readingResolver, type Reading } from '../ui/readingResolver'
import { StaleChoice } from '../ui/StaleChoice'
import { Table } from '../ui/Table'
import { useFormat } from '../ui/useFormat'
import { readNumber } from '../ui/useUnits'
import { useVersionedForm } from '../ui/useVersionedForm'
import { CrateTabs } from './CrateTabs'
import { useClaim, useCrate, useCrateEdits } from './useCrates'
import './crates.css'

/** What a supplier is asked to make good: gathered from the bags, sent as a file, followed until it is settled. */
export function ClaimPage() {
  const { crateId = '' } = useParams()
  const { crate } = useCrate(crateId)
  const { data: claim, problem } = useClaim(crateId)
  if (!crate || !claim) return problem ? <Trouble problem={problem} back={{ to: '/crates', label: 'All crates' }} /> : <Waiting what="the claim" />
  return (
    <>
      <Lead nav={<CrateTabs crateId={crateId} />} title={`Claim for crate ${crate.number}`} aside={crate.supplier}>
        <WhatToDo crate={crate} claim={claim} />
      </Lead>
      {claim.rules && <p className="crate-note">Agreed with {crate.supplier}: {claim.rules}</p>}
      {claim.sheet.lines.length === 0 ? (
        <Nothing>Nothing to claim: what was opened holds what the list says, alive.</Nothing>
      ) : (
        <>
          <Sheet sheet={claim.sheet} />
          <p className="crate-links">
            <ButtonLink href={addressOf(evidenceApi.readClaimPdf, { crateId })}>
              Sheet as PDF
            </ButtonLink>
            <ButtonLink href={addressOf(evidenceApi.readClaimCsv, { crateId })}>
              Sheet as CSV
            </ButtonLink>
          </p>
          <StandingForm crateId={crateId} claim={claim} />
        </>
      )}
    </>
  )
}

function WhatToDo({ crate, claim }: { crate: CrateView; claim: ClaimView }) {
  const format = useFormat()
  const clock = claimClock(crate.arrivedAtMs, crate.claimWindowHours, nowMs())
  if (claim.state === 'settled') return <>Settled{claim.settledAtMs ? ` ${format.moment(claim.settledAtMs)}` : ''} with {claim.settledAmount?.toFixed(2)}.</>
  if (claim.state === 'sent') return <>Sent{claim.sentAtMs ? ` ${format.moment(claim.sentAtMs)}` : ''}. Note the amount here once the supplier answers.</>
  if (claim.sheet.lines.length === 0) return <>Nothing to claim so far.</>
  if (!clock) return <>No claim time is agreed with this supplier; see Setup, Suppliers.</>
  return clock.leftMs > 0 ? <>Send it within {formatSpan(clock.leftMs)}: the window shuts {format.moment(clock.endsAtMs)}.</> : <>The window shut {format.moment(clock.endsAtMs)}. Ask all the same.</>
}

function Sheet({ sheet }: { sheet: ClaimSheet }) {
  return (
    <>
      <Table responsive className="line-table claim-table">
        <thead>
          <tr>
            <th scope="col">species</th>
            <th scope="col" className="number">dead</th>
            <th scope="col" className="number">missing</th>
            <th scope="col" className="number">price each</th>
            <th scope="col" className="number">amount</th>
            <th scope="col">evidence</th>
          </tr>
        </thead>
        <tbody>
          {sheet.lines.map((line) => (
            <tr key={line.lineId}>
              <th scope="row">
                {line.species} <small className="aside-word">{line.lotCode}</small>
              </th>
              <td className="number" data-label="dead">{line.dead || ''}</td>
              <td className="number" data-label="missing">{line.missing || ''}</td>
              <td className="number" data-label="price each">{line.priceEach?.toFixed(2) ?? 'not known'}</td>
              <td className="number" data-label="amount">{line.amount?.toFixed(2) ?? ''}</td>
              <td>{evidenceOf(line)}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      <p className="totals">
        <strong>{sheet.dead}</strong> dead · <strong>{sheet.missing}</strong> missing{sheet.wrong > 0 && <> · <strong>{sheet.wrong}</strong> of another species</>} · <strong>{sheet.amount.toFixed(2)}</strong>
        {sheet.unpriced > 0 && ` and ${plural(sheet.unpriced, 'line')} without a price`}
      </p>
    </>
  )
}

const evidenceOf = ({ bags }: ClaimLine): string => {
  const [photos, readings] = [bags.reduce((sum, bag) => sum + bag.photoIds.length, 0), bags.reduce((sum, bag) => sum + bag.readings.length, 0)]
  return `${bags.length === 1 ? 'bag' : 'bags'} ${bags.map(({ number }) => number).join(', ')}${photos > 0 ? `, ${plural(photos, 'picture')}` : ', no picture'}${readings > 0 ? `, ${plural(readings, 'reading')}` : ''}`
}

type Standing = Pick<ClaimStanding, 'state' | 'note' | 'settledAmount'>
type TypedStanding = Pick<Standing, 'state'> & Record<'note' | 'settledAmount', string>

const typedOf = ({ state, note, settledAmount }: Standing): TypedStanding => ({ state, note: note ?? '', settledAmount: settledAmount === null ? '' : String(settledAmount) })

function readStanding({ state, note, settledAmount: typed }: TypedStanding): Reading<Standing> {
  const settledAmount = typed.trim() === '' ? null : readNumber(typed)
  if (settledAmount !== null && !Number.isFinite(settledAmount)) return { ok: false, errors: { settledAmount: 'Amount settled must be a number' } }
  return { ok: true, values: { state, note: note.trim() || null, settledAmount } }
}

function StandingForm({ crateId, claim }: { crateId: string; claim: ClaimView }) {
  const { editClaim } = useCrateEdits(crateId)
  const { form, submit, stale, isBusy } = useVersionedForm<ClaimStanding, TypedStanding, Standing>({
    row: claim,
    toFields: typedOf,
    resolver: () => readingResolver(readStanding),
    write: (body, version) => editClaim({ ...body, atMs: null, version }),
  })
  const [mine, isSettled] = [form.getValues(), useWatch({ control: form.control, name: 'state' }) === 'settled']
  return (
    <Form noValidate className="entry-form" onSubmit={(event) => (event.preventDefault(), void submit())}>
      {stale && (
        <StaleChoice
          one="claim"
          fields={[
            { label: 'state', mine: mine.state, theirs: stale.theirs.state },
            { label: 'note', mine: mine.note, theirs: stale.theirs.note ?? '' },
            { label: 'amount settled', mine: mine.settledAmount, theirs: typedOf(stale.theirs).settledAmount },
          ]}
          onMine={stale.onMine}
          onTheirs={stale.onTheirs}
        />
      )}
      <div className="field-row">
        <FormField form={form} name="state" label="Claim is" options={claimStates} />
        {isSettled && <FormField form={form} name="settledAmount" label="Amount settled" inputMode="decimal" autoComplete="off" />}
        <FormField form={form} name="note" label="Note to the supplier" className="is-wide" maxLength={500} autoComplete="off" />
      </div>
      <FormProblem form={form} />
      <Button type="submit" disabled={isBusy}>
        Save the claim
      </Button>
    </Form>
  )
}
