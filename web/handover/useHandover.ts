import { handoverApi } from '../../core/handover/handover.api'
import { todayApi } from '../../core/today/today.api'
import { useDue } from '../api/useDue'
import { useWrite } from '../api/useOutbox'
import { useRead } from '../api/useRead'

/** What happened since whoever records was last here. */
export function useHandover() {
  const { data, problem } = useRead(handoverApi.readHandover, {})
  return { handover: data, problem }
}

/** What is open and presses: tanks to act on first, then work that waits, then how many tanks nobody looked at. */
export function useOpen() {
  const today = useRead(todayApi.readToday, {}).data
  const { items } = useDue()
  return { acts: today?.raised.filter(({ level }) => level === 'act') ?? [], unchecked: today?.unchecked.length ?? 0, due: (items ?? []).filter(({ done, urgency }) => done === null && urgency !== 'later') }
}

/** Ticks what was read, leaves words and takes them off. */
export function useHandoverWrites() {
  const write = useWrite()
  const form = { refusals: 'form' } as const
  return {
    tick: (untilMs: number) => write(handoverApi.tickHandover, { label: 'handover read', body: { untilMs } }, form),
    leave: (words: string) => write(handoverApi.leaveWord, { label: 'words left', body: { words } }, form),
    takeOff: (wordId: string) => write(handoverApi.takeWordOff, { params: { wordId }, label: 'words taken off', body: {} }, form),
  }
}
