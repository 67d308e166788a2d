import { expect, test } from './fixtures'
import type { OpenRoom } from './rooms'

// The room as it stands: racks arranged by keys, tanks found by what lives in them, and the room as of a moment.

interface FloorTank {
  id: string
  code: string
  rack: string
  shelf: number
  position: number
}
const spots = async (server: OpenRoom): Promise<Record<string, string>> => Object.fromEntries((await server.get<{ tanks: FloorTank[] }>('/api/floor')).tanks.map(({ code, rack, shelf, position }) => [code, `${rack} ${shelf} ${position}`]))
const bring = async (server: OpenRoom, code: string, species: string, quantity: number, happenedAtMs = Date.now()): Promise<void> => {
  const { tanks } = await server.get<{ tanks: FloorTank[] }>('/api/floor')
  await server.post(`/api/tanks/${tanks.find((tank) => tank.code === code)?.id}/additions`, { species, quantity, how: 'brought-in', note: null, happenedAtMs })
}

test('a tank is put elsewhere by keys, its neighbour makes room, and it is taken back', async ({ driver, server, page }) => {
  const before = await spots(server)
  await driver.goto('/arrange')
  const tank = page.getByRole('button', { name: /^R1-03,/ })
  await tank.focus()
  await page.keyboard.press('Enter')
  // It is in hand once its own place is said.
  await expect(page.getByText('R1, shelf 1, place 3', { exact: true })).toBeAttached()
  await page.keyboard.press('ArrowLeft')
  await expect(page.getByText('R1, shelf 1, place 2', { exact: true })).toBeAttached()
  await page.keyboard.press('ArrowLeft')
  await expect(page.getByText('R1, shelf 1, place 1', { exact: true })).toBeAttached()
  await page.keyboard.press('Enter')
  await expect(page.getByText('R1-03 to R1, shelf 1, place 1.')).toBeVisible()
  expect(await spots(server)).toEqual({ ...before, 'R1-03': before['R1-01'], 'R1-01': before['R1-03'] })
  // Whoever goes by keys goes on from there.
  await expect(page.getByRole('region', { name: 'Rack R1' }).getByRole('button', { name: /^R1-\d+,/ }).first()).toHaveAccessibleName(/^R1-03,/)
  await expect(tank).toBeFocused()
  await page.keyboard.press('Enter')
  await expect(page.getByText('R1, shelf 1, place 1', { exact: true })).toBeAttached()
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('Escape')
  await driver.press('take it back')
  await expect(page.getByText('R1-03 to R1, shelf 1, place 1.')).toHaveCount(0)
  expect(await spots(server)).toEqual(before)
})

test('a tank is dragged to another place by mouse, and is there after a reload', async ({ driver, server, page }) => {
  const before = await spots(server)
  await driver.goto('/arrange')
  const [from, to] = [await page.getByRole('button', { name: /^R1-01,/ }).boundingBox(), await page.getByRole('button', { name: /^R1-02,/ }).boundingBox()]
  if (!from || !to) throw new Error('tanks are not there')
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2)
  await page.mouse.down()
  await page.mouse.move(to.x + to.width / 2, to.y + to.height / 2, { steps: 8 })
  await page.mouse.up()
  await expect(page.getByText('R1-01 to R1, shelf 1, place 2.')).toBeVisible()
  await page.reload()
  await expect(page.getByRole('button', { name: /^R1-01,/ })).toBeVisible()
  expect(await spots(server)).toEqual({ ...before, 'R1-01': before['R1-02'], 'R1-02': before['R1-01'] })
})

test('the row moves right up to its gap; who leaves off leaves it where it was', async ({ driver, server, page }) => {
  const before = await spots(server)
  await driver.goto('/arrange')
  await driver.press('the row moves right')
  await page.getByRole('button', { name: /^R1-04,/ }).focus()
  await page.keyboard.press('Enter')
  await expect(page.getByText('R1, shelf 1, place 4', { exact: true })).toBeAttached()
  await page.keyboard.press('ArrowLeft')
  await expect(page.getByText('R1, shelf 1, place 3', { exact: true })).toBeAttached()
  await page.keyboard.press('Enter')
  await expect(page.getByText('R1-04 to R1, shelf 1, place 3.')).toBeVisible()
  expect(await spots(server)).toMatchObject({ 'R1-04': before['R1-03'], 'R1-03': before['R1-04'] })
  await page.getByRole('button', { name: /^M1-01,/ }).focus()
  await page.keyboard.press('Enter')
  await expect(page.getByText('M1, shelf 1, place 1', { exact: true })).toBeAttached()
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('Escape')
  await expect(page.getByText('M1-01 left where it was')).toBeAttached()
  expect((await spots(server))['M1-01']).toBe(before['M1-01'])
})

test('racks stand on the floor, and the round is walked by them', async ({ driver, server, page }) => {
  for (const code of ['R1-01', 'M1-01']) await bring(server, code, 'Cherry barb', 3)
  await driver.goto('/arrange')
  await driver.press('floor')
  await driver.press('put M1 down')
  await expect(page.getByRole('button', { name: 'Rack M1' })).toBeVisible()
  await driver.press('put R1 down')
  const rack = page.getByRole('button', { name: 'Rack R1' })
  await rack.focus()
  await page.keyboard.press('Enter')
  // A key is read once the step before it is drawn, and said.
  for (const across of [1, 2, 3]) {
    await expect(page.getByText(new RegExp(`^R1: ${across} across, \\d+ down`))).toBeAttached()
    await page.keyboard.press('ArrowRight')
  }
  await expect(page.getByText(/^R1: 4 across, \d+ down$/)).toBeAttached()
  await page.keyboard.press('Enter')
  await expect.poll(async () => (await server.get<{ racks: { rack: string; x: number | null }[] }>('/api/floor')).racks.find((each) => each.rack === 'R1')?.x).toBe(4)
  await driver.press('+ sink')
  await expect(page.getByRole('button', { name: 'Sink 1' })).toBeVisible()
  await driver.press('turn R1')
  await expect.poll(async () => (await server.get<{ racks: { rack: string; isTurned: boolean }[] }>('/api/floor')).racks.find((each) => each.rack === 'R1')?.isTurned).toBe(true)
})

test('tanks are found by what lives in them, and the address keeps it', async ({ driver, server, page }) => {
  await bring(server, 'R1-02', 'Honey gourami', 7)
  await bring(server, 'R1-05', 'Cherry barb', 4)
  await driver.goto('/room')
  await page.getByLabel('Show only').fill('honey')
  await expect(page.getByText('honey: 7 fish in 1 tank.')).toBeVisible()
  await expect(page.locator('.tank-spot')).toHaveCount(1)
  expect(page.url()).toContain('of=honey')
  await page.reload()
  await expect(page.locator('.tank-spot')).toHaveCount(1)
  await page.getByLabel('Show only').fill('')
  await driver.press(/^Empty/)
  expect(page.url()).toContain('show=empty')
  await expect(page.locator('.tank-spot').filter({ hasText: 'R1-02' })).toHaveCount(0)
})

test('the room as of a moment: the slider goes back, and says what has changed since', async ({ driver, server, page }) => {
  const hourMs = 3_600_000
  const now = Date.now()
  await bring(server, 'R1-02', 'Honey gourami', 7, now - 50 * hourMs)
  const { stock } = await server.get<{ stock: { speciesId: string }[] }>('/api/tanks/R1-02')
  const { tanks } = await server.get<{ tanks: FloorTank[] }>('/api/floor')
  await server.post(`/api/tanks/${tanks.find(({ code }) => code === 'R1-02')?.id}/losses`, { speciesId: stock[0]?.speciesId, strain: null, quantity: 2, cause: 'found dead', note: null, happenedAtMs: now - 20 * hourMs })
  await driver.goto('/room')
  await driver.follow('As of …')
  await expect(page.getByText('Nothing has changed since.')).toBeVisible()
  const tank = page.getByRole('link', { name: /^R1-02/ })
  await expect(tank).toHaveAccessibleName('R1-02 5 fish Honey gourami')
  await driver.press('a day back')
  await expect(page.getByText('Since then 2 died or were missed.')).toBeVisible()
  await expect(tank).toHaveAccessibleName(/^R1-02 7 fish Honey gourami, 5 now ?, since then Honey gourami 7 to 5$/)
  const slider = page.getByRole('slider', { name: 'Moment' })
  await slider.focus()
  for (let step = 0; step < 12; step += 1) await page.keyboard.press('ArrowRight')
  await expect(tank).toHaveAccessibleName('R1-02 5 fish Honey gourami')
  expect(page.url()).toContain('at=')
  await page.keyboard.press('Home')
  await driver.press('as the books said')
  await expect(page.getByText(/0 fish in 0 tanks/)).toBeVisible()
})

test('a reading and a note on a tank’s page: shown, taken back, taken off; a wrong figure is said beside it', async ({ driver, server, page }) => {
  await bring(server, 'R1-02', 'Honey gourami', 7)
  await driver.goto('/room/R1-02')
  await driver.press('a reading')
  const sheet = page.getByRole('dialog')
  await sheet.getByLabel('Reading').fill('94')
  await sheet.getByRole('button', { name: 'keep it' }).click()
  await expect(sheet.getByText('A reading of temperature lies between 0 °C and 45 °C')).toBeVisible()
  await expect(sheet.getByLabel('Reading')).toHaveValue('94')
  await sheet.getByLabel('Reading').fill('24,5')
  await sheet.getByRole('button', { name: 'keep it' }).click()
  await expect(page.getByText('temperature: 24.5 °C, read by Imre.')).toBeVisible()
  await driver.press('take it back')
  await expect(page.getByText('temperature: 24.5 °C, read by Imre.')).toHaveCount(0)
  await driver.press('a note on the glass')
  await sheet.getByLabel('Whoever comes by reads').fill('new heater')
  await sheet.getByRole('button', { name: 'hang it up' }).click()
  await expect(page.getByRole('list', { name: 'Notes on the glass' })).toContainText('new heater')
  await driver.press('take it off')
  await expect(page.getByText('new heater')).toHaveCount(0)
  await driver.press('losses')
  await expect(page.getByText('Nothing of this kind is recorded for this tank.')).toBeVisible()
  expect(page.url()).toContain('story=losses')
})
