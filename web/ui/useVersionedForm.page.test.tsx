/** @jest-environment ./web/testing/jsdomEnvironment.mjs */
import { expect, test } from '@jest/globals'
import { screen, waitFor } from '@testing-library/react'
import { mutate } from 'swr'
import { emptyValues } from '../../core/setup/registerCsv'
import { registers } from '../../core/setup/registers'
import { baseUnits } from '../../core/units/units'
import { appInRoom, fieldValue, press, type } from '../testing/appInRoom'

const app = appInRoom()

/** A row as the server keeps it, and its version. */
interface Kept {
  text: string
  version: number
}

/** A form of something that two people may change at once. */
interface Shared {
  /** Makes it, where the room has none. */
  make?: () => Promise<unknown>
  path: () => string
  open?: (string | RegExp)[]
  label: string | RegExp
  send: string
  kept: () => Promise<Kept>
  /** Saves a text over a version, as another device would. */
  put: (text: string, version: number) => Promise<unknown>
  texts: readonly [string, string, string, string, string]
}

const words = ['mine', 'theirs', 'mine again', 'theirs again', 'mine at last'] as const
const list = async <T,>(path: string, part: string): Promise<T[]> => (await app.room().get<Record<string, T[]>>(path))[part] ?? []
const first = async <T,>(path: string, part: string): Promise<T> => (await list<T>(path, part))[0] as T
const made = { id: '' }

const supplier = { ...emptyValues(registers.suppliers.fields), name: 'Pale Harbour' }
const steps = [{ step: 'float', minutes: null, times: null, share: null, handling: 'none' }, { step: 'transfer', minutes: null, times: null, share: null, handling: 'none' }]
const school = { handsPerBagMin: 5, handsPerLotMin: 0, steps }
type Person = { id: string; name: string; role: string; version: number }
const oona = async (): Promise<Person> => (await list<Person>('/api/people', 'people')).find(({ id }) => id === made.id) as Person
const crate = async (): Promise<unknown> => (made.id = (await app.room().post<{ id: string }>('/api/crates', { supplier: 'Pale Harbour', expectedAtMs: null, packedAtMs: null, note: null, lines: [{ species: 'Cherry barb', count: 8, bags: 1, perBag: 8, tankId: null }] })).id)
const limit = async (): Promise<{ value: number; version: number }> => (await list<{ key: string; value: number; version: number }>('/api/house-limits', 'limits')).find(({ key }) => key === 'shopHoldDays') as { value: number; version: number }

const shared: [what: string, Shared][] = [
  [
    'a row of a list',
    {
      make: async () => (made.id = (await app.room().post<{ id: string }>('/api/setup/suppliers', { values: supplier })).id),
      path: () => `/setup/suppliers/${made.id}`,
      label: /^note/,
      send: 'Save',
      kept: async () => {
        const { values, version } = await first<{ values: { note: string }; version: number }>('/api/setup/suppliers', 'rows')
        return { text: values.note, version }
      },
      put: (note, version) => app.room().put(`/api/setup/suppliers/${made.id}`, { version, values: { ...supplier, note } }),
      texts: words,
    },
  ],
  [
    'a person',
    {
      make: async () => (made.id = (await app.room().post<{ id: string }>('/api/staff', { name: 'Oona', role: 'keeper', pin: '2222', passphrase: null })).id),
      path: () => '/setup/people',
      open: [/^Oona/],
      label: 'Name',
      send: 'Save',
      kept: async () => oona().then(({ name, version }) => ({ text: name, version })),
      put: (name, version) => app.room().put(`/api/staff/${made.id}`, { name, role: 'keeper', version }),
      texts: ['Oona M.', 'Oona R.', 'Oona T.', 'Oona V.', 'Oona'],
    },
  ],
  [
    'a school',
    {
      make: async () => (made.id = (await app.room().post<{ id: string }>('/api/schools', { ...school, name: 'Short float' })).id),
      path: () => '/setup/schools',
      open: [/float it shut/],
      label: /^Name of the school/,
      send: 'Save the school',
      kept: async () => first<Person>('/api/schools', 'schools').then(({ name, version }) => ({ text: name, version })),
      put: (name, version) => app.room().put(`/api/schools/${made.id}`, { ...school, name, version }),
      texts: words,
    },
  ],
  [
    'the head of a crate',
    {
      make: () => crate(),
      path: () => `/crates/${made.id}/edit`,
      label: /^Carrier/,
      send: 'Save the crate',
      kept: async () => app.room().get<{ carrier: string; version: number }>(`/api/crates/${made.id}`).then(({ carrier, version }) => ({ text: carrier, version })),
      put: (carrier, version) => app.room().put(`/api/crates/${made.id}`, { supplier: 'Pale Harbour', expectedAtMs: null, packedAtMs: null, note: null, carrier, version }),
      texts: words,
    },
  ],
  [
    'a limit',
    {
      path: () => '/setup/limits',
      open: [/^Shop hold/],
      label: /^Shop hold/,
      send: 'Save the limit',
      kept: async () => limit().then(({ value, version }) => ({ text: String(value), version })),
      put: (text, version) => app.room().put('/api/house-limits/shopHoldDays', { value: Number(text), source: null, version }),
      texts: ['10', '11', '12', '13', '15'],
    },
  ],
  [
    'the room',
    {
      path: () => '/setup/room',
      label: 'Name of the room',
      send: 'Save',
      kept: async () => app.room().get<{ roomName: string; roomVersion: number }>('/api/session').then(({ roomName, roomVersion }) => ({ text: roomName, version: roomVersion })),
      put: (name, version) => app.room().put('/api/room/settings', { name, timeZone: 'UTC', ...baseUnits, version }),
      texts: words,
    },
  ],
  [
    'a claim',
    {
      make: async () => {
        await crate()
        const { bags } = await app.room().get<{ bags: { id: string }[] }>(`/api/crates/${made.id}`)
        await app.room().post(`/api/crates/${made.id}/bags`, { bagIds: bags.map(({ id }) => id), alive: 7, dead: 1, concerns: [], body: null, skinTempC: null, waterTempC: null, salinityPpt: null, note: null, happenedAtMs: Date.now() })
      },
      path: () => `/crates/${made.id}/claim`,
      label: 'Note to the supplier',
      send: 'Save the claim',
      kept: async () => app.room().get<{ note: string; version: number }>(`/api/crates/${made.id}/claim`).then(({ note, version }) => ({ text: note, version })),
      put: (note, version) => app.room().put(`/api/crates/${made.id}/claim`, { state: 'draft', note, settledAmount: null, atMs: null, version }),
      texts: words,
    },
  ],
]

test.each(shared)('%s that somebody else changed meanwhile: nothing is overwritten; mine goes over it, or theirs comes in, as is chosen', async (_what, { make, path, open = [], label, send, kept, put, texts: [mine, theirs, mineAgain, theirsAgain, mineAtLast] }) => {
  await make?.()
  const changedUnderneath = async (typed: string, saved: string): Promise<void> => {
    await app.open(path())
    for (const name of open) await press(name)
    await type(label, typed)
    await put(saved, (await kept()).version)
    await press(send)
    expect(await screen.findByText(/^Somebody else changed this/)).toBeTruthy()
    expect((await kept()).text).toBe(saved)
    expect(await fieldValue(label)).toBe(typed)
  }
  await changedUnderneath(mine, theirs)
  await press('Save mine over it')
  await waitFor(async () => expect((await kept()).text).toBe(mine))

  await changedUnderneath(mineAgain, theirsAgain)
  await press('Take theirs')
  expect(await fieldValue(label)).toBe(theirsAgain)
  // As long as nobody types, the form goes with what others save, and is then sent over that.
  await put(theirs, (await kept()).version)
  await mutate(() => true)
  await waitFor(async () => expect(await fieldValue(label)).toBe(theirs))
  await type(label, mineAtLast)
  await press(send)
  await waitFor(async () => expect((await kept()).text).toBe(mineAtLast))
})

test('of a row that was changed and changed back, theirs comes in all the same', async () => {
  const { id } = await app.room().post<{ id: string }>('/api/setup/suppliers', { values: { ...supplier, note: 'as it was' } })
  await app.open(`/setup/suppliers/${id}`)
  await type(/^note/, 'mine')
  await app.room().put(`/api/setup/suppliers/${id}`, { version: 1, values: { ...supplier, note: 'theirs' } })
  await app.room().put(`/api/setup/suppliers/${id}`, { version: 2, values: { ...supplier, note: 'as it was' } })
  await press('Save')
  await press('Take theirs')
  expect(await fieldValue(/^note/)).toBe('as it was')
})

test('a form that stays open after it was saved shows what somebody else set back to what it was before', async () => {
  const settings = { timeZone: 'UTC', ...baseUnits }
  const { roomName, roomVersion } = await app.room().get<{ roomName: string; roomVersion: number }>('/api/session')
  await app.open('/setup/room')
  await type('Name of the room', 'mine')
  await press('Save')
  expect(await screen.findByText('Saved.')).toBeTruthy()
  await app.room().put('/api/room/settings', { ...settings, name: roomName, version: roomVersion + 1 })
  await mutate(() => true)
  await waitFor(async () => expect(await fieldValue('Name of the room')).toBe(roomName))
})
