import express, { type Express, type Request, type RequestHandler, type Response } from 'express'
import type { Access } from '../../core/commands/declare'
import type { Dispatch } from '../commands/dispatch'
import type { StaffService } from '../staff/staff.service'
import type { Answers } from './answers'
import { requireFreshPin, usualBodyBytes, type Actor, type Command, type Endpoint, type Params, type Plain, type Read } from './endpoint'
import { Problem } from './problem'
import { endlessLists } from '../../core/fields/validated'
import { wordFigures, type DisplayUnits } from '../../core/units/units'

interface Collaborators {
  dispatch: Dispatch
  staff: StaffService
  now: () => number
  answers: Answers
  /** How figures are shown: sentences that were kept have their values in them. */
  units: () => DisplayUnits
}

/** Puts every declared endpoint on the app, each behind its access check. What is not declared is not there. */
export function mountEndpoints(app: Express, endpoints: readonly Endpoint[], collaborators: Collaborators): void {
  const endless = endpoints.flatMap((endpoint) => (endpoint.kind === 'command' ? endlessLists(endpoint.schema).map((path) => `${endpoint.name}: ${path}`) : []))
  if (endless.length > 0) throw new Error(`lists without a longest length: ${endless.join(', ')}`)
  for (const endpoint of endpoints) app[endpoint.method](endpoint.path, handlerOf(endpoint, collaborators))
}

function handlerOf(endpoint: Endpoint, collaborators: Collaborators): RequestHandler {
  if (endpoint.kind === 'command') return commandHandler(endpoint, collaborators)
  return endpoint.kind === 'read' ? readHandler(endpoint, collaborators) : plainHandler(endpoint, collaborators)
}

/** Who asks, if they may. */
function actorOf({ access }: { access: Access }, request: Request, { staff, now }: Collaborators): Actor | null {
  if (access === 'lead' || access === 'keeper') return allowed(staff.requireActor(request.headers.cookie, request.get('X-Recording'), now()), access)
  if (access === 'device') staff.requireSession(request.headers.cookie, now())
  return null
}

/** The same, with the PIN given again for what leads alone may do. */
function freshActorOf(endpoint: Command | Plain, request: Request, collaborators: Collaborators): Actor | null {
  const actor = actorOf(endpoint, request, collaborators)
  if (actor && endpoint.access === 'lead' && (endpoint.kind === 'command' || endpoint.asksPin)) {
    requireFreshPin(actor)
    collaborators.staff.keepPinFresh(actor, collaborators.now())
  }
  return actor
}

function commandHandler(endpoint: Command, collaborators: Collaborators): RequestHandler {
  const { dispatch, now, units } = collaborators
  const readBody = bodyReader(endpoint.mostBytes ?? usualBodyBytes)
  return async (request, response) => {
    const actor = freshActorOf(endpoint, request, collaborators) as Actor
    await readBody(request, response)
    const call = { key: request.get('Idempotency-Key') ?? '', actor, params: checkedParams(request.params), body: request.body as unknown, nowMs: now() }
    const { status, answer, isReplay } = await dispatch(endpoint, call)
    if (isReplay) response.set('Idempotent-Replay', 'true')
    sendJson(response.status(status), toJson(answer, units))
  }
}

function readHandler(endpoint: Read, collaborators: Collaborators): RequestHandler {
  const { answers, now, units } = collaborators
  return (request, response) => {
    const actor = actorOf(endpoint, request, collaborators)
    const params = checkedParams(request.params)
    const nowMs = now()
    const make = (): string => toJson(endpoint.read({ params, query: request.query, actor, nowMs }), units)
    if (endpoint.staysMs === 0) return sendJson(response, make())
    const tag = answers.tagAt(endpoint.staysMs, nowMs)
    if (request.get('If-None-Match') === tag) return void response.set('ETag', tag).status(304).end()
    const body = answers.body(tag, `${actor?.id ?? ''} ${request.originalUrl}`, make)
    sendJson(response.set('ETag', tag), body)
  }
}

function plainHandler(endpoint: Plain, collaborators: Collaborators): RequestHandler {
  const readBody = endpoint.method === 'get' ? null : bodyReader(endpoint.mostBytes ?? usualBodyBytes)
  return async (request, response) => {
    freshActorOf(endpoint, request, collaborators)
    checkedParams(request.params)
    await readBody?.(request, response)
    return endpoint.handle(request, response)
  }
}

/** Reads a body, once it is known who sends it: what nobody may write is not even read. */
function bodyReader(limit: number): (request: Request, response: Response) => Promise<void> {
  const readers = [express.json({ limit, strict: false }), express.raw({ limit, type: ['text/csv', 'text/plain', 'application/octet-stream'] })]
  return async (request, response) => {
    for (const reader of readers) await new Promise<void>((resolve, reject) => reader(request, response, (error?: unknown) => (error ? reject(error as Error) : resolve())))
  }
}

/** An answer with the figures of its sentences in the room's units. */
const toJson = (answer: unknown, units: () => DisplayUnits): string => wordFigures(JSON.stringify(answer), units)
const sendJson = (response: Response, body: string): void => void response.type('application/json').send(body)

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
