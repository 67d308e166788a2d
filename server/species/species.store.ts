import { eq, sql } from 'drizzle-orm'
import { speciesBook } from '../../core/species/speciesBook'
import { nameKey } from '../../core/words/nameKey'
import type { Database } from '../db/open'
import { newId } from '../newId'
import { species } from './species.table'

const byName = new Map(speciesBook.map((entry) => [nameKey(entry.name), entry]))
const byScientificName = new Map(speciesBook.map((entry) => [nameKey(entry.scientificName), entry]))
const inBook = (key: string) => byName.get(key) ?? byScientificName.get(key)

/** Queries about the species that lines and lots name. */
export function createSpeciesStore({ orm }: Database) {
  const byKey = (key: string) => orm.select({ id: species.id }).from(species).where(eq(species.nameKey, key)).get()
  /** A species of the room by its common name, else by its scientific one. */
  const here = (key: string) => byKey(key) ?? orm.select({ id: species.id }).from(species).where(eq(sql`lower(${species.scientificName})`, key)).orderBy(species.name).get()
  return {
    /** Answers whether a species of this common or scientific name is known, here or in the shipped book; case and spacing do not matter. */
    isKnown: (name: string): boolean => inBook(nameKey(name)) !== undefined || here(nameKey(name)) !== undefined,
    /** Names of every species in use here and of the shipped book, for whoever looks for one that is spelt nearly so. */
    names: (): string[] => [...new Set([...orm.select({ name: species.name }).from(species).all().map((row) => row.name), ...speciesBook.flatMap((entry) => [entry.name, entry.scientificName])])],
    /** Finds a species by its common or scientific name; one that is new here comes with what the book knows of it, or with its name alone. */
    named(name: string, nowMs: number): string {
      const entry = inBook(nameKey(name)) ?? { name: name.trim().replace(/\s+/g, ' ') }
      const key = nameKey(entry.name)
      const known = here(nameKey(name)) ?? byKey(key)
      if (known) return known.id
      const id = newId()
      orm.insert(species).values({ ...(entry as typeof species.$inferInsert), id, nameKey: key, createdAtMs: nowMs }).run()
      return id
    },
  }
}
export type SpeciesStore = ReturnType<typeof createSpeciesStore>
