import { graveSigns, type Ate, type Sign } from '../rounds/rounds.schema'

export interface TankFlag {
  level: 'watch' | 'harm'
  /** One or two words that fit the strip on the glass. */
  word: string
}

/** What the flag is read from: the newest check, and fish lost today. */
export interface TankSigns {
  signs: readonly Sign[]
  ate: Ate | null
  lostToday: number
}

/** The glass has room for about ten letters. */
const stripWords: Partial<Record<Sign, string>> = {
  'fast breathing': 'breathing',
  'clamped fins': 'clamped',
  'frayed fins': 'frayed',
  'stringy faeces': 'faeces',
  'on its side': 'on side',
  'at the surface': 'surface',
  'cloudy eye': 'eye',
  'spits food': 'spits',
  'on the bottom': 'bottom',
}

/** A sign in the ten letters that the glass has room for. */
export const stripWord = (sign: Sign): string => stripWords[sign] ?? sign

/**
 * Chooses the word on the label strip of a tank, gravest first; null when there is nothing to say.
 * @example tankFlag({ signs: [], ate: 'some', lostToday: 0 }) // { level: 'watch', word: 'ate some' }
 */
export function tankFlag({ signs, ate, lostToday }: TankSigns): TankFlag | null {
  const grave = signs.find((sign) => graveSigns.includes(sign))
  if (grave) return { level: 'harm', word: stripWord(grave) }
  if (lostToday > 0) return { level: 'harm', word: `${lostToday} lost` }
  if (signs[0]) return { level: 'watch', word: stripWord(signs[0]) }
  if (ate === 'none') return { level: 'watch', word: 'ate none' }
  if (ate === 'some') return { level: 'watch', word: 'ate some' }
  return null
}
