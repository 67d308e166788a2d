import { and, desc, eq, gte, inArray, sql } from 'drizzle-orm'
import type { RoundOf } from '../../core/rounds/roundId'
import type { KindCount, OwnAnswer } from '../../core/facts/facts'
import type { Sign } from '../../core/rounds/rounds.schema'
import type { CheckView } from '../../core/rounds/roundView'
import { listed } from '../db/listed'
import type { Database } from '../db/open'
import { movement, stock } from '../ledger/ledger.table'
import { staff } from '../staff/staff.table'
import { check, observation, round } from './rounds.table'

type CheckRow = Omit<CheckView, 'signs' | 'answers' | 'counts'> & { signs: string; answers: string | null; counts: string | null }

/** Queries about rounds and their checks. */
export function createRoundsStore({ orm, raw }: Database) {
  const goOn = raw.prepare(`INSERT INTO round (id, "on", number, started_at_ms, started_by_id, last_at_ms, last_by_id) VALUES (?1, ?2, ?3, ?4, ?5, ?4, ?5)
    ON CONFLICT (id) DO UPDATE SET last_at_ms = max(last_at_ms, ?4), last_by_id = CASE WHEN last_at_ms <= ?4 THEN ?5 ELSE last_by_id END,
      left_at_ms = CASE WHEN left_at_ms < ?4 THEN NULL ELSE left_at_ms END, left_by_id = CASE WHEN left_at_ms < ?4 THEN NULL ELSE left_by_id END`)
  const fields = ['id', 'tankId', 'roundOn', 'roundNumber', 'ate', 'signs', 'answers', 'counts', 'seen', 'expected', 'note', 'staffId', 'commandKey', 'happenedAtMs', 'recordedAtMs']
  const insert = orm
    .insert(check)
    .values(Object.fromEntries(fields.map((field) => [field, sql.placeholder(field)])) as unknown as typeof check.$inferInsert)
    .prepare()
  const observedFields = ['kind', 'tankId', 'lotId', 'word', 'severity', 'value', 'note', 'checkId', 'staffId', 'commandKey', 'happenedAtMs', 'recordedAtMs']
  const observe = orm
    .insert(observation)
    .values(Object.fromEntries(observedFields.map((field) => [field, sql.placeholder(field)])) as unknown as typeof observation.$inferInsert)
    .returning({ seq: observation.seq })
    .prepare()
  const fishIn = orm.select({ fish: sql<number>`coalesce(sum(${stock.quantity}), 0)` }).from(stock).where(eq(stock.placeId, sql.placeholder('tankId'))).prepare()
  const view = sql.raw(`SELECT 'check' AS type, c.id, c.tank_id AS tankId, c.round_on AS roundOn, c.round_number AS roundNumber, c.ate, c.signs, c.answers, c.counts, c.seen, c.expected, c.note,
    c.happened_at_ms AS happenedAtMs, c.recorded_at_ms AS recordedAtMs, staff.name AS staffName, c.replaced_by_id AS replacedById FROM "check" c JOIN staff ON staff.id = c.staff_id`)
  const toView = (row: CheckRow): CheckView => ({ ...row, signs: listed<Sign>(row.signs), answers: listed<OwnAnswer>(row.answers), counts: listed<KindCount>(row.counts) })

  return {
    insert: (values: typeof check.$inferInsert) => void insert.run(values),
    /** Writes one thing that was observed, and answers with its place in the order. */
    observe: (values: Omit<typeof observation.$inferInsert, 'seq'>): number => Number(observe.get(values)?.seq),
    byId: (id: string) => orm.select().from(check).where(eq(check.id, id)).get() ?? null,
    /** The check that was sent with a key: a device corrects it before it knows its id. */
    idSentWith: (key: string): string | null => orm.get<{ id: string } | undefined>(sql`SELECT answer ->> '$.id' AS id FROM command WHERE key = ${key} AND name = 'recordCheck'`)?.id ?? null,
    /** A check was corrected by another, and with it all that it said. */
    markReplaced({ id, tankId, happenedAtMs }: Pick<typeof check.$inferSelect, 'id' | 'tankId' | 'happenedAtMs'>, by: { id: string; seq: number }): void {
      orm.update(check).set({ replacedById: by.id }).where(eq(check.id, id)).run()
      orm.update(observation).set({ replacedBySeq: by.seq }).where(and(eq(observation.tankId, tankId), inArray(observation.kind, ['ate', 'sign', 'seen', 'note']), eq(observation.happenedAtMs, happenedAtMs), eq(observation.checkId, id))).run()
    },
    /** Whether fish of a lot ever were in the books: a line that may still be struck from its list has none. */
    hasFish: (lotId: string): boolean => orm.select({ id: movement.id }).from(movement).where(eq(movement.lotId, lotId)).limit(1).get() !== undefined,
    /** Standing checks of one round, oldest first. */
    ofRound: (on: string, number: number): CheckView[] =>
      orm.all<CheckRow>(sql`${view} WHERE c.round_on = ${on} AND c.round_number = ${number} AND c.replaced_by_id IS NULL ORDER BY c.happened_at_ms, c.recorded_at_ms`).map(toView),
    /** The number of the newest round of a day; 0 when none was begun. */
    newestRound: (on: string): number => orm.get<{ number: number | null }>(sql`SELECT max(number) AS number FROM round WHERE "on" = ${on}`)?.number ?? 0,
    round: (id: string) => orm.select().from(round).where(eq(round.id, id)).get() ?? null,
    /** The round in which something was recorded last, since a moment. */
    lastRound: (sinceMs: number) => orm.select().from(round).where(gte(round.lastAtMs, sinceMs)).orderBy(desc(round.lastAtMs)).limit(1).get() ?? null,
    /** Somebody recorded in a round: it has begun, and whoever had left it, it goes on. One that was sent late changes nothing that came after it. */
    goOn: ({ id, on, number, atMs, staffId }: RoundOf & { id: string; atMs: number; staffId: string }) => void goOn.run(id, on, number, atMs, staffId),
    leave: (id: string, by: { leftAtMs: number; leftById: string }) => void orm.update(round).set(by).where(eq(round.id, id)).run(),
    share: (id: string, parts: string | null) => void orm.update(round).set({ parts }).where(eq(round.id, id)).run(),
    close: (id: string, by: { closedAtMs: number | null; closedById: string | null }) => void orm.update(round).set(by).where(eq(round.id, id)).run(),
    nameOf: (staffId: string): string => orm.select({ name: staff.name }).from(staff).where(eq(staff.id, staffId)).get()?.name ?? '',
    /** The newest checks of a tank, newest first. */
    at: (tankId: string, limit: number): CheckView[] =>
      orm
        .all<CheckRow>(sql`${view} WHERE c.tank_id = ${tankId} ORDER BY c.happened_at_ms DESC LIMIT ${limit}`)
        .map(toView),
    fishIn: (tankId: string): number => fishIn.get({ tankId })?.fish ?? 0,
  }
}
export type RoundsStore = ReturnType<typeof createRoundsStore>
