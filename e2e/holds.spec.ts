import { changeRow } from './changeRow'
import { expect, test } from './fixtures'
import type { OpenRoom } from './rooms'

// Held fish as staff have them: days that are served, a sign, a delivery too many, a lead who cannot wait.
const dayMs = 86_400_000
const tanksOf = async (server: OpenRoom): Promise<{ id: string; code: string }[]> => (await server.get<{ tanks: { id: string; code: string }[] }>('/api/room')).tanks
const idOf = async (server: OpenRoom, code: string): Promise<string> => (await tanksOf(server)).find((tank) => tank.code === code)?.id ?? ''

/** A crate that is opened now, each line into its tank. */
async function delivered(server: OpenRoom, lines: readonly [species: string, count: number, code: string][], happenedAtMs = Date.now()): Promise<void> {
  const tanks = await tanksOf(server)
  const { id } = await server.post<{ id: string }>('/api/crates', { supplier: 'Hollow Reed Hatchery', expectedAtMs: null, packedAtMs: null, lines: lines.map(([species, count, code]) => ({ species, count, bags: 1, perBag: null, tankId: tanks.find((tank) => tank.code === code)?.id ?? null, override: 'a test' })) })
  const { bags } = await server.get<{ bags: { id: string; listed: number }[] }>(`/api/crates/${id}`)
  for (const bag of bags) await server.post(`/api/crates/${id}/bags`, { bagIds: [bag.id], alive: bag.listed, dead: 0, concerns: [], body: null, skinTempC: null, waterTempC: null, salinityPpt: null, note: null, happenedAtMs })
  await server.post(`/api/crates/${id}/placements`, { tankId: null, happenedAtMs })
}
/** A rack of three tanks on one water, or each on its own. */
const rack = (server: OpenRoom, sharing: 'one water' | 'each its own') => server.post('/api/systems', { name: 'Quarantine', water: 'fresh', sharing, sumpL: null, rack: 'Z1', tankCount: 3, perShelf: 3, tankKind: 'glass', netVolumeL: 60 })
const look = (server: OpenRoom, tankId: string, happenedAtMs: number, signs: string[] = []) => server.post('/api/checks', { tankId, roundNumber: 1, ate: 'all', signs, seen: null, note: null, replacesId: null, happenedAtMs })

test('a sign on day 12 waits for a word, says beforehand whom it would begin again, and does; one that is usual after a move asks nobody', async ({ driver, server, page }) => {
  const startMs = Date.now()
  await rack(server, 'one water')
  await delivered(server, [['Cherry barb', 8, 'Z1-01'], ['Honey gourami', 4, 'Z1-02']])
  await server.standAt(startMs + 11 * dayMs)
  await look(server, await idOf(server, 'Z1-01'), startMs + 11 * dayMs, ['spots'])
  await driver.goto('/holds')
  await expect(page.getByText('One thing waits for a word; until then no hold on that water is ready. First: spots, Z1-01.')).toBeVisible()
  await expect(page.getByText(/^If it counts, Cherry barb .+ and Honey gourami .+ restart: .+ instead of .+\.$/)).toBeVisible()
  // Nothing began again by itself.
  await expect(page.getByText(/^Watch day 12 of 14; ready not before .+ Waits for a decision\.$/).first()).toBeVisible()
  await driver.press('it is one: begin again')
  await expect(page.getByText(/^Nothing to decide, nothing ready\./)).toBeVisible()
  await expect(page.getByText(/^Watch day 1 of 14; ready not before /)).toHaveCount(2)
  await driver.press(/^Z1-01 8 Cherry barb/)
  await expect(page.getByRole('dialog').getByText(/^Began again on .+: sign spots in Z1-01 \(11 days lost\)\.$/)).toBeVisible()
  await page.keyboard.press('Escape')
  // Fish that were moved this morning clamp their fins: usual, and noted.
  const { groups } = await server.get<{ groups: { lotId: string; species: string }[] }>('/api/holds')
  const barbs = groups.find(({ species }) => species === 'Cherry barb')?.lotId
  await server.standAt(startMs + 12 * dayMs)
  await server.post(`/api/tanks/${await idOf(server, 'Z1-01')}/moves`, { lotId: barbs, quantity: 8, toTankId: await idOf(server, 'Z1-03'), note: null, happenedAtMs: startMs + 12 * dayMs - 3_600_000 })
  await look(server, await idOf(server, 'Z1-03'), startMs + 12 * dayMs, ['clamped fins'])
  await driver.goto('/holds')
  await expect(page.getByText(/^Nothing to decide, nothing ready\./)).toBeVisible()
  await expect(page.getByText(/^Watch day 2 of 14/)).toHaveCount(2)
})

test('what is ready is let go in one touch and taken back; one that is not, a lead ends early with a reason that is kept', async ({ driver, server, page }) => {
  const startMs = Date.now()
  await changeRow(server, 'tanks', 'R1-01', { purpose: 'quarantine' })
  await delivered(server, [['Cherry barb', 8, 'R1-01']])
  await server.standAt(startMs + 15 * dayMs)
  for (const daysAgo of [1, 0]) await look(server, await idOf(server, 'R1-01'), startMs + (15 - daysAgo) * dayMs)
  await delivered(server, [['Honey gourami', 4, 'R1-02']], startMs + 15 * dayMs)
  await driver.goto('/today')
  await page.getByRole('link', { name: 'ready: let them go', exact: true }).click()
  await expect(page.getByText('1 group is ready: let them go, or the next fish that come beside them begin their days again.')).toBeVisible()
  await driver.press('release it')
  await expect(page.getByRole('heading', { name: /^Ready/ })).toHaveCount(0)
  // What comes next is offered where they were let go: their sale tank, its label, the card that goes along.
  await expect(page.getByRole('heading', { name: 'Let go, to be moved 1' })).toBeVisible()
  await expect(page.getByRole('link', { name: 'move them …' })).toHaveAttribute('href', /^\/room\/R1-01\/move/)
  await expect(page.getByRole('link', { name: 'take-along card' })).toBeVisible()
  await page.getByRole('link', { name: 'labels' }).click()
  await expect(page.getByRole('button', { name: 'R1', pressed: true })).toBeVisible()
  await page.goBack()
  await page.getByText(/entry of the last days/).click()
  await expect(page.getByText(/^R1-01 Cherry barb .+: Ended when it was ready\./)).toBeVisible()
  await driver.press('take it back')
  await expect(page.getByRole('heading', { name: /^Ready/ })).toBeVisible()

  await driver.press(/^R1-02 4 Honey gourami/)
  await driver.press('end it early …')
  await driver.press('end the hold early')
  await expect(page.getByText('Say why it ends before its time')).toBeVisible()
  await page.getByLabel(/^14 days short\. Why\?/).fill('the customer drives home today')
  await driver.press('end the hold early')
  await expect(page.getByText(/^Watch day/)).toHaveCount(0)
  await page.getByText(/entry of the last days/).click()
  await expect(page.getByText(/Ended 14 days early: the customer drives home today\./)).toBeVisible()
})

test('fish added to a shared water begin all of its holds again: said before they come, on the page of the move and under what if', async ({ driver, server, page }) => {
  const startMs = Date.now()
  await rack(server, 'one water')
  await server.put('/api/hold-rules', { rules: [{ policy: 'observeFirst' }], version: 0 })
  await delivered(server, [['Cherry barb', 8, 'Z1-01'], ['Kuhli loach', 6, 'Z1-02'], ['Honey gourami', 4, 'R1-01']])
  await server.standAt(startMs + 6 * dayMs)
  await driver.goto('/room/R1-01')
  await driver.sayMove('Honey gourami', 4, 'Z1-03')
  await expect(page.getByText(/lot .+ loses 6 days of its hold/i)).toHaveCount(2)
  await expect(page.getByText(/lot .+ begins its hold anew: 6 days/i).first()).toBeVisible()
  await driver.goto('/holds')
  await page.getByText('What if', { exact: true }).click()
  await page.getByLabel('In tank').selectOption(await idOf(server, 'Z1-03'))
  await expect(page.getByText(/^New fish into Z1-03: 6 days for (?=.*Cherry barb)(?=.*Kuhli loach).+ becomes .+\.$/)).toBeVisible()
  await page.getByLabel('In tank').selectOption(await idOf(server, 'R1-02'))
  await expect(page.getByText('Moves nobody’s clock.')).toBeVisible()
  await driver.press('a sign is confirmed')
  await expect(page.getByText('Moves nobody’s clock.')).toBeVisible()
  // They come all the same, and everybody begins again.
  const { groups } = await server.get<{ groups: { lotId: string; species: string }[] }>('/api/holds')
  await server.post(`/api/tanks/${await idOf(server, 'R1-01')}/moves`, { lotId: groups.find(({ species }) => species === 'Honey gourami')?.lotId, quantity: 4, toTankId: await idOf(server, 'Z1-03'), note: null, happenedAtMs: startMs + 6 * dayMs, override: 'the rack is needed' })
  await driver.goto('/holds')
  await expect(page.getByText(/^Observe day 1 of 14; ready not before /)).toHaveCount(3)
})

test('a policy of the house is made of a copy, refused while it goes back to nothing, chosen by a rule, and the next crate begins it', async ({ driver, server, page }) => {
  await driver.goto('/setup/holds')
  await page.getByRole('group', { name: 'Short watch' }).getByRole('button', { name: 'copy' }).click()
  await driver.fill('Name of the policy', 'Four weeks')
  await page.getByLabel('Phase', { exact: true }).fill('long')
  await page.getByLabel(/^At least/).fill('28')
  await driver.press('make this policy')
  await expect(page.getByText(/goes back to no phase/)).toBeVisible()
  await driver.choose('A sign begins again', 'long')
  await driver.choose('Treatment begins again', 'long')
  await driver.press('make this policy')
  await expect(page.getByText(/^long 28 days\. A sign: long again, its tank\./)).toBeVisible()
  await driver.press('one more rule')
  await driver.choose('water of rule 1', 'fresh')
  await driver.choose('policy of rule 1', 'Four weeks')
  await driver.press('keep these rules')
  await expect(page.getByRole('button', { name: 'keep these rules' })).toHaveCount(0)
  await delivered(server, [['Cherry barb', 8, 'R1-01']])
  await driver.goto('/holds')
  await expect(page.getByText(/^Long day 1 of 28; ready not before /)).toBeVisible()
  await driver.goto('/room/R1-01')
  await expect(page.getByText('Held: day 1 of 28.')).toBeVisible()
})

test('a pairing: looks prove so much, no move merges the groups before it passed; a sign fails it', async ({ driver, server, page }) => {
  const startMs = Date.now()
  await rack(server, 'each its own')
  const [home, apart] = [await idOf(server, 'R1-01'), await idOf(server, 'Z1-01')]
  const bring = async (tankId: string, quantity: number) => (await server.post<{ lotId: string }>(`/api/tanks/${tankId}/additions`, { species: 'Cherry barb', quantity, how: 'brought-in', note: null, happenedAtMs: startMs })).lotId
  const [lotId] = [await bring(home, 20), await bring(apart, 3)]
  await server.post(`/api/tanks/${home}/moves`, { lotId, quantity: 3, toTankId: apart, note: null, happenedAtMs: startMs, override: 'to pair' })
  await driver.goto('/holds')
  await page.getByText('Begin a pairing').click()
  await driver.press('begin the pairing')
  await expect(page.getByText(/runs, since /)).toBeVisible()
  for (const day of [1, 2, 3, 5, 7]) {
    await server.standAt(startMs + day * dayMs + 60_000)
    await look(server, apart, startMs + day * dayMs + 60_000)
    if (day !== 3) continue
    await driver.goto('/room/Z1-01')
    await driver.sayMove('Cherry barb', 1, 'R1-01')
    await expect(page.getByText(/stay apart until it is passed/).first()).toBeVisible()
  }
  await driver.goto('/holds')
  await expect(page.getByText(/^Clean for 7 days\. If one group carried something, it would have shown with .+ Risk of merging about .+ fish at risk instead of 23\./)).toBeVisible()
  await expect(page.getByText(/passed, since /)).toBeVisible()
  // The next one shows spots on its second day.
  await page.getByText('Begin a pairing').click()
  await driver.press('begin the pairing')
  await expect(page.getByText(/runs, since /)).toBeVisible()
  await server.standAt(startMs + 9 * dayMs)
  await look(server, apart, startMs + 9 * dayMs, ['spots'])
  await driver.goto('/holds')
  await expect(page.getByText(/failed, since /)).toBeVisible()
  await expect(page.getByText('A sign was seen that was not to be expected: the groups stay apart.')).toBeVisible()
})
