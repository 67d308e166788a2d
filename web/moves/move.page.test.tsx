/** @jest-environment ./web/testing/jsdomEnvironment.mjs */
import { expect, test } from '@jest/globals'
import { screen, waitFor } from '@testing-library/react'
import { appInRoom, press } from '../testing/appInRoom'

const app = appInRoom()

test('fish that went meanwhile: the books’ figure stands beside the kind, what was said stays, also over a reload', async () => {
  const { tanks } = await app.room().get<{ tanks: { id: string; code: string }[] }>('/api/room')
  const idOf = (code: string): string => tanks.find((tank) => tank.code === code)?.id ?? ''
  await app.room().post(`/api/tanks/${idOf('R1-01')}/additions`, { species: 'Cherry barb', quantity: 8, how: 'brought-in', note: null, happenedAtMs: Date.now() })
  await app.open('/room/R1-01/move')
  await press('5')
  await press(/^R1-02/)
  expect((await screen.findByRole('button', { name: /^Move 5 Cherry barb/ })).textContent).toContain('R1-01 to R1-02')

  const { stock } = await app.room().get<{ stock: { speciesId: string }[] }>('/api/tanks/R1-01')
  await app.room().post('/api/moves', { from: { kind: 'tank', id: idOf('R1-01') }, to: { kind: 'tank', id: idOf('R1-03') }, fish: [{ speciesId: stock[0]?.speciesId, strain: null, quantity: 6 }], toolSetId: null, waterGoesAlong: false, note: null, happenedAtMs: Date.now() })
  await press(/^Move 5 Cherry barb/)
  expect((await screen.findByRole('alert')).textContent).toBe('Only 2 of these stand here now')
  expect(await app.room().stock()).toEqual({ 'R1-01': { 'Cherry barb': 2 }, 'R1-03': { 'Cherry barb': 6 } })

  await app.open(`${window.location.pathname}${window.location.search}`)
  await waitFor(async () => expect((await screen.findByRole('list', { name: 'Which fish' })).textContent).toContain('5 of 2 Cherry barb'))
  await press('change')
  await press('2')
  await press(/^Move 2 Cherry barb/)
  await waitFor(async () => expect(await app.room().stock()).toEqual({ 'R1-02': { 'Cherry barb': 2 }, 'R1-03': { 'Cherry barb': 6 } }))
})
