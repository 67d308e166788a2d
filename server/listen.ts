import { createServer as createHttpServer, type Server } from 'node:http'
import { createServer as createTlsServer } from 'node:https'
import type { AddressInfo } from 'node:net'
import { createApp } from './app'
import type { Config } from './config'
import type { Services } from './services'
import type { Database } from './db/open'

/** Serves a room and resolves with its address once devices can reach it. */
export async function listen(config: Config, db: Database): Promise<{ server: Server; url: string; notices: Services['notices'] }> {
  const { now, isFrozenClock, tls, webFolder, names, copies } = config
  const app = createApp({ db, now, isFrozenClock, isSecure: tls !== null, webFolder, names: [config.host, ...names], copiesFolder: copies })
  const server = tls ? createTlsServer(tls, app) : createHttpServer(app)
  await new Promise<void>((resolve, reject) => server.once('error', reject).listen(config.port, config.host, resolve))
  walkAhead(db, app.walkPast)
  askProbes(db, app.pollProbes)
  const { port } = server.address() as AddressInfo
  return { server, notices: app.notices, url: `${tls ? 'https' : 'http'}://${config.host}:${port}` }
}

/** Between steps whoever waits is served. */
const stepMs = 100

/** Walks the ledger a step at a time, after the first devices were served. */
function walkAhead(db: Database, walkPast: () => boolean): void {
  const step = (): void => {
    if (db.raw.open && walkPast()) setTimeout(step, stepMs).unref()
  }
  setTimeout(step, 20 * stepMs).unref()
}

/** Probes are looked after every minute; each is asked as often as it is set to. */
const probesEveryMs = 60_000
function askProbes(db: Database, poll: () => Promise<void>): void {
  setInterval(() => void (db.raw.open && poll()), probesEveryMs).unref()
}

/** Ends in order on Ctrl-C or a service manager's stop; a kill needs no order, the database sees to that. */
export function closeOnSignal(server: Server, db: Database): void {
  const close = (): void => {
    server.close(() => {
      db.close()
      process.exit(0)
    })
    server.closeAllConnections()
  }
  process.once('SIGINT', close)
  process.once('SIGTERM', close)
}
