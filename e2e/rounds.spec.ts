import { expect, test } from './fixtures'
import type { Room } from './room'

const dayMs = 86_400_000

/** Fish that have been here for a month, so that nothing is usual any more. */
const settled = (server: Room, tankId: string, species: string, quantity: number, atMs = Date.now()) => server.post(`/api/tanks/${tankId}/additions`, { species, quantity, how: 'brought-in', note: null, happenedAtMs: atMs - 30 * dayMs })
const tanksOf = async (server: Room): Promise<{ id: string; code: string; fish: number }[]> => (await server.get<{ tanks: { id: string; code: string; fish: number }[] }>('/api/room')).tanks

test('a quiet round over 64 tanks costs a touch for each', async ({ driver, server }, { project }) => {
  test.skip(project.name !== 'phone', 'touches are the same everywhere')
  const begun = await tanksOf(server)
  await server.post('/api/systems', { name: 'Long rack', water: 'fresh', sharing: 'one water', sumpL: 900, rack: 'L1', tankCount: 64 - begun.length, perShelf: 12, tankKind: 'glass', netVolumeL: 60 })
  for (const { id } of await tanksOf(server)) await settled(server, id, 'Cherry barb', 5)
  await driver.goto('/room')
  driver.touches = 0
  await driver.openRound()
  for (let stop = 1; stop <= 64; stop += 1) {
    const code = await driver.cardCode()
    await driver.check()
    if (stop < 64) await expect.poll(() => driver.cardCode()).not.toBe(code)
  }
  await driver.roundDone()
  await driver.allSent()
  console.log(`touches for a quiet round over 64 tanks: ${driver.touches}`)
  expect(driver.touches).toBeLessThanOrEqual(66)
})

test('what is not well: kind by kind, a clear sign on one lot, a reading, a count; another device goes on, and the tank says what it means', async ({ driver, server, page, anotherDevice }) => {
  const [first, second, third] = (await tanksOf(server)).filter(({ code }) => code.startsWith('R1'))
  await settled(server, first?.id ?? '', 'Cherry barb', 10)
  await settled(server, first?.id ?? '', 'Kuhli loach', 6)
  for (const tank of [second, third]) await settled(server, tank?.id ?? '', 'Cherry barb', 8)
  await driver.goto('/rounds')
  await driver.cardFor('R1-01')
  await page.getByText('why this order').click()
  await expect(page.getByText(/^3 settled tanks/)).toBeVisible()

  await driver.answer('by kind')
  const sheet = page.getByRole('dialog')
  await sheet.getByRole('group', { name: 'How Cherry barb ate' }).getByRole('button', { name: 'none ate' }).click()
  await sheet.getByRole('button', { name: 'count Kuhli loach' }).click()
  await sheet.getByRole('textbox', { name: 'seen of Kuhli loach' }).fill('2')
  await sheet.getByRole('button', { name: 'Back to R1-01' }).click()
  await driver.answer('a sign')
  for (const name of [/^thin/, /^thin slight/, /^thin clear/]) await sheet.getByRole('button', { name }).click()
  await sheet.getByRole('group', { name: 'Whose is it: thin' }).getByRole('button', { name: /^Cherry barb/ }).click()
  await sheet.getByText('what it has been seen with').click()
  await expect(sheet.getByText('Not a diagnosis; several look alike.')).toBeVisible()
  await sheet.getByRole('button', { name: 'Back to R1-01' }).click()
  await driver.answer('more')
  await sheet.getByLabel('What was read').selectOption({ label: 'pH' })
  await sheet.getByRole('textbox', { name: /^Reading/ }).fill('7.4')
  await sheet.getByRole('button', { name: 'keep it' }).click()
  await expect(sheet.getByText('Recorded: pH 7.4.')).toBeVisible()
  await page.keyboard.press('Escape')
  await page.reload()
  await driver.cardFor('R1-01')
  await expect(page.getByText('Cherry barb: none ate, 2 Kuhli loach seen')).toBeVisible()
  await expect(page.getByText('Signs: thin clear on Cherry barb')).toBeVisible()
  await driver.check()
  await driver.allSent()

  const other = await anotherDevice()
  await other.goto('/rounds')
  await expect(other.page.getByText('1 of 3 checked')).toBeVisible()
  await other.check()
  await expect(other.page.getByText('2 of 3 checked')).toBeVisible()
  await other.allSent()
  await driver.goto('/room/R1-01')
  await expect(page.getByText('watch: look again today')).toBeVisible()
  await expect(page.getByText(/thin, clear in Cherry barb .* \(4\)/)).toBeVisible()
  await expect(page.getByText(/^2 of 6 Kuhli loach seen; these are hardly ever all seen: /)).toBeVisible()
})

test('fish that refuse for the fourth day: the round says so, and Today until somebody looks again', async ({ driver, server, page }) => {
  const [first] = (await tanksOf(server)).filter(({ code }) => code.startsWith('R1'))
  await settled(server, first?.id ?? '', 'Cherry barb', 10)
  for (const daysAgo of [3, 2, 1]) await server.post('/api/checks', { tankId: first?.id, roundNumber: 1, ate: 'none', signs: [], seen: null, note: null, replacesId: null, happenedAtMs: Date.now() - daysAgo * dayMs })
  await driver.goto('/rounds')
  await expect(page.getByText('ate none, 3rd day (7)')).toBeVisible()
  await driver.answer('none ate')
  await driver.check()
  await driver.allSent()
  await expect(page.getByRole('list', { name: 'Act now' })).toContainText('R1-01 act: now ate none, 4th day (9)')
  await driver.goto('/today')
  const acts = page.locator('section', { has: page.getByRole('heading', { name: /^Act now/ }) })
  await expect(acts).toContainText('R1-01 Cherry barb')
  await expect(acts).toContainText('Look again within 1 h')
})
