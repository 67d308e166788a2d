import { figureInputs, wordInputs, type BagFigures, type BagWords } from '../../core/bench/bagFigures'
import type { BenchSubject } from '../../core/bench/benchView'
import type { StartRun } from '../../core/bench/bench.schema'

/** What stands in the request whichever kind of run is begun. */
export function startBody(subject: BenchSubject, figures: BagFigures, words: BagWords): Pick<StartRun, 'sources' | 'figures' | 'words' | 'tankId'> {
  return {
    sources: subject.sources.map(({ placeId, lotId, quantity }) => ({ placeId, lotId, quantity })),
    figures: Object.fromEntries(figureInputs.map(({ name }) => [name, figures[name] ?? null])),
    words: Object.fromEntries(wordInputs.map(({ name, options = [] }) => [name, words[name] ?? options[0] ?? ''])),
    tankId: subject.tank?.id ?? null,
  }
}
