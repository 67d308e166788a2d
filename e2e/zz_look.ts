import { chromium } from '@playwright/test'
import { Driver } from './driver'
const [, , path = '/today', name = 'shot', width = '1280', height = '800', full = ''] = process.argv
async function main() {
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] })
  const context = await browser.newContext({ viewport: { width: Number(width), height: Number(height) }, baseURL: 'http://127.0.0.1:4317', hasTouch: Number(width) < 900 })
  const page = await context.newPage()
  const driver = new Driver(page, 'http://127.0.0.1:4317')
  await page.goto('/')
  await driver.signIn({ name: 'Imre', passphrase: 'lantern over the quay', pin: '1111' })
  for (const each of path.split(',')) { await page.goto(each); await page.waitForTimeout(2500) }
  if (full === 'print') await page.emulateMedia({ media: 'print' })
  await page.screenshot({ path: `/tmp/w/${name}.png`, fullPage: full === 'full' || full === 'print' })
  await browser.close()
}
void main()
