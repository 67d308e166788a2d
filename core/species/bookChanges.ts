import { columnOf, type PreviewRow } from '../setup/registerCsv'
import { registers, type RegisterRow, type RegisterValue, type RegisterValues } from '../setup/registers'
import { nameKey } from '../words/nameKey'
import { formerBook, speciesBook, type BookEntry } from './speciesBook'
import { agentColumns } from './speciesWords'

/** What taking the shipped book in would change in one row of the room, field by field. */
export interface BookChange extends PreviewRow {
  details: { label: string; from: string; to: string }[]
}

const { fields } = registers.species
const agentFields = [...Object.keys(agentColumns), 'lowSalinity']
/** Fields that the book gained with its second edition; a row that fills none of them never took it in. */
const newFields = ['otherNames', 'lookAlikes', 'waters', 'crossing', 'hardness', 'tradedCm', 'eats', 'ownKind', 'company', 'habits', 'mouth', 'firstFoodKinds', 'bearsHunger', 'agentGroups', 'hurts', 'poisons', 'catchWith', 'fins', 'escapes', 'needs', 'breeds', 'law']

const isEmpty = (value: RegisterValue | undefined): boolean => value === null || value === undefined || (Array.isArray(value) && value.length === 0)
const plain = (value: RegisterValue | undefined): string => (isEmpty(value) ? '' : Array.isArray(value) ? [...value].sort().join('; ') : String(value))

/** Entries by each name they have or had. */
const byName = new Map<string, BookEntry[]>()
for (const entry of speciesBook) for (const name of [entry.name, ...(formerBook[entry.name]?.name ?? [])]) byName.set(nameKey(String(name)), [...(byName.get(nameKey(String(name))) ?? []), entry])

/** The entry that a row of the room began as: by its name now or before; where two entries claim it, by the scientific one. */
export function entryOf({ values }: Pick<RegisterRow, 'values'>): BookEntry | null {
  const claims = byName.get(nameKey(String(values.name))) ?? []
  if (claims.length <= 1) return claims[0] ?? null
  const scientific = nameKey(String(values.scientificName ?? ''))
  return claims.find((entry) => [entry.scientificName, ...(formerBook[entry.name]?.scientificName ?? [])].some((name) => nameKey(String(name)) === scientific)) ?? null
}

/**
 * Says what the shipped book would change in the species of a room. Only cells change that still hold what an earlier book
 * shipped, or that are new and empty; what the room wrote itself stays. A new name keeps the row and its id.
 */
export function bookChanges(rows: readonly RegisterRow[]): BookChange[] {
  const taken = new Map(rows.map(({ id, values }) => [nameKey(String(values.name)), id]))
  const changes = rows.filter(({ retiredAtMs }) => retiredAtMs === null).flatMap((row) => {
    const entry = entryOf(row)
    return entry ? [changeOf(row, entry, taken)] : []
  })
  return inOrder(changes.filter(({ details }) => details.length > 0)).map((change, index) => ({ ...change, row: index + 1 }))
}

function changeOf(row: RegisterRow, entry: BookEntry, taken: ReadonlyMap<string, string>): BookChange {
  const former = formerBook[entry.name] ?? {}
  const tookItIn = newFields.some((field) => !isEmpty(row.values[field]))
  const changed = fields.filter(({ name }) => {
    const [here, shipped] = [row.values[name], entry[name]]
    if (plain(here) === plain(shipped)) return false
    if (name === 'name') return former.name?.includes(String(here)) === true && isFree(entry.name, row.id, taken)
    if (former[name]?.some((value) => plain(value) === plain(here))) return true
    const isNew = newFields.includes(name) || agentFields.includes(name)
    return isNew && isEmpty(here) && !tookItIn && former[name] === undefined
  })
  const values: RegisterValues = { ...row.values, ...Object.fromEntries(changed.map(({ name }) => [name, entry[name] ?? null])) }
  return {
    ...{ row: 0, key: String(row.values.name), change: 'changed', id: row.id, version: row.version, values, changes: changed.map(({ label }) => label) },
    details: changed.map((field) => ({ label: columnOf(field), from: plain(row.values[field.name]), to: plain(entry[field.name]) })),
  }
}

/** A name is free where nobody bears it, or whoever bears it is another entry and gives it up in the same breath. */
function isFree(name: string, id: string, taken: ReadonlyMap<string, string>): boolean {
  const holder = taken.get(nameKey(name))
  return holder === undefined || holder === id || (byName.get(nameKey(name)) ?? []).some((entry) => entry.name !== name)
}

/** Whoever gives a name up comes before whoever takes it. */
function inOrder(changes: readonly BookChange[]): BookChange[] {
  const wanted = new Set(changes.map(({ values, key }) => (nameKey(String(values.name)) === nameKey(key) ? '' : nameKey(String(values.name)))))
  return [...changes].sort((a, b) => Number(wanted.has(nameKey(b.key))) - Number(wanted.has(nameKey(a.key))))
}
