import { nameKey } from '../words/nameKey'
import shipped from './shippedAgents.json'

/** What is put into water against something: its kit, when it is gone by itself, a published range where there is one. */
export interface Agent {
  name: string
  /** What reads it; none where no kit does. */
  kit?: string
  lo?: number
  hi?: number
  goneAfterDays?: number
  source?: string
  isNoDose?: boolean
}
/** Whether an agent may go where a condition holds: allow, warn, refuse, refuse whoever asks. */
export type Verdict = 'A' | 'W' | 'R' | 'X'

export const shippedAgents: Readonly<Record<string, Agent>> = shipped.agents
export const shippedMatrix = shipped.matrix as Readonly<Record<string, Readonly<Record<string, Verdict>>>>

/** Groups of species that agents are allowed or refused by. */
export const speciesGroups: readonly string[] = shipped.speciesGroups

/** Days after which each agent is gone by itself. */
export const goneAfterDays = (agents: Readonly<Record<string, Agent>>): Readonly<Record<string, number>> => Object.fromEntries(Object.entries(agents).flatMap(([id, { goneAfterDays: days }]) => (days === undefined ? [] : [[id, days]])))

/** Which sensitivity of the species book an agent meets. */
export const sensitivityOf: Readonly<Record<string, string>> = shipped.sensitivityOf
/** Numbers behind every dose: house limits, each to be edited. */
export const dosingLimits = shipped.limits
/** How copper is stepped in and out, where the house does not say otherwise. */
export const shippedLadder = shipped.ladder

/** Agents that something can be dosed with, as people call them. */
export const dosedAgents: readonly string[] = Object.values(shippedAgents).flatMap(({ name, isNoDose }) => (isNoDose ? [] : [name]))
const ids = new Map(Object.entries(shippedAgents).flatMap(([id, { name }]) => [id, name].map((each): [string, string] => [nameKey(each), id])))
/** An agent as the table of refusals calls it, by either of its names; one that it does not know keeps its name. */
export const agentId = (name: string): string => ids.get(nameKey(name)) ?? name
/** Kits that read copper: neither reads the other's, so a figure without its kit says nothing of a level. */
export const copperKits = ['copper, ionic', 'copper, chelated'] as const
/** What a figure on a label may count. */
export const doseBases = ['as product', 'as copper', 'as active ingredient'] as const
