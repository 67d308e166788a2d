/** @jest-environment ./web/testing/jsdomEnvironment.mjs */
import { expect, test } from '@jest/globals'
import { fireEvent, screen, waitFor } from '@testing-library/react'
import { appInRoom, choose, fieldValue, press, problemBeside, type } from '../testing/appInRoom'

const app = appInRoom()
const place = (id: string, label: string) => ({ id, tankId: null, systemId: null, label, uses: [{ item: 'salt bag', count: 2 }], litres: null, fromTankId: null, fish: [] })
const chore = (places: object[]) => ({ name: 'Salt', kind: 'other', rule: { kind: 'every', days: 3, weekdays: [], fish: null, earlyDays: 0 }, startOn: '2026-01-01', places, note: 'from the back', version: 0 })

test('a chore is changed where it was set up: what it has stands there, and somebody else’s change in between is not lost', async () => {
  const { id } = await app.room().post<{ id: string }>('/api/chores', chore([place('a', 'store room')]))
  await app.open(`/chores/${id}`)
  expect(((await screen.findByLabelText('Name')) as HTMLInputElement).value).toBe('Salt')
  expect([(screen.getByLabelText('Days') as HTMLInputElement).value, (screen.getByLabelText('In words') as HTMLInputElement).value, (screen.getByLabelText('Uses') as HTMLInputElement).value]).toEqual(['3', 'store room', 'salt bag'])
  await type('Name', 'Salt for the mixer')
  await app.room().put(`/api/chores/${id}`, { ...chore([place('a', 'cellar')]), version: 1 })
  await press('Save the chore')
  // The form is made anew with what stands there now, or says that somebody was faster.
  await waitFor(async () => expect((await app.room().get<{ chores: { name: string; places: { label: string }[] }[] }>('/api/chores')).chores[0]?.places[0]?.label).toBe('cellar'))
})

test('days of the week are chosen, a water change says its litres, and what is missing is said beside it', async () => {
  await app.open('/chores/new')
  await type('Name', 'Quarantine')
  await choose('Kind', 'water change')
  await choose('Comes round', 'weekdays')
  await choose('Where', 'words')
  await press('Save the chore')
  await screen.findByText('Choose a day of the week')
  expect(await problemBeside('In words')).toBe('Say where: a tank, a system, or in words')
  await type('In words', 'tub in the yard')
  fireEvent.click(screen.getByLabelText('Mon'))
  fireEvent.click(screen.getByLabelText('Thu'))
  await press('Save the chore')
  await waitFor(async () => expect(await problemBeside(/^Litres/)).toBe('Say how many litres are changed'))
  expect(await fieldValue('In words')).toBe('tub in the yard')
  await type(/^Litres/, '12,5')
  await press('Save the chore')
  await waitFor(async () => expect((await app.room().get<{ chores: { rule: { weekdays: number[] }; places: { litres: number }[] }[] }>('/api/chores')).chores).toMatchObject([{ rule: { weekdays: [1, 4] }, places: [{ litres: 12.5 }] }]))
})

test('whoever does a chore is named, and what it used is gone from the store room', async () => {
  await app.room().post('/api/supplies', { item: 'salt bag', why: 'counted', pieces: 3 })
  await app.room().post('/api/chores', chore([place('a', 'store room'), place('b', 'mixer')]))
  await app.open('/chores')
  await screen.findByText(/Carry 4 × salt bag/)
  await screen.findByText('1 missing in the store room')
  await press('done: Salt, mixer')
  await screen.findByText('Done today')
  await press('done: Salt, store room')
  await screen.findByText('Nothing is due today.')
  expect((await app.room().get<{ supplies: object[] }>('/api/chores')).supplies).toEqual([{ item: 'salt bag', pieces: 0 }])
  await press('take back: Salt, mixer')
  await screen.findByText(/^1 place to do/)
})
