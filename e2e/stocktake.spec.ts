import { expect, test } from './fixtures'
import type { Room } from './room'

interface Tank {
  id: string
  code: string
  fish: number
}
const fishIn = async (server: Room): Promise<Record<string, number>> => Object.fromEntries((await server.get<{ tanks: Tank[] }>('/api/room')).tanks.filter(({ fish }) => fish > 0).map(({ code, fish }) => [code, fish]))

/** What a small shop has standing, in rack order: sixteen tanks, five of them empty, the same kinds in several; the first four are marine. */
const shop: [kind: string, fish: number][][] = [
  [['Royal gramma', 2], ['Firefish', 5]],
  [['Firefish', 3]],
  [],
  [['Royal gramma', 1], ['Cleaner shrimp', 6]],
  [['Cherry barb', 12]],
  [['Neon tetra', 30]],
  [],
  [['Cherry barb', 8], ['Neon tetra', 20]],
  [['Guppy', 15], ['Cherry barb', 4]],
  [],
  [['Platy', 14]],
  [['Platy', 11], ['Guppy', 3]],
  [],
  [['Zebra danio', 18]],
  [['Zebra danio', 6]],
  [],
]

test('what swims here: sixteen tanks by walking the racks, within four touches a tank; a reload in the middle loses nothing', async ({ driver, server, page, isMobile }) => {
  const { tanks } = await server.get<{ tanks: Tank[] }>('/api/room')
  const codes = tanks.map(({ code }) => code)
  expect(codes).toHaveLength(16)
  await driver.goto('/room')
  await page.getByRole('link', { name: 'Enter what swims here already' }).click()
  const touches = driver.touches
  await driver.touch(page.getByRole('button', { name: 'Walk the racks' }))
  for (const [index, kinds] of shop.entries()) {
    await expect(page.locator('.count-head h2')).toHaveText(codes[index] ?? '')
    for (const [kind, fish] of kinds) {
      // Each letter is a touch; one types until the kind is there to be touched.
      const choice = page.getByRole('group', { name: 'Kinds' }).getByRole('button', { name: kind, exact: true })
      for (const letter of kind.toLowerCase()) {
        if (await choice.isVisible()) break
        await page.getByLabel('Kind of fish, by a few letters').press(letter)
        driver.touches += 1
      }
      await driver.touch(choice)
      const pad = page.getByRole('group', { name: `Number of ${kind}` })
      if (fish > 20) await driver.touch(pad.getByRole('button', { name: `${fish - (fish % 10)} and more` }))
      await driver.touch(pad.getByRole('button', { name: String(fish), exact: true }))
    }
    if (index === 8) {
      await page.reload()
      await expect(page.locator('.count-kinds li')).toHaveCount(2)
    }
    await driver.touch(driver.act())
  }
  const walked = driver.touches - touches
  expect(walked).toBeLessThanOrEqual(16 * 4 + 1)
  if (isMobile) console.log(`opening stock of 16 tanks by walking: ${walked} touches`)
  await expect(page.getByText('16 tanks counted. 16 differences: nothing is booked yet.')).toBeVisible()
  await driver.allSent()
  expect(await fishIn(server)).toEqual({})
  await driver.touch(page.getByRole('button', { name: 'Book 16 differences' }))
  await expect(page.getByText(/16 differences booked on/)).toBeVisible()
  expect(await fishIn(server)).toEqual(Object.fromEntries(shop.flatMap((kinds, index) => (kinds.length === 0 ? [] : [[codes[index], kinds.reduce((sum, [, fish]) => sum + fish, 0)]]))))
  await driver.goto(`/room/${codes[4]}`)
  await expect(page.locator('.stock')).toContainText('before the books')
  await expect(page.getByText(/Held/)).toHaveCount(0)
})

test('a stocktake with three differences: their reasons, booked together, taken back together', async ({ driver, server, page }) => {
  const { tanks } = await server.get<{ tanks: Tank[] }>('/api/room')
  const before: [string, string, number][] = [['R1-01', 'Cherry barb', 12], ['R1-02', 'Cherry barb', 8], ['R1-03', 'Kuhli loach', 6]]
  for (const [code, species, quantity] of before) await server.post(`/api/tanks/${tanks.find((each) => each.code === code)?.id}/additions`, { species, quantity, how: 'brought-in', note: null, happenedAtMs: Date.now() - 86_400_000 })
  await driver.goto('/stocktake')
  await driver.touch(page.getByRole('button', { name: 'Begin a stocktake' }))
  await expect(page.locator('.count-head h2')).toHaveText(tanks[0]?.code ?? '')
  await driver.goto('/stocktake/walk?tank=R1-01')
  const recount = async (kind: string, fish: number): Promise<void> => {
    await driver.touch(page.getByRole('button', { name: new RegExp(`${kind}: another number`) }))
    await driver.touch(page.getByRole('group', { name: `Number of ${kind}` }).getByRole('button', { name: String(fish), exact: true }))
    await driver.touch(driver.act())
  }
  await expect(page.locator('.count-head h2')).toHaveText('R1-01')
  await recount('Cherry barb', 9)
  await expect(page.locator('.count-head h2')).toHaveText('R1-02')
  await recount('Cherry barb', 10)
  await expect(page.locator('.count-head h2')).toHaveText('R1-03')
  await recount('Kuhli loach', 5)
  // The rest stays as the books have it: nobody has to walk past it.
  await driver.touch(page.getByRole('link', { name: /^3 of 16$/ }))
  await driver.allSent()
  const rows = page.locator('.differences li')
  await expect(rows).toHaveCount(3)
  await expect(rows.nth(0)).toContainText('−2')
  await expect(page.getByLabel('likely reason for R1-01 Cherry barb').first()).toHaveValue('moved')
  await page.getByLabel('likely reason for R1-03 Kuhli loach').selectOption('sold, not written down')
  await driver.touch(page.getByRole('button', { name: 'Book 3 differences' }))
  await expect(page.getByText(/3 differences booked on/)).toBeVisible()
  expect(await fishIn(server)).toEqual({ 'R1-01': 9, 'R1-02': 10, 'R1-03': 5 })
  await driver.goto('/room/R1-02')
  await expect(page.locator('.entry-words').first()).toHaveText(/Cherry barb from R1-01/)
  await driver.goto('/stocktake/review')
  await driver.touch(page.getByRole('button', { name: 'Take all of it back' }))
  await expect(page.getByText(/nothing is booked yet/)).toBeVisible()
  expect(await fishIn(server)).toEqual({ 'R1-01': 12, 'R1-02': 8, 'R1-03': 6 })
})

test('a list in a file: what is wrong is said by row and nothing typed is lost; once it is right it is looked at before it is booked', async ({ driver, server, page }) => {
  await driver.goto('/stocktake/list')
  const list = page.getByLabel(/^or pasted/)
  await list.fill('tank,species,count\nR1-01,Cherry barb,12\nR9-01,Guppy,3\nR1-02,Guppy,few')
  await page.getByRole('button', { name: 'Read the list' }).click()
  await expect(page.getByText('There is no tank R9-01 in this room (row 3)')).toBeVisible()
  await expect(page.getByText('Count in row 4 must be a whole number, not "few"')).toBeVisible()
  await list.fill((await list.inputValue()).replace('R9-01', 'R1-03').replace('few', '7'))
  await page.getByRole('button', { name: 'Read the list' }).click()
  await expect(page.locator('.differences li')).toHaveCount(3)
  expect(await fishIn(server)).toEqual({})
  await page.getByRole('button', { name: 'Book 3 differences' }).click()
  await expect(page.getByText(/3 differences booked on/)).toBeVisible()
  expect(await fishIn(server)).toEqual({ 'R1-01': 12, 'R1-02': 7, 'R1-03': 3 })
})

test('a day’s sales out of the till: two errors by row, a code nobody knew, booked once, taken back', async ({ driver, server, page }) => {
  const { tanks } = await server.get<{ tanks: Tank[] }>('/api/room')
  for (const [code, species, quantity] of [['R1-01', 'Cherry barb', 12], ['R1-02', 'Kuhli loach', 6]] as const) await server.post(`/api/tanks/${tanks.find((each) => each.code === code)?.id}/additions`, { species, quantity, how: 'brought-in', note: null, happenedAtMs: Date.now() - 86_400_000 })
  await driver.goto('/room')
  await page.getByRole('link', { name: 'Count or sell' }).click()
  await page.getByRole('link', { name: 'Sales from the till' }).click()
  const list = page.getByLabel(/^or pasted/)
  await list.fill('item,count,receipt\nCherry barb,two,1\nKuhli loach,2,1\nA-77,,2')
  await page.getByRole('button', { name: 'Read the list' }).click()
  await expect(page.getByText('Count in row 2 must be a whole number, not "two"')).toBeVisible()
  await expect(page.getByText('Count in row 4 is empty')).toBeVisible()
  await list.fill('item,count,receipt\nCherry barb,2,1\nKuhli loach,2,1\nA-77,3,2')
  await page.getByRole('button', { name: 'Read the list' }).click()
  await expect(page.getByText('4 fish in 2 sales; 1 row to be looked at')).toBeVisible()
  await page.getByLabel('what A-77 is').selectOption({ label: 'Cherry barb' })
  await page.getByRole('button', { name: 'Book 3 sales' }).click()
  await expect(page.getByText('7 fish in 3 sales booked.')).toBeVisible()
  expect(await fishIn(server)).toEqual({ 'R1-01': 7, 'R1-02': 4 })
  await list.fill('item,count,receipt\nCherry barb,2,1\nKuhli loach,2,1\nA-77,3,2')
  await page.getByRole('button', { name: 'Read the list' }).click()
  await expect(page.getByText('one just like it was booked before')).toHaveCount(3)
  await expect(page.getByRole('button', { name: 'Book 0 sales' })).toBeDisabled()
  await page.getByRole('button', { name: 'take it back' }).click()
  await expect(page.getByText('taken back')).toBeVisible()
  expect(await fishIn(server)).toEqual({ 'R1-01': 12, 'R1-02': 6 })
})
