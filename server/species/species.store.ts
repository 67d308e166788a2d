import { asc, eq } from 'drizzle-orm'
import type { Database } from '../db/open'
import { newId } from '../newId'
import { species } from './species.table'

const keyOf = (name: string): string => name.trim().toLowerCase().replace(/\s+/g, ' ')

/** Queries about the species book. */
export function createSpeciesStore({ orm }: Database) {
  return {
    list: () => orm.select({ id: species.id, name: species.name }).from(species).orderBy(asc(species.nameKey)).all(),
    /** Answers whether a species of this name is in the book; case and spacing do not matter. */
    isKnown: (name: string): boolean => orm.select({ id: species.id }).from(species).where(eq(species.nameKey, keyOf(name))).get() !== undefined,
    /** Finds a species by name, adding it to the book when it is new. Returns its id. */
    named(name: string, nowMs: number): string {
      const nameKey = keyOf(name)
      const known = orm.select({ id: species.id }).from(species).where(eq(species.nameKey, nameKey)).get()
      if (known) return known.id
      const id = newId()
      orm.insert(species).values({ id, name: name.trim().replace(/\s+/g, ' '), nameKey, createdAtMs: nowMs }).run()
      return id
    },
  }
}
export type SpeciesStore = ReturnType<typeof createSpeciesStore>
