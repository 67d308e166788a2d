import { shippedAgents } from './agents'
import type { Dose, DoseReason } from './doseCheck'

/** What may stand in a water besides fish, and matters to a dose. */
export const waterContents = ['rockOrSand', 'carbon', 'uv', 'binder', 'livingFilter', 'plants'] as const
export type WaterContent = (typeof waterContents)[number]
export const contentWords: Readonly<Record<WaterContent, string>> = { rockOrSand: 'rock or sand', carbon: 'carbon', uv: 'UV', binder: 'ammonia binder at work', livingFilter: 'living filter', plants: 'plants' }

/** Why an agent is refused or warned of, by condition; said after its name. */
const words: Readonly<Record<string, string>> = {
  invertebrate: 'harms invertebrates; there are some in this water',
  scaleless: 'scaleless fish bear it badly',
  dragonet: 'dragonets bear it badly and must eat all day',
  seahorsePipefish: 'seahorses and pipefish bear it badly',
  lionfish: 'lionfish bear it badly',
  wrasse: 'wrasses bear it badly',
  anthias: 'anthias bear it badly',
  puffer: 'puffers bear it badly',
  sharkRay: 'sharks and rays bear it badly',
  softWaterFish: 'fish of soft water need care with it',
  weakFish: 'weak or thin fish are fed up first',
  bookSensitive: 'the species book says sensitive',
  bookForbidden: 'the species book forbids it',
  unknownSpecies: 'nobody knows yet what fish this is',
  rockOrSand: 'rock and sand take it up and give it back',
  carbon: 'carbon takes it out: remove it first',
  uv: 'UV breaks it (and frees copper from a chelate): switch off first',
  binder: 'a binder is at work here: copper with it can turn deadly, formalin and peroxide are used up',
  livingFilter: 'it harms the filter’s bacteria',
  plants: 'plants suffer',
  softWater: 'the water is soft: it acts far more strongly',
  lowOxygen: 'it takes oxygen, and there is little: aerate first',
  loweredSalinity: 'salinity is lowered: one strain at a time',
  'with:copperIonic': 'ionic copper is in the water',
  'with:copperChelated': 'chelated copper is in the water; no kit tells the two apart',
  'with:formalin': 'formalin is in the water',
  'with:peroxide': 'peroxide is in the water',
  'with:methyleneBlue': 'methylene blue is in the water',
  'with:praziquantel': 'praziquantel is in the water',
  'with:metronidazole': 'metronidazole is in the water',
  'with:chloroquine': 'chloroquine is in the water',
  'with:acriflavine': 'acriflavine is in the water',
  'with:salt': 'salt is in the water',
  'with:antibiotic': 'an antibiotic is in the water',
  noVolume: 'nobody wrote down how many litres this water has',
  grossVolume: 'a tank has no net litres: nine tenths of gross are taken, and the limit is kept further off',
  noLabel: 'strength and target of the product’s label are not written down',
  basis: 'strength and target of the label count different things: no number can be worked out',
  readFirst: 'no reading of the last 24 h: read first',
  wrongKit: 'the last reading was not made with its kit',
  readAgain: 'the last reading could not be: litres, carbon or the other kit. Read again',
}

/**
 * A reason in words, said after the name of its agent.
 * @example reasonWords('copperIonic', { code: 'invertebrate' }) // 'harms invertebrates; there are some in this water'
 */
export function reasonWords(agent: string, { code }: Pick<DoseReason, 'code'>): string {
  const { kit } = shippedAgents[agent] ?? {}
  const again = code === `with:${agent}` && kit === undefined ? ': again only when its label says so' : ''
  const how = code === 'wrongKit' && kit !== undefined ? ` (${kit})` : ''
  return `${words[code] ?? code}${how}${again}`
}

/** Who may go on all the same, in words. */
export const overrideWords: Readonly<Record<Dose['override'], string | null>> = { none: null, tick: 'Whoever doses ticks what is said.', lead: 'A lead may go on with a reason, which is kept.', nobody: 'Nobody overrides this.' }
