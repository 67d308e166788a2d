import { expect, test } from './fixtures'

test('sixty-four tanks and the day stand on one screen of a desk', async ({ driver, server, page }) => {
  const { tanks } = await server.get<{ tanks: unknown[] }>('/api/room')
  const racks: [string, number][] = [['R7', 12], ['R8', 10], ['R9', 9], ['S7', 6], ['S8', 6]]
  const sum = racks.reduce((total, [, count]) => total + count, tanks.length)
  for (const [rack, tankCount] of [...racks, ['S9', 64 - sum] as const]) await server.post('/api/systems', { name: `Fresh rack ${rack}`, water: 'fresh', sharing: 'one water', sumpL: 300, rack, tankCount, perShelf: 5, tankKind: 'glass', netVolumeL: 60 })
  await driver.goto('/room')
  await expect(page.getByRole('button', { name: 'All 64' })).toBeVisible()
  const below = await page.locator('.tank-spot').evaluateAll((spots) => spots.map((spot) => spot.getBoundingClientRect().bottom).filter((bottom) => bottom > window.innerHeight))
  expect(below).toEqual([])
  // Where they stand beside each other none covers another.
  const overlaps = await page.locator('.rack').evaluateAll((found) => {
    const boxes = found.map((rack) => rack.getBoundingClientRect())
    return boxes.flatMap((a, index) => boxes.slice(index + 1).filter((b) => a.left < b.right - 1 && b.left < a.right - 1 && a.top < b.bottom - 1 && b.top < a.bottom - 1)).length
  })
  expect(overlaps).toBe(0)
  await driver.takeInCrate('Hollow Reed Hatchery', 'species,bags,per bag,tank\nCherry barb,2,8,R1-01')
  await driver.goto('/today')
  await expect(page.getByRole('heading', { name: /^Holds/ })).toBeVisible()
  expect(await page.evaluate(() => document.documentElement.scrollHeight - window.innerHeight)).toBeLessThanOrEqual(0)
})

test('what is printed is the sheet alone', async ({ driver, page }) => {
  const crate = await driver.takeInCrate('Hollow Reed Hatchery', 'species,bags,per bag,tank\nCherry barb,2,8,R1-01')
  await driver.goto(`${crate}/preparation`)
  const step = page.locator('.steps .step').first()
  await expect(step).toBeVisible()
  await page.emulateMedia({ media: 'print' })
  await expect(step).toBeVisible()
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
  await expect(page.getByRole('navigation')).toHaveCount(0)
  await expect(page.locator('body')).toHaveCSS('background-color', 'rgb(255, 255, 255)')
  // A calculation has the width that the list of its neighbours had.
  await driver.goto('/desk/gravity')
  const sheet = await page.getByRole('heading', { level: 1 }).locator('xpath=ancestor::main').boundingBox()
  const source = await page.getByText('valid for').locator('xpath=ancestor::dl').boundingBox()
  expect((source?.width ?? 0) / (sheet?.width ?? Infinity)).toBeGreaterThan(0.9)
})
