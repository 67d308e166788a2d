import { string, type InferType } from 'yup'
import { bounds, choice, identifier, optionalText, strictObject, text, whole, yesNo, optionalChoice } from '../fields/fields.schema'
import type { NoticeView } from '../keeping/notice'
import { isTimeZone } from '../time/dayInZone'
import { phInstruments, salinityInstruments, type PhInstrument, type SalinityInstrument } from '../acclimation/instruments'
import { salinityUnits, temperatureUnits, volumeUnits, type DisplayUnits } from '../units/units'
import { sgReferenceNames } from '../water/density'

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
export const signInSchema = strictObject({
  name: text('Name', bounds.name),
  passphrase: text('Passphrase', 200),
  /** Closes the other devices that this person opened. */
  closesOthers: yesNo('Close other devices').optional(),
})
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

const version = () => whole('Version', 1, 1_000_000_000)

/** Changes who a person is. Secrets have commands of their own. */
export const editStaffSchema = strictObject({ name: text('Name', bounds.name), role: choice('Role', roles), version: version() })
export type EditStaff = InferType<typeof editStaffSchema>

/** Gives a person a new PIN; whatever devices they recorded on ask for it anew. */
export const resetPinSchema = strictObject({ pin: pin() })
export type ResetPin = InferType<typeof resetPinSchema>

/** Gives a person a passphrase, with which they open devices; null takes it away. */
export const setPassphraseSchema = strictObject({
  passphrase: optionalText('Passphrase', 200).min(10, 'Passphrase needs at least 10 characters'),
  /** Closes the devices this person opened, but for the one asking; left out, only those of somebody else. */
  closesDevices: yesNo('Close devices').optional(),
})
export type SetPassphrase = InferType<typeof setPassphraseSchema>

/** Somebody no longer works here, or does again. */
export const retireStaffSchema = strictObject({ isRetired: yesNo('Retired'), version: version() })
export type RetireStaff = InferType<typeof retireStaffSchema>

/** What the room is called and how figures are shown. */
export const roomSettingsSchema = strictObject({
  name: text('Room name', bounds.name),
  timeZone: timeZone(),
  temperatureUnit: choice('Temperature', temperatureUnits),
  volumeUnit: choice('Volume', volumeUnits),
  salinityUnit: choice('Salinity', salinityUnits),
  sgReference: choice('Reference pair', sgReferenceNames),
  /** What salinity and pH are read with where nobody says. */
  salinityBy: optionalChoice('Salinity read by', salinityInstruments).optional(),
  phBy: optionalChoice('pH read by', phInstruments).optional(),
  version: version(),
})
export type RoomSettings = InferType<typeof roomSettingsSchema>

/** A person as a lead sees them. */
export interface PersonView extends StaffView {
  version: number
  retiredAtMs: number | null
  opensDevices: boolean
}

/** An open device. */
export interface DeviceView {
  id: string
  device: string | null
  openedBy: string
  recorders: string[]
  createdAtMs: number
  lastSeenAtMs: number | null
  expiresAtMs: number
  isThisOne: boolean
}

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
  /** How figures are shown, and the version of these settings; null before the room is made. */
  units: DisplayUnits | null
  /** What salinity and pH are read with where nobody says. */
  instruments: { salinityBy: SalinityInstrument; phBy: PhInstrument }
  roomVersion: number
  /** Whether what is typed travels encrypted. */
  isSecure: boolean
  /** People who may record; empty while signed out. */
  staff: StaffView[]
  /** What went wrong with the room's own keeping and no lead has put away; empty while signed out. */
  notices: NoticeView[]
  /** People whose PIN this device has seen in this session. */
  identifiedIds: string[]
  /** The server's clock, so that a device with a wrong one still records the right time. */
  nowMs: number
  isFrozenClock: boolean
}
