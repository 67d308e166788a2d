import { afterEach, beforeEach, expect, test } from '@jest/globals'
import type { FloorRack, FloorView } from '../../core/room/floor'
import type { RoundView } from '../../core/rounds/roundView'
import { createTestRoom, type TestRoom } from '../testing/testRoom'

let room: TestRoom
beforeEach(async () => {
  room = await createTestRoom({ tankCount: 4 })
})
afterEach(() => room.db.close())

const floor = async (): Promise<FloorView> => (await room.get('/api/floor')).body as FloorView
const tank = async (code: string) => {
  const found = (await floor()).tanks.find((each) => each.code === code)
  if (!found) throw new Error(`there is no ${code}`)
  return found
}
/** What of a rack is arranged. */
const sent = (rack: FloorRack | undefined) => (rack ? { rack: rack.rack, shelves: rack.shelves, perShelf: rack.perShelf, x: rack.x, y: rack.y, isTurned: rack.isTurned, version: rack.version } : {})
const placed = ({ id, version }: { id: string; version: number }, rack: string, shelf: number, position: number) => ({ id, rack, shelf, position, version })

test('tanks change places, all or none, each with its version; codes stay', async () => {
  const [a, b] = [await tank('R1-01'), await tank('R1-02')]
  expect((await room.put('/api/floor/tanks', { tanks: [placed(a, 'R1', 1, 2), placed(b, 'R1', 1, 1)] })).status).toBe(200)
  expect([(await tank('R1-01')).position, (await tank('R1-02')).position]).toEqual([2, 1])
  const stale = await room.put('/api/floor/tanks', { tanks: [placed(a, 'R1', 1, 1), placed(await tank('R1-02'), 'R1', 1, 2)] })
  expect([stale.status, stale.body.detail]).toEqual([409, 'Somebody else changed R1-01 meanwhile'])
  expect([(await tank('R1-01')).position, (await tank('R1-02')).position]).toEqual([2, 1])
})

test('what cannot be is said, and nothing is moved', async () => {
  const [a, b] = [await tank('R1-01'), await tank('R1-02')]
  const problem = async (tanks: object[]): Promise<string> => (await room.put('/api/floor/tanks', { tanks })).body.errors[0].message as string
  expect(await problem([placed(a, 'R1', 1, 2)])).toBe('Two tanks cannot stand on R1, shelf 1, place 2')
  expect(await problem([placed(a, 'R1', 2, 1)])).toBe('R1 has 1 shelves of 4')
  expect(await problem([placed(a, 'Z9', 1, 1)])).toBe('There is no rack Z9')
  expect(await problem([placed(a, 'R1', 1, 1), placed(a, 'R1', 1, 1)])).toBe('A tank is named twice')
  expect(await problem([{ ...placed(b, 'R1', 1, 1), id: 'none' }])).toBe('There is no such tank')
  expect([(await tank('R1-01')).position, (await tank('R1-02')).position]).toEqual([1, 2])
})

test('a rack grows by a shelf, takes a tank there, and is never smaller than its tanks', async () => {
  const [rack] = (await floor()).racks
  const size = (more: object) => room.put('/api/floor/racks', { racks: [{ ...sent(rack), ...more }] })
  expect((await size({ shelves: 2 })).status).toBe(200)
  expect((await room.put('/api/floor/tanks', { tanks: [placed(await tank('R1-04'), 'R1', 2, 1)] })).status).toBe(200)
  expect((await size({ shelves: 1, version: 1 })).body.errors[0].message).toBe('Tanks stand on 2 shelves of 3 there')
  expect((await size({ shelves: 3 })).body.detail).toBe('Somebody else changed rack R1 meanwhile')
})

test('the round is walked by the racks as they stand on the floor', async () => {
  const rack = async (name: string) => ((await room.post('/api/systems', { name: `Rack ${name}`, water: 'fresh', sharing: 'each its own', sumpL: null, rack: name, tankCount: 1, perShelf: 4, tankKind: 'glass', netVolumeL: 60 })).body.tanks as { id: string; code: string }[])[0]
  for (const one of [room.tanks[0], await rack('Y1'), await rack('Z1')]) await room.addFish(one as { id: string; code: string }, 'Cherry barb', 5)
  const walk = async (): Promise<string[]> => ((await room.get('/api/rounds/today')).body as RoundView).stops.map(({ code }) => code)
  // Side by side in the order of their names, until somebody says where they stand.
  expect((await walk())[1]).toBe('Y1-01')
  const racks = (await floor()).racks.map((each) => ({ ...sent(each), x: { Z1: 1, R1: 15, Y1: 30 }[each.rack] ?? 0, y: 0 }))
  await room.put('/api/floor/racks', { racks })
  await room.put('/api/floor/sinks', { sinks: [{ x: 0, y: 0 }] })
  expect((await walk())[1]).toBe('R1-01')
})
