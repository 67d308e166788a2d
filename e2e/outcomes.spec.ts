import { readFileSync } from 'node:fs'
import { extractText, getDocumentProxy } from 'unpdf'
import { expect, test } from './fixtures'
import type { OpenRoom } from './rooms'

// What was learned from losses, as a lead with a cup of coffee asks it: everything below is entered as staff enter it.
const dayMs = 86_400_000

interface Taken {
  crateId: string
  lineId: string
  lotId: string
  tankId: string
  code: string
  atMs: number
}

/** A crate of one kind is opened at a moment and put into its tank. */
async function take(server: OpenRoom, { species, fish, code, atMs, supplier = 'Hollow Reed Hatchery', isPlaced = true }: { species: string; fish: number; code: string; atMs: number; supplier?: string; isPlaced?: boolean }): Promise<Taken> {
  await server.standAt(atMs)
  const { tanks } = await server.get<{ tanks: { id: string; code: string }[] }>('/api/room')
  const tankId = tanks.find((tank) => tank.code === code)?.id ?? ''
  const { id: crateId } = await server.post<{ id: string }>('/api/crates', { supplier, expectedAtMs: null, packedAtMs: null, lines: [{ species, count: fish, bags: 1, perBag: null, tankId, override: 'a test' }] })
  const { bags, lines } = await server.get<{ bags: { id: string }[]; lines: { id: string; lotId: string }[] }>(`/api/crates/${crateId}`)
  await server.post(`/api/crates/${crateId}/bags`, { bagIds: [bags[0]?.id], alive: fish, dead: 0, concerns: [], body: null, skinTempC: null, waterTempC: 24, salinityPpt: null, note: null, happenedAtMs: atMs })
  if (isPlaced) await server.post(`/api/crates/${crateId}/placements`, { tankId, override: 'a test', happenedAtMs: atMs })
  return { crateId, lineId: lines[0]?.id ?? '', lotId: lines[0]?.lotId ?? '', tankId, code, atMs }
}
async function lose(server: OpenRoom, { tankId, lotId, atMs }: Taken, quantity: number, day: number): Promise<void> {
  await server.standAt(atMs + day * dayMs)
  await server.post(`/api/tanks/${tankId}/losses`, { lotId, quantity, cause: 'found dead', note: null, happenedAtMs: atMs + day * dayMs })
}

test('a comparison that is too few, then one that is clear, and the fish behind a number', async ({ driver, server, page }) => {
  const startMs = Date.now()
  for (const [index, code] of ['R1-01', 'R1-02'].entries()) await take(server, { species: 'Cherry barb', fish: 20, code, atMs: startMs + index * 3_600_000 })
  for (const [index, code] of ['R1-03', 'R1-04'].entries()) await take(server, { species: 'Cherry barb', fish: 20, code, atMs: startMs + index * 3_600_000, supplier: 'Pale Harbour Livestock' })
  await driver.goto('/outcomes')
  await expect(page.locator('.lead-sentence')).toHaveText(/^Too few to tell: 2 crates of Hollow Reed Hatchery against 2 of Pale Harbour Livestock\./)
  // Six more of each; those of one supplier lose many, day by day, whoever holds them.
  for (let each = 0; each < 6; each += 1) {
    for (const [supplier, code, dead] of [['Hollow Reed Hatchery', 'R1-05', 0], ['Pale Harbour Livestock', 'R1-06', 7]] as const) {
      const taken = await take(server, { species: 'Cherry barb', fish: 20, code, supplier, atMs: startMs + (1 + each / 6) * dayMs })
      if (dead > 0) await lose(server, taken, dead, 0.1)
    }
  }
  await server.standAt(startMs + 20 * dayMs)
  await page.reload()
  await expect(page.locator('.lead-sentence')).toHaveText(/^(Clear for|Likely) Hollow Reed Hatchery: \d+ in a hundred more alive on day 14 than Pale Harbour Livestock/)
  await expect(page.locator('.survival-chart canvas')).toBeVisible()
  await expect(page.getByText('1 test on this page, with result or not; words allow for that.')).toBeVisible()
  // Filters stand in the address, and come back with it.
  await page.getByText('which fish, to which day').click()
  await driver.choose('To day', '7', true)
  await expect(page).toHaveURL(/day=7/)
  await page.reload()
  await expect(page.locator('.lead-sentence')).toHaveText(/alive on day 7/)
  await driver.press('species')
  await expect(page.locator('.lead-sentence')).toHaveText('Nothing to compare: all of these fish are of one group.')
  const [file] = await Promise.all([page.waitForEvent('download'), driver.press('what is shown as a file (CSV)')])
  expect(readFileSync(await file.path(), 'utf8').split('\r\n')[0]).toContain('table,by,name,against,crates,fish,day,value,low,high')
  await driver.press('supplier')
  await driver.follow('Pale Harbour Livestock')
  await expect(page.getByRole('heading', { name: 'Lots 8' })).toBeVisible()
  await expect(page.getByText('day 0: 7 first days.').first()).toBeVisible()
})

test('from a loss in a tank to its place in a curve and back; what it looks like stands beside it', async ({ driver, server, page }) => {
  const taken = await take(server, { species: 'Cherry barb', fish: 16, code: 'R1-02', atMs: Date.now() })
  await server.standAt(taken.atMs + 9 * dayMs)
  await server.post('/api/checks', { tankId: taken.tankId, roundNumber: 1, ate: 'all', signs: ['fast breathing'], seen: null, note: null, replacesId: null, happenedAtMs: taken.atMs + 9 * dayMs })
  await lose(server, taken, 2, 9)
  await driver.goto('/room/R1-02')
  const hints = page.getByRole('region', { name: 'What the losses look like' })
  await expect(hints.getByText(/^Points to the gills/)).toBeVisible()
  await expect(hints.getByText('A pattern in the record, not a diagnosis. Ask a veterinarian.')).toBeVisible()
  await page.getByRole('button', { name: /Cherry barb lost: found dead/ }).click()
  await driver.follow('Its place in Outcomes')
  await expect(page.getByText(/: lost on day 9 since its opening/)).toBeVisible()
  await expect(page.getByText('day 9: 2 late gasping.')).toBeVisible()
  await expect(page.getByRole('img', { name: /alive on day 14|not known to day 14 yet/ })).toBeVisible()
  await driver.follow('back to R1-02')
  await expect(page.getByRole('heading', { name: 'R1-02' })).toBeVisible()
})

test('an alarm stands on Today until a lead says what was found', async ({ driver, server, page }) => {
  const taken = await take(server, { species: 'Cherry barb', fish: 40, code: 'R1-02', atMs: Date.now() })
  await lose(server, taken, 9, 12)
  await driver.goto('/today')
  const alarm = page.getByRole('link', { name: /9 lost on .* about .* expected\./ })
  await expect(alarm).toContainText('Look at ')
  await alarm.click()
  await driver.press('answer for it')
  await expect(page.getByText('What was found is missing')).toBeVisible()
  await driver.fill('What was found', 'heater stuck at 31 °C', true)
  await driver.press('answer for it')
  await expect(page.getByText('Nothing rings: losses of waters, suppliers and species are as usual.')).toBeVisible()
  await expect(page.getByText('heater stuck at 31 °C')).toBeVisible()
})

test('a trial from its start, over the bench, to its result with a moved clock', async ({ driver, server, page }) => {
  test.slow()
  const startMs = Date.now()
  for (const [index, code] of ['R1-01', 'R1-02', 'R1-03', 'R1-04'].entries()) await take(server, { species: 'Cherry barb', fish: 12, code, atMs: startMs + index * 60_000 })
  await driver.goto('/outcomes/trials')
  await driver.choose('One school', 'Net-over')
  await driver.choose('The other', 'Slow drip, still')
  await driver.fill(/^Lost now/, '5')
  await driver.fill(/^A loss that would matter/, '80')
  await driver.fill('Looks on the way', '1')
  await expect(page.getByText(/^It takes \d+ crates of each school, about \d+ weeks? at/)).toBeVisible()
  await driver.press('begin, and draw the schedule')
  await expect(page.getByRole('heading', { name: 'Trial 1: Net-over or Slow drip, still' })).toBeVisible()
  const { trials } = await server.get<{ trials: { id: string; cratesPerSchool: number }[] }>('/api/outcomes/trials')
  const [trial] = trials
  // The first crate takes its place on the bench, with the school of the schedule in hand.
  const first = await take(server, { species: 'Cherry barb', fish: 10, code: 'R1-05', atMs: startMs + 3_600_000, isPlaced: false })
  await driver.goto(`/bench/compare?line=${first.lineId}`)
  const offer = page.getByRole('region', { name: 'Trial' })
  await expect(offer).toContainText(/Trial 1, Net-over or Slow drip, still: next is .*, by the schedule\./, { timeout: 30_000 })
  await offer.getByRole('button', { name: /^take part: / }).click()
  await expect(offer).toContainText(/was given it by the schedule/)
  const given = (await server.get<{ trial: { school: string } }>(`/api/crates/${first.crateId}/trial`)).trial.school
  await server.post(`/api/crates/${first.crateId}/placements`, { tankId: first.tankId, override: 'a test', happenedAtMs: first.atMs })
  const taken = [{ ...first, school: given }]
  for (let each = 1; each < 2 * (trial?.cratesPerSchool ?? 0); each += 1) {
    const crate = await take(server, { species: 'Cherry barb', fish: 10, code: ['R1-05', 'R1-06'][each % 2] ?? '', atMs: startMs + (1 + each) * 3_600_000 })
    const { school } = await server.post<{ school: string }>(`/api/outcomes/trials/${trial?.id}/crates`, { crateId: crate.crateId, worstA: 0.4, worstB: 0.5, hasBinder: false })
    taken.push({ ...crate, school })
  }
  for (const crate of taken) if (crate.school === 'Slow drip, still') await lose(server, crate, 6, 5)
  await server.standAt(startMs + 12 * dayMs)
  await driver.goto('/outcomes/trials')
  await expect(page.locator('.lead-sentence')).toHaveText(/^Look 1 of 1 is due: /)
  await driver.press('take the look')
  await expect(page.getByText(/^Look 1 of 1: (stop\. Net-over keeps \d+ in a hundred more alive to day 7\.|the trial is full and leaves it open\.)$/).first()).toBeVisible()
  await expect(page.getByText('as it was really done')).toBeVisible()
})

test('the sheet of a month on screen and on paper', async ({ driver, server, page }) => {
  const startMs = Date.now()
  const taken = await take(server, { species: 'Cherry barb', fish: 20, code: 'R1-02', atMs: startMs })
  await lose(server, taken, 2, 1)
  await server.standAt(startMs + 2 * dayMs)
  const month = new Date(startMs).toISOString().slice(0, 7)
  await driver.goto(`/outcomes/review?month=${month}`)
  await expect(page.getByText(/^1 crate with 20 fish came in /)).toBeVisible()
  await driver.press('keep its words')
  await expect(page.getByText(/^Kept by /)).toBeVisible()
  const [file] = await Promise.all([page.waitForEvent('download'), driver.press('as a sheet of paper (PDF)')])
  const { text, totalPages } = await extractText(await getDocumentProxy(new Uint8Array(readFileSync(await file.path()))), { mergePages: true })
  expect(totalPages).toBe(2)
  for (const words of ['1 crate with 20 fish came in', 'dead in the bag', 'looks at tanks were made', 'Likeness of crate mates', 'A pattern in the record, not a diagnosis. Ask a veterinarian.']) expect(text.replace(/\s+/g, ' ')).toContain(words)
  await driver.follow('Money')
  await expect(page.getByRole('heading', { name: 'Money' })).toBeVisible()
})
