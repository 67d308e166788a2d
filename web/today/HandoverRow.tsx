import { Row, RowSection } from '../ui/Rows'
import { plural } from '../ui/format'
import { useFormat } from '../ui/useFormat'
import { useHandoverDue } from './useHandoverDue'

/** Who was away is told first of all that there is something to read. */
export default function HandoverRow() {
  const due = useHandoverDue()
  const format = useFormat()
  if (!due || (!due.isDue && due.notes === 0)) return null
  return (
    <RowSection title="Handover">
      <Row to="/handover" mark="plan" aside={due.notes > 0 ? `${plural(due.notes, 'word', 'words')} left` : ''}>
        <strong>Read what happened</strong> since you were here, {format.moment(due.sinceMs)}
      </Row>
    </RowSection>
  )
}
