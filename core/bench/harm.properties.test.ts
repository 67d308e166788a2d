import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { adviseDeliveryFields, type DeliveryFields } from '../acceptanceDelivery'
import { drawEnsemble, judge } from '../acclimation/judge'
import { behaviours, bodyConditions, looks } from '../crates/crates.schema'
import { standardLimits } from '../limits/houseLimits'
import { toleranceLevels } from '../setup/words'
import { tries } from '../testing/tries'
import { toQuestion } from './bagFigures'

// Deliveries nobody thought of: any species of any waters, told or not, read or not, in any state.
const maybe = <T>(arbitrary: fc.Arbitrary<T>) => fc.option(arbitrary, { nil: undefined })
const figure = (min: number, max: number) => fc.double({ min, max, noNaN: true })
const waters = ['fresh', 'brackish', 'marine'] as const
const salinity = fc.oneof(figure(0.05, 0.9), figure(2, 14), figure(16, 36), figure(1.005, 1.03))
const anyBag = fc.record({ fish: fc.integer({ min: 1, max: 60 }), T: maybe(figure(9, 32)), S: maybe(salinity), looks: fc.subarray([...looks]), behaviour: maybe(fc.constantFrom(...behaviours)), body: maybe(fc.constantFrom(...bodyConditions)), dead: fc.constantFrom(0, 0, 0, 1, 9), foam: fc.boolean() })
const anyDelivery = fc.record({
  supplier: fc.record({ water: fc.record({ S: maybe(salinity), T: maybe(figure(15, 28)) }), class: maybe(fc.constantFrom(...waters, 'hard', 'soft')) }),
  crate: fc.record({ hours: maybe(figure(0.2, 60)), roomC: maybe(figure(8, 30)) }),
  species: fc.record({ name: fc.constantFrom('a fish', 'рыба', '魚'), waters: fc.subarray([...waters]), tolerance: maybe(fc.constantFrom(...toleranceLevels)), group: maybe(fc.constantFrom('invertebrate', 'other')), isFighter: fc.boolean(), massG: figure(0.1, 80) }),
  bags: fc.array(anyBag, { minLength: 1, maxLength: 4 }),
  from: maybe(fc.record({ waterId: fc.constantFrom('m', 'x'), class: fc.constantFrom(...waters) })),
  tank: fc.record({ waterId: fc.constant('m'), class: fc.constantFrom(...waters), S: figure(0.1, 36), T: figure(18, 29), pH: figure(6.2, 8.4), alk: figure(0.4, 5), agents: fc.subarray(['copper', 'methylene blue']) }),
}) as fc.Arbitrary<DeliveryFields>

// Figures are kept to three places, a thousand times finer than anybody reads them: at a border that decides.
const kept = (ppt: number): number => Number(ppt.toFixed(3))
const kindOf = (ppt: number): string => (kept(ppt) > 15 ? 'marine' : kept(ppt) >= 3 ? 'brackish' : 'fresh')
/** Judgement 10a said over again: which water is in the bags, by the strongest fact there is; null where there is none. */
function waterByFacts({ supplier, species, bags, from }: DeliveryFields): string | null {
  const read = bags.flatMap(({ S }) => (S === undefined ? [] : [S]))
  if (read.length > 0) return kindOf(read.reduce((sum, ppt) => sum + ppt, 0) / read.length)
  const told = typeof supplier?.water === 'object' ? supplier.water.S : undefined
  if (told !== undefined) return kindOf(told)
  const said = from?.class ?? supplier?.class
  if (said) return said === 'hard' || said === 'soft' ? 'fresh' : said
  return species.waters?.length === 1 ? (species.waters[0] ?? null) : null
}

test('no school without a water that some fact speaks for; where none is known, something is asked', () => {
  fc.assert(
    fc.property(anyDelivery, (delivery) => {
      const { waterClass, ask, school, sentence } = adviseDeliveryFields(delivery, 1)
      const plain = waterClass === 'hard' || waterClass === 'soft' ? 'fresh' : waterClass
      if (waterClass === 'unknown') expect([school, ask.length > 0 || sentence.includes('same water')]).toEqual([null, true])
      else expect(plain).toBe(waterByFacts(delivery))
      if (school !== null) expect(waterClass).not.toBe('unknown')
      expect(sentence).not.toMatch(/NaN|undefined|Infinity/)
    }),
    { numRuns: tries(5000) },
  )
}, 600_000)

test('the first action is the gravest that any bag asks for, and what is no fish is never bathed', () => {
  const rank = ['release now', 'bath', 'observation tank', 'none']
  fc.assert(
    fc.property(anyDelivery, (delivery) => {
      const { first } = adviseDeliveryFields({ ...delivery, binder: true }, 1)
      const alive = delivery.bags.filter(({ fish, dead = 0 }) => fish > dead)
      const isFailing = alive.some(({ behaviour, looks: seen = [] }) => behaviour === 'on its side' || (behaviour === 'distressed' && seen.includes('fish')))
      const isPressing = alive.some(({ looks: seen = [], behaviour, foam }) => seen.length > 0 || foam === true || behaviour === 'distressed') || (alive.length > 0 && (delivery.crate?.hours ?? 0) >= standardLimits.longInBagHours)
      const isInvertebrate = delivery.species.group === 'invertebrate'
      if (isFailing) expect(first).toBe('release now')
      else if (isPressing) expect(first).toBe(isInvertebrate ? 'observation tank' : 'bath')
      if (isInvertebrate) expect(first).not.toBe('bath')
      for (const bag of alive) expect(rank.indexOf(first)).toBeLessThanOrEqual(rank.indexOf(adviseDeliveryFields({ ...delivery, binder: true, bags: [{ ...bag, dead: 0 }] }, 1).first))
    }),
    { numRuns: tries(5000) },
  )
}, 600_000)

test('nothing is recommended in which oxygen runs short while another school holds it', () => {
  const question = fc.record({ fish: fc.integer({ min: 1, max: 60 }), massG: figure(0.2, 120), waterL: figure(0.3, 20), gasL: figure(0.1, 40), hours: figure(0.2, 60), measuredC: figure(12, 32), measuredPpt: salinity, tankC: figure(18, 29), tankPpt: figure(0.1, 36), bags: fc.integer({ min: 1, max: 30 }) })
  fc.assert(
    fc.property(question, fc.constantFrom(...toleranceLevels), (given, tolerance) => {
      const verdict = judge(drawEnsemble(toQuestion({ ...given, packedC: 24, transitC: 23, tankAlkalinity: 2.5, tankPh: 8, roomC: 22 }, { waterClass: kindOf(given.measuredPpt) === 'fresh' ? 'hard' : kindOf(given.measuredPpt), gas: 'oxygen', fed: 'no', tolerance }), standardLimits, { draws: 2 }))
      const recommended = verdict.schools.find(({ key }) => key === verdict.recommended)
      expect((recommended?.ratios.do ?? Infinity) < 1 || verdict.schools.every(({ ratios }) => ratios.do >= 1)).toBe(true)
    }),
    { numRuns: tries(5000) },
  )
}, 600_000)
