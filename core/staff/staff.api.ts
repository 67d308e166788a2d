import { answers, command, named, read } from '../commands/declare'
import { strictObject } from '../fields/fields.schema'
import { addStaffSchema, editStaffSchema, resetPinSchema, retireStaffSchema, roomSettingsSchema, setPassphraseSchema, type DeviceView, type PersonView, type StaffView } from './staff.schema'

type Versioned = { version: number }

/** Who works here, on which devices, in what room. What opens a device is the `doorApi`. */
export const staffApi = named({
  /** people who may record */
  readStaff: read({ path: '/api/staff', access: 'device', about: () => ['staff'], staysMs: Infinity, answer: answers<{ staff: StaffView[] }>() }),
  addStaff: command({ method: 'post', path: '/api/staff', access: 'lead', schema: addStaffSchema, secrets: ['pin', 'passphrase'], touches: () => ['staff'], answer: answers<StaffView>() }),
  /** all people, retired ones too */
  readPeople: read({ path: '/api/people', access: 'lead', about: () => ['staff'], staysMs: Infinity, answer: answers<{ people: PersonView[] }>() }),
  editStaff: command({ method: 'put', path: '/api/staff/:staffId', access: 'lead', schema: editStaffSchema, touches: () => ['staff'], answer: answers<Versioned>() }),
  resetPin: command({ method: 'post', path: '/api/staff/:staffId/pin', access: 'lead', schema: resetPinSchema, secrets: ['pin'], touches: () => ['staff', 'device'] }),
  /** passphrase null: opens no devices */
  setPassphrase: command({ method: 'post', path: '/api/staff/:staffId/passphrase', access: 'lead', schema: setPassphraseSchema, secrets: ['passphrase'], touches: () => ['staff', 'device'] }),
  retireStaff: command({ method: 'post', path: '/api/staff/:staffId/retirement', access: 'lead', schema: retireStaffSchema, touches: () => ['staff', 'device'], answer: answers<Versioned>() }),
  /** open devices */
  readDevices: read({ path: '/api/devices', access: 'lead', about: () => ['device', 'staff'], staysMs: 0, answer: answers<{ devices: DeviceView[] }>() }),
  closeDevice: command({ method: 'post', path: '/api/devices/:sessionId/closing', access: 'lead', schema: strictObject({}), touches: () => ['device'] }),
  closeAllDevices: command({ method: 'post', path: '/api/devices/closing', access: 'lead', schema: strictObject({}), touches: () => ['device'], answer: answers<{ closed: number }>() }),
  changeRoom: command({ method: 'put', path: '/api/room/settings', access: 'lead', schema: roomSettingsSchema, touches: () => ['house'], answer: answers<Versioned>() }),
})
