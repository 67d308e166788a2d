import { useState } from 'react'
import { mutate } from 'swr'
import { staffApi } from '../../core/staff/staff.api'
import type { DeviceView } from '../../core/staff/staff.schema'
import { sentenceOf } from '../api/ApiProblem'
import { useSession } from '../api/session'
import { useWrite } from '../api/useOutbox'
import { useRead } from '../api/useRead'
import { Lead } from '../ui/Lead'
import { Trouble, Waiting } from '../ui/PageState'
import { useFormat } from '../ui/useFormat'
import { PlainHttpNotice } from './RoomSettingsPage'

/** Every device that is open for this room, and how to close it. */
export function DevicesPage() {
  const { data, problem } = useRead(staffApi.readDevices, {})
  const { signOut, isSecure } = useSession()
  const write = useWrite()
  const format = useFormat()
  const [said, setSaid] = useState<string | null>(null)
  if (!data) return problem ? <Trouble problem={problem} /> : <Waiting what="the devices" />
  const close = (device: DeviceView): void => {
    if (device.isThisOne) return void signOut()
    void write(staffApi.closeDevice, { params: { sessionId: device.id }, label: 'closing of a device', body: {} }, { refusals: 'form' }).catch((error: unknown) => setSaid(sentenceOf(error)))
  }
  // This device is closed too, so what it would read next is who may sign in.
  const closeAll = (): void => void write(staffApi.closeAllDevices, { label: 'closing of every device', body: {} }, { refusals: 'form' }).then(() => mutate(['session']), (error: unknown) => setSaid(sentenceOf(error)))
  return (
    <>
      <Lead title="Devices">A lost phone is closed here. Opening a device again needs a name and passphrase; what waits on it is kept until then.</Lead>
      <ul className="record-list">
        {data.devices.map((device) => (
          <li key={device.id} className="record device">
            <span>
              <strong>{device.device ?? 'a device'}</strong> {device.isThisOne && <em>this one</em>}
              <small>
                opened by {device.openedBy} {format.moment(device.createdAtMs)}
                {device.recorders.length > 0 && `, recording: ${device.recorders.join(', ')}`}
                {device.lastSeenAtMs !== null && `, last here ${format.moment(device.lastSeenAtMs)}`}
              </small>
            </span>
            <button type="button" className="button" onClick={() => close(device)}>
              Close {device.isThisOne ? 'this device' : 'it'}
            </button>
          </li>
        ))}
      </ul>
      {said && (
        <p className="form-problem" role="alert">
          {said}
        </p>
      )}
      <button type="button" className="button" onClick={closeAll}>
        Close every device
      </button>
      {!isSecure && <PlainHttpNotice />}
    </>
  )
}
