import { expect, test } from '@jest/globals'
import { waiting } from '../testing/waiting'
import { addressOf, named, read } from './declare'
import { shownWith } from './pending'
import { word, words, wholeUpTo } from './queryFields'
import { booksOf, rereadAfterMs } from './stream'
import { meets } from './things'
import { object } from 'yup'

test.each([
  [['crate:7'], ['crate:7'], true],
  [['crate:7'], ['crate:8'], false],
  [['crate:7'], ['crate'], true],
  [['crate'], ['crate:8', 'look'], true],
  [['look:a', 'round'], ['tank:a', 'run'], false],
  [[], ['crate'], false],
])('what was touched, %j, meets what is told of, %j: %s', (touched, about, isMet) => expect([meets(touched, about), meets(about, touched)]).toEqual([isMet, isMet]))

test('a device that listens alone reads at once; of fifty each waits its own while, and none for ever', () => {
  expect([rereadAfterMs(1, 0.9), rereadAfterMs(2, 1), rereadAfterMs(50, 0), rereadAfterMs(50, 0.5), rereadAfterMs(5000, 1)]).toEqual([100, 180, 100, 2060, 5100])
})

test('an answer goes by its books, whatever the clock', () => {
  expect([booksOf('"a.17.1.0.60000x3"'), booksOf('"a.17.1.0."'), booksOf('')]).toEqual(['a.17.1.0', 'a.17.1.0', ''])
})

test('what the server had answered before an answer was asked for is in it, and is not shown twice', () => {
  const { count } = named({ count: read({ path: '/api/count', access: 'device', about: () => [], staysMs: 0, withPending: (answer: { fish: number }, pending) => ({ fish: answer.fish - pending.length }), answer: undefined as { fish: number } | undefined }) })
  const [open, answered] = waiting({}, [{ command: 'recordLoss', key: 'a', input: {} }, { command: 'recordLoss', key: 'b', input: {}, answeredAt: 5 }])
  const shown = (askedAt: number) => shownWith(count, { fish: 9 }, askedAt, [open!, answered!], {}).fish
  expect([shown(4), shown(6)]).toEqual([7, 8])
  expect(addressOf(count, {})).toBe('/api/count')
})

test('a query that anybody can change is read for what fits, and the rest counts as not asked for', () => {
  const query = object({ q: word(5), entries: wholeUpTo(100, 40), line: words(3) })
  const read = (asked: unknown): unknown => query.validateSync(asked, { strict: false, stripUnknown: true })
  expect(read({})).toEqual({ q: null, entries: 40, line: [] })
  expect(read({ q: 'barb', entries: '7', line: 'a', other: 'x' })).toEqual({ q: 'barb', entries: 7, line: ['a'] })
  expect(read({ q: ['a', 'b'], entries: '1e9', line: ['a', 'toolong', 'b'] })).toEqual({ q: null, entries: 40, line: ['a', 'b'] })
  expect(read({ q: 'longer than it may be', entries: '99999', line: {} })).toEqual({ q: null, entries: 100, line: [] })
})
