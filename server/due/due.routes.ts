import { calendarApi } from '../../core/due/calendar.api'
import { dueApi } from '../../core/due/due.api'
import { serve, type Endpoint } from '../http/endpoint'
import type { CalendarService } from './calendar.service'
import type { DueService, DueView } from './due.service'

/** The runs are for the server's own use: the bench tells of them. */
const shown = ({ items, broken }: DueView): Omit<DueView, 'runs'> => ({ items, broken })

/** Answers for what is due, on screen and in a calendar. */
export const dueEndpoints = ({ due, calendars, now }: { due: DueService; calendars: CalendarService; now: () => number }): Endpoint[] => [
  ...serve(dueApi, { readDue: ({ nowMs }) => shown(due.view(nowMs)) }),
  ...serve(calendarApi, {
    readCalendar: ({ actor }) => calendars.view(actor),
    makeCalendar: calendars.make,
    revokeCalendar: calendars.revoke,
    calendarFile: (request, response) => void response.type('text/calendar; charset=utf-8').send(calendars.file(String(request.params.secret), now())),
  }),
]
