import Papa from 'papaparse'
import type { OutcomesQuestion, OutcomesView } from '../../core/outcomes/outcomesPage'
import { formulaLike } from '../../core/setup/registerCsv'
import { save } from '../api/download'

/** Everything a page of Outcomes shows, table by table in one list: what it is of, which day, and its figures. */
export function outcomesRows({ groups, comparisons, ranking, kinds }: OutcomesView, { by, day }: Pick<OutcomesQuestion, 'by' | 'day'>): Record<string, string | number | null>[] {
  const row = (rest: Record<string, string | number | null>) => ({ ...Object.fromEntries(outcomesColumns.map((column) => [column, null])), by, ...rest })
  return [
    ...groups.flatMap(({ name, crates, fish, days }) => days.map(({ day: on, survival, low, high, se, atRisk, dead }) => row({ table: 'survival', name, crates, fish, day: on, value: survival, low, high, 'standard error': se, 'at risk': atRisk, dead }))),
    ...groups.map(({ name, crates, received, deadInBag }) => row({ table: 'dead in the bag', name, crates, fish: received, day: 0, value: received === 0 ? null : deadInBag / received, dead: deadInBag })),
    ...comparisons.map(({ a, b, word, sentence, q, comparison: { difference, low, high, adjusted, used, a: own } }) => {
      const judged = used === 'adjusted' && adjusted ? adjusted : { difference, low, high }
      return row({ table: 'comparison', name: a, against: b, crates: own.crates, fish: own.fish, day, value: judged.difference, low: judged.low, high: judged.high, q, word, sentence })
    }),
    ...(ranking?.groups ?? []).map(({ group, crates, fish, dead, mean, low, high, rankLow, rankHigh, word }) => row({ table: 'ranking', name: group, crates, fish, day, value: mean, low, high, dead, 'rank from': rankLow, 'rank to': rankHigh, word })),
    ...kinds.flatMap(({ pattern, dead, by14, by30 }) => [by14, by30].flatMap((each) => (each ? [row({ table: 'what died of what', name: pattern, day: each.day, value: each.incidence, low: each.low, high: each.high, dead: each.day === 30 ? dead : each.dead })] : []))),
  ]
}

const outcomesColumns = ['table', 'by', 'name', 'against', 'crates', 'fish', 'day', 'value', 'low', 'high', 'standard error', 'at risk', 'dead', 'q', 'rank from', 'rank to', 'word', 'sentence'] as const

/** Hands what is shown to the browser's downloads (RFC 4180). */
export function saveOutcomes(view: OutcomesView, question: OutcomesQuestion): void {
  const csv = Papa.unparse({ fields: [...outcomesColumns], data: outcomesRows(view, question) }, { newline: '\r\n', escapeFormulae: formulaLike })
  save(new Blob([csv], { type: 'text/csv' }), `outcomes-by-${question.by}.csv`)
}
