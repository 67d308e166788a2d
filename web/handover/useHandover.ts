import { handoverApi } from '../../core/handover/handover.api'
import { useWrite } from '../api/useOutbox'
import { useRead } from '../api/useRead'

/** What happened since whoever records was last here. */
export function useHandover() {
  const { data, problem } = useRead(handoverApi.readHandover, {})
  return { handover: data, problem }
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
