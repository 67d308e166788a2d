import { mkdirSync } from 'node:fs'
import { chromium, type Browser, type BrowserContextOptions } from '@playwright/test'
import { Driver } from './driver'

// `npm run screenshots`: the main views of the demo room on a clock that stands still.
const url = process.argv[2] ?? ''
const folder = 'docs/screenshots'
const imre = { name: 'Imre', passphrase: 'lantern over the quay', pin: '1111' }
const phone: BrowserContextOptions = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true }
const desktop: BrowserContextOptions = { viewport: { width: 1280, height: 800 } }

/** Name of the picture, and where it is taken; `open` stands for the crate on the floor. */
const views: [string, string, ((driver: Driver) => Promise<void>)?][] = [
  ['crates', '/crates'],
  ['new-crate', '/crates/new', readList],
  ['crate', '/crates/open'],
  ['unpack', '/crates/open/unpack', spoilBag],
  ['room', '/room'],
  ['tank', '/room/R1-02', (driver) => driver.openAction('Cherry barb', 'move')],
  ['round', '/rounds', (driver) => driver.answer('none ate')],
  ['setup', '/setup'],
]
const onPhone = new Set(['crate', 'unpack', 'room', 'tank', 'round'])
const onDesktop = new Set(['crates', 'new-crate', 'crate', 'unpack', 'room', 'tank', 'round', 'setup'])

async function readList(driver: Driver): Promise<void> {
  await driver.type('Supplier', 'Brackwater Nurseries')
  await driver.readList('species,count,bags,per bag,tank\nKnight goby,12,4,3,R1-07\nCherry barb,22,3,8,R1-02\nGlass bloodfin,30,2,15,')
}

async function spoilBag(driver: Driver): Promise<void> {
  await driver.oneDead()
  await driver.toggleLook('Water')
  await driver.type(/^skin/, '23.5')
}

async function take(browser: Browser, kind: string, options: BrowserContextOptions, names: Set<string>): Promise<void> {
  const context = await browser.newContext({ timezoneId: 'UTC', colorScheme: 'light', ...options })
  const driver = new Driver(await context.newPage(), url)
  await driver.signIn(imre)
  const open = await driver.openCrateId()
  for (const [name, path, prepare] of views.filter(([each]) => names.has(each))) {
    await driver.goto(path.replace('open', open))
    await driver.page.waitForLoadState('networkidle')
    await prepare?.(driver)
    await driver.page.waitForTimeout(300)
    await driver.page.screenshot({ path: `${folder}/${name}-${kind}.png` })
  }
  await context.close()
}

mkdirSync(folder, { recursive: true })
const asRoot = process.getuid?.() === 0 ? ['--no-sandbox'] : []
const browser = await chromium.launch({ executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium', args: ['--disable-background-networking', '--disable-gpu', '--no-first-run', ...asRoot] })
await take(browser, 'desktop', desktop, onDesktop)
await take(browser, 'phone', phone, onPhone)
await take(browser, 'phone-lights-off', { ...phone, colorScheme: 'dark' }, new Set(['unpack', 'round']))
await browser.close()
