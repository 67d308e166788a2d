/** @jest-environment ./web/testing/jsdomEnvironment.mjs */
import { expect, test } from '@jest/globals'
import { fireEvent, screen, waitFor } from '@testing-library/react'
import { mutate } from 'swr'
import { appInRoom, fieldValue, press, problemBeside, type } from '../testing/appInRoom'

const app = appInRoom()

interface Wrong {
  path: string
  /** Buttons that open the form. */
  open?: (string | RegExp)[]
  typed: [label: string | RegExp, text: string][]
  send: string | RegExp
  /** What is said, and beside which field. */
  beside: string | RegExp
  said: string
  /** Where the server would show what was saved. */
  kept: string
}

const wrong: [what: string, Wrong][] = [
  ['a supplier that ships in boiling water', { path: '/setup/suppliers/new', typed: [[/^name/, 'Pale Harbour'], [/^shipping temperature/, '400']], send: 'Add supplier', beside: /^shipping temperature/, said: 'This must be a number between 0.0 and 45.0 °C', kept: '/api/setup/suppliers' }],
  ['a supplier without a name', { path: '/setup/suppliers/new', typed: [[/^usual time in the bag/, '20']], send: 'Add supplier', beside: /^name/, said: 'Name is missing', kept: '/api/setup/suppliers' }],
  ['a species whose lowest temperature is a word', { path: '/setup/species/new', typed: [[/^name/, 'Pearl danio'], [/^temperature from/, 'warm']], send: 'Add species', beside: /^temperature from/, said: 'This must be a number between 0.0 and 45.0 °C', kept: '/api/setup/species' }],
  ['half a fish as a group', { path: '/setup/species/new', typed: [[/^name/, 'Pearl danio'], [/^kept at least/, '2.5']], send: 'Add species', beside: /^kept at least/, said: 'Kept at least must be a whole number', kept: '/api/setup/species' }],
  ['a rack of no tanks', { path: '/setup/rack', typed: [[/^New system/, 'Brackish rack'], [/^Rack/, 'B1'], [/^Tanks/, '0']], send: 'Add system and tanks', beside: /^Tanks/, said: 'Tanks must be at least 1', kept: '/api/room' }],
  ['a system that is there already', { path: '/setup/rack', typed: [[/^New system/, 'Fresh sale rack'], [/^Water of its tanks/, 'one water'], [/^Rack/, 'R2']], send: 'Add system and tanks', beside: /^New system/, said: 'There is a system called Fresh sale rack already', kept: '/api/room' }],
  ['a PIN of two digits', { path: '/setup/people', typed: [[/^New person/, 'Oona'], [/^PIN/, '12']], send: 'Add person', beside: /^PIN/, said: 'PIN must be 4 to 8 digits', kept: '/api/people' }],
  ['a person who is in the list', { path: '/setup/people', typed: [[/^New person/, 'Imre'], [/^PIN/, '2222']], send: 'Add person', beside: /^New person/, said: 'Imre is in the list already', kept: '/api/people' }],
  ['a hold of more than a season', { path: '/setup/limits', open: [/^Shop hold/], typed: [[/^Shop hold/, '400']], send: 'Save the limit', beside: /^Shop hold/, said: 'Shop hold must be between 0 and 120 days', kept: '/api/house-limits' }],
  ['a school by the name of one of the trade', { path: '/setup/schools', open: ['Add a school of the house'], typed: [[/^Name of the school/, 'Net-over']], send: 'Add the school', beside: /^Name of the school/, said: 'The trade has a school of this name already', kept: '/api/schools' }],
  ['a step that takes no time', { path: '/setup/schools', open: ['Add a school of the house'], typed: [[/^Name of the school/, 'Quick fill'], ['minutes', '0']], send: 'Add the school', beside: 'minutes', said: 'Minutes must be at least 0.5', kept: '/api/schools' }],
]

test.each(wrong)('%s: said beside its field, nothing typed is lost, nothing saved', async (_what, { path, open = [], typed, send, beside, said, kept }) => {
  const before = await app.room().get(kept)
  await app.open(path)
  for (const name of open) await press(name)
  for (const [label, text] of typed) await type(label, text)
  await press(send)
  expect(await problemBeside(beside)).toContain(said)
  for (const [label, text] of typed) expect(await fieldValue(label)).toBe(text)
  expect(await app.room().get(kept)).toEqual(before)
})

test('a limit that was wrong is corrected in place, and its new source stands beside it', async () => {
  await app.open('/setup/limits')
  await press(/^Shop hold/)
  await type(/^Shop hold/, 'three weeks')
  await press('Save the limit')
  expect(await problemBeside(/^Shop hold/)).toBe('Shop hold must be between 0 and 120 days')
  await type(/^Shop hold/, '21')
  await type(/^Where it comes from/, 'what we saw in May')
  await press('Save the limit')
  expect(await screen.findByRole('button', { name: /^Shop hold .*21 days.*what we saw in May \(Imre/ })).toBeTruthy()
})

test('a PIN given long ago is asked for again over the form; what was typed stays and is saved with it', async () => {
  await app.room().forgetPins()
  await app.open('/setup/limits')
  await press(/^Shop hold/)
  await type(/^Shop hold/, '21')
  await type(/^Where it comes from/, 'what we saw in May')
  await press('Save the limit')
  expect(await screen.findByText('PIN of Imre')).toBeTruthy()
  expect(await fieldValue(/^Where it comes from/)).toBe('what we saw in May')
  for (const digit of [...'4712']) await press(digit)
  await press('go on')
  expect((await screen.findByText('That is not the PIN')).textContent).toBeTruthy()
  for (const digit of [...'4711']) await press(digit)
  await press('go on')
  expect(await screen.findByRole('button', { name: /^Shop hold .*21 days.*what we saw in May \(Imre/ })).toBeTruthy()
})

test('a form that was opened before a change came in shows the change while nobody has typed in it, and afterwards what was typed', async () => {
  const { id } = await app.room().post<{ id: string }>('/api/setup/zones', { values: { name: 'Back room', note: 'dim', sourcesRule: null } })
  const change = (version: number, note: string) => app.room().put(`/api/setup/zones/${id}`, { version, values: { name: 'Back room', note, sourcesRule: null } })
  await app.open(`/setup/zones/${id}`)
  expect(await fieldValue(/^note/)).toBe('dim')
  await change(1, 'lights off at nine')
  await mutate(() => true)
  await waitFor(async () => expect(await fieldValue(/^note/)).toBe('lights off at nine'))
  await type(/^note/, 'mine')
  await change(2, 'theirs')
  await mutate(() => true)
  expect(await fieldValue(/^note/)).toBe('mine')
  await press('Save')
  expect(await screen.findByText(/^Somebody else changed/)).toBeTruthy()
})

test('a school that does not end in the tank is said as a whole, and its steps stand as they were put together', async () => {
  await app.open('/setup/schools')
  await press('Add a school of the house')
  await type(/^Name of the school/, 'Left in the bucket')
  await press('Add a step')
  const takeOff = await screen.findAllByRole('button', { name: 'take off' })
  fireEvent.click(takeOff.at(-1) as HTMLElement)
  await press('Add the school')
  expect(await screen.findByText('The last step takes the fish into the tank')).toBeTruthy()
  expect(await fieldValue('step 4')).toBe('wait')
  expect(await app.room().get('/api/schools')).toMatchObject({ schools: [] })
})
