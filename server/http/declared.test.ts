import { readFileSync } from 'node:fs'
import { expect, test } from '@jest/globals'
import { calendarApi } from '../../core/due/calendar.api'
import { limitsApi } from '../../core/limits/limits.api'
import { apiFile, declaredRoutes, withRoutes } from '../../scripts/apiDocs'
import { createServices } from '../services'
import { openDatabase } from '../db/open'
import { serve } from './endpoint'

// A canary for the compiler: each of these must not compile, and `npm run types` says so where one does. Beside each stands
// what does compile, so that it is the fault that is refused and nothing else.

const [limits, change] = [() => ({ limits: [] }), () => ({})]
/** What answers the calendar; it needs to know who asks. */
const calendar = { makeCalendar: change, revokeCalendar: change, calendarFile: () => undefined }

export const compiles = () => [serve(limitsApi, { readLimits: limits, changeLimit: change }), serve(calendarApi, { ...calendar, readCalendar: ({ actor }) => ({ sinceMs: actor.id.length }) })]

export const doesNotCompile = () => [
  // @ts-expect-error -- a route that is not declared
  serve(limitsApi, { readLimits: limits, changeLimit: change, readSecrets: limits }),
  // @ts-expect-error -- a declared route that nothing answers
  serve(limitsApi, { changeLimit: change }),
  // @ts-expect-error -- another answer than is declared
  serve(limitsApi, { readLimits: () => ({ limits: 'none' }), changeLimit: change }),
  // @ts-expect-error -- what the address does not name
  serve(limitsApi, { readLimits: ({ params }) => ({ limits: [], of: params.tankId }), changeLimit: change }),
  // @ts-expect-error -- a question that any device may ask does not know who asks
  serve(limitsApi, { readLimits: ({ actor }) => ({ limits: [], by: actor.id }), changeLimit: change }),
  // @ts-expect-error -- an input of another shape
  serve(limitsApi, { readLimits: limits, changeLimit: (_, input: { tankId: string }) => input }),
]

test('the server mounts every declared route, and no other', () => {
  const db = openDatabase(':memory:')
  const mounted = createServices({ db, now: Date.now }).endpoints.map(({ method, path }) => `${method} ${path}`)
  expect(mounted.sort()).toEqual(declaredRoutes().sort())
  db.close()
})

test('docs/api.md says what is declared: npm run docs', () => {
  const text = readFileSync(apiFile, 'utf8')
  expect(withRoutes(text)).toBe(text)
})
