import type { RoundView } from '../../core/rounds/roundView'
import { useKept } from '../ui/useKept'

/** Which part of a round that several walk is walked on this device; null where it is not shared out, or nobody said. */
export function usePart({ id, people }: Pick<RoundView, 'id' | 'people'>) {
  const [kept, keep] = useKept<number>(`crate.part.${id}`)
  return { part: people > 1 && kept !== null && kept <= people ? kept : null, take: keep }
}
