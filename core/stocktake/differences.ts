import type { BookPart, DifferenceReason, StocktakeKind } from './stocktake.schema'
import { shortReasons, surplusReasons } from './stocktake.schema'

/** Fish of one kind in one tank: what was counted, and what the books said at that moment. */
export interface CountedKind {
  tankId: string
  tankCode: string
  speciesId: string
  species: string
  strain: string | null
  booked: number
  counted: number
  /** Whether fish are sold from this tank, by what it is for or by what happened. */
  isSoldFrom: boolean
  /** Fish of this kind that were written off here without being seen dead, and not found since. */
  missing: number
}

/** Part of a difference, with its likely reason. */
export interface Difference extends BookPart {
  tankCode: string
  species: string
  booked: number
  counted: number
  /** Where they likely went; null for any other reason. */
  toTankCode: string | null
  /** Reasons that make sense here, the likely one among them. */
  choices: DifferenceReason[]
}

/**
 * Says where a count differs from the books and what is the likely reason: fish that are short in one tank and more in another
 * were moved; fish that come to light where some were written off are those; in a tank they are sold from they were sold; else
 * they died unseen. Source: docs/stocktake.md, house guidance.
 */
export function differencesOf(counts: readonly CountedKind[], kind: StocktakeKind): Difference[] {
  const left = counts.map((each) => ({ ...each, short: Math.max(0, each.booked - each.counted), surplus: Math.max(0, each.counted - each.booked) }))
  const moved = left.flatMap((from) =>
    left.flatMap((to): Difference[] => {
      const quantity = from.speciesId === to.speciesId && from.strain === to.strain ? Math.min(from.short, to.surplus) : 0
      // In a room whose books begin, what stands in a tank was there before them.
      if (quantity === 0 || kind === 'opening') return []
      from.short -= quantity
      to.surplus -= quantity
      return [{ ...part(from), way: 'fewer', quantity, reason: 'moved', toTankId: to.tankId, toTankCode: to.tankCode, choices: [...shortReasons] }]
    }),
  )
  const rest = left.flatMap((each): Difference[] => {
    if (each.short > 0) return [{ ...part(each), way: 'fewer', quantity: each.short, reason: shortReason(each), choices: shortReasons.filter((reason) => reason !== 'moved') }]
    const found = kind === 'opening' ? 0 : Math.min(each.surplus, each.missing)
    const more = each.surplus - found
    return [
      ...(found > 0 ? [{ ...part(each), way: 'more' as const, quantity: found, reason: 'found again' as const, choices: surplusChoices(each, true) }] : []),
      ...(more > 0 ? [{ ...part(each), way: 'more' as const, quantity: more, reason: kind === 'opening' || each.booked === 0 ? ('stood here before the books' as const) : ('miscounted' as const), choices: surplusChoices(each, false) }] : []),
    ]
  })
  return [...moved, ...rest].sort((a, b) => counts.findIndex(({ tankId }) => tankId === a.tankId) - counts.findIndex(({ tankId }) => tankId === b.tankId))
}

const part = ({ tankId, tankCode, speciesId, species, strain, booked, counted }: CountedKind) => ({ tankId, tankCode, speciesId, species, strain, booked, counted, toTankId: null, toTankCode: null })

const shortReason = ({ isSoldFrom }: CountedKind): DifferenceReason => (isSoldFrom ? 'sold, not written down' : 'died unseen')

/** Of fish of which the books know none here, nobody can say that they were counted wrongly. */
const surplusChoices = ({ booked }: CountedKind, wasMissing: boolean): DifferenceReason[] => surplusReasons.filter((reason) => (reason === 'found again' ? wasMissing : booked > 0 || reason === 'stood here before the books' || reason === 'born here'))

/** Answers whether what somebody wants to book is what was counted: as many of each kind in each tank, whatever the reasons. */
export function isWhatWasCounted(parts: readonly BookPart[], counts: readonly CountedKind[]): boolean {
  const balance = new Map<string, number>()
  const add = (tankId: string, { speciesId, strain }: Pick<BookPart, 'speciesId' | 'strain'>, fish: number): void => {
    const key = JSON.stringify([tankId, speciesId, strain])
    balance.set(key, (balance.get(key) ?? 0) + fish)
  }
  for (const each of counts) add(each.tankId, each, each.counted - each.booked)
  for (const each of parts) {
    add(each.tankId, each, each.way === 'fewer' ? each.quantity : -each.quantity)
    if (each.reason === 'moved' && each.toTankId !== null) add(each.toTankId, each, -each.quantity)
  }
  return [...balance.values()].every((fish) => fish === 0)
}
