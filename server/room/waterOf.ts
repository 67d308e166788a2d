import { sql } from 'drizzle-orm'

/**
 * Answers in SQL whether a tank's water is its own: its system says so, or it is the only one there. What nobody said
 * counts as shared, whatever stands under *sump*. Reads `tank` and `system`.
 */
export const isAlone = sql`(coalesce(system.sharing, '') = 'each its own' OR NOT EXISTS (SELECT 1 FROM tank other WHERE other.system_id = tank.system_id AND other.id <> tank.id AND other.retired_at_ms IS NULL))`

/** The body of water of a tank in SQL: its system, or the tank itself where its water is its own. */
export const waterId = sql`CASE WHEN ${isAlone} THEN tank.id ELSE tank.system_id END`
