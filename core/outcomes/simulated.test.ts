import { expect, test } from '@jest/globals'
import { drawnCrates } from '../testing/lossRows'
import { alarmThreshold, stepWeight } from './alarmThreshold'
import { compareGroups } from './compareGroups'
import type { LossRow } from './lossRow'
import { mulberry } from './mulberry'
import { survivalByCrate } from './survivalByCrate'

// What docs/outcomes.md promises of bands, tests and alarms, on made rooms; the long run prints the figures it found.
const isLong = Boolean(process.env.CRATE_LONG)
const rooms = isLong ? 600 : 40
/** By how much so few rooms may stray. */
const stray = isLong ? 0.025 : 0.08
const say = (line: string): void => {
  if (isLong) process.stdout.write(`${line}\n`)
}
const share = (times: number, of = rooms): number => times / of
const percent = (each: number): string => `${(100 * each).toFixed(1)} %`

test('a band of 95 % holds the truth where crate mates die alike; one of independent fish does not', () => {
  for (const [crates, loss, icc] of [[3, 0.1, 0.1], [10, 0.1, 0.1], [20, 0.25, 0.1], [12, 0.1, 0.25]] as const) {
    const next = mulberry(crates * 977 + loss * 100)
    let [byCrate, byFish] = [0, 0]
    for (let room = 0; room < rooms; room += 1) {
      const lots = drawnCrates(next, { group: 'A', crates, loss, icc })
      const [row] = survivalByCrate({ lots, at: [14] }).rows
      if (row?.survival == null || row.low === null || row.high === null) continue
      if (row.low <= 1 - loss && 1 - loss <= row.high) byCrate += 1
      const [own] = survivalByCrate({ lots, at: [14], limits: { icc: 0, priorCrates: 1e9 } }).rows
      if ((own?.low ?? 1) <= 1 - loss && 1 - loss <= (own?.high ?? 0)) byFish += 1
    }
    say(`band of 95 %, ${crates} crates, ${percent(loss)} lost, likeness ${icc}: by crate it holds the truth in ${percent(share(byCrate))}, as if fish were independent in ${percent(share(byFish))}`)
    expect(share(byCrate)).toBeGreaterThan(0.95 - 0.05 - stray)
    expect(share(byFish)).toBeLessThan(0.9)
  }
})

/** The test everybody does in their head: fish against fish. */
function fishTest(lots: readonly LossRow[]): number {
  return compareGroups({ lots: lots.flatMap((row) => apart(row)), a: 'A', b: 'B', day: 14 }).test?.p ?? 1
}
/** Every fish a crate of its own. */
function apart(row: LossRow): LossRow[] {
  const dead = row.out.flatMap(({ day, dead: fish }) => Array.from({ length: fish }, () => day))
  return Array.from({ length: row.n }, (_, index) => ({ ...row, crate: `${row.crate}/${index}`, n: 1, out: dead[index] === undefined ? [] : [{ day: dead[index], dead: 1, gone: 0 }] }))
}

test('where there is no difference the test by crate finds one in one page of twenty, the test by fish in every fourth', () => {
  const runs = isLong ? 200 : 24
  for (const icc of [0.1, 0.25]) {
    const next = mulberry(icc * 1000)
    let [byCrate, byFish] = [0, 0]
    for (let run = 0; run < runs; run += 1) {
      const lots = [...drawnCrates(next, { group: 'A', crates: 8, loss: 0.1, icc }), ...drawnCrates(next, { group: 'B', crates: 8, loss: 0.1, icc })]
      if ((compareGroups({ lots, a: 'A', b: 'B', day: 14 }).test?.p ?? 1) <= 0.05) byCrate += 1
      if (isLong && fishTest(lots) <= 0.05) byFish += 1
    }
    say(`no true difference, likeness ${icc}: called one by crate in ${percent(share(byCrate, runs))}, fish against fish in ${percent(share(byFish, runs))}`)
    expect(share(byCrate, runs)).toBeLessThan(0.05 + (isLong ? 0.04 : 0.13))
    if (isLong) expect(share(byFish, runs)).toBeGreaterThan(0.15)
  }
})

test('the same care and another mix of kinds: like for like holds the truth, the raw difference does not', () => {
  const next = mulberry(7)
  let [raw, alike] = [0, 0]
  for (let room = 0; room < rooms; room += 1) {
    const lots = (['A', 'B'] as const).flatMap((group) => [
      ...drawnCrates(next, { group, crates: group === 'A' ? 16 : 4, loss: 0.03, icc: 0.1, stratum: 'hardy' }),
      ...drawnCrates(next, { group, crates: group === 'A' ? 4 : 16, loss: 0.3, icc: 0.1, stratum: 'delicate' }),
    ])
    const { low, high, adjusted } = compareGroups({ lots, a: 'A', b: 'B', day: 14, seed: room + 1 })
    if ((low ?? 1) <= 0 && (high ?? -1) >= 0) raw += 1
    if ((adjusted?.low ?? 1) <= 0 && (adjusted?.high ?? -1) >= 0) alike += 1
  }
  say(`same care, other mix: the raw interval holds no difference in ${percent(share(raw))}, like for like in ${percent(share(alike))}`)
  expect(share(alike)).toBeGreaterThan(0.95 - 0.04 - stray)
  expect(share(raw)).toBeLessThan(0.3)
})

test('nine quiet systems ring falsely no more often than the house allows, and a trebled loss rings within weeks', () => {
  const [years, expected, dispersion, ratio] = [isLong ? 60 : 8, 0.6, 1.5, 3]
  const setting = alarmThreshold({ stepsPerYear: 365, streams: 9, falseAlarmsPerYear: 4, expected, dispersion, ratio })
  const next = mulberry(11)
  const drawn = (mean: number): number => negativeBinomial(next, mean, dispersion)
  let rising = 0
  for (let stream = 0; stream < 9 * years; stream += 1) {
    let score = 0
    for (let day = 0; day < 365; day += 1) {
      score = Math.max(0, score + stepWeight(drawn(expected), { expected, dispersion, ratio }))
      if (score < setting.threshold) continue
      rising += 1
      score = 0
    }
  }
  const perYear = rising / years
  say(`nine systems, 0.6 expected a day: ${perYear.toFixed(2)} false alarms of rising losses a year of 2 allowed; losses times 3 ring after ${setting.stepsToAlarm[1]?.steps.toFixed(0)} days`)
  expect(perYear).toBeLessThan(2 + (isLong ? 0.6 : 1.8))
  expect(setting.stepsToAlarm[1]?.steps).toBeLessThan(21)
})

/** Deaths of a step that vary as those of crates do: by the chance of each number in turn. */
function negativeBinomial(next: () => number, mean: number, dispersion: number): number {
  const r = mean / (dispersion - 1)
  let [chance, left, dead] = [Math.exp(-r * Math.log(dispersion)), next(), 0]
  while (left > chance && dead < 400) {
    left -= chance
    chance *= ((r + dead) * (dispersion - 1)) / ((dead + 1) * dispersion)
    dead += 1
  }
  return dead
}
