import { useState } from 'react'
import { Form } from 'react-bootstrap'
import { Link } from 'react-router'
import { sentenceOf } from '../api/ApiProblem'
import { Button } from '../ui/Button'
import { Field } from '../ui/Field'
import { Lead } from '../ui/Lead'
import { Problem } from '../ui/Notice'
import { Trouble, Waiting } from '../ui/PageState'
import { useFormat } from '../ui/useFormat'
import { useCalendar } from './useCalendar'
import './today.css'

/** What is due, in the recorder's own calendar: an address that only they know, and that they take back. */
export function CalendarPage() {
  const { calendar, problem, makeAddress, takeBackAddress } = useCalendar()
  const [address, setAddress] = useState<string | null>(null)
  const [said, setSaid] = useState<string | null>(null)
  const format = useFormat()
  if (!calendar) return problem ? <Trouble problem={problem} /> : <Waiting what="your calendar" />
  const attempt = async (work: () => Promise<unknown>): Promise<void> => {
    setSaid(null)
    await work().catch((error: unknown) => setSaid(sentenceOf(error)))
  }
  const make = async (): Promise<void> => setAddress(await makeAddress())
  const takeBack = async (): Promise<void> => {
    await takeBackAddress()
    setAddress(null)
  }
  return (
    <>
      <Lead title="Your calendar" aside={<Link to="/today">Today</Link>}>
        Work with a time (steps of runs, looks after them, preparation, claims) as entries of a calendar program that reads an address of this room every quarter of an hour.
      </Lead>
      {address && (
        <Field label="Your address, shown this once" className="calendar-address">
          {(tied) => <Form.Control as="textarea" rows={2} readOnly {...tied} value={address} onFocus={(event) => event.currentTarget.select()} />}
        </Field>
      )}
      <p>
        {calendar.sinceMs === null ? 'You have no address.' : `You have an address since ${format.moment(calendar.sinceMs)}. `}
        {calendar.sinceMs !== null && !address && 'It is not kept here; make another one if it is lost, and the old one stops.'}
      </p>
      <p className="aside-word">Whoever has the address can read what is due here, without signing in. It works for devices that reach this room by the name in it.</p>
      <Problem>{said}</Problem>
      <div className="calendar-actions">
        <Button onClick={() => void attempt(make)}>
          {calendar.sinceMs === null ? 'Make an address' : 'Make another address'}
        </Button>
        {calendar.sinceMs !== null && (
          <Button onClick={() => void attempt(takeBack)}>
            Take it back
          </Button>
        )}
      </div>
    </>
  )
}
