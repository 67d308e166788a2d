import type { MoveRules } from '../moves/moveRules'
import { byText } from '../contacts/contact'
import { addDays, daysBetween } from '../time/daysBetween'
import type { SizeEntry } from './planFacts'

export interface Measured {
  /** Full length, cm; null where the book does not say. */
  adultCm: number | null
  sizes: readonly SizeEntry[]
  /** Growth of the species, share of what is missing a day; the house's where left out. */
  perDay?: number
}

export interface SizeEstimate {
  /** Null where nobody ever measured. */
  cm: number | null
  perDay: number | null
  /** *fitted* to two lengths far enough apart, by the *book*, as it was *entered*, or *none*. */
  basis: 'fitted' | 'book' | 'entered' | 'none'
}

type GrowthRules = Pick<MoveRules, 'growthPerDay' | 'growthMostPerDay' | 'sizeFitDays'>

/** Lengths known by a day, the oldest first. */
const knownBy = (sizes: readonly SizeEntry[], on: string): SizeEntry[] => sizes.filter((each) => each.on <= on).sort((a, b) => byText(a.on, b.on))

/**
 * Estimates how long fish of a lot are by now: they grow towards their full length, the slower the nearer they are (von
 * Bertalanffy). Growth in crowded tanks varies by half and more: it asks for the ruler, no more.
 * @param on - the day asked for, `YYYY-MM-DD`; what was measured later is not known yet.
 * @returns length in cm with the daily rate it was reckoned with.
 * @example sizeEstimate({ adultCm: 10, sizes: [{ on: '2031-03-01', cm: 4 }, { on: '2031-03-31', cm: 5 }] }, '2031-04-30', rules).cm // 5.83
 */
export function sizeEstimate({ adultCm, sizes, perDay }: Measured, on: string, rules: GrowthRules): SizeEstimate {
  const known = knownBy(sizes, on)
  const [first, last] = [known[0], known[known.length - 1]]
  if (!first || !last) return { cm: null, perDay: null, basis: 'none' }
  if (adultCm === null || last.cm >= adultCm) return { cm: last.cm, perDay: null, basis: 'entered' }
  const days = daysBetween(first.on, last.on)
  const isFitted = days >= rules.sizeFitDays
  const fitted = (): number => (last.cm <= first.cm ? 0 : Math.min(rules.growthMostPerDay, Math.log((adultCm - first.cm) / (adultCm - last.cm)) / days))
  const rate = isFitted ? fitted() : (perDay ?? rules.growthPerDay)
  return { cm: adultCm - (adultCm - last.cm) * Math.exp(-rate * daysBetween(last.on, on)), perDay: rate, basis: isFitted ? 'fitted' : 'book' }
}

/**
 * Answers on which day fish of a lot reach a length by the estimate.
 * @returns the day, today where they are so long already; null where they never do, or nobody knows.
 */
export function sizeReachedOn(lot: Measured, cm: number, today: string, rules: GrowthRules): string | null {
  const { cm: now, perDay } = sizeEstimate(lot, today, rules)
  if (now !== null && now >= cm) return today
  const last = knownBy(lot.sizes, today).pop()
  if (!last || lot.adultCm === null || !perDay || cm >= lot.adultCm) return null
  return addDays(last.on, Math.ceil(Math.log((lot.adultCm - last.cm) / (lot.adultCm - cm)) / perDay - 1e-9))
}

/** The length that somebody entered last, by a day; null where nobody did. */
export const lastEntered = (sizes: readonly SizeEntry[], on: string): number | null => knownBy(sizes, on).pop()?.cm ?? null
