import { expect, test } from './fixtures'

test('without a camera the page says why, and the code on the glass does as well', async ({ driver, page }) => {
  // Over plain http a browser has no camera to offer.
  await page.addInitScript(() => Object.defineProperty(navigator, 'mediaDevices', { value: undefined }))
  await driver.goto('/scan')
  await expect(page.getByText(/browsers allow it over TLS or on the machine itself only/)).toBeVisible()
  await page.getByLabel('Code on the glass').fill('zz-99')
  await driver.press('open it')
  await expect(page.getByText('There is no tank ZZ-99 in this room')).toBeVisible()
  await page.getByLabel('Code on the glass').fill('r1-05')
  await page.keyboard.press('Enter')
  await page.waitForURL(/\/room\/R1-05$/)
})
