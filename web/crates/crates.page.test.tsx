/** @jest-environment ./web/testing/jsdomEnvironment.mjs */
import { expect, test } from '@jest/globals'
import { screen } from '@testing-library/react'
import { allSent, appInRoom, fieldValue, press, type } from '../testing/appInRoom'

const app = appInRoom()
const alert = async (): Promise<string> => (await screen.findByRole('alert')).textContent ?? ''

async function takeIn(csv: string): Promise<void> {
  await app.open('/crates/new')
  await type('Supplier', 'Hollow Reed Hatchery')
  await type(/^or pasted/, csv)
  await press('Read the list')
}

test('a list that does not fit is told by row, and nothing typed is lost', async () => {
  await takeIn('species,bags,per bag,tank\nCherry barb,many,8,R1-01\nKuhli loach,2,5,R9-99')
  expect(await alert()).toContain('Bags in row 2 must be a whole number, not "many"')
  expect(await alert()).toContain('There is no tank R9-99 in this room (row 3)')
  expect(await fieldValue('Supplier')).toBe('Hollow Reed Hatchery')
  expect(await fieldValue(/^or pasted/)).toMatch(/many/)
})

test('a reading that cannot be is said beside the bag, and what was corrected survives a reload', async () => {
  await takeIn('species,bags,per bag,tank\nCherry barb,1,8,R1-01')
  await press(/^Take in \d+ lines?, \d+ bags?$/)
  const unpack = (await screen.findByRole('link', { name: /^Unpack / })).getAttribute('href') ?? ''
  await app.open(unpack)
  await type(/^water/, '99')
  await press(/next bag/)
  expect(await alert()).toBe('-5 to 50 °C')
  expect((await screen.findByText(/bag 1 ·/)).textContent).toContain('bag 1 ·')
  await type(/^water/, '22')
  await app.open(unpack)
  expect(await fieldValue(/^water/)).toBe('22')
  await press(/next bag/)
  expect(await screen.findByText('All bags are open. Place the fish.')).toBeTruthy()
  await press(/^Place all/)
  expect(await screen.findByText('Every fish is out of its bag.')).toBeTruthy()
  await allSent()
  expect(await app.room().stock()).toEqual({ 'R1-01': { 'Cherry barb': 8 } })
})
