import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { chromium, type Browser, type Page } from '@playwright/test'
import { openDatabase, type Database } from '../server/db/open'
import { listen } from '../server/listen'

const lead = { name: 'Imre', passphrase: 'tide pool at dawn', pin: '4711' }

/** A room with one crate of one line, behind the real server; answers its address, the line, its database, and how to close it. */
export async function openRoom(tankCount = 1): Promise<{ url: string; lineId: string; db: Database; close: () => void }> {
  const db = openDatabase(join(mkdtempSync(join(tmpdir(), 'daily-crate-')), 'room.sqlite'))
  const { server, url } = await listen({ databaseFile: db.file, host: '127.0.0.1', port: 0, tls: null, webFolder: resolve('dist/web'), now: Date.now, isFrozenClock: false, startsDamaged: false, mostMegabytes: null, names: [], copies: null }, db)
  let [cookie, staffId, sent] = ['', '', 0]
  const send = async <T>(method: string, path: string, body?: unknown): Promise<T> => {
    const answer = await fetch(`${url}${path}`, { method, headers: { Cookie: cookie, 'X-Recording': staffId, 'Idempotency-Key': `responsive-run-${(sent += 1)}-key`, 'Content-Type': 'application/json' }, body: body === undefined ? null : JSON.stringify(body) })
    if (!answer.ok) throw new Error(`${path}: ${answer.status} ${await answer.text()}`)
    cookie = answer.headers.get('set-cookie')?.split(';')[0] ?? cookie
    return (await answer.json()) as T
  }
  await send('POST', '/api/session/first-lead', { ...lead, roomName: 'Lantern Quay', timeZone: 'UTC' })
  staffId = (await send<{ staff: { id: string }[] }>('GET', '/api/session')).staff[0]?.id ?? ''
  const tanks: { id: string }[] = []
  for (let rack = 1; tanks.length < tankCount; rack += 1) {
    const made = await send<{ tanks: { id: string }[] }>('POST', '/api/systems', { name: rack === 1 ? 'Marine' : `Marine ${rack}`, water: 'marine', sharing: 'each its own', sumpL: null, rack: `M${rack}`, tankCount: Math.min(64, tankCount - tanks.length), perShelf: 5, tankKind: 'glass', netVolumeL: 60 })
    tanks.push(...made.tanks)
  }
  const { id } = await send<{ id: string }>('POST', '/api/crates', { supplier: 'Pale Harbour Livestock', expectedAtMs: null, packedAtMs: Date.now() - 72_000_000, lines: [{ species: 'Royal gramma', count: 1, bags: 1, perBag: null, tankId: tanks[0]?.id ?? null }] })
  const crate = await send<{ lines: { id: string }[]; bags: { id: string }[] }>('GET', `/api/crates/${id}`)
  return { url, db, lineId: crate.lines[0]?.id ?? '', close: () => (server.closeAllConnections(), server.close(), db.close()) }
}

/** Opens a device for the lead, who records on it. */
export async function signIn(page: Page, url: string): Promise<void> {
  await page.goto(url)
  await page.getByLabel('Name', { exact: true }).fill(lead.name)
  await page.getByLabel('Passphrase').fill(lead.passphrase)
  await page.getByRole('button', { name: 'Open this device' }).click()
  await page.getByRole('button', { name: /^Imre / }).or(page.getByRole('group', { name: 'PIN' })).first().waitFor()
  const name = page.getByRole('button', { name: /^Imre / })
  if (await name.isVisible()) await name.click()
  for (const digit of lead.pin) await page.getByRole('group', { name: 'PIN' }).getByRole('button', { name: digit, exact: true }).click()
  await page.getByRole('group', { name: 'PIN' }).getByRole('button', { name: 'record', exact: true }).click()
  await page.getByRole('navigation', { name: 'Screens' }).waitFor({ state: 'attached' })
}

/** Watches the tasks of a page that take 50 ms or more; each asking answers the time since, and the longest since the last asking. */
export async function watchTasks(page: Page): Promise<() => Promise<{ sinceMs: number; longestMs: number }>> {
  await page.evaluate(() => {
    const tasks: number[] = []
    Object.assign(window, { tasks, startedMs: performance.now() })
    new PerformanceObserver((list) => tasks.push(...list.getEntries().map(({ duration }) => duration))).observe({ entryTypes: ['longtask'] })
  })
  return () => page.evaluate(() => ({ sinceMs: performance.now() - (window as unknown as { startedMs: number }).startedMs, longestMs: Math.max(0, ...(window as unknown as { tasks: number[] }).tasks.splice(0)) }))
}

/** Says how long the longest task was. */
export const taskWords = (ms: number): string => (ms === 0 ? 'none of 50 ms or more' : `${ms.toFixed(0)} ms`)

export const launchBrowser = (): Promise<Browser> => chromium.launch({ executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium', args: ['--disable-background-networking', '--disable-gpu', '--no-first-run', ...(process.getuid?.() === 0 ? ['--no-sandbox'] : [])] })
