import { describe, expect, test } from '@jest/globals'
import { adviseRun } from '../bench/runAdvice'
import { agentAgainst, crossingWords, isSoonThin, mayBePooled, staysUnderWater, withheldSchools, type BenchFish } from '../bench/fishRules'
import { planBath } from '../bench/specialRuns'
import { planRun } from '../bench/planRun'
import { schools } from '../acclimation/schools'
import { triageBag } from '../crates/triage'
import { standardLimits } from '../limits/houseLimits'
import { marineBag } from '../testing/benchRun'
import { baseUnits } from '../units/units'
import { agentsSaid } from './animalAs'
import { dangerOf, handlingNotes, noHandling, poisonsBag } from './handling'
import { speciesBook } from './speciesBook'
import { agentsInWater, hurts } from './speciesWords'

const fish = (name: string): BenchFish => {
  const entry = speciesBook.find((each) => each.name === name)
  if (!entry) throw new Error(`no ${name} in the book`)
  const words = (field: string) => entry[field] as string[]
  const forbidden = agentsSaid(entry, 'forbidden')
  const withCare = agentsSaid(entry, 'with care')
  return {
    ...{ species: name, hurts: words('hurts'), poisons: entry.poisons as string, sensitivities: words('sensitivities'), catchWith: entry.catchWith as string, waters: words('waters'), crossing: entry.crossing as string, bearsHunger: entry.bearsHunger as string },
    agents: Object.fromEntries(agentsInWater.map((agent) => [agent, forbidden.includes(agent) ? 'forbidden' : withCare.includes(agent) ? 'with care' : 'usual'])),
  }
}
const withheld = (name: string, tankWater: string | null, isSaltier = true) => withheldSchools([fish(name)], schools, tankWater, isSaltier).map(({ key }) => key)

describe('what to mind with fish in the hand', () => {
  test('whatever hurts people says what to do; what can be serious says first aid, and that medical advice decides', () => {
    for (const word of hurts) {
      const notes = handlingNotes({ ...noHandling, hurts: [word] })
      expect([word, notes.length]).toEqual([word, 1])
      expect(notes[0]?.what.length).toBeGreaterThan(10)
    }
    for (const word of ['venomous', 'toxin', 'stings', 'bites', 'sharp']) expect(handlingNotes({ ...noHandling, hurts: [word] })[0]?.firstAid).toMatch(/Local medical advice decides\.$/)
    expect(handlingNotes(fish('Lionfish'))[0]).toMatchObject({ key: 'venomous', isDanger: true, firstAid: expect.stringContaining('not above 45 °C, tried with the other hand') })
  })

  test('people come before fish, and plain fish say nothing', () => {
    expect(handlingNotes(fish('Pictus catfish')).map(({ key }) => key)).toEqual(['venomous', 'locks in nets'])
    expect(handlingNotes(fish('Figure-eight puffer')).map(({ key }) => key)).toEqual(['bites', 'air'])
    expect(handlingNotes(fish('Harlequin rasbora'))).toEqual([])
    expect([dangerOf(fish('Spotted scat')), dangerOf(fish('Zoanthid colony')), dangerOf(fish('Oscar'))]).toEqual(['venomous', 'toxin', null])
    expect([poisonsBag(fish('Bronze corydoras')), poisonsBag(fish('Longhorn cowfish')), poisonsBag(fish('Giant clam')), poisonsBag(fish('Guppy'))]).toEqual([true, true, false, false])
  })
})

describe('what the bench rules out', () => {
  test.each([
    ['Harlequin rasbora', 'fresh', []],
    ['Pea puffer', 'fresh', ['netOver']],
    ['Bronze corydoras', 'fresh', ['matched', 'pooled']],
    ['Longhorn cowfish', 'marine', ['netOver', 'matched', 'pooled']],
    // Their young need salt; they do not.
    ['Nerite snail', 'marine', ['overflow', 'ramp']],
    ['Amano shrimp', 'brackish', ['overflow', 'ramp']],
    ['Bamboo shrimp', 'brackish', ['overflow', 'ramp']],
    ['Common clownfish', 'marine', []],
    ['Silver mono', 'marine', []],
  ])('%s into %s water', (name, water, keys) => expect(withheld(name, water)).toEqual(keys))

  test('what goes to sea as it grows is never taken back quickly; the crossing says what to expect', () => {
    expect(withheld('Silver mono', 'fresh', false)).toEqual(['overflow'])
    expect(crossingWords([fish('Silver mono'), fish('Cherry barb')])).toEqual(['Silver mono goes towards the sea over weeks as it grows; the slower, the fewer are lost.'])
    expect(crossingWords([{ species: 'x', crossing: 'constructor' }])).toEqual([])
  })

  test('an agent is refused, warned of or let pass by the strictest of the fish', () => {
    expect(agentAgainst([fish('Kuhli loach'), fish('Neon tetra')], 'copper')).toEqual({ word: 'forbidden', species: ['Kuhli loach'] })
    expect(agentAgainst([fish('Neon tetra')], 'copper')).toEqual({ word: 'with care', species: ['Neon tetra'] })
    expect([agentAgainst([fish('Kuhli loach')], 'methylene blue'), agentAgainst([fish('Nerite snail')], null)]).toEqual([null, null])
    const agent = { id: 'a', name: 'Blue', substance: 'methylene blue', strengthMgPerMl: 10, bathMgL: 2, bathMinutes: 20, dipMgL: null, dipMinutes: null, cautions: null }
    const bathOf = (name: string, substance = 'methylene blue') => planBath('bath', { agent: { ...agent, substance }, fish: 6, bags: 1, kinds: [fish(name)], to: 'R1-01', bag: { tempC: 24, salinityPpt: 0 }, then: null, limits: standardLimits, units: baseUnits })
    expect(bathOf('Nerite snail')).toEqual({ ok: false, reason: 'Nerite snail: no methylene blue, by the species book. Choose another agent, or none.' })
    expect(bathOf('Kuhli loach')).toMatchObject({ ok: true })
    const careful = bathOf('Neon tetra', 'copper')
    expect(careful.ok && careful.steps[2]?.detail).toContain('Neon tetra bear it with care only.')
  })

  test('no step of any school, bath or dip lifts a puffer out of the water', () => {
    const puffer = fish('Valentini puffer')
    expect([staysUnderWater([puffer]), mayBePooled([puffer]), mayBePooled([fish('Bronze corydoras')])]).toEqual([true, true, false])
    const allowed = schools.filter(({ key }) => !withheld('Valentini puffer', 'marine').includes(key))
    for (const school of allowed) {
      const steps = planRun(school, { question: { ...marineBag, bags: 5 }, limits: standardLimits, to: 'M1-01', tankL: 100, isPooled: false, dropsPerMl: 20, isUnderWater: true })
      expect([school.key, steps.filter(({ title, detail }) => /\bnet\b/i.test(`${title} ${detail}`))]).toEqual([school.key, []])
    }
    const agent = { id: 'a', name: 'Blue', substance: 'methylene blue', strengthMgPerMl: 10, bathMgL: 2, bathMinutes: 20, dipMgL: null, dipMinutes: null, cautions: null }
    const bath = planBath('bath', { agent, fish: 1, bags: 1, kinds: [puffer], to: 'Q1-01', bag: { tempC: 24, salinityPpt: 34 }, then: null, limits: standardLimits, units: baseUnits })
    expect(bath.ok && bath.steps.every(({ title, detail }) => !/\bnet\b/i.test(`${title} ${detail}`))).toBe(true)
  })

  test('whoever bears no hunger is fed in the first hour, all others tomorrow', () => {
    const scene = { question: marineBag, limits: standardLimits, to: 'M1-01', tankL: 100, isPooled: false, dropsPerMl: 20 }
    const drip = schools.find(({ key }) => key === 'drip')
    const fed = (kinds: BenchFish[]) => (drip ? adviseRun(planRun(drip, scene), scene, null, kinds).find(({ label }) => label === 'feed today')?.value : '')
    expect([isSoonThin([fish('Mandarin dragonet')]), fed([fish('Mandarin dragonet')]), fed([fish('Royal gramma')])]).toEqual([true, 'small live food from the first hour: they bear no hunger', 'nothing; offer food tomorrow'])
  })
})

test('cloudy water, deaths or distress in the bag of a poisoner are no reason to wait; a plain bag of it waits like all others', () => {
  const found = { alive: 6, dead: 0, concerns: [], body: null, behaviour: null, waterTempC: null, hasBinder: null }
  const step = (poisons: string | null, more: object) => triageBag({ findings: { ...found, ...more } as Parameters<typeof triageBag>[0]['findings'], hoursInBag: 10, poisons }, standardLimits)?.step
  expect([step('its bag', { concerns: ['water'] }), step('its bag', { dead: 1 }), step('the tank', { behaviour: 'distressed' })]).toEqual(Array(3).fill('release at once'))
  expect([step('its bag', {}), step(null, { concerns: ['water'] }), step('when it dies', { concerns: ['water'] })]).toEqual(['as planned', 'first-response bath, then an observation tank', 'first-response bath, then an observation tank'])
})
