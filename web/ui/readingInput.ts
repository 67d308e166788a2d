import type { DeskInput } from '../../core/desk/calculations'
import { readingKinds, readingNames, type ReadingKind } from '../../core/room/glass.schema'

/** A field for a reading at a tank, in the unit people see; without a unit while nobody said what is read. */
export function readingInput(what: ReadingKind | undefined, label: string, isOptional = false): DeskInput {
  // An address may say anything.
  const known = readingNames.find((each) => each === what)
  if (known === undefined) return { name: 'reading', label, min: 0, max: Infinity, isOptional }
  const { unit, quantity, min, max } = readingKinds[known]
  return { name: known, label, min, max, isOptional, ...(quantity ? { quantity } : {}), ...(unit ? { unit } : {}) }
}
