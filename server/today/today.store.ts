import { sql } from 'drizzle-orm'
import type { RoomCounts } from '../../core/today/todayView'
import type { Database } from '../db/open'

/** What a room has at all. */
export function createTodayStore({ orm }: Database) {
  return {
    counts: (): RoomCounts => {
      const row = orm.get<RoomCounts>(
        sql`SELECT (SELECT count(*) FROM tank WHERE retired_at_ms IS NULL) AS tanks, (SELECT count(*) FROM supplier WHERE retired_at_ms IS NULL) AS suppliers,
          (SELECT count(*) FROM species WHERE retired_at_ms IS NULL) AS species, (SELECT coalesce(max(number), 0) FROM crate) AS crates`,
      )
      return { tanks: row?.tanks ?? 0, suppliers: row?.suppliers ?? 0, species: row?.species ?? 0, crates: row?.crates ?? 0 }
    },
  }
}
export type TodayStore = ReturnType<typeof createTodayStore>
