import { expect, test } from './fixtures'
import type { Room } from './room'

const dayMs = 86_400_000

/** Seven lots of one kind in the first tank, the newest three days in the house; and six loaches. */
async function sevenLots(server: Room): Promise<string> {
  const { tanks } = await server.get<{ tanks: { id: string; code: string }[] }>('/api/room')
  const id = tanks.find(({ code }) => code === 'R1-01')?.id ?? ''
  const add = (species: string, quantity: number, daysAgo: number) => server.post(`/api/tanks/${id}/additions`, { species, quantity, how: 'brought-in', note: null, happenedAtMs: Date.now() - daysAgo * dayMs })
  for (const [quantity, daysAgo] of [[9, 80], [8, 60], [7, 45], [6, 30], [5, 20], [4, 9], [3, 3]] as const) await add('Cherry barb', quantity, daysAgo)
  await add('Kuhli loach', 6, 12)
  return id
}

interface Entry {
  kind: string
  quantity: number
  lotCode: string
  pool: { how: string; shares: { lotCode: string; share: number }[] } | null
}

test('seven lots fit the screen as one row; one that died takes one touch, and is taken to be somebody', async ({ driver, server, page, isMobile }) => {
  await sevenLots(server)
  await driver.goto('/room/R1-01')
  const rows = page.locator('.stock')
  await expect(rows).toHaveCount(2)
  await expect(rows.first()).toContainText('42')
  await expect(rows.first()).toContainText('7 lots, newest 3 days')
  if (isMobile) await expect(rows.last().getByRole('button', { name: 'count …' })).toBeInViewport({ ratio: 1 })

  let touches = driver.touches
  await driver.died('Cherry barb')
  expect(driver.touches - touches).toBe(1)
  await expect(rows.first()).toContainText('41')
  await driver.allSent()
  const timeline = async (): Promise<Entry[]> => (await server.get<{ timeline: Entry[] }>('/api/tanks/R1-01')).timeline
  const [death] = await timeline()
  expect(death).toMatchObject({ kind: 'loss', quantity: 1, pool: { how: 'attributed' } })
  expect(death?.pool?.shares).toHaveLength(7)
  expect(death?.pool?.shares.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1)
  await expect(page.locator('.entry-words').first()).toHaveText(new RegExp(`^Cherry barb lost: found dead, taken to be ${death?.lotCode} \\(\\d+ %\\), not seen$`))

  touches = driver.touches
  await driver.sell('Cherry barb', '1')
  expect(driver.touches - touches).toBe(2)
  touches = driver.touches
  await driver.sell('Cherry barb', '10 and more', '14')
  expect(driver.touches - touches).toBe(3)
  await expect(rows.first()).toContainText('26')

  await page.getByRole('button', { name: 'take it back' }).click()
  await expect(rows.first()).toContainText('40')
  await page.getByRole('button', { name: 'take it back' }).click()
  await page.getByRole('button', { name: 'take it back' }).click()
  await expect(rows.first()).toContainText('42')
  await driver.allSent()
  expect((await server.get<{ stock: { species: string; quantity: number; expected: number }[] }>('/api/tanks/R1-01')).stock.filter(({ species }) => species === 'Cherry barb').map(({ quantity, expected }) => [quantity, expected / 1_000_000])).toEqual([9, 8, 7, 6, 5, 4, 3].map((fish) => [fish, fish]))
})

test('whoever knows the lot says so, and is believed whatever the books had thought', async ({ driver, server, page }) => {
  await sevenLots(server)
  await driver.goto('/room/R1-01')
  await driver.openAction('Cherry barb', 'lost')
  await driver.type('How many', '5')
  await page.getByText('which lot, if somebody knows').click()
  // The newest lot has three: five of it were seen, so two stood in the books under other names.
  await page.getByRole('group', { name: 'Lot' }).getByRole('button').last().click()
  await page.getByRole('button', { name: 'Record the loss' }).click()
  await expect(page.locator('.stock').first()).toContainText('37')
  await expect(page.locator('.stock').first()).toContainText('6 lots, newest 9 days')
  const { timeline } = await server.get<{ timeline: Entry[] }>('/api/tanks/R1-01')
  expect(timeline.filter(({ kind }) => kind === 'loss')).toMatchObject([{ quantity: 5, pool: { how: 'seen' } }])
  await driver.openEntry('Cherry barb lost')
  await page.locator('.entry-group .entry-line').first().click()
  await driver.takeBack()
  await expect(page.locator('.stock').first()).toContainText('7 lots, newest 3 days')
})

test('on a round a death is one touch on the kind of fish', async ({ driver, server, page }) => {
  await sevenLots(server)
  await driver.goto('/rounds')
  await driver.cardFor('R1-01')
  await page.getByRole('button', { name: '1 died: Cherry barb' }).click()
  await expect(page.locator('.check-stock')).toContainText('41 Cherry barb')
  await page.getByRole('button', { name: 'take it back' }).click()
  await expect(page.locator('.check-stock')).toContainText('42 Cherry barb')
})

test('fish that nobody saw dead come out of the filter: found again in two touches, and taken back', async ({ driver, server, page }) => {
  await sevenLots(server)
  await driver.goto('/room/R1-01')
  await driver.loseFish('Cherry barb', 3, 'not found')
  await expect(page.getByText('3 Cherry barb written off, not seen dead')).toBeVisible()
  const touches = driver.touches
  await driver.touch(page.getByRole('button', { name: 'found again' }))
  await driver.touch(page.getByRole('dialog').getByRole('button', { name: '2', exact: true }))
  expect(driver.touches - touches).toBe(2)
  await expect(page.getByText('1 Cherry barb written off, not seen dead')).toBeVisible()
  await expect(page.locator('.stock').first()).toContainText('41')
  await page.getByRole('button', { name: 'take it back' }).click()
  await expect(page.getByText('3 Cherry barb written off, not seen dead')).toBeVisible()
})
