import type { PhInstrument, SalinityInstrument } from './acclimation/instruments'
import type { BenchFish } from './bench/fishRules'
import { tryDelivery, type TriedBag, type TriedDelivery } from './bench/tryDelivery'
import { waterOf, type WaterWord } from './bench/waterOfBag'
import { behaviours, bodyConditions, looks } from './crates/crates.schema'
import type { Water } from './room/room.schema'
import type { RegisterValues } from './setup/registers'
import { toleranceLevels } from './setup/words'
import { figure, handlingOf, word } from './species/readEntry'
import { entriesNamed } from './species/speciesBook'
import { agentColumns, type AgentColumn, type AgentWord } from './species/speciesWords'

interface BagFields {
  fish: number
  massG?: number
  T?: number
  skinT?: number
  S?: number
  salinityBy?: SalinityInstrument
  pH?: number
  phBy?: PhInstrument
  tan?: number
  looks?: readonly string[] | string
  behaviour?: string
  body?: string
  dead?: number
  foam?: boolean
}

/** A delivery under the names of the specification (judgement, 10). */
export interface DeliveryFields {
  supplier?: { water?: { T?: number; S?: number; pH?: number; alk?: number } | string; class?: string }
  crate?: { hours?: number; packs?: string | boolean; roomC?: number; othersT?: number }
  species: { name: string; waters?: readonly string[]; usuallyIn?: string; tolerance?: string; group?: string; isFighter?: boolean; massG?: number }
  bags: readonly BagFields[]
  from?: { waterId?: string; class?: string } | null
  tank: { id?: string; waterId?: string; class?: string; T?: number; S?: number; pH?: number; alk?: number; agents?: readonly string[] }
  prepared?: { T?: number; S?: number } | boolean | null
  binder?: boolean
  spareTank?: boolean
}

/** Tries a whole delivery the way of the screens, under the names of the specification. */
export function adviseDeliveryFields(fields: DeliveryFields, draws = 400) {
  const { waterClass, asks, first, bathWater, schoolKey, variant, refusals, sentence } = tryDelivery(toDelivery(fields), draws)
  return { waterClass, ask: asks, first, ...(bathWater ? { bathWater: { T: bathWater.tempC, S: bathWater.salinityPpt } } : {}), school: schoolKey, ...(variant ? { variant } : {}), refusals: refusals.map(({ what, code }) => ({ what, code })), sentence }
}

const waterWords = ['fresh', 'brackish', 'marine', 'hard', 'soft'] as const
const oneOf = <T extends string>(options: readonly T[], said: string | undefined): T | null => options.find((each) => each === said) ?? null
const none = <T>(value: T | undefined): T | null => value ?? null

function toDelivery({ supplier = {}, crate = {}, species, bags, from, tank, prepared, binder = false, spareTank = false }: DeliveryFields): TriedDelivery {
  const told = typeof supplier.water === 'object' ? supplier.water : {}
  const usual = oneOf(waterWords, typeof supplier.water === 'string' ? supplier.water : supplier.class)
  const kind = kindOf(species)
  const tankWater: Water = waterOf(oneOf(waterWords, tank.class) ?? (tank.S === undefined ? 'fresh' : tank.S > 15 ? 'marine' : tank.S >= 3 ? 'brackish' : 'fresh'))
  return {
    species: { name: species.name, massG: none(bags.find(({ massG }) => massG !== undefined)?.massG ?? species.massG ?? kind.massG ?? undefined), tolerance: oneOf(toleranceLevels, species.tolerance === 'very' ? 'very delicate' : species.tolerance) },
    kind,
    water: { standing: from ? oneOf<WaterWord>(waterWords, from.class) : null, usual, waters: kind.waters as Water[], phMax: kind.kept?.phMax ?? null, hardness: kind.kept?.hardness ?? null },
    shipping: { tempC: none(told.T), salinityPpt: none(told.S), ph: none(told.pH), alkalinityMeqL: none(told.alk) },
    crate: { hours: none(crate.hours), hasWorkingPacks: crate.packs === true || ['working', 'heat', 'cold'].includes(String(crate.packs)), roomC: none(crate.roomC), otherBagsC: none(crate.othersT) },
    bags: bags.map(toBag),
    tank: { water: tankWater, tempC: none(tank.T), salinityPpt: none(tank.S), ph: none(tank.pH), alkalinityMeqL: none(tank.alk), agents: tank.agents ?? [], isOneWater: from?.waterId !== undefined && from.waterId === tank.waterId },
    prepared: prepared === true ? { salinityPpt: told.S, tempC: told.T } : prepared ? { salinityPpt: prepared.S, tempC: prepared.T } : null,
    ...{ hasSpareTank: spareTank, hasBinder: binder },
  }
}

const toBag = ({ fish, T, skinT, S, salinityBy, pH, phBy, tan, looks: seen = [], behaviour, body, dead, foam = false }: BagFields): TriedBag => ({
  ...{ fish, waterC: T, skinC: skinT, salinityPpt: S, salinityBy, ph: pH, phBy, tanMgL: tan, dead },
  // Foam is what is seen of the water.
  concerns: looks.filter((look) => [seen].flat().includes(look) || (look === 'water' && (foam || [seen].flat().includes('foam')))),
  ...{ behaviour: oneOf(behaviours, behaviour), body: oneOf(bodyConditions, body ?? (behaviour === 'thin' ? 'thin' : undefined)) },
})

/** What the shipped book says of a kind, and what was said of it here instead. */
function kindOf({ name, waters, group, isFighter }: DeliveryFields['species']): BenchFish {
  const [entry, other] = entriesNamed(name)
  const book: RegisterValues = entry && !other ? entry : {}
  const lives = waters ?? (Array.isArray(book.waters) ? book.waters : [])
  const columns = Object.keys(agentColumns) as AgentColumn[]
  const isInvertebrate = group === 'invertebrate'
  const forbidden: readonly string[] = isInvertebrate ? ['copper', 'formalin', 'malachite green', 'methylene blue'] : []
  return {
    ...handlingOf(book),
    species: name,
    waters: lives,
    ...{ crossing: word(book.crossing), bearsHunger: word(book.bearsHunger), animal: isInvertebrate && word(book.animal) === null ? 'other invertebrate' : word(book.animal) },
    ...{ ownKind: word(book.ownKind), temperament: isFighter ? 'fights its own kind' : word(book.temperament), massG: figure(book.usualMassG) },
    agents: Object.fromEntries(columns.map((column) => [agentColumns[column], (word(book[column]) as AgentWord | null) ?? (forbidden.includes(agentColumns[column]) ? 'forbidden' : undefined)])),
    kept: { tempCMin: figure(book.tempCMin), tempCMax: figure(book.tempCMax), phMin: figure(book.phMin), phMax: figure(book.phMax), salinityPptMin: figure(book.salinityPptMin), salinityPptMax: figure(book.salinityPptMax), hardness: word(book.hardness) },
  }
}
