/** @jest-environment ./web/testing/jsdomEnvironment.mjs */
import { expect, test } from '@jest/globals'
import { screen } from '@testing-library/react'
import { openedLine } from '../../e2e/openedLines'
import { figureInputs } from '../../core/bench/bagFigures'
import type { BenchSubject, RunView } from '../../core/bench/benchView'
import { allSent, appInRoom, choose, fieldValue, press, problemBeside, type } from '../testing/appInRoom'

const app = appInRoom()
const dayMs = 86_400_000

/** A drip whose fish are in its vessel, begun by whoever forgot it. */
async function drippingRun(): Promise<string> {
  const room = app.room()
  const nowMs = Date.now()
  const crate = await openedLine(room, { species: 'Cherry barb', count: 6, bags: 2, tank: 'R1-01' }, {}, nowMs)
  const subject = await room.get<BenchSubject>(`/api/bench/subject?line=${crate.lines[0]?.id}`)
  const { id } = await room.post<{ id: string }>('/api/bench/runs', {
    ...{ kind: 'acclimation', schoolKey: 'drip', agentId: null, tankId: subject.tank?.id ?? null, toOutside: null, isPooled: true, vessel: 'bucket', vesselL: 20, dropsPerMl: 20, isDark: false, sentence: null, predicted: null, happenedAtMs: nowMs },
    sources: subject.sources.map(({ placeId, lotId, quantity }) => ({ placeId, lotId, quantity })),
    figures: Object.fromEntries(figureInputs.map(({ name }) => [name, subject.figures[name]?.value ?? null])),
    words: subject.words,
  })
  for (const stepIndex of [0, 1]) await room.post(`/api/bench/runs/${id}/steps`, { stepIndex, happenedAtMs: nowMs })
  return id
}

test('a run that stood for twelve days says that its water is not known, and asks where its fish are before it ends', async () => {
  const id = await drippingRun()
  await app.room().standAt(Date.now() + 12 * dayMs)
  await app.open(`/bench/runs/${id}`)
  expect(await screen.findByText(/^This run has stood open for 12 days: its water is not reckoned any more/)).toBeTruthy()
  expect(screen.queryByRole('table', { name: 'Water now' })).toBeNull()
  await press('end this run early')
  await press('End it')
  expect(await problemBeside('why it ends')).toBe('Reason is missing')
  await type('why it ends', 'forgotten')
  await press('End it')
  expect(await problemBeside(/^tank that the 6 fish/)).toBe('6 fish stand in the vessel: say which tank they are in')
  expect(await fieldValue('why it ends')).toBe('forgotten')
  const { tanks } = await app.room().get<{ tanks: { id: string; code: string }[] }>('/api/room')
  await choose(/^tank that the 6 fish/, tanks.find(({ code }) => code === 'R1-02')?.id ?? '')
  await press('End it')
  await allSent()
  expect(await app.room().get<RunView>(`/api/bench/runs/${id}`)).toMatchObject({ inVessel: 0, outcome: 'stopped: forgotten' })
  expect(await app.room().stock()).toEqual({ 'R1-02': { 'Cherry barb': 6 } })
})
