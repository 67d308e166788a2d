import { mutate } from 'swr'
import { staffApi } from '../../core/staff/staff.api'
import type { AddStaff, EditStaff, PersonView, ResetPin, RoomSettings, SetPassphrase } from '../../core/staff/staff.schema'
import { useWrite } from '../api/useOutbox'
import { useRead } from '../api/useRead'

const form = { refusals: 'form' } as const
/** PIN and passphrase are held in memory until they are sent, never in the browser's storage. */
const secret = { refusals: 'form', isSecret: true } as const
/** Who is recording, and whether this device is open, may have changed with it. */
async function andSession<T>(written: Promise<T>): Promise<T> {
  try {
    return await written
  } finally {
    await mutate(['session'])
  }
}

/** Who records here. */
export function usePeople() {
  const { data, problem } = useRead(staffApi.readPeople, {})
  return { people: data?.people, problem }
}

/** Adds a person. */
export function useAddPerson() {
  const write = useWrite()
  return (body: AddStaff) => andSession(write(staffApi.addStaff, { label: `person ${body.name}`, body }, secret))
}

/** The writes of one person. */
export function usePersonWrites(person: PersonView) {
  const write = useWrite()
  const [params, label] = [{ staffId: person.id }, `person ${person.name}`]
  return {
    edit: (body: EditStaff) => andSession(write(staffApi.editStaff, { params, label, body }, form)),
    resetPin: (body: ResetPin) => andSession(write(staffApi.resetPin, { params, label, body }, secret)),
    setPassphrase: (body: SetPassphrase) => write(staffApi.setPassphrase, { params, label, body }, secret),
    retire: (isRetired: boolean) => andSession(write(staffApi.retireStaff, { params, label, body: { isRetired, version: person.version } }, form)),
  }
}

/** Devices that are open for this room, and how to close them. */
export function useDevices() {
  const { data, problem } = useRead(staffApi.readDevices, {})
  const write = useWrite()
  return {
    devices: data?.devices,
    problem,
    close: (sessionId: string) => write(staffApi.closeDevice, { params: { sessionId }, label: 'closing of a device', body: {} }, form),
    closeAll: () => andSession(write(staffApi.closeAllDevices, { label: 'closing of every device', body: {} }, form)),
  }
}

/** Changes the room's name, time zone and units. */
export function useChangeRoom() {
  const write = useWrite()
  return (body: RoomSettings) => andSession(write(staffApi.changeRoom, { label: 'name and units of the room', body }, form))
}
