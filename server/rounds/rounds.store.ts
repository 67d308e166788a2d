import { desc, eq, gte, sql } from 'drizzle-orm'
import type { RoundOf } from '../../core/rounds/roundId'
import type { Sign } from '../../core/rounds/rounds.schema'
import type { CheckView } from '../../core/rounds/roundView'
import type { Database } from '../db/open'
import { stock } from '../ledger/ledger.table'
import { staff } from '../staff/staff.table'
import { check, round } from './rounds.table'

/** What a check changes of its round; one that was sent late changes nothing that came after it. */
const later = (atMs: number, staffId: string) => ({
  lastAtMs: sql`max(${round.lastAtMs}, ${atMs})`,
  lastById: sql`CASE WHEN ${round.lastAtMs} <= ${atMs} THEN ${staffId} ELSE ${round.lastById} END`,
  leftAtMs: sql`CASE WHEN ${round.leftAtMs} < ${atMs} THEN NULL ELSE ${round.leftAtMs} END`,
  leftById: sql`CASE WHEN ${round.leftAtMs} < ${atMs} THEN NULL ELSE ${round.leftById} END`,
})

/** Queries about rounds and their checks. */
export function createRoundsStore({ orm }: Database) {
  const fields = ['id', 'tankId', 'roundOn', 'roundNumber', 'ate', 'signs', 'seen', 'expected', 'note', 'staffId', 'commandKey', 'happenedAtMs', 'recordedAtMs']
  const insert = orm
    .insert(check)
    .values(Object.fromEntries(fields.map((field) => [field, sql.placeholder(field)])) as unknown as typeof check.$inferInsert)
    .prepare()
  const fishIn = orm.select({ fish: sql<number>`coalesce(sum(${stock.quantity}), 0)` }).from(stock).where(eq(stock.placeId, sql.placeholder('tankId'))).prepare()
  const view = sql.raw(`SELECT 'check' AS type, c.id, c.tank_id AS tankId, c.round_on AS roundOn, c.round_number AS roundNumber, c.ate, c.signs, c.seen, c.expected, c.note,
    c.happened_at_ms AS happenedAtMs, c.recorded_at_ms AS recordedAtMs, staff.name AS staffName, c.replaced_by_id AS replacedById FROM "check" c JOIN staff ON staff.id = c.staff_id`)
  const toView = (row: Omit<CheckView, 'signs'> & { signs: string }): CheckView => ({ ...row, signs: JSON.parse(row.signs) as Sign[] })

  return {
    insert: (values: typeof check.$inferInsert) => void insert.run(values),
    byId: (id: string) => orm.select().from(check).where(eq(check.id, id)).get() ?? null,
    markReplaced: (id: string, replacedById: string) => void orm.update(check).set({ replacedById }).where(eq(check.id, id)).run(),
    /** Standing checks of one round, oldest first. */
    ofRound: (on: string, number: number): CheckView[] =>
      orm.all<Omit<CheckView, 'signs'> & { signs: string }>(sql`${view} WHERE c.round_on = ${on} AND c.round_number = ${number} AND c.replaced_by_id IS NULL ORDER BY c.happened_at_ms, c.recorded_at_ms`).map(toView),
    /** The number of the newest round of a day; 0 when none was begun. */
    newestRound: (on: string): number => orm.get<{ number: number | null }>(sql`SELECT max(number) AS number FROM round WHERE "on" = ${on}`)?.number ?? 0,
    round: (id: string) => orm.select().from(round).where(eq(round.id, id)).get() ?? null,
    /** The round in which something was recorded last, since a moment. */
    lastRound: (sinceMs: number) => orm.select().from(round).where(gte(round.lastAtMs, sinceMs)).orderBy(desc(round.lastAtMs)).limit(1).get() ?? null,
    /** Somebody recorded in a round: it has begun, and whoever had left it, it goes on. */
    goOn: ({ id, on, number, atMs, staffId }: RoundOf & { id: string; atMs: number; staffId: string }) =>
      void orm
        .insert(round)
        .values({ id, on, number, startedAtMs: atMs, startedById: staffId, lastAtMs: atMs, lastById: staffId })
        .onConflictDoUpdate({ target: round.id, set: later(atMs, staffId) })
        .run(),
    leave: (id: string, by: { leftAtMs: number; leftById: string }) => void orm.update(round).set(by).where(eq(round.id, id)).run(),
    close: (id: string, by: { closedAtMs: number | null; closedById: string | null }) => void orm.update(round).set(by).where(eq(round.id, id)).run(),
    nameOf: (staffId: string): string => orm.select({ name: staff.name }).from(staff).where(eq(staff.id, staffId)).get()?.name ?? '',
    /** The newest checks of a tank, newest first. */
    at: (tankId: string, limit: number): CheckView[] =>
      orm
        .all<Omit<CheckView, 'signs'> & { signs: string }>(sql`${view} WHERE c.tank_id = ${tankId} ORDER BY c.happened_at_ms DESC LIMIT ${limit}`)
        .map(toView),
    fishIn: (tankId: string): number => fishIn.get({ tankId })?.fish ?? 0,
  }
}
export type RoundsStore = ReturnType<typeof createRoundsStore>
