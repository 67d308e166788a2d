import { expose } from 'comlink'
import { outcomesApi } from '../../core/outcomes/outcomes.api'
import type { OutcomeLotsView } from '../../core/outcomes/outcomes.api'
import type { OutcomeLot } from '../../core/outcomes/outcomeLot'
import { lotsBehind, outcomesPage, type OutcomesQuestion, type OutcomesView } from '../../core/outcomes/outcomesPage'
import { fetchAnswer, type Answered } from '../api/fetchJson'

// Away from the page: forty thousand lots are fetched, read and reckoned here, and no touch waits for them.

/** What was fetched last, so that it is sent again only after something was written. */
let before: Answered | null = null

async function lotsNow(): Promise<OutcomeLotsView> {
  before = await fetchAnswer(outcomesApi.readOutcomeLots.path, before, {})
  return before.body as OutcomeLotsView
}

/** What a refusal says: an error of ours does not survive the way out of a worker, its words do. */
const said = async <T>(work: () => Promise<T>): Promise<T> =>
  work().catch((error: unknown) => {
    throw new Error(error instanceof Error ? error.message : 'The figures could not be reckoned')
  })

const api = {
  /** Everything a question shows, with what can be asked. */
  page: (question: OutcomesQuestion): Promise<OutcomesAnswer> =>
    said(async () => {
      const { today, rules, lots, notFollowed } = await lotsNow()
      const names = (of: (lot: OutcomeLot) => string): string[] => [...new Set(lots.map(of))].sort()
      return { view: outcomesPage({ lots, today, question, rules }), today, notFollowed, suppliers: names(({ supplier }) => supplier), species: names(({ species }) => species), origins: names(({ origin }) => origin), months: names(({ opened }) => opened.slice(0, 7)) }
    }),
  /** The lots behind a group of a question, or one lot by itself. */
  fish: (question: OutcomesQuestion, group: string | null, lot: string | null): Promise<OutcomeLot[]> =>
    said(async () => {
      const { rules, lots } = await lotsNow()
      return lotsBehind(lots, question, group, lot, rules)
    }),
}
export interface OutcomesAnswer {
  view: OutcomesView
  today: string
  notFollowed: number
  suppliers: string[]
  species: string[]
  origins: string[]
  months: string[]
}
export type OutcomesWorker = typeof api
expose(api)
