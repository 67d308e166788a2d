import { createHash, randomBytes } from 'node:crypto'
import { hash, verify } from '@node-rs/argon2'
import { parse } from 'cookie'
import type { AddStaff, FirstLead, Identify, SessionView, SignIn, StaffView } from '../../core/staff/staff.schema'
import type { Database } from '../db/open'
import type { Actor } from '../http/endpoint'
import { fieldProblem, Problem } from '../http/problem'
import { newId } from '../newId'
import { createStaffStore, type SessionRow } from './staff.store'

export const sessionCookie = 'crate_session'
export const sessionMs = 30 * 24 * 3_600_000

const signedOut = (): Problem => new Problem('signed-out', 'Open this device with your name and passphrase first')
const tokenHashOf = (token: string): string => createHash('sha256').update(token).digest('base64url')
/** A hash nobody's passphrase has, so that an unknown name takes as long as a wrong passphrase. */
const nobodysHash = hash(randomBytes(16).toString('hex'))

/** People, devices and who is recording on them. */
export function createStaffService(db: Database, now: () => number, isFrozenClock: boolean) {
  const store = createStaffStore(db)

  function sessionOf(cookies: string | undefined, nowMs: number): SessionRow | null {
    const token = parse(cookies ?? '')[sessionCookie]
    const row = token ? store.sessionByToken(tokenHashOf(token)) : null
    return row && row.expiresAtMs > nowMs ? row : null
  }

  function openSession(staffId: string): { id: string; token: string } {
    const id = newId()
    const token = randomBytes(32).toString('base64url')
    const nowMs = now()
    store.insertSession({ id, tokenHash: tokenHashOf(token), openedById: staffId, createdAtMs: nowMs, expiresAtMs: nowMs + sessionMs })
    return { id, token }
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
      return {
        state: !room ? 'first-start' : session ? 'signed-in' : 'signed-out',
        roomName: room?.name ?? null,
        timeZone: room?.timeZone ?? null,
        staff: session ? store.listStaff() : [],
        identifiedIds: session ? store.recorderIds(session.id) : [],
        nowMs: now(),
        isFrozenClock,
      }
    },

    /** Makes the room and its first lead; once only. Returns the token of the session opened for them. */
    async createFirstLead({ name, passphrase, pin, roomName, timeZone }: FirstLead): Promise<string> {
      const [passphraseHash, pinHash] = await Promise.all([hash(passphrase), hash(pin)])
      return db.transact(() => {
        if (store.room()) throw new Problem('conflict', 'This room has its first lead already; sign in instead')
        store.createRoom({ name: roomName.trim(), timeZone })
        const lead = insertPerson(name, 'lead', pinHash, passphraseHash)
        const session = openSession(lead.id)
        store.addRecorder(session.id, lead.id, now())
        return session.token
      })
    },

    /** Opens a device with name and passphrase; returns the session's token. */
    async signIn({ name, passphrase }: SignIn): Promise<string> {
      const person = store.staffByName(name)
      const matches = await verify(person?.passphraseHash ?? (await nobodysHash), passphrase)
      if (!person?.passphraseHash || !matches) throw fieldProblem('passphrase', 'Name and passphrase do not belong together')
      return openSession(person.id).token
    },

    /** Checks a PIN and lets that person record on this device from now on. */
    async identify(cookies: string | undefined, { staffId, pin }: Identify): Promise<StaffView> {
      const session = sessionOf(cookies, now())
      if (!session) throw signedOut()
      const person = store.staffById(staffId)
      if (!person) throw fieldProblem('staffId', 'This person is not in the list')
      if (!(await verify(person.pinHash, pin))) throw fieldProblem('pin', 'That is not the PIN')
      store.addRecorder(session.id, person.id, now())
      return { id: person.id, name: person.name, role: person.role }
    },

    /** Closes the device's session; nothing happens when there is none. */
    signOut(cookies: string | undefined): void {
      const session = sessionOf(cookies, now())
      if (session) store.deleteSession(session.id)
    },

    /** Hashes the secrets of a new person, outside any transaction. */
    prepareStaff: async ({ pin, passphrase }: AddStaff) => ({ pinHash: await hash(pin), passphraseHash: passphrase === null ? null : await hash(passphrase) }),

    /** Adds a person to the room. */
    addStaff: ({ name, role }: AddStaff, { pinHash, passphraseHash }: { pinHash: string; passphraseHash: string | null }): StaffView =>
      insertPerson(name, role, pinHash, passphraseHash),

    listStaff: store.listStaff,

    /** @throws Problem `signed-out` when the cookie opens nothing. */
    requireSession(cookies: string | undefined, nowMs: number): void {
      if (!sessionOf(cookies, nowMs)) throw signedOut()
    },

    /** Finds who is recording: `X-Recording` names a person whose PIN this device has seen. */
    requireActor(cookies: string | undefined, staffId: string | undefined, nowMs: number): Actor {
      const session = sessionOf(cookies, nowMs)
      if (!session) throw signedOut()
      const actor = /^[A-Za-z0-9_-]{1,64}$/.test(staffId ?? '') ? store.recorder(session.id, staffId ?? '') : null
      if (!actor) throw new Problem('unidentified', 'Say who is recording first, by PIN')
      return actor
    },
  }
}
export type StaffService = ReturnType<typeof createStaffService>
