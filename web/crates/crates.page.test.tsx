/** @jest-environment ./web/testing/jsdomEnvironment.mjs */
import { expect, test } from '@jest/globals'
import { screen } from '@testing-library/react'
import { allSent, appInRoom, choose, fieldValue, press, problemBeside, type } from '../testing/appInRoom'

const app = appInRoom()
const alert = async (): Promise<string> => (await screen.findByRole('alert')).textContent ?? ''

async function takeIn(csv: string): Promise<void> {
  await app.open('/crates/new')
  await type('Supplier', 'Hollow Reed Hatchery')
  await type(/^or pasted/, csv)
  await press('Read the list')
}

/** Takes a list in and returns the address of its crate. */
async function crateOf(csv: string): Promise<string> {
  await takeIn(csv)
  await press(/^Take in \d+ lines?, \d+ bags?$/)
  return ((await screen.findByRole('link', { name: /^Unpack / })).getAttribute('href') ?? '').replace('/unpack', '')
}

test('a list that does not fit is told by row, and nothing typed is lost', async () => {
  await takeIn('species,bags,per bag,tank\nCherry barb,many,8,R1-01\nKuhli loach,2,5,R9-99')
  expect(await alert()).toContain('Bags in row 2 must be a whole number, not "many"')
  expect(await alert()).toContain('There is no tank R9-99 in this room (row 3)')
  expect(await fieldValue('Supplier')).toBe('Hollow Reed Hatchery')
  expect(await fieldValue(/^or pasted/)).toMatch(/many/)
})

test('a reading that cannot be is said beside the bag, and what was corrected survives a reload', async () => {
  const unpack = `${await crateOf('species,bags,per bag,tank\nCherry barb,1,8,R1-01')}/unpack`
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

test('a line is corrected field by field; what cannot be is said beside it and changes nothing', async () => {
  const crate = await crateOf('species,bags,per bag\nCherry barb,3,8\nKuhli loach,1,5')
  await app.open(`${crate}/edit`)
  await press(/^Cherry barb 24 in 3 bags/)
  for (const [label, text, said] of [['Fish', 'six', 'Count must be a number'], ['Fish', '0', 'Count must be at least 1'], ['Bags', '1.5', 'Bags must be a whole number'], ['Price of one', '-2', 'Price of one must be at least 0']] as const) {
    const before = await fieldValue(label)
    await type(label, text)
    await press('Save the line')
    expect(await problemBeside(label)).toBe(said)
    expect(await fieldValue(label)).toBe(text)
    await type(label, before)
  }
  await type('Fish', '20')
  await type('Bags', '2')
  await press('Save the line')
  expect(await screen.findByRole('button', { name: /^Cherry barb 20 in 2 bags/ })).toBeTruthy()
})

test('a claim is settled with a figure, not with a word; nobody closes a crate over fish without a reason', async () => {
  const crate = await crateOf('species,bags,per bag,tank\nCherry barb,1,8,R1-01')
  await app.open(`${crate}/unpack`)
  await press(/^dead: 0, one more/)
  await press(/next bag/)
  await allSent()

  await app.open(`${crate}/claim`)
  await choose('Claim is', 'settled')
  await type('Amount settled', 'half of it')
  await press('Save the claim')
  expect(await problemBeside('Amount settled')).toBe('Amount settled must be a number')
  expect(await fieldValue('Amount settled')).toBe('half of it')
  await type('Amount settled', '4,50')
  await press('Save the claim')
  expect(await screen.findByText(/^Settled .* with 4\.50\.$/)).toBeTruthy()

  await app.open(crate)
  await press('Close the crate')
  expect(await alert()).toContain('7 fish still stand in bags')
  expect(await app.room().get(`/api${crate}`)).toMatchObject({ closedAtMs: null })
})
