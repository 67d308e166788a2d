import { deliveryCsv, expect, test } from './fixtures'
import { lookAt } from './look'
import type { OpenRoom } from './rooms'

test('every screen can be read and used, in both themes; none scrolls sideways, no word is cut off', async ({ driver, server, page }) => {
  const findings: string[] = []
  const look = async (): Promise<void> => void findings.push(...(await lookAt(page)))
  const crate = await driver.takeInCrate('Hollow Reed Hatchery', deliveryCsv)
  await driver.openUnpack()
  await driver.oneDead()
  await driver.toggleLook('Water')
  await look()
  await driver.recordBag()
  await driver.theSame(2)
  await driver.allSent()
  await page.getByRole('button', { name: 'other fish' }).click()
  await look()
  const setup = ['', '/room', '/rack', '/book', '/book/changes', '/tanks', '/species/new', '/tanks/import', '/feeds', '/limits', '/holds', '/schools', '/people', '/devices', '/audit', '/keeping'].map((page) => `/setup${page}`)
  for (const path of ['/today', '/today/calendar', '/desk/gravity', '/desk/dose', '/desk/bag', '/bench', '/crates', crate, `${crate}/edit`, `${crate}/preparation`, `${crate}/tanks`, `${crate}/claim`, '/crates/new', ...setup, '/room', '/room/R1-01', '/plans', '/kitchen', '/kitchen/larder', '/kitchen/otherwise', '/holds', '/regimens', '/regimens/new?kind=transfer', '/regimens/new?kind=low salinity', '/regimens/dose', '/outcomes', '/outcomes?by=species&of=late gasping', '/outcomes/fish?group=Hollow Reed Hatchery', '/outcomes/alarms', '/outcomes/trials', '/outcomes/review', '/outcomes/money', '/chores', '/chores/new', '/handover', '/probes', '/as-of', '/arrange', '/labels', '/scan']) {
    await driver.goto(path)
    // The stream of changes never ends, so no network is ever idle: the heading says that the page is there.
    await expect(page.locator('main h1')).toBeVisible()
    await look()
  }
  await fillKitchen(server)
  for (const path of ['/kitchen', '/kitchen/larder', '/chores', '/today']) {
    await driver.goto(path)
    await expect(page.locator('main h1')).toBeVisible()
    await expect(page.locator('.record').first()).toBeVisible()
    await look()
  }
  await driver.goto('/bench')
  await page.getByRole('link', { name: /^Harlequin rasbora/ }).first().click()
  await driver.judged()
  await driver.press('Vessel and school')
  await look()
  await driver.startRun()
  await driver.doneStep()
  await look()
  await driver.doneStep()
  await expect(page.getByRole('region', { name: 'Count out' })).toBeVisible()
  await look()
  await driver.goto('/room/R1-01')
  await expect(page.locator('main h1')).toBeVisible()
  await page.keyboard.press('/')
  await page.getByPlaceholder('tank, lot, crate, species, screen').fill('r1')
  await expect(page.getByRole('option', { name: /R1-08/ })).toBeVisible()
  await look()
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: /fish born here/ }).click()
  await page.getByLabel('Species').fill('Cherry barb')
  await page.getByRole('button', { name: 'Begin a lot' }).click()
  await expect(page.getByText('Cherry barb born here')).toBeVisible()
  await page.getByRole('button', { name: 'sold', exact: true }).click()
  // Its code is fetched with the first one that opens.
  await expect(page.getByRole('dialog')).toBeVisible()
  await look()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toBeHidden()
  await driver.openAction('Cherry barb', 'lost')
  await driver.openEntry('born here')
  await look()
  await driver.openRound()
  await driver.answer('none ate')
  await driver.answer('count')
  await look()
  await driver.answer('other loss')
  await look()
  await driver.goto('/crates')
  await page.getByRole('button', { name: /^recording/ }).click()
  await look()
  await page.getByRole('button', { name: /^Imre / }).click()
  await look()
  await page.context().clearCookies()
  await driver.goto('/')
  await page.getByRole('button', { name: 'Open this device' }).click()
  await look()
  expect(findings).toEqual([])
})

test('the look can find what it looks for', async ({ driver, page }) => {
  const planted: [html: string, found: RegExp][] = [
    ['<p style="color: #eee; background: #fff">too pale</p><button></button>', /color-contrast[^]*button-name|button-name[^]*color-contrast/],
    ['<p style="color-scheme: light dark; color: light-dark(#000, #333); background: light-dark(#fff, #222)">dim in the dark alone</p>', /dark color-contrast/],
    ['<p style="width: 3000px">wide</p>', /scrolls sideways/],
    ['<p style="width: 60px; overflow: hidden; white-space: nowrap">too long for its box</p>', /cut off: "too long/],
    ['<p style="width: 60px; height: 20px; overflow: hidden">too long for its box</p>', /cut off: "too long/],
  ]
  await driver.goto('/crates')
  await expect(page.getByRole('heading', { name: 'Crates', exact: true })).toBeVisible()
  for (const [html, found] of planted) {
    await page.locator('main').evaluate((main, canary) => main.insertAdjacentHTML('beforeend', `<div id="canary">${canary}</div>`), html)
    expect((await lookAt(page)).join('\n')).toMatch(found)
    await page.locator('#canary').evaluate((canary) => canary.remove())
  }
  expect(await lookAt(page)).toEqual([])
})

/** Something to feed with, somebody to feed, and a chore. */
async function fillKitchen(server: OpenRoom): Promise<void> {
  for (const [name, kind, servesAs] of [['Larvae', 'frozen', 'mosquito larvae'], ['Fine dry', 'dry', 'fine granules']] as const)
    await server.post('/api/setup/foods', { values: { name, kind, servesAs: [servesAs], thawMinutes: null, pieceG: null, dryPercent: null, proteinPercent: null, mouths: [], outMinutes: null, note: null } })
  const { tanks } = await server.get<{ tanks: { id: string; code: string }[] }>('/api/room')
  const tankId = tanks.find(({ code }) => code === 'R1-07')?.id ?? ''
  await server.post(`/api/tanks/${tankId}/additions`, { species: 'Cherry barb', quantity: 30, how: 'brought-in', note: null, happenedAtMs: Date.now() - 30 * 86_400_000 })
  const place = { id: 'a', tankId, systemId: null, label: null, uses: [{ item: 'felt bag', count: 2 }], litres: null, fromTankId: null, fish: [] }
  await server.post('/api/chores', { name: 'Filter bags', kind: 'filter bags', rule: { kind: 'every', days: 3, weekdays: [], fish: null, earlyDays: 0 }, startOn: '2026-01-01', places: [place], note: null, version: 0 })
}
