import { sql } from 'drizzle-orm'
import type { BenchFish } from '../../core/bench/fishRules'
import type { KeptIn } from '../../core/species/keptIn'
import type { Handling } from '../../core/species/handling'
import { agentColumns, type AgentColumn, type AgentWord } from '../../core/species/speciesWords'
import { listed } from '../db/listed'

/** What the book says of handling a species, as the columns of a query. */
export const handlingColumns = sql`species.hurts, species.poisons, species.sensitivities, species.catch_with AS catchWith`
export interface HandlingRow {
  hurts: string
  poisons: string | null
  sensitivities: string
  catchWith: string | null
}

/** Takes what the book says of handling out of a row, and leaves the rest. */
export function withHandling<Row extends HandlingRow>({ hurts, poisons, sensitivities, catchWith, ...row }: Row): Omit<Row, keyof HandlingRow> & { handling: Handling } {
  return { ...row, handling: { hurts: listed<string>(hurts), poisons, sensitivities: listed<string>(sensitivities), catchWith } }
}

const agentNames = Object.keys(agentColumns) as AgentColumn[]
/** What the book says of fish on the bench, as the columns of a query. */
export const benchFishColumns = sql`species.name AS species, species.waters, species.crossing, species.bears_hunger AS bearsHunger, species.animal, species.own_kind AS ownKind, species.temperament, species.usual_mass_g AS massG, ${handlingColumns},
  json_object('tempCMin', species.temp_c_min, 'tempCMax', species.temp_c_max, 'phMin', species.ph_min, 'phMax', species.ph_max, 'salinityPptMin', species.salinity_ppt_min, 'salinityPptMax', species.salinity_ppt_max, 'hardness', species.hardness) AS kept,
  json_object('copper', species.copper, 'formalin', species.formalin, 'malachite green', species.malachite_green, 'methylene blue', species.methylene_blue, 'salt', species.salt, 'praziquantel', species.praziquantel, 'chloroquine', species.chloroquine) AS agents`
export interface BenchFishRow extends HandlingRow {
  species: string
  waters: string
  crossing: string | null
  bearsHunger: string | null
  animal: string | null
  ownKind: string | null
  temperament: string | null
  massG: number | null
  kept: string
  agents: string
}

/** Makes of a row what the bench goes by. */
export function toBenchFish(row: BenchFishRow): BenchFish {
  const { handling, species, waters, crossing, bearsHunger, animal, ownKind, temperament, massG, kept, agents } = withHandling(row)
  const said = JSON.parse(agents) as Record<string, AgentWord | null>
  return { ...handling, species, waters: listed<string>(waters), crossing, bearsHunger, animal, ownKind, temperament, massG, kept: JSON.parse(kept) as KeptIn, agents: Object.fromEntries(agentNames.map((column) => [agentColumns[column], said[agentColumns[column]] ?? undefined])) }
}
