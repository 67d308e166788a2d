/** @jest-environment ./web/testing/jsdomEnvironment.mjs */
import { expect, test } from '@jest/globals'
import { screen, waitFor } from '@testing-library/react'
import { simulatedProbes } from '../../core/probes/simulatedProbes'
import { appInRoom, fieldValue, press, type } from '../testing/appInRoom'

const app = appInRoom()

test('words are left, kept while they are refused, and taken off; read is read', async () => {
  await app.open('/handover')
  await screen.findByText(/^Nobody else recorded anything since you were here/)
  await type('For those who come next', 'x'.repeat(501))
  await press('Leave it')
  await screen.findByText('Note may have at most 500 characters')
  expect(await fieldValue('For those who come next')).toHaveLength(501)
  await type('For those who come next', 'the pump of R1 hums')
  await press('Leave it')
  await screen.findByText('the pump of R1 hums')
  expect(await fieldValue('For those who come next')).toBe('')
  await press('take off: the pump of R1 hums')
  await waitFor(() => expect(screen.queryByText('the pump of R1 hums')).toBeNull())
  await press(/^Read/)
  await screen.findByText('Read, Imre.')
})

/** The first minute from a moment on in which a stand-in of that name answers: of one in fifty its sample stays away. */
function answeringMinute(name: string, fromMs: number): number {
  let atMs = fromMs
  while (simulatedProbes.read({ id: name, name, tankId: '', measure: 'tempC', everyMin: 15, fault: 'none', addedAtMs: atMs }, { kind: 'fresh', tempC: 25, ph: null, salinityPpt: null }, atMs) === null) atMs += 60_000
  return atMs
}

test('a probe is hung up, changed and taken down; what is wrong is said beside its field', async () => {
  await app.room().standAt(answeringMinute('Heater', Date.now()))
  const { tanks } = await app.room().get<{ tanks: { id: string; code: string }[] }>('/api/room')
  const tankId = tanks[0]?.id ?? ''
  await app.room().post('/api/probes', { name: 'Heater', tankId, measure: 'ph', everyMin: 15, fault: 'none', version: 0 })
  await app.open('/probes')
  await screen.findByText('Heater')
  await screen.findByText('no answer yet')
  await press('set up Heater')
  await waitFor(() => expect(screen.getAllByLabelText(/^Asked every/)).toHaveLength(2))
  const [minutes] = screen.getAllByLabelText(/^Asked every/) as HTMLInputElement[]
  expect(minutes?.value).toBe('15')
  await press('Ask them now')
  await waitFor(() => expect(screen.queryByText('no answer yet')).toBeNull())
  await press('Take it down')
  await screen.findByText('No probe hangs in a tank.')
})
