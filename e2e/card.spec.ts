import jsQR from 'jsqr'
import sharp from 'sharp'
import { expect, test } from './fixtures'

interface Tank {
  id: string
  code: string
}

test('a take-along card: what is sold goes along in words and as a code, and the next room reads the code as a packing list', async ({ driver, server, page }) => {
  const { tanks } = await server.get<{ tanks: Tank[] }>('/api/room')
  const id = tanks.find(({ code }) => code === 'R1-01')?.id
  await server.post(`/api/tanks/${id}/additions`, { species: 'Cherry barb', quantity: 12, how: 'born', note: null, happenedAtMs: Date.now() - 86_400_000 })
  await driver.goto('/room/R1-01')
  await driver.sell('Cherry barb', '6')
  await page.getByRole('link', { name: 'take-along card' }).click()
  await page.getByLabel('Temperature').fill('24,5')
  await page.getByLabel('pH').fill('7.4')
  await page.getByLabel('How we would take them in').fill('float 15 min, net over')
  const card = page.getByRole('region', { name: 'The card' })
  await expect(card).toContainText('6 Cherry barb, captive bred · 1 bag')
  await expect(card).toContainText('Our water: 24.5 °C, pH 7.4')
  await expect(card).toContainText('Held here: not held')
  await expect(card).toContainText('no promise of health')

  // As a camera sees it.
  const code = card.getByRole('img', { name: /as a code$/ })
  await expect(code).toBeVisible()
  const picture = await sharp(await code.screenshot()).resize({ width: 900, kernel: 'nearest' }).ensureAlpha().raw().toBuffer({ resolveWithObject: true })
  const read = jsQR(new Uint8ClampedArray(picture.data), picture.info.width, picture.info.height)
  expect(JSON.parse(read?.data ?? '{}')).toMatchObject({ format: 'daily-crate/packing-list', version: 2, water: { tempC: 24.5, ph: 7.4 } })

  await driver.goto('/crates/new')
  await page.getByLabel(/^or pasted/).fill(read?.data ?? '')
  await page.getByRole('button', { name: 'Read the list' }).click()
  await expect(page.getByText('Their water: 24.5 °C, pH 7.4.')).toBeVisible()
  await expect(page.getByText('They suggest: float 15 min, net over.')).toBeVisible()
  await page.getByRole('button', { name: /^Take/ }).click()
  await expect(page.getByText('Their water, as their list says: 24.5 °C, pH 7.4.')).toBeVisible()
})
