import type { Page } from '@playwright/test'
import { expect, test } from './fixtures'
import type { OpenRoom } from './rooms'

const [hourMs, dayMs] = [3_600_000, 86_400_000]
/** Nine in the morning of the next day by the room's clock. */
const nineMs = Math.floor(Date.now() / dayMs) * dayMs + dayMs + 9 * hourMs
const noFood = { thawMinutes: null, pieceG: null, dryPercent: null, proteinPercent: null, mouths: [], outMinutes: null, note: null }
const foods = [['Larvae', 'frozen', 'mosquito larvae'], ['Fleas', 'frozen', 'water fleas'], ['Fine dry', 'dry', 'fine granules'], ['Mysis', 'frozen', 'mysis']] as const

/** Ten barbs and six grammas that settled long ago, and the foods of the house. */
async function furnish(server: OpenRoom): Promise<Map<string, string>> {
  await server.standAt(nineMs)
  const ids = new Map<string, string>()
  for (const [name, kind, servesAs] of foods) ids.set(name, (await server.post<{ id: string }>('/api/setup/foods', { values: { ...noFood, name, kind, servesAs: [servesAs] } })).id)
  const { tanks } = await server.get<{ tanks: { id: string; code: string }[] }>('/api/room')
  const idOf = (code: string): string => tanks.find((tank) => tank.code === code)?.id ?? ''
  for (const [code, species, quantity] of [['R1-01', 'Cherry barb', 10], ['M1-02', 'Royal gramma', 6]] as const) await server.post(`/api/tanks/${idOf(code)}/additions`, { species, quantity, how: 'brought-in', note: null, happenedAtMs: nineMs - 30 * dayMs })
  return ids
}
const row = (page: Page, words: string | RegExp) => page.locator('.tick-row').filter({ hasText: words })
const tick = (page: Page, words: string | RegExp) => row(page, words).getByRole('button').first()

test('a feed is what a table by hand says, is ticked off with one thumb, and comes off the stock', async ({ driver, server, page, isMobile }) => {
  const ids = await furnish(server)
  for (const name of ids.keys()) await server.post(`/api/foods/${ids.get(name)}/stock`, { why: 'counted', pieces: 10 })
  await driver.goto('/kitchen')
  // By hand: 10 x 0.02 x 0.6^0.8 = 0.1329 g dry; larvae 0.4 at 10 % dry, fleas 0.2 at 8 %, fine dry 0.4 at 92 %. 6 x 0.02 x 2^0.8 = 0.2089 g dry, all of it mysis at 14 %.
  await expect(row(page, 'R1').locator('.kitchen-bowl')).toHaveText('plain Fine dry 0.06 g, Fleas 0.33 g, Larvae 0.53 g')
  await expect(row(page, 'M1').locator('.kitchen-bowl')).toHaveText('plain Mysis 1.5 g')
  // Thawed 60 and 40 min, strained 10 min, before ten; on the five minutes.
  await expect(page.locator('.tick-row').filter({ hasText: 'cube' }).locator('.tick-when')).toHaveText(['08:50', '09:10', '09:10'])
  await expect(page.locator('.lead-sentence')).toHaveText('Mysis out of the freezer now.')
  const before = driver.touches
  await driver.touch(driver.act())
  await expect(page.locator('.lead-sentence')).toHaveText('Fleas, Larvae out of the freezer at 09:10.')
  await driver.touch(driver.act())
  await expect(driver.act()).toContainText(/(R1|M1) is fed/)
  await driver.allSent()
  await page.reload()
  await expect(tick(page, 'Mysis 1 cube')).toHaveAttribute('aria-pressed', 'true')
  await driver.touch(driver.act())
  await driver.touch(driver.act())
  await driver.touch(driver.act())
  await expect(page.locator('.lead-sentence')).toHaveText('All is fed and cleared.')
  await driver.allSent()
  if (isMobile) console.log(`a feed of two racks: ${driver.touches - before} touches`)
  const larder = async () => Object.fromEntries((await server.get<{ foods: { food: string; pieces: number }[] }>('/api/kitchen/larder')).foods.map(({ food, pieces }) => [food, pieces]))
  expect(await larder()).toEqual({ Larvae: 9, Fleas: 9, Mysis: 9, 'Fine dry': 9 })
  // Touched by mistake: the row takes it back, and the cube is there again.
  await tick(page, 'Mysis 1 cube').click()
  await expect(tick(page, 'Mysis 1 cube')).toHaveAttribute('aria-pressed', 'false')
  await driver.allSent()
  expect(await larder()).toMatchObject({ Mysis: 10 })
})

test('what one device ticks is ticked on the other; fish that are fed otherwise are said loudly', async ({ driver, server, page, anotherDevice }) => {
  await furnish(server)
  const other = await anotherDevice({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true })
  await other.goto('/kitchen')
  await driver.goto('/kitchen')
  await expect(page.getByText('Nobody has counted the foods yet')).toBeVisible()
  await tick(page, 'Mysis').click()
  await expect(tick(other.page, 'Mysis')).toHaveAttribute('aria-pressed', 'true')
  await driver.goto('/kitchen/otherwise?tank=R1-01')
  await driver.choose('How', 'without food', true)
  await page.getByLabel('Lot', { exact: true }).selectOption({ index: 1 })
  await page.getByRole('button', { name: 'Feed so from today' }).click()
  // Nobody goes without food for good: the days are asked for, and what was chosen stays.
  await expect(page.getByText('Say for how many days, at most 14')).toBeVisible()
  await expect(page.getByLabel('How', { exact: true })).toHaveValue('without food')
  await driver.fill('For how many days', '2')
  await page.getByRole('button', { name: 'Feed so from today' }).click()
  await expect(page.locator('.order-row')).toContainText('without food')
  await expect(other.page.getByText('Nothing today: without food, as somebody said')).toBeVisible()
  await expect(row(other.page, 'R1')).toHaveCount(0)
  await page.getByRole('button', { name: 'As usual again' }).click()
  await expect(row(other.page, 'R1')).toHaveCount(1)
})

test('food is counted where it is kept; a word in the place of a number is said, and nothing is lost', async ({ driver, server, page }) => {
  await furnish(server)
  await driver.goto('/kitchen/larder')
  await page.getByRole('button', { name: /^Fleas/ }).click()
  await driver.fill('How many cubes of Fleas', 'six')
  await page.getByRole('button', { name: 'are there' }).click()
  await expect(page.getByText('How many? A whole number')).toBeVisible()
  await expect(page.getByLabel('How many cubes of Fleas')).toHaveValue('six')
  await driver.fill('How many cubes of Fleas', '6')
  await page.getByRole('button', { name: 'are there' }).click()
  await expect(page.getByRole('button', { name: /^Fleas/ })).toContainText('6 cubes')
  await driver.fill('How many cubes of Fleas', '9')
  await page.getByRole('button', { name: 'thrown away' }).click()
  await expect(page.getByText('Only 6 are in the books: count them first')).toBeVisible()
})
