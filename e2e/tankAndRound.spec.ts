import { expect, test } from './fixtures'
import type { Room } from './room'

interface Tank {
  id: string
  code: string
}

/** Puts ten barbs and six loaches into the first two tanks. */
async function stockUp(server: Room): Promise<Tank[]> {
  const { tanks } = await server.get<{ tanks: Tank[] }>('/api/room')
  const fresh = tanks.filter(({ code }) => code.startsWith('R1'))
  const add = (tank: Tank | undefined, species: string, quantity: number) => server.post(`/api/tanks/${tank?.id}/additions`, { species, quantity, how: 'brought-in', note: null, happenedAtMs: Date.now() })
  await add(fresh[0], 'Cherry barb', 10)
  await add(fresh[1], 'Kuhli loach', 6)
  return fresh
}

test('a tank: sold, counted, corrected by somebody else meanwhile, taken back', async ({ driver, server, page }) => {
  const [tank] = await stockUp(server)
  await driver.goto('/room')
  await page.getByRole('link', { name: /^R1-01 10 fish/ }).click()
  await driver.sell('Cherry barb', '2')
  await expect(page.getByText('8 fish of 1 kind.')).toBeVisible()

  await driver.openAction('Cherry barb', 'count')
  await driver.type('Counted', '9')
  await page.getByRole('button', { name: 'Set the books right' }).click()
  await expect(page.getByText('Reason is missing')).toBeVisible()
  await driver.type('Reason', 'one hid in the filter')
  const { stock } = await server.get<{ stock: { lotId: string }[] }>('/api/tanks/R1-01')
  await server.post(`/api/tanks/${tank?.id}/losses`, { lotId: stock[0]?.lotId, quantity: 1, cause: 'jumped', note: null, happenedAtMs: Date.now() })
  await page.getByRole('button', { name: 'Set the books right' }).click()
  await expect(page.getByText('The books say 7 now, not 8; count again against that')).toBeVisible()
  await expect(page.getByLabel('Reason')).toHaveValue('one hid in the filter')
  await expect(page.getByText('the books say 7', { exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Set the books right' }).click()
  await expect(page.getByText('9 fish of 1 kind.')).toBeVisible()

  await driver.openEntry('Cherry barb lost: jumped')
  await driver.takeBack()
  await expect(page.getByText('10 fish of 1 kind.')).toBeVisible()
  await page.reload()
  await expect(page.getByText('Taken back already.')).toBeVisible()
})

test('a round: a sign, a count, a death; back corrects; a reload keeps what is half entered', async ({ driver, server, page }) => {
  await stockUp(server)
  await driver.goto('/rounds')
  await driver.cardFor('R1-01')
  await driver.answer('none ate')
  await driver.sign('hiding')
  await page.reload()
  await driver.cardFor('R1-01')
  await expect(page.getByText('Signs: hiding')).toBeVisible()
  await driver.type('note', 'new food refused')
  await driver.check()
  await driver.cardFor('R1-02')
  await driver.answer('other loss')
  await page.getByRole('dialog').getByRole('button', { name: 'one more lost' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'found dead' }).click()
  await expect(page.locator('.check-stock')).toContainText('4 Kuhli loach')
  await driver.answer('count')
  await page.getByRole('button', { name: 'one less seen' }).click()
  await driver.check()
  await driver.roundDone()
  await expect(page.getByText('2 tanks with something to remember:')).toBeVisible()

  await page.getByRole('button', { name: 'back' }).click()
  await driver.cardFor('R1-02')
  await driver.answer('count')
  await driver.check()
  await driver.roundDone()
  await driver.allSent()
  await expect(page.getByText('1 tank with something to remember:')).toBeVisible()
  const { timeline } = await server.get<{ timeline: { type: string; seen?: number | null; replacedById?: string | null }[] }>('/api/tanks/R1-02')
  expect(timeline.filter(({ type }) => type === 'check').map(({ seen, replacedById }) => [seen, replacedById !== null])).toEqual(expect.arrayContaining([[3, true], [null, false]]))
  expect(await server.stock()).toEqual({ 'R1-01': { 'Cherry barb': 10 }, 'R1-02': { 'Kuhli loach': 4 } })

  await page.getByRole('button', { name: 'walk again' }).click()
  await expect(page.getByRole('heading', { name: 'Round 2 today' })).toBeVisible()
  await driver.cardFor('R1-01')
  await expect(page.getByText(/last time: hiding · none ate · new food refused/)).toBeVisible()
})

test('the room shows what to look at, and its filter is in the address', async ({ driver, server, page }) => {
  await stockUp(server)
  await driver.goto('/room?show=unchecked')
  await expect(page.getByRole('button', { name: 'Unchecked 2' })).toHaveAttribute('aria-pressed', 'true')
  await expect(page.getByRole('link', { name: /R1-0\d/ })).toHaveCount(3)
  await page.getByRole('button', { name: 'Empty 14' }).click()
  await expect(page).toHaveURL(/show=empty/)
  await driver.goto('/room/Z9-99')
  await expect(page.getByRole('alert')).toContainText('There is no tank Z9-99 in this room')
  await driver.lightsOff()
  await page.reload()
  await expect(page.locator('html')).toHaveAttribute('data-bs-theme', 'dark')
})
