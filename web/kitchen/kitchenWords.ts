import type { FoodKind } from '../../core/kitchen/kitchenRules'
import type { KitchenView } from '../../core/kitchen/kitchenView'
import type { NextStep } from '../../core/kitchen/nextStep'
import type { SkippedWhy } from '../../core/kitchen/thawList'
import { plural, type Format } from '../ui/format'

/** Writes a small weight or volume with the digits that a scale in a kitchen has. */
export const small = (figure: number, unit: string): string => figure < 0.045 && unit === 'g' ? 'a pinch' : `${figure < 0.995 ? figure.toFixed(2) : figure < 9.95 ? figure.toFixed(1) : figure.toFixed(0)} ${unit}`

const pieceWord: Readonly<Record<FoodKind, string>> = { frozen: 'cube', gel: 'slab', dry: 'scoop', fresh: 'piece', live: 'portion' }
/** What pieces of a food are called: "cubes". */
export const pieceWords = (kind: FoodKind): string => `${pieceWord[kind]}s`
/** Pieces by how they are called: "3 cubes". */
export const pieces = (count: number, kind: FoodKind): string => plural(count, pieceWord[kind])

/** Whom a food is for, the first two of them. */
export const whomWords = (whom: readonly string[]): string => [...whom.slice(0, 2), ...(whom.length > 2 ? [`${whom.length - 2} more`] : [])].join('; ')

/** What is to be done next, in a sentence. */
export function leadWords({ step, what, byMs }: NextStep, { racks }: Pick<KitchenView, 'racks'>, format: Format, nowMs: number): string {
  const names = what.join(', ')
  const until = byMs === null ? '' : byMs <= nowMs ? ' now' : ` at ${format.time(byMs)}`
  if (step === 'nothing') return 'No fish are fed: none stand in a tank, or nothing that suits them is in the house.'
  if (step === 'thaw') return `${names} out of the freezer${until}.`
  if (step === 'soak') return `Mix and soak the bowls${until}.`
  if (step === 'give') return `Feed ${names}${until}. ${racks.filter(({ done }) => done !== null).length} of ${plural(racks.length, 'rack')} fed.`
  return step === 'out' ? `Leftovers of ${names} out${until}.` : 'All is fed and cleared.'
}

/** Why fish get nothing with this feed. */
export const skippedWords: Readonly<Record<SkippedWhy, string>> = { 'hold without food': 'without food, as somebody said', 'first day': 'they came today', 'every other day': 'fed every other day' }
