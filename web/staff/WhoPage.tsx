import { useState } from 'react'
import type { StaffView } from '../../core/staff/staff.schema'
import { Button } from '../ui/Button'
import { PinPad } from '../ui/PinPad'
import { Doorstep } from './Doorstep'
import type { SessionActions } from './useSessionView'
import './staff.css'

interface Props extends Pick<SessionActions, 'identify'> {
  staff: StaffView[]
  onRecording: (person: StaffView) => void
  /** Who was recording before, and may go on without a PIN. */
  current: StaffView | null
  onStay: () => void
}

/** Asks who is recording: a name, then the PIN. */
export default function WhoPage({ staff, identify, onRecording, current, onStay }: Props) {
  const [person, setPerson] = useState<StaffView | null>(staff.length === 1 && !current ? (staff[0] ?? null) : null)
  if (!person) {
    return (
      <Doorstep title="Who is recording?">
        <ul className="who-list">
          {staff.map((each) => (
            <li key={each.id}>
              <Button size="hand" onClick={() => setPerson(each)}>
                {each.name} <small>{each.role}</small>
              </Button>
            </li>
          ))}
        </ul>
        {current && (
          <Button look="quiet" onClick={onStay}>
            go on as {current.name}
          </Button>
        )}
      </Doorstep>
    )
  }
  return (
    <Doorstep title={person.name}>
      <PinPad onPin={async (pin) => onRecording(await identify({ staffId: person.id, pin }))} />
      {staff.length > 1 && (
        <Button look="quiet" onClick={() => setPerson(null)}>
          somebody else
        </Button>
      )}
    </Doorstep>
  )
}
