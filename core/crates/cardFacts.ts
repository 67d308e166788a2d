import type { CardLine, CardWater } from './takeAlongCard'

/** What is known here of a kind of fish that may leave, beside how many go. */
export interface CardKind extends Omit<CardLine, 'count' | 'bags' | 'perBag'> {
  speciesId: string
  strain: string | null
  quantity: number
}

/** What a take-along card from a tank can say. */
export interface CardFacts {
  room: string
  tankCode: string
  kinds: CardKind[]
  /** Read of late; a figure nobody read is null. */
  measured: CardWater
  /** What the water is kept at. It is no reading, and never goes on a card by itself. */
  keptAt: CardWater
}
