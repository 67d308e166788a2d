import { useState } from 'react'
import { Form } from 'react-bootstrap'
import { Link } from 'react-router'
import { dueApi } from '../../core/due/due.api'
import { sentenceOf } from '../api/ApiProblem'
import { newKey } from '../api/newKey'
import { useWrite } from '../api/useOutbox'
import { useRead } from '../api/useRead'
import { Lead } from '../ui/Lead'
import { Trouble, Waiting } from '../ui/PageState'
import { useFormat } from '../ui/useFormat'

/** What is due, in the recorder's own calendar: an address that only they know, and that they take back. */
export function CalendarPage() {
  const { data, problem } = useRead(dueApi.readCalendar, {})
  const [address, setAddress] = useState<string | null>(null)
  const [said, setSaid] = useState<string | null>(null)
  const write = useWrite()
  const format = useFormat()
  if (!data) return problem ? <Trouble problem={problem} /> : <Waiting what="your calendar" />
  const attempt = async (work: () => Promise<unknown>): Promise<void> => {
    setSaid(null)
    await work().catch((error: unknown) => setSaid(sentenceOf(error)))
  }
  async function make(): Promise<void> {
    const secret = `${newKey()}${newKey()}`.slice(0, 43)
    await write(dueApi.makeCalendar, { label: 'an address for a calendar', body: { secret } }, { refusals: 'form' })
    setAddress(`${window.location.origin}/api/calendar/${secret}.ics`)
  }
  async function takeBack(): Promise<void> {
    await write(dueApi.revokeCalendar, { label: 'the address of a calendar taken back', body: {} }, { refusals: 'form' })
    setAddress(null)
  }
  return (
    <>
      <Lead title="Your calendar" aside={<Link to="/today">Today</Link>}>
        Work with a time (steps of runs, looks after them, preparation, claims) as entries of a calendar program that reads an address of this room every quarter of an hour.
      </Lead>
      {address && (
        <Form.Group className="field calendar-address" controlId="calendar-address">
          <Form.Label>Your address, shown this once</Form.Label>
          <Form.Control as="textarea" rows={2} readOnly value={address} onFocus={(event) => event.currentTarget.select()} />
        </Form.Group>
      )}
      <p>
        {data.sinceMs === null ? 'You have no address.' : `You have an address since ${format.moment(data.sinceMs)}. `}
        {data.sinceMs !== null && !address && 'It is not kept here; make another one if it is lost, and the old one stops.'}
      </p>
      <p className="aside-word">Whoever has the address can read what is due here, without signing in. It works for devices that reach this room by the name in it.</p>
      {said && (
        <p className="form-problem" role="alert">
          {said}
        </p>
      )}
      <div className="calendar-actions">
        <button type="button" className="button" onClick={() => void attempt(make)}>
          {data.sinceMs === null ? 'Make an address' : 'Make another address'}
        </button>
        {data.sinceMs !== null && (
          <button type="button" className="button" onClick={() => void attempt(takeBack)}>
            Take it back
          </button>
        )}
      </div>
    </>
  )
}
