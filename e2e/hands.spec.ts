import { expect, test } from './fixtures'
import { openedLine } from './openedLines'

const minuteMs = 60_000

test('a pedal that sends Enter does the orange action, whatever a finger touched before; held down, once', async ({ driver, server, page }) => {
  const pedal = (): Promise<void> => page.keyboard.press('Enter')
  const crate = await driver.takeInCrate('Hollow Reed Hatchery', 'species,bags,per bag,tank\nCherry barb,3,8,R1-01')
  await driver.openUnpack()
  await driver.bagInHand(1)
  await driver.toggleLook('Water')
  await pedal()
  await driver.bagInHand(2)
  await page.keyboard.down('Enter')
  await page.keyboard.down('Enter')
  await page.keyboard.down('Enter')
  await page.keyboard.up('Enter')
  await driver.bagInHand(3)
  // A sheet that is open has its own keys: nothing is recorded behind it.
  await page.getByRole('button', { name: 'other fish' }).click()
  await expect(page.getByRole('dialog')).toBeVisible()
  await pedal()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toBeHidden()
  await driver.bagInHand(3)
  await pedal()
  await expect(page.getByRole('button', { name: /^Place all 24 fish/ })).toBeVisible()
  await pedal()
  await driver.allPlaced()
  await driver.allSent()
  const { bags } = await server.get<{ bags: { record: { concerns: string[] } | null }[] }>(`/api${crate}`)
  expect(bags.map(({ record }) => record?.concerns)).toEqual([['water'], [], []])

  await driver.goto('/rounds')
  await driver.cardFor('R1-01')
  await driver.answer('none ate')
  await pedal()
  await driver.roundDone()
  await driver.allSent()
  const { stops } = await server.get<{ stops: { code: string; check: { ate: string } | null }[] }>('/api/rounds/today')
  expect(stops.find(({ code }) => code === 'R1-01')?.check?.ate).toBe('none')
})

test('a button that was walked to by keys does what it says, not the orange action', async ({ driver, page }) => {
  await driver.takeInCrate('Hollow Reed Hatchery', 'species,bags,per bag,tank\nCherry barb,2,8,R1-01')
  await driver.openUnpack()
  await driver.bagInHand(1)
  const look = page.getByRole('button', { name: /^Bag / })
  for (let tries = 0; tries < 40 && !(await look.evaluate((element) => element === document.activeElement)); tries += 1) await page.keyboard.press('Shift+Tab')
  await page.keyboard.press('Enter')
  await expect(look).toHaveAttribute('aria-pressed', 'true')
  await driver.bagInHand(1)
})

test('a run: the pedal does its steps, not what is being typed; the next step is spoken once it was asked for', async ({ driver, server, page }) => {
  await page.addInitScript(() => {
    const said: string[] = []
    Object.assign(window, { said })
    Object.defineProperty(window, 'speechSynthesis', { value: { speak: ({ text }: SpeechSynthesisUtterance) => said.push(text), cancel: () => undefined } })
    Object.defineProperty(window, 'SpeechSynthesisUtterance', { value: class { constructor(readonly text: string) {} } })
  })
  const said = () => page.evaluate(() => (window as unknown as { said: string[] }).said)
  const startMs = Math.floor(Date.now() / minuteMs) * minuteMs
  await openedLine(server, { species: 'Royal gramma', count: 2, bags: 2, tank: 'M1-01' }, { salinityPpt: 28 }, startMs)
  await server.standAt(startMs)
  await driver.beginRun(/^Royal gramma 2 bags/, 'Slow drip, still')
  await driver.stepIs('Float the bags shut')
  expect(await said()).toEqual([])
  await driver.press('say the next step aloud: off')
  await expect.poll(said).toEqual([expect.stringMatching(/^Run 1\. Float the bags shut\.$/)])
  await server.standAt(startMs + 16 * minuteMs)
  await page.reload()
  await expect(page.getByRole('alert')).toContainText('Float the bags shut: time is up')
  await expect.poll(said).toEqual([expect.stringContaining('time is up')])
  await page.keyboard.press('Enter')
  await driver.stepIs('Pour into the vessel')
  await expect.poll(async () => (await said()).at(-1)).toBe('Run 1. Pour into the vessel.')
  // What is typed into a reading has a button of its own.
  const salinity = page.getByRole('region', { name: 'Read the vessel' }).getByLabel(/^salinity/)
  await salinity.fill('28')
  await salinity.press('Enter')
  await driver.stepIs('Pour into the vessel')
  await expect(salinity).toHaveValue('28')
})

test('what moves under the finger while it presses takes no press from it, and gets none that was meant for another', async ({ driver, server, page }) => {
  const { tanks } = await server.get<{ tanks: { id: string; code: string }[] }>('/api/room')
  const id = tanks.find(({ code }) => code === 'R1-01')?.id ?? ''
  for (const species of ['Cherry barb', 'Kuhli loach', 'Honey gourami']) await server.post(`/api/tanks/${id}/additions`, { species, quantity: 9, how: 'brought-in', note: null, happenedAtMs: Date.now() })
  await driver.goto('/room/R1-01')
  const row = (species: string) => page.locator('.stock').filter({ hasText: species })
  // Over its button once that stands still: what was recorded before may have moved the page.
  const died = async (species: string): Promise<{ x: number; y: number }> => {
    const button = row(species).getByRole('button', { name: '1 died', exact: true })
    await button.hover()
    const box = await button.boundingBox()
    return { x: (box?.x ?? 0) + 30, y: (box?.y ?? 0) + 20 }
  }
  const grow = (px: number) => page.evaluate((height) => document.querySelector('main')?.prepend(Object.assign(document.createElement('div'), { style: `height:${height}px` })), px)
  const touch = await page.context().newCDPSession(page)
  const finger = {
    down: (point: { x: number; y: number }) => touch.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: [point] }),
    up: () => touch.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] }),
  }
  const [first, second] = [await died('Cherry barb'), await died('Kuhli loach')]

  // By finger: where the loaches' button was, the barbs' stands when it is lifted.
  await finger.down(second)
  await grow(second.y - first.y)
  await finger.up()
  await expect(row('Kuhli loach')).toHaveText(/^8/)
  await driver.allSent()
  await expect(row('Cherry barb')).toHaveText(/^9/)

  // By mouse, and nothing at all stands there any more.
  const third = await died('Honey gourami')
  await page.mouse.move(third.x, third.y)
  await page.mouse.down()
  await grow(third.y + 300)
  await page.mouse.up()
  await expect(row('Honey gourami')).toHaveText(/^8/)

  // Whoever draws the finger away has changed their mind.
  const again = await died('Cherry barb')
  await page.mouse.move(again.x, again.y)
  await page.mouse.down()
  await page.mouse.move(again.x, again.y + 90)
  await page.mouse.up()
  await driver.allSent()
  for (const [species, left] of [['Cherry barb', /^9/], ['Kuhli loach', /^8/], ['Honey gourami', /^8/]] as const) await expect(row(species)).toHaveText(left)
})

test('a quiet round over 64 tanks costs a touch for each', async ({ driver, server }) => {
  const tanksOf = async () => (await server.get<{ tanks: { id: string }[] }>('/api/room')).tanks
  const begun = await tanksOf()
  await server.post('/api/systems', { name: 'Long rack', water: 'fresh', sharing: 'one water', sumpL: 900, rack: 'L1', tankCount: 64 - begun.length, perShelf: 12, tankKind: 'glass', netVolumeL: 60 })
  for (const { id } of await tanksOf()) await server.post(`/api/tanks/${id}/additions`, { species: 'Cherry barb', quantity: 5, how: 'brought-in', note: null, happenedAtMs: Date.now() - 30 * 86_400_000 })
  await driver.goto('/room')
  driver.touches = 0
  await driver.walkQuietRound(64)
  console.log(`touches for a quiet round over 64 tanks: ${driver.touches}`)
  expect(driver.touches).toBeLessThanOrEqual(66)
})
