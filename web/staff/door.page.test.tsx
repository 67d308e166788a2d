/** @jest-environment ./web/testing/jsdomEnvironment.mjs */
import { expect, test } from '@jest/globals'
import { screen } from '@testing-library/react'
import { appInRoom, fieldValue, press, problemBeside, type } from '../testing/appInRoom'

const app = appInRoom()

test.each([
  ['a passphrase that is not theirs', 'Imre', 'tide pool at dusk', 'Passphrase', 'Name and passphrase do not belong together'],
  ['a name nobody has, in the same words', 'Nobody', 'tide pool at dawn', 'Passphrase', 'Name and passphrase do not belong together'],
  ['no name', '', 'tide pool at dawn', 'Name', 'Name is missing'],
])('opening a device with %s: said beside the field, the name stays, the door stays shut', async (_what, name, passphrase, beside, said) => {
  app.signOut()
  await app.open('/')
  await type('Name', name)
  await type('Passphrase', passphrase)
  await press('Open this device')
  expect(await problemBeside(beside)).toBe(said)
  expect([await fieldValue('Name'), screen.queryByRole('navigation')]).toEqual([name, null])
})

test('a first room asks for what it needs, field by field, and makes nothing of half of it', async () => {
  await app.startAnew()
  await app.open('/')
  await type('Name of the room', 'Лантерн Ки')
  await type('Your name', 'Имре')
  await type('Passphrase', 'short')
  await type('PIN', '12')
  await type('Time zone of the room', 'Europe/Atlantis')
  await press('Make the room')
  for (const [label, said] of [['Passphrase', 'Passphrase needs at least 10 characters'], ['PIN', 'PIN must be 4 to 8 digits'], ['Time zone of the room', 'Time zone is not known here']] as const) expect(await problemBeside(label)).toBe(said)
  expect([await fieldValue('Name of the room'), await fieldValue('Your name')]).toEqual(['Лантерн Ки', 'Имре'])
  expect(await app.room().get('/api/session')).toMatchObject({ state: 'first-start', roomName: null })
})
