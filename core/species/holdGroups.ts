/** Hold groups of the table of refusals, by how the species book calls them. */
const groupNames: Readonly<Record<string, string>> = { 'seahorse or pipefish': 'seahorsePipefish', scorpionfish: 'lionfish', 'puffer or boxfish': 'puffer', 'shark or ray': 'sharkRay', 'soft-water fish': 'softWaterFish' }

/** A hold group as the table of refusals calls it. */
export const groupOf = (name: string): string => groupNames[name] ?? name

/** What a kind is that has no group of its own: skin without scales bears as little as that of loaches (house guidance), and what is no fish is an invertebrate, whatever its entry leaves out. */
const byAnimal = (animal: string): string | null => (animal === 'fish' ? null : animal === 'amphibian' ? 'scaleless' : 'invertebrate')

/**
 * The hold groups of a kind; `[null]` for one of which nobody knows what it is.
 * @param said - groups of its entry in the book, as the book calls them.
 * @param animal - what it is, by its entry; null where the entry does not say.
 */
export function holdGroupsOf(said: readonly string[], animal: string | null, isKnown = true): (string | null)[] {
  if (!isKnown || (animal === null && said.length === 0)) return [null]
  const own = animal === null ? null : byAnimal(animal)
  const groups = [...new Set([...said.map(groupOf), ...(own === null ? [] : [own])])]
  return groups.length === 0 ? ['other'] : groups
}
