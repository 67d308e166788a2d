import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { standardLimits } from '../limits/houseLimits'
import { behaviours, bodyConditions, looks } from './crates.schema'
import { countLot, firstSteps, triageBag, type TriageInput } from './triage'

type Findings = TriageInput['findings']
const plain: Findings = { alive: 8, dead: 0, concerns: [], body: null, behaviour: null, waterTempC: null, hasBinder: null }
const [release, bath, quiet, dip, planned] = firstSteps

test.each<[string, Partial<Findings>, number | null, string, string[]]>([
  ['a plain bag', {}, 12, planned, ['no concern was noted']],
  ['strong and full', { behaviour: 'lively', body: 'full' }, 12, dip, ['lively', 'body full']],
  ['lively but thin is not strong: it is fed, not bathed', { behaviour: 'lively', body: 'thin' }, 12, quiet, ['thin']],
  ['on its side', { behaviour: 'on its side', concerns: ['water'] }, 12, release, ['on its side', 'water cloudy, foaming or smelling']],
  ['distressed and failing', { behaviour: 'distressed', concerns: ['fish'] }, null, release, ['distressed and failing', 'fish failing']],
  ['distressed alone', { behaviour: 'distressed' }, null, bath, ['distressed']],
  ['a death in the bag', { alive: 7, dead: 1 }, null, bath, ['1 of 8 dead in the bag']],
  ['one dead of fifty is no reason for a bath', { alive: 49, dead: 1 }, null, planned, ['no concern was noted']],
  ['too long under way by the clock', {}, 31, bath, ['31 h in the bag, house limit 30 h']],
  ['the clock is named once', { concerns: ['clock'] }, 40, bath, ['too long under way']],
])('%s', (_, findings, hoursInBag, step, reasons) => expect(triageBag({ findings: { ...plain, ...findings }, hoursInBag }, standardLimits)).toMatchObject({ step, reasons }))

test('deaths count over the lot: in two of its bags they call for a bath; what is no fish is never bathed', () => {
  const one = { ...plain, alive: 49, dead: 1 }
  expect(triageBag({ findings: { ...plain, alive: 50 }, hoursInBag: null, lot: countLot([one, one, plain]) }, standardLimits)).toMatchObject({ step: bath, reasons: ['2 of 108 dead in 2 bags'] })
  expect(triageBag({ findings: one, hoursInBag: null, lot: countLot([one, plain]) }, standardLimits)?.step).toBe(planned)
  const shrimp = (findings: Partial<Findings>) => triageBag({ findings: { ...plain, ...findings }, hoursInBag: 40, isInvertebrate: true }, standardLimits)
  expect([shrimp({ concerns: ['water'] })?.step, shrimp({ behaviour: 'on its side' })?.step, shrimp({ concerns: ['water'] })?.cautions.join()]).toEqual([quiet, release, expect.stringContaining('No bath')])
})

test('nobody alive needs nothing; a binder is warned of', () => {
  expect(triageBag({ findings: { ...plain, alive: 0, dead: 8 }, hoursInBag: 3 }, standardLimits)).toBeNull()
  expect(triageBag({ findings: { ...plain, hasBinder: true }, hoursInBag: 3 }, standardLimits)?.cautions.join()).toContain('mean nothing while it works')
})

test('a further concern never makes the first step milder, and there is always a reason', () => {
  const findings = fc.record({ alive: fc.integer({ min: 1, max: 50 }), dead: fc.nat({ max: 5 }), concerns: fc.subarray([...looks]), body: fc.constantFrom(null, ...bodyConditions), behaviour: fc.constantFrom(null, ...behaviours), waterTempC: fc.constant(null), hasBinder: fc.constantFrom(null, true, false) })
  fc.assert(
    fc.property(findings, fc.constantFrom(...looks), fc.option(fc.double({ min: 0, max: 100, noNaN: true }), { nil: null }), (found, look, hoursInBag) => {
      const rank = (input: Findings): number => firstSteps.indexOf(triageBag({ findings: input, hoursInBag }, standardLimits)?.step ?? planned)
      expect(rank({ ...found, concerns: [...new Set([...found.concerns, look])] })).toBeLessThanOrEqual(rank(found))
      expect(triageBag({ findings: found, hoursInBag }, standardLimits)?.reasons.length).toBeGreaterThan(0)
    }),
  )
})
