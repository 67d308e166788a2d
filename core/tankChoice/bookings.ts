/** Somebody counts on a place: a run on the bench, a line of a crate, a plan that waits. */
export interface Booking {
  /** What it is, as people call it: "run 12", "crate 7". */
  plan: string
  /** `whole` bears nobody else: its water is changed for the fish that come. */
  takes: 'whole' | 'share'
  /** Whether it is under way, or can go now; what is only planned is not. */
  isReady: boolean
  /** Fish that it brings and that do not stand there yet. */
  fish: readonly BookedFish[]
  /** The run or crate itself, so that what belongs to it does not stand in its own way. */
  id: string
  /** The crate whose other fish may share the tank all the same, because its water was made for all of them. */
  withCrate?: string | null
  /** Whether it is a plan that waits: its own fish do not stand in its way, whoever moves them. */
  isPlan?: boolean
}
export interface BookedFish {
  lotId: string
  species: string
  quantity: number
}

/** Fish that bookings bring into a place. */
const bookedFish = (bookings: readonly Pick<Booking, 'fish'>[]): number => bookings.flatMap(({ fish }) => fish).reduce((sum, { quantity }) => sum + quantity, 0)

/** Two words for the label of a tank: how many fish are due, or that it is taken as a whole; null where nobody counts on it. */
export function dueWords(bookings: readonly Booking[]): string | null {
  if (bookings.length === 0) return null
  return bookings.some(({ takes }) => takes === 'whole') ? 'taken' : `${bookedFish(bookings)} due`
}

/** Says who counts on a place, in words; null where nobody does. */
export function bookingWords(bookings: readonly Booking[]): string | null {
  if (bookings.length === 0) return null
  const words = bookings.map(({ plan, takes, fish }) => {
    const species = [...new Set(fish.map((each) => each.species))].join(', ')
    return `${plan}${fish.length > 0 ? `: ${bookedFish([{ fish }])} ${species}` : ''}${takes === 'whole' ? ', the whole tank' : ''}`
  })
  return `Reserved for ${words.join('; ')}`
}
