import { useEffect, useState } from 'react'
import type { StaffView } from '../../core/staff/staff.schema'
import { sentenceOf } from '../api/ApiProblem'
import { Doorstep } from './Doorstep'
import type { SessionActions } from './useSessionView'

interface Props extends Pick<SessionActions, 'identify'> {
  staff: StaffView[]
  onRecording: (person: StaffView) => void
  /** Who was recording before, and may go on without a PIN. */
  current: StaffView | null
  onStay: () => void
}

/** Asks who is recording: a name, then the PIN. */
export function WhoPage({ staff, identify, onRecording, current, onStay }: Props) {
  const [person, setPerson] = useState<StaffView | null>(staff.length === 1 && !current ? (staff[0] ?? null) : null)
  if (!person) {
    return (
      <Doorstep title="Who is recording?">
        <ul className="who-list">
          {staff.map((each) => (
            <li key={each.id}>
              <button type="button" className="hand-button" onClick={() => setPerson(each)}>
                {each.name} <small>{each.role}</small>
              </button>
            </li>
          ))}
        </ul>
        {current && (
          <button type="button" className="quiet-button" onClick={onStay}>
            go on as {current.name}
          </button>
        )}
      </Doorstep>
    )
  }
  return (
    <Doorstep title={person.name}>
      <PinPad onPin={async (pin) => onRecording(await identify({ staffId: person.id, pin }))} />
      {staff.length > 1 && (
        <button type="button" className="quiet-button" onClick={() => setPerson(null)}>
          somebody else
        </button>
      )}
    </Doorstep>
  )
}

const digits = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '0']

function PinPad({ onPin }: { onPin: (pin: string) => Promise<void> }) {
  const [pin, setPin] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const type = (digit: string): void => {
    setProblem(null)
    setPin((typed) => (typed + digit).slice(0, 8))
  }
  const erase = (): void => setPin((typed) => typed.slice(0, -1))
  const submit = async (): Promise<void> => {
    try {
      await onPin(pin)
    } catch (error) {
      setProblem(sentenceOf(error))
      setPin('')
    }
  }
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (/^\d$/.test(event.key)) type(event.key)
      else if (event.key === 'Backspace') erase()
      else if (event.key === 'Enter' && pin.length >= 4 && !(event.target instanceof HTMLButtonElement)) void submit()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  })
  return (
    <div className="pin-pad" role="group" aria-label="PIN">
      <p className="pin-dots" aria-live="polite">
        <span className="visually-hidden">{pin.length} digits entered</span>
        <span aria-hidden="true">{pin ? '●'.repeat(pin.length) : 'PIN'}</span>
      </p>
      {problem && (
        <p className="form-problem" role="alert">
          {problem}
        </p>
      )}
      <div className="pin-keys">
        {digits.map((digit) => (
          <button key={digit} type="button" className="hand-button" onClick={() => type(digit)}>
            {digit}
          </button>
        ))}
        <button type="button" className="hand-button" aria-label="erase a digit" onClick={erase}>
          ←
        </button>
        <button type="button" className="hand-button act" disabled={pin.length < 4} onClick={() => void submit()}>
          record
        </button>
      </div>
    </div>
  )
}
