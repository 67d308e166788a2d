import { addDays, daysBetween } from '../time/daysBetween'
import { factorOf, hazardRow, hazardsOf, hazardTable, historyDays, type Hazard, type HazardSeen } from './expectedLosses'
import { deadBy, lastDayOf, type LossRow } from './lossRow'
import type { OutcomeRules } from './outcomeRules'

/** A lot as usual losses are learned from it. */
export interface LearnedLot extends LossRow {
  species: string
  opened: string
}

/** What the room usually loses: by days since opening, and how much more easily each species dies. */
export interface UsualLosses {
  history: HazardSeen[]
  hazards: Hazard[]
  /** 1 for a species of which nothing is known. */
  factorOf(species: string): number
}

/**
 * Learns what the room usually loses from a year that ends four weeks ago, so that an outbreak does not hide itself.
 * @param today - calendar day in the room.
 */
export function usualLosses(lots: readonly LearnedLot[], today: string, rules: OutcomeRules): UsualLosses {
  const end = addDays(today, -historyDays.endsBefore) ?? today
  const start = addDays(end, -historyDays.window) ?? end
  const rows = hazardTable.map(({ from }): HazardSeen => ({ from, dead: 0, fishDays: 0 }))
  const seen = lots.map((lot) => {
    const own = hazardTable.map(() => 0)
    let dead = 0
    eachDay(lot, daysBetween(lot.opened, start), daysBetween(lot.opened, end), (day, fish, died) => {
      const row = rows[hazardRow(day)] as HazardSeen
      row.dead += died
      row.fishDays += fish
      own[hazardRow(day)] = (own[hazardRow(day)] ?? 0) + fish
      dead += died
    })
    return { species: lot.species, own, dead }
  })
  const hazards = hazardsOf(rows, rules)
  const bySpecies = new Map<string, { dead: number; expected: number }>()
  for (const { species, own, dead } of seen) {
    const known = bySpecies.get(species) ?? { dead: 0, expected: 0 }
    bySpecies.set(species, { dead: known.dead + dead, expected: known.expected + own.reduce((sum, fish, row) => sum + fish * (hazards[row]?.perFishDay ?? 0), 0) })
  }
  return { history: rows, hazards, factorOf: (species) => factorOf(bySpecies.get(species)?.dead ?? 0, bySpecies.get(species)?.expected ?? 0, rules) }
}

/** Calls back for the days of a lot inside a window, in runs of days of which nothing changes but the day. */
function eachDay(lot: LearnedLot, from: number, to: number, tell: (day: number, fish: number, died: number) => void): void {
  const last = Math.min(lastDayOf(lot), to - 1)
  let [fish, at] = [lot.n, 0]
  for (let day = 0; day <= last && fish > 1e-9; day += 1) {
    const exit = lot.out[at]?.day === day ? lot.out[at++] : undefined
    if (day >= from) tell(day, fish, exit?.dead ?? 0)
    if (exit) fish -= exit.dead + exit.gone
  }
}

/** Share of fish of a species that usually dies from opening through a day. */
export const usualShareBy = (day: number, species: string, { hazards, factorOf: factor }: UsualLosses): number => {
  let alive = 1
  for (let on = 0; on <= day; on += 1) alive *= 1 - Math.min(1, factor(species) * (hazards[hazardRow(on)]?.perFishDay ?? 0))
  return 1 - alive
}

/** A row as a ranking takes it: fish that went out of sight alive before the day count half. */
export function rankedOf(row: LossRow, day: number): { dead: number; of: number } {
  const dead = deadBy(row, day)
  const goneBefore = row.out.reduce((sum, exit) => (exit.day < day ? sum + exit.gone : sum), 0)
  const left = row.n - row.out.reduce((sum, exit) => sum + exit.dead + exit.gone, 0)
  const lostSight = goneBefore + (lastDayOf(row) < day ? left : 0)
  return { dead, of: Math.max(dead, row.n - lostSight / 2) }
}
