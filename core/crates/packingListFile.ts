import { array, ValidationError, type InferType } from 'yup'
import { bounds, choice, optionalText, strictObject, whole } from '../fields/fields.schema'
import { validated } from '../fields/validated'
import type { FieldError } from '../problem/problem'
import type { CrateView } from './crateView'
import { fishAndBags, lineDetails } from './lineDetails'
import type { ReadLine, ReadList } from './readPackingList'
import { partFields, toldFields, waterFields, type ToldWater } from './told.schema'
import { packingListFormat } from './packingListName'
import { splitIntoBags } from './splitIntoBags'


const moment = (label: string) => optionalText(label, 40).test('moment', `${label} must be a moment such as 2031-05-04T09:00:00Z`, (value) => !value || !Number.isNaN(Date.parse(value)))

/** A packing list as JSON. Fields that are not known may be left out. */
export const packingListSchema = strictObject({
  format: choice('Format', [packingListFormat]),
  version: whole('Version', 1, 2),
  part: partFields().optional().default(undefined),
  supplier: optionalText('Supplier', bounds.name).optional(),
  packedAt: moment('Packed').optional(),
  expectedAt: moment('Expected').optional(),
  water: waterFields().nullable().optional().default(undefined),
  method: optionalText('Method', bounds.note).optional(),
  note: optionalText('Note', bounds.note).optional(),
  lines: array()
    .of(strictObject({ ...fishAndBags(), perBag: fishAndBags().perBag.optional(), ...lineDetails(), ...toldFields() }))
    .typeError('The list must have lines')
    .defined('The list has no lines')
    .nonNullable('The list has no lines')
    .min(1, 'The list has no line')
    .max(200, 'A list may have at most 200 lines'),
})
export type PackingListFile = InferType<typeof packingListSchema>

export interface ListHead {
  supplier: string | null
  packedAtMs: number | null
  expectedAtMs: number | null
  note: string | null
  /** One of several lists that belong together. */
  part: { n: number; of: number } | null
  /** Water the fish came out of, as the sender says. */
  water: ToldWater | null
  /** How the sender would take them in. */
  method: string | null
}
export type ReadFile = ReadList & { head?: ListHead }

/** Reads a packing list as JSON; what is wrong is told by line, as with a CSV file. */
export function readPackingListJson(json: string): ReadFile {
  try {
    const file = validated(packingListSchema, JSON.parse(json))
    const errors: FieldError[] = file.version === 1 ? laterFields(file) : []
    const lines = file.lines.map((line, index): ReadLine => {
      const split = splitIntoBags(line.count, line.bags, line.perBag ?? null)
      if (!split.ok) errors.push({ path: `lines[${index}].perBag`, row: index + 1, column: 'perBag', message: `Line ${index + 1}: ${split.reason}` })
      const { species, count, bags, perBag = null, origin = null, strain = null, identity = null, promisedTo = null, billed = null, sizeCm = null, priceEach = null, capture = null, ateBefore = null, note = null, held, agents, lastFedOn } = line
      const told = held || agents?.length || lastFedOn ? { held, agents, lastFedOn } : null
      return { row: index + 1, species, count, bags, perBag, tankId: null, origin, strain, identity, promisedTo, billed, sizeCm, priceEach, capture, ateBefore, note, told }
    })
    const bags = lines.reduce((sum, line) => sum + line.bags, 0)
    if (bags > bounds.bagsInCrate) errors.push({ path: 'lines', row: 1, column: 'bags', message: `A crate may have at most ${bounds.bagsInCrate} bags; this list has ${bags}` })
    if (errors.length > 0) return { ok: false, errors }
    return { ok: true, lines, notices: [], head: { supplier: file.supplier ?? null, packedAtMs: toMs(file.packedAt), expectedAtMs: toMs(file.expectedAt), note: file.note ?? null, part: file.part ?? null, water: file.water ?? null, method: file.method ?? null } }
  } catch (error) {
    if (error instanceof SyntaxError) return { ok: false, errors: [{ path: 'row 1, file', row: 1, column: 'file', message: 'This is not complete JSON; export the list again' }] }
    if (!(error instanceof ValidationError)) throw error
    return { ok: false, errors: (error.inner.length > 0 ? error.inner : [error]).slice(0, 100).map((inner) => ({ path: inner.path ?? 'file', row: Number(/lines\[(\d+)\]/.exec(inner.path ?? '')?.[1] ?? 0) + 1, column: inner.path?.split('.').at(-1) ?? 'file', message: inner.path?.startsWith('lines[') ? `Line ${Number(/\d+/.exec(inner.path)?.[0]) + 1}: ${inner.message}` : inner.message })) }
  }
}

/** Version 1 says nothing of these: a list that does is not what it says it is. */
function laterFields(file: PackingListFile): FieldError[] {
  const error = (path: string, row: number, column: string): FieldError => ({ path, row, column, message: `${row > 0 ? `Line ${row}: ` : ''}Version 1 of a packing list has no "${column}"; it comes with version 2` })
  return [
    ...(['part', 'water', 'method'] as const).flatMap((field) => (file[field] === undefined || file[field] === null ? [] : [error(field, 0, field)])),
    ...file.lines.flatMap((line, index) => (['held', 'agents', 'lastFedOn'] as const).flatMap((field) => (line[field] === undefined || line[field] === null ? [] : [error(`lines[${index}].${field}`, index + 1, field)]))),
  ]
}

const toMs = (moment: string | null | undefined): number | null => (moment ? Date.parse(moment) : null)

/** Writes a crate's list in the same form, so that the next room can read it. */
export function writePackingList(crate: CrateView): PackingListFile {
  const moment = (atMs: number | null): string | null => (atMs === null ? null : new Date(atMs).toISOString())
  const isSecond = crate.shippingWater !== null || crate.method !== null || crate.lines.some(({ told }) => told !== null)
  return {
    ...{ format: packingListFormat, version: isSecond ? 2 : 1, supplier: crate.supplier, packedAt: moment(crate.packedAtMs), expectedAt: moment(crate.expectedAtMs), note: crate.note, ...(isSecond ? { water: crate.shippingWater, method: crate.method } : {}) },
    // A bag that no list spoke of is no line of one.
    lines: crate.lines.filter(({ count }) => count > 0).map(({ id, species, count, origin, strain, identity, promisedTo, billed, sizeCm, priceEach, capture, ateBefore, note, told }) => {
      const bags = crate.bags.filter((bag) => bag.lineId === id)
      const perBag = bags[0]?.listed ?? null
      const isEven = perBag !== null && perBag > 0 && splitIntoBags(count, bags.length, perBag).ok
      return { species, count, bags: bags.length, perBag: isEven ? perBag : null, origin, strain, identity, promisedTo, billed, sizeCm, priceEach, capture, ateBefore, note, ...(told ?? {}) }
    }),
  }
}
