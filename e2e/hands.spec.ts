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
