/** @jest-environment ./web/testing/jsdomEnvironment.mjs */
import { expect, test } from '@jest/globals'
import { screen, waitFor } from '@testing-library/react'
import { allSent, appInRoom, press } from '../testing/appInRoom'

const app = appInRoom()

test('an address is shown once, serves what is due, and is void once it is taken back', async () => {
  await app.open('/today/calendar')
  await screen.findByText('You have no address.')
  await press('Make an address')
  const address = new URL(((await screen.findByLabelText('Your address, shown this once')) as HTMLInputElement).value).pathname
  const status = async () => (await fetch(`${app.room().url}${address}`)).status
  expect(await status()).toBe(200)
  await screen.findByText(/^You have an address since/)
  await app.open('/today/calendar')
  await screen.findByText(/make another one if it is lost/)
  expect(screen.queryByLabelText(/^Your address/)).toBeNull()
  await press('Take it back')
  await screen.findByText('You have no address.')
  await waitFor(allSent)
  expect(await status()).toBe(404)
})
