import { mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { gzipSync } from 'node:zlib'
import type { Browser, BrowserContextOptions } from '@playwright/test'
import compression from 'compression'
import express from 'express'
import { build } from 'vite'
import { launchBrowser, openRoom, signIn } from './browserRoom'

/** A first load may cost so many times what React and Bootstrap alone do. */
const aim = 2
/** A phone of a few years ago at the far end of the building. */
const phone = { viewport: { width: 390, height: 844 }, isMobile: true, hasTouch: true } satisfies BrowserContextOptions
const network = { offline: false, latency: 150, downloadThroughput: (1.6e6 / 8) * 0.9, uploadThroughput: (0.75e6 / 8) * 0.9 }
const cpuTimes = 4
const rounds = 3

interface Weight {
  scriptB: number
  styleB: number
}

/** What a page names in its head, gzipped, in bytes: it is fetched before anything is drawn. */
function weightOf(folder: string): Weight {
  const named = [...readFileSync(join(folder, 'index.html'), 'utf8').matchAll(/(?:src|href)="\/?(assets\/[^"]+\.(?:js|css))"/g)].map(([, file = '']) => file)
  const sum = (ending: string): number => named.filter((file) => file.endsWith(ending)).reduce((total, file) => total + gzipSync(readFileSync(join(folder, file))).length, 0)
  return { scriptB: sum('.js'), styleB: sum('.css') }
}

/** Milliseconds from asking for a page to the first of what somebody came for, with nothing in the browser's cache. */
async function paintMs(browser: Browser, url: string, useful: string, storageState?: BrowserContextOptions['storageState']): Promise<number> {
  const timings: number[] = []
  for (let round = 0; round < rounds; round += 1) {
    const context = await browser.newContext({ ...phone, ...(storageState && { storageState }) })
    const page = await context.newPage()
    const session = await context.newCDPSession(page)
    await session.send('Network.enable')
    await session.send('Network.emulateNetworkConditions', network)
    await session.send('Emulation.setCPUThrottlingRate', { rate: cpuTimes })
    // In words, because what is translated on the way would not be known in the page.
    await page.addInitScript(`requestAnimationFrame(function look() { if (document.querySelector('${useful}')) window.usefulMs = performance.now(); else requestAnimationFrame(look) })`)
    await page.goto(url, { waitUntil: 'commit' })
    timings.push(await page.waitForFunction(() => (window as unknown as { usefulMs?: number }).usefulMs, undefined, { timeout: 120_000 }).then((handle) => handle.jsonValue() as Promise<number>))
    await context.close()
  }
  return timings.sort((a, b) => a - b)[Math.floor(rounds / 2)] ?? Number.NaN
}

const kB = (bytes: number): string => (bytes / 1000).toFixed(1).padStart(8)

/** What is fetched before Today stands, beside a page that is React and Bootstrap alone; and when Today and Room show what somebody came for, on a slow phone. */
export async function benchFirstLoad(): Promise<void> {
  const floorFolder = mkdtempSync(join(tmpdir(), 'daily-crate-floor-'))
  await build({ root: resolve('speed/floor'), configFile: false, logLevel: 'error', build: { outDir: floorFolder, emptyOutDir: true } })
  const [ours, floor] = [weightOf(resolve('dist/web')), weightOf(floorFolder)]
  const ratio = ours.scriptB / floor.scriptB
  console.log('\nFirst load of Today, gzipped, to React and Bootstrap alone')
  console.log(`  ${'kB'.padEnd(34)}  script    style`)
  console.log(`  ${'ours'.padEnd(34)}${kB(ours.scriptB)} ${kB(ours.styleB)}`)
  console.log(`  ${'floor'.padEnd(34)}${kB(floor.scriptB)} ${kB(floor.styleB)}`)
  console.log(`  ${'ratio'.padEnd(34)}${ratio.toFixed(2).padStart(8)} ${(ours.styleB / floor.styleB).toFixed(2).padStart(8)}   aim: script at most ${aim}, ${ratio <= aim ? 'met' : 'NOT met'}`)

  const room = await openRoom(64)
  const served = express().use(compression(), express.static(floorFolder)).listen(0, '127.0.0.1')
  const browser = await launchBrowser()
  const context = await browser.newContext()
  await signIn(await context.newPage(), room.url)
  const signedIn = await context.storageState()
  await context.close()
  const address = served.address()
  const floorMs = await paintMs(browser, `http://127.0.0.1:${typeof address === 'object' ? address?.port : ''}/`, '.btn')
  const [todayMs, roomMs] = [await paintMs(browser, `${room.url}/today`, '.row-section', signedIn), await paintMs(browser, `${room.url}/room`, '.tank-spot', signedIn)]
  console.log(`\nFirst useful paint on a phone (1.6 Mbit/s, 150 ms away, processor ${cpuTimes} times slower), nothing cached`)
  for (const [what, ms] of [['Today', todayMs], ['Room, 64 tanks', roomMs]] as const) console.log(`  ${what.padEnd(34)}${(ms / 1000).toFixed(2).padStart(8)} s   ${(ms / floorMs).toFixed(2)} times React and Bootstrap alone (${(floorMs / 1000).toFixed(2)} s)`)
  room.close()
  await benchRooms(browser)
  await browser.close()
  served.close()
}

/** A large room is to show what somebody came for almost as soon as a small one. */
const roomAim = 1.6

async function benchRooms(browser: Browser): Promise<void> {
  const paints: number[] = []
  for (const tanks of [400, 20]) {
    const room = await openRoom(tanks)
    const context = await browser.newContext()
    await signIn(await context.newPage(), room.url)
    paints.push(await paintMs(browser, `${room.url}/room`, '.tank-spot', await context.storageState()))
    await context.close()
    room.close()
  }
  const [large = NaN, small = NaN] = paints
  console.log(`\nFirst useful paint of Room, 400 tanks ${(large / 1000).toFixed(2)} s, 20 tanks ${(small / 1000).toFixed(2)} s: ratio ${(large / small).toFixed(2)}   aim: below ${roomAim}, ${large / small < roomAim ? 'met' : 'NOT met'}`)
}
