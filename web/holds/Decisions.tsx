import { useState } from 'react'
import type { ToDecide } from '../../core/holds/holdsView'
import { sentenceOf } from '../api/ApiProblem'
import { useSession } from '../api/session'
import { Button } from '../ui/Button'
import { TextField } from '../ui/Field'
import { plural } from '../ui/format'
import { Problem } from '../ui/Notice'
import { RowSection } from '../ui/Rows'
import { useFormat } from '../ui/useFormat'
import type { HoldWrites } from './useHolds'

/** What holds wait for somebody's word about; what was seen last comes first, and only the first has the orange action. */
export const Decisions = ({ decisions, writes }: { decisions: readonly ToDecide[]; writes: HoldWrites }) => (
  <RowSection title="To decide" count={decisions.length}>
    {decisions.map((each, index) => (
      <DecideRow key={each.id} each={each} isFirst={index === 0} writes={writes} />
    ))}
  </RowSection>
)

function DecideRow({ each, isFirst, writes }: { each: ToDecide; isFirst: boolean; writes: HoldWrites }) {
  const { recorder } = useSession()
  const format = useFormat()
  const [isSaying, setSaying] = useState(false)
  const [note, setNote] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const [isBusy, setBusy] = useState(false)
  const { contactId, word, tankCode, count, firstMs, lastMs, ifItCounts } = each
  const decide = (as: 'confirmed' | 'dismissed'): void => {
    setBusy(true)
    void writes.decide(each, as, as === 'dismissed' ? note : null).catch((error: unknown) => setProblem(sentenceOf(error))).finally(() => setBusy(false))
  }
  const what = contactId === null ? `${word}, ${tankCode}` : word
  return (
    <li className="record hold-decide">
      <p>
        <strong>{what}</strong> {count > 1 ? `${count} times from ${format.moment(firstMs)} to ${format.moment(lastMs)}` : format.moment(lastMs)}
      </p>
      {ifItCounts.length > 0 && (
        <ul className="hold-consequences">
          {ifItCounts.map((sentence) => (
            <li key={sentence}>{sentence}</li>
          ))}
        </ul>
      )}
      <div className="entry-buttons" role="group" aria-label={what}>
        <Button size="hand" look={isFirst && !isSaying ? 'act' : 'plain'} disabled={isBusy} onClick={() => decide('confirmed')}>
          <strong>{contactId === null ? 'it is one: begin again' : 'it counts: begin again'}</strong>
        </Button>
        {recorder.role === 'lead' && (
          <Button size="hand" aria-pressed={isSaying} onClick={() => setSaying(!isSaying)}>
            {contactId === null ? 'it is none …' : 'nothing came across …'}
          </Button>
        )}
      </div>
      {isSaying && (
        <div className="hold-why">
          <TextField label={contactId === null ? 'why it is none' : 'why nothing came across'} size="hand" maxLength={500} value={note} onChange={setNote} />
          <Button size="hand" disabled={isBusy} onClick={() => decide('dismissed')}>
            {contactId === null ? 'it is none' : 'nothing came across'}
          </Button>
        </div>
      )}
      {recorder.role !== 'lead' && <small>That it is none is a lead’s word. {plural(count, 'entry', 'entries')} wait until then, and the hold with {count === 1 ? 'it' : 'them'}.</small>}
      <Problem>{problem}</Problem>
    </li>
  )
}
