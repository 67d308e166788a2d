import loadHighs, { type Highs } from 'highs'
import { gapOf } from '../../core/tankChoice/boundChoice'
import { buildModel } from '../../core/tankChoice/buildModel'
import { prepareChoice, type Prepared } from '../../core/tankChoice/prepareChoice'
import { faultsOf, scoreChoice } from '../../core/tankChoice/scoreChoice'
import { cheapestFit, firstFit, improveChoice } from '../../core/tankChoice/searchChoice'
import type { Choice, ChoiceInput, ChoiceProgress } from '../../core/tankChoice/tankChoice'

let loaded: Promise<Highs> | null = null
const highsOnce = (): Promise<Highs> => (loaded ??= loadHighs())

/**
 * Finds the cheapest sound choice within a time. It begins with greedy answers bettered by local search and hands the
 * best of them to the integer programme, so that it is never worse; every answer is checked against the rules again
 * before it is given.
 */
export async function solveChoice(input: ChoiceInput, seconds: number, onProgress: (progress: ChoiceProgress) => void = () => undefined): Promise<ChoiceProgress> {
  const startedAtMs = Date.now()
  const prepared = prepareChoice(input)
  const searchUntilMs = startedAtMs + seconds * 300
  const isTimeUp = (): boolean => Date.now() > searchUntilMs
  const starts = [cheapestFit(prepared), firstFit(prepared)].map((from) => improveChoice(prepared, from, isTimeUp))
  let best = starts.reduce((a, b) => (scoreChoice(prepared, b).total < scoreChoice(prepared, a).total ? b : a))
  const say = (bound: number, isDone: boolean): ChoiceProgress => {
    const { total } = scoreChoice(prepared, best)
    const progress = { choice: best, total, gap: gapOf(prepared, total, bound), elapsedMs: Date.now() - startedAtMs, isDone }
    onProgress(progress)
    return progress
  }
  const first = say(-Infinity, false)
  if (first.gap === 0) return say(first.total, true)
  const take = (choice: Choice): void => {
    if (faultsOf(prepared, choice).length > 0 || scoreChoice(prepared, choice).total >= scoreChoice(prepared, best).total) return
    // What the programme found may still have an easy step left in it.
    best = improveChoice(prepared, choice, () => Date.now() > startedAtMs + seconds * 1000)
  }
  const leftSeconds = Math.max(0.2, seconds - (Date.now() - startedAtMs) / 1000)
  const bound = runModel(await highsOnce(), prepared, best, leftSeconds, { take, say: (least) => void say(least, false) })
  return say(bound, true)
}

interface Listener {
  take: (choice: Choice) => void
  say: (bound: number) => void
}

/** Runs the integer programme from a choice and returns the bound it proved. */
function runModel(highs: Highs, prepared: Prepared, from: Choice, seconds: number, { take, say }: Listener): number {
  const model = buildModel(prepared)
  const { mipImprovingSolution, mipLogging } = highs.constants.callbackType
  return highs.withModel(toHighs(highs, model), (solver): number => {
    solver.options.set({ output_flag: false, time_limit: seconds, mip_rel_gap: 0, mip_abs_gap: 1e-4 })
    solver.setSolution({ colValue: model.columnsOf(from) })
    solver.run({
      [mipImprovingSolution]: ({ data }) => {
        if (data.mip_solution) take(model.choiceOf(data.mip_solution))
        return undefined
      },
      [mipLogging]: ({ data }) => {
        say(data.mip_dual_bound ?? -Infinity)
        return undefined
      },
    })
    take(model.choiceOf(solver.getSolution().colValue))
    return Number(solver.info.get('mip_dual_bound'))
  })
}

function toHighs(highs: Highs, { costs, rows, offset }: ReturnType<typeof buildModel>) {
  const starts = [0]
  for (const row of rows) starts.push((starts.at(-1) ?? 0) + row.columns.length)
  return {
    ...{ numCols: costs.length, numRows: rows.length, sense: highs.constants.objectiveSense.minimize, offset },
    ...{ colCost: costs, colLower: costs.map(() => 0), colUpper: costs.map(() => 1), integrality: costs.map(() => highs.constants.variableType.integer) },
    ...{ rowLower: rows.map(({ lower }) => lower), rowUpper: rows.map(({ upper }) => upper) },
    matrix: { format: 'csr' as const, numRows: rows.length, numCols: costs.length, starts, indices: rows.flatMap(({ columns }) => columns), values: rows.flatMap(({ values }) => values) },
  }
}
