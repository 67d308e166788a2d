import { mkdirSync } from 'node:fs'
import { chromium, type Browser, type BrowserContextOptions } from '@playwright/test'
import { Driver } from './driver'

// `npm run screenshots`: the main views of the demo room on a clock that stands still.
const url = process.argv[2] ?? ''
const folder = 'docs/screenshots'
const imre = { name: 'Imre', passphrase: 'lantern over the quay', pin: '1111' }
const phone: BrowserContextOptions = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true }
const desktop: BrowserContextOptions = { viewport: { width: 1280, height: 800 } }

/** Name of the picture, and where it is taken; `open` stands for the crate on the floor, `due` for the one on its way. */
const views: [string, string, ((driver: Driver) => Promise<void>)?][] = [
  ['today', '/today'],
  ['crate', '/crates/open'],
  ['tank-choice', '/crates/due/tanks', suggestTanks],
  ['unpack', '/crates/open/unpack', spoilBag],
  ['claim', '/crates/open/claim'],
  ['room', '/room'],
  ['tank', '/room/R1-02', (driver) => driver.openAction('Cherry barb', 'count')],
  ['round', '/rounds', (driver) => driver.answer('none ate')],
  ['move', '/room/R1-06/move', sayMove],
  ['trace', '/room/M1-08/contacts', (driver) => driver.page.locator('.react-flow__node').first().waitFor()],
  ['introduction', '/bench/introductions/first'],
  ['compare', '/bench/compare?line=waiting', judged],
  ['bench', '/bench'],
  ['run', '/bench/runs/siphon'],
  ['kitchen', '/kitchen', (driver) => driver.page.locator('.tick-row').first().waitFor()],
  ['holds', '/holds', (driver) => driver.page.locator('.hold-row').first().waitFor()],
  ['regimen', '/regimens', openLadder],
  ['outcomes', '/outcomes?by=school', (driver) => driver.page.locator('.survival-chart canvas').waitFor()],
]
const onPhone = new Set(['unpack', 'run', 'kitchen', 'move', 'introduction'])
const onDesktop = new Set(['today', 'crate', 'holds', 'tank-choice', 'claim', 'room', 'outcomes', 'regimen', 'tank', 'trace', 'compare'])

/** The ladder half way, with its chart. */
async function openLadder(driver: Driver): Promise<void> {
  await driver.page.getByRole('link', { name: /^Copper, ionic, stepped, Q1-03/ }).click()
  await driver.page.locator('.level-chart canvas').waitFor()
}

/** Five fish, next door. */
async function sayMove(driver: Driver): Promise<void> {
  await driver.chooseNumber(5)
  await driver.chooseTank('R1-08')
  await driver.page.getByRole('region', { name: 'Before the net' }).waitFor()
}

async function suggestTanks(driver: Driver): Promise<void> {
  await driver.press('Suggest tanks')
  await driver.page.getByText(/Proven/).waitFor({ timeout: 30_000 })
  await driver.page.getByRole('button', { name: 'Suggest tanks' }).waitFor()
  await driver.press(/^4 Cleaner shrimp/)
}

async function spoilBag(driver: Driver): Promise<void> {
  await driver.oneDead()
  await driver.toggleLook('Water')
  await driver.type(/^skin/, '23.5')
}

/** Every school tried on all plausible bags. */
function judged(driver: Driver): Promise<void> {
  return driver.judged()
}

async function take(browser: Browser, kind: string, options: BrowserContextOptions, names: Set<string>): Promise<void> {
  const context = await browser.newContext({ timezoneId: 'UTC', colorScheme: 'light', reducedMotion: 'reduce', ...options })
  const driver = new Driver(await context.newPage(), url)
  await driver.signIn(imre)
  const [open, due] = [await driver.openCrateId(), await driver.dueCrateId()]
  const { waiting, runs } = await driver.bench()
  const introduction = await driver.openIntroductionId()
  for (const [name, path, prepare] of views.filter(([each]) => names.has(each))) {
    await driver.goto(path.replace('open', open).replace('due', due).replace('waiting', waiting).replace('siphon', runs.at(-1) ?? '').replace('introductions/first', `introductions/${introduction}`))
    await driver.page.locator('main h1').waitFor()
    await driver.page.waitForTimeout(600)
    await prepare?.(driver)
    await driver.page.waitForTimeout(300)
    await driver.page.screenshot({ path: `${folder}/${name}-${kind}.png` })
  }
  await context.close()
}

/** A room that has only its first lead yet. */
async function takeFirstStart(browser: Browser, bare: string): Promise<void> {
  const context = await browser.newContext({ timezoneId: 'UTC', colorScheme: 'light', ...phone })
  const driver = new Driver(await context.newPage(), bare)
  await driver.goto('/')
  for (const [label, text] of [['Name of the room', 'Lantern Quay Fishroom'], ['Your name', imre.name], ['Passphrase', imre.passphrase], ['PIN', imre.pin]] as const) await driver.fill(label, text)
  await driver.press('Make the room')
  await driver.follow('Add the first rack')
  await driver.fill('New system', 'Fresh sale rack')
  await driver.choose('Water of its tanks', 'one water')
  await driver.press('Add system and tanks')
  await driver.page.getByText('done: 8 tanks').waitFor()
  await driver.page.screenshot({ path: `${folder}/first-start-phone.png` })
  await context.close()
}

mkdirSync(folder, { recursive: true })
const asRoot = process.getuid?.() === 0 ? ['--no-sandbox'] : []
const browser = await chromium.launch({ executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium', args: ['--disable-background-networking', '--disable-gpu', '--no-first-run', ...asRoot] })
await take(browser, 'desktop', desktop, onDesktop)
await take(browser, 'phone', phone, onPhone)
await take(browser, 'phone-lights-off', { ...phone, colorScheme: 'dark' }, new Set(['round', 'bench']))
await takeFirstStart(browser, process.argv[3] ?? '')
await browser.close()
