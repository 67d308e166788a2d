import type { RegisterValues } from '../../core/setup/registers'
import type { species } from './species.table'

/** What the species book says, without how its rows are kept, by the id of the species. */
export const entriesById = (rows: readonly (typeof species.$inferSelect)[]): Map<string, RegisterValues> => new Map(rows.map(({ id, createdAtMs: _, nameKey: __, version: ___, retiredAtMs: ____, ...entry }) => [id, entry]))
