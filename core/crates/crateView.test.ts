import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { noHandling } from '../species/handling'
import { waiting } from '../testing/waiting'
import { totalBags, withPendingBags as withWaiting, type BagView, type CrateView, type PendingBagCommand } from './crateView'
import { crateStage } from './crateSummary'
import { notKept } from '../species/keptIn'

const withPendingBags = (crate: CrateView, entries: readonly PendingBagCommand[]): CrateView => withWaiting(crate, waiting({ crateId: crate.id }, entries))
const plain = { concerns: [], body: null, skinTempC: null, waterTempC: null, salinityPpt: null, note: null, happenedAtMs: 1 }
const unsaid = { origin: null, strain: null, identity: null, promisedTo: null, billed: null, sizeCm: null, priceEach: null, capture: null, ateBefore: null, note: null }
const bag = (index: number, listed: number): BagView => ({ id: `b${index}`, lineId: `l${index % 3}`, number: index + 1, listed, record: null, inBag: 0, photos: [], runId: null })
const crateOf = (listed: number[]): CrateView => ({
  ...{ id: 'c', number: 1, supplier: 's', expectedAtMs: null, packedAtMs: null, arrivedAtMs: null, lastPlacement: null, went: [], note: null, version: 1 },
  ...{ claimWindowHours: null, claimState: null, closedAtMs: null, carrier: null, shippingWater: null, method: null, hasList: true, box: null, boxVersion: 1, closedBecause: null },
  // The third line has no tank yet.
  lines: [0, 1, 2].map((line) => ({ id: `l${line}`, position: line + 1, species: 'x', count: 1, lotId: `lot${line}`, lotCode: 'x', tank: line === 2 ? null : { id: `t${line}`, code: `R1-0${line}` }, ...unsaid, handling: noHandling, lookAlikes: [], animal: null, kept: notKept, tankWater: {}, told: null, version: 1 })),
  bags: listed.map((fish, index) => bag(index, fish)),
})
const record = (index: number, alive: number, dead: number): PendingBagCommand => ({ command: 'recordBags', key: `k${index}`, staffId: 's', input: { ...plain, bagIds: [`b${index}`], alive, dead } })
const undo = (index: number): PendingBagCommand => ({ command: 'undoBags', key: `u${index}`, staffId: 's', input: { bagIds: [`b${index}`], happenedAtMs: 2 } })
const place = (tankId: string | null): PendingBagCommand => ({ command: 'placeBags', key: `p${tankId}`, staffId: 's', input: { tankId, happenedAtMs: 3 } })

describe('totals', () => {
  test('a short in one bag does not hide an extra in another', () => {
    const crate = withPendingBags(crateOf([8, 8, 5]), [record(0, 7, 0), record(1, 8, 1)])
    expect(totalBags(crate.bags)).toEqual({ bags: 3, opened: 2, listed: 21, alive: 15, dead: 1, short: 1, extra: 1, inBags: 15, placed: 0 })
  })

  test.each([
    [{ bags: 3, opened: 0, inBags: 0 }, 'due'],
    [{ bags: 3, opened: 1, inBags: 8 }, 'opening'],
    [{ bags: 3, opened: 3, inBags: 8 }, 'placing'],
    [{ bags: 3, opened: 3, inBags: 0 }, 'done'],
  ])('%j is %s', (totals, stage) => expect(crateStage(totals, null)).toBe(stage))

  const commands = (bags: number): fc.Arbitrary<PendingBagCommand[]> => {
    const index = fc.nat({ max: bags - 1 })
    const fish = fc.nat({ max: 20 })
    return fc.array(fc.oneof(fc.tuple(index, fish, fish).map(([at, alive, dead]) => record(at, alive, dead)), index.map(undo), fc.constantFrom('t0', 't1', null).map(place)), { maxLength: 30 })
  }
  const scene = fc.array(fc.integer({ min: 1, max: 20 }), { minLength: 1, maxLength: 9 }).chain((listed) => fc.tuple(fc.constant(listed), commands(listed.length)))

  test('whatever waits: every living fish is in its bag or placed, none twice, and parts add up to the whole', () => {
    fc.assert(
      fc.property(scene, ([listed, pending]) => {
        const crate = withPendingBags(crateOf(listed), pending)
        const totals = totalBags(crate.bags)
        expect(totals.inBags + totals.placed).toBe(totals.alive)
        expect(Math.min(totals.inBags, totals.placed, totals.short, totals.extra)).toBeGreaterThanOrEqual(0)
        const opened = crate.bags.filter((each) => each.record)
        expect(totals.alive + totals.dead).toBe(opened.reduce((sum, each) => sum + each.listed, 0) + totals.extra - totals.short)
        const byLine = crate.lines.map((line) => totalBags(crate.bags.filter((each) => each.lineId === line.id)))
        expect(byLine.reduce((sum, each) => sum + each.alive, 0)).toBe(totals.alive)
        // Fish of a line without a tank stay where they are.
        expect(byLine[2]?.placed).toBe(0)
      }),
    )
  })

  test('laying the same commands over once more changes nothing about opened bags', () => {
    fc.assert(
      fc.property(scene, ([listed, pending]) => {
        const records = pending.filter((each) => each.command === 'recordBags')
        const once = withPendingBags(crateOf(listed), records)
        expect(withPendingBags(once, records)).toEqual(once)
      }),
    )
  })

  test('bags that no list speaks of stand there before the server knows of them, and are not there twice once it does', () => {
    const added: PendingBagCommand = { command: 'addBag', key: 'a', staffId: 's', input: { species: 'Kuhli loach', bagIds: ['x', 'y'], alive: 3, dead: 1, concerns: ['water'], note: null, happenedAtMs: 4 } as never }
    const more: PendingBagCommand = { command: 'addBag', key: 'm', staffId: 's', input: { species: 'Kuhli loach', lineId: 'pending-a', bagIds: ['z'], alive: 2, dead: 0, note: null, happenedAtMs: 5 } as never }
    const crate = withPendingBags({ ...crateOf([8]), hasList: false }, [added, more])
    expect(crate.bags.map(({ number, inBag, lineId }) => [number, inBag, lineId])).toEqual([[1, 0, 'l0'], [2, 3, 'pending-a'], [3, 3, 'pending-a'], [4, 2, 'pending-a']])
    expect([crate.lines.length, crate.lines[3]?.species, crate.bags[1]?.record?.concerns]).toEqual([4, 'Kuhli loach', ['water']])
    expect(withPendingBags(crate, [added, more])).toEqual(crate)
  })

  test('a placing that waits can be named for an undo', () => {
    const crate = withPendingBags(crateOf([8, 8, 5]), [record(0, 8, 0), record(1, 8, 0), place('t0'), place('t0')])
    expect(crate.lastPlacement).toEqual({ key: 'pt0', staffId: 's', fish: 8 })
    expect(crate.bags.map((each) => each.inBag)).toEqual([0, 8, 0])
  })
})
