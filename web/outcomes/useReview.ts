import { outcomesApi } from '../../core/outcomes/outcomes.api'
import { useWrite } from '../api/useOutbox'
import { useRead } from '../api/useRead'

/** What losses cost. */
export const useLossMoney = () => useRead(outcomesApi.readLossMoney, {})
/** The sheet of a month; the latest whole one where none is named. */
export const useReview = (month: string | null) => useRead(outcomesApi.readReview, { query: { month } }, { keepsPrevious: true })

/** Keeps the words of a sheet. */
export function useKeepSheet() {
  const write = useWrite()
  return (month: string) => write(outcomesApi.keepSheet, { label: `the sheet of ${month} is kept`, body: { month } }, { refusals: 'form' })
}
