/** What a salinity is read with, and how far such a reading lies from the truth, ppt. House guidance; bag and tank are read with the same. */
export const salinitySds = { 'conductivity meter': 0.3, refractometer: 0.5, hydrometer: 1 } as const
export type SalinityInstrument = keyof typeof salinitySds
export const salinityInstruments = Object.keys(salinitySds) as SalinityInstrument[]
/** What a pH is read with, and its spread. */
export const phSds = { meter: 0.1, kit: 0.25 } as const
export type PhInstrument = keyof typeof phSds
export const phInstruments = Object.keys(phSds) as PhInstrument[]
