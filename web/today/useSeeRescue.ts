import { placingApi } from '../../core/placing/placing.api'
import { useWrite } from '../api/useOutbox'

/** A lead says that a rescue was looked at. */
export function useSeeRescue(): (key: string) => void {
  const write = useWrite()
  return (key) => void write(placingApi.seeRescue, { params: { key }, label: 'a rescue looked at', body: {} }, { refusals: 'tray' })
}
