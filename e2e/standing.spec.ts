import { expect, openedLines, test } from './fixtures'
import type { OpenRoom } from './rooms'

/** A crate of plain bags on its way into tanks, opened in Unpack. */
const csv = 'species,count,bags,per bag,tank\nCherry barb,24,6,4,R1-01\nKuhli loach,10,2,5,R1-02'

/** Pages of a database have room left when no new one can be had: takes it up, until nothing fits any more. */
async function useUpRest(server: OpenRoom): Promise<void> {
  const { tanks } = await server.get<{ tanks: { id: string; code: string }[] }>('/api/room')
  const addition = { species: 'Cherry barb', quantity: 1, how: 'born', note: null, happenedAtMs: Date.now() }
  for (let refused = 0; refused < 20; ) {
    const isKept = await server.post(`/api/tanks/${tanks.at(-1)?.id}/additions`, addition).then(() => true, () => false)
    refused = isKept ? 0 : refused + 1
  }
}

test('eight pages of one browser over plain http: each opens, each hears of changes, also once the first is closed', async ({ driver, server, page, context }) => {
  await openedLines(server, [{ species: 'Cherry barb', count: 12, bags: 2, tank: 'R1-01' }])
  await driver.goto('/bench')
  await expect(page.getByRole('link', { name: /^Cherry barb/ })).toBeVisible()
  const others = []
  for (let count = 0; count < 7; count += 1) {
    const other = await context.newPage()
    await other.goto(`${server.url}/bench`)
    await expect(other.getByRole('link', { name: /^Cherry barb/ })).toBeVisible()
    others.push(other)
  }
  await page.close()
  await openedLines(server, [{ species: 'Kuhli loach', count: 12, bags: 2, tank: 'R1-02' }])
  for (const other of others) await expect(other.getByRole('link', { name: /^Kuhli loach/ })).toBeVisible()
})

test('a full disk: two pages go on recording, one is reloaded, one closed; with room again all of it is in the books, once', async ({ driver, server, page, context }) => {
  const crate = await driver.takeInCrate('Hollow Reed Hatchery', csv)
  await driver.openUnpack()
  await driver.bagInHand(1)
  const second = await context.newPage()
  await second.goto(`${server.url}/room/R1-06`)
  await server.fillDisk(true)
  await useUpRest(server)
  for (const bag of [1, 2, 3]) {
    await driver.bagInHand(bag)
    await driver.recordBag()
  }
  await expect(page.getByText(/^The disk of the server is full; .* sent again until it is in the books; go on working\.$/)).toBeVisible()
  await page.reload()
  await driver.bagInHand(4)
  await driver.recordBag()
  expect(await driver.waitingEntries()).toBeGreaterThanOrEqual(1)
  // The other page takes over what this one leaves behind.
  await page.close()
  await server.fillDisk(false)
  await expect.poll(() => second.evaluate(() => Object.keys(localStorage).filter((slot) => slot.startsWith('crate.outbox.')).length), { timeout: 120_000 }).toBe(0)
  const { bags } = await server.get<{ bags: { number: number; record: { alive: number } | null }[] }>(`/api${crate}`)
  expect(bags.map(({ record }) => record?.alive ?? null)).toEqual([4, 4, 4, 4, null, null, null, null])
})

test('a touch that was refused is said until somebody has read it, reload or not', async ({ driver, server, page, context }) => {
  const crate = await driver.takeInCrate('Hollow Reed Hatchery', csv)
  await driver.openUnpack()
  await driver.bagInHand(1)
  await context.setOffline(true)
  await driver.lessAlive()
  await driver.recordBag()
  const { bags } = await server.get<{ bags: { id: string }[] }>(`/api${crate}`)
  await server.post(`/api${crate}/bags`, { bagIds: [bags[0]?.id], alive: 4, dead: 0, concerns: [], body: null, skinTempC: null, waterTempC: null, salinityPpt: null, note: null, happenedAtMs: Date.now() })
  await context.setOffline(false)
  const refused = page.getByRole('alert').filter({ hasText: 'Not recorded' })
  await expect(refused).toBeVisible()
  await page.reload()
  await expect(refused).toBeVisible()
  await refused.getByRole('button', { name: 'seen' }).click()
  await expect(refused).toBeHidden()
  await page.reload()
  await driver.bagInHand(2)
  await expect(refused).toBeHidden()
})

test('a server whose clock went back a day refuses nothing: it is said, and a person puts it right', async ({ driver, server, page, context }) => {
  const startMs = Date.now()
  await server.standAt(startMs)
  const crate = await driver.takeInCrate('Hollow Reed Hatchery', csv)
  await driver.openUnpack()
  await driver.bagInHand(1)
  await context.setOffline(true)
  await driver.recordBag()
  await server.standAt(startMs - 86_400_000)
  await context.setOffline(false)
  await expect(page.getByText(/^The server’s clock stands at .*, before what waits here happened\. 1 entry kept on this device/)).toBeVisible()
  await driver.press('use the server’s time')
  await driver.allSent()
  const { bags } = await server.get<{ bags: { record: { happenedAtMs: number } | null }[] }>(`/api${crate}`)
  expect(bags[0]?.record).not.toBeNull()
  await expect(page.getByText(/^The server’s clock/)).toBeHidden()
})

test('a run that cannot be followed keeps to its place: the clock strip, Today, the bench and its own page go on, and it is ended', async ({ driver, server, page }) => {
  await openedLines(server, [{ species: 'Cherry barb', count: 12, bags: 2, tank: 'R1-01' }])
  await driver.beginRun(/^Cherry barb/, 'Slow drip, still')
  const runId = page.url().split('/').at(-1) ?? ''
  await driver.doneStep()
  await driver.doneStep()
  await driver.allSent()
  await server.breakRun(runId)
  await driver.goto('/today')
  await expect(page.getByRole('complementary', { name: 'Running clocks' })).toContainText('cannot be reckoned')
  await expect(page.getByRole('heading', { name: /^Holds/ })).toBeVisible()
  await driver.goto('/bench')
  await expect(page.getByRole('alert')).toContainText('Run 1 cannot be shown.')
  await expect(page.getByRole('heading', { name: /^Waiting in bags/ })).toBeVisible()
  for (const screen of ['/room', '/crates', '/rounds', '/setup/suppliers']) {
    await driver.goto(screen)
    await expect(page.getByRole('main')).not.toContainText('broke')
  }
  await driver.goto(`/bench/runs/${runId}`)
  await driver.press('end this run early')
  await driver.fill('why it ends', 'it cannot be followed')
  await driver.choose('tank that the 12 fish of its vessel are in now', 'R1-01 (empty)')
  await driver.press('End it')
  await expect(page.getByRole('button', { name: 'End it' })).toBeHidden()
  await driver.allSent()
  expect(await server.stock()).toEqual({ 'R1-01': { 'Cherry barb': 12 } })
})

test('screens of the work open while nothing new can be fetched; another says so, and is there once it can', async ({ driver, server, page }) => {
  const { tanks } = await server.get<{ tanks: { id: string }[] }>('/api/room')
  await server.post(`/api/tanks/${tanks[0]?.id}/additions`, { species: 'Cherry barb', quantity: 8, how: 'brought-in', note: null, happenedAtMs: Date.now() })
  await driver.goto('/today')
  await expect(page.getByRole('heading', { name: 'A new room' }).or(page.getByRole('heading', { name: 'Today' }))).toBeVisible()
  const fetched = (name: string) => page.evaluate((part) => performance.getEntriesByType('resource').some((each) => each.name.includes(part)), name)
  await expect.poll(() => fetched('RoundPage')).toBe(true)
  await page.route('**/assets/**', (route) => route.abort())
  await page.getByRole('link', { name: 'Rounds' }).click()
  await expect(page.getByRole('button', { name: /All well, all ate/ })).toBeVisible()
  await page.getByRole('link', { name: 'Setup' }).click()
  await expect(page.getByText('This screen is not on this device yet')).toBeVisible()
  await expect(page.getByRole('navigation', { name: 'Screens' })).toBeVisible()
  await page.unroute('**/assets/**')
  await page.getByRole('link', { name: 'Try again' }).click()
  await expect(page.getByRole('heading', { name: 'Setup' })).toBeVisible()
})
