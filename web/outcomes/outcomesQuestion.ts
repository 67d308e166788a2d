import { groupings, type Grouping } from '../../core/outcomes/outcomeLot'
import { diedOf, type OutcomesQuestion } from '../../core/outcomes/outcomesPage'

/** What can be compared by, as people say it. */
export const groupingWords: Readonly<Record<Grouping, string>> = { supplier: 'supplier', species: 'species', strain: 'strain', origin: 'origin', school: 'school', hold: 'holding', transit: 'transit', season: 'season', water: 'water' }

const month = /^\d{4}-\d{2}$/
const dayOf = (word: string | null, usual: number): number => (word !== null && /^\d{1,3}$/.test(word) ? Math.min(120, Number(word)) : usual)

/** Reads the question that an address asks; what is no question is as if it were not there. */
export function questionOf(search: URLSearchParams, mainDay: number): OutcomesQuestion {
  const said = (name: string): string | null => search.get(name) || null
  const monthOf = (name: string): string | null => (month.test(search.get(name) ?? '') ? search.get(name) : null)
  const [a, b] = [said('a'), said('b')]
  return {
    by: groupings.find((each) => each === search.get('by')) ?? 'supplier',
    day: dayOf(search.get('day'), mainDay),
    died: diedOf.find((each) => each === search.get('of')) ?? 'anything',
    ...{ supplier: said('supplier'), species: said('species'), origin: said('origin'), from: monthOf('from'), until: monthOf('until') },
    pair: a !== null && b !== null && a !== b ? [a, b] : null,
  }
}

/** The address of the lots behind a group. */
export function fishAddress(search: URLSearchParams, group: string): string {
  const asked = new URLSearchParams(search)
  asked.set('group', group)
  return `/outcomes/fish?${asked}`
}
