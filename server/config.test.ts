import { mkdtempSync, writeFileSync } from 'node:fs'
import { hostname, networkInterfaces, tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { describe, expect, test } from '@jest/globals'
import pino from 'pino'
import request from 'supertest'
import { createApp } from './app'
import { readConfig } from './config'
import { openDatabase } from './db/open'
import { listen } from './listen'

const folder = mkdtempSync(join(tmpdir(), 'daily-crate-'))
const fileOf = (name: string, text: string): string => {
  writeFileSync(join(folder, name), text)
  return join(folder, name)
}

describe('settings', () => {
  test('without any, the room is for this machine only, on plain http, with a clock that runs', () => {
    const config = readConfig({})
    expect(config).toMatchObject({ host: '127.0.0.1', port: 4310, tls: null, isFrozenClock: false, databaseFile: resolve('data/room.sqlite') })
    expect(Math.abs(config.now() - Date.now())).toBeLessThan(5000)
  })

  test('a clock can stand still, TLS takes certificate and key', () => {
    const [cert, key] = [fileOf('cert.pem', 'certificate'), fileOf('key.pem', 'key')]
    const config = readConfig({ CRATE_CLOCK: '2031-05-04T09:00:00Z', CRATE_TLS_CERT: cert, CRATE_TLS_KEY: key, CRATE_DATA: folder, CRATE_HOST: '0.0.0.0', CRATE_PORT: '80' })
    expect(config).toMatchObject({ host: '0.0.0.0', port: 80, isFrozenClock: true, databaseFile: join(folder, 'room.sqlite') })
    expect([config.now(), config.tls?.cert.toString(), config.tls?.key.toString()]).toEqual([Date.UTC(2031, 4, 4, 9), 'certificate', 'key'])
  })

  test.each([
    [{ CRATE_PORT: 'http' }, /CRATE_PORT is not a port: http/],
    [{ CRATE_PORT: '70000' }, /CRATE_PORT/],
    [{ CRATE_PORT: '-1' }, /CRATE_PORT/],
    [{ CRATE_PORT: '80.5' }, /CRATE_PORT/],
    [{ CRATE_CLOCK: 'teatime' }, /CRATE_CLOCK is not a moment/],
    [{ CRATE_TLS_CERT: '/nowhere/cert.pem' }, /belong together/],
    [{ CRATE_TLS_CERT: '/nowhere/cert.pem', CRATE_TLS_KEY: '/nowhere/key.pem' }, /There is no file \/nowhere\/cert.pem/],
  ])('%j is refused in plain words', (env, message) => expect(() => readConfig(env)).toThrow(message))
})

describe('pages', () => {
  const webFolder = mkdtempSync(join(tmpdir(), 'daily-crate-web-'))
  writeFileSync(join(webFolder, 'index.html'), '<title>Daily Crate</title>')
  writeFileSync(join(webFolder, 'icon.svg'), '<svg/>')
  const db = openDatabase(':memory:')
  const app = createApp({ db, now: Date.now, webFolder, log: pino({ level: 'silent' }) })

  test('any address of the interface gives the one page; files are given as they are', async () => {
    for (const path of ['/', '/crates', '/room/R1-01?entry=x']) expect((await request(app).get(path)).text).toContain('Daily Crate')
    expect((await request(app).get('/icon.svg')).headers['content-type']).toMatch(/svg/)
  })

  test('nothing outside the folder is given, and a missing asset is missing', async () => {
    for (const path of ['/..%2f..%2fetc%2fpasswd', '/%2e%2e/%2e%2e/etc/passwd', '/assets/..%2findex.html', '/assets/none.js']) {
      const answer = await request(app).get(path)
      expect(answer.text).not.toMatch(/root:/)
      if (path.startsWith('/assets')) expect(answer.status).toBeGreaterThanOrEqual(400)
    }
  })

  test('every answer carries the protection of the page', async () => {
    const { headers } = await request(app).get('/')
    expect(headers['content-security-policy']).toMatch(/default-src 'self'/)
    expect([headers['x-content-type-options'], headers['x-powered-by'], headers['x-frame-options']]).toEqual(['nosniff', undefined, 'SAMEORIGIN'])
    expect((await request(app).get('/api/session')).headers['cache-control']).toBe('no-store')
  })

  test('an interface that was not built is said, not served empty', () => {
    expect(() => createApp({ db, now: Date.now, webFolder: folder })).toThrow(/not built/)
  })

  test('a port in use is told to whoever starts the room', async () => {
    const config = { ...readConfig({}), port: 0, webFolder }
    const { server, url } = await listen(config, db)
    expect(await fetch(`${url.replace(':0', '')}/api/session`).then((answer) => answer.status)).toBe(200)
    await expect(listen({ ...config, port: Number(new URL(url).port) }, db)).rejects.toThrow(/EADDRINUSE/)
    await new Promise((done) => server.close(done))
  })
})

describe('names', () => {
  const db = openDatabase(':memory:')
  const app = createApp({ db, now: () => 0, names: readConfig({ CRATE_NAMES: 'room.shop.example, fish' }).names, log: pino({ level: 'silent' }) })
  const statusUnder = async (host: string): Promise<number> => (await request(app).get('/api/session').set('Host', host)).status

  test('a room answers under its machine’s names and addresses and those it was given, and under no other', async () => {
    const own = Object.values(networkInterfaces()).flatMap((each) => each ?? []).map(({ address, family }) => (family === 'IPv6' ? `[${address}]:4310` : `${address}:4310`))
    for (const host of ['localhost:4310', '127.0.0.1', hostname(), 'ROOM.shop.example', 'fish:80', ...own.filter((each) => !each.includes('%'))]) expect([host, await statusUnder(host)]).toEqual([host, 200])
    for (const host of ['elsewhere.example', 'localhost.elsewhere.example', '127.0.0.1.elsewhere.example', '192.0.2.1', 'x y']) expect([host, await statusUnder(host)]).toEqual([host, 403])
  })
})
