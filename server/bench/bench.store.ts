import { and, asc, eq, isNull, or, gt, sql } from 'drizzle-orm'
import type { AirlineView, RecheckView, RunSource, RunView, WaitingLine } from '../../core/bench/benchView'
import type { RunEvent } from '../../core/bench/runRecord'
import { groupBy } from '../../core/collections/groupBy'
import { findNamed } from '../../core/words/nameKey'
import { noHandling } from '../../core/species/handling'
import { handlingColumns, withHandling, type HandlingRow } from '../species/handling'
import type { Database } from '../db/open'
import { movement } from '../ledger/ledger.table'
import { staff } from '../staff/staff.table'
import { openRunOf } from './onBench'
import { airline, recheck, run, runEvent, runMovement, runSource, waterLoad } from './bench.table'

const placeWords = sql`CASE p.kind WHEN 'tank' THEN (SELECT code FROM tank WHERE id = p.id) WHEN 'bag' THEN (SELECT 'bag ' || number FROM bag WHERE id = p.id) ELSE 'vessel' END`

/** Queries about runs and what happened on them. */
export function createBenchStore({ orm }: Database) {
  const eventsOf = (runId: string): RunEvent[] =>
    orm
      .select({ event: runEvent, staffName: staff.name })
      .from(runEvent)
      .innerJoin(staff, eq(staff.id, runEvent.staffId))
      .where(and(eq(runEvent.runId, runId), isNull(runEvent.undoneAtMs)))
      .orderBy(asc(runEvent.happenedAtMs), asc(runEvent.recordedAtMs), asc(sql`${runEvent}.rowid`))
      .all()
      .map(({ event, staffName }) => {
        const { id, kind, stepIndex, tempC, salinityPpt, ph, tanMgL, mlPerMin, alarm, untilMs, note } = event
        return { id, kind, atMs: event.happenedAtMs, stepIndex, staffName, tempC, salinityPpt, ph, tanMgL, isSimulated: event.isSimulated === 1, mlPerMin, alarm, untilMs, isOn: event.isOn === null ? null : event.isOn === 1, note }
      })

  const sourcesOf = (runId: string): RunSource[] =>
    orm.all(sql`SELECT s.place_id AS placeId, s.lot_id AS lotId, lot.code AS lotCode, species.name AS species, ${placeWords} AS "from", s.quantity
      FROM run_source s JOIN place p ON p.id = s.place_id JOIN lot ON lot.id = s.lot_id JOIN species ON species.id = lot.species_id WHERE s.run_id = ${runId} ORDER BY s.rowid`)

  /** Fish of a run that are not in a tank yet: in its vessel, or still in the bags it began with. */
  const standingOf = (runId: string) =>
    orm.all<{ lotId: string; species: string; lotCode: string; placeId: string; quantity: number } & HandlingRow>(sql`SELECT stock.lot_id AS lotId, species.name AS species, lot.code AS lotCode, stock.place_id AS placeId, stock.quantity, ${handlingColumns} FROM stock JOIN lot ON lot.id = stock.lot_id JOIN species ON species.id = lot.species_id
      WHERE stock.place_id = ${runId} OR EXISTS (SELECT 1 FROM run_source s JOIN place p ON p.id = s.place_id AND p.kind = 'bag' WHERE s.run_id = ${runId} AND s.place_id = stock.place_id AND s.lot_id = stock.lot_id) ORDER BY lot.code, stock.place_id`).map(withHandling)

  const toView = (row: { run: typeof run.$inferSelect; startedBy: string; tankCode: string | null; crateId: string | null; crateNumber: number | null }): RunView => {
    const { id, number, plan, tankId, toOutside, startedAtMs, outAtMs, look, countedAlive, countedDead, endedAtMs, outcome } = row.run
    const load = orm.select({ litres: waterLoad.litres, tanMgL: waterLoad.tanMgL }).from(waterLoad).where(eq(waterLoad.runId, id)).get() ?? null
    const standing = standingOf(id)
    const byLot = groupBy(standing, ({ lotId }) => lotId)
    return {
      ...{ id, number, plan, toOutside, startedAtMs, outAtMs, look, countedAlive, countedDead, endedAtMs, outcome, load, startedBy: row.startedBy },
      events: eventsOf(id),
      sources: sourcesOf(id),
      standing: [...byLot.values()].map((rows) => ({ lotId: rows[0]?.lotId ?? '', species: rows[0]?.species ?? '', lotCode: rows[0]?.lotCode ?? '', handling: rows[0]?.handling ?? noHandling, quantity: rows.reduce((sum, { quantity }) => sum + quantity, 0) })),
      inVessel: standing.filter(({ placeId }) => placeId === id).reduce((sum, { quantity }) => sum + quantity, 0),
      tank: tankId === null || row.tankCode === null ? null : { id: tankId, code: row.tankCode },
      crate: row.crateId === null || row.crateNumber === null ? null : { id: row.crateId, number: row.crateNumber },
    }
  }
  const runs = (where: ReturnType<typeof sql> | ReturnType<typeof eq>): RunView[] =>
    orm
      .select({
        run,
        startedBy: staff.name,
        tankCode: sql<string | null>`(SELECT code FROM tank WHERE id = ${run.tankId})`,
        crateId: sql<string | null>`(SELECT bag.crate_id FROM run_source s JOIN bag ON bag.id = s.place_id WHERE s.run_id = ${run.id} LIMIT 1)`,
        crateNumber: sql<number | null>`(SELECT crate.number FROM run_source s JOIN bag ON bag.id = s.place_id JOIN crate ON crate.id = bag.crate_id WHERE s.run_id = ${run.id} LIMIT 1)`,
      })
      .from(run)
      .innerJoin(staff, eq(staff.id, run.staffId))
      .where(where)
      .orderBy(asc(run.startedAtMs), asc(run.number))
      .all()
      .map(toView)

  /** Tanks that hold fish of a run: from where it counted them out, along whatever moved its lots since. */
  const tanksOf = (runId: string): string[] =>
    orm.all<{ code: string }>(sql`WITH RECURSIVE
        own(lot_id) AS (SELECT DISTINCT lot_id FROM run_source WHERE run_id = ${runId}),
        reached(place_id) AS (
          SELECT m.to_place_id FROM run_movement rm JOIN movement m ON m.id = rm.movement_id WHERE rm.run_id = ${runId} AND m.to_place_id <> ${runId} AND m.to_place_id <> 'outside'
          UNION SELECT m.to_place_id FROM movement m JOIN reached r ON m.from_place_id = r.place_id JOIN own ON own.lot_id = m.lot_id WHERE m.to_place_id <> 'outside')
      SELECT tank.code FROM reached JOIN tank ON tank.id = reached.place_id WHERE EXISTS (SELECT 1 FROM stock JOIN own ON own.lot_id = stock.lot_id WHERE stock.place_id = reached.place_id AND stock.quantity > 0)
      ORDER BY tank.rack, tank.shelf, tank.position`).map(({ code }) => code)

  return {
    eventsOf,
    standingOf,
    run: (id: string): RunView | null => runs(eq(run.id, id))[0] ?? null,
    open: (): RunView[] => runs(isNull(run.endedAtMs) as ReturnType<typeof sql>),
    openAndEndedSince: (sinceMs: number): RunView[] => runs(or(isNull(run.endedAtMs), gt(run.endedAtMs, sinceMs)) as ReturnType<typeof sql>),
    nextNumber: (): number => (orm.select({ top: sql<number | null>`max(${run.number})` }).from(run).get()?.top ?? 0) + 1,
    /** The open run that has these fish on the bench already. */
    openRunWith: (placeId: string, lotId: string): { number: number } | null =>
      orm.get<{ number: number } | undefined>(sql`SELECT run.number FROM run_source s JOIN run ON run.id = s.run_id JOIN place p ON p.id = s.place_id
        WHERE s.place_id = ${placeId} AND s.lot_id = ${lotId} AND p.kind = 'bag' AND run.ended_at_ms IS NULL AND run.out_at_ms IS NULL`) ?? null,
    lineOfBag: (placeId: string): string | null => orm.get<{ lineId: string } | undefined>(sql`SELECT line_id AS lineId FROM bag WHERE id = ${placeId}`)?.lineId ?? null,
    insertRun: (values: typeof run.$inferInsert) => void orm.insert(run).values(values).run(),
    insertSource: (values: typeof runSource.$inferInsert) => void orm.insert(runSource).values(values).run(),
    insertEvent: (values: typeof runEvent.$inferInsert) => void orm.insert(runEvent).values(values).run(),
    insertMovement: (runId: string, movementId: string) => void orm.insert(runMovement).values({ runId, movementId }).run(),
    insertLoad: (values: typeof waterLoad.$inferInsert) => void orm.insert(waterLoad).values(values).run(),
    hasRechecks: (runId: string): boolean => orm.select({ id: recheck.id }).from(recheck).where(eq(recheck.runId, runId)).limit(1).get() !== undefined,
    /** Movements by which one count took fish out of a run, as far as they stand, newest first. */
    standingOfCount: (runId: string, commandKey: string) =>
      orm.select({ movement }).from(movement).innerJoin(runMovement, eq(runMovement.movementId, movement.id)).where(and(eq(runMovement.runId, runId), eq(movement.commandKey, commandKey), sql`NOT EXISTS (SELECT 1 FROM movement back WHERE back.reverses_id = ${movement.id})`)).orderBy(sql`${movement.seq} DESC`).all().map((row) => row.movement),
    /** Fish that were counted out of a run alive and dead, as far as it was not taken back; null before the first count. */
    countedOf(runId: string): { countedAlive: number | null; countedDead: number | null } {
      const row = orm.get<{ alive: number; dead: number; n: number }>(sql`SELECT count(*) AS n, coalesce(sum(CASE WHEN m.kind IN ('move', 'release') THEN m.quantity END), 0) AS alive, coalesce(sum(CASE WHEN m.kind = 'loss' AND m.reason IS NULL THEN m.quantity END), 0) AS dead
        FROM run_movement rm JOIN movement m ON m.id = rm.movement_id WHERE rm.run_id = ${runId} AND m.to_place_id <> ${runId} AND m.kind <> 'reversal' AND NOT EXISTS (SELECT 1 FROM movement back WHERE back.reverses_id = m.id)`)
      return row.n === 0 ? { countedAlive: null, countedDead: null } : { countedAlive: row.alive, countedDead: row.dead }
    },
    /** Forgets what was planned after a count that was taken back: looks nobody took, bag water that did not go in. */
    forgetAfter(runId: string): void {
      orm.delete(recheck).where(and(eq(recheck.runId, runId), isNull(recheck.doneAtMs))).run()
      orm.delete(waterLoad).where(eq(waterLoad.runId, runId)).run()
    },
    insertRecheck: (values: typeof recheck.$inferInsert) => void orm.insert(recheck).values(values).run(),
    updateRun: (id: string, values: Partial<typeof run.$inferInsert>) => void orm.update(run).set(values).where(eq(run.id, id)).run(),
    rawEvent: (id: string) => orm.select().from(runEvent).where(eq(runEvent.id, id)).get() ?? null,
    undoEvent: (id: string, by: { undoneById: string; undoneAtMs: number }) => void orm.update(runEvent).set(by).where(eq(runEvent.id, id)).run(),
    recheckById: (id: string) => orm.select().from(recheck).where(eq(recheck.id, id)).get() ?? null,
    answerRecheck: (id: string, values: Partial<typeof recheck.$inferInsert>) => void orm.update(recheck).set(values).where(eq(recheck.id, id)).run(),
    /** Rechecks that nobody did yet, and those done since a moment; soonest first. Where no fish of a run are left, there is nothing to look at. */
    rechecks(doneSinceMs: number): RecheckView[] {
      const rows = orm.all<Omit<RecheckView, 'tankCodes'>>(sql`SELECT recheck.id, recheck.run_id AS runId, run.number AS runNumber, recheck.label, recheck.usual, recheck.due_at_ms AS dueAtMs, recheck.done_at_ms AS doneAtMs, (SELECT name FROM staff WHERE id = recheck.done_by_id) AS doneBy, recheck.look, recheck.note,
          (SELECT group_concat(DISTINCT species.name) FROM run_source s JOIN lot ON lot.id = s.lot_id JOIN species ON species.id = lot.species_id WHERE s.run_id = run.id) AS species
        FROM recheck JOIN run ON run.id = recheck.run_id WHERE recheck.done_at_ms IS NULL OR recheck.done_at_ms >= ${doneSinceMs} ORDER BY recheck.due_at_ms, recheck.id`)
      // A run has several looks; where its fish are is one answer for all of them.
      const tanks = new Map([...new Set(rows.map(({ runId }) => runId))].map((runId) => [runId, tanksOf(runId)]))
      return rows.map((row) => ({ ...row, tankCodes: tanks.get(row.runId) ?? [] })).filter(({ tankCodes, doneAtMs }) => tankCodes.length > 0 || doneAtMs !== null)
    },
    /** Lines of open crates whose fish stand in bags, opened or still shut, and on no run. */
    waiting: (): WaitingLine[] =>
      orm.all(sql`SELECT crate.id AS crateId, crate.number AS crateNumber, line.id AS lineId, species.name AS species, count(*) AS bags, sum(CASE WHEN r.id IS NULL THEN bag.listed ELSE stock.quantity END) AS fish,
          sum(r.id IS NULL) AS shut, (SELECT code FROM tank WHERE id = line.tank_id) AS tankCode, crate.packed_at_ms AS packedAtMs
        FROM crate CROSS JOIN bag ON bag.crate_id = crate.id JOIN line ON line.id = bag.line_id JOIN lot ON lot.id = line.lot_id JOIN species ON species.id = lot.species_id
          LEFT JOIN bag_record r ON r.bag_id = bag.id AND r.undone_at_ms IS NULL LEFT JOIN stock ON stock.place_id = bag.id AND stock.lot_id = line.lot_id AND stock.quantity > 0
        WHERE crate.closed_at_ms IS NULL AND (stock.quantity > 0 OR (r.id IS NULL AND bag.listed > 0)) AND ${openRunOf(sql`bag.id`)} IS NULL
        GROUP BY line.id ORDER BY shut = count(*), coalesce(crate.packed_at_ms, crate.created_at_ms), crate.number, line.position`),
    airlines: (): AirlineView[] =>
      orm.select({ id: airline.id, name: airline.name, dropsPerMl: airline.dropsPerMl, calibratedAtMs: airline.calibratedAtMs, by: staff.name }).from(airline).innerJoin(staff, eq(staff.id, airline.staffId)).orderBy(asc(airline.name)).all(),
    airlineNamed: (name: string) => findNamed(orm.select().from(airline).all(), name),
    keepAirline: (values: typeof airline.$inferInsert) => void orm.insert(airline).values(values).onConflictDoUpdate({ target: airline.id, set: { dropsPerMl: values.dropsPerMl, staffId: values.staffId, calibratedAtMs: values.calibratedAtMs } }).run(),
  }
}
export type BenchStore = ReturnType<typeof createBenchStore>
