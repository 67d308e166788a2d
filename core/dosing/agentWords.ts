import { holdGroupsOf } from '../species/holdGroups'
import { agentColumns } from '../species/speciesWords'
import { shippedAgents, shippedMatrix } from './agents'

/**
 * How the species book calls what stands in a water, by agent of the table of refusals. Both coppers are copper to it, and
 * acriflavine is told as malachite green: the same fish bear both badly.
 */
const bookWords: Readonly<Record<string, string>> = { copperIonic: agentColumns.copper, copperChelated: agentColumns.copper, formalin: agentColumns.formalin, methyleneBlue: agentColumns.methyleneBlue, acriflavine: agentColumns.malachiteGreen, salt: agentColumns.salt, praziquantel: agentColumns.praziquantel, chloroquine: agentColumns.chloroquine }

/** An agent as tanks, cards and the species book name it; one that the table does not know keeps its name. */
export const agentWord = (agent: string): string => bookWords[agent] ?? shippedAgents[agent]?.name ?? agent
/** What stands in a water, each word once. */
export const agentWordsIn = (agents: readonly string[]): string[] => [...new Set(agents.map(agentWord))]

/** The book's column that tells of an agent; null where it has none. */
export const bookColumnOf = (agent: string): string | null => bookWords[agent] ?? null

/**
 * What the table of refusals keeps fish of some groups out of, as a water would name it. Where only one of two agents of a
 * name is refused the stricter counts.
 * @param groups - as the species book calls them.
 * @param animal - what it is; a kind of which nobody knows is taken for a fish.
 */
export function refusedInWater(groups: readonly string[], animal: string | null = 'fish'): string[] {
  const refused = holdGroupsOf(groups, animal ?? 'fish').flatMap((group) => Object.entries(shippedMatrix[group ?? ''] ?? {}).flatMap(([agent, verdict]) => (verdict === 'R' || verdict === 'X' ? [agentWord(agent)] : [])))
  return [...new Set(refused)]
}
