import type { Request } from 'express'
import { makeCalendarSchema, revokeCalendarSchema } from '../../core/due/calendar.schema'
import { command, plain, read, type Actor, type Endpoint } from '../http/endpoint'
import type { CalendarService } from './calendar.service'
import type { DueService, DueView } from './due.service'

interface Collaborators {
  due: DueService
  calendars: CalendarService
  now: () => number
  actorOf: (request: Request) => Actor
}

/** The runs are for the server's own use: the bench tells of them. */
const shown = ({ items, broken }: DueView): Omit<DueView, 'runs'> => ({ items, broken })

/** The addresses of what is due, on screen and in a calendar. */
export const dueEndpoints = ({ due, calendars, now, actorOf }: Collaborators): Endpoint[] => [
  read({ path: '/api/due', access: 'device', read: ({ nowMs }) => shown(due.view(nowMs)) }),
  plain({ method: 'get', path: '/api/calendar', access: 'keeper', handle: (request, response) => void response.json(calendars.view(actorOf(request))) }),
  command({ method: 'post', path: '/api/calendar', access: 'keeper', name: 'makeCalendar', schema: makeCalendarSchema, secrets: ['secret'], run: calendars.make }),
  command({ method: 'post', path: '/api/calendar/revocation', access: 'keeper', name: 'revokeCalendar', schema: revokeCalendarSchema, run: calendars.revoke }),
  plain({
    method: 'get',
    path: '/api/calendar/:secret.ics',
    access: 'public',
    handle: (request, response) => void response.type('text/calendar; charset=utf-8').send(calendars.file(String(request.params.secret), now())),
  }),
]
