import type { Prepared } from './prepareChoice'
import { linesByTank, mayJoin, scoreChoice } from './scoreChoice'
import type { Choice, ChoiceTank } from './tankChoice'

/** The lines with the fewest possible tanks first: they are the ones that are left without. */
const byNeed = ({ possible, weights }: Prepared): number[] =>
  possible.map((_, line) => line).sort((a, b) => (possible[a]?.length ?? 0) - (possible[b]?.length ?? 0) || (weights[b] ?? 0) - (weights[a] ?? 0) || a - b)

/** Gives every line, the neediest first, the first tank it may join, as a person with the list in hand would. */
export function firstFit(prepared: Prepared): Choice {
  return build(prepared, (_, tanks) => tanks[0] ?? null)
}

/** Gives every line, the neediest first, the tank that costs least with what is chosen so far. */
export function cheapestFit(prepared: Prepared): Choice {
  return build(prepared, (place, tanks) => {
    let [best, least] = [null as number | null, Infinity]
    for (const tank of tanks) {
      const total = place(tank)
      if (total < least) [best, least] = [tank, total]
    }
    return best
  })
}

function build(prepared: Prepared, pick: (place: (tank: number) => number, tanks: number[]) => number | null): Choice {
  const choice: (number | null)[] = prepared.possible.map(() => null)
  const inTank = new Map<number, number[]>()
  for (const line of byNeed(prepared)) {
    const tanks = distinctTanks(prepared, inTank, (prepared.possible[line] ?? []).filter((tank) => mayJoin(prepared, line, tank, inTank.get(tank) ?? [])))
    const tank = pick((candidate) => scoreWith(prepared, choice, [[line, candidate]]), tanks)
    if (tank === null) continue
    choice[line] = tank
    inTank.set(tank, [...(inTank.get(tank) ?? []), line])
  }
  return choice
}

/** Of tanks that are alike and unused, one is enough to try. */
function distinctTanks({ input, restartPoints }: Prepared, inTank: ReadonlyMap<number, readonly number[]>, tanks: number[]): number[] {
  const seen = new Set<string>()
  return tanks.filter((index) => {
    const tank = input.tanks[index]
    if (!tank || tank.occupants.length > 0 || (inTank.get(index)?.length ?? 0) > 0) return true
    const kind = likeness(tank, restartPoints.get(tank.waterId) ?? 0)
    return seen.has(kind) ? false : Boolean(seen.add(kind))
  })
}

/** Empty tanks of one likeness cannot be told apart by any rule or cost. */
const likeness = ({ waterId, water, tempC, salinityPpt, agents, zoneId, netVolumeL, purpose, state, fights }: ChoiceTank, restart: number): string =>
  [restart > 0 ? waterId : '', water, tempC, salinityPpt, agents.join(), zoneId, netVolumeL, purpose, state, fights].join('|')

function scoreWith(prepared: Prepared, choice: (number | null)[], changes: [line: number, tank: number | null][]): number {
  const before = changes.map(([line]) => choice[line] ?? null)
  for (const [line, tank] of changes) choice[line] = tank
  const { total } = scoreChoice(prepared, choice)
  changes.forEach(([line], index) => (choice[line] = before[index] ?? null))
  return total
}

/**
 * Betters a choice by moving one line, and by letting two lines change tanks, until neither helps or the time is up.
 * The answer is never worse than what it began with.
 * @param isTimeUp - asked between steps.
 */
export function improveChoice(prepared: Prepared, from: Choice, isTimeUp: () => boolean = () => false): Choice {
  let choice: (number | null)[] = [...from]
  let total = scoreChoice(prepared, choice).total
  for (let isBetter = true; isBetter && !isTimeUp(); ) {
    isBetter = false
    for (let line = 0; line < choice.length && !isTimeUp(); line += 1) {
      const change = bestMove(prepared, choice, line, total) ?? bestSwap(prepared, choice, line, total)
      if (!change) continue
      choice = change.choice
      total = change.total
      isBetter = true
    }
  }
  return choice
}

function bestMove(prepared: Prepared, choice: (number | null)[], line: number, total: number): { choice: (number | null)[]; total: number } | null {
  const inTank = linesByTank(choice)
  const tanks = distinctTanks(prepared, inTank, prepared.possible[line] ?? []).filter((tank) => tank !== choice[line] && mayJoin(prepared, line, tank, inTank.get(tank) ?? []))
  let [best, least] = [null as number | null, total - 1e-6]
  for (const tank of tanks) {
    const next = scoreWith(prepared, choice, [[line, tank]])
    if (next < least) [best, least] = [tank, next]
  }
  return best === null ? null : { choice: choice.with(line, best), total: least }
}

function bestSwap(prepared: Prepared, choice: (number | null)[], line: number, total: number): { choice: (number | null)[]; total: number } | null {
  const here = choice[line] ?? null
  const inTank = linesByTank(choice)
  for (let other = 0; other < choice.length; other += 1) {
    const there = choice[other] ?? null
    if (other === line || there === null || there === here) continue
    const left = (inTank.get(there) ?? []).filter((each) => each !== other)
    if (!mayJoin(prepared, line, there, left)) continue
    if (here !== null && !mayJoin(prepared, other, here, (inTank.get(here) ?? []).filter((each) => each !== line))) continue
    const next = scoreWith(prepared, choice, [[line, there], [other, here]])
    if (next < total - 1e-6) return { choice: choice.with(line, there).with(other, here), total: next }
  }
  return null
}
