import { answers, command, named, plain, read } from '../commands/declare'
import { thingNames } from '../commands/things'
import { strictObject } from '../fields/fields.schema'
import type { KeepingView } from './keeping'

/** Keeping a copy of the room: a backup to restore from, and everything as JSON. */
export const keepingApi = named({
  /** figures of what a copy holds, and of the copies that are made by themselves */
  readKeeping: read({ path: '/api/keeping', access: 'lead', about: () => thingNames, staysMs: 0, answer: answers<KeepingView>() }),
  seeNotice: command({ method: 'post', path: '/api/notices/:noticeId/seen', access: 'lead', schema: strictObject({}), touches: () => ['notice'] }),
  /** a file; asks for the lead's PIN again */
  keepBackup: plain({ method: 'get', path: '/api/keeping/backup', access: 'lead', asksPin: true }),
  /** a file; asks for the lead's PIN again */
  keepExport: plain({ method: 'get', path: '/api/keeping/export', access: 'lead', asksPin: true }),
})
