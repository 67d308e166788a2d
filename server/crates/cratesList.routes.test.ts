import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { closedPage, type CrateList } from '../../core/crates/crateView'
import { createTestRoom, testNowMs, type TestRoom } from '../testing/testRoom'

let room: TestRoom
const closed = closedPage + 3
beforeAll(async () => {
  room = await createTestRoom()
  await room.crateOf([['Cherry barb', 6, 1, null]])
  const { raw } = room.db
  const { id } = raw.prepare('SELECT id FROM supplier').get() as { id: string }
  for (let number = 2; number < closed + 2; number += 1) raw.prepare('INSERT INTO crate (id, number, supplier_id, created_at_ms, closed_at_ms) VALUES (?, ?, ?, 1, ?)').run(`c${number}`, number, id, testNowMs - 1000 + number)
})
afterAll(() => room.db.close())

const numbers = async (query: string) => {
  const { crates, hasOlder } = (await room.get(`/api/crates${query}`)).body as CrateList
  return [crates.length, crates[0]?.number, crates.at(-1)?.number, crates.at(-2)?.number, hasOlder]
}

test('every open crate is listed however old, and of the closed ones the newest; older ones are asked for', async () => {
  const newest = [closedPage + 1, closed + 1, 1, 5, true]
  expect(await numbers('')).toEqual(newest)
  expect(await numbers('?closed=100')).toEqual([closed + 1, closed + 1, 1, 2, false])
  for (const odd of ['?closed=-5', '?closed=all', '?closed=1&closed=2', '?closed=3']) expect(await numbers(odd)).toEqual(newest)
})
