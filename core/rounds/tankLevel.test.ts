import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { tries } from '../testing/tries'
import { actWords, proposedChange } from './actWords'
import { levelFlag } from './levelFlag'
import type { LevelAsked, LevelReason } from './levelReason'
import { reasonWords } from './levelWords'
import { signRule, shippedRoundRules, type CourseEventKind } from './roundRules'
import { ateAnswers, graveSigns, signs, type Ate, type Sign } from './rounds.schema'
import type { LookAtTank, LotInTank, SeenSign } from './seenInTank'
import { tankLevel } from './tankLevel'

const settled = (lot = 'A', change: Partial<LotInTank> = {}): LotInTank => ({ lot, fish: 10, days: 60, inHold: false, species: { shareSeen: 0.9, firstMealDays: 2, tolerance: 'normal', habits: [] }, events: [], ...change })
const came = (hoursAgo: number, change: Partial<LotInTank> = {}): LotInTank => settled('A', { days: Math.floor(hoursAgo / 24), events: [{ event: 'arrival', school: 'drip', hoursAgo }], ...change })
const look = (hoursAgo: number, seen: (Sign | SeenSign)[] = [], ate: Ate | LookAtTank['ate'] = 'all'): LookAtTank => ({ hoursAgo, signs: seen.map((each) => (typeof each === 'string' ? { sign: each, severity: 1 } : each)), ate: typeof ate === 'string' ? [{ ate }] : ate })
const clear = (sign: Sign, lot?: string): SeenSign => ({ sign, severity: 2, ...(lot ? { lot } : {}) })
const of = (rounds: LookAtTank[], change: Partial<LevelAsked> = {}): LevelAsked => ({ lots: [settled()], rounds, ...change })
const said = ({ why, what, lot, points }: LevelReason): string => `${why}: ${what}${lot ? ` of ${lot}` : ''} ${points}`
const died = (hoursAgo: number, quantity = 1, cause: string | null = 'found dead') => ({ hoursAgo, quantity, cause })
const tempC = (hoursAgo: number, value: number) => ({ kind: 'tempC' as const, hoursAgo, value })

// Each history worked by hand from docs/rounds.md.
const histories: [string, LevelAsked, string, string[]][] = [
  ['all well', of([look(0), look(24)]), 'quiet 0', []],
  ['a slight sign that weighs little', of([look(0, ['hiding'])]), 'quiet 1', ['sign: hiding 1']],
  ['a clear sign is more', of([look(0, [clear('redness')])]), 'watch 5', ['sign: redness 5']],
  ['spots, slight, once', of([look(0, ['spots'])]), 'watch 4', ['sign: spots 4']],
  ['spots, clear, for a second day', of([look(0, [clear('spots')]), look(24, ['spots'])]), 'act 9', ['sign: spots 9']],
  ['a second look three hours later is the same day', of([look(0, [clear('spots')]), look(3, [clear('spots')])]), 'watch 7', ['sign: spots 7']],
  ['a look twenty hours later is the next day', of([look(0, [clear('spots')]), look(20, ['spots'])]), 'act 9', ['sign: spots 9']],
  ['a third day adds three, though never more than the sign itself', of([look(0, ['hiding']), look(24, ['hiding']), look(48, ['hiding'])]), 'quiet 2', ['sign: hiding 2']],
  ['what heals slowly does not grow by staying', of([look(0, ['frayed fins']), look(24, ['frayed fins']), look(48, ['frayed fins'])]), 'quiet 2', ['sign: frayed fins 2']],
  ['a look without it ends the days running', of([look(0, ['redness']), look(24), look(48, ['redness'])]), 'watch 3', ['sign: redness 3']],
  ['what comes and goes is not ended by one look', of([look(0, ['spots']), look(24), look(48, ['spots'])]), 'watch 7', ['sign: spots 7']],
  ['remembered by half for two days', of([look(0), look(48, [clear('redness')])]), 'quiet 2.5', ['sign: redness 2.5']],
  ['and forgotten after', of([look(0), look(49, [clear('redness')])]), 'quiet 0', []],
  ['spots are remembered for a week', of([look(0), look(168, [clear('spots')])]), 'watch 3.5', ['sign: spots 3.5']],
  ['gasping is act however slight', of([look(0, ['gasping'])]), 'act 9', ['sign: gasping 9']],
  ['gasping yesterday, well today', of([look(0), look(24, ['gasping'])]), 'watch 4.5', ['sign: gasping 4.5']],
  ['lying on its side at once after release is act too', of([look(0, ['on its side'])], { lots: [came(0.2)] }), 'act 9', ['sign: on its side 9']],
  ['two signs of the gills go together', of([look(0, ['fast breathing', 'at the surface'])]), 'watch 6', ['go together: gills of A 2', 'sign: at the surface 2', 'sign: fast breathing 2']],
  ['a fight is a fight', of([look(0, [clear('chased')])]), 'watch 3', ['sign: chased 3']],
  ['one lot shows it, the other not', of([look(0, [clear('thin', 'B')])], { lots: [settled(), settled('B')] }), 'watch 4', ['sign: thin of B 4']],
  ['two lots show it', of([look(0, [{ sign: 'spots', severity: 1, lot: 'A' }, { sign: 'spots', severity: 1, lot: 'B' }])], { lots: [settled(), settled('B')] }), 'watch 6', ['sign: spots of A 4', 'sign: spots of B 4', 'in several lots: skin of A 2', 'in several lots: skin of B 2']],
  ['new fish may be pale', of([look(0, ['pale'])], { lots: [came(3)] }), 'quiet 0', []],
  ['but not clearly, a day later', of([look(0, [clear('pale')])], { lots: [came(5)] }), 'quiet 2', ['sign: pale 2']],
  ['hardy fish are over it sooner', of([look(0, ['hiding'])], { lots: [came(60, { species: { tolerance: 'hardy' } })] }), 'quiet 1', ['sign: hiding 1']],
  ['tender fish take longer', of([look(0, ['hiding'])], { lots: [came(100, { species: { tolerance: 'delicate' } })] }), 'quiet 0', []],
  ['a look of before the move is judged by what was before it', of([look(0), look(30, [clear('clamped fins')])], { lots: [settled('A', { events: [{ event: 'move', hoursAgo: 20 }] })] }), 'quiet 1.5', ['sign: clamped fins 1.5']],
  ['who lives at the bottom lies there', of([look(0, [clear('on the bottom')])], { lots: [settled('A', { species: { habits: ['bottom'] } })] }), 'quiet 0', []],
  ['refuses for the third day', of([look(0, [], 'none'), look(24, [], 'none'), look(48, [], 'none')]), 'watch 7', ['appetite: none of A 7']],
  ['a day nobody fed is no answer', of([look(0, [], 'none'), look(24, [], 'not fed'), look(48, [], 'none')]), 'watch 7', ['appetite: none of A 7']],
  ['eats some for days', of([look(0, [], 'some'), look(24, [], 'some'), look(48, [], 'some'), look(72, [], 'some'), look(96, [], 'some')]), 'watch 4', ['appetite: some of A 4']],
  ['a full meal ends it', of([look(0), look(24, [], 'none'), look(48, [], 'none')]), 'quiet 0', []],
  ['new fish need not eat yet', of([look(0, [], 'none')], { lots: [came(40)] }), 'quiet 0', []],
  ['one lot alone refuses', of([look(0, [], [{ ate: 'all' }, { ate: 'none', lot: 'B' }])], { lots: [settled(), settled('B')] }), 'watch 3', ['appetite: none of B 3']],
  ['one death', of([look(0)], { losses: [died(5)] }), 'watch 3', ['loss: 1 3']],
  ['one death some days ago', of([look(0)], { losses: [died(90)] }), 'quiet 1', ['loss: 1 1']],
  ['jumped is no illness', of([look(0)], { losses: [died(5, 2, 'jumped')] }), 'quiet 1', ['jumped or eaten: 2 1']],
  ['two of forty within a week', of([look(0)], { lots: [settled('A', { fish: 40 })], losses: [died(20), died(150)] }), 'watch 5', ['losses beyond usual: 2 5']],
  ['too warm', of([look(0)], { readings: [tempC(2, 26.6)], targets: { tempC: 25 } }), 'watch 4', ['reading: tempC 4']],
  ['far too cold', of([look(0)], { readings: [tempC(2, 21.9)], targets: { tempC: 25 } }), 'act 9', ['reading: tempC 9']],
  ['a reading of three days ago says nothing more', of([look(0)], { readings: [tempC(72, 28)], targets: { tempC: 25 } }), 'quiet 0', []],
  ['without a target nothing is too warm', of([look(0)], { readings: [tempC(2, 40)] }), 'quiet 0', []],
  ['three neighbours show it, this one not', of([look(0)], { stockedOnWater: 40, neighbours: ['a', 'b', 'c'].map((tank) => ({ tank, shows: ['gills'], isAct: false })) }), 'watch 3', ['neighbour: gills 3']],
  ['four of eight tanks are in doubt, this one too', of([look(0, ['dark'])], { stockedOnWater: 8, neighbours: ['a', 'b', 'c'].map((tank) => ({ tank, shows: ['water'], isAct: false })) }), 'watch 6', ['whole water: 4 5', 'sign: dark 1']],
  ['a lead knows the wound', of([look(0, ['wound'])], { accepted: [{ sign: 'wound', severity: 1 }] }), 'quiet 0', []],
  ['but not that it is clear now', of([look(0, [clear('wound')])], { accepted: [{ sign: 'wound', severity: 1 }] }), 'watch 4', ['sign: wound 4']],
  ['in its hold it weighs more', of([look(0, ['spots'])], { lots: [settled('A', { inHold: true, days: 5 })] }), 'watch 6', ['sign: spots 4', 'hold: skin 2']],
]

test.each(histories)('%s', (_what, asked, level, reasons) => {
  const judged = tankLevel(asked)
  expect([`${judged.level} ${judged.points}`, judged.reasons.map(said)]).toEqual([level, reasons])
})

test('what is proposed goes by the reasons', () => {
  const proposed = (asked: LevelAsked): string[] => tankLevel(asked).act
  expect(proposed(of([look(0, ['gasping'])], { hasBinder: true, readings: [tempC(1, 25)], targets: { tempC: 25 } }))).toEqual(['look again within 1 h', 'hospital tank', 'tell the lead', 'ask a veterinarian'])
  expect(proposed(of([look(0)], { readings: [{ kind: 'nh3N', hoursAgo: 1, value: 0.05 }, tempC(1, 25)] }))).toEqual(['look again within 1 h', 'part change', 'tell the lead'])
  expect(proposed(of([look(0)], { losses: [died(2, 4)], lots: [came(100)], soldLately: true }))).toEqual(['look again within 1 h', 'take readings', 'close the water', 'tell the lead', 'tell the supplier', 'tell who took fish', 'ask a veterinarian'])
  expect(proposed(of([look(0, ['spots'])]))).toEqual([])
})

const anySign = fc.record({ sign: fc.constantFrom(...signs), severity: fc.constantFrom(1, 2), lot: fc.constantFrom(null, 'A', 'B') })
const anyEvents = fc.array(fc.record({ event: fc.constantFrom<CourseEventKind>('arrival', 'move', 'crossing', 'bath', 'treatment', 'company', 'dark'), hoursAgo: fc.integer({ min: 0, max: 200 }) }), { maxLength: 2 })
const anyLot = (lot: string) => fc.record({ fish: fc.integer({ min: 1, max: 60 }), days: fc.integer({ min: 0, max: 90 }), inHold: fc.boolean(), events: anyEvents }).map((each) => settled(lot, each))
const anyLook = fc.record({ signs: fc.array(anySign, { maxLength: 3 }), ate: fc.array(fc.record({ ate: fc.constantFrom(...ateAnswers), lot: fc.constantFrom(null, 'A', 'B') }), { maxLength: 2 }) })
const anyTank: fc.Arbitrary<LevelAsked> = fc.record({
  lots: fc.tuple(anyLot('A'), anyLot('B')),
  rounds: fc.array(anyLook, { minLength: 1, maxLength: 5 }).map((looks) => looks.map((each, index) => ({ ...each, hoursAgo: index * 24 }))),
  losses: fc.array(fc.record({ hoursAgo: fc.integer({ min: 0, max: 200 }), quantity: fc.integer({ min: 1, max: 3 }), cause: fc.constantFrom('found dead', 'jumped', null) }), { maxLength: 3 }),
  neighbours: fc.array(fc.record({ tank: fc.constant('n'), shows: fc.subarray(['skin', 'gills', 'wasting', 'water'] as const), isAct: fc.boolean() }), { maxLength: 4 }),
  stockedOnWater: fc.constant(10),
})
const rank = { quiet: 0, watch: 1, act: 2 }

test('a sign or a loss more never lowers a level', () => {
  fc.assert(
    fc.property(anyTank, anySign, fc.nat(4), fc.constantFrom('sign', 'loss'), (asked, sign, at, what) => {
      const more: LevelAsked = what === 'loss' ? { ...asked, losses: [...(asked.losses ?? []), died(10)] } : { ...asked, rounds: asked.rounds.map((each, index) => (index === at % asked.rounds.length ? { ...each, signs: [...each.signs, sign] } : each)) }
      const [before, after] = [tankLevel(asked), tankLevel(more)]
      return rank[after.level] >= rank[before.level] && after.points >= before.points - 1e-9
    }),
    { numRuns: tries(6000) },
  )
})

test('a grave sign of the newest look is always act; what is inside the course is never above quiet', () => {
  fc.assert(fc.property(anyTank, fc.constantFrom(...graveSigns), fc.constantFrom(null, 'A'), (asked, sign, lot) => tankLevel({ ...asked, rounds: asked.rounds.map((each, index) => (index === 0 ? { ...each, signs: [...each.signs, { sign, severity: 1, lot }] } : each)) }).level === 'act'), { numRuns: tries(3000) })
  const usual = signs.filter((sign) => shippedRoundRules.courses.some((course) => course.event === 'arrival' && course.school === null && (course.signs[sign]?.[1] ?? 0) > 12) && !signRule(shippedRoundRules, sign).isGrave)
  fc.assert(fc.property(fc.subarray(usual), fc.integer({ min: 0, max: 12 }), (seen, hoursAgo) => tankLevel(of([look(0, seen, 'none')], { lots: [came(hoursAgo, { inHold: true })] })).points === 0), { numRuns: tries(3000) })
})

test('the glass tells what weighs most, what was seen here before what only adds to it; fish lost today until midnight', () => {
  const flag = (asked: LevelAsked, lostToday = 0) => levelFlag(tankLevel(asked), lostToday)
  expect(flag(of([look(0, ['thin'])], { lots: [settled('A', { inHold: true })] }))).toEqual({ level: 'watch', word: 'thin' })
  expect(flag(of([look(0, ['spots'])], { stockedOnWater: 40, neighbours: [{ tank: 'n', shows: ['skin'], isAct: false }] }))).toEqual({ level: 'watch', word: 'spots' })
  expect(flag(of([look(0, ['gasping'])]))).toEqual({ level: 'harm', word: 'gasping' })
  expect([flag(of([look(0)]), 2), flag(of([look(0)])), flag(of([look(0)], { losses: [died(2)] }), 1)?.word]).toEqual([{ level: 'watch', word: '2 lost' }, null, '1 lost'])
  const words = [
    of([look(0)], { unseen: [{ verdict: 'look for it' }] }),
    of([look(0)], { readings: [{ kind: 'nh3N', hoursAgo: 1, value: 0.03 }] }),
    of([look(0)], { stockedOnWater: 40, neighbours: ['a', 'b', 'c'].map((tank) => ({ tank, shows: ['gills'], isAct: false })) }),
    of([look(0, [], 'none')]),
  ]
  expect(words.map((asked) => flag(asked)?.word)).toEqual(['unseen', 'ammonia', 'its water', 'ate none'])
})

test('a reason in words, with its points', () => {
  const names = { kind: () => 'Cherry barb', lot: () => '12-01', tank: (id: string) => id.toUpperCase() }
  const words = (asked: LevelAsked): string[] => tankLevel(asked).reasons.map((reason) => reasonWords(reason, names))
  expect(words(of([look(0, [clear('spots', 'A')]), look(24, [clear('spots', 'A')])], { neighbours: [{ tank: 'm1', shows: ['skin'], isAct: false }] }))).toEqual(['spots, clear, 2nd day in Cherry barb 12-01 (9)', 'skin also in M1 on this water (4)'])
  expect(words(of([look(0, [], 'none'), look(24, [], 'none'), look(48, [], 'none')]))).toEqual(['ate none, 3rd day in Cherry barb (7)'])
  expect(words(of([look(0), look(24, ['redness'])], { losses: [died(100)] }))).toEqual(['redness, slight, not at the last look (1.5)', '1 fish lost lately (1)'])
  expect(words(of([look(0)], { readings: [{ kind: 'oxygenMgL', hoursAgo: 1, value: 4.8 }] }))).toEqual(['oxygen 4.8 mg/L (4)'])
})

test('a change of part of the water is proposed with how much: litres where its volume is known, else its share', () => {
  const { reasons, act } = tankLevel(of([look(0)], { readings: [{ kind: 'nh3N', hoursAgo: 1, value: 0.06 }, tempC(1, 25)] }))
  const words = (volumeL: number | null): string[] => act.map((proposal) => actWords(proposal, proposedChange(reasons, volumeL, shippedRoundRules), volumeL === 1220)).filter((each) => each.startsWith('part change'))
  expect(words(null)).toEqual(['part change: 3 times 45 % of its water; fresh water that raises pH can raise ammonia'])
  expect(words(610)).toEqual([expect.stringMatching(/^part change: 3 times ⟨set volume 274\.\d+⟩; fresh water that raises pH can raise ammonia$/)])
  expect(words(1220)).toEqual([expect.stringMatching(/^part change: 3 times ⟨set volume 548\.\d+⟩ in its tanks \(45 % of its water\); /)])
})
