import { answers, command, named, plain, read } from '../commands/declare'
import { makeCalendarSchema, revokeCalendarSchema, type CalendarView } from './calendar.schema'

/** What is due, in a person's own calendar. */
export const calendarApi = named({
  /** since when the recorder has an address for a calendar */
  readCalendar: read({ path: '/api/calendar', access: 'keeper', about: () => ['calendar'], staysMs: Infinity, answer: answers<CalendarView>() }),
  /** *secret*: 43 letters, digits, `-`, `_`, made on the device; an address in place of the one before */
  makeCalendar: command({ method: 'post', path: '/api/calendar', access: 'keeper', schema: makeCalendarSchema, secrets: ['secret'], touches: () => ['calendar'] }),
  /** takes the address back */
  revokeCalendar: command({ method: 'post', path: '/api/calendar/revocation', access: 'keeper', schema: revokeCalendarSchema, touches: () => ['calendar'] }),
  /** what is due with a time, as iCalendar, for whoever has the address; 404 for any other */
  calendarFile: plain({ method: 'get', path: '/api/calendar/:secret.ics', access: 'public' }),
})
