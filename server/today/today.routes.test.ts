import { afterEach, beforeEach, describe, expect, test } from '@jest/globals'
import type { FindAnswer } from '../../core/find/find'
import { nextStep, type TodayView } from '../../core/today/todayView'
import { createTestRoom, plainBag, quietCheck, type TestRoom } from '../testing/testRoom'

const dayMs = 86_400_000
let room: TestRoom
beforeEach(async () => void (room = await createTestRoom()))
afterEach(() => room.db.close())

const today = async (): Promise<TodayView> => (await room.get('/api/today')).body
const check = (tank: number, ate: string) => room.post('/api/checks', { ...quietCheck(room.tanks[tank]!.id), ate, happenedAtMs: room.clock.nowMs })

/** A crate of cherry barbs opened now and placed in the first tank. */
async function openCrate(species = 'Cherry barb'): Promise<void> {
  const crate = await room.crateOf([[species, 6, 1, room.tanks[0]!]])
  await room.post(`/api/crates/${crate.id}/bags`, { ...plainBag([crate.bags[0].id], 6), happenedAtMs: room.clock.nowMs })
  await room.post(`/api/crates/${crate.id}/placements`, { tankId: null, happenedAtMs: room.clock.nowMs })
}

describe('today', () => {
  test('a new room is led from step to step to its first crate', async () => {
    expect(nextStep((await today()).counts)).toBe('suppliers')
    await room.post('/api/setup/suppliers', { values: { name: 'Hollow Reed', shippingTempC: null, shippingSalinityPpt: null, shippingPh: null, shippingAlkalinityMeqL: null, usualWater: null, claimWindowHours: null, claimRules: null, transitHours: null, note: null } })
    expect(nextStep((await today()).counts)).toBe('species')
    await room.post('/api/setup/species/adoptions', { names: ['Cherry barb'] })
    expect(nextStep((await today()).counts)).toBe('crates')
    await room.crateOf([['Cherry barb', 6, 1, null]])
    expect(nextStep((await today()).counts)).toBeNull()
  })

  test('crates that are not out of their bags come first, those due by when they are due', async () => {
    const due = (supplier: string, hours: number) => room.post('/api/crates', { supplier, expectedAtMs: room.clock.nowMs + hours * 3_600_000, packedAtMs: null, lines: [{ species: 'Kuhli loach', count: 4, bags: 2, perBag: null, tankId: null }] })
    await due('Late', 8)
    await due('Soon', 2)
    const open = await room.crateOf([['Cherry barb', 6, 2, null]])
    await room.post(`/api/crates/${open.id}/bags`, plainBag([open.bags[0].id], 3))
    await openCrate()
    expect((await today()).crates.map(({ supplier, openedCount }) => [supplier, openedCount])).toEqual([['Hollow Reed Hatchery', 1], ['Soon', 0], ['Late', 0]])
  })

  test('tanks nobody looked at, until somebody does', async () => {
    await room.addFish(room.tanks[0], 'Cherry barb', 3)
    await room.addFish(room.tanks[1], 'Cherry barb', 3)
    const unchecked = async () => (await today()).unchecked.map(({ code }) => code)
    expect([await unchecked(), (await today()).stockedTanks]).toEqual([['R1-01', 'R1-02'], 2])
    await check(0, 'all')
    expect(await unchecked()).toEqual(['R1-02'])
    room.clock.nowMs += dayMs
    expect(await unchecked()).toEqual(['R1-01', 'R1-02'])
  })

  test('the shop hold counts the room’s days from the opened crate, and the house sets its length', async () => {
    await openCrate()
    const hold = async () => (await today()).holds.map(({ day, of, isServed, tankCode }) => [day, of, isServed, tankCode])
    expect(await hold()).toEqual([[1, 14, false, 'R1-01']])
    expect((await room.get('/api/tanks/R1-01')).body.hold).toEqual({ day: 1, of: 14 })
    room.clock.nowMs += 13 * dayMs
    expect(await hold()).toEqual([[14, 14, false, 'R1-01']])
    await room.put('/api/house-limits/shopHoldDays', { value: 12, source: null, version: 0 })
    // Its days are served; that they eat, and were looked at today, is asked besides.
    expect([await hold(), (await today()).holds[0]?.waitsFor]).toEqual([[[14, 12, false, 'R1-01']], ['eating', 'looked']])
    await check(0, 'all')
    room.clock.nowMs += dayMs
    await check(0, 'all')
    expect(await hold()).toEqual([[15, 12, true, 'R1-01']])
    expect((await room.get('/api/tanks/R1-01')).body.hold).toBeNull()
    await room.put('/api/house-limits/shopHoldDays', { value: 0, source: null, version: 1 })
    expect(await hold()).toEqual([])
  })

  test('a moved lot keeps its hold; a lot that was here before the books has none', async () => {
    await openCrate()
    const lotId = (await today()).holds[0]!.lotId
    room.clock.nowMs += 3 * dayMs
    await room.post(`/api/tanks/${room.tanks[0]!.id}/moves`, { lotId, quantity: 2, toTankId: room.tanks[1]!.id, note: null, happenedAtMs: room.clock.nowMs })
    await room.addFish(room.tanks[2], 'Kuhli loach', 3)
    expect((await today()).holds.map(({ day, tankCode, quantity }) => [day, tankCode, quantity])).toEqual([[4, 'R1-01', 4], [4, 'R1-02', 2]])
  })

  test('not eating: past the usual delay of its species when new, past the house’s days once it ate', async () => {
    await openCrate('Cherry barb')
    const hungry = async () => (await today()).notEating.map(({ lotCode, isNew, forMs }) => [lotCode, isNew, Math.round(forMs / dayMs)])
    await check(0, 'none')
    expect(await hungry()).toEqual([])
    room.clock.nowMs += 1.5 * dayMs
    await check(0, 'none')
    expect(await hungry()).toEqual([['1-01', true, 2]])
    await check(0, 'some')
    expect(await hungry()).toEqual([])
    room.clock.nowMs += 1.5 * dayMs
    await check(0, 'none')
    expect(await hungry()).toEqual([])
    room.clock.nowMs += dayMs
    // Nobody fed it since, so it has not refused anything more.
    expect(await hungry()).toEqual([])
    await check(0, 'none')
    expect(await hungry()).toEqual([['1-01', false, 3]])
  })

  test('recent losses by tank and lot; one taken back does not count', async () => {
    const lotId = await room.addFish(room.tanks[0], 'Cherry barb', 9)
    const lose = (quantity: number, cause: string) => room.post(`/api/tanks/${room.tanks[0]!.id}/losses`, { lotId, quantity, cause, note: null, happenedAtMs: room.clock.nowMs })
    await lose(1, 'unknown')
    const mistake = (await lose(3, 'jumped')).body
    await room.post(`/api/movements/${mistake.movementIds[0]}/reversal`, { reason: 'not true', happenedAtMs: room.clock.nowMs })
    expect((await today()).losses).toMatchObject([{ tankCode: 'R1-01', quantity: 1, causes: ['unknown'] }])
    // Where two lots stand together nobody knows which it was; all that is known is the kind.
    const other = await room.addFish(room.tanks[0], 'Cherry barb', 5)
    const { speciesId } = (await room.get('/api/tanks/R1-01')).body.stock.find((lot: { lotId: string }) => lot.lotId === other)
    for (let dead = 0; dead < 4; dead += 1) await room.post(`/api/tanks/${room.tanks[0]!.id}/losses`, { speciesId, quantity: 1, cause: 'found dead', note: null, happenedAtMs: room.clock.nowMs })
    expect((await today()).losses.map(({ quantity, isAttributed }) => [quantity, isAttributed]).sort()).toEqual([[1, false], [4, true]])
    room.clock.nowMs += 7 * dayMs
    expect((await today()).losses).toEqual([])
  })
})

test('the find box finds tanks, lots, crates and species, and takes every letter as it is', async () => {
  await openCrate()
  const find = async (words: string) => ((await room.get(`/api/find?q=${encodeURIComponent(words)}`)).body as FindAnswer).hits.map(({ kind, label, to }) => [kind, label, to])
  expect(await find('r1-0')).toHaveLength(4)
  expect(await find('cherry')).toEqual([['lot', 'Cherry barb 1-01', '/room/R1-01'], ['species', 'Cherry barb', '/setup/species?q=Cherry%20barb']])
  expect((await find('titteya'))[0]?.[1]).toBe('Cherry barb')
  expect((await find('hollow'))[0]?.slice(0, 2)).toEqual(['crate', 'crate 1'])
  for (const nothing of ['%', '_', '', '   ', "'; DROP TABLE lot", '\\']) expect(await find(nothing)).toEqual([])
})
