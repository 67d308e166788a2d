import type { AuditPage } from '../../core/audit/auditView'
import { read, type Endpoint } from '../http/endpoint'
import type { AuditStore } from './audit.store'

const page = 100

/** The address of what was done here; for leads. */
export const auditEndpoints = (audit: AuditStore): Endpoint[] => [
  read({
    path: '/api/audit',
    access: 'lead',
    read: ({ query, nowMs }): AuditPage => {
      const before = typeof query.olderThanMs === 'string' && /^\d{1,15}$/.test(query.olderThanMs) ? Number(query.olderThanMs) : nowMs + 1
      const staffId = typeof query.staffId === 'string' && query.staffId !== '' ? query.staffId : null
      const lines = audit.lines(before, page, staffId)
      return { lines, olderThanMs: lines.length === page ? (lines.at(-1)?.atMs ?? null) : null }
    },
  }),
]
