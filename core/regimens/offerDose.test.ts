import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { tries } from '../testing/tries'
import { shippedAgents, shippedMatrix } from '../dosing/agents'
import { doseCheck } from '../dosing/doseCheck'
import { reasonWords, waterContents } from '../dosing/doseReasons'
import { isNeverDosed, levelOfWater, readingDueMs, type TreatedWater } from '../dosing/treatedWater'
import { limitOf, measuringOf, offerDose, type OfferAsked } from './offerDose'

const [hourMs, nowMs] = [3_600_000, 1_000 * 3_600_000]
const copper = { strengthMgPerMl: 10, strengthBasis: 'as copper', targetMgL: 0.18, targetBasis: 'as copper', hiMgL: 0.2, loMgL: 0.15 }
const asked = (more: Partial<OfferAsked> = {}): OfferAsked => ({ agent: 'copperIonic', label: copper, water: { kind: 'marine', tanks: [{ netL: 200 }] }, fish: [{ group: 'other' }], treated: { volumeL: 200, doses: [], changes: [], readings: [] }, stand: null, nowMs, ...more })
const enter = { stage: 'enter' as const, hoursInStage: 0, isEating: false, servedDays: 0, levelDays: 21 }

test('a ladder begins with a part dose in water that never had any, without a reading', () => {
  const { check, step, towardsMgL } = offerDose(asked({ stand: enter }))
  expect([check.answer, step?.do, towardsMgL]).toEqual(['allow', 'dosePart', 0.09])
  expect(check.productMl).toBeCloseTo(1.8)
})

test('then it asks for a reading, with its own kit; and after one it waits', () => {
  const dosed: TreatedWater = { volumeL: 200, doses: [{ atMs: nowMs - 30 * hourMs, mg: 18 }], changes: [], readings: [] }
  const at = (readings: TreatedWater['readings'], stand: OfferAsked['stand'] = { ...enter, stage: 'part', hoursInStage: 30 }) => offerDose(asked({ treated: { ...dosed, readings }, stand }))
  expect([at([]).step?.do, at([]).check.reasons[0]?.code, at([]).check.productMl]).toEqual(['read', 'readFirst', null])
  expect(at([{ atMs: nowMs - hourMs, mgL: 0.09, kit: 'copper, chelated' }]).check.reasons[0]?.code).toBe('readFirst')
  const read = [{ atMs: nowMs - hourMs, mgL: 0.09, kit: 'copper, ionic' }]
  expect([at(read).step?.do, at(read).check.productMl]).toEqual(['wait', null])
  const raised = at(read, { ...enter, stage: 'part', hoursInStage: 50, isEating: true })
  expect([raised.step?.do, raised.towardsMgL]).toEqual(['raise', 0.18])
  expect(at([...read, { atMs: nowMs, mgL: 0.09, kit: null }]).check.reasons.map(({ code }) => code)).toContain('wrongKit')
})

test('what is cut to stay under the limit is read before the rest goes in', () => {
  const label = { ...copper, targetMgL: 0.2 }
  const first = offerDose(asked({ label }))
  expect([first.check.isCut, first.check.rise]).toEqual([true, 0.2 / (1 + 1.645 * 0.05)])
  const given = { volumeL: 200, doses: [{ atMs: nowMs - hourMs, mg: first.check.doseMg ?? 0, isCut: true }], changes: [], readings: [{ atMs: nowMs - 2 * hourMs, mgL: 0, kit: 'copper, ionic' }] }
  expect(offerDose(asked({ label, treated: given })).check.reasons[0]?.code).toBe('readFirst')
})

test('readings are asked for some hours after a dose, then daily', () => {
  const measuring = measuringOf('copperIonic', copper, [{ netL: 200 }])
  const water: TreatedWater = { volumeL: 200, doses: [{ atMs: 100 * hourMs, mg: 18 }], changes: [], readings: [] }
  expect(readingDueMs(water, measuring, 101 * hourMs)).toBe(104 * hourMs)
  const read = { ...water, readings: [{ atMs: 105 * hourMs, mgL: 0.09, kit: 'copper, ionic' }] }
  expect(readingDueMs(read, measuring, 106 * hourMs)).toBe(129 * hourMs)
  expect(readingDueMs({ ...water, doses: [] }, measuring, 106 * hourMs)).toBeNull()
  expect(readingDueMs({ ...water, doses: [], foundAtMs: 90 * hourMs }, measuring, 106 * hourMs)).toBe(90 * hourMs)
})

test('what was found in a water is as much as the first reading says, and that is no jump', () => {
  const measuring = measuringOf('copperIonic', copper, [{ netL: 200 }])
  const { c, isJump } = levelOfWater({ volumeL: 200, doses: [], changes: [], readings: [{ atMs: 60 * hourMs, mgL: 0.31, kit: 'copper, ionic' }], foundAtMs: 50 * hourMs }, measuring, 61 * hourMs)
  expect([Math.abs(c - 0.31) < 0.01, isJump]).toEqual([true, false])
})

// Every cell of the table, as a screen would meet it.
const agents = Object.keys(shippedAgents)
const label = { strengthMgPerMl: 10, strengthBasis: 'as product', targetMgL: 0.18, targetBasis: 'as product', hiMgL: 0.2 }
const withCondition = (condition: string): { water: Partial<OfferAsked['water']>; fish: OfferAsked['fish'] } => {
  if ((waterContents as readonly string[]).includes(condition)) return { water: { contents: [condition] }, fish: [] }
  if (condition.startsWith('with:')) return { water: { agents: [condition.slice(5)] }, fish: [] }
  if (condition === 'softWater') return { water: { alkalinityMeqL: 0.5 }, fish: [] }
  if (condition === 'lowOxygen') return { water: { oxygenMgL: 4 }, fish: [] }
  if (condition === 'loweredSalinity') return { water: { salinityPpt: 14 }, fish: [] }
  if (condition === 'weakFish') return { water: {}, fish: [{ group: 'other', isWeak: true }] }
  if (condition === 'bookSensitive') return { water: {}, fish: [{ group: 'other', sensitivities: ['copper', 'salt', 'formalin', 'medicine dyes'] }] }
  return { water: {}, fish: [{ group: condition === 'unknownSpecies' ? null : condition }] }
}
test.each(Object.keys(shippedMatrix).flatMap((condition) => agents.map((agent) => [agent, condition] as const)))('%s, %s: as the table says, with the reason in words', (agent, condition) => {
  const { water, fish } = withCondition(condition)
  // What no sensitivity of the book names is not asked there.
  const verdict = condition === 'bookSensitive' && !['copperIonic', 'copperChelated', 'salt', 'formalin', 'methyleneBlue', 'acriflavine'].includes(agent) ? 'A' : shippedMatrix[condition]?.[agent]
  for (const leadOverrides of [false, true]) {
    const { check } = offerDose(asked({ agent, label, fish, leadOverrides, water: { kind: 'marine', tanks: [{ netL: 200 }], ...water } }))
    const reason = check.reasons.find(({ code }) => code === condition)
    expect(reason?.answer ?? 'A').toBe(verdict)
    if (reason) expect(reasonWords(agent, reason)).not.toBe(condition)
    const isOffered = check.answer !== 'refuse' && agent !== 'lowSalinity'
    expect(isOffered).toBe(agent !== 'lowSalinity' && (verdict === 'A' || verdict === 'W' || (verdict === 'R' && leadOverrides && condition !== 'invertebrate')))
    expect(check.doseMg === null).toBe(!isOffered)
  }
})

const event = fc.record({ h: fc.integer({ min: 0, max: 400 }), what: fc.constantFrom('offer', 'offer', 'offer', 'change', 'read', 'read', 'misread', 'otherKit', 'unsaid'), share: fc.double({ min: 0.05, max: 0.9, noNaN: true }), off: fc.double({ min: 0.7, max: 1.3, noNaN: true }) })
test('no history of doses, changes and readings makes a screen offer more than the label’s limit, or anything without the reading that is asked for', () => {
  let offered = 0
  fc.assert(
    fc.property(fc.array(event, { minLength: 4, maxLength: 30 }), fc.double({ min: 20, max: 2000, noNaN: true }), fc.boolean(), fc.constantFrom(0.12, 0.18, 0.2, 0.25), fc.boolean(), (events, volumeL, isNet, targetMgL, isLadder) => {
      const own = { ...copper, targetMgL }
      const tanks = [isNet ? { netL: volumeL } : { grossL: volumeL / 0.9 }]
      const measuring = measuringOf('copperIonic', own, tanks)
      let treated: TreatedWater = { volumeL, doses: [], changes: [], readings: [] }
      for (const { h, what, share, off } of [...events].sort((a, b) => a.h - b.h)) {
        const atMs = (500 + h) * hourMs
        const { c } = levelOfWater(treated, measuring, atMs)
        if (what === 'change') treated = { ...treated, changes: [...treated.changes, { atMs, litres: share * volumeL }] }
        else if (what !== 'offer') treated = { ...treated, readings: [...treated.readings, { atMs, mgL: Math.max(0, c * (what === 'misread' ? 3 * off : off)), kit: what === 'otherKit' ? 'copper, chelated' : what === 'unsaid' ? null : 'copper, ionic' }] }
        else {
          const stand = isLadder ? { ...enter, stage: treated.doses.length === 0 ? ('enter' as const) : ('level' as const), hoursInStage: 60, isEating: true } : null
          const { check, towardsMgL } = offerDose(asked({ label: own, water: { kind: 'marine', tanks }, treated, stand, nowMs: atMs }))
          if (check.doseMg === null || check.doseMg === 0) continue
          offered += 1
          const level = levelOfWater(treated, measuring, atMs)
          const isNew = isNeverDosed(treated, atMs)
          const last = treated.readings.at(-1)
          expect(isNew || (last !== undefined && last.kit === 'copper, ionic' && atMs - last.atMs <= 24 * hourMs && !level.isJump)).toBe(true)
          const rise = check.doseMg / volumeL
          const [before, sd] = isNew ? [0, 0] : [level.c, level.sd]
          expect(before + rise + 1.645 * (sd + rise * (measuring.doseRel ?? 0))).toBeLessThanOrEqual((limitOf('copperIonic', own) ?? 0) + 1e-9)
          expect(before + rise).toBeLessThanOrEqual((towardsMgL ?? Infinity) + 1e-9)
          treated = { ...treated, doses: [...treated.doses, { atMs, mg: check.doseMg, isCut: check.isCut }] }
        }
      }
    }),
    { numRuns: tries(5000, 400) },
  )
  // It did offer doses, or nothing was tried.
  expect(offered).toBeGreaterThan(100)
})

test('what doseCheck refuses is never offered, whatever the ladder says', () => {
  const refused = offerDose(asked({ stand: enter, fish: [{ group: 'invertebrate' }], leadOverrides: true }))
  expect([refused.check.answer, refused.check.override, refused.check.doseMg, refused.step?.do]).toEqual(['refuse', 'nobody', null, 'dosePart'])
  expect(doseCheck({ agent: 'copperIonic', label: copper, water: { kind: 'marine', tanks: [{ netL: 200 }], isNeverDosed: true }, fish: [{ group: 'invertebrate' }], leadOverrides: true }).answer).toBe('refuse')
})
