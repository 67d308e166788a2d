/** @jest-environment ./web/testing/jsdomEnvironment.mjs */
import { expect, test } from '@jest/globals'
import { screen, waitFor } from '@testing-library/react'
import { emptyValues } from '../../core/setup/registerCsv'
import { registers } from '../../core/setup/registers'
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
      make: async () => (made.id = (await app.room().post<{ id: string }>('/api/crates', { supplier: 'Pale Harbour', expectedAtMs: null, packedAtMs: null, note: null, lines: [{ species: 'Cherry barb', count: 8, bags: 1, perBag: 8, tankId: null }] })).id),
      path: () => `/crates/${made.id}/edit`,
      label: /^Carrier/,
      send: 'Save the crate',
      kept: async () => app.room().get<{ carrier: string; version: number }>(`/api/crates/${made.id}`).then(({ carrier, version }) => ({ text: carrier, version })),
      put: (carrier, version) => app.room().put(`/api/crates/${made.id}`, { supplier: 'Pale Harbour', expectedAtMs: null, packedAtMs: null, note: null, carrier, version }),
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
