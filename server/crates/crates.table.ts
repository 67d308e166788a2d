import { sql } from 'drizzle-orm'
import { index, integer, primaryKey, real, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core'
import type { PhInstrument, SalinityInstrument } from '../../core/acclimation/instruments'
import type { Behaviour, BodyCondition, Look, Mishap } from '../../core/crates/crates.schema'
import type { BoxFacts } from '../../core/crates/box.schema'
import type { ClaimState } from '../../core/crates/claim'
import type { ListMapping } from '../../core/crates/listMapping'
import type { Water } from '../../core/room/room.schema'
import type { Identity, Origin } from '../../core/setup/words'
import { inUse } from '../db/columns'
import { lot, place } from '../ledger/ledger.table'
import type { ToldOfLine } from '../../core/crates/told.schema'
import type { RuleCode } from '../../core/tankChoice/company'
import { tank } from '../room/room.table'
import { staff } from '../staff/staff.table'

export const supplier = sqliteTable('supplier', {
  id: text('id').primaryKey(),
  name: text('name').notNull().unique(),
  shippingTempC: real('shipping_temp_c'),
  shippingSalinityPpt: real('shipping_salinity_ppt'),
  shippingPh: real('shipping_ph'),
  shippingAlkalinityMeqL: real('shipping_alkalinity_meq_l'),
  /** Kind of water it usually ships in, where its salinity is not known. */
  usualWater: text('usual_water').$type<Water>(),
  transitHours: real('transit_hours'),
  /** Hours after arrival within which losses must be claimed; null when not agreed. */
  claimWindowHours: real('claim_window_hours'),
  claimRules: text('claim_rules'),
  note: text('note'),
  ...inUse(),
})

/** Where a supplier's fish come from. */
export const source = sqliteTable(
  'source',
  {
    id: text('id').primaryKey(),
    supplierId: text('supplier_id').notNull().references(() => supplier.id),
    name: text('name').notNull(),
    origin: text('origin').$type<Origin>().notNull(),
    note: text('note'),
    ...inUse(),
  },
  (table) => [uniqueIndex('source_of_supplier').on(table.supplierId, table.name)],
)

/** Which column of a supplier's lists means what, remembered by the heading of the list. */
export const listMapping = sqliteTable(
  'list_mapping',
  {
    supplierId: text('supplier_id').notNull().references(() => supplier.id),
    heading: text('heading').notNull(),
    mapping: text('mapping', { mode: 'json' }).$type<ListMapping>().notNull(),
  },
  (table) => [primaryKey({ columns: [table.supplierId, table.heading] })],
)

export const crate = sqliteTable('crate', {
  id: text('id').primaryKey(),
  /** Short number for people: 1 and up, in the order the crates were entered. */
  number: integer('number').notNull().unique(),
  supplierId: text('supplier_id').notNull().references(() => supplier.id),
  expectedAtMs: integer('expected_at_ms'),
  packedAtMs: integer('packed_at_ms'),
  carrier: text('carrier'),
  /** False for a crate that came without a list: its fish are counted in first, and named when they are known. */
  hasList: integer('has_list').notNull().default(1),
  box: text('box', { mode: 'json' }).$type<BoxFacts>(),
  boxVersion: integer('box_version').notNull().default(1),
  closedAtMs: integer('closed_at_ms'),
  closedById: text('closed_by_id').references(() => staff.id),
  /** Why it was closed although fish stood in bags; null when none did. */
  closedBecause: text('closed_because'),
  createdAtMs: integer('created_at_ms').notNull(),
  note: text('note'),
  /** The sender's water, where their list says it of this crate. */
  shippingTempC: real('shipping_temp_c'),
  shippingSalinityPpt: real('shipping_salinity_ppt'),
  shippingPh: real('shipping_ph'),
  shippingAlkalinityMeqL: real('shipping_alkalinity_meq_l'),
  /** How the sender would take the fish in. */
  method: text('method'),
  version: integer('version').notNull().default(1),
}, (table) => [index('crate_closed').on(table.closedAtMs)])

export const line = sqliteTable(
  'line',
  {
    id: text('id').primaryKey(),
    crateId: text('crate_id').notNull().references(() => crate.id),
    position: integer('position').notNull(),
    count: integer('count').notNull(),
    lotId: text('lot_id').notNull().unique().references(() => lot.id),
    tankId: text('tank_id').references(() => tank.id),
    version: integer('version').notNull(),
    origin: text('origin').$type<Origin>(),
    strain: text('strain'),
    identity: text('identity').$type<Identity>(),
    promisedTo: text('promised_to'),
    /** Fish on the invoice, when that differs from the list. */
    billed: integer('billed'),
    sizeCm: real('size_cm'),
    priceEach: real('price_each'),
    capture: text('capture'),
    ateBefore: text('ate_before'),
    note: text('note'),
    /** What the sender did with them. */
    told: text('told', { mode: 'json' }).$type<ToldOfLine>(),
  },
  (table) => [uniqueIndex('line_position').on(table.crateId, table.position)],
)

export const bag = sqliteTable(
  'bag',
  {
    id: text('id').primaryKey().references(() => place.id),
    lineId: text('line_id').notNull().references(() => line.id),
    crateId: text('crate_id').notNull().references(() => crate.id),
    number: integer('number').notNull(),
    listed: integer('listed').notNull(),
  },
  (table) => [uniqueIndex('bag_number').on(table.crateId, table.number), index('bag_line').on(table.lineId)],
)

/** What was found in a bag. Taken back by filling `undone…`, never by deleting; at most one per bag stands. */
export const bagRecord = sqliteTable(
  'bag_record',
  {
    id: text('id').primaryKey(),
    bagId: text('bag_id').notNull().references(() => bag.id),
    alive: integer('alive').notNull(),
    dead: integer('dead').notNull(),
    concerns: text('concerns', { mode: 'json' }).$type<Look[]>().notNull(),
    body: text('body').$type<BodyCondition>(),
    skinTempC: real('skin_temp_c'),
    waterTempC: real('water_temp_c'),
    salinityPpt: real('salinity_ppt'),
    salinityBy: text('salinity_by').$type<SalinityInstrument>(),
    ph: real('ph'),
    phBy: text('ph_by').$type<PhInstrument>(),
    /** Total ammonia as nitrogen. */
    ammoniaMgL: real('ammonia_mg_l'),
    /** 1 when a binder was in the water already, 0 when not, null when not asked. */
    hasBinder: integer('has_binder'),
    behaviour: text('behaviour').$type<Behaviour>(),
    mishap: text('mishap').$type<Mishap>(),
    note: text('note'),
    staffId: text('staff_id').notNull().references(() => staff.id),
    commandKey: text('command_key').notNull(),
    happenedAtMs: integer('happened_at_ms').notNull(),
    recordedAtMs: integer('recorded_at_ms').notNull(),
    undoneById: text('undone_by_id').references(() => staff.id),
    undoneAtMs: integer('undone_at_ms'),
    undoneCommandKey: text('undone_command_key'),
  },
  (table) => [uniqueIndex('bag_record_stands').on(table.bagId).where(sql`${table.undoneAtMs} IS NULL`), index('bag_record_bag').on(table.bagId)],
)

/** A picture of a bag as it came. The file lies in the folder of photos under this id. */
export const bagPhoto = sqliteTable(
  'bag_photo',
  {
    id: text('id').primaryKey(),
    bagId: text('bag_id').notNull().references(() => bag.id),
    widthPx: integer('width_px').notNull(),
    heightPx: integer('height_px').notNull(),
    staffId: text('staff_id').notNull().references(() => staff.id),
    happenedAtMs: integer('happened_at_ms').notNull(),
    recordedAtMs: integer('recorded_at_ms').notNull(),
    removedById: text('removed_by_id').references(() => staff.id),
    removedAtMs: integer('removed_at_ms'),
  },
  (table) => [index('bag_photo_bag').on(table.bagId)],
)

/** What a supplier is asked to make good. */
export const claim = sqliteTable('claim', {
  crateId: text('crate_id').primaryKey().references(() => crate.id),
  state: text('state').$type<ClaimState>().notNull(),
  note: text('note'),
  sentAtMs: integer('sent_at_ms'),
  settledAtMs: integer('settled_at_ms'),
  settledAmount: real('settled_amount'),
  version: integer('version').notNull().default(1),
})

/** A step of a crate's preparation that somebody did. */
export const prepared = sqliteTable(
  'prepared',
  {
    crateId: text('crate_id').notNull().references(() => crate.id),
    /** Names the step; made from what it is about, so that it stays the same while the list around it changes. */
    step: text('step').notNull(),
    staffId: text('staff_id').notNull().references(() => staff.id),
    doneAtMs: integer('done_at_ms').notNull(),
  },
  (table) => [primaryKey({ columns: [table.crateId, table.step] })],
)

/** A tank that was chosen for fish against a hard rule, by a lead or in distress, and why. */
export const tankOverride = sqliteTable(
  'tank_override',
  {
    id: text('id').primaryKey(),
    /** Only in entries of before lots were named. */
    lineId: text('line_id').references(() => line.id),
    lotId: text('lot_id').references(() => lot.id),
    tankId: text('tank_id').notNull().references(() => tank.id),
    /** The rules by their codes; what they do not name is asked anew. */
    codes: text('codes', { mode: 'json' }).$type<RuleCode[]>().notNull().default([]),
    broken: text('broken').notNull(),
    reason: text('reason').notNull(),
    commandKey: text('command_key'),
    /** 1 when a keeper alone put fish in distress there: a lead looks at it later. */
    isRescue: integer('is_rescue').notNull().default(0),
    seenById: text('seen_by_id').references(() => staff.id),
    seenAtMs: integer('seen_at_ms'),
    staffId: text('staff_id').notNull().references(() => staff.id),
    recordedAtMs: integer('recorded_at_ms').notNull(),
  },
  (table) => [index('tank_override_line').on(table.lineId), index('tank_override_lot').on(table.lotId), index('tank_override_command').on(table.commandKey), index('tank_override_rescue').on(table.recordedAtMs).where(sql`${table.isRescue} = 1 AND ${table.seenAtMs} IS NULL`)],
)
