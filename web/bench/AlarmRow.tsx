import type { Alarm } from '../../core/bench/alarms'
import { Button } from '../ui/Button'

/** An alarm in words, with the touch that puts it off. */
export const AlarmRow = ({ alarm, onSnooze }: { alarm: Alarm; onSnooze: (key: string) => void }) => (
  <p role={alarm.level === 'act' ? 'alert' : undefined} className={`lane-alarm ${alarm.level}`}>
    <span>{alarm.words}</span>
    <Button size="hand" onClick={() => onSnooze(alarm.key)}>
      {alarm.key === 'lid' ? 'it is on' : '5 min'}
    </Button>
  </p>
)
