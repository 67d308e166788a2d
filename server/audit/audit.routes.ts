import type { AuditPage } from '../../core/audit/auditView'
import { read, type Endpoint } from '../http/endpoint'
import type { AuditStore } from './audit.store'

const page = 100

/** The address of what was done here; for leads. */
export const auditEndpoints = (audit: AuditStore): Endpoint[] => [
  read({
    path: '/api/audit',
    access: 'lead',
    read: ({ query }): AuditPage => {
      const [, atMs, id] = typeof query.before === 'string' ? (/^(\d{1,15})\.([A-Za-z0-9_-]{1,64})$/.exec(query.before) ?? []) : []
      const staffId = typeof query.staffId === 'string' && query.staffId !== '' ? query.staffId : null
      return audit.page(atMs === undefined || id === undefined ? null : { atMs: Number(atMs), id }, page, staffId)
    },
  }),
]
