import type { Water } from '../room/room.schema'
import { emptyValues } from '../setup/registerCsv'
import { registers, type RegisterValue } from '../setup/registers'
import { nameKey } from '../words/nameKey'
import former from './formerBook.json'
import shipped from './speciesBook.json'

/** One species as it begins: general knowledge in our own words, to be corrected by what the room sees. */
export interface BookEntry {
  [field: string]: RegisterValue
  name: string
  scientificName: string
  /** Water it is usually traded in. */
  water: Water
}

const nothing = emptyValues(registers.species.fields)

/**
 * The species book as it is shipped: usual ranges of the trade, no recommendations. The weight is that of a fish as it is
 * traded. The file keeps an entry in the groups of Setup and leaves out what it does not say.
 */
export const speciesBook: readonly BookEntry[] = (shipped as unknown as Record<string, Record<string, RegisterValue>>[]).map((entry) => ({ ...nothing, ...Object.assign({}, ...Object.values(entry)) }) as BookEntry)

/** What earlier books said where this one says something else, by present name and field; the latest last. */
export const formerBook = former as unknown as Readonly<Record<string, Readonly<Record<string, readonly RegisterValue[]>>>>

/** Splits a list that is kept as text: other names, look-alikes, strains. */
export const splitNames = (list: RegisterValue | undefined): string[] => (typeof list === 'string' ? list.split(/[;,]/).map((each) => each.trim()).filter(Boolean) : [])

/** Every name an entry goes by: common, scientific, others. */
export const namesOf = ({ name, scientificName, otherNames }: Record<string, RegisterValue>): string[] => [name, scientificName, ...splitNames(otherNames)].filter((each): each is string => typeof each === 'string' && each !== '')

/**
 * Names of the trade that mean several kinds, which differ in size, temper or water. Whoever reads one on a list has to
 * ask: it is never matched silently, whatever the entries call themselves.
 */
export const ambiguousNames: ReadonlyMap<string, readonly string[]> = new Map(Object.entries({
  'algae eater': ['Siamese algae eater', 'Chinese algae eater', 'Otocinclus'],
  angelfish: ['Angelfish (fresh water)', 'Coral beauty angelfish', 'Flame angelfish', 'Emperor angelfish'],
  'bamboo shark': ['Brown-banded bamboo shark'],
  'blue tang': ['Regal tang', 'Powder blue tang'],
  boxfish: ['Longhorn cowfish'],
  butterflyfish: ['African butterfly fish', 'Copperband butterflyfish', 'Raccoon butterflyfish'],
  clownfish: ['Common clownfish', 'Pink skunk clownfish', 'Maroon clownfish'],
  corydoras: ['Bronze corydoras', 'Peppered corydoras', 'Panda corydoras', 'Pygmy corydoras'],
  cowfish: ['Longhorn cowfish'],
  'ghost shrimp': [],
  'glass shrimp': [],
  glassfish: ['Indian glassfish', 'Glass catfish'],
  goldfish: ['Common goldfish', 'Fancy goldfish'],
  hatchetfish: ['Marbled hatchetfish', 'Common hatchetfish'],
  mandarin: ['Mandarin dragonet', 'Spotted mandarin'],
  molly: ['Black molly', 'Sailfin molly'],
  pleco: ['Bristlenose catfish', 'Common pleco', 'Clown pleco', 'Zebra pleco'],
  puffer: ['Pea puffer', 'Figure-eight puffer', 'Green spotted puffer', 'Valentini puffer'],
  pufferfish: ['Pea puffer', 'Figure-eight puffer', 'Green spotted puffer', 'Valentini puffer'],
  'scooter blenny': ['Scooter dragonet'],
  seahorse: ['Common seahorse'],
  shark: ['Bala shark', 'Rainbow shark', 'Colombian shark catfish', 'Brown-banded bamboo shark'],
}))

const byOwnName = new Map(speciesBook.map((entry) => [nameKey(entry.name), entry]))
const byName = new Map<string, BookEntry[]>()
for (const entry of speciesBook) for (const name of new Set(namesOf(entry).map(nameKey))) byName.set(name, [...(byName.get(name) ?? []), entry])

/** Entries of the shipped book that go by a name, whatever its case and spacing; several where the name means several kinds. */
export function entriesNamed(name: string): readonly BookEntry[] {
  const key = nameKey(name)
  const own = byOwnName.get(key)
  if (own) return [own]
  const kinds = ambiguousNames.get(key)
  return kinds ? speciesBook.filter((entry) => kinds.includes(entry.name)) : (byName.get(key) ?? [])
}
