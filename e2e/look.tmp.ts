import { chromium } from '@playwright/test'
import { Driver } from './driver'
const args = ['--no-sandbox', '--disable-background-networking', '--disable-gpu', '--no-first-run']
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args })
const which = process.argv[2] ?? 'phone'
const dark = process.argv.includes('dark')
const context = await browser.newContext(which === 'phone' ? { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true, timezoneId: 'UTC', colorScheme: dark ? 'dark':'light' } : { viewport: { width: 1280, height: 800 }, timezoneId: 'UTC', colorScheme: dark ? 'dark':'light' })
const page = await context.newPage()
page.on('console', (m) => { if (m.type() === 'error') console.log('console:', m.text()) })
page.on('pageerror', (e) => console.log('pageerror', e))
const d = new Driver(page, 'http://127.0.0.1:4310')
await d.signIn({ name: 'Imre', passphrase: 'lantern over the quay', pin: '1111' })
for (const path of (process.argv[3] ?? '/crates').split(',')) {
  await d.goto(path.replace('OPEN', (await page.evaluate(async () => (await (await fetch('/api/crates')).json()).crates[0].id))))
  await page.waitForTimeout(700)
  await page.screenshot({ path: `/tmp/shots/${which}${dark ? '-dark' : ''}${path.replaceAll('/', '_').replace(/\?.*/, '')}.png` })
}
await browser.close()
