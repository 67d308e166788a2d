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
    expect(findings).toEqual([])
  })
}

test('the keyboard alone does the thread', async ({ driver, server, page, isMobile }) => {
  test.skip(isMobile, 'a phone has no keyboard')
  await driver.goto('/crates/new')
  const tabTo = async (name: RegExp | string): Promise<void> => {
    const target = page.getByRole('textbox', { name }).or(page.getByRole('combobox', { name })).or(page.getByRole('button', { name })).or(page.getByRole('link', { name })).first()
    await expect(target).toBeVisible()
    for (let tries = 0; tries < 120; tries += 1) {
      if (await target.evaluate((element) => element === document.activeElement)) return
      await page.keyboard.press('Tab')
    }
    throw new Error(`Tab never reaches ${name}`)
  }
  await tabTo('Supplier')
  await page.keyboard.type('Hollow Reed Hatchery')
  await tabTo(/^or pasted/)
  await page.keyboard.insertText('species,bags,per bag,tank\nCherry barb,4,8,R1-01\nKuhli loach,1,12,R1-02')
  await tabTo('Read the list')
  await page.keyboard.press('Enter')
  await tabTo(/^Take in/)
  await page.keyboard.press('Enter')
  await tabTo(/^unpack /)
  await page.keyboard.press('Enter')
  await driver.bagInHand(1)
  await page.keyboard.press('d')
  await page.keyboard.press('w')
  await page.keyboard.press('Enter')
  await driver.bagInHand(2)
  await page.keyboard.press('s')
  await tabTo('2')
  await page.keyboard.press('Enter')
  await driver.bagInHand(4)
  await page.keyboard.press('u')
  await driver.bagInHand(2)
  await page.keyboard.press('Enter')
  await page.keyboard.press('Enter')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Enter')
  await driver.bagInHand(5)
  await page.keyboard.press('1')
  await page.keyboard.press('1')
  await page.keyboard.press('Enter')
  await tabTo(/^Place all/)
  await page.keyboard.press('Enter')
  await driver.allPlaced()
  await driver.allSent()
  expect(await server.stock()).toEqual({ 'R1-01': { 'Cherry barb': 7 + 8 + 8 + 7 }, 'R1-02': { 'Kuhli loach': 11 } })
  await tabTo('Rounds')
  await page.keyboard.press('Enter')
  await driver.cardFor('R1-01')
  await page.keyboard.press('Enter')
  await driver.cardFor('R1-02')
  await page.keyboard.press('Enter')
  await driver.roundDone()
})
