import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'
import { takeOut, type PooledLot } from '../pools/attribute'
import { hazardAt, shippedHazard, type HazardByDays } from '../pools/hazard'
import { millionthsPerFish } from '../pools/shareOut'

// Simulated rooms: an older lot and one 5 to 20 days younger share each tank; who died is known fish by fish, and every rule
// is asked what it would have booked. What it then says of survival is held against what was so.

/** Deaths and fish at risk by age in days, of the older lot and of the newer one. */
interface Seen {
  died: number[]
  atRisk: number[]
}
export type Lots = [older: Seen, newer: Seen]
const nothingSeen = (): Seen => ({ died: Array<number>(days).fill(0), atRisk: Array<number>(days).fill(0) })

/** Which lot a rule takes fish from that nobody knows; the fish taken, and what each lot counts for. */
export interface Rule {
  loss: (lots: PooledLot[]) => Pick
  sale: (lots: PooledLot[]) => Pick
}
interface Pick {
  shares: [number, number]
  after: PooledLot[]
}

const days = 46
const tanksInRoom = 60
const [basePerDay, salePerDay, saleFrom] = [0.0025, 0.03, 14]

/** The rule of the product, by a curve; with all weights alike it goes by stock. */
export const carried = (curve: HazardByDays | null) => (lots: PooledLot[]): Pick => {
  const taken = takeOut(lots, 1, curve ? { weightOf: ({ days: age }) => hazardAt(age, curve) } : {})
  if (!taken.ok) throw new Error(taken.problem)
  const shareOf = (lot: string): number => (taken.shares.find((each) => each.lot === lot)?.millionths ?? 0) / millionthsPerFish
  return { shares: [shareOf('A'), shareOf('B')], after: taken.after }
}

/** A rule of thumb: always the lot that comes first. */
export const always = (first: (a: PooledLot, b: PooledLot) => number) => (lots: PooledLot[]): Pick => {
  const [lot] = lots.filter(({ booked }) => booked > 0).sort(first)
  const after = lots.map((each) => (each === lot ? { ...each, booked: each.booked - 1, expected: each.expected - millionthsPerFish } : each))
  return { shares: [lot?.lot === 'A' ? 1 : 0, lot?.lot === 'B' ? 1 : 0], after }
}

/** What one rule's books say at the end, by whole fish and by shares. */
export interface Told {
  booked: Lots
  shares: Lots
}

/** Lives one room and tells what was so, and what each rule's books say. */
export function liveRoom(seed: number, fish: [number, number], timesWorse: number, rules: readonly Rule[]): { so: Lots; told: Told[] } {
  const generator = xoroshiro128plus(seed)
  const chance = (): number => (generator.next() >>> 0) / 2 ** 32
  const so: Lots = [nothingSeen(), nothingSeen()]
  const told = rules.map((): Told => ({ booked: [nothingSeen(), nothingSeen()], shares: [nothingSeen(), nothingSeen()] }))
  for (let tank = 0; tank < tanksInRoom; tank += 1) liveTank(chance, fish, timesWorse, rules, so, told)
  return { so, told }
}

function liveTank(chance: () => number, fish: [number, number], timesWorse: number, rules: readonly Rule[], so: Lots, told: readonly Told[]): void {
  const apart = 5 + Math.floor(chance() * 16)
  const alive: [number, number] = [fish[0], 0]
  let pools = rules.map((): PooledLot[] => [{ lot: 'A', booked: fish[0], expected: fish[0] * millionthsPerFish, days: 0 }])
  for (let day = 0; day < days + apart; day += 1) {
    const age = [day, day - apart] as const
    if (day === apart) {
      alive[1] = fish[1]
      pools = pools.map((pool) => [...pool, { lot: 'B', booked: fish[1], expected: fish[1] * millionthsPerFish, days: 0 }])
    }
    pools = pools.map((pool) => pool.map((lot) => ({ ...lot, days: age[lot.lot === 'A' ? 0 : 1] })))
    for (const which of [0, 1] as const) {
      if (age[which] < 0 || age[which] >= days) continue
      add(so[which].atRisk, age[which], alive[which])
      pools.forEach((pool, index) => {
        const lot = pool.find((each) => each.lot === 'AB'[which])
        add(told[index]?.booked[which].atRisk, age[which], lot?.booked ?? 0)
        add(told[index]?.shares[which].atRisk, age[which], (lot?.expected ?? 0) / millionthsPerFish)
      })
    }
    for (const which of [0, 1] as const)
      for (let left = alive[which]; left > 0; left -= 1) {
        const dies = chance() < basePerDay * hazardAt(age[which], shippedHazard) * (which === 1 ? timesWorse : 1)
        const isSold = !dies && day >= saleFrom && chance() < salePerDay
        if (!dies && !isSold) continue
        alive[which] -= 1
        if (dies && age[which] < days) add(so[which].died, age[which], 1)
        pools = pools.map((pool, index) => {
          const before = pool.map((lot) => lot.booked)
          const { shares, after } = (dies ? rules[index]?.loss(pool) : rules[index]?.sale(pool)) ?? { shares: [0, 0], after: pool }
          if (dies)
            for (const each of [0, 1] as const) {
              if (age[each] >= days) continue
              add(told[index]?.booked[each].died, age[each], (before[each] ?? 0) - (after[each]?.booked ?? 0))
              add(told[index]?.shares[each].died, age[each], shares[each])
            }
          return after
        })
      }
  }
}

const add = (to: number[] | undefined, index: number, by: number): void => {
  if (to) to[index] = (to[index] ?? 0) + by
}

/** Share that lives through all the days. */
export const survivalOf = ({ died, atRisk }: Seen): number => died.reduce((alive, deaths, age) => (atRisk[age] ? alive * (1 - deaths / (atRisk[age] ?? 1)) : alive), 1)

/** How many times as fast the newer lot dies at the same age (Mantel and Haenszel), and how sure that it differs (log-rank, z). */
export function comparison([older, newer]: Lots): { ratio: number; z: number } {
  let [above, below, surplus, variance] = [0, 0, 0, 0]
  for (let age = 0; age < days; age += 1) {
    const [n0, n1, d0, d1] = [older.atRisk[age] ?? 0, newer.atRisk[age] ?? 0, older.died[age] ?? 0, newer.died[age] ?? 0]
    const [n, d] = [n0 + n1, d0 + d1]
    if (n0 <= 0 || n1 <= 0 || n <= 1) continue
    above += (d1 * n0) / n
    below += (d0 * n1) / n
    surplus += d1 - (d * n1) / n
    variance += (d * n0 * n1 * (n - d)) / (n * n * (n - 1))
  }
  return { ratio: above / below, z: surplus / Math.sqrt(variance) }
}
