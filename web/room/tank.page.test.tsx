/** @jest-environment ./web/testing/jsdomEnvironment.mjs */
import { expect, test } from '@jest/globals'
import { screen } from '@testing-library/react'
import { allSent, appInRoom, fieldValue, press, problemBeside, type } from '../testing/appInRoom'

const app = appInRoom()

/** Eight barbs in R1-01, its page open. */
async function openTank(): Promise<void> {
  const { tanks } = await app.room().get<{ tanks: { id: string; code: string }[] }>('/api/room')
  await app.room().post(`/api/tanks/${tanks.find(({ code }) => code === 'R1-01')?.id}/additions`, { species: 'Cherry barb', quantity: 8, how: 'brought-in', note: null, happenedAtMs: Date.now() })
  await app.open('/room/R1-01')
}

test.each([
  ['lost', [['How many', '0']], 'Record the loss', 'How many', 'Number of fish must be at least 1'],
  ['lost', [['How many', '1.5']], 'Record the loss', 'How many', 'Number of fish must be a whole number'],
  ['lost', [['How many', '9']], 'Record the loss', 'How many', 'Only 8 of these stand in this tank now'],
  ['lost', [['How many', 'two']], 'Record the loss', 'How many', 'Number of fish must be a number'],
  ['count', [['Counted', '-1']], 'Set the books right', 'Counted', 'Number counted must be at least 0'],
  ['another kind', [['Strain', 'golden']], 'Name them', 'They are', 'Species is missing'],
  ['count', [['Counted', '7'], ['Reason', '  ']], 'Set the books right', 'Reason', 'Reason is missing'],
] as const)('%s with %j is said beside its field; every fish is where it was', async (action, typed, send, beside, said) => {
  await openTank()
  await press('count …')
  await press(action)
  for (const [label, text] of typed) await type(label, text)
  await press(send)
  expect(await problemBeside(beside)).toBe(said)
  for (const [label, text] of typed) expect(await fieldValue(label)).toBe(text)
  expect(await app.room().stock()).toEqual({ 'R1-01': { 'Cherry barb': 8 } })
})

test('a species nobody wrote begins no lot; what was corrected does', async () => {
  await app.open('/room/R1-02')
  await press(/fish born here/)
  await type('How many', '30')
  await press('Begin a lot')
  expect(await problemBeside('Species')).toBe('Species is missing')
  await type('Species', 'Черри барбус')
  await press('Begin a lot')
  expect(await screen.findByText(/^30 fish of 1 kind\./)).toBeTruthy()
  await allSent()
  expect(await app.room().stock()).toEqual({ 'R1-02': { 'Черри барбус': 30 } })
})
