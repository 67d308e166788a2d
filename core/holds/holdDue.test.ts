import { expect, test } from '@jest/globals'
import { decideDue, holdDayDue, pairingDue, readyDue } from './holdDue'

const hourMs = 3_600_000

test('what waits for a word, and what is ready, is said once, however many; nothing says nothing', () => {
  const sign = { word: 'spots', tankCode: 'R1-01', lastMs: 5 }
  expect([decideDue([]), readyDue([])]).toEqual([[], []])
  expect([decideDue([sign]), decideDue([sign, sign])].flat().map(({ what, about }) => [what, about])).toEqual([['one thing to decide', 'spots, R1-01'], ['2 things to decide', 'spots, R1-01']])
  expect(decideDue([{ ...sign, word: 'hose between A and B', tankCode: '' }])[0]?.about).toBe('hose between A and B')
  const fish = { species: 'Cherry barb', tankCode: 'R1-01' }
  expect([readyDue([fish]), readyDue([fish, fish])].flat().map(({ what, about }) => [what, about])).toEqual([['ready: let them go', 'R1-01 Cherry barb'], ['2 groups are ready: let them go', 'R1-01 Cherry barb and others']])
})

test('a pairing asks for its next look, for a missed one now, and for none once it is decided', () => {
  const look = (h: number, isMade: boolean, isMissed = false) => ({ h, dueAtMs: h * hourMs, isMade, isMissed })
  const pairing = { id: 'p', state: 'running' as const, tankCode: 'Q1-02', lots: ['barbs 1', 'barbs 2'] as [string, string], looks: [look(24, true), look(48, false), look(72, false)] }
  expect(pairingDue(pairing, 30 * hourMs)).toMatchObject([{ what: 'pairing: look 2 of 3', where: 'Q1-02', byMs: 48 * hourMs, urgency: 'later', detail: null }])
  expect(pairingDue({ ...pairing, looks: [look(24, true), look(48, false, true)] }, 70 * hourMs)).toMatchObject([{ urgency: 'now', detail: 'missed; look now' }])
  expect(holdDayDue({ tankId: 't', tankCode: 'R1-01', about: 'Cherry barb', atMs: 5 })).toMatchObject({ kind: 'hold day', what: 'hold may be ready', where: 'R1-01', byMs: 5, urgency: 'later' })
  expect([pairingDue({ ...pairing, state: 'passed' }, 0), pairingDue({ ...pairing, looks: [look(24, true)] }, 0)]).toEqual([[], []])
})
