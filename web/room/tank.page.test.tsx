/** @jest-environment ./web/testing/jsdomEnvironment.mjs */
import { expect, test } from '@jest/globals'
import { fireEvent, screen } from '@testing-library/react'
import { appInRoom, fieldValue, press, type } from '../testing/appInRoom'

const app = appInRoom()

test('more fish than stand there cannot be moved: the books’ figure stands beside the field, what was typed stays', async () => {
  const { tanks } = await app.room().get<{ tanks: { id: string; code: string }[] }>('/api/room')
  await app.room().post(`/api/tanks/${tanks.find(({ code }) => code === 'R1-01')?.id}/additions`, { species: 'Cherry barb', quantity: 8, how: 'brought-in', note: null, happenedAtMs: Date.now() })
  await app.open('/room/R1-01')
  await press('move')
  await type('How many', '80')
  fireEvent.change(await screen.findByLabelText('To'), { target: { value: tanks.find(({ code }) => code === 'R1-02')?.id } })
  await press('Move them')
  expect(await screen.findByText('Only 8 of this lot stand in this tank now')).toBeTruthy()
  expect(await fieldValue('How many')).toBe('80')
  expect(await app.room().stock()).toEqual({ 'R1-01': { 'Cherry barb': 8 } })
})
