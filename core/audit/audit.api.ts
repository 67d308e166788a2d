import { object } from 'yup'
import { answers, named, read } from '../commands/declare'
import { word } from '../commands/queryFields'
import { thingNames } from '../commands/things'
import type { AuditPage } from './auditView'

/** What was done here. */
export const auditApi = named({
  /** newest first, a hundred entries at a time; *before* of an answer asks for the next */
  readAudit: read({ path: '/api/audit', access: 'lead', query: object({ staffId: word(64), before: word(90) }), about: () => thingNames, staysMs: Infinity, answer: answers<AuditPage>() }),
})
