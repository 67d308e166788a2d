import { describe, expect, test } from '@jest/globals'
import { choiceInstance } from '../../core/testing/choiceInstance'
import { prepareChoice, type Prepared } from '../../core/tankChoice/prepareChoice'
import { faultsOf, mayJoin, scoreChoice } from '../../core/tankChoice/scoreChoice'
import { cheapestFit, improveChoice } from '../../core/tankChoice/searchChoice'
import type { ChoiceProgress } from '../../core/tankChoice/tankChoice'
import { solveChoice } from './solveChoice'

/** Tries every arrangement there is. */
function exhaustive(prepared: Prepared): number {
  const lines = prepared.input.lines.length
  const choice: (number | null)[] = Array.from({ length: lines }, () => null)
  let least = Infinity
  const place = (line: number): void => {
    if (line === lines) {
      least = Math.min(least, scoreChoice(prepared, choice).total)
      return
    }
    for (const tank of [null, ...(prepared.possible[line] ?? [])]) {
      const there = choice.flatMap((at, other) => (other < line && at === tank ? [other] : []))
      if (tank !== null && !mayJoin(prepared, line, tank, there)) continue
      choice[line] = tank
      place(line + 1)
    }
    choice[line] = null
  }
  place(0)
  return least
}

describe('the integer programme', () => {
  test.each(Array.from({ length: 14 }, (_, seed) => seed + 1))('finds what trying everything finds (seed %i)', async (seed) => {
    const input = choiceInstance(4 + (seed % 2), 11 + (seed % 4), seed * 7919)
    const prepared = prepareChoice(input)
    const { choice, total, gap } = await solveChoice(input, 20)
    expect(faultsOf(prepared, choice)).toEqual([])
    expect(scoreChoice(prepared, choice).total).toBeCloseTo(total, 6)
    expect(total).toBeCloseTo(exhaustive(prepared), 3)
    expect(gap).toBeLessThan(1e-3)
  })

  test('a larger room: never worse than local search, better with time, its gap told all the way', async () => {
    const input = choiceInstance(20, 90, 5)
    const prepared = prepareChoice(input)
    const seen: ChoiceProgress[] = []
    const last = await solveChoice(input, 15, (progress) => void seen.push(progress))
    expect(last.total).toBeLessThanOrEqual(scoreChoice(prepared, improveChoice(prepared, cheapestFit(prepared))).total + 1e-6)
    expect(faultsOf(prepared, last.choice)).toEqual([])
    for (const [index, { total, gap }] of seen.entries()) expect([total <= (seen[index - 1]?.total ?? Infinity) + 1e-9, gap >= 0 && gap <= 1]).toEqual([true, true])
    expect([seen.at(-1)?.isDone, seen[0]?.isDone]).toEqual([true, false])
  })
})
