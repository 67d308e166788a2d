import { findApi } from '../../core/find/find.api'
import { useRead } from '../api/useRead'

/** Tanks, lots, crates and species by a few letters. */
export function useFind(words: string) {
  const { data, problem } = useRead(findApi.find, words === '' ? null : { query: { q: words } }, { keepsPrevious: true })
  return { hits: words === '' ? [] : (data?.hits ?? []), problem }
}
