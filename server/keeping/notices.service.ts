import { and, eq, isNull, sql } from 'drizzle-orm'
import type { NoticeFacts, NoticeView } from '../../core/keeping/notice'
import type { AuditStore } from '../audit/audit.store'
import type { Database } from '../db/open'
import type { CommandContext } from '../http/endpoint'
import { Problem } from '../http/problem'
import { newId } from '../newId'
import { notice } from './notices.table'

/** Says what went wrong with the room's own keeping, once each, until a lead has put it away. */
export function createNotices({ orm }: Database, audit: AuditStore) {
  const open = (): NoticeView[] => orm.select({ id: notice.id, atMs: notice.atMs, facts: notice.facts }).from(notice).where(isNull(notice.seenAtMs)).orderBy(notice.atMs).all()
  return {
    open,
    /** Keeps a notice; one of its kind that nobody has put away yet is told anew instead. Entries that are missing add up, so each of those stands. */
    tell(facts: NoticeFacts, nowMs: number): void {
      const same = facts.kind === 'entries-missing' ? undefined : open().find((each) => each.facts.kind === facts.kind)
      if (same) orm.update(notice).set({ facts }).where(eq(notice.id, same.id)).run()
      else orm.insert(notice).values({ id: newId(), atMs: nowMs, facts }).run()
    },
    /** Takes back what is over by itself: copies are made again, books are right again. */
    takeBack(kind: NoticeFacts['kind']): boolean {
      return orm.delete(notice).where(and(isNull(notice.seenAtMs), sql`json_extract(${notice.facts}, '$.kind') = ${kind}`)).run().changes > 0
    },
    /** A lead has read a notice. */
    see({ actor, key, nowMs, params }: CommandContext) {
      const found = open().find(({ id }) => id === params.noticeId)
      if (!found) throw new Problem('not-found', 'This notice was put away already')
      orm.update(notice).set({ seenById: actor.id, seenAtMs: nowMs }).where(eq(notice.id, found.id)).run()
      audit.insert({ atMs: nowMs, staffId: actor.id, action: 'put away', subject: `a notice: ${found.facts.kind}`, commandKey: key })
      return {}
    },
  }
}
export type Notices = ReturnType<typeof createNotices>
