import type { ReadingKind } from '../room/glass.schema'

/** Readings as policies and doses call them; the unit is that of the reading. */
export const levelNames: Readonly<Record<ReadingKind, string>> = {
  tempC: 'temperature',
  salinityPpt: 'salinity',
  ph: 'pH',
  ammoniaMgL: 'ammonia',
  freeAmmoniaMgL: 'free ammonia',
  nitriteMgL: 'nitrite',
  nitrateMgL: 'nitrate',
  copperMgL: 'copper',
}
