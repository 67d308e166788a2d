import { describe, expect, test } from '@jest/globals'
import { withPendingBags as withWaiting, type BagView, type CrateView, type PendingBagCommand } from '../../core/crates/crateView'
import { waiting } from '../../core/testing/waiting'
import { noHandling } from '../../core/species/handling'
import { bagsAlike, currentBag, draftOfRecord, lastRecorded, plainDraft, sharesByTank, toRecord } from './bagDraft'
import { notKept } from '../../core/species/keptIn'

const withPendingBags = (crate: CrateView, entries: readonly PendingBagCommand[]): CrateView => withWaiting(crate, waiting({ crateId: crate.id }, entries))
const bag = (id: string, lineId: string, listed: number): BagView => ({ id, lineId, number: Number(id.slice(1)), listed, record: null, inBag: 0, photos: [], runId: null })
const line = (id: string, tank: string | null) => ({ id, position: 1, species: `fish of ${id}`, count: 1, lotId: id, lotCode: id, tank: tank ? { id: tank, code: tank } : null, origin: null, strain: null, identity: null, promisedTo: null, billed: null, sizeCm: null, priceEach: null, capture: null, ateBefore: null, note: null, handling: noHandling, lookAlikes: [], told: null, animal: null, kept: notKept, tankWater: {}, version: 1 })
const crate: CrateView = {
  ...{ id: 'c', number: 1, supplier: 's', expectedAtMs: null, packedAtMs: null, arrivedAtMs: null, note: null, version: 1 },
  ...{ claimWindowHours: null, claimState: null, closedAtMs: null, carrier: null, shippingWater: null, method: null, hasList: true, box: null, boxVersion: 1, closedBecause: null },
  lines: [line('l1', 'R1-10'), line('l2', 'R1-2'), line('l3', null)],
  lastPlacement: null,
  went: [],
  bags: [bag('b1', 'l1', 8), bag('b2', 'l1', 8), bag('b3', 'l1', 6), bag('b4', 'l2', 5), bag('b5', 'l3', 2)],
}
const recorded = (ids: string[], alive: number, key: string, staffId = 'me', happenedAtMs = 1) =>
  ({ command: 'recordBags', key, staffId, input: { ...toRecord(plainDraft(crate.bags[0]!), ids), alive, happenedAtMs } }) as const

describe('the bag in hand', () => {
  test('follows the chosen line, then the list', () => {
    expect(currentBag(crate, null)?.id).toBe('b1')
    expect(currentBag(crate, 'l2')?.id).toBe('b4')
    expect(currentBag(withPendingBags(crate, [recorded(['b4'], 5, 'k')]), 'l2')?.id).toBe('b1')
    expect(currentBag(withPendingBags(crate, [recorded(['b1', 'b2', 'b3', 'b4', 'b5'], 5, 'k')]), null)).toBeNull()
  })

  test('"the same" is offered only for bags that promise the same', () => {
    expect(bagsAlike(crate, crate.bags[0]!).map(({ id }) => id)).toEqual(['b1', 'b2'])
    expect(bagsAlike(crate, crate.bags[2]!).map(({ id }) => id)).toEqual(['b3'])
  })

  test('undo names my last touch, all its bags, and only while their fish are in them', () => {
    const opened = withPendingBags(crate, [recorded(['b1', 'b2'], 8, 'k1', 'me', 1), recorded(['b3'], 6, 'k2', 'other', 2)])
    expect(lastRecorded(opened, 'me').map(({ id }) => id)).toEqual(['b1', 'b2'])
    expect(lastRecorded(opened, 'nobody')).toEqual([])
    const placed = withPendingBags(opened, [{ command: 'placeBags', key: 'k3', staffId: 'me', input: { tankId: 'R1-10', happenedAtMs: 3 } }])
    expect(lastRecorded(placed, 'me')).toEqual([])
    expect(draftOfRecord(opened.bags[0]!)).toMatchObject({ bagId: 'b1', alive: 8, dead: 0 })
  })

  test('fish are shared out by tank in rack order; a line without a tank is told', () => {
    const opened = withPendingBags(crate, [recorded(['b1', 'b4', 'b5'], 5, 'k1')])
    expect(sharesByTank(opened)).toMatchObject({ shares: [{ code: 'R1-2', fish: 5 }, { code: 'R1-10', fish: 5 }], homeless: [{ id: 'l3' }] })
  })
})

describe('what waits on the device', () => {
  test('a command the server knows already changes nothing', () => {
    const once = withPendingBags(crate, [recorded(['b1'], 7, 'k1')])
    expect(withPendingBags(once, [recorded(['b1'], 3, 'k2')])).toEqual(once)
  })

  test('an undo gives the bag back', () => {
    const undone = withPendingBags(crate, [recorded(['b1'], 7, 'k1'), { command: 'undoBags', key: 'k2', staffId: 'me', input: { bagIds: ['b1'], happenedAtMs: 2 } }])
    expect(undone.bags[0]).toEqual(crate.bags[0])
  })
})
