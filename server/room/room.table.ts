import type { PhInstrument, SalinityInstrument } from '../../core/acclimation/instruments'
import { sql } from 'drizzle-orm'
import { index, integer, real, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core'
import type { Mesh } from '../../core/moves/catchCard'
import type { SourcesRule } from '../../core/moves/moveRules'
import type { FilterState } from '../../core/setup/words'
import type { Sharing, TankCorners, TankDecor, TankKind, TankPurpose, TankState, Water } from '../../core/room/room.schema'
import type { SalinityUnit, TemperatureUnit, VolumeUnit } from '../../core/units/units'
import type { SgReference } from '../../core/water/density'
import { inUse } from '../db/columns'
import { place } from '../ledger/ledger.table'

/** The one room of this database. */
export const room = sqliteTable('room', {
  id: integer('id').primaryKey(),
  name: text('name').notNull(),
  timeZone: text('time_zone').notNull(),
  temperatureUnit: text('temperature_unit').$type<TemperatureUnit>().notNull().default('°C'),
  volumeUnit: text('volume_unit').$type<VolumeUnit>().notNull().default('L'),
  salinityUnit: text('salinity_unit').$type<SalinityUnit>().notNull().default('ppt'),
  sgReference: text('sg_reference').$type<SgReference>().notNull().default('25/25'),
  /** What salinity and pH are read with where nobody says. */
  salinityBy: text('salinity_by').$type<SalinityInstrument>().notNull().default('refractometer'),
  phBy: text('ph_by').$type<PhInstrument>().notNull().default('meter'),
  version: integer('version').notNull().default(1),
})

/** Systems that may share tools; nothing wet goes from one to another. */
export const zone = sqliteTable('zone', {
  id: text('id').primaryKey(),
  name: text('name').notNull().unique(),
  /** What it says of sources that have not met; null leaves it to the house. */
  sourcesRule: text('sources_rule').$type<SourcesRule>(),
  note: text('note'),
  ...inUse(),
})

/** Tools that belong to one zone. */
export const toolSet = sqliteTable('tool_set', {
  id: text('id').primaryKey(),
  name: text('name').notNull().unique(),
  zoneId: text('zone_id').references(() => zone.id),
  marking: text('marking'),
  /** Of its net. */
  netWidthCm: real('net_width_cm'),
  netMesh: text('net_mesh').$type<Mesh>(),
  note: text('note'),
  ...inUse(),
})

/** Tanks that are kept alike: on one water, or each with its own. */
export const system = sqliteTable('system', {
  id: text('id').primaryKey(),
  name: text('name').notNull().unique(),
  water: text('water').$type<Water>().notNull(),
  /** Null until somebody said; counts as one water then (`isAlone`). */
  sharing: text('sharing').$type<Sharing>(),
  sumpL: real('sump_l'),
  /** Whether a filter takes up ammonia; null until somebody said. */
  filter: text('filter').$type<FilterState>(),
  zoneId: text('zone_id').references(() => zone.id),
  /** The water it is kept at. */
  tempC: real('temp_c'),
  salinityPpt: real('salinity_ppt'),
  ph: real('ph'),
  alkalinityMeqL: real('alkalinity_meq_l'),

  note: text('note'),
  ...inUse(),
})

/** How large a rack is, and where it stands on the floor. A rack of which nobody said so is as large as its tanks. */
export const rack = sqliteTable('rack', {
  name: text('name').primaryKey(),
  shelves: integer('shelves').notNull(),
  perShelf: integer('per_shelf').notNull(),
  /** Steps of half a metre; null while it has no place. */
  x: integer('x'),
  y: integer('y'),
  isTurned: integer('is_turned').notNull().default(0),
  version: integer('version').notNull(),
})

/** Where hands are washed. */
export const sink = sqliteTable('sink', { id: integer('id').primaryKey(), x: integer('x').notNull(), y: integer('y').notNull() })

export const tank = sqliteTable(
  'tank',
  {
    id: text('id').primaryKey().references(() => place.id),
    code: text('code').notNull().unique(),
    kind: text('kind').$type<TankKind>().notNull(),
    systemId: text('system_id').notNull().references(() => system.id),
    rack: text('rack').notNull(),
    shelf: integer('shelf').notNull(),
    position: integer('position').notNull(),
    netVolumeL: real('net_volume_l'),
    grossVolumeL: real('gross_volume_l'),
    /** Front to back, as the net has to fit, and the height of its water. */
    depthCm: real('depth_cm'),
    heightCm: real('height_cm'),
    corners: text('corners').$type<TankCorners>(),
    decor: text('decor').$type<TankDecor>(),
    purpose: text('purpose').$type<TankPurpose>(),
    state: text('state').$type<TankState>(),
    ...inUse(),
  },
  // A spot is free again once its tank is retired.
  (table) => [index('tank_system').on(table.systemId), uniqueIndex('tank_spot').on(table.rack, table.shelf, table.position).where(sql`${table.retiredAtMs} IS NULL`)],
)
