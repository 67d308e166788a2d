/** What a plan can wait for. There is no "not": so a better fact never undoes a plan. Days are `YYYY-MM-DD` of the room, lengths cm. */
export type PlanFact =
  | { is: 'date'; on: string }
  /** Nobody in it and it may take fish; *free* looks past the plan's own lots. */
  | { is: 'empty' | 'free'; place: string }
  /** A lot, or every lot of a species that stands in a place, is so long. By *estimated* a reckoned length does; else somebody has to measure. */
  | { is: 'size'; lot?: string; species?: string; place?: string; cm: number; by?: 'entered' | 'estimated' }
  | { is: 'hold'; lot: string }
  | { is: 'gate'; lot: string; gate: string }
  | { is: 'pairing'; pairing: string }
  | { is: 'crate'; crate: string }
  | { is: 'thing'; thing: string; n: number }
  | { is: 'count'; place: string; lot?: string; atMost: number }
  | { is: 'reading'; water: string; kind: string; min?: number; max?: number; maxHours?: number }
  | { is: 'done'; plan: string }

/** All of several, any of several, or one fact. */
export type When = { all: readonly When[] } | { any: readonly When[] } | PlanFact

/** Length of fish of a lot as somebody measured it. */
export interface SizeEntry {
  on: string
  cm: number
}

export interface LotKnown {
  species?: string
  /** Full length; null where the book does not say. */
  adultCm: number | null
  perDay?: number
  sizes: readonly SizeEntry[]
}

/** What is known of the house when plans are looked at. */
export interface KnownFacts {
  stock?: readonly { place: string; lot: string; n: number }[]
  /** *ready* where it is left out. */
  places?: Readonly<Record<string, { state?: string; isRetired?: boolean }>>
  lots?: Readonly<Record<string, LotKnown>>
  holds?: Readonly<Record<string, 'none' | 'running' | 'ready'>>
  gates?: Readonly<Record<string, Readonly<Record<string, boolean>>>>
  pairings?: Readonly<Record<string, string>>
  crates?: Readonly<Record<string, string>>
  things?: Readonly<Record<string, number>>
  /** By the tank that a plan names: the newest of each kind in all of its water. */
  readings?: Readonly<Record<string, Readonly<Record<string, { value: number; hours: number }>>>>
  /** What is known of other plans; *no* where left out. */
  plans?: Readonly<Record<string, PlanTruth>>
}

/** Whether something is so: *never* means it cannot become so any more. */
export const truths = ['never', 'no', 'unknown', 'yes'] as const
export type Truth = (typeof truths)[number]
export type PlanTruth = 'yes' | 'no' | 'never'

/** Something a plan waits for, with what is known of it. */
export interface Wait {
  code: PlanFact['is'] | 'fish-gone' | 'place-retired' | 'fish-double' | 'fish-elsewhere' | 'place-double' | 'nobody-clears'
  [slot: string]: string | number | null | readonly string[]
}

/** Every fact a condition speaks of, in the order it is said. */
export const factsOf = (when: When): PlanFact[] => ('all' in when ? when.all.flatMap(factsOf) : 'any' in when ? when.any.flatMap(factsOf) : [when])

/** The weakest of several truths; *yes* of none. */
export const weakest = (all: readonly Truth[]): Truth => all.reduce<Truth>((least, each) => (truths.indexOf(each) < truths.indexOf(least) ? each : least), 'yes')
/** The strongest of several truths; *never* of none. */
export const strongest = (all: readonly Truth[]): Truth => all.reduce<Truth>((most, each) => (truths.indexOf(each) > truths.indexOf(most) ? each : most), 'never')
