import type { Alarm } from '../../core/bench/alarms'

/** An alarm in words, with the touch that puts it off. */
export const AlarmRow = ({ alarm, onSnooze }: { alarm: Alarm; onSnooze: (key: string) => void }) => (
  <p role={alarm.level === 'act' ? 'alert' : undefined} className={`lane-alarm ${alarm.level}`}>
    <span>{alarm.words}</span>
    <button type="button" className="hand-button" onClick={() => onSnooze(alarm.key)}>
      {alarm.key === 'lid' ? 'it is on' : '5 min'}
    </button>
  </p>
)
