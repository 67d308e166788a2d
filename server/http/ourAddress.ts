import { hostname, networkInterfaces } from 'node:os'
import type { Request, RequestHandler } from 'express'
import { Problem } from './problem'

/**
 * Makes the check that a request is meant for this room and comes from its own pages. A page from elsewhere can have its
 * name answered with our address; the name it asks under gives it away.
 * @param names - names the room is served under besides this machine's own, as a proxy or the shop's network gives them.
 */
export function checkAddress(names: readonly string[]): RequestHandler {
  const named = new Set(['localhost', '127.0.0.1', '::1', hostname(), `${hostname()}.local`, ...names].map((name) => name.toLowerCase()))
  return (request, _response, next) => {
    const host = hostOf(`http://${request.get('Host')}`)
    if (!host || !(named.has(host.name) || isOwnAddress(host.name))) throw new Problem('not-allowed', `This room is not served under the name ${host?.name ?? 'given'}; if it is to be, name it in CRATE_NAMES`)
    refuseForeign(request)
    next()
  }
}

// The cookie is SameSite=Strict already; this also refuses a page that reached us under a name of its own, and one that
// hides where it comes from (`null`).
function refuseForeign(request: Request): void {
  const origin = request.get('Origin')
  if (origin === undefined || request.method === 'GET' || request.method === 'HEAD') return
  if (hostOf(origin)?.withPort !== hostOf(`http://${request.get('Host')}`)?.withPort) throw new Problem('not-allowed', 'Writes are taken from our own pages only')
}

function hostOf(address: string): { name: string; withPort: string } | null {
  if (!URL.canParse(address)) return null
  const { hostname: name, host } = new URL(address)
  return { name: name.replace(/^\[|\]$/g, ''), withPort: host }
}

/** A machine gets another address with the next lease of its network; asking for them takes longer than many an answer. */
const askEveryMs = 10_000
let own = { names: new Set<string>(), atMs: -Infinity }

function isOwnAddress(name: string): boolean {
  const isOld = performance.now() - own.atMs > askEveryMs
  if (isOld) own = { names: new Set(Object.values(networkInterfaces()).flatMap((each) => each?.map(({ address }) => address.toLowerCase()) ?? [])), atMs: performance.now() }
  return own.names.has(name)
}
