import type { ProblemBody } from '../../core/problem/problem'
import { ApiProblem, Unreachable } from './ApiProblem'

const patienceMs = 15_000

interface Options {
  method?: 'GET' | 'POST' | 'PUT' | 'DELETE'
  /** Sent as JSON, or as it is when it is a file. */
  body?: unknown
  headers?: Record<string, string>
}

/**
 * Asks the server and returns its JSON.
 * @throws ApiProblem when it refuses, Unreachable when it does not answer in fifteen seconds or answers no JSON.
 */
export async function fetchJson<T>(path: string, { method = 'GET', body, headers = {} }: Options = {}): Promise<T> {
  const isFile = body instanceof Blob
  const type: Record<string, string> = body === undefined ? {} : { 'Content-Type': isFile ? 'application/octet-stream' : 'application/json' }
  const response = await reach(path, { method, headers: { ...type, ...headers }, body: body === undefined ? null : isFile ? body : JSON.stringify(body) })
  const answer = await readJson(response)
  if (response.ok) return answer as T
  throw new ApiProblem(answer as ProblemBody)
}

/** An answer and what it goes by; null where the server does not say. */
export interface Answered {
  tag: string | null
  body: unknown
}

/**
 * Asks the server, unless what it answered before still stands.
 * @throws as `fetchJson`.
 */
export async function fetchAnswer(path: string, before: Answered | null, headers: Record<string, string>): Promise<Answered> {
  const response = await reach(path, { method: 'GET', headers: { ...headers, ...(before?.tag ? { 'If-None-Match': before.tag } : {}) } })
  if (response.status === 304 && before) return before
  const body = await readJson(response)
  if (!response.ok) throw new ApiProblem(body as ProblemBody)
  return { tag: response.headers.get('ETag'), body }
}

/**
 * Asks the server for a file.
 * @throws ApiProblem when it refuses, Unreachable when it does not answer.
 */
export async function fetchFile(path: string): Promise<Blob> {
  const response = await reach(path, { method: 'GET' })
  if (response.ok) return response.blob()
  throw new ApiProblem((await readJson(response)) as ProblemBody)
}

async function reach(path: string, init: RequestInit): Promise<Response> {
  try {
    return await fetch(path, { ...init, credentials: 'same-origin', signal: AbortSignal.timeout(patienceMs) })
  } catch (error) {
    throw new Unreachable(error)
  }
}

// Something in between (a proxy, a sign-on page of the network) may answer in our place.
async function readJson(response: Response): Promise<unknown> {
  if (!response.headers.get('Content-Type')?.includes('json')) throw new Unreachable()
  try {
    return await response.json()
  } catch (error) {
    throw new Unreachable(error)
  }
}
