import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { goneAfterDays, shippedAgents } from '../dosing/agents'
import { heldTanks, startAt } from '../testing/heldRoom'
import { clockOf } from './holdClock'
import { dayWords, holdDay, runningDay } from './holdDay'
import { eventsInForce, type HoldEvent } from './holdEvents'
import { emptyRoom, groupOf, type HoldRoom } from './holdRoom'
import { whatIf, type Supposed } from './holdWhatIf'
import { playHolds } from './playHolds'
import { policiesById, shippedPolicies } from './shippedHolds'

// What a glass, a move and tank choice say of a hold is what its clock says.
type Made<Event = HoldEvent> = Event extends HoldEvent ? Omit<Event, 'id' | 'at'> : never
function after(days: number, rows: readonly (readonly [day: number, event: Made])[]): HoldRoom {
  const now = startAt + days * 1440
  const events = rows.map(([day, event], index) => ({ ...event, id: `e${index}`, at: startAt + day * 1440 }) as HoldEvent)
  return playHolds(emptyRoom({ timeZone: 'UTC', tanks: heldTanks, policies: policiesById(), goneAfter: goneAfterDays(shippedAgents) }), eventsInForce(events, now), now)
}
const come = (lot: string, tank: string, policy: string | null): Made => ({ kind: 'arrive', lot, tank, n: 5, policy })
const dayAt = (room: HoldRoom, lot: string, tank: string) => holdDay(room, groupOf(room, lot, tank)!)
const supposed = (room: HoldRoom, days: number, event: Supposed) => whatIf(room, [event], startAt + days * 1440)

test('days over all phases: on its way, served and waiting, not held, and such as ask for nothing', () => {
  const room = after(5, [[0, come('a', 'Q1-01', 'shopHold')], [0, come('b', 'S1-01', null)], [0, come('c', 'S1-01', 'none')]])
  expect(dayAt(room, 'a', 'Q1-01')).toMatchObject({ day: 6, of: 14, isServed: false, waitsFor: ['days'], added: { by: 'tank', days: 5 } })
  expect([dayAt(room, 'b', 'S1-01'), dayAt(room, 'c', 'S1-01')]).toEqual([null, null])
  const late = dayAt(after(20, [[0, come('a', 'Q1-01', 'shopHold')]]), 'a', 'Q1-01')
  expect([late?.day, late?.isServed, late?.waitsFor]).toEqual([21, false, ['eating', 'looked']])
  expect([dayWords({ day: 3, of: 14 }), dayWords({ day: 15, of: 14 }), runningDay(late), runningDay(null)]).toEqual(['day 3 of 14', '14 days served', 21, null])
})

test('what fish added would cost is what supposing them says, under every policy and on every day', () => {
  fc.assert(
    fc.property(fc.constantFrom(...shippedPolicies.map(({ id }) => id)), fc.integer({ min: 0, max: 40 }), (policy, days) => {
      const room = after(days, [[0, come('a', 'Q1-01', policy)]])
      const { added } = dayAt(room, 'a', 'Q1-01') ?? { added: null }
      for (const tank of ['Q1-01', 'Q1-02', 'Q2-01']) {
        const { rows } = supposed(room, days, { kind: 'arrive', lot: 'new', tank, n: 1, policy: 'shopHold' })
        const lost = rows.filter(({ lot }) => lot === 'a').reduce((sum, row) => sum + row.lost, 0)
        const isReached = added !== null && (tank === 'Q1-01' || (tank === 'Q1-02' && added.by === 'water'))
        expect(lost).toBe(isReached ? added.days : 0)
      }
    }),
    { numRuns: 150 },
  )
})

test('fish without a hold are warned of where they would come to held ones, and not where they stand beside them already', () => {
  const room = after(2, [[0, come('a', 'Q1-01', 'shopHold')], [0, come('old', 'Q1-02', null)], [0, come('far', 'S1-01', null)]])
  const moved = (lot: string, from: string, to: string) => supposed(room, 2, { kind: 'move', lot, from, to, n: 2 }).unprotected
  expect([moved('old', 'Q1-02', 'Q1-01'), moved('far', 'S1-01', 'Q1-02'), moved('old', 'Q1-02', 'S1-01')]).toEqual([[], [{ lot: 'far', tank: 'Q1-02' }], []])
  expect(clockOf(room, 'old', 'Q1-02').status).toBe('noHold')
})
