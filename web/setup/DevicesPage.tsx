import { useState } from 'react'
import { sentenceOf } from '../api/ApiProblem'
import { useSession } from '../api/session'
import { Button } from '../ui/Button'
import { Lead } from '../ui/Lead'
import { Problem } from '../ui/Notice'
import { Trouble, Waiting } from '../ui/PageState'
import { useFormat } from '../ui/useFormat'
import { PlainHttpNotice } from './RoomSettingsPage'
import { useDevices } from './usePeople'
import './setup.css'

/** Every device that is open for this room, and how to close it. */
export function DevicesPage() {
  const { devices, problem, close, closeAll } = useDevices()
  const { signOut, isSecure } = useSession()
  const format = useFormat()
  const [said, setSaid] = useState<string | null>(null)
  if (!devices) return problem ? <Trouble problem={problem} /> : <Waiting what="the devices" />
  const attempt = (work: Promise<unknown>): void => void work.catch((error: unknown) => setSaid(sentenceOf(error)))
  return (
    <>
      <Lead title="Devices">A lost phone is closed here. Opening a device again needs a name and passphrase; what waits on it is kept until then.</Lead>
      <ul className="record-list">
        {devices.map((device) => (
          <li key={device.id} className="record device">
            <span>
              <strong>{device.device ?? 'a device'}</strong> {device.isThisOne && <em>this one</em>}
              <small>
                opened by {device.openedBy} {format.moment(device.createdAtMs)}
                {device.recorders.length > 0 && `, recording: ${device.recorders.join(', ')}`}
                {device.lastSeenAtMs !== null && `, last here ${format.moment(device.lastSeenAtMs)}`}
              </small>
            </span>
            <Button onClick={() => attempt(device.isThisOne ? signOut() : close(device.id))}>
              Close {device.isThisOne ? 'this device' : 'it'}
            </Button>
          </li>
        ))}
      </ul>
      <Problem>{said}</Problem>
      <div className="entry-buttons">
        <Button onClick={() => attempt(closeAll())}>Close every device</Button>
      </div>
      {!isSecure && <PlainHttpNotice />}
    </>
  )
}
