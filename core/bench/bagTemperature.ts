import type { GuessedFrom } from '../acclimation/question'

/** What a bag's temperature is guessed from where nobody read its water. */
export interface TemperatureFacts {
  /** Mean of the skins that were read. */
  skinC: number | null
  /** What the tank stands at that fish of the room come out of. */
  theirTankC?: number | null
  /** Mean of other bags of the crate whose water was read within the hour. */
  otherBagsC: number | null
  hasWorkingPacks: boolean
  packedC: number
  hours: number
  roomC: number
}

/** Hours in which a packed box goes two thirds of the way to the air around it; house guidance. */
const boxTauHours = 12

/**
 * Guesses the temperature of a bag's water: by its skin, by other bags of the crate, by packs that work, else by the air it
 * lay in. Never by the tank's.
 * Source: docs/bench.md, the temperature of a bag.
 */
export function guessBagTemperature({ skinC, theirTankC = null, otherBagsC, hasWorkingPacks, packedC, hours, roomC }: TemperatureFacts): { tempC: number; from: GuessedFrom } {
  if (skinC !== null) return { tempC: skinC, from: 'skin' }
  if (theirTankC !== null) return { tempC: theirTankC, from: 'their tank' }
  if (otherBagsC !== null) return { tempC: otherBagsC, from: 'other bags' }
  if (hasWorkingPacks) return { tempC: packedC, from: 'packs' }
  return { tempC: roomC + (packedC - roomC) * Math.exp(-hours / boxTauHours), from: 'room air' }
}
