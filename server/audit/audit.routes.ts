import { auditApi } from '../../core/audit/audit.api'
import { serve, type Endpoint } from '../http/endpoint'
import type { AuditStore } from './audit.store'

const page = 100

/** Answers for what was done here. */
export const auditEndpoints = (audit: AuditStore): Endpoint[] =>
  serve(auditApi, {
    readAudit({ query }) {
      const [, atMs, id] = /^(\d{1,15})\.([A-Za-z0-9_-]{1,64})$/.exec(query.before ?? '') ?? []
      return audit.page(atMs === undefined || id === undefined ? null : { atMs: Number(atMs), id }, page, query.staffId)
    },
  })
