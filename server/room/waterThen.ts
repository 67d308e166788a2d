import { sql, type SQL } from 'drizzle-orm'

// A tank may have belonged to other waters: what happened in it counts for the water it belonged to then.

/** In SQL: whether a tank belonged to a water at a moment. */
export const inWaterThen = (waterId: string, tankId: SQL, atMs: SQL): SQL => sql`(SELECT w.water_id FROM tank_water w WHERE w.tank_id = ${tankId} AND w.since_ms <= ${atMs} ORDER BY w.seq DESC LIMIT 1) = ${waterId}`
/** In SQL: the tanks that ever belonged to a water, as rows of `id`. */
export const everInWater = (waterId: string): SQL => sql`(SELECT DISTINCT tank_id AS id FROM tank_water WHERE water_id = ${waterId})`
