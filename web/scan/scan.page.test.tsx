/** @jest-environment ./web/testing/jsdomEnvironment.mjs */
import { expect, test } from '@jest/globals'
import { screen, waitFor } from '@testing-library/react'
import { router } from '../routes'
import { appInRoom, holdBack, press, problemBeside, type } from '../testing/appInRoom'

const app = appInRoom()
const path = (): string => router.state.location.pathname + router.state.location.search

test('a code asked for before the room is known opens its tank as soon as it is', async () => {
  const letThrough = holdBack((path) => path === '/api/room')
  await app.open('/scan')
  await type('Code on the glass', 'r1-05')
  await press('open it')
  expect(path()).toBe('/scan')
  letThrough()
  await waitFor(() => expect(path()).toBe('/room/R1-05'))
})

test('what is no code, and a tank that does not stand here, are told apart beside the field until it is changed', async () => {
  await app.open('/scan')
  await type('Code on the glass', 'R9-99')
  await press('open it')
  expect(await problemBeside('Code on the glass')).toBe('There is no tank R9-99 in this room')
  await type('Code on the glass', 'a plant of ours')
  expect(screen.queryByText(/There is no tank/)).toBeNull()
  await press('open it')
  expect(await problemBeside('Code on the glass')).toBe('“a plant of ours” is no label of a tank')
})

test('on the round a tank with fish leads to its card, one without to its page', async () => {
  const { tanks } = await app.room().get<{ tanks: { id: string; code: string }[] }>('/api/room')
  await app.room().post(`/api/tanks/${tanks.find(({ code }) => code === 'R1-02')?.id}/additions`, { species: 'Cherry barb', quantity: 3, how: 'brought-in', note: null, happenedAtMs: Date.now() })
  await app.open('/scan?for=round')
  await type('Code on the glass', 'R1-02')
  await press('open it')
  await waitFor(() => expect(path()).toContain('tank=R1-02'))
  await app.open('/scan?for=round')
  await type('Code on the glass', 'R1-03')
  await press('open it')
  await waitFor(() => expect(path()).toBe('/room/R1-03'))
})
