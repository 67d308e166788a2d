import { isRinging } from '../../core/outcomes/lossAlarmState'
import { datesShown } from '../../core/time/shownDay'
import { useAlarmsBeside } from '../api/sharedReads'
import { Row, RowSection } from '../ui/Rows'

/** Alarms on losses, each with what to look at; what is only watched stands in Outcomes. */
export default function AlarmRows() {
  const { data } = useAlarmsBeside()
  const ringing = (data?.alarms ?? []).filter(isRinging)
  return (
    <RowSection title="Losses above the usual" count={ringing.length}>
      {ringing.map(({ stream, sentence, lookNext }) => (
        <Row key={stream} to="/outcomes/alarms" mark="harm">
          {datesShown(sentence)}
          {lookNext.length > 0 && <small>Look at {lookNext.join('; ')}.</small>}
        </Row>
      ))}
    </RowSection>
  )
}
