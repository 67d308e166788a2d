import { addAgent } from './addAgent'
import { expect, openedLine, test } from './fixtures'

// What was seen to kill fish on paper, done again by hand: on a phone, with one thumb.

test('mollies for a marine tank: nothing is advised before their salinity is read, the field for it has the focus', async ({ driver, server, page }) => {
  const crate = await openedLine(server, { species: 'Black molly', count: 6, bags: 1, tank: 'M1-01' })
  await driver.goto(`/bench/compare?line=${crate.lines[0]?.id}`)
  const ask = page.getByRole('region', { name: 'Which water is in the bags' })
  await expect(ask.getByText('Read the salinity first: Black molly is sold from fresh, brackish and marine water, and this tank stands at 34.0 ppt.')).toBeVisible()
  await expect(ask.getByLabel('The bag reads')).toBeFocused()
  await expect(driver.recommendation()).toBeHidden()
  await expect(page.getByRole('button', { name: /^Start: / })).toBeHidden()
  await page.keyboard.type('0.3')
  await page.keyboard.press('Enter')
  await expect(ask).toBeHidden()
  await expect(driver.recommendation().getByRole('heading')).toHaveText(/^(Overflow transition|Ramp in the tank)$/, { timeout: 60_000 })
  // What was read stays read.
  await page.reload()
  await expect(driver.recommendation().getByRole('heading')).toHaveText(/^(Overflow transition|Ramp in the tank)$/, { timeout: 60_000 })
})

test('a gravity typed as ppt is asked about, and is taken by the room’s reference pair with one touch', async ({ driver, server, page }) => {
  const { tanks } = await server.get<{ tanks: { id: string; code: string }[] }>('/api/room')
  const tankId = tanks.find(({ code }) => code === 'M1-01')?.id ?? null
  const { id } = await server.post<{ id: string }>('/api/crates', { supplier: 'Pale Harbour Livestock', expectedAtMs: null, packedAtMs: null, lines: [{ species: 'Royal gramma', count: 1, bags: 1, perBag: null, tankId }] })
  await driver.goto(`/crates/${id}/unpack`)
  await page.getByLabel(/^salinity/).fill('1.025')
  await expect(page.getByRole('alert').filter({ hasText: 'Is it specific gravity?' })).toBeVisible()
  // Unanswered it is not recorded: the person is taken to it.
  await driver.recordBag()
  await expect(page.getByLabel(/^salinity/)).toBeFocused()
  await driver.press('SG 25/25: 33.2 ppt')
  await expect(page.getByLabel(/^salinity/)).toHaveValue('33.2')
  await driver.recordBag()
  await driver.allSent()
  const { bags } = await server.get<{ bags: { record: { salinityPpt: number } | null }[] }>(`/api/crates/${id}`)
  expect(bags[0]?.record?.salinityPpt).toBe(33.2)
})

test('shrimp in cloudy water get no bath: the reason is said, no dye can be begun', async ({ driver, server, page }) => {
  await addAgent(server, { name: 'Methylene blue', substance: 'methylene blue', strengthMgPerMl: 10, bathMgL: 2, bathMinutes: 20, cautions: 'stains' })
  await addAgent(server, { name: 'For dips only', strengthMgPerMl: 10, dipMgL: 5, dipMinutes: 5 })
  const crate = await openedLine(server, { species: 'Cleaner shrimp', count: 2, bags: 1, tank: 'M1-01' }, { concerns: ['water'], salinityPpt: 33 })
  await driver.goto(`/bench/compare?line=${crate.lines[0]?.id}`)
  await expect(page.getByText('First: a quiet observation tank.')).toBeVisible()
  await expect(page.getByText(/No bath: they are no fish, and dyes and dips kill them/)).toBeVisible()
  await driver.press('First-response bath')
  // Only what has an entry for this use is listed.
  await expect(page.getByLabel('agent').locator('option')).toHaveText(['choose', 'Methylene blue'])
  await driver.choose('agent', 'Methylene blue')
  await expect(page.getByRole('alert').filter({ hasText: /Cleaner shrimp: no methylene blue|not for what is no fish/ })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Start the bath' })).toBeDisabled()
})

test('a bag on its side is released at once, alone, by the quickest way; the look within the hour is due work', async ({ driver, server, page }) => {
  const { tanks } = await server.get<{ tanks: { id: string; code: string }[] }>('/api/room')
  const tankId = tanks.find(({ code }) => code === 'R1-02')?.id ?? null
  const { id } = await server.post<{ id: string }>('/api/crates', { supplier: 'Hollow Reed Hatchery', expectedAtMs: null, packedAtMs: Date.now() - 12 * 3_600_000, lines: [{ species: 'Cherry barb', count: 12, bags: 2, perBag: 6, tankId }] })
  await driver.goto(`/crates/${id}/unpack`)
  await page.getByLabel(/^water/).fill('24')
  await page.getByRole('group', { name: 'Behaviour' }).getByRole('button', { name: 'on its side' }).click()
  driver.touches = 0
  await driver.press(/^Release this bag now/)
  await expect(page.getByText(/^First: release at once\./)).toBeVisible()
  const release = page.getByRole('button', { name: /^Release now: Straight in/ })
  await expect(release).toBeVisible({ timeout: 60_000 })
  // One orange button: what harms first comes first.
  await expect(page.locator('.btn-act:visible')).toHaveCount(1)
  await driver.press(/^Release now: /)
  await page.waitForURL(/\/bench\/runs\//)
  await driver.doneStep()
  await driver.countOut()
  await driver.allSent()
  expect(driver.touches).toBeLessThanOrEqual(5)
  expect(await server.stock()).toMatchObject({ 'R1-02': { 'Cherry barb': 6 } })
  const { rechecks } = await server.get<{ rechecks: { dueAtMs: number }[] }>('/api/today')
  expect(rechecks.some(({ dueAtMs }) => dueAtMs - Date.now() <= 3_600_000)).toBe(true)
  // The other bag waits, shut, for its turn.
  await driver.goto(`/crates/${id}/unpack`)
  await expect(page.getByRole('button', { name: /6 alive, next bag/ })).toBeVisible()
})

test('a crossing by overflow is two settings of the valve, at hours when people are there; a ramp waits for a reading of its tank', async ({ driver, server, page }) => {
  const crate = await openedLine(server, { species: 'Silver mono', count: 3, bags: 1, tank: 'M1-01' }, { salinityPpt: 9 })
  await driver.goto(`/bench/compare?line=${crate.lines[0]?.id}`)
  await expect(driver.recommendation()).toBeVisible({ timeout: 60_000 })
  await driver.chooseSchool('Overflow transition')
  await driver.startRun()
  const { runs } = await driver.bench()
  const run = await server.get<{ startedAtMs: number; plan: { steps: { title: string; minutes: number | null }[] } }>(`/api/bench/runs/${runs[0] ?? ''}`)
  const settings = run.plan.steps.filter(({ title }) => title.startsWith('Overflow'))
  expect(settings.map(({ title }) => title)).toEqual([expect.stringMatching(/^Overflow, setting 1 of 2: /), expect.stringMatching(/^Overflow, setting 2 of 2: /)])
  const changedAt = new Date(run.startedAtMs + 90 * 60_000 + (settings[0]?.minutes ?? 0) * 60_000)
  const hour = Number(changedAt.toLocaleString('en-GB', { timeZone: 'UTC', hour: '2-digit', hourCycle: 'h23' }))
  expect([hour >= 7, hour <= 20]).toEqual([true, true])

  // The first tank is reserved by then, and its water is not changed.
  const other = await openedLine(server, { species: 'Silver mono', count: 3, bags: 1, tank: 'M1-02' }, { salinityPpt: 9 })
  await driver.goto(`/bench/compare?line=${other.lines[0]?.id}`)
  await driver.press('Change figures')
  await page.getByLabel('a tank to spare for days').selectOption('yes')
  await driver.press('Done with figures')
  await driver.chooseSchool('Ramp in the tank')
  await driver.startRun()
  await driver.stepIs('Bring M1-02 to 9.0 ppt')
  await expect(page.getByText('Read the tank below and record it')).toBeVisible()
  await expect(page.getByRole('button', { name: /^Done: / })).toBeHidden()
  await driver.readVessel({ salinity: '9.4' })
  await expect(page.getByRole('button', { name: /^Done: / })).toBeVisible()
})
