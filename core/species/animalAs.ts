import type { RegisterValues } from '../setup/registers'
import type { Animal } from '../tankChoice/tankChoice'
import type { Water } from '../room/room.schema'
import { figure, word, words } from './readEntry'
import { refusedInWater } from '../dosing/agentWords'
import { agentColumns, type AgentColumn } from './speciesWords'

/** Fish as they are at hand: what was noted of them, and whether they stand here already. */
export interface FishAtHand {
  /** Length that was noted, cm; null when nobody did. */
  sizeCm: number | null
  /** Days since it was noted; 0 for fish that come now. */
  notedDaysAgo: number
  isResident: boolean
  strain: string | null
  /** Water somebody said they live in; counts where the book names none. */
  water?: Water | null
}

/** Share of its adult length at which a fish is usually traded; for entries that do not say. */
const usualShareOfAdult = 0.6
/** After so many days a noted length says only how small they were. */
export const sizeHoldsDays = 60

/**
 * Makes of an entry of the species book, and of fish that are at hand, what choosing a tank looks at.
 * Sizes nobody noted: newcomers are as long as they are traded; residents count as grown for their mouth, and as young
 * for whoever would eat them, so that the guess errs on the side of the fish.
 */
export function animalAs(entry: RegisterValues, fish: FishAtHand): Animal {
  const adultCm = figure(entry.adultCm)
  const tradedCm = figure(entry.tradedCm) ?? (adultCm === null ? null : adultCm * usualShareOfAdult)
  const isFresh = fish.sizeCm !== null && fish.notedDaysAgo <= sizeHoldsDays
  const sizeCm = isFresh ? fish.sizeCm : fish.isResident ? null : (fish.sizeCm ?? tradedCm)
  const young = [fish.sizeCm ?? tradedCm, adultCm].filter((each) => each !== null)
  const ownKind = word(entry.ownKind)
  return {
    ...{ species: String(entry.name), water: (entry.water as Water | null) ?? null, waters: watersOf(entry, fish), animal: word(entry.animal), sizeCm, asPreyCm: sizeCm ?? (young.length > 0 ? Math.min(...young) : null) },
    ...{ adultCm, swallowsCm: figure(entry.swallowsCm), massG: figure(entry.usualMassG), groupMin: figure(entry.groupMin), temperament: word(entry.temperament) },
    // The book's word for an agent and the table of refusals: the stricter wins.
    ...{ sensitivities: [...new Set([...words(entry.sensitivities), ...agentsSaid(entry, 'forbidden'), ...refusedInWater(words(entry.agentGroups), word(entry.animal))])], withCare: agentsSaid(entry, 'with care') },
    // An entry that only says "fights its own kind" means one in a tank, whatever the line counts.
    ...{ eats: words(entry.eats), ownKind: ownKind ?? (entry.temperament === 'fights its own kind' ? 'one only' : null), company: word(entry.company), fins: finsOf(word(entry.fins), fish.strain), breeds: word(entry.breeds), poisons: word(entry.poisons) },
    ...{ hardness: word(entry.hardness), phMin: figure(entry.phMin), phMax: figure(entry.phMax), tempCMin: figure(entry.tempCMin), tempCMax: figure(entry.tempCMax), salinityPptMin: figure(entry.salinityPptMin), salinityPptMax: figure(entry.salinityPptMax) },
    minTankL: tankFor(figure(entry.minTankL), sizeCm ?? adultCm, tradedCm),
  }
}

const watersOf = (entry: RegisterValues, { water = null }: FishAtHand): string[] => {
  const book = words(entry.waters)
  return book.length > 0 || entry.water || water === null ? book : [water]
}

/** Agents of which an entry says this word, as they are named in a water. */
export const agentsSaid = (entry: RegisterValues, said: string): string[] => (Object.keys(agentColumns) as AgentColumn[]).filter((column) => entry[column] === said).map((column) => agentColumns[column])

const longFins = /\b(long|veil|veiltail|lyretail|halfmoon|crowntail|butterfly tail)\b/i
const finsOf = (fins: string | null, strain: string | null): string | null => (strain !== null && longFins.test(strain) ? 'long' : fins)

/** Litres that fish of a length are held in for some weeks; house guidance. */
export const holdingL = (sizeCm: number): number => ([[5, 15], [9, 30], [16, 60]].find(([below]) => sizeCm < (below ?? 0))?.[1] ?? 150)

/** The book's figure is for the size it is traded at; fish that are longer or shorter by a step of the house need more or less. */
function tankFor(minTankL: number | null, sizeCm: number | null, tradedCm: number | null): number | null {
  if (minTankL === null || sizeCm === null || tradedCm === null) return minTankL
  const [now, traded] = [holdingL(sizeCm), holdingL(tradedCm)]
  return now > traded ? Math.max(minTankL, now) : now < traded ? Math.min(minTankL, now) : minTankL
}
