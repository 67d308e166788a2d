import { wordFigures } from '../../core/units/units'
import { useUnits } from './useUnits'

/** A sentence of the core that does not know who reads it: its figures in the room's units. */
export function InUnits({ children }: { children: string }) {
  const { display } = useUnits()
  return wordFigures(children, () => display)
}
