import { useState } from 'react'
import type { StaffView } from '../../core/staff/staff.schema'
import { PinPad } from '../ui/PinPad'
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
