import { existsSync } from 'node:fs'
import { join } from 'node:path'
import compression from 'compression'
import express, { type Express } from 'express'
import helmet from 'helmet'
import pino from 'pino'
import { errorHandler } from './http/errorHandler'
import { mountEndpoints } from './http/mount'
import { checkAddress } from './http/ourAddress'
import { Problem } from './http/problem'
import { createServices, type AppOptions, type Services } from './services'

/** Makes the app: protection, reading, endpoints, pages, errors. */
export function createApp(options: AppOptions): Express & Pick<Services, 'notices' | 'walkPast' | 'pollProbes'> {
  const { now, isSecure = false, webFolder, names = [], log = pino({ level: 'warn' }) } = options
  const { staff, dispatch, endpoints, units, notices, answers, walkPast, pollProbes } = createServices(options)
  const app = express()
  app.disable('x-powered-by')
  // Reads name what they go by themselves (`answers`); hashing every other answer would be for nobody.
  app.disable('etag')
  app.set('query parser', 'simple')
  app.use(protection(isSecure))
  app.use(checkAddress(names))
  app.use('/api', (_request, response, next) => next(void response.set('Cache-Control', 'no-store')))
  mountEndpoints(app, endpoints, { dispatch, staff, now, units, answers })
  // Whatever is not declared: first who asks, then that there is nothing.
  app.use('/api', (request) => {
    staff.requireSession(request.headers.cookie, now())
    throw new Problem('not-found', 'There is nothing at this address')
  })
  if (webFolder) servePages(app, webFolder)
  app.use(errorHandler(log, units))
  return Object.assign(app, { notices, walkPast, pollProbes })
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
  // The interface is large and sent once; answers are small, and compressing each would cost every device.
  app.use('/assets', compression(), express.static(join(webFolder, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }))
  app.use(express.static(webFolder, { index: false }))
  app.get('/{*page}', (_request, response) => void response.set('Cache-Control', 'no-cache').sendFile(join(webFolder, 'index.html')))
}
