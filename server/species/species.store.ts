import { eq, sql } from 'drizzle-orm'
import type { KnownName } from '../../core/species/nearestName'
import { ambiguousNames, entriesNamed, namesOf, speciesBook, splitNames } from '../../core/species/speciesBook'
import { nameKey } from '../../core/words/nameKey'
import type { Database } from '../db/open'
import { fieldProblem } from '../http/problem'
import { newId } from '../newId'
import { species } from './species.table'

const bookNames: readonly KnownName[] = speciesBook.flatMap((entry) => namesOf(entry).map((name) => ({ name, means: entry.name })))

/** Queries about the species that lines and lots name. */
export function createSpeciesStore({ orm }: Database) {
  const byKey = (key: string) => orm.select({ id: species.id }).from(species).where(eq(species.nameKey, key)).get()
  const byScientificName = (key: string) => orm.select({ id: species.id }).from(species).where(eq(sql`lower(${species.scientificName})`, key)).orderBy(species.name).limit(2).all()
  const byOtherName = (key: string) =>
    orm
      .select({ id: species.id, otherNames: species.otherNames })
      .from(species)
      .where(sql`${species.otherNames} IS NOT NULL`)
      .orderBy(species.name)
      .all()
      .filter(({ otherNames }) => splitNames(otherNames).some((each) => nameKey(each) === key))
  /** A species of the room by its common name, else by its scientific one, else by another name; null where several go by that. */
  function here(key: string): { id: string } | null {
    const own = byKey(key)
    if (own) return own
    if (ambiguousNames.has(key)) return null
    const scientific = byScientificName(key)
    const others = scientific.length > 0 ? scientific : byOtherName(key)
    return others.length === 1 ? (others[0] ?? null) : null
  }
  const onlyEntry = (name: string) => (entriesNamed(name).length === 1 && !ambiguousNames.has(nameKey(name)) ? entriesNamed(name)[0] : undefined)
  return {
    /** Answers whether a name is known and means one species, here or in the shipped book; case and spacing do not matter. */
    isKnown: (name: string): boolean => here(nameKey(name)) !== null || onlyEntry(name) !== undefined,
    /** Every name in use here and in the shipped book, for whoever looks for one that is spelt nearly so. */
    names: (): KnownName[] => [
      ...orm.select({ name: species.name, scientificName: species.scientificName, otherNames: species.otherNames }).from(species).all().flatMap((row) => namesOf(row).map((name) => ({ name, means: row.name }))),
      ...bookNames,
    ],
    /**
     * Finds a species by any of its names; one that is new here comes with what the book knows of it, or with its name alone.
     * @param askAt - field beside which a name that several kinds go by is asked; left out where a touch must not be lost
     *   for it, and the kind is named later.
     */
    named(name: string, nowMs: number, askAt: string | null = null): string {
      const known = here(nameKey(name))
      if (known) return known.id
      const kinds = ambiguousNames.get(nameKey(name)) ?? []
      if (askAt !== null && kinds.length > 1) throw fieldProblem(askAt, `${name.trim()} is what several kinds are called: ${kinds.join(', ')}. Write which it is; if none of them, add a word to the name`)
      const entry = onlyEntry(name) ?? { name: name.trim().replace(/\s+/g, ' ') }
      const key = nameKey(entry.name)
      const same = byKey(key)
      if (same) return same.id
      const id = newId()
      orm.insert(species).values({ ...(entry as typeof species.$inferInsert), id, nameKey: key, createdAtMs: nowMs }).run()
      return id
    },
  }
}
export type SpeciesStore = ReturnType<typeof createSpeciesStore>
