import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { standardLimits } from '../limits/houseLimits'
import { marineBag } from '../testing/benchRun'
import { drawEnsemble } from './judge'
import { offeredSchools } from './question'
import { litresAdded, phasesOf, type SchoolScene } from './schools'
import { addSchoolSchema, ownSteps, stepFields, toSchool, type HouseSchool, type KeptStep } from './schools.schema'

const blank = { minutes: null, times: null, share: null, handling: 'none' } as const
const step = (name: KeptStep['step'], more: Partial<KeptStep> = {}): KeptStep => ({ ...blank, step: name, ...more })
const own = (steps: KeptStep[], more: object = {}) => ({ name: 'Two cups', handsPerBagMin: 3, handsPerLotMin: 1, steps, ...more })
const kept = (steps: KeptStep[]): HouseSchool => ({ ...own(steps), id: 'own', version: 1, retiredAtMs: null })
const scene: SchoolScene = { waterL: 1.5, bags: 1, floatMin: 15, floatTauMin: 11, sealedShare: 0.7, tankC: 25, roomC: 22, exchangePerH: { bag: 0.2, bucket: 0.5, siphon: 2, air: 4 }, pourShare: 0.2 } as SchoolScene
const said = (value: unknown): string[] => {
  try {
    addSchoolSchema.validateSync(value, { strict: true, abortEarly: false })
    return []
  } catch (error) {
    return (error as { inner: { path?: string; message: string }[] }).inner.map(({ path, message }) => `${path}: ${message}`)
  }
}

describe('a school of the house as it is sent', () => {
  test.each<[string, unknown, string | null]>([
    ['fill, then in', own([step('fill', { times: 2, minutes: 20, handling: 'siphon' }), step('transfer')]), null],
    ['no end', own([step('float')]), 'steps: The last step takes the fish into the tank'],
    ['two ends', own([step('transfer'), step('float'), step('transfer')]), 'steps: Fish go into the tank once, at the end'],
    ['no step', own([]), 'steps: A school has at least one step'],
    ['41 steps', own([...Array.from({ length: 40 }, () => step('pour')), step('transfer')]), 'steps: A school has at most 40 steps'],
    ['a fill without its time', own([step('fill', { times: 2, handling: 'bucket' }), step('transfer')]), 'steps[0].minutes: This step needs its minutes'],
    ['a fill without a way', own([step('fill', { times: 2, minutes: 3 }), step('transfer')]), 'steps[0].handling: This step needs its handling'],
    ['a dump of everything', own([step('dump', { share: 1 }), step('transfer')]), 'steps[0].share: Share must be at most 0.95'],
    ['a step nobody knows', own([step('overflow' as never), step('transfer')]), 'steps[0].step'],
    ['a name of the trade', own([step('transfer')], { name: ' net-over ' }), 'name: The trade has a school of this name already'],
    ['no name', own([step('transfer')], { name: ' ' }), 'name'],
    ['endless hands', own([step('transfer')], { handsPerBagMin: 601 }), 'handsPerBagMin: Minutes must be at most 600'],
    ['steps that are words', own('float' as never), 'steps'],
    ['something more', own([step('transfer')], { extra: 1 }), ''],
  ])('%s', (_what, value, sentence) => {
    const found = said(value)
    if (sentence === null) expect(found).toEqual([])
    else expect(found.join(' | ')).toContain(sentence)
    expect(found.length > 0).toBe(sentence !== null)
  })

  test('every step asks for just what it needs', () => {
    for (const name of ownSteps) {
      const full = step(name, { minutes: 5, times: 2, share: 0.5, handling: 'bucket' })
      expect(said(own(name === 'transfer' ? [full] : [full, step('transfer')]))).toEqual([])
      for (const field of stepFields[name]) expect(said(own([{ ...full, [field]: field === 'handling' ? 'none' : null }, step('transfer')])).join()).toContain(`steps[0].${field}`)
    }
  })
})

test('so many times the bag’s water is what runs in, below one as well as above', () => {
  fc.assert(
    fc.property(fc.double({ min: 0.05, max: 20, noNaN: true }), fc.double({ min: 0.5, max: 200, noNaN: true }), fc.double({ min: 0.1, max: 10, noNaN: true }), (times, minutes, waterL) => {
      const school = toSchool(kept([step('fill', { times, minutes, handling: 'bucket' }), step('add', { times }), step('transfer')]))
      expect(litresAdded(phasesOf(school.steps, { ...scene, waterL }))).toBeCloseTo(2 * times * waterL, 6)
    }),
  )
})

test('a school goes through as it was put together: minutes, shares, handling', () => {
  const { steps, key, name } = toSchool(kept([step('float'), step('open', { minutes: 4 }), step('pour'), step('dump', { share: 0.3 }), step('wait', { minutes: 7, handling: 'air' }), step('transfer')]))
  expect([key, name]).toEqual(['own', 'Two cups'])
  expect(steps).toEqual([{ step: 'float' }, { step: 'open', minutes: 4 }, { step: 'pour' }, { step: 'dump', share: 0.3 }, { step: 'wait', minutes: 7, handling: 'air', nearRoom: true }, { step: 'transfer' }])
  const phases = phasesOf(steps, scene)
  expect(phases).toHaveLength(6)
  expect(phases[4]).toMatchObject({ minutes: 7, exchangePerH: 4, bathC: 22 })
})

test('a school that goes on for days is neither taken nor, where it is kept from before, offered', () => {
  const long = [...Array.from({ length: 4 }, () => step('wait', { minutes: 1440, handling: 'air' })), step('transfer')]
  expect(said(own(long)).join()).toContain('The steps take at most three days together')
  expect(said(own(long.slice(1)))).toEqual([])
  expect(offeredSchools(marineBag, [toSchool(kept(long)), toSchool(kept(long.slice(1)))])).toHaveLength(1)
  // Whatever is offered can be judged.
  expect(drawEnsemble(marineBag, standardLimits, { draws: 2, schools: [toSchool(kept(long.slice(1)))] }).schools).toHaveLength(1)
})
