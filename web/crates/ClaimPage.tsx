import { useState } from 'react'
import { useParams } from 'react-router'
import { claimClock, claimStates, type ClaimLine, type ClaimSheet, type ClaimStanding, type ClaimState, type ClaimView } from '../../core/crates/claim'
import { addressOf } from '../../core/commands/declare'
import { evidenceApi } from '../../core/crates/crates.api'
import type { CrateView } from '../../core/crates/crateView'
import { ApiProblem, currentOf, errorsByField, sentenceOf } from '../api/ApiProblem'
import { nowMs } from '../api/clock'
import { Button, ButtonLink } from '../ui/Button'
import { ChoiceField, TextField } from '../ui/Field'
import { formatSpan, plural } from '../ui/format'
import { Lead } from '../ui/Lead'
import { Problem } from '../ui/Notice'
import { Nothing, Trouble, Waiting } from '../ui/PageState'
import { StaleChoice } from '../ui/StaleChoice'
import { Table } from '../ui/Table'
import { useFormat } from '../ui/useFormat'
import { readNumber } from '../ui/useUnits'
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
          <StandingForm key={claim.version} crateId={crateId} claim={claim} />
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

function StandingForm({ crateId, claim }: { crateId: string; claim: ClaimView }) {
  const { editClaim } = useCrateEdits(crateId)
  const [typed, setTyped] = useState({ state: claim.state, note: claim.note ?? '', amount: claim.settledAmount === null ? '' : String(claim.settledAmount) })
  const [errors, setErrors] = useState<Record<string, string>>({})
  const [problem, setProblem] = useState<string | null>(null)
  const [stale, setStale] = useState<ClaimStanding | null>(null)
  const save = async (version: number): Promise<void> => {
    setErrors({})
    setProblem(null)
    const settledAmount = typed.amount.trim() === '' ? null : readNumber(typed.amount)
    if (settledAmount !== null && !Number.isFinite(settledAmount)) return setErrors({ settledAmount: 'Amount settled must be a number' })
    await editClaim({ state: typed.state, note: typed.note.trim() || null, settledAmount, atMs: null, version }).catch((error: unknown) => {
      const named = errorsByField(error)
      if (error instanceof ApiProblem && error.code === 'stale') setStale(currentOf(error))
      else if (named) setErrors(named)
      else setProblem(sentenceOf(error))
    })
  }
  return (
    <form noValidate className="entry-form" onSubmit={(event) => (event.preventDefault(), void save(claim.version))}>
      {stale && (
        <StaleChoice
          one="claim"
          fields={[
            { label: 'state', mine: typed.state, theirs: stale.state },
            { label: 'note', mine: typed.note, theirs: stale.note ?? '' },
            { label: 'amount settled', mine: typed.amount, theirs: stale.settledAmount === null ? '' : String(stale.settledAmount) },
          ]}
          onMine={() => (setStale(null), void save(stale.version))}
          onTheirs={() => (setStale(null), setTyped({ state: stale.state, note: stale.note ?? '', amount: stale.settledAmount === null ? '' : String(stale.settledAmount) }))}
        />
      )}
      <div className="field-row">
        <ChoiceField label="Claim is" problem={errors.state} value={typed.state} onChange={(state) => setTyped({ ...typed, state: state as ClaimState })}>
          {claimStates.map((state) => (
            <option key={state}>{state}</option>
          ))}
        </ChoiceField>
        {typed.state === 'settled' && (
          <TextField label="Amount settled" problem={errors.settledAmount} inputMode="decimal" value={typed.amount} onChange={(amount) => setTyped({ ...typed, amount })} />
        )}
        <TextField label="Note to the supplier" problem={errors.note} className="is-wide" maxLength={500} value={typed.note} onChange={(note) => setTyped({ ...typed, note })} />
      </div>
      <Problem>{problem}</Problem>
      <Button type="submit" disabled={stale !== null}>
        Save the claim
      </Button>
    </form>
  )
}
