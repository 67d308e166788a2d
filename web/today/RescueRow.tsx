import type { RescueView } from '../../core/today/todayView'
import { useSession } from '../api/session'
import { Button } from '../ui/Button'
import { RowLink } from '../ui/Rows'
import { useFormat } from '../ui/useFormat'
import { useSeeRescue } from './useSeeRescue'

/** What a keeper alone did in distress; a lead says that it was looked at. */
export default function RescueRow({ rescue: { key, species, tankCode, rules, reason, staffName, atMs } }: { rescue: RescueView }) {
  const { recorder } = useSession()
  const see = useSeeRescue()
  const format = useFormat()
  return (
    <li className="record rescue-row">
      <RowLink to={`/room/${tankCode}`} mark="act">
        <strong>
          {species} in {tankCode}
        </strong>{' '}
        {reason}
        <small>
          {staffName}, {format.moment(atMs)}; against: {rules}
        </small>
      </RowLink>
      {recorder.role === 'lead' && <Button onClick={() => see(key)}>Looked at</Button>}
    </li>
  )
}
