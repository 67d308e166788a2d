import { keepingApi } from '../../core/keeping/keeping.api'
import { useWrite } from '../api/useOutbox'

/** A lead has seen what went wrong with the room's own keeping. */
export function useSeeNotice(): (noticeId: string) => void {
  const write = useWrite()
  return (noticeId) => void write(keepingApi.seeNotice, { params: { noticeId }, label: 'a notice put away', body: {} }, { refusals: 'tray' })
}
