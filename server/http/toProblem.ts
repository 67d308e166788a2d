import { ValidationError } from 'yup'
import type { FieldError } from '../../core/problem/problem'
import { UnbindableError } from '../db/guard'
import { Problem } from './problem'

/** Turns whatever was thrown into the one error of the server, keeping the original as cause. Leaks nothing of it. */
export function toProblem(error: unknown): Problem {
  if (error instanceof Problem) return error
  if (error instanceof ValidationError) {
    const errors = fieldErrors(error)
    return new Problem('invalid-input', errors[0]?.message ?? 'Something entered is not right', { errors, cause: error })
  }
  if (error instanceof UnbindableError) return new Problem('invalid-input', 'A value holds something that cannot be kept', { cause: error })
  const status = httpStatus(error)
  if (status === 413) return new Problem('too-large', `The request is larger than ${sizeOf(error)}`, { cause: error })
  if (status !== null && status >= 400 && status < 500) return new Problem('malformed-request', 'The request cannot be read', { cause: error })
  const engine = engineCode(error)
  if (engine.startsWith('SQLITE_FULL') || engine === 'ENOSPC') return new Problem('storage-full', 'The disk of the server is full; nothing of this request was kept. Make room there: devices keep what they have and send it again.', { cause: error })
  if (engine.startsWith('SQLITE_BUSY')) return new Problem('busy', 'The server is busy; nothing of this request was kept. Try again.', { cause: error })
  return new Problem('internal', 'The server failed; nothing of this request was kept. Try again.', { cause: error })
}

/** What is said of one request: enough to mend it, and no echo of it. */
const [mostFaults, mostWords] = [100, 300]

function fieldErrors(error: ValidationError): FieldError[] {
  const all = error.inner.length > 0 ? error.inner : [error]
  return all.slice(0, mostFaults).map((inner) => ({ path: pathOf(inner).slice(0, mostWords), message: (inner.errors[0] ?? inner.message).slice(0, mostWords) }))
}

function pathOf(error: ValidationError): string {
  const unknown = error.type === 'noUnknown' ? String(error.params?.unknown ?? '') : ''
  return [error.path, unknown].filter(Boolean).join('.') || 'request'
}

// body-parser and the router mark faults of the request with a status of their own.
function httpStatus(error: unknown): number | null {
  const status = error !== null && typeof error === 'object' && 'status' in error ? error.status : null
  return typeof status === 'number' ? status : null
}

function sizeOf(error: unknown): string {
  const limit = Number((error as { limit?: unknown }).limit)
  return limit >= 1_000_000 ? `${Math.round(limit / 100_000) / 10} MB` : `${Math.round(limit / 1024)} kB`
}

/** Code of the database engine, which Drizzle wraps, or of the file system. */
function engineCode(error: unknown): string {
  if (error === null || typeof error !== 'object') return ''
  const { code, cause } = error as { code?: unknown; cause?: unknown }
  return typeof code === 'string' && /^(SQLITE|ENOSPC)/.test(code) ? code : engineCode(cause)
}
