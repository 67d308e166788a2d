import type { Request, Response } from 'express'
import { rateLimit, type Options as RateLimitOptions } from 'express-rate-limit'
import { doorApi } from '../../core/staff/door.api'
import { staffApi } from '../../core/staff/staff.api'
import { firstLeadSchema, identifySchema, signInSchema } from '../../core/staff/staff.schema'
import { prepared, serve, type Endpoint, type Plain } from '../http/endpoint'
import { Problem } from '../http/problem'
import { validated } from '../../core/fields/validated'
import { sessionCookie, sessionMs, type StaffService } from './staff.service'

/** How often a secret may be wrong from one address before it has to wait. */
const wrongTries = 10
const waitMs = 10 * 60_000

/** Addresses of signing in and of the people list. Secrets go here directly and never through a device's outbox. */
export function staffEndpoints(staff: StaffService, isSecure: boolean): Endpoint[] {
  const cookie = { httpOnly: true, sameSite: 'strict', secure: isSecure, path: '/', maxAge: sessionMs } as const
  const giveSession = (response: Response, token: string): void => void response.cookie(sessionCookie, token, cookie).status(201).json({})
  const { editStaff, retireStaff, closeDevice, closeAllDevices, changeRoom } = staff
  const door = serve(doorApi, {
    session: (request, response) => void response.json(staff.sessionView(request.headers.cookie)),
    firstLead: limited(async (request, response) => giveSession(response, await staff.createFirstLead(validated(firstLeadSchema, request.body), deviceOf(request)))),
    signIn: limited(async (request, response) => giveSession(response, await staff.signIn(validated(signInSchema, request.body), deviceOf(request), request.headers.cookie))),
    identify: limited(async (request, response) => void response.json(await staff.identify(request.headers.cookie, validated(identifySchema, request.body))), ({ headers }) => staff.sessionIdOf(headers.cookie), personOf),
    signOut(request, response) {
      staff.signOut(request.headers.cookie)
      response.clearCookie(sessionCookie, { ...cookie, maxAge: undefined }).json({})
    },
  })
  const people = serve(staffApi, {
    readStaff: () => ({ staff: staff.listStaff() }),
    readPeople: staff.people,
    readDevices: ({ actor }) => staff.devices(actor.sessionId),
    addStaff: prepared(staff.prepareStaff, (_, input, hashes) => staff.addStaff(input, hashes)),
    resetPin: prepared(staff.preparePin, staff.resetPin),
    setPassphrase: prepared(staff.preparePassphrase, staff.setPassphrase),
    ...{ editStaff, retireStaff, closeDevice, closeAllDevices, changeRoom },
  })
  return [...door, ...people]
}

/** A device in a few words, so that a lead knows it in the list: what runs there, not who made it. */
function deviceOf(request: Request): string {
  const agent = request.get('User-Agent') ?? ''
  const system = [['Android', 'Android'], ['iPhone', 'iPhone'], ['iPad', 'iPad'], ['Windows', 'Windows'], ['Mac OS', 'Mac'], ['Linux', 'Linux']].find(([mark]) => agent.includes(mark ?? ''))?.[1] ?? 'device'
  return `${system}${agent.includes('Mobile') ? ' phone or tablet' : ''} at ${request.ip ?? 'unknown address'}`.slice(0, 80)
}

/** Whose PIN is tried; nothing that is no name of ours is counted for anybody. */
const personOf = (request: Request): string => String((request.body as { staffId?: unknown } | undefined)?.staffId).slice(0, 64)

/**
 * Lets a secret be wrong a few times only, counted by address and by whatever else is given: an address is quickly
 * changed, a device and a person are not. Only wrong tries count, so that a shift change on one tablet never locks it.
 */
function limited(handle: Plain['handle'], ...countedBy: ((request: Request) => string)[]): Plain['handle'] {
  const options = { windowMs: waitMs, limit: wrongTries, skipSuccessfulRequests: true, standardHeaders: false, legacyHeaders: false, validate: false } as const
  const refuse: RateLimitOptions['handler'] = (_request, _response, next) => void next(new Problem('too-many-tries', 'Too many wrong tries from this device or for this person; wait ten minutes'))
  const limits = [rateLimit({ ...options, handler: refuse }), ...countedBy.map((keyGenerator) => rateLimit({ ...options, handler: refuse, keyGenerator }))]
  return async (request, response) => {
    for (const limit of limits) await new Promise<void>((resolve, reject) => void limit(request, response, (error?: unknown) => (error ? reject(error as Error) : resolve())))
    return handle(request, response)
  }
}
