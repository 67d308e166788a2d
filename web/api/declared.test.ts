import { expect, test } from '@jest/globals'
import { addressOf } from '../../core/commands/declare'
import { limitsApi } from '../../core/limits/limits.api'
import { roomApi } from '../../core/room/room.api'
import type { Write } from './useOutbox'
import type { useRead } from './useRead'

// A canary for the compiler: a page that writes or asks another shape than is declared must not compile, and `npm run types`
// says so where one does. Beside each stands what does compile.

const [label, push] = ['limit', { refusals: 'form' } as const]
const body = { value: 14, source: null, version: 0 }

export const compiles = (write: Write, read: typeof useRead) => [
  write(limitsApi.changeLimit, { params: { key: 'shopHoldDays' }, body, label }, push),
  read(roomApi.readTank, { params: { code: 'R1-01' }, query: { entries: 40 } }).data?.stock,
]

export const doesNotCompile = (write: Write, read: typeof useRead) => [
  // @ts-expect-error -- a body of another shape
  write(limitsApi.changeLimit, { params: { key: 'shopHoldDays' }, body: { ...body, value: '14' }, label }, push),
  // @ts-expect-error -- a body with a field missing
  write(limitsApi.changeLimit, { params: { key: 'shopHoldDays' }, body: { value: 14 }, label }, push),
  // @ts-expect-error -- an address that is left open
  write(limitsApi.changeLimit, { body, label }, push),
  // @ts-expect-error -- a write that is not declared
  write({ name: 'changeLimit', method: 'put', path: '/api/house-limits/:key' }, { params: { key: 'shopHoldDays' }, body, label }, push),
  // @ts-expect-error -- a question that is not declared
  read('/api/house-limits', {}),
  // @ts-expect-error -- an address that is left open
  read(roomApi.readTank, {}),
  // @ts-expect-error -- a query that is not declared
  read(roomApi.readTank, { params: { code: 'R1-01' }, query: { page: 2 } }),
  // @ts-expect-error -- what the answer does not hold
  read(roomApi.readRoom, {}).data?.crates,
]

test('an address is written from its declaration, whatever stands in its names', () => {
  expect(addressOf(roomApi.readTank, { code: 'R1 01/ä' }, { entries: 40, other: null })).toBe('/api/tanks/R1%2001%2F%C3%A4?entries=40')
  expect(addressOf({ path: '/api/bench/subject' }, {}, { line: ['a', 'b'], bag: null })).toBe('/api/bench/subject?line=a&line=b')
})
