import Papa from 'papaparse'
import { lossPatterns } from '../../core/outcomes/lossPattern'
import { wentAlive, type OutcomeLot } from '../../core/outcomes/outcomeLot'
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

/** Lots with all they are told by, and how many of each died of what. */
export function lotRows(lots: readonly OutcomeLot[]): Record<string, string | number | null>[] {
  return lots.map(({ exits, events, missing, corrected, shared, ...lot }) => ({
    ...Object.fromEntries(lotColumns.map((column) => [column, lot[column]])),
    ...{ 'not found': missing, 'fewer at a count': corrected, 'attributed deaths': shared, outbreaks: [...new Set(events.map(([, name]) => name))].join('; ') },
    ...Object.fromEntries(lossPatterns.map((pattern, index) => [`died: ${pattern}`, exits.reduce((sum, [, of, fish]) => (of === index ? sum + fish : sum), 0)])),
    exits: exits.map(([day, pattern, fish]) => `${day} ${pattern === wentAlive ? 'alive' : lossPatterns[pattern]} ${fish}`).join('; '),
  }))
}
const lotColumns = ['code', 'crateNumber', 'supplier', 'species', 'strain', 'origin', 'condition', 'transitHours', 'school', 'hold', 'water', 'opened', 'received', 'deadInBag', 'n', 'until'] as const

const csvOf = (fields: readonly string[], data: Record<string, string | number | null>[]): Blob => new Blob([Papa.unparse({ fields: [...fields], data }, { newline: '\r\n', escapeFormulae: formulaLike })], { type: 'text/csv' })

/** Hands what is shown to the browser's downloads (RFC 4180). */
export const saveOutcomes = (view: OutcomesView, question: OutcomesQuestion): void => save(csvOf(outcomesColumns, outcomesRows(view, question)), `outcomes-by-${question.by}.csv`)

/** The same of the lots behind a number. */
export function saveLots(lots: readonly OutcomeLot[], by: string): void {
  const rows = lotRows(lots)
  save(csvOf(Object.keys(rows[0] ?? {}), rows), `lots-by-${by}.csv`)
}

/** A table as it is shown. */
export const saveTable = (rows: readonly object[], name: string): void => save(csvOf(Object.keys(rows[0] ?? {}), rows as Record<string, string | number | null>[]), `${name}.csv`)
