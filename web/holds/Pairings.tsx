import { useState } from 'react'
import { shippedPairing } from '../../core/holds/shippedHolds'
import type { Pairable, PairingView } from '../../core/holds/holdsView'
import { sentenceOf } from '../api/ApiProblem'
import { useSession } from '../api/session'
import { Button, ButtonLink } from '../ui/Button'
import { ChoiceField, TextField } from '../ui/Field'
import { Problem } from '../ui/Notice'
import { RowSection } from '../ui/Rows'
import { useFormat } from '../ui/useFormat'
import type { HoldWrites } from './useHolds'

/** A few fish of two groups together: what that proves so far, and how one is begun. */
export const Pairings = ({ pairings, pairable, writes }: { pairings: readonly PairingView[]; pairable: readonly Pairable[]; writes: HoldWrites }) => (
  <>
    <RowSection title="Pairings" count={pairings.length}>
      {pairings.map((pairing) => (
        <PairingRow key={pairing.id} pairing={pairing} writes={writes} />
      ))}
    </RowSection>
    {pairable.length > 0 && <StartPairing pairable={pairable} writes={writes} />}
  </>
)

const stateWords: Readonly<Record<PairingView['state'], string>> = { running: 'runs', passed: 'passed', failed: 'failed', 'given up': 'given up' }

function PairingRow({ pairing, writes }: { pairing: PairingView; writes: HoldWrites }) {
  const format = useFormat()
  const { recorder } = useSession()
  const [isEnding, setEnding] = useState(false)
  const [reason, setReason] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const { lots, fish, state, tankCode, words, looks, startedAtMs } = pairing
  const [a, b] = fish
  const next = looks.find(({ isMade, isMissed }) => !isMade && !isMissed)
  return (
    <li className="record hold-decide">
      <p>
        <strong>
          {tankCode}: {a?.paired} {lots[0]} with {b?.paired} {lots[1]}
        </strong>{' '}
        {stateWords[state]}, since {format.moment(startedAtMs)}
        {pairing.reason ? `: ${pairing.reason}` : ''}
      </p>
      <p>{words}</p>
      <ol className="pairing-looks" aria-label="Looks">
        {looks.map(({ h, isMade, isMissed }) => (
          <li key={h} className={isMade ? 'is-made' : isMissed ? 'is-missed' : ''}>
            {h} h {isMade ? 'looked' : isMissed ? 'missed' : 'to come'}
          </li>
        ))}
      </ol>
      {state === 'running' && next && <p className="aside-word">Next look about {format.moment(next.dueAtMs)}. Until it is passed no move puts the two groups on one water.</p>}
      <div className="entry-buttons">
        <ButtonLink size="hand" to={`/rounds?tank=${tankCode}`}>
          look at {tankCode}
        </ButtonLink>
        {state !== 'given up' && recorder.role === 'lead' && (
          <Button size="hand" aria-pressed={isEnding} onClick={() => setEnding(!isEnding)}>
            give it up …
          </Button>
        )}
      </div>
      {isEnding && (
        <div className="hold-why">
          <TextField label="why it is given up" size="hand" maxLength={500} value={reason} onChange={setReason} />
          <Button size="hand" onClick={() => void writes.endPairing(pairing.id, reason).catch((error: unknown) => setProblem(sentenceOf(error)))}>
            give it up: nothing keeps them apart then
          </Button>
        </div>
      )}
      <Problem>{problem}</Problem>
    </li>
  )
}

function StartPairing({ pairable, writes }: { pairable: readonly Pairable[]; writes: HoldWrites }) {
  const [tankId, setTank] = useState(pairable[0]?.tankId ?? '')
  const [chosen, setChosen] = useState<readonly [string, string] | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const tank = pairable.find((each) => each.tankId === tankId) ?? pairable[0]
  if (!tank) return null
  const [first, second] = tank.lots
  const [lotA, lotB] = chosen ?? [first?.lotId ?? '', second?.lotId ?? '']
  const choice = (label: string, value: string, onChange: (lotId: string) => void) => (
    <ChoiceField label={label} size="hand" value={value} onChange={onChange}>
      {tank.lots.map(({ lotId, name, fish }) => (
        <option key={lotId} value={lotId}>
          {fish} {name}
        </option>
      ))}
    </ChoiceField>
  )
  const start = (): void => void writes.startPairing(tank.tankId, lotA, lotB, shippedPairing.looksH).then(() => setProblem(null), (error: unknown) => setProblem(sentenceOf(error)))
  return (
    <details className="hold-lately">
      <summary>Begin a pairing</summary>
      <p className="aside-word">A few healthy fish of both groups, in a bare tank apart with tools of its own, looked at after 1, 2, 3, 5 and 7 days. One of each is a bet with two fish at risk instead of all; more fish count for more than more days.</p>
      <div className="field-row">
        <ChoiceField label="They stand together in" size="hand" value={tank.tankId} onChange={(id) => (setTank(id), setChosen(null))}>
          {pairable.map((each) => (
            <option key={each.tankId} value={each.tankId}>
              {each.tankCode}
            </option>
          ))}
        </ChoiceField>
        {choice('First group', lotA, (lotId) => setChosen([lotId, lotB]))}
        {choice('Second group', lotB, (lotId) => setChosen([lotA, lotId]))}
      </div>
      <Button size="hand" onClick={start}>
        begin the pairing
      </Button>
      <Problem>{problem}</Problem>
    </details>
  )
}
