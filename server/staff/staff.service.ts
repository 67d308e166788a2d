import { createHash, randomBytes } from 'node:crypto'
import { hash, verify } from '@node-rs/argon2'
import { parse } from 'cookie'
import type { NoticeView } from '../../core/keeping/notice'
import type { AddStaff, DeviceView, EditStaff, FirstLead, Identify, PersonView, ResetPin, RetireStaff, RoomSettings, SessionView, SetPassphrase, SignIn, StaffView } from '../../core/staff/staff.schema'
import { changesBetween, createAuditStore } from '../audit/audit.store'
import type { Database } from '../db/open'
import type { Actor, CommandContext } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import { newId } from '../newId'
import { createStaffStore, type SessionRow, type StaffRow } from './staff.store'

export const sessionCookie = 'crate_session'
export const sessionMs = 30 * 24 * 3_600_000

const stalePerson = (current: PersonView | undefined): Problem => new Problem('stale', 'Somebody else changed this person meanwhile', { current })
const signedOut = (): Problem => new Problem('signed-out', 'Open this device with your name and passphrase first')
const tokenHashOf = (token: string): string => createHash('sha256').update(token).digest('base64url')
/** A hash nobody's passphrase has, so that an unknown name takes as long as a wrong passphrase. */
const nobodysHash = hash(randomBytes(16).toString('hex'))

/** How long a PIN lets a lead do what leads alone may do. Each such deed begins it anew. */
export const pinFreshMs = 10 * 60_000
const keptFreshEveryMs = 60_000

/** How often a device's last visit is written down, at most. */
const seenEveryMs = 10 * 60_000

export interface StaffOptions {
  db: Database
  now: () => number
  isFrozenClock: boolean
  isSecure: boolean
  /** What went wrong with the room's own keeping. */
  notices(): NoticeView[]
}

/** People, devices and who is recording on them. */
export function createStaffService({ db, now, isFrozenClock, isSecure, notices }: StaffOptions) {
  const store = createStaffStore(db)
  const audit = createAuditStore(db)
  let isFirstLeadBeingMade = false
  const log = (staffId: string | null, action: string, subject: string): void => audit.insert({ atMs: now(), staffId, action, subject })
  const logCommand = ({ actor, key, nowMs }: CommandContext, action: string, subject: string, changes: Record<string, [unknown, unknown]> | null = null): void =>
    audit.insert({ atMs: nowMs, staffId: actor.id, action, subject, changes, commandKey: key })

  function requirePerson(id: string | undefined): StaffRow {
    const person = id === undefined ? null : store.staffById(id)
    if (!person) throw new Problem('not-found', 'There is no such person')
    return person
  }

  /** Without a lead who can open a device, nobody could ever change anything again. */
  function keepOneLead(leaving: string): void {
    const others = store.people().filter((person) => person.id !== leaving && person.role === 'lead' && person.opensDevices && person.retiredAtMs === null)
    if (others.length === 0) throw new Problem('conflict', 'This is the last lead who can open devices; make somebody else a lead with a passphrase first')
  }

  function refuseSecondFirstLead(): void {
    if (store.room()) throw new Problem('conflict', 'This room has its first lead already; sign in instead')
  }

  function sessionOf(cookies: string | undefined, nowMs: number): SessionRow | null {
    const token = parse(cookies ?? '')[sessionCookie]
    const row = token ? store.sessionByToken(tokenHashOf(token)) : null
    return row && row.expiresAtMs > nowMs ? row : null
  }

  function openSession(staffId: string, device: string | null): { id: string; token: string } {
    const id = newId()
    const token = randomBytes(32).toString('base64url')
    const nowMs = now()
    store.insertSession({ id, tokenHash: tokenHashOf(token), openedById: staffId, createdAtMs: nowMs, expiresAtMs: nowMs + sessionMs, device, lastSeenAtMs: nowMs })
    return { id, token }
  }

  /** Where nothing can be written (a full disk), a device opens all the same. */
  function ifThereIsRoom(write: () => unknown): void {
    try {
      write()
    } catch {
      // It is written down with a later visit.
    }
  }

  const insertPerson = (name: string, role: StaffView['role'], pinHash: string, passphraseHash: string | null): StaffView => {
    const person = { id: newId(), name: name.trim(), role }
    if (store.staffByName(name)) throw fieldProblem('name', `${name.trim()} is in the list already`)
    store.insertStaff({ ...person, pinHash, passphraseHash, createdAtMs: now() })
    return person
  }

  return {
    /** Says what this device may know: whether the room has people yet, and who may record here. */
    sessionView(cookies: string | undefined): SessionView {
      const session = sessionOf(cookies, now())
      const room = store.room()
      if (session && now() - (session.lastSeenAtMs ?? 0) > seenEveryMs) ifThereIsRoom(() => store.markSeen(session.id, now()))
      return {
        state: !room ? 'first-start' : session ? 'signed-in' : 'signed-out',
        roomName: room?.name ?? null,
        timeZone: room?.timeZone ?? null,
        units: room && { temperatureUnit: room.temperatureUnit, volumeUnit: room.volumeUnit, salinityUnit: room.salinityUnit, sgReference: room.sgReference },
        instruments: { salinityBy: room?.salinityBy ?? 'refractometer', phBy: room?.phBy ?? 'meter' },
        roomVersion: room?.version ?? 0,
        isSecure,
        staff: session ? store.listStaff() : [],
        notices: session ? notices() : [],
        identifiedIds: session ? store.recorderIds(session.id) : [],
        nowMs: now(),
        isFrozenClock,
      }
    },

    /** Makes the room and its first lead; once only. Returns the token of the session opened for them. */
    async createFirstLead({ name, passphrase, pin, roomName, timeZone }: FirstLead, device: string | null = null): Promise<string> {
      // Hashing is slow on purpose and takes turns with everybody's PIN, so nothing is hashed for whom it cannot help.
      refuseSecondFirstLead()
      if (isFirstLeadBeingMade) throw new Problem('conflict', 'Somebody else is opening this room at this moment; try again')
      isFirstLeadBeingMade = true
      const [passphraseHash, pinHash] = await Promise.all([hash(passphrase), hash(pin)]).finally(() => (isFirstLeadBeingMade = false))
      return db.transact(() => {
        refuseSecondFirstLead()
        store.createRoom({ name: roomName.trim(), timeZone })
        const lead = insertPerson(name, 'lead', pinHash, passphraseHash)
        const session = openSession(lead.id, device)
        log(lead.id, 'first start', roomName.trim())
        store.addRecorder(session.id, lead.id, now())
        return session.token
      })
    },

    /**
     * Opens a device with name and passphrase; what was open on it ends, and on other devices of this person if they wish.
     * @returns the session's token.
     */
    async signIn({ name, passphrase, closesOthers = false }: SignIn, device: string | null = null, cookies?: string): Promise<string> {
      const person = store.staffByName(name)
      const matches = await verify(person?.passphraseHash ?? (await nobodysHash), passphrase)
      if (!person?.passphraseHash || !matches || person.retiredAtMs !== null) {
        log(person?.id ?? null, 'refused', 'opening a device')
        throw fieldProblem('passphrase', 'Name and passphrase do not belong together')
      }
      const before = sessionOf(cookies, now())
      if (before) store.closeSession(before.id)
      if (closesOthers) log(person.id, 'closed their other devices', `${store.closeSessionsOf(person.id)} devices`)
      log(person.id, 'opened a device', device ?? '')
      return openSession(person.id, device).token
    },

    /** Checks a PIN and lets that person record on this device from now on. */
    async identify(cookies: string | undefined, { staffId, pin }: Identify): Promise<StaffView> {
      const session = sessionOf(cookies, now())
      if (!session) throw signedOut()
      const person = store.staffById(staffId)
      if (!person || person.retiredAtMs !== null) throw fieldProblem('staffId', 'This person is not in the list')
      if (!(await verify(person.pinHash, pin))) {
        log(person.id, 'refused', 'a PIN')
        throw fieldProblem('pin', 'That is not the PIN')
      }
      store.addRecorder(session.id, person.id, now())
      return { id: person.id, name: person.name, role: person.role }
    },

    /** Closes the device's session; nothing happens when there is none. */
    signOut(cookies: string | undefined): void {
      const session = sessionOf(cookies, now())
      if (!session) return
      store.closeSession(session.id)
      log(session.openedById, 'closed a device', session.device ?? '')
    },

    /** Hashes the secrets of a new person, outside any transaction. */
    prepareStaff: async ({ pin, passphrase }: AddStaff) => ({ pinHash: await hash(pin), passphraseHash: passphrase === null ? null : await hash(passphrase) }),

    /** Adds a person to the room. */
    addStaff: ({ name, role }: AddStaff, { pinHash, passphraseHash }: { pinHash: string; passphraseHash: string | null }): StaffView =>
      insertPerson(name, role, pinHash, passphraseHash),

    listStaff: store.listStaff,
    people: (): { people: PersonView[] } => ({ people: store.people() }),

    /** Changes a person's name or role. */
    editStaff(context: CommandContext, { name, role, version }: EditStaff) {
      const person = requirePerson(context.params.staffId)
      if (person.version !== version) throw stalePerson(store.people().find(({ id }) => id === person.id))
      const twin = store.staffByName(name)
      if (twin && twin.id !== person.id) throw fieldProblem('name', `${name.trim()} is in the list already`)
      if (role !== 'lead') keepOneLead(person.id)
      store.updateStaff(person.id, { name: name.trim(), role, version: version + 1 })
      logCommand(context, 'edited', `person ${name.trim()}`, changesBetween({ name: person.name, role: person.role }, { name: name.trim(), role }))
      return { version: version + 1 }
    },

    preparePin: async ({ pin }: ResetPin) => hash(pin),
    /** Gives a person a new PIN; every device asks them for it again. */
    resetPin(context: CommandContext, _input: ResetPin, pinHash: string) {
      const person = requirePerson(context.params.staffId)
      store.updateStaff(person.id, { pinHash })
      store.forgetRecorder(person.id)
      logCommand(context, 'new PIN', `person ${person.name}`)
      return {}
    },

    preparePassphrase: async ({ passphrase }: SetPassphrase) => (passphrase === null ? null : hash(passphrase)),
    /** Gives a person a new passphrase, or none; devices they opened are closed if wished, but for the one asking. */
    setPassphrase(context: CommandContext, { closesDevices }: SetPassphrase, passphraseHash: string | null) {
      const person = requirePerson(context.params.staffId)
      if (passphraseHash === null) keepOneLead(person.id)
      store.updateStaff(person.id, { passphraseHash })
      if (closesDevices ?? person.id !== context.actor.id) store.closeSessionsOf(person.id, context.actor.sessionId)
      logCommand(context, passphraseHash === null ? 'passphrase taken away' : 'new passphrase', `person ${person.name}`)
      return {}
    },

    /** Takes a person out of the list, with every device they opened, or brings them back. Their entries stay. */
    retireStaff(context: CommandContext, { isRetired, version }: RetireStaff) {
      const person = requirePerson(context.params.staffId)
      if (person.version !== version) throw stalePerson(store.people().find(({ id }) => id === person.id))
      if (isRetired && person.id === context.actor.id) throw new Problem('conflict', 'Nobody retires themselves; let another lead do it')
      if (isRetired) keepOneLead(person.id)
      store.updateStaff(person.id, { retiredAtMs: isRetired ? context.nowMs : null, version: version + 1 })
      if (isRetired) {
        store.forgetRecorder(person.id)
        store.closeSessionsOf(person.id)
      }
      logCommand(context, isRetired ? 'retired' : 'brought back', `person ${person.name}`)
      return { version: version + 1 }
    },

    /** Open devices, the one asking marked. */
    devices: (own: string | null): { devices: DeviceView[] } => ({ devices: store.devices(now()).map((device) => ({ ...device, isThisOne: device.id === own })) }),
    closeDevice(context: CommandContext) {
      const id = context.params.sessionId ?? ''
      if (!store.isSession(id)) throw new Problem('not-found', 'This device is closed already')
      store.closeSession(id)
      logCommand(context, 'closed a device', '')
      return {}
    },
    /** Closes every device, this one too. */
    closeAllDevices(context: CommandContext) {
      const closed = store.closeAllSessions()
      logCommand(context, 'closed every device', `${closed} devices`)
      return { closed }
    },

    /** Changes the room's name, time zone and display units. */
    changeRoom(context: CommandContext, { version, salinityBy, phBy, ...rest }: RoomSettings) {
      const room = store.room()
      if (!room) throw new Problem('not-found', 'There is no room yet')
      const { id: _, ...before } = room
      const settings = { ...rest, salinityBy: salinityBy ?? room.salinityBy, phBy: phBy ?? room.phBy }
      if (room.version !== version) throw new Problem('stale', 'Somebody else changed these settings meanwhile', { current: before })
      store.updateRoom({ ...settings, name: settings.name.trim(), version: version + 1 })
      logCommand(context, 'edited', 'the room', changesBetween({ ...before, version: null }, { ...settings, version: null }))
      return { version: version + 1 }
    },

    /** @throws Problem `signed-out` when the cookie opens nothing. */
    requireSession(cookies: string | undefined, nowMs: number): void {
      if (!sessionOf(cookies, nowMs)) throw signedOut()
    },

    /** Which session a cookie opens; empty for none. */
    sessionIdOf: (cookies: string | undefined): string => sessionOf(cookies, now())?.id ?? '',

    /** Finds who is recording: `X-Recording` names a person whose PIN this device has seen. */
    requireActor(cookies: string | undefined, staffId: string | undefined, nowMs: number): Actor {
      const session = sessionOf(cookies, nowMs)
      if (!session) throw signedOut()
      const actor = /^[A-Za-z0-9_-]{1,64}$/.test(staffId ?? '') ? store.recorder(session.id, staffId ?? '') : null
      if (!actor) throw new Problem('unidentified', 'Say who is recording first, by PIN')
      const { identifiedAtMs, ...person } = actor
      return { ...person, isPinFresh: nowMs - identifiedAtMs <= pinFreshMs, sessionId: session.id }
    },

    /** A lead did what leads alone may do: their PIN is not asked for while they go on. */
    keepPinFresh({ id, sessionId }: Actor, nowMs: number): void {
      const given = sessionId === null ? undefined : store.recorder(sessionId, id)?.identifiedAtMs
      if (sessionId !== null && given !== undefined && nowMs - given > keptFreshEveryMs) ifThereIsRoom(() => store.addRecorder(sessionId, id, nowMs))
    },
  }
}
export type StaffService = ReturnType<typeof createStaffService>
