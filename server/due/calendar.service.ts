import { createHash } from 'node:crypto'
import { and, desc, eq, isNull } from 'drizzle-orm'
import ical from 'ical-generator'
import { groupBy } from '../../core/collections/groupBy'
import type { CalendarView, MakeCalendar } from '../../core/due/calendar.schema'
import { wordFigures, type DisplayUnits } from '../../core/units/units'
import type { AuditStore } from '../audit/audit.store'
import type { Database } from '../db/open'
import type { Actor, CommandContext } from '../http/endpoint'
import { Problem } from '../http/problem'
import { newId } from '../newId'
import { staff } from '../staff/staff.table'
import { calendarAddress } from './calendar.table'
import type { DueService } from './due.service'

const hashOf = (secret: string): string => createHash('sha256').update(secret).digest('base64url')
/** How long work stands in a calendar: long enough to be seen. */
const shownMs = 15 * 60_000
/** How often calendars are asked to read anew, seconds. */
const readAnewS = 15 * 60

interface Collaborators {
  db: Pick<Database, 'orm'>
  audit: AuditStore
  due: DueService
  roomName: () => string
  units: () => DisplayUnits
}

/** Work that is due, in people's own calendars, under an address that is secret and can be taken back. */
export function createCalendarService({ db: { orm }, audit, due, roomName, units }: Collaborators) {
  const ofStaff = (staffId: string) => and(eq(calendarAddress.staffId, staffId), isNull(calendarAddress.revokedAtMs))
  const revoke = ({ actor, nowMs }: CommandContext): boolean => orm.update(calendarAddress).set({ revokedAtMs: nowMs, revokedById: actor.id }).where(ofStaff(actor.id)).returning({ id: calendarAddress.id }).all().length > 0
  const log = ({ actor, key, nowMs }: CommandContext, action: string): void => audit.insert({ atMs: nowMs, staffId: actor.id, action, subject: `calendar of ${actor.name}`, changes: {}, commandKey: key })

  return {
    view: ({ id }: Pick<Actor, 'id'>): CalendarView => ({ sinceMs: orm.select({ sinceMs: calendarAddress.createdAtMs }).from(calendarAddress).where(ofStaff(id)).orderBy(desc(calendarAddress.createdAtMs)).get()?.sinceMs ?? null }),

    /** Makes the recorder an address in place of the one they had. */
    make(context: CommandContext, { secret }: MakeCalendar) {
      revoke(context)
      orm.insert(calendarAddress).values({ id: newId(), staffId: context.actor.id, secretHash: hashOf(secret), createdAtMs: context.nowMs }).run()
      log(context, 'made an address')
      return {}
    },

    /** Voids the recorder's address. */
    revoke(context: CommandContext) {
      if (revoke(context)) log(context, 'took back the address')
      return {}
    },

    /**
     * What is due, as an iCalendar file (RFC 5545).
     * @throws Problem `not-found` for an address that is wrong, was taken back, or whose person is gone.
     */
    file(secret: string, nowMs: number): string {
      const known = orm.select({ id: calendarAddress.id }).from(calendarAddress).innerJoin(staff, eq(staff.id, calendarAddress.staffId)).where(and(eq(calendarAddress.secretHash, hashOf(secret)), isNull(calendarAddress.revokedAtMs), isNull(staff.retiredAtMs))).get()
      if (!known) throw new Problem('not-found', 'There is no calendar at this address')
      const calendar = ical({ name: `${roomName()}: due`, prodId: { company: 'Daily Crate', product: 'Due work', language: 'EN' }, ttl: readAnewS })
      const waiting = due.view(nowMs).items.flatMap((item) => (item.byMs === null || item.done ? [] : [{ ...item, byMs: item.byMs }]))
      // Twenty steps for one crate at one hour are one entry.
      for (const [key, items] of groupBy(waiting, ({ kind, to, byMs }) => `${kind} ${to} ${byMs}`)) {
        const { what = '', where = null, about = '', byMs = nowMs } = items[0] ?? {}
        const summary = items.length > 1 ? `${items.length} things to do: ${about}` : `${where ? `${where}: ` : ''}${what}`
        const lines = items.length > 1 ? items.map((item) => item.what) : [about, items[0]?.detail]
        calendar.createEvent({ id: `${hashOf(key)}@daily-crate`, start: new Date(byMs), end: new Date(byMs + shownMs), stamp: new Date(nowMs), summary: wordFigures(summary, units), description: wordFigures(lines.filter(Boolean).join('\n'), units) })
      }
      return calendar.toString()
    },
  }
}
export type CalendarService = ReturnType<typeof createCalendarService>
