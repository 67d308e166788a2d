import { existsSync } from 'node:fs'
import { join } from 'node:path'
import express, { type Express } from 'express'
import helmet from 'helmet'
import pino, { type Logger } from 'pino'
import { createDispatch, type Dispatch } from './commands/dispatch'
import { cratesEndpoints } from './crates/crates.routes'
import { createCratesService } from './crates/crates.service'
import { createCratesStore } from './crates/crates.store'
import type { Database } from './db/open'
import type { Endpoint } from './http/endpoint'
import { errorHandler } from './http/errorHandler'
import { mountEndpoints } from './http/mount'
import { Problem } from './http/problem'
import { ledgerEndpoints } from './ledger/ledger.routes'
import { createLedgerService } from './ledger/ledger.service'
import { createLedgerStore } from './ledger/ledger.store'
import { roomEndpoints } from './room/room.routes'
import { createRoomService } from './room/room.service'
import { createRoomStore } from './room/room.store'
import { roundsEndpoints } from './rounds/rounds.routes'
import { createRoundsService } from './rounds/rounds.service'
import { createRoundsStore } from './rounds/rounds.store'
import { createSpeciesStore } from './species/species.store'
import { staffEndpoints } from './staff/staff.routes'
import { createStaffService, type StaffService } from './staff/staff.service'

export interface AppOptions {
  db: Database
  now: () => number
  isFrozenClock?: boolean
  isSecure?: boolean
  /** Folder of the built interface; left out in tests. */
  webFolder?: string
  log?: Logger
}

export interface Services {
  staff: StaffService
  dispatch: Dispatch
  endpoints: Endpoint[]
}

/** Puts the features together around one database. The demo writes through these, as the browser does through the app. */
export function createServices({ db, now, isFrozenClock = false, isSecure = false }: AppOptions): Services {
  const species = createSpeciesStore(db)
  const [ledgerStore, roomStore, roundsStore] = [createLedgerStore(db), createRoomStore(db), createRoundsStore(db)]
  const staff = createStaffService(db, now, isFrozenClock)
  const room = createRoomService(roomStore, ledgerStore, roundsStore.at)
  const ledger = createLedgerService(ledgerStore, species, (id) => room.requireTank(id).id)
  const crates = createCratesService({ store: createCratesStore(db), ledger, ledgerStore, species, isTank: (id) => roomStore.tankById(id) !== null })
  const rounds = createRoundsService({ store: roundsStore, room, roomStore, ledger: ledgerStore })
  const endpoints = [...staffEndpoints(staff, isSecure), ...roomEndpoints(room), ...ledgerEndpoints(ledger), ...cratesEndpoints(crates), ...roundsEndpoints(rounds)]
  return { staff, dispatch: createDispatch(db), endpoints }
}

/** Makes the app: protection, reading, endpoints, pages, errors. */
export function createApp(options: AppOptions): Express {
  const { now, isSecure = false, webFolder, log = pino({ level: 'warn' }) } = options
  const { staff, dispatch, endpoints } = createServices(options)
  const app = express()
  app.disable('x-powered-by')
  app.set('query parser', 'simple')
  app.use(protection(isSecure))
  app.use('/api', (_request, response, next) => next(void response.set('Cache-Control', 'no-store')))
  app.use(express.json({ limit: '2mb', strict: false }), express.raw({ limit: '2mb', type: ['text/csv', 'application/octet-stream'] }))
  mountEndpoints(app, endpoints, { dispatch, staff, now })
  // Whatever is not declared: first who asks, then that there is nothing.
  app.use('/api', (request) => {
    staff.requireSession(request.headers.cookie, now())
    throw new Problem('not-found', 'There is nothing at this address')
  })
  if (webFolder) servePages(app, webFolder)
  app.use(errorHandler(log))
  return app
}

// On plain http, upgrading requests or insisting on TLS would leave phones with a blank page.
function protection(isSecure: boolean) {
  return helmet({
    hsts: isSecure,
    contentSecurityPolicy: {
      directives: { defaultSrc: ["'self'"], styleSrc: ["'self'", "'unsafe-inline'"], imgSrc: ["'self'", 'data:'], upgradeInsecureRequests: isSecure ? [] : null },
    },
    crossOriginOpenerPolicy: isSecure,
    originAgentCluster: isSecure,
  })
}

function servePages(app: Express, webFolder: string): void {
  if (!existsSync(join(webFolder, 'index.html'))) throw new Error(`The interface is not built: ${webFolder} has no index.html (run npm run demo or npm start)`)
  app.use('/assets', express.static(join(webFolder, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }))
  app.use(express.static(webFolder, { index: false }))
  app.get('/{*page}', (_request, response) => void response.set('Cache-Control', 'no-cache').sendFile(join(webFolder, 'index.html')))
}
