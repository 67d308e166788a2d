import { keepingApi } from '../../core/keeping/keeping.api'
import { noticeWords } from '../../core/keeping/noticeWords'
import { useSession } from '../api/session'
import { useWrite } from '../api/useOutbox'
import { useFormat } from '../ui/useFormat'

/** What went wrong with the room's own keeping, on every screen until a lead has put it away. */
export function Notices() {
  const { notices, recorder } = useSession()
  const write = useWrite()
  const format = useFormat()
  return notices.map(({ id, facts }) => {
    const { what, then } = noticeWords(facts, format.moment)
    return (
      <p key={id} className="tray is-refused" role="alert">
        <span>
          <strong>{what}</strong> {then}
        </span>
        {recorder.role === 'lead' && (
          <button type="button" onClick={() => void write(keepingApi.seeNotice, { params: { noticeId: id }, label: 'a notice put away', body: {} }, { refusals: 'tray' })}>
            put away
          </button>
        )}
      </p>
    )
  })
}
