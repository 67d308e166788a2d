import { string, type InferType } from 'yup'
import { bounds, choice, identifier, optionalText, strictObject, text } from '../fields/fields.schema'
import { isTimeZone } from '../time/dayInZone'

export const roles = ['keeper', 'lead'] as const
export type Role = (typeof roles)[number]

const pin = () =>
  string()
    .typeError('PIN must be digits')
    .defined('PIN is missing')
    .nonNullable('PIN is missing')
    .matches(/^\d{4,8}$/, 'PIN must be 4 to 8 digits')
const passphrase = () => text('Passphrase', 200, 10)
const timeZone = () => text('Time zone', 64).test('zone', 'Time zone is not known here', (value) => !value || isTimeZone(value))

/** The very first person, who makes the room. */
export const firstLeadSchema = strictObject({ name: text('Name', bounds.name), passphrase: passphrase(), pin: pin(), roomName: text('Room name', bounds.name), timeZone: timeZone() })
export type FirstLead = InferType<typeof firstLeadSchema>

/** Opens a device for the room. */
export const signInSchema = strictObject({ name: text('Name', bounds.name), passphrase: text('Passphrase', 200) })
export type SignIn = InferType<typeof signInSchema>

/** Says who is recording on this device. */
export const identifySchema = strictObject({ staffId: identifier('Person'), pin: pin() })
export type Identify = InferType<typeof identifySchema>

/** Another person of the room; only leads need a passphrase, which opens devices. */
export const addStaffSchema = strictObject({
  name: text('Name', bounds.name),
  role: choice('Role', roles),
  pin: pin(),
  passphrase: optionalText('Passphrase', 200).min(10, 'Passphrase needs at least 10 characters'),
})
export type AddStaff = InferType<typeof addStaffSchema>

export interface StaffView {
  id: string
  name: string
  role: Role
}

/** What a device may know before and after signing in. */
export interface SessionView {
  state: 'first-start' | 'signed-out' | 'signed-in'
  roomName: string | null
  timeZone: string | null
  /** People who may record; empty while signed out. */
  staff: StaffView[]
  /** People whose PIN this device has seen in this session. */
  identifiedIds: string[]
  /** The server's clock, so that a device with a wrong one still records the right time. */
  nowMs: number
  isFrozenClock: boolean
}
