import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { deliveryCsv, expect, test } from './fixtures'

const seriousIn = async (page: Page): Promise<string[]> => {
  await page.evaluate(() => Promise.all(document.getAnimations().map((animation) => animation.finished.catch(() => null))))
  const { violations } = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice']).analyze()
  return violations.filter(({ impact }) => impact === 'serious' || impact === 'critical').map(({ id, nodes }) => `${page.url()} ${id}: ${nodes[0]?.html}`)
}

for (const theme of ['light', 'dark'] as const) {
  test(`no serious finding on any screen, ${theme}`, async ({ driver, page }) => {
    await page.emulateMedia({ colorScheme: theme })
    const crate = await driver.takeInCrate('Hollow Reed Hatchery', deliveryCsv)
    await driver.openUnpack()
    await driver.oneDead()
    await driver.toggleLook('Water')
    const findings = await seriousIn(page)
    await driver.recordBag()
    await driver.theSame(2)
    await driver.allSent()
    await page.getByRole('button', { name: 'other fish' }).click()
    findings.push(...(await seriousIn(page)))
    for (const path of ['/crates', crate, '/crates/new', '/setup', '/room', '/room/R1-01']) {
      await driver.goto(path)
      await page.waitForLoadState('networkidle')
      findings.push(...(await seriousIn(page)))
    }
    await page.getByRole('button', { name: /fish born here/ }).click()
    await page.getByLabel('Species').fill('Cherry barb')
    await page.getByRole('button', { name: 'Begin a lot' }).click()
    await expect(page.getByText('Cherry barb born here')).toBeVisible()
    await driver.openAction('Cherry barb', 'lost')
    await driver.openEntry('born here')
    findings.push(...(await seriousIn(page)))
    await driver.openRound()
    await driver.answer('none ate')
    await driver.answer('count')
    findings.push(...(await seriousIn(page)))
    await driver.answer('a death')
    findings.push(...(await seriousIn(page)))
    await driver.goto('/crates')
    await page.getByRole('button', { name: /^recording/ }).click()
    findings.push(...(await seriousIn(page)))
    await page.getByRole('button', { name: /^Imre / }).click()
    findings.push(...(await seriousIn(page)))
    await page.context().clearCookies()
    await driver.goto('/')
    await page.getByRole('button', { name: 'Open this device' }).click()
    findings.push(...(await seriousIn(page)))
    expect(findings).toEqual([])
  })
}

test('the check for findings can fail', async ({ driver, page }) => {
  await driver.goto('/crates')
  await page.evaluate(() => document.querySelector('main')?.insertAdjacentHTML('beforeend', '<p style="color: #eee; background: #fff">too pale</p><button></button>'))
  expect((await seriousIn(page)).join()).toMatch(/color-contrast.*button-name|button-name.*color-contrast/)
})
