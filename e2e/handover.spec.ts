import { expect, test } from './fixtures'
import { lead } from './room'

const [hourMs, dayMs] = [3_600_000, 86_400_000]
/** Eight in the evening of the next day by the room's clock. */
const eveningMs = Math.floor(Date.now() / dayMs) * dayMs + dayMs + 20 * hourMs

test('the late one loses fish, sees signs and leaves a word; the morning one reads it on one page, ticks it, and has what is open', async ({ driver, server, page }) => {
  const { tanks } = await server.get<{ tanks: { id: string; code: string }[] }>('/api/room')
  const tankId = tanks.find(({ code }) => code === 'R1-01')?.id ?? ''
  await server.post('/api/staff', { name: 'Oona', role: 'keeper', pin: '2222', passphrase: null })
  await server.post(`/api/tanks/${tankId}/additions`, { species: 'Cherry barb', quantity: 9, how: 'brought-in', note: null, happenedAtMs: Date.now() - 30 * dayMs })
  await server.standAt(eveningMs)
  await driver.goto('/room/R1-01')
  await driver.changeRecorder({ name: 'Oona', pin: '2222' })
  await driver.loseFish('Cherry barb', 2, 'found dead')
  await driver.allSent()
  await driver.goto('/handover')
  await page.getByRole('button', { name: 'Leave it' }).click()
  await expect(page.getByText('Write what those who come next should know')).toBeVisible()
  await driver.fill('For those who come next', 'R1-01 first tomorrow')
  await page.getByRole('button', { name: 'Leave it' }).click()
  await expect(page.getByText('R1-01 first tomorrow')).toBeVisible()
  await server.standAt(eveningMs + 12 * hourMs)
  await driver.goto('/today')
  await driver.changeRecorder(lead)
  await page.getByRole('link', { name: /^Read what happened since you were here/ }).click()
  await expect(page.locator('.handover')).toContainText('R1-01: 2 Cherry barb')
  await expect(page.locator('.handover')).toContainText('found dead; Oona')
  await expect(page.getByText('R1-01 first tomorrow')).toBeVisible()
  // Opened from there, the way back is the page itself, unread still.
  await page.reload()
  await driver.touch(driver.act())
  await expect(page.locator('.lead-sentence')).toHaveText('Read, Imre.')
  await driver.goto('/today')
  await expect(page.locator('main h1')).toBeVisible()
  await expect(page.getByRole('link', { name: /^Read what happened/ })).toHaveCount(0)
  await driver.goto('/handover')
  await expect(page.getByText(/^Nobody else recorded anything since you were here/)).toBeVisible()
})

test('a probe that stops moving is said to have failed, on its page and on Today, and is marked as simulated', async ({ driver, server, page }) => {
  await server.standAt(eveningMs)
  await driver.goto('/probes')
  await expect(page.getByText('No probe hangs in a tank.')).toBeVisible()
  await expect(page.getByText('These probes are simulated')).toBeVisible()
  await page.getByRole('button', { name: 'Hang it up' }).click()
  await expect(page.getByText('Name is missing')).toBeVisible()
  await driver.fill('Name', 'Heater', true)
  await driver.choose('Tank', 'R1-01 (empty)')
  await driver.choose('What is wrong with this stand-in', 'is stuck')
  await page.getByRole('button', { name: 'Hang it up' }).click()
  await expect(page.locator('.probe-line')).toContainText('no answer yet')
  await page.getByRole('button', { name: 'Ask them now' }).click()
  await expect(page.locator('.probe-line')).toContainText('25.4 °C')
  for (let quarter = 1; quarter <= 30; quarter += 1) {
    await server.standAt(eveningMs + quarter * 0.25 * hourMs)
    await server.post('/api/probes/polls', {})
  }
  await page.reload()
  await expect(page.getByText('Heater failed: read by hand until then.')).toBeVisible()
  await expect(page.locator('.probe-line')).toContainText(/says 25\.4 °C and nothing else for .*: stuck/)
  await driver.goto('/today')
  await page.getByRole('link', { name: /R1-01 probe Heater stuck/ }).click()
  await expect(page.locator('main h1')).toHaveText('Probes')
})
