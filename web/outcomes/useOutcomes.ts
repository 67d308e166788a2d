import { wrap, type Remote } from 'comlink'
import useSWR from 'swr'
import { outcomesApi } from '../../core/outcomes/outcomes.api'
import type { OutcomesQuestion } from '../../core/outcomes/outcomesPage'
import { know } from '../api/reads'
import type { OutcomesWorker } from './outcomes.worker'

let own: Remote<OutcomesWorker> | null = null
/** One worker for all of Outcomes: what it fetched stays with it from page to page. */
const worker = (): Remote<OutcomesWorker> => (own ??= wrap<OutcomesWorker>(new Worker(new URL('./outcomes.worker.ts', import.meta.url), { type: 'module' })))

/** Reckoned anew as soon as something is written that figures follow from. */
function useReckoned<T>(key: string | null, reckon: () => Promise<T>) {
  const { data, error } = useSWR<T, unknown>(key, reckon, { keepPreviousData: true, revalidateOnFocus: false })
  if (key !== null) know(key, { about: () => outcomesApi.readOutcomeLots.about({}), isDraft: false })
  return { data, problem: error }
}

/** The figures of a question. */
export function useOutcomes(question: OutcomesQuestion) {
  const { data, problem } = useReckoned(`outcomes ${JSON.stringify(question)}`, () => worker().page(question))
  return { answer: data, problem }
}

/** The lots behind a number of it. */
export function useFishBehind(question: OutcomesQuestion, group: string | null, lot: string | null) {
  const { data, problem } = useReckoned(`outcomes fish ${JSON.stringify([question, group, lot])}`, () => worker().fish(question, group, lot))
  return { lots: data, problem }
}
