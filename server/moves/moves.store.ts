import { and, eq, gte, isNull, sql } from 'drizzle-orm'
import type { FightHarm } from '../../core/moves/fightWeight'
import type { RegisterValues } from '../../core/setup/registers'
import type { Database } from '../db/open'
import { newId } from '../newId'
import { tank, toolSet } from '../room/room.table'
import { entriesById } from '../species/entriesById'
import { species } from '../species/species.table'
import { staff } from '../staff/staff.table'
import { fight, lift, movedIndividual, moveRule } from './moves.table'

export interface FightRow {
  tankId: string
  volumeL: number | null
  /** Names of the two kinds. */
  a: string
  b: string
  harm: FightHarm
  atMs: number
}

/** Queries about lifts, fights, chosen fish and the rules of the house. */
export function createMovesStore({ orm }: Database) {
  return {
    /** Fights since a moment; one written with a movement that was taken back never happened. */
    fights: (sinceMs: number): FightRow[] =>
      orm.all(sql`SELECT f.tank_id AS tankId, f.volume_l AS volumeL, a.name AS a, b.name AS b, f.harm, f.at_ms AS atMs FROM fight f JOIN species a ON a.id = f.species_a_id JOIN species b ON b.id = f.species_b_id WHERE f.at_ms >= ${sinceMs} AND f.undone_at_ms IS NULL ORDER BY f.at_ms`),
    insertFight: (row: Omit<typeof fight.$inferInsert, 'id'>): string => {
      const id = newId()
      orm.insert(fight).values({ id, ...row }).run()
      return id
    },
    undoFight: (id: string, by: { undoneById: string; undoneAtMs: number }): boolean => orm.update(fight).set(by).where(and(eq(fight.id, id), isNull(fight.undoneAtMs))).returning({ id: fight.id }).all().length > 0,
    /** Takes back what a command wrote of fights. */
    undoFightsOf: (commandKey: string, by: { undoneById: string; undoneAtMs: number }): void => void orm.update(fight).set(by).where(and(eq(fight.commandKey, commandKey), isNull(fight.undoneAtMs))).run(),

    lifts: (tankId: string, sinceMs: number): string[] => orm.select({ id: lift.id }).from(lift).where(and(eq(lift.tankId, tankId), gte(lift.atMs, sinceMs), isNull(lift.undoneAtMs))).orderBy(lift.atMs).all().map(({ id }) => id),
    insertLift: (row: Omit<typeof lift.$inferInsert, 'id'>): string => {
      const id = newId()
      orm.insert(lift).values({ id, ...row }).run()
      return id
    },
    undoLift: (id: string, by: { undoneById: string; undoneAtMs: number }): boolean => orm.update(lift).set(by).where(and(eq(lift.id, id), isNull(lift.undoneAtMs))).returning({ id: lift.id }).all().length > 0,

    insertIndividual: (row: Omit<typeof movedIndividual.$inferInsert, 'id'>): void => void orm.insert(movedIndividual).values({ id: newId(), ...row }).run(),

    /** What makes catching in a tank easy or hard. */
    shapeOf: (tankId: string) => orm.select({ depthCm: tank.depthCm, heightCm: tank.heightCm, corners: tank.corners, decor: tank.decor }).from(tank).where(eq(tank.id, tankId)).get() ?? null,
    nets: () => orm.select({ id: toolSet.name, widthCm: toolSet.netWidthCm, mesh: toolSet.netMesh }).from(toolSet).where(isNull(toolSet.retiredAtMs)).all(),
    /** What the species book says of a kind. */
    entry: (speciesId: string): RegisterValues | null => entriesById(orm.select().from(species).where(eq(species.id, speciesId)).all()).get(speciesId) ?? null,
    speciesNamed: (id: string): string | null => orm.select({ name: species.name }).from(species).where(eq(species.id, id)).get()?.name ?? null,

    rule: () => orm.select({ changes: moveRule.changes, version: moveRule.version, changedBy: staff.name, changedAtMs: moveRule.changedAtMs }).from(moveRule).innerJoin(staff, eq(staff.id, moveRule.changedById)).get() ?? null,
    keepRule: (row: Omit<typeof moveRule.$inferInsert, 'id'>): void => void orm.insert(moveRule).values({ id: 1, ...row }).onConflictDoUpdate({ target: moveRule.id, set: row }).run(),
  }
}
export type MovesStore = ReturnType<typeof createMovesStore>
