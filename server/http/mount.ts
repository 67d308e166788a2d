import express, { type Express, type Request, type RequestHandler, type Response } from 'express'
import type { Dispatch } from '../commands/dispatch'
import type { StaffService } from '../staff/staff.service'
import { requireFreshPin, usualBodyBytes, type Access, type Actor, type Endpoint, type Params } from './endpoint'
import { Problem } from './problem'
import { endlessLists } from '../../core/fields/validated'
import { wordFigures, type DisplayUnits } from '../../core/units/units'

interface Collaborators {
  dispatch: Dispatch
  staff: StaffService
  now: () => number
  /** How figures are shown: sentences that were kept have their values in them. */
  units: () => DisplayUnits
}

/** Puts every declared endpoint on the app, each behind its access check. What is not declared is not there. */
export function mountEndpoints(app: Express, endpoints: readonly Endpoint[], collaborators: Collaborators): void {
  const endless = endpoints.flatMap((endpoint) => (endpoint.kind === 'command' ? endlessLists(endpoint.schema).map((path) => `${endpoint.name}: ${path}`) : []))
  if (endless.length > 0) throw new Error(`lists without a longest length: ${endless.join(', ')}`)
  for (const endpoint of endpoints) app[endpoint.method](endpoint.path, handlerOf(endpoint, collaborators))
}

function handlerOf(endpoint: Endpoint, { dispatch, staff, now, units }: Collaborators): RequestHandler {
  const readBody = endpoint.kind === 'read' || endpoint.method === 'get' ? null : bodyReader(endpoint.mostBytes ?? usualBodyBytes)
  const asksPin = endpoint.access === 'lead' && (endpoint.kind === 'command' || (endpoint.kind === 'plain' && endpoint.asksPin === true))
  const actorOf = (request: Request): Actor => {
    const actor = allowed(staff.requireActor(request.headers.cookie, request.get('X-Recording'), now()), endpoint.access)
    if (!asksPin) return actor
    requireFreshPin(actor)
    staff.keepPinFresh(actor, now())
    return actor
  }
  if (endpoint.kind === 'command') {
    return async (request, response) => {
      const actor = actorOf(request)
      await readBody?.(request, response)
      const call = { key: request.get('Idempotency-Key') ?? '', actor, params: checkedParams(request.params), body: request.body as unknown, nowMs: now() }
      const { status, answer, isReplay } = await dispatch(endpoint, call)
      if (isReplay) response.set('Idempotent-Replay', 'true')
      sendJson(response.status(status), answer, units)
    }
  }
  return async (request, response) => {
    if (endpoint.access === 'lead' || endpoint.access === 'keeper') actorOf(request)
    else if (endpoint.access === 'device') staff.requireSession(request.headers.cookie, now())
    const params = checkedParams(request.params)
    await readBody?.(request, response)
    if (endpoint.kind === 'plain') return endpoint.handle(request, response)
    sendJson(response, endpoint.read({ params, query: request.query, nowMs: now() }), units)
  }
}

/** Reads a body, once it is known who sends it: what nobody may write is not even read. */
function bodyReader(limit: number): (request: Request, response: Response) => Promise<void> {
  const readers = [express.json({ limit, strict: false }), express.raw({ limit, type: ['text/csv', 'text/plain', 'application/octet-stream'] })]
  return async (request, response) => {
    for (const reader of readers) await new Promise<void>((resolve, reject) => reader(request, response, (error?: unknown) => (error ? reject(error as Error) : resolve())))
  }
}

/** Sends an answer with the figures of its sentences in the room's units. */
function sendJson(response: Response, answer: unknown, units: () => DisplayUnits): void {
  response.type('application/json').send(wordFigures(JSON.stringify(answer), units))
}

function allowed(actor: Actor, access: Access): Actor {
  if (access === 'lead' && actor.role !== 'lead') throw new Problem('not-allowed', 'Only a lead may do this')
  return actor
}

function checkedParams(params: Request['params']): Params {
  const entries = Object.entries(params).map(([name, value]) => [name, String(value)] as const)
  const bad = entries.some(([, value]) => !/^[A-Za-z0-9_-]{1,64}$/.test(value))
  if (bad) throw new Problem('not-found', 'There is nothing at this address')
  return Object.fromEntries(entries)
}
