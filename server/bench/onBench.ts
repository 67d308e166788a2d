import { sql, type SQL } from 'drizzle-orm'

/** The open run that the fish of a place are on; null when they are on none. `placeId` is SQL that names the place. */
export const openRunOf = (placeId: SQL): SQL<string | null> =>
  sql<string | null>`(SELECT s.run_id FROM run_source s JOIN run ON run.id = s.run_id WHERE s.place_id = ${placeId} AND run.ended_at_ms IS NULL AND run.out_at_ms IS NULL)`
