import { useState } from 'react'
import { Link } from 'react-router'
import { isRinging } from '../../core/outcomes/lossAlarmState'
import type { AlarmsView, AlarmView } from '../../core/outcomes/outcomeViews'
import { datesShown, shownDay } from '../../core/time/shownDay'
import { plural } from '../../core/words/plural'
import { errorsByField, sentenceOf } from '../api/ApiProblem'
import { useSession } from '../api/session'
import { useAlarms } from '../api/sharedReads'
import { Button } from '../ui/Button'
import { TextField } from '../ui/Field'
import { Lead } from '../ui/Lead'
import { Problem } from '../ui/Notice'
import { Trouble, Waiting } from '../ui/PageState'
import { RowSection } from '../ui/Rows'
import { OutcomesNav } from './OutcomesNav'
import { useAnswerAlarm, useUndoOutbreak } from './useTrials'
import './outcomes.css'

/** Alarms on losses: what rings until a lead answers for it, what is watched, what was answered. */
export function AlarmsPage() {
  const { data: alarms, problem } = useAlarms()
  if (!alarms) return problem ? <Trouble problem={problem} /> : <Waiting what="the alarms" />
  const [ringing, watched] = [alarms.alarms.filter(isRinging), alarms.alarms.filter((alarm) => !isRinging(alarm))]
  return (
    <>
      <Lead title="Alarms" nav={<OutcomesNav />}>
        {ringing.length > 0 ? `${plural(ringing.length, 'alarm rings', 'alarms ring')} until a lead has looked and says what was found.` : 'Nothing rings: losses of waters, suppliers and species are as usual.'}
      </Lead>
      <RowSection title="On" count={ringing.length} nothing="None.">
        {ringing.map((alarm) => (
          <AlarmRow key={alarm.stream} alarm={alarm} />
        ))}
      </RowSection>
      <RowSection title="Watched" count={watched.length}>
        {watched.map(({ stream, sentence, to }) => (
          <li key={stream} className="record alarm-row is-watched">
            <Link to={to}>{datesShown(sentence)}</Link>
          </li>
        ))}
      </RowSection>
      <RowSection title="Answered" count={alarms.answered.length}>
        {alarms.answered.map(({ stream, on, found, by }) => (
          <li key={`${stream} ${on}`} className="record">
            {shownDay(on)}: {found} <small>{by}</small>
          </li>
        ))}
      </RowSection>
      <RowSection title="Outbreaks" count={alarms.outbreaks.length}>
        {alarms.outbreaks.map((outbreak) => (
          <OutbreakRow key={outbreak.id} outbreak={outbreak} />
        ))}
      </RowSection>
      <p className="aside-word">Set so that all of them together ring falsely a few times a year; the numbers stand in Setup, House limits. A crate speaks for its supplier and species once its first week is over.</p>
    </>
  )
}

/** Deaths that count as one event; taken back where it was none. */
function OutbreakRow({ outbreak: { id, name, water, from, to } }: { outbreak: AlarmsView['outbreaks'][number] }) {
  const { recorder } = useSession()
  const undo = useUndoOutbreak()
  const [problem, setProblem] = useState<string | null>(null)
  return (
    <li className="record outcome-lot">
      <span>
        <strong>{name}</strong>, {water} <small>{shownDay(from)} to {shownDay(to)}: one event</small>
        <Problem>{problem}</Problem>
      </span>
      {recorder.role === 'lead' && (
        <Button look="quiet" onClick={() => void undo(id).catch((error: unknown) => setProblem(sentenceOf(error)))}>
          it was none
        </Button>
      )}
    </li>
  )
}

function AlarmRow({ alarm: { stream, kind, sentence, lookNext, to } }: { alarm: AlarmView }) {
  const { recorder } = useSession()
  const answer = useAnswerAlarm()
  const [found, setFound] = useState('')
  const [outbreak, setOutbreak] = useState('')
  const [problem, setProblem] = useState<unknown>(null)
  const errors = errorsByField(problem) ?? {}
  return (
    <li className="record alarm-row is-ringing">
      <p>
        <strong>{datesShown(sentence)}</strong> <Link to={to}>the figures</Link>
      </p>
      {lookNext.length > 0 && <p>Look at {lookNext.join('; ')}.</p>}
      {recorder.role === 'lead' ? (
        <div className="alarm-answer">
          <TextField label="What was found" value={found} onChange={setFound} problem={errors.found ?? null} />
          {kind === 'water' && <TextField label="One outbreak, called" isOptional value={outbreak} onChange={setOutbreak} problem={errors.outbreak ?? null} hint="all deaths of this water since it rose then count as one event" />}
          <Button look="act" size="hand" onClick={() => void answer(stream, found, outbreak || null).then(() => setProblem(null), setProblem)}>
            answer for it
          </Button>
          <Problem>{problem !== null && Object.keys(errors).length === 0 ? sentenceOf(problem) : null}</Problem>
        </div>
      ) : (
        <p className="aside-word">A lead answers for it.</p>
      )}
    </li>
  )
}
