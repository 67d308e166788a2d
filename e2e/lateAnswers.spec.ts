import type { Page } from '@playwright/test'
import { expect, openedLine, test } from './fixtures'

/** Holds every request to a path back until it is let go. */
async function holdBack(page: Page, path: string): Promise<{ letGo: () => void }> {
  let letGo = (): void => undefined
  const gate = new Promise<void>((resolve) => (letGo = resolve))
  await page.route(path, async (route) => {
    await gate
    // A request that the page gave up meanwhile cannot go on.
    await route.continue().catch(() => undefined)
  })
  return { letGo }
}

test('whoever goes on while a plan is being kept stays where they went; the plan is there', async ({ driver, server, page }) => {
  const crate = await openedLine(server, { species: 'Honey gourami', count: 6, bags: 2, tank: 'R1-03' })
  await driver.goto(`/crates/${crate.id}/tanks`)
  await driver.press(/^6 Honey gourami/)
  await page.getByRole('button', { name: /^R1-05/ }).first().click()
  const { letGo } = await holdBack(page, '**/tank-choice')
  const kept = page.waitForResponse((answer) => answer.url().endsWith('/tank-choice') && answer.request().method() === 'PUT')
  await driver.press(/^Keep this plan/)
  await driver.openPage('Unpack')
  await expect(page).toHaveURL(/\/unpack$/)
  letGo()
  expect((await kept).status()).toBe(200)
  await expect(page.getByText('R1-05 6 Honey gourami')).toBeVisible()
  await expect(page).toHaveURL(/\/unpack$/)
  await driver.placeAll()
  await driver.allSent()
  expect(await server.stock()).toEqual({ 'R1-05': { 'Honey gourami': 6 } })
})

test('a form that was left before it was refused is not forgotten: the frame says so on whatever page it comes', async ({ driver, server, page }) => {
  const crate = await openedLine(server, { species: 'Honey gourami', count: 6, bags: 2, tank: 'R1-03' })
  await driver.goto(`/crates/${crate.id}/tanks`)
  await driver.press(/^6 Honey gourami/)
  await page.getByRole('button', { name: /^R1-05/ }).first().click()
  const { letGo } = await holdBack(page, '**/tank-choice')
  await driver.press(/^Keep this plan/)
  await driver.openPage('Unpack')
  await expect(page).toHaveURL(/\/unpack$/)
  // Somebody else closes the crate meanwhile.
  const { version } = await server.get<{ version: number }>(`/api/crates/${crate.id}`)
  await server.post(`/api/crates/${crate.id}/closing`, { because: 'it went back', version })
  letGo()
  const tray = page.getByRole('alert').filter({ hasText: 'Not recorded: tanks of the crate.' })
  await expect(tray).toBeVisible()
  await tray.getByRole('button', { name: 'seen' }).click()
  await expect(tray).toBeHidden()
})

test('a touch on the way to another page of a crate is not lost when what the crate says comes new meanwhile', async ({ driver, server, page }) => {
  // So narrow that one sentence more is one line more.
  await page.setViewportSize({ width: 280, height: 700 })
  const { id } = await server.post<{ id: string }>('/api/crates', { supplier: 'Hollow Reed', expectedAtMs: null, packedAtMs: null, lines: [{ species: 'Honey gourami', count: 6, bags: 1, perBag: null, tankId: null }] })
  await driver.goto(`/crates/${id}`)
  await expect(page.getByText('1 line has no tank yet.')).toBeVisible()
  await driver.openPage('Tanks')
  await driver.press(/^6 Honey gourami/)
  await page.getByRole('button', { name: /^R1-05/ }).first().click()
  // The page of the crate begins with what this device knew of it.
  const { letGo } = await holdBack(page, `**/api/crates/${id}`)
  await driver.press(/^Keep this plan/)
  await expect(page.getByText('1 line has no tank yet.')).toBeVisible()
  await page.getByRole('link', { name: 'Unpack', exact: true }).hover()
  await page.mouse.down()
  letGo()
  await expect(page.getByText('1 line has no tank yet.')).toBeHidden()
  await page.mouse.up()
  await expect(page).toHaveURL(/\/unpack$/)
})

test('a tank chosen by hand ends the search: no better answer that comes late takes it back', async ({ driver, server, page }) => {
  const crate = await openedLine(server, { species: 'Honey gourami', count: 6, bags: 2, tank: 'R1-03' })
  await driver.goto(`/crates/${crate.id}/tanks`)
  const { letGo } = await holdBack(page, '**/tank-search')
  await driver.press('Suggest tanks')
  await expect(page.getByRole('progressbar', { name: 'search' })).toBeVisible()
  await driver.press(/^6 Honey gourami/)
  await page.getByRole('button', { name: /^R1-07/ }).first().click()
  await expect(page.getByRole('button', { name: 'Suggest tanks' })).toBeVisible()
  letGo()
  await expect(page.getByRole('progressbar', { name: 'search' })).toBeHidden()
  await expect(page.getByRole('button', { name: /^6 Honey gourami/ })).toContainText('R1-07')
  await driver.press(/^Keep this plan/)
  await expect(page.getByRole('heading', { name: /^Crate 1/ })).toBeVisible()
  const { lines } = await server.get<{ lines: { tank: { code: string } | null }[] }>(`/api/crates/${crate.id}`)
  expect(lines.map(({ tank }) => tank?.code)).toEqual(['R1-07'])
})

test('what is proven of a suggestion is not said of a plan that was changed by hand', async ({ driver, server, page }) => {
  const crate = await openedLine(server, { species: 'Honey gourami', count: 6, bags: 2, tank: 'R1-03' })
  await driver.goto(`/crates/${crate.id}/tanks`)
  await driver.press('Suggest tanks')
  await expect(page.getByText(/Proven: no sound plan costs less/)).toBeVisible()
  await driver.press(/^6 Honey gourami/)
  await page.getByRole('button', { name: 'no tank yet' }).click()
  await expect(page.getByText(/^1 line has no tank/)).toBeVisible()
  await expect(page.getByText(/Proven/)).toBeHidden()
})
