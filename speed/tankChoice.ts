import { choiceInstance } from '../core/testing/choiceInstance'
import { forcedPoints, gapOf, plainBound } from '../core/tankChoice/boundChoice'
import { prepareChoice } from '../core/tankChoice/prepareChoice'
import { scoreChoice } from '../core/tankChoice/scoreChoice'
import { cheapestFit, firstFit, improveChoice } from '../core/tankChoice/searchChoice'
import type { Choice } from '../core/tankChoice/tankChoice'
import { solveChoice } from '../server/crates/solveChoice'

const seconds = 5
/** Lines, tanks, and the gap that is aimed at. */
const sizes = [
  [12, 60, 0.01],
  [30, 150, 0.01],
  [60, 400, 0.05],
] as const
const seeds = [1, 2, 3]

/** Tank choice on generated rooms (core/testing/choiceInstance.ts): points and proven gap beside what greedy ways reach. */
export async function benchTankChoice(): Promise<void> {
  console.log(`\nTank choice after ${seconds} s; points without lines that no tank can take (lower is better)`)
  for (const [lines, tanks, aim] of sizes) {
    for (const seed of seeds) {
      const input = choiceInstance(lines, tanks, seed)
      const prepared = prepareChoice(input)
      const points = (choice: Choice): string => (scoreChoice(prepared, choice).total - forcedPoints(prepared)).toFixed(1)
      const [first, greedy] = [firstFit(prepared), cheapestFit(prepared)]
      const { choice, gap, elapsedMs } = await solveChoice(input, seconds)
      const searched = improveChoice(prepared, greedy)
      const plain = gapOf(prepared, scoreChoice(prepared, searched).total, plainBound(prepared))
      console.log(
        `  ${lines} x ${tanks}, seed ${seed}: first fit ${points(first)}, greedy ${points(greedy)}, with local search ${points(searched)} (gap unproven, ${(plain * 100).toFixed(0)} % to the plain bound), programme ${points(choice)}, proven gap ${(gap * 100).toFixed(2)} % (aim ${aim * 100} %) in ${(elapsedMs / 1000).toFixed(1)} s`,
      )
    }
  }
}
