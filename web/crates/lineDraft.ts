import { listLineSchema, type ListLine } from '../../core/crates/crates.schema'
import type { BagView, LineView } from '../../core/crates/crateView'
import { splitIntoBags } from '../../core/crates/splitIntoBags'
import type { ReadLine } from '../../core/crates/readPackingList'
import { schemaErrors } from '../ui/schemaErrors'
import { readNumber } from '../ui/useUnits'

/** A line as it stands in its fields. */
export type LineDraft = Record<'species' | 'count' | 'bags' | 'perBag' | 'tankId' | 'origin' | 'strain' | 'identity' | 'promisedTo' | 'billed' | 'sizeCm' | 'priceEach' | 'capture' | 'ateBefore' | 'note', string>

export const emptyLine: LineDraft = { species: '', count: '', bags: '1', perBag: '', tankId: '', origin: '', strain: '', identity: '', promisedTo: '', billed: '', sizeCm: '', priceEach: '', capture: '', ateBefore: '', note: '' }

const lineDetails = ['origin', 'strain', 'identity', 'promisedTo', 'billed', 'sizeCm', 'priceEach', 'capture', 'ateBefore', 'note'] as const

const written = (value: string | number | null | undefined): string => (value === null || value === undefined ? '' : String(value))

/** A line that was read from a list. */
export const draftOfRead = (line: ReadLine): LineDraft => Object.fromEntries(Object.keys(emptyLine).map((field) => [field, written(line[field as Exclude<keyof ReadLine, 'told'>])])) as LineDraft

/** A line of a crate in the books. */
export function draftOfLine(line: LineView, bags: readonly BagView[]): LineDraft {
  const { species, count } = line
  const perBag = bags[0]?.listed ?? null
  const isEven = perBag !== null && splitIntoBags(count, bags.length, null).ok && bags.every((bag, index) => bag.listed === evenly(count, bags.length, index))
  const details = Object.fromEntries(lineDetails.map((field) => [field, written(line[field])]))
  return { ...emptyLine, ...details, species, count: String(count), bags: String(bags.length), perBag: isEven ? '' : written(perBag), tankId: line.tank?.id ?? '' }
}

function evenly(count: number, bags: number, index: number): number {
  const split = splitIntoBags(count, bags, null)
  return split.ok ? (split.fish[index] ?? 0) : 0
}

export type ReadDraft = { ok: true; line: ListLine } | { ok: false; errors: Partial<LineDraft> }

/** Reads the fields of a line; what is wrong is told by field. A count left out follows from bags and fish per bag. */
export function readDraft(draft: LineDraft): ReadDraft {
  const figure = (typed: string): number | null => (typed.trim() === '' ? null : readNumber(typed))
  const [bags, perBag] = [figure(draft.bags), figure(draft.perBag)]
  const count = figure(draft.count) ?? (bags !== null && perBag !== null ? bags * perBag : null)
  const words = (typed: string): string | null => typed.trim() || null
  const line = { species: draft.species.trim(), count, bags, perBag, tankId: words(draft.tankId), origin: words(draft.origin), strain: words(draft.strain), identity: words(draft.identity), promisedTo: words(draft.promisedTo), billed: figure(draft.billed), sizeCm: figure(draft.sizeCm), priceEach: figure(draft.priceEach), capture: words(draft.capture), ateBefore: words(draft.ateBefore), note: words(draft.note) } as ListLine
  const errors = schemaErrors(listLineSchema, line) as Partial<LineDraft>
  if (Object.keys(errors).length > 0) return { ok: false, errors }
  const split = splitIntoBags(line.count, line.bags, line.perBag)
  return split.ok ? { ok: true, line } : { ok: false, errors: { perBag: split.reason } }
}
