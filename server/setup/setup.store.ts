import { eq, sql } from 'drizzle-orm'
import type { SQLiteColumn, SQLiteTable } from 'drizzle-orm/sqlite-core'
import { registers, type RegisterName, type RegisterRow, type RegisterValues } from '../../core/setup/registers'
import { agent } from '../bench/bench.table'
import { source, supplier } from '../crates/crates.table'
import type { Database } from '../db/open'
import { system, tank, toolSet, zone } from '../room/room.table'
import { species } from '../species/species.table'
import { vessel } from '../vessels/vessels.table'
import { feed, food } from './setup.table'

type RegisterTable = SQLiteTable & Record<'id' | 'version' | 'retiredAtMs', SQLiteColumn> & Record<string, SQLiteColumn>
const tables = { zones: zone, toolSets: toolSet, systems: system, tanks: tank, vessels: vessel, suppliers: supplier, sources: source, species, foods: food, feeds: feed, agents: agent } as unknown as Record<RegisterName, RegisterTable>

/** Queries about the lists that a lead keeps. Every field of a register is a column of the same name. */
export function createSetupStore({ orm }: Database) {
  const toRow = (register: RegisterName, row: Record<string, unknown>): RegisterRow => ({
    id: String(row.id),
    version: Number(row.version),
    retiredAtMs: (row.retiredAtMs as number | null) ?? null,
    values: Object.fromEntries(registers[register].fields.map((field) => [field.name, row[field.name] ?? null])) as RegisterValues,
  })
  const count = (query: ReturnType<typeof sql>): number => orm.get<{ n: number }>(query)?.n ?? 0
  return {
    rows(register: RegisterName): RegisterRow[] {
      const table = tables[register]
      const key = table[registers[register].key] as SQLiteColumn
      return orm.select().from(table).orderBy(sql`lower(${key})`).all().map((row) => toRow(register, row as Record<string, unknown>))
    },
    row(register: RegisterName, id: string): RegisterRow | null {
      const table = tables[register]
      const row = orm.select().from(table).where(eq(table.id, id)).get() as Record<string, unknown> | undefined
      return row ? toRow(register, row) : null
    },
    insert: (register: RegisterName, values: Record<string, unknown>) => void orm.insert(tables[register]).values(values as never).run(),
    update: (register: RegisterName, id: string, values: Record<string, unknown>) => void orm.update(tables[register]).set(values as never).where(eq(tables[register].id, id)).run(),
    fishAt: (id: string): number => count(sql`SELECT coalesce(sum(quantity), 0) AS n FROM stock WHERE place_id = ${id}`),
    tanksInUse: (systemId: string): number => count(sql`SELECT count(*) AS n FROM tank WHERE system_id = ${systemId} AND retired_at_ms IS NULL`),
    /** Lines of crates still on their way, or being unpacked, that are planned for a tank. A bag that stayed shut in a crate that is closed comes no more. */
    linesPlannedFor: (tankId: string): number =>
      count(sql`SELECT count(*) AS n FROM line JOIN crate ON crate.id = line.crate_id WHERE line.tank_id = ${tankId} AND crate.closed_at_ms IS NULL AND EXISTS (SELECT 1 FROM bag LEFT JOIN bag_record r ON r.bag_id = bag.id AND r.undone_at_ms IS NULL WHERE bag.line_id = line.id AND r.id IS NULL)`),
    tankAtSpot: (rack: string, shelf: number, position: number): { id: string; code: string } | null =>
      orm.get<{ id: string; code: string } | undefined>(sql`SELECT id, code FROM tank WHERE rack = ${rack} AND shelf = ${shelf} AND position = ${position} AND retired_at_ms IS NULL`) ?? null,
  }
}
export type SetupStore = ReturnType<typeof createSetupStore>
