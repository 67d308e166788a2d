/** A name as names are compared, in any alphabet: case, spacing and the way an accent was typed do not matter. */
export const nameKey = (name: string): string => name.normalize('NFC').trim().toLowerCase().replace(/\s+/g, ' ')

/** The row of this name: written just so, else in another case or spacing; null when there is none. */
export const findNamed = <T extends { name: string }>(rows: readonly T[], name: string): T | null =>
  rows.find((row) => row.name === name) ?? rows.find((row) => nameKey(row.name) === nameKey(name)) ?? null
