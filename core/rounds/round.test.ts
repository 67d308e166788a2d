import { expect, test } from '@jest/globals'
import { planTankCodes } from '../room/planTankCodes'
import { tankFlag } from '../room/tankFlag'
import { noHandling } from '../species/handling'
import { waiting } from '../testing/waiting'
import { withPendingTouches } from './pendingRound'
import { isQuiet, type RoundView } from './roundView'

test.each([
  [{ signs: ['spots', 'on its side'], ate: 'some', lostToday: 2 } as const, { level: 'harm', word: 'on side' }],
  [{ signs: ['spots'], ate: 'some', lostToday: 2 } as const, { level: 'harm', word: '2 lost' }],
  [{ signs: ['clamped fins'], ate: 'none', lostToday: 0 } as const, { level: 'watch', word: 'clamped' }],
  [{ signs: [], ate: 'none', lostToday: 0 } as const, { level: 'watch', word: 'ate none' }],
  [{ signs: [], ate: 'some', lostToday: 0 } as const, { level: 'watch', word: 'ate some' }],
  [{ signs: [], ate: 'not fed', lostToday: 0 } as const, null],
  [{ signs: [], ate: null, lostToday: 0 } as const, null],
])('the gravest word stands on the glass: %j', (signs, flag) => expect(tankFlag(signs)).toEqual(flag))

test('racks are coded shelf by shelf, and go on where they ended', () => {
  expect(planTankCodes('R1', 3, 2)).toEqual([
    { code: 'R1-01', shelf: 1, position: 1 },
    { code: 'R1-02', shelf: 1, position: 2 },
    { code: 'R1-03', shelf: 2, position: 1 },
  ])
  expect(planTankCodes('R1', 1, 4, { tanks: 9, shelves: 3 })).toEqual([{ code: 'R1-10', shelf: 4, position: 1 }])
  expect(() => planTankCodes('R1', 0, 2)).toThrow(RangeError)
  expect(() => planTankCodes('R1', 2, 1.5)).toThrow(RangeError)
})

test('touches that wait on the device show at once: the newest check of each tank in its own round, fish lost in any', () => {
  const stock = [{ lotId: 'l', lotCode: 'L', species: 'Cherry barb', quantity: 8, origin: '', sinceMs: 0, handling: noHandling }]
  const round = { id: '2031-05-04-1', on: '2031-05-04', number: 1, emptyTanks: [], stops: [{ tankId: 'a', check: null, stock }, { tankId: 'b', check: null, stock }] } as unknown as RoundView
  const check = { tankId: 'a', roundId: '2031-05-04-1', roundNumber: 1, ate: 'none', signs: [], seen: null, note: null, replacesId: null, happenedAtMs: 1 } as const
  const checks = [check, { ...check, ate: 'all' }, { ...check, tankId: 'b', roundId: '2031-05-03-1' }, { ...check, tankId: 'b', roundId: undefined }].map((input, nth) => ({ command: 'recordCheck', key: `k${9 - nth}`, input }))
  const loss = { command: 'recordLoss', key: 'l', params: { tankId: 'b' }, input: { lotId: 'l', quantity: 3, cause: null, note: null, happenedAtMs: 1 } }
  const shown = withPendingTouches(round, waiting({}, [...checks, loss]))
  expect(shown.stops.map((each) => [each.check?.ate ?? null, each.stock[0]?.quantity])).toEqual([['all', 8], [null, 5]])
  // One that waits is named by its key, so that it can be corrected before the server knows it.
  expect(shown.stops[0]?.check?.id).toBe('k8')
  expect(withPendingTouches(round, waiting({}, [{ ...loss, isTouch: false }])).stops[1]?.stock[0]?.quantity).toBe(8)
  const quiet = { ate: 'all', signs: [], answers: [], counts: [], seen: null, note: null } as const
  expect([isQuiet({ ...quiet, signs: [], answers: [], counts: [] }), isQuiet({ ...quiet, signs: [], answers: [], counts: [], seen: 4 })]).toEqual([true, false])
})
