import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { tries } from '../testing/tries'
import { endOf, type Clear, type Contact, type Stay } from './contact'
import { indexContacts, type Recorded } from './contactIndex'
import { toolState } from './toolState'
import { traceContacts, type TraceQuestion } from './trace'

const waters = ['water:A', 'water:B', 'water:C', 'water:D']
const tools = ['tools:x', 'tools:y']
const minute = fc.nat({ max: 12 })
const contact = fc
  .record({ at: minute, lasts: fc.option(fc.integer({ min: 1, max: 4 }), { nil: 0, freq: 2 }), from: fc.constantFrom(...waters, ...tools), to: fc.constantFrom(...waters), isTurned: fc.boolean(), both: fc.boolean() })
  .filter(({ from, to }) => from !== to)
  .map(({ at, lasts, from, to, isTurned, both }): Omit<Contact, 'id'> => ({ at, ...(lasts === 0 ? {} : { until: at + lasts }), kind: 'splash', from: isTurned ? to : from, to: isTurned ? from : to, both, planned: true }))
const recorded = fc
  .record({
    contacts: fc.array(contact, { maxLength: 9 }),
    stays: fc.array(fc.record({ lot: fc.constantFrom('1', '2', '3'), water: fc.constantFrom(...waters), from: minute, lasts: fc.option(fc.nat({ max: 8 })) }), { maxLength: 5 }),
    clears: fc.array(fc.record({ node: fc.constantFrom(...waters, ...tools), at: minute }), { maxLength: 4 }),
  })
  .map(({ contacts, stays, clears }): Recorded => ({ contacts: contacts.map((each, index) => ({ ...each, id: `c${index}` })), stays: stays.map(({ lasts, ...stay }): Stay => ({ ...stay, until: lasts === null ? null : stay.from + lasts })), clears }))
const question = fc.record({ start: fc.constantFrom(...waters, ...tools), from: fc.nat({ max: 6 }), lasts: fc.nat({ max: 9 }) }).map(({ start, from, lasts }): TraceQuestion => ({ start, direction: 'forward', from, to: from + lasts }))

/** Minute by minute, contact by contact, as one would with a finger on paper: where something can be, with how many hops. */
function byHand({ contacts, clears }: Recorded, counting: readonly Clear[], { start, from, to }: TraceQuestion): Map<string, { hops: number; at: number }[]> {
  const isIn = new Map<string, number>([[start, 0]])
  const seen = new Map<string, { hops: number; at: number }[]>()
  for (let now = from; now <= to; now += 1) {
    for (let isNew = true; isNew; ) {
      isNew = false
      for (const each of contacts) {
        if (each.at > now || endOf(each) < now) continue
        for (const [a, b] of each.both ? [[each.from, each.to], [each.to, each.from]] as const : [[each.from, each.to]] as const) {
          const hops = isIn.get(a)
          if (hops === undefined) continue
          const next = hops + (b.startsWith('tools:') ? 0 : 1)
          if (next >= (isIn.get(b) ?? Infinity)) continue
          isIn.set(b, next)
          seen.set(b, [...(seen.get(b) ?? []), { hops: next, at: now }])
          isNew = true
        }
      }
    }
    for (const { node, at } of clears) if (at === now && counting.some((each) => each.node === node && each.at === at)) isIn.delete(node)
  }
  return seen
}

describe('a trace', () => {
  test('is what a finger on paper finds: fewest hops, first moment, first moment at all', () => {
    fc.assert(
      fc.property(recorded, question, (all, asked) => {
        const { reached, ignoredClears } = traceContacts(indexContacts(all), asked)
        const counting = all.clears.filter(({ node, at }) => !ignoredClears.some((each) => each.node === node && each.at === at))
        const hand = byHand(all, counting, asked)
        // The node asked for is told only where it was cleared and caught again.
        for (const { node, hops, at, anyAt } of reached.filter((each) => each.node !== asked.start)) {
          const found = hand.get(node) ?? []
          const fewest = Math.min(...found.map((each) => each.hops))
          expect({ node, hops, at, anyAt }).toEqual({ node, hops: fewest, at: Math.min(...found.filter((each) => each.hops === fewest).map((each) => each.at)), anyAt: Math.min(...found.map((each) => each.at)) })
        }
        expect([...hand.keys()].filter((node) => node !== asked.start).sort()).toEqual(reached.map(({ node }) => node).filter((node) => node !== asked.start).sort())
      }),
      { numRuns: tries(2000) },
    )
  })

  test('every chain is a way one can walk, in order of time, with its hops and its moment', () => {
    fc.assert(
      fc.property(recorded, question, (all, asked) => {
        for (const { node, hops, at, chain } of traceContacts(indexContacts(all), asked).reached) {
          let [where, when, count] = [asked.start, asked.from, 0]
          for (const id of chain) {
            const step = all.contacts.find((each) => each.id === id)
            if (!step) throw new Error(`no contact ${id}`)
            expect(step.from === where || (step.both && step.to === where)).toBe(true)
            where = step.from === where ? step.to : step.from
            when = Math.max(when, step.at)
            expect(when).toBeLessThanOrEqual(Math.min(endOf(step), asked.to))
            if (!where.startsWith('tools:')) count += 1
          }
          expect([where, count, when]).toEqual([node, hops, at])
        }
      }),
      { numRuns: tries(2000) },
    )
  })

  test('one contact more takes nothing away, as long as no clear hangs on it', () => {
    fc.assert(
      fc.property(recorded, contact, question, ({ contacts, stays }, more, asked) => {
        const [few, many] = [contacts, [...contacts, { ...more, id: 'more' }]].map((each) => traceContacts(indexContacts({ contacts: each, stays, clears: [] }), asked))
        for (const { node, hops, anyAt } of few?.reached ?? []) {
          const now = many?.reached.find((each) => each.node === node)
          expect(now && now.hops <= hops && now.anyAt <= anyAt).toBe(true)
        }
        for (const { lot, hops, anyAt } of few?.lots ?? []) {
          const now = many?.lots.find((each) => each.lot === lot)
          expect(now && now.hops <= hops && now.anyAt <= anyAt).toBe(true)
        }
      }),
      { numRuns: tries(1000) },
    )
  })

  test('without clears, backwards from B names A exactly if forwards from A names B, with as many hops', () => {
    fc.assert(
      fc.property(recorded, fc.nat({ max: 6 }), fc.nat({ max: 9 }), ({ contacts, stays }, from, lasts) => {
        const index = indexContacts({ contacts, stays, clears: [] })
        const hops = (start: string, end: string, direction: TraceQuestion['direction']): number | undefined => traceContacts(index, { start, direction, from, to: from + lasts }).reached.find(({ node }) => node === end)?.hops
        for (const a of waters) for (const b of waters) if (a !== b) expect(hops(b, a, 'backward')).toBe(hops(a, b, 'forward'))
      }),
      { numRuns: tries(500) },
    )
  })

  test('a question of fewer hops names the near part of the same', () => {
    fc.assert(
      fc.property(recorded, question, (all, asked) => {
        const index = indexContacts(all)
        const near = traceContacts(index, { ...asked, maxHops: 1 }).reached
        const far = traceContacts(index, asked).reached
        expect(near.map(({ node, hops }) => [node, hops])).toEqual(far.filter(({ hops }) => hops <= 1).map(({ node, hops }) => [node, hops]))
      }),
      { numRuns: tries(500) },
    )
  })
})

test('a tool that is used is not clean until it lay in its bath long enough, whatever is written down in which order', () => {
  const use = fc.record({ at: fc.nat({ max: 60 }), water: fc.constantFrom(...waters) })
  const bath = fc.record({ inAt: fc.nat({ max: 60 }), outAt: fc.option(fc.nat({ max: 90 })), needMinutes: fc.integer({ min: 1, max: 20 }) })
  fc.assert(
    fc.property(fc.array(use, { maxLength: 6 }), fc.array(bath, { maxLength: 4 }), fc.nat({ max: 80 }), (uses, baths, at) => {
      const { state, carries, clears, readyAt } = toolState({ uses, baths, at })
      expect(toolState({ uses: [...uses].reverse(), baths: [...baths].reverse(), at })).toEqual({ state, carries, clears, readyAt })
      for (const minute of clears) expect(baths.some(({ inAt, outAt, needMinutes }) => inAt + needMinutes === minute && (outAt === null || outAt >= minute) && !uses.some((each) => each.at > inAt && each.at <= minute))).toBe(true)
      const last = clears.at(-1) ?? -1
      expect(carries).toEqual([...new Set(uses.filter((each) => each.at > last && each.at <= at).map(({ water }) => water))].sort())
      expect(state).toBe(readyAt !== null ? 'in bath' : carries.length > 0 ? 'used' : 'clean')
    }),
    { numRuns: tries(500) },
  )
})
