import { useState } from 'react'
import { bodyStates } from '../../core/holds/holds.schema'
import type { HeldGroupView } from '../../core/holds/holdsView'
import { endEarlyWords } from '../../core/holds/holdWords'
import { shownDay } from '../../core/time/shownDay'
import { sentenceOf } from '../api/ApiProblem'
import { useHoldPolicies } from '../api/sharedReads'
import { useSession } from '../api/session'
import { Button, ButtonLink } from '../ui/Button'
import { ChoiceField, TextField } from '../ui/Field'
import { Problem } from '../ui/Notice'
import { Sheet } from '../ui/Sheet'
import { moveOf } from './moveOf'
import type { HoldWrites } from './useHolds'

type Saying = 'end' | 'longer' | 'other' | null

/** What one group's hold is, why, and what may be done about it. */
export function HoldSheet({ group, writes, onClose }: { group: HeldGroupView; writes: HoldWrites; onClose: () => void }) {
  const { recorder } = useSession()
  const [saying, setSaying] = useState<Saying>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const attempt = (write: Promise<unknown>): void => void write.then(onClose, (error: unknown) => setProblem(sentenceOf(error)))
  const { species, lotCode, placeName, words, exposed, restarts, isReady, waitsFor, release, isTank, policyName } = group
  const isLead = recorder.role === 'lead'
  return (
    <Sheet title={`${species} ${lotCode}, ${placeName}`} isOpen onClose={onClose}>
      <p>
        <strong>{words}</strong> {exposed}
      </p>
      <p className="aside-word">{policyName}, since {shownDay(group.bar.from)}.</p>
      {restarts.length > 0 && (
        <ul className="hold-restarts">
          {restarts.map((sentence) => (
            <li key={sentence}>{sentence}</li>
          ))}
        </ul>
      )}
      {release.raise.length > 0 && <Raise steps={release.raise} />}
      {waitsFor.includes('fillingOut') && isTank && (
        <div className="entry-buttons" role="group" aria-label="Their body">
          {bodyStates.map((state) => (
            <Button key={state} size="hand" onClick={() => attempt(writes.body(group, state))}>
              {state}
            </Button>
          ))}
        </div>
      )}
      <div className="entry-buttons">
        {isReady && (
          <Button size="hand" look="act" onClick={() => attempt(writes.end([group], null))}>
            <strong>release them</strong>
          </Button>
        )}
        {isTank && (
          <ButtonLink size="hand" to={moveOf(group)}>
            move them …
          </ButtonLink>
        )}
        {isReady && isTank && (
          <ButtonLink size="hand" to={`/room/${placeName}/card`}>
            take-along card
          </ButtonLink>
        )}
        {!isReady && isLead && (
          <Button size="hand" aria-pressed={saying === 'end'} onClick={() => setSaying(saying === 'end' ? null : 'end')}>
            end it early …
          </Button>
        )}
        <Button size="hand" aria-pressed={saying === 'longer'} onClick={() => setSaying(saying === 'longer' ? null : 'longer')}>
          longer …
        </Button>
        {isLead && (
          <Button size="hand" aria-pressed={saying === 'other'} onClick={() => setSaying(saying === 'other' ? null : 'other')}>
            another policy …
          </Button>
        )}
      </div>
      {saying === 'end' && <Early question={endEarlyWords(release.shortfall)} onEnd={(reason) => attempt(writes.end([group], reason))} />}
      {saying === 'longer' && <Longer onLonger={(days, reason) => attempt(writes.lengthen(group, days, reason))} />}
      {saying === 'other' && <Other group={group} onChange={(policyId, reason) => attempt(writes.change(group, policyId, reason))} />}
      <Problem>{problem}</Problem>
    </Sheet>
  )
}

/** Steps of salinity up to the house’s, by day. */
const Raise = ({ steps }: { steps: HeldGroupView['release']['raise'] }) => (
  <p>
    Salinity to the house’s first:{' '}
    {steps.map(({ on, from, to }) => `${shownDay(on)} ${round(from)} to ${round(to)} ppt`).join(', ')}.
  </p>
)
const round = (ppt: number): string => String(Math.round(ppt * 10) / 10)

function Early({ question, onEnd }: { question: string; onEnd: (reason: string) => void }) {
  const [reason, setReason] = useState('')
  return (
    <>
      <TextField label={question} size="hand" maxLength={500} value={reason} onChange={setReason} />
      <Button size="hand" onClick={() => onEnd(reason)}>
        end the hold early
      </Button>
    </>
  )
}

function Longer({ onLonger }: { onLonger: (days: number, reason: string) => void }) {
  const [reason, setReason] = useState('')
  return (
    <>
      <TextField label="why longer" size="hand" maxLength={500} value={reason} onChange={setReason} />
      <div className="entry-buttons" role="group" aria-label="How much longer">
        {[3, 7, 14].map((days) => (
          <Button key={days} size="hand" onClick={() => onLonger(days, reason)}>
            {days} days
          </Button>
        ))}
      </div>
    </>
  )
}

function Other({ group, onChange }: { group: HeldGroupView; onChange: (policyId: string, reason: string) => void }) {
  const { policies } = useHoldPolicies()
  const [policyId, setPolicy] = useState('')
  const [reason, setReason] = useState('')
  const offered = (policies?.policies ?? []).filter(({ policy, isRetired }) => !isRetired && policy.id !== group.policyId)
  return (
    <>
      <ChoiceField label="Policy from now on" size="hand" value={policyId} onChange={setPolicy}>
        <option value="">which policy</option>
        {offered.map(({ policy }) => (
          <option key={policy.id} value={policy.id}>
            {policy.name}
          </option>
        ))}
      </ChoiceField>
      <p className="aside-word">{offered.find(({ policy }) => policy.id === policyId)?.words}</p>
      <TextField label="why" size="hand" maxLength={500} value={reason} onChange={setReason} />
      <Button size="hand" onClick={() => onChange(policyId, reason)}>
        begin it today
      </Button>
    </>
  )
}
