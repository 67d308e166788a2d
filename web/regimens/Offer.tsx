import { useState } from 'react'
import type { OfferView } from '../../core/regimens/regimenView'
import { amountWords, mgLWords } from '../../core/regimens/regimenWords'
import { markedUnits, showSet } from '../../core/units/units'
import { sentenceOf } from '../api/ApiProblem'
import { useSession } from '../api/session'
import { Button } from '../ui/Button'
import { TextField } from '../ui/Field'
import { InUnits } from '../ui/InUnits'
import { Notice, Problem } from '../ui/Notice'
import { useFormat } from '../ui/useFormat'
import { readNumber } from '../ui/useUnits'
import { Contents } from './Contents'
import { useDoseOffer, type DoseGiven, type RegimenWrites } from './useRegimens'

interface Props {
  offer: OfferView
  /** The ladder it is a step of. */
  regimenId: string | null
  writes: RegimenWrites
  onGiven: () => void
}

/** How much may go in now, or why nothing; what is said against it is ticked by whoever doses. */
export function Offer({ offer, regimenId, writes, onGiven }: Props) {
  const { recorder } = useSession()
  const [isOverriding, setOverriding] = useState(false)
  const [isSaying, setSaying] = useState(false)
  const overridden = useDoseOffer(isOverriding ? { code: offer.tankCode, productId: offer.product.id, regimenId, isLead: true } : null).offer
  const shown = isOverriding && overridden ? overridden : offer
  if (offer.contents === null || isSaying) return <Contents offer={offer} writes={writes} onSaid={() => setSaying(false)} />
  return (
    <section className="dose-offer" aria-label="Dose">
      <Answer offer={shown} />
      {shown.reasons.length > 0 && <p className="dose-against">{shown.product.name}:</p>}
      <Reasons offer={shown} />
      {shown.amount !== null && shown.amount > 0 && <Give key={`${shown.answer} ${shown.amount}`} offer={shown} needsReason={isOverriding} give={(given) => writes.dose(shown, regimenId, given)} onGiven={onGiven} />}
      {offer.answer === 'refuse' && offer.override === 'lead' && recorder.role === 'lead' && !isOverriding && (
        <Button size="hand" onClick={() => setOverriding(true)}>
          go on as a lead …
        </Button>
      )}
      <div className="entry-buttons">
        <Button look="quiet" onClick={() => setSaying(true)}>
          something else stands in the water
        </Button>
      </div>
      <GivenAlready offer={offer} give={(given) => writes.dose(offer, regimenId, given)} onGiven={onGiven} />
      <p className="dose-caution">
        {offer.caution}
        {offer.removal && ` Out of the water, besides changes: ${offer.removal}.`}
      </p>
    </section>
  )
}

/** The figure, or that there is none. */
function Answer({ offer: { answer, amount, product, riseMgL, volumeL, isCut, towardsMgL, override, overrideWords } }: { offer: OfferView }) {
  if (answer === 'refuse')
    return (
      <p className="dose-answer is-refused" role="status">
        <strong>Not into this water.</strong> {override === 'nobody' ? 'Nobody can override this.' : overrideWords}
      </p>
    )
  if (amount === null || product.unit === null) return null
  if (amount <= 0)
    return (
      <p className="dose-answer" role="status">
        <strong>Nothing more now.</strong> It stands where it is to be.
      </p>
    )
  return (
    <p className="dose-answer" role="status">
      <strong className="dose-amount">{amountWords(amount, product.unit)}</strong> of {product.name}: {mgLWords(riseMgL ?? 0)} more{towardsMgL === null || isCut ? '' : `, to ${mgLWords(towardsMgL)}`}
      {volumeL !== null && (
        <>
          , in <InUnits>{showSet('volume', volumeL, markedUnits)}</InUnits> of water
        </>
      )}
      .{isCut && ' Cut to stay under its limit: give this, read, then the rest.'}
    </p>
  )
}

const levels = { X: 'harm', R: 'harm', W: 'watch' } as const
function Reasons({ offer: { reasons, product, binderUntilMs, override } }: { offer: OfferView }) {
  const format = useFormat()
  if (reasons.length === 0) return null
  return (
    <ul className="dose-reasons" aria-label={`What is said against ${product.name}`}>
      {reasons.map(({ code, answer, words }) => (
        <li key={code} className={`is-${levels[answer]}`}>
          {words}
          {code === 'binder' && binderUntilMs !== null && `; wait until ${format.moment(binderUntilMs)}`}
          {answer !== 'W' && <small>{override === 'lead' ? 'refused; a lead may override' : 'refused'}</small>}
        </li>
      ))}
    </ul>
  )
}

/** Whoever doses ticks what is said, and a lead says why. */
function Give({ offer, needsReason, give, onGiven }: { offer: OfferView; needsReason: boolean; give: (given: DoseGiven) => Promise<unknown>; onGiven: () => void }) {
  const said = offer.reasons.filter(({ answer }) => answer === 'W').map(({ code }) => code)
  const [isTicked, setTicked] = useState(false)
  const [reason, setReason] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const isReady = (said.length === 0 || isTicked) && (!needsReason || reason.trim() !== '')
  const amount = offer.amount ?? 0
  return (
    <>
      {said.length > 0 && (
        <Button size="hand" aria-pressed={isTicked} onClick={() => setTicked(!isTicked)}>
          {isTicked ? '✓ ' : ''}I have read what is said and dose all the same
        </Button>
      )}
      {needsReason && <TextField label="why a lead goes on" size="hand" maxLength={500} value={reason} onChange={setReason} />}
      <Button size="hand" look="act" disabled={!isReady} onClick={() => void give({ amount, ticked: said, reason: needsReason ? reason : null, isDone: false }).then(onGiven, (error: unknown) => setProblem(sentenceOf(error)))}>
        <strong>{amountWords(amount, offer.product.unit ?? 'mL')} is in</strong>
      </Button>
      <Problem>{problem}</Problem>
    </>
  )
}

/** What is in the water already is written down, whatever is said of it. */
function GivenAlready({ offer: { product }, give, onGiven }: { offer: OfferView; give: (given: DoseGiven) => Promise<unknown>; onGiven: () => void }) {
  const [typed, setTyped] = useState('')
  const [reason, setReason] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  if (product.unit === null) return null
  const save = (): void => {
    const amount = readNumber(typed)
    if (!Number.isFinite(amount) || amount <= 0) return setProblem(`Say how many ${product.unit ?? ''} went in`)
    void give({ amount, ticked: [], reason: reason.trim() || null, isDone: true }).then(onGiven, (error: unknown) => setProblem(sentenceOf(error)))
  }
  return (
    <details className="folded">
      <summary>Another amount went in already</summary>
      <Notice level="watch">This only writes down what happened. Read soon; a change of water takes it out.</Notice>
      <div className="field-row">
        <TextField label="went in" unit={product.unit} size="hand" inputMode="decimal" value={typed} onChange={setTyped} />
        <TextField label="how that came" isOptional size="hand" maxLength={500} value={reason} onChange={setReason} />
      </div>
      <Button size="hand" onClick={save}>
        write it down
      </Button>
      <Problem>{problem}</Problem>
    </details>
  )
}
