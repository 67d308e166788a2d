import { shippedRoundRules, type RoundRules } from './roundRules'
import { blockOf, layOut, lengthOf, type WalkAsked, type WalkTank } from './walk'

export interface SplitTank extends WalkTank {
  /** Seconds of work at it. */
  workS?: number
}
export interface SplitRound {
  /** The longest part, with the work at its tanks; the steps between parts belong to nobody. */
  longestS: number
  totalS: number
  /** Tanks that each person walks, in turn. */
  counts: number[]
}

/**
 * Cuts a round for so many people so that the longest part is as short as it can be. It is cut among settled tanks or
 * between pieces; sick tanks stay with one person, who ends with them. Source: docs/rounds.md.
 * @param asked - tanks in the order they are walked.
 * @param people - from 1.
 */
export function splitRound(asked: WalkAsked<SplitTank>, people: number, rules: RoundRules = shippedRoundRules): SplitRound {
  const { tanks } = asked
  const walk = layOut(asked, rules)
  const work = tanks.map(({ workS }) => workS ?? rules.walk.tankS)
  const steps = tanks.map((_, tank) => (tank === 0 ? 0 : (walk.cost[(tank - 1) * walk.size + tank] as number)))
  const upTo = work.reduce<number[]>((sums, seconds, tank) => [...sums, (sums.at(-1) ?? 0) + seconds + (steps[tank] ?? 0)], [0])
  /** A part from one tank to before another; the step that leads to its first is nobody's. */
  const partS = (from: number, to: number): number => (to <= from ? 0 : (upTo[to] as number) - (upTo[from] as number) - (steps[from] ?? 0))
  const cuts = [0, ...tanks.flatMap((tank, index) => (index > 0 && mayCut(tanks[index - 1] as SplitTank, tank) ? [index] : [])), tanks.length]
  const longestS = leastLongest(cuts, Math.max(1, people), partS)
  return { longestS, totalS: work.reduce((sum, seconds) => sum + seconds, 0) + lengthOf(walk, [...tanks.keys()]).seconds, counts: filled(cuts, Math.max(1, people), longestS, partS) }
}

const mayCut = (before: WalkTank, after: WalkTank): boolean => (before.state === 'settled' && after.state === 'settled') || (blockOf(before) !== blockOf(after) && !(before.state === 'sick' && after.state === 'sick'))

/** The least longest part of at most so many. */
function leastLongest(cuts: readonly number[], people: number, partS: (from: number, to: number) => number): number {
  let least = cuts.map((cut) => partS(0, cut))
  for (let person = 1; person < people; person++) {
    const fewer = least
    least = cuts.map((cut, index) => cuts.slice(0, index + 1).reduce((best, from, each) => Math.min(best, Math.max(fewer[each] as number, partS(from, cut))), Infinity))
  }
  return least.at(-1) ?? 0
}

/** Each in turn takes as many as fit into that length. */
function filled(cuts: readonly number[], people: number, longestS: number, partS: (from: number, to: number) => number): number[] {
  const counts: number[] = []
  let from = 0
  for (let person = 0; person < people; person++) {
    const to = cuts.findLast((cut) => cut >= from && partS(from, cut) <= longestS + 1e-9) ?? from
    counts.push(to - from)
    from = to
  }
  return counts
}
