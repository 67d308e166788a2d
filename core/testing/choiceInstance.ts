import { uniformInt } from 'pure-rand/distribution/uniformInt'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'
import { standardLimits } from '../limits/houseLimits'
import { animalAs } from '../species/animalAs'
import { speciesBook } from '../species/speciesBook'
import { ownKindFinding } from '../tankChoice/company'
import type { Animal, ChoiceInput, ChoiceTank, Occupant } from '../tankChoice/tankChoice'

/** An animal of the species book at a share of its adult size. */
export const animalOf = (entry: (typeof speciesBook)[number], shareOfAdult = 0.6): Animal => animalAs(entry, { sizeCm: Number(entry.adultCm ?? 5) * shareOfAdult, notedDaysAgo: 0, isResident: false, strain: null })

/**
 * Makes a crate and a room from a seed: systems of eight tanks in three waters, some of them held, some tanks stocked,
 * a few unclean or for the sick. The same seed gives the same room everywhere.
 */
export function choiceInstance(lineCount: number, tankCount: number, seed: number): ChoiceInput {
  const generator = xoroshiro128plus(seed)
  const within = (min: number, max: number): number => uniformInt(generator, min, max)
  const from = <T>(values: readonly T[]): T => values[within(0, values.length - 1)] as T
  const waters = ['fresh', 'fresh', 'fresh', 'marine', 'marine', 'brackish'] as const
  const bookOf = (water: string) => speciesBook.filter((entry) => entry.water === water)
  const systems = Array.from({ length: Math.ceil(tankCount / 8) }, (_, index) => {
    const water = waters[index % waters.length] ?? 'fresh'
    return { id: `system-${index}`, water, tempC: within(23, 27), salinityPpt: { fresh: 0, brackish: within(6, 12), marine: within(31, 35) }[water], zoneId: `zone-${index % 5}`, isHeld: within(1, 3) === 1, agents: within(1, 8) === 1 ? ['copper'] : [] }
  })
  const tanks = Array.from({ length: tankCount }, (_, index): ChoiceTank => {
    const { id, water, tempC, salinityPpt, zoneId, isHeld, agents } = systems[Math.floor(index / 8)] as (typeof systems)[number]
    const isStocked = within(1, 10) <= 4
    const occupants: Occupant[] = isStocked ? [{ animal: animalOf(from(bookOf(water)), 0.7), quantity: within(1, 8), supplier: `supplier ${within(1, 3)}`, heldDays: isHeld && within(1, 2) === 1 ? within(1, 13) : null }] : []
    const isHospital = index % 30 === 29
    return { id: `tank-${index}`, code: `T${index + 1}`, waterId: id, water, tempC, salinityPpt, agents, zoneId, netVolumeL: from([45, 60, 60, 90, 120]), purpose: isHospital ? 'hospital' : 'sale', state: within(1, 20) === 1 ? 'not clean after illness' : 'ready', occupants: isHospital ? [] : occupants, fights: within(1, 12) === 1 ? within(1, 3) : 0 }
  })
  const present = [...new Set(systems.map(({ water }) => water))]
  const lines = Array.from({ length: lineCount }, (_, index) => {
    const animal = animalOf(from(bookOf(from(present))), within(4, 9) / 10)
    const count = Math.max(animal.groupMin ?? 1, within(1, 30))
    // Fighters are ordered singly: a line of them has no tank anywhere, and says nothing about the search.
    return { id: `line-${index}`, animal, count: ownKindFinding(animal, count)?.level === 'forbidden' ? 1 : count, supplier: 'supplier 1' }
  })
  return { lines, tanks, shipping: { tempC: 24, salinityPpt: 31 }, limits: standardLimits }
}
