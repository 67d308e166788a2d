import { noticeWords } from '../../core/keeping/noticeWords'
import { useSession } from '../api/session'
import { Button } from '../ui/Button'
import { useFormat } from '../ui/useFormat'
import { useSeeNotice } from './useSeeNotice'

/** What went wrong with the room's own keeping, on every screen until a lead has put it away. */
export default function Notices() {
  const { notices, recorder } = useSession()
  const seeNotice = useSeeNotice()
  const format = useFormat()
  return notices.map(({ id, facts }) => {
    const { what, then } = noticeWords(facts, format.moment)
    return (
      <p key={id} className="tray is-refused" role="alert">
        <span>
          <strong>{what}</strong> {then}
        </span>
        {recorder.role === 'lead' && (
          <Button look="bare" onClick={() => seeNotice(id)}>
            put away
          </Button>
        )}
      </p>
    )
  })
}
