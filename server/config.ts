import { existsSync, readFileSync } from 'node:fs'
import { join, resolve } from 'node:path'

export interface Config {
  databaseFile: string
  host: string
  port: number
  /** Names under which devices reach the room besides those of this machine, as a proxy or the shop's network gives them. */
  names: string[]
  /** Certificate and key when the room has set up TLS; null on plain http. */
  tls: { cert: Buffer; key: Buffer } | null
  /** Where the built interface lies. */
  webFolder: string
  now: () => number
  isFrozenClock: boolean
  /** Most megabytes that the database may take; null for what the disk has. */
  mostMegabytes: number | null
  /** Folder for the copies that are made by themselves; null for none. */
  copies: string | null
  /** Start although the books are not right. */
  startsDamaged: boolean
}

/**
 * Reads the settings from the environment.
 * @throws Error in plain words when one of them cannot be used.
 */
export function readConfig(env: NodeJS.ProcessEnv): Config {
  const frozenMs = env.CRATE_CLOCK ? Date.parse(env.CRATE_CLOCK) : null
  if (frozenMs !== null && Number.isNaN(frozenMs)) throw new Error(`CRATE_CLOCK is not a moment such as 2031-05-04T09:00:00Z: ${env.CRATE_CLOCK}`)
  const port = Number(env.CRATE_PORT ?? 4310)
  if (!Number.isInteger(port) || port < 0 || port > 65_535) throw new Error(`CRATE_PORT is not a port: ${env.CRATE_PORT}`)
  const mostMegabytes = env.CRATE_MOST_MB ? Number(env.CRATE_MOST_MB) : null
  if (mostMegabytes !== null && !(Number.isInteger(mostMegabytes) && mostMegabytes > 0)) throw new Error(`CRATE_MOST_MB is not a number of megabytes: ${env.CRATE_MOST_MB}`)
  const data = resolve(env.CRATE_DATA ?? 'data')
  return {
    mostMegabytes,
    copies: env.CRATE_COPIES === 'off' ? null : resolve(env.CRATE_COPIES ?? `${data}-copies`),
    databaseFile: join(data, 'room.sqlite'),
    host: env.CRATE_HOST ?? '127.0.0.1',
    port,
    names: (env.CRATE_NAMES ?? '').split(/[\s,]+/).filter(Boolean),
    tls: readTls(env.CRATE_TLS_CERT, env.CRATE_TLS_KEY),
    webFolder: resolve('dist/web'),
    now: frozenMs === null ? Date.now : () => frozenMs,
    isFrozenClock: frozenMs !== null,
    startsDamaged: env.CRATE_START_DAMAGED === '1',
  }
}

function readTls(cert: string | undefined, key: string | undefined): Config['tls'] {
  if (!cert && !key) return null
  if (!cert || !key) throw new Error('CRATE_TLS_CERT and CRATE_TLS_KEY belong together; one of them is missing')
  for (const file of [cert, key]) if (!existsSync(file)) throw new Error(`There is no file ${file} for TLS`)
  return { cert: readFileSync(cert), key: readFileSync(key) }
}
