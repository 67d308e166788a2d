import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { standardLimits } from '../limits/houseLimits'
import { animalAs } from '../species/animalAs'
import { speciesBook } from '../species/speciesBook'
import { brokenRules } from '../tankChoice/rules'
import { tankPurposes, tankStates, waters } from '../room/room.schema'
import { vesselDue } from '../due/due'
import { tries } from '../testing/tries'
import { validated } from '../fields/validated'
import { catchCard, type Catching } from './catchCard'
import { introductionPlan } from './introductionPlan'
import { introductionState, introductionEvents, lookLevels } from './introductionState'
import { moveCodes, type MoveAsked, type MoveOccupant } from './move'
import { readMoveRules, withChanges } from './houseMoveRules'
import { moveCheck } from './moveCheck'
import { moveLevels, shippedMoveRules } from './moveRules'
import { moveCheckSchema } from './moves.schema'

const suppliers = ['Pale Harbour Livestock', 'Hollow Reed Hatchery', 'Brackwater Nurseries']
const tolerances = ['hardy', 'normal', 'delicate', 'very delicate'] as const
const entry = fc.constantFrom(...speciesBook)
const size = fc.option(fc.double({ min: 0.5, max: 30, noNaN: true }))
const held = fc.option(fc.nat({ max: 20 }))
const mover = fc.record({ entry, sizeCm: size, n: fc.integer({ min: 1, max: 30 }), supplier: fc.constantFrom(...suppliers), heldDays: held, tolerance: fc.constantFrom(...tolerances) }).map(({ entry: of, sizeCm, n, tolerance, ...rest }) => ({ lot: 'mover', n, have: n + 3, animal: { ...animalAs(of, { sizeCm, strain: null, notedDaysAgo: 0, isResident: false }), tolerance }, ...rest }))
const occupant = fc.record({ entry, sizeCm: size, quantity: fc.integer({ min: 1, max: 30 }), supplier: fc.constantFrom(...suppliers), heldDays: held }).map(({ entry: of, sizeCm, ...rest }): MoveOccupant => ({ lot: 'resident', animal: animalAs(of, { sizeCm, strain: null, notedDaysAgo: 0, isResident: true }), ...rest }))
const agents = fc.subarray(['copper', 'formalin', 'salt', 'praziquantel'], { maxLength: 2 })
const place = fc.record({ water: fc.constantFrom(...waters), tempC: fc.option(fc.integer({ min: 15, max: 31 })), salinityPpt: fc.option(fc.integer({ min: 0, max: 36 })), agents, netVolumeL: fc.option(fc.integer({ min: 10, max: 400 })), purpose: fc.option(fc.constantFrom(...tankPurposes)), state: fc.option(fc.constantFrom(...tankStates)), occupants: fc.array(occupant, { maxLength: 3 }), zoneId: fc.option(fc.constantFrom('quarantine', 'sale')) })
const move = fc.record({ mover, place, waterGoesAlong: fc.boolean(), doubt: fc.nat({ max: 3 }) }).map(({ mover: item, place: to, waterGoesAlong, doubt }): MoveAsked => ({ items: [item], from: { id: 'R2-01', waterId: 'R2', tempC: 25, salinityPpt: 0.3, doubt }, to: { id: 'R1-04', waterId: 'R1', code: 'R1-04', ...to }, waterGoesAlong }))

const check = (asked: MoveAsked) => moveCheck(asked, standardLimits)

describe('the move check', () => {
  test('forbids whatever tank choice forbids: one set of rules', () => {
    fc.assert(
      fc.property(move, (asked) => {
        const [item] = asked.items
        const { occupants = [], ...to } = asked.to
        if (!item) return
        const tank = { ...{ id: 'R1-04', code: 'R1-04', waterId: 'R1', water: 'fresh' as const, tempC: null, salinityPpt: null, agents: [], zoneId: null, netVolumeL: null, purpose: null, state: null, fights: 0 }, ...to, bookings: [], occupants: occupants.map((each) => ({ ...each, supplier: each.supplier ?? '', heldDays: each.heldDays ?? null })) }
        const broken = brokenRules({ id: 'mover', animal: item.animal, count: item.n, supplier: item.supplier ?? '', fromWaterId: 'R2' }, tank, standardLimits)
        const { verdict, reasons } = check(asked)
        for (const { code } of broken) expect(reasons.find((each) => each.code === code)?.level).toBe('lead')
        if (broken.length > 0) expect(verdict).toBe('lead')
      }),
      { numRuns: tries(4000, 600) },
    )
  })

  test('sources that have not met need a lead here exactly where tank choice says so', () => {
    fc.assert(
      fc.property(move, fc.constantFrom('never' as const, 'contact' as const, 'together' as const), (asked, state) => {
        const [item] = asked.items
        const { occupants = [], ...to } = asked.to
        if (!item || item.supplier === null) return
        const others = [...new Set(occupants.flatMap(({ supplier }) => supplier ?? []))].filter((other) => other !== item.supplier)
        const met = others.flatMap((other) => (state === 'never' ? [] : [{ a: item.supplier ?? '', b: other, state, days: state === 'together' ? 40 : null }]))
        const unmet = state === 'together' ? [] : others.map((other) => ({ source: item.supplier ?? '', other, state }))
        const tank = { ...{ id: 'R1-04', code: 'R1-04', waterId: 'R1', water: 'fresh' as const, tempC: null, salinityPpt: null, agents: [], zoneId: null, netVolumeL: null, purpose: null, state: null, fights: 0 }, ...to, unmet, bookings: [], occupants: occupants.map((each) => ({ ...each, supplier: each.supplier ?? '', heldDays: each.heldDays ?? null })) }
        const broken = brokenRules({ id: 'mover', animal: item.animal, count: item.n, supplier: item.supplier, fromWaterId: 'R2' }, tank, standardLimits)
        const { reasons } = check({ ...asked, met, to: { ...asked.to, sourcesRule: 'lead' } })
        const saidOf = (rows: readonly { code: string }[]): number => rows.filter(({ code }) => code === 'sources').length
        expect(saidOf(reasons)).toBe(saidOf(broken))
      }),
      { numRuns: tries(2000, 400) },
    )
  })

  test('tells the gravest first, each once, and one more resident never makes an allowed move of one that needs a lead', () => {
    fc.assert(
      fc.property(move, occupant, (asked, more) => {
        const { verdict, reasons } = check(asked)
        const ranks = reasons.map(({ level, code }) => moveLevels.indexOf(level) * 1000 + moveCodes.indexOf(code))
        expect(ranks).toEqual([...ranks].sort((a, b) => a - b))
        expect(new Set(reasons.map((each) => JSON.stringify(each))).size).toBe(reasons.length)
        const fuller = check({ ...asked, to: { ...asked.to, occupants: [...(asked.to.occupants ?? []), { ...more, lot: 'one more' }] } })
        if (verdict === 'lead') expect(fuller.verdict).toBe('lead')
      }),
      { numRuns: tries(3000, 500) },
    )
  })

  test('a house quiets what it may, and never what needs a lead', () => {
    const levels = Object.fromEntries(moveCodes.map((code) => [code, 'off' as const]))
    fc.assert(
      fc.property(move, (asked) => {
        const quiet = moveCheck(asked, standardLimits, { ...shippedMoveRules, levels })
        expect(quiet.reasons).toEqual(check(asked).reasons.filter(({ level }) => level === 'lead'))
        expect(quiet.points).toBeCloseTo(check(asked).points)
      }),
      { numRuns: tries(300) },
    )
  })
})

describe('a catch card', () => {
  const catching = fc.record({ lengthCm: fc.double({ min: 1, max: 20, noNaN: true }), heightCm: fc.constantFrom(30, 60), decor: fc.constantFrom('bare' as const, 'heavy' as const), chosen: fc.boolean(), inTank: fc.integer({ min: 1, max: 25 }), share: fc.double({ min: 0, max: 1, noNaN: true }), liftsToday: fc.nat({ max: 6 }), spines: fc.boolean() }).map(
    ({ lengthCm, heightCm, decor, chosen, inTank, share, liftsToday, spines }): Catching => ({ fish: { lengthCm, spines }, tank: { widthCm: 40, heightCm, decor }, inTank, want: Math.max(1, Math.round(share * inTank)), chosen, liftsToday, nets: [] }),
  )

  test('agrees with playing the lifts out', () => {
    // A small generator of its own, so that the figures are the same every time.
    let seed = 7
    const random = (): number => (seed = (seed * 16_807) % 2_147_483_647) / 2_147_483_647
    const played: Catching = { fish: { lengthCm: 4, groupMin: 8 }, tank: { widthCm: 35, heightCm: 60, decor: 'heavy' }, inTank: 12, want: 7, nets: [] }
    const { p, caught, done, lifts } = catchCard(played)
    const [times, total] = [20_000, { caught: 0, done: 0, lifts: 0 }]
    for (let time = 0; time < times; time += 1) {
      let left = 7
      for (let lift = 0; lift < 5 && left > 0; lift += 1) {
        total.lifts += 1
        const chance = Math.max(0.02, p * 0.75 ** lift)
        let netted = 0
        for (let fish = 0; fish < 5 + left; fish += 1) netted += random() < chance ? 1 : 0
        left -= Math.min(netted, left, 10)
      }
      total.caught += 7 - left
      total.done += left === 0 ? 1 : 0
    }
    expect(Math.abs(total.caught / times - caught)).toBeLessThan(0.04)
    expect(Math.abs(total.done / times - done)).toBeLessThan(0.01)
    expect(Math.abs(total.lifts / times - lifts)).toBeLessThan(0.03)
  })

  test('never promises more than there is, nor waits where waiting does not help', () => {
    fc.assert(
      fc.property(catching, (each) => {
        const card = catchCard(each)
        const fresh = catchCard({ ...each, liftsToday: 0 })
        expect(card.caught).toBeLessThanOrEqual(Math.min(each.want, each.inTank) + 1e-9)
        expect(card.done).toBeLessThanOrEqual(1 + 1e-9)
        expect(card.lifts).toBeLessThanOrEqual(card.liftsLeft)
        expect(card.caught).toBeLessThanOrEqual(fresh.caught + 1e-9)
        if (card.verdict === 'another day') expect(card.liftsLeft === 0 || fresh.caught > card.caught).toBe(true)
        if (card.verdict === 'go') expect(card.days).toBe(1)
      }),
      { numRuns: tries(400) },
    )
  })

  test('many fish are no trouble', () => expect(catchCard({ fish: { lengthCm: 3 }, tank: { widthCm: 100, heightCm: 40 }, inTank: 5000, want: 900, nets: [] }).caught).toBeCloseTo(50))
})

describe('an introduction', () => {
  const event = fc.record({ at: fc.nat({ max: 20_000 }), kind: fc.constantFrom(...introductionEvents), who: fc.constantFrom('a', 'b'), level: fc.constantFrom(...lookLevels) })

  test('ends by a look alone, and never while a bully sits in its box or was just seen to chase', () => {
    fc.assert(
      fc.property(fc.array(event, { maxLength: 10 }), fc.nat({ max: 25_000 }), (unordered, now) => {
        const events = [{ at: 0, kind: 'in' as const }, ...unordered].sort((a, b) => a.at - b.at)
        const state = introductionState({ now, events }, standardLimits.boxDays)
        if (state.state === 'done') {
          expect(state.boxes).toEqual([])
          expect(events.some((each) => each.kind === 'look' && 'level' in each && each.level === 'quiet' && each.at <= now && each.at >= 4320)).toBe(true)
        }
        if (state.state === 'running' || state.state === 'time out') expect(state.nextLookAt).not.toBeNull()
        else expect(state.nextLookAt).toBeNull()
        // What is not yet known changes nothing.
        expect(introductionState({ now, events: [...events, { at: now + 1, kind: 'dead' }] }, standardLimits.boxDays)).toEqual(state)
      }),
      { numRuns: tries(1000) },
    )
  })

  test('takes no fish out for longer than its vessel bears it, no more than the house takes out, and never two of a kind into one', () => {
    const fish = fc.record({ entry, sizeCm: size, n: fc.integer({ min: 1, max: 3 }), isDominant: fc.option(fc.boolean()) })
    fc.assert(
      fc.property(fc.array(fish, { maxLength: 4 }), fish, fc.array(fc.record({ litres: fc.integer({ min: 3, max: 40 }), air: fc.boolean() }), { maxLength: 4 }), (there, comes, vessels) => {
        const known = (each: typeof comes, id: string) => ({ ...animalAs(each.entry, { sizeCm: each.sizeCm, strain: null, notedDaysAgo: 0, isResident: false }), id, n: each.n, isDominant: each.isDominant })
        const residents = there.map((each, index) => known(each, `r${index}`))
        const plan = introductionPlan({ tank: { netVolumeL: 240, tempC: 25, salinityPpt: 0.3, ph: 7.6, isShared: false }, residents, newcomers: [known(comes, 'new')], vessels: vessels.map((each, index) => ({ id: `v${index}`, ...each })), has: {} }, standardLimits)
        const out = plan.vessels.flatMap((vessel) => vessel.fish)
        expect(out.length).toBeLessThanOrEqual(shippedMoveRules.introMostOut)
        for (const vessel of plan.vessels) {
          expect(vessel.minutes).toBeGreaterThanOrEqual(plan.outMinutes)
          const species = vessel.fish.map((id) => residents.find((each) => each.id === id)?.species)
          expect(new Set(species).size).toBe(species.length)
        }
        expect(plan.steps.map(({ at }) => at)).toEqual([...plan.steps.map(({ at }) => at)].sort((a, b) => a - b))
        expect(plan.steps.length > 0).toBe(!['do not', 'not yet'].includes(plan.mode))
      }),
      { numRuns: tries(600) },
    )
  })
})

describe('rules that a house changed', () => {
  test.each<[string, unknown, string | null]>([
    ['single numbers and levels', { liftsPerDay: 4, sourcesRule: 'warn', levels: { 'group-left': 'note', shares: 'off' }, moveLooks: [30], catchMost: { net: 5, cup: 1, bag: 1 } }, null],
    ['an unknown rule', { liftsPerWeek: 4 }, 'There is no rule liftsPerWeek'],
    ['a number that is none', { liftsPerDay: 'four' }, 'liftsPerDay must be a number of 0 or more'],
    ['a hard reason made soft', { levels: { eats: 'note' } }, 'eats always needs a lead, or is what the books cannot do'],
    ['no object', [1], 'The rules must be one object, such as {"liftsPerDay": 4}'],
    ['half a table', { catchMost: { net: 5 } }, 'catchMost must have numbers for net, cup, bag'],
  ])('%s', (_, value, problem) => {
    const read = readMoveRules(value)
    expect(read.ok ? null : read.problems[0]).toBe(problem)
    if (read.ok) expect(withChanges(read.changes).fightHalfLifeDays).toBe(60)
  })
})

describe('what is due of moves', () => {
  const vessel = { id: 'v', name: 'Bucket 1', kind: 'bucket' as const, litres: 20, hasAir: true, tank: { id: 't', code: 'R1-01' }, fish: [{ speciesId: 's', species: 'Cherry barb', strain: null, lotIds: [], quantity: 3 }], sinceMs: 0, limit: { watchAtMs: 40 * 60_000, actAtMs: 60 * 60_000, binds: 'oxygen' as const } }
  test.each([
    [10, 'soon', null],
    [45, 'soon', 'Bucket 1 bears them not much longer (oxygen)'],
    [61, 'now', 'Bucket 1 bears them no longer (oxygen): back into a tank, or another vessel'],
  ])('fish in a bucket after %i min: %s', (minutes, urgency, detail) => expect(vesselDue(vessel, minutes * 60_000)).toMatchObject([{ urgency, detail, about: '3 Cherry barb', byMs: 3_600_000 }]))
  test('an empty one calls nobody', () => expect(vesselDue({ ...vessel, fish: [], limit: null }, 0)).toEqual([]))
})

test('no more fish are chosen than go; a number that is none is said beside it', () => {
  const asked = (quantity: unknown) => () => validated(moveCheckSchema, { fish: [{ speciesId: 's', strain: null, quantity, chosen: [{ sex: 'male', mark: null }, { sex: null, mark: 'torn fin' }] }] })
  expect(asked(2)).not.toThrow()
  expect(asked(1)).toThrow('More fish are chosen than go')
  expect(asked({ toString: 1, valueOf: null })).toThrow(/^Number of fish must be/)
})
