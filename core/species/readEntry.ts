import type { RegisterValue, RegisterValues } from '../setup/registers'
import type { Handling } from './handling'

// An entry's values are of any kind until its schema has seen them; whatever is not of the kind asked for is not known.
export const figure = (value: RegisterValue | undefined): number | null => (typeof value === 'number' ? value : null)
export const word = (value: RegisterValue | undefined): string | null => (typeof value === 'string' ? value : null)
export const words = (value: RegisterValue | undefined): string[] => (Array.isArray(value) ? value : [])

/** What an entry says of handling its kind. */
export const handlingOf = ({ hurts, poisons, sensitivities, catchWith }: RegisterValues): Handling => ({ hurts: words(hurts), poisons: word(poisons), sensitivities: words(sensitivities), catchWith: word(catchWith) })
