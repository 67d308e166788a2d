import { useMemo } from 'react'
import { baseUnits, displayDigits, fromDisplay, showChange, toDisplay, unitLabel, type DisplayUnits, type Quantity } from '../../core/units/units'
import { salinityDoubt, type SalinityDoubt } from '../../core/units/salinityDoubt'
import { useSession } from '../api/session'

/** Shows base figures (°C, L, ppt) in the room's units, and reads what people type in them. */
export function createUnits(units: DisplayUnits) {
  const figure = (quantity: Quantity, base: number): string => toDisplay(quantity, base, units).toFixed(displayDigits(quantity, units)).replace('-', '−')
  return {
    /** What the core is told to say its words in. */
    display: units,
    label: (quantity: Quantity): string => unitLabel(quantity, units),
    /** The figure alone, with the digits it deserves. */
    figure,
    /** The figure with its unit, e.g. `24.5 °C`. A whole number of litres needs no digits. */
    show: (quantity: Quantity, base: number): string => `${quantity === 'volume' ? figure(quantity, base).replace(/\.0$/, '') : figure(quantity, base)} ${unitLabel(quantity, units)}`,
    /** How far two figures lie apart, with its unit, e.g. `3.6 °F`. */
    change: (quantity: Quantity, base: number): string => showChange(quantity, base, units),
    /** What was typed, in base units; NaN when it is no figure of the scale. A salinity that names ppt is ppt in any room. */
    read: (quantity: Quantity, typed: string): number => (quantity === 'salinity' && saysPpt(typed) ? readNumber(typed.replace(pptAtEnd, '')) : fromDisplay(quantity, readNumber(typed), units)),
    /** Whether a typed salinity may stand on the wrong scale; null where it does not, or was asked already. */
    doubt: (quantity: Quantity | undefined, typed: string): SalinityDoubt | null => (quantity === 'salinity' && !saysPpt(typed) ? salinityDoubt(readNumber(typed), units) : null),
  }
}
const pptAtEnd = /\s*ppt\s*$/i
const saysPpt = (typed: string): boolean => pptAtEnd.test(typed)

export type Units = ReturnType<typeof createUnits>

/** Reads a number as people type it: comma or point, a real minus; NaN for anything else. */
export function readNumber(typed: string): number {
  const plain = typed.trim().replace(',', '.').replace('−', '-')
  return plain === '' ? NaN : Number(plain)
}

/** Units of the room. */
export function useUnits(): Units {
  const { units } = useSession()
  return useMemo(() => createUnits(units ?? baseUnits), [units])
}
