import { expect, test } from '@jest/globals'
import { agentsMet } from './agentsMet'

const [dayMs, startMs] = [86_400_000, Date.UTC(2031, 4, 1)]
const on = (day: number): number => startMs + day * dayMs
const dosed = (agent: string, day: number) => ({ of: 'dose' as const, agent, atMs: on(day) })

test('fish met what was in their water while they stood there, until it was cleared, gone or they left', () => {
  const copper = [dosed('copperIonic', 0), dosed('copperIonic', 3), { of: 'cleared' as const, agent: 'copperIonic', atMs: on(20) }]
  expect(agentsMet([{ fromMs: on(-2), toMs: null, put: copper }], on(30))).toEqual([{ agent: 'copper', lastMs: on(20) }])
  // They left before it was out, and stand where nothing is.
  expect(agentsMet([{ fromMs: on(-2), toMs: on(9), put: copper }, { fromMs: on(9), toMs: null, put: [] }], on(30))).toEqual([{ agent: 'copper', lastMs: on(9) }])
  // They came when it was out.
  expect(agentsMet([{ fromMs: on(21), toMs: null, put: copper }], on(30))).toEqual([])
})

test('what falls apart by itself ends after its days, and what stays counts until today', () => {
  const put = [dosed('praziquantel', 0), { of: 'found' as const, agent: 'salt', atMs: on(1) }]
  expect(agentsMet([{ fromMs: on(0), toMs: null, put }], on(30))).toEqual([{ agent: 'praziquantel', lastMs: on(7) }, { agent: 'salt', lastMs: on(30) }])
})
