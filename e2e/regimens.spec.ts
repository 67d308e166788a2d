import { addAgent } from './addAgent'
import { expect, test } from './fixtures'
import type { OpenRoom } from './rooms'

// What goes into waters as staff do it, from the label in Setup to the fish that are let go.
const [hourMs, dayMs] = [3_600_000, 86_400_000]
interface Tank {
  id: string
  code: string
}
const tanksOf = async (server: OpenRoom): Promise<Tank[]> => (await server.get<{ tanks: Tank[] }>('/api/room')).tanks
const idOf = async (server: OpenRoom, code: string): Promise<string> => (await tanksOf(server)).find((tank) => tank.code === code)?.id ?? ''
const copper = (server: OpenRoom, more: Record<string, number> = {}) => addAgent(server, { name: 'Copper, ionic', agent: 'copper (ionic)', substance: 'copper', strengthMgPerMl: 10, strengthBasis: 'as copper', targetMgL: 0.18, targetBasis: 'as copper', loMgL: 0.15, hiMgL: 0.2, ...more })
const rack = (server: OpenRoom, sharing: 'one water' | 'each its own') => server.post('/api/systems', { name: 'Quarantine', water: 'marine', sharing, sumpL: null, rack: 'Q1', tankCount: 3, perShelf: 3, tankKind: 'glass', netVolumeL: 60 })
const look = (server: OpenRoom, tankId: string, happenedAtMs: number) => server.post('/api/checks', { tankId, roundNumber: 1, ate: 'all', signs: [], seen: null, note: null, replacesId: null, happenedAtMs })

/** A crate of one kind that is opened into a tank. */
async function delivered(server: OpenRoom, species: string, count: number, code: string): Promise<void> {
  await server.post('/api/setup/species/adoptions', { names: [species] })
  const tankId = await idOf(server, code)
  const { id } = await server.post<{ id: string }>('/api/crates', { supplier: 'Pale Harbour Livestock', expectedAtMs: null, packedAtMs: null, lines: [{ species, count, bags: 1, perBag: null, tankId, override: 'a test' }] })
  const { bags } = await server.get<{ bags: { id: string; listed: number }[] }>(`/api/crates/${id}`)
  for (const bag of bags) await server.post(`/api/crates/${id}/bags`, { bagIds: [bag.id], alive: bag.listed, dead: 0, concerns: [], body: null, skinTempC: null, waterTempC: null, salinityPpt: null, note: null, happenedAtMs: Date.now() })
  await server.post(`/api/crates/${id}/placements`, { tankId: null, happenedAtMs: Date.now() })
}
const holdBy = async (server: OpenRoom, code: string, policyId: string, happenedAtMs: number): Promise<void> => {
  const tankId = await idOf(server, code)
  const { stock } = await server.get<{ stock: { lotId: string }[] }>(`/api/tanks/${code}`)
  await server.post('/api/holds/changes', { fish: stock.map(({ lotId }) => ({ lotId, placeId: tankId })), policyId, phase: null, reason: 'spots', happenedAtMs })
}

/** The shipped ladder with fewer days, as a house may keep it: five at level, two of watching. */
async function shortLadder(server: OpenRoom): Promise<void> {
  const { policies } = await server.get<{ policies: { policy: { id: string; phases: { id: string; days: number }[] } }[] }>('/api/hold-policies')
  const shipped = policies.find(({ policy }) => policy.id === 'copperLadder')?.policy
  const days: Record<string, number> = { level: 5, watch: 2 }
  const policy = { ...shipped, id: 'shortLadder', name: 'Short ladder', phases: shipped?.phases.map((phase) => ({ ...phase, days: days[phase.id] ?? phase.days })) }
  await server.put('/api/hold-policies/shortLadder', { policy: JSON.stringify(policy), version: 0 })
}

test('a crate through a copper ladder: half in, raised when they eat, its days at level, stepped out, let go', async ({ driver, server, page }) => {
  await copper(server)
  await rack(server, 'each its own')
  await delivered(server, 'Royal gramma', 1, 'Q1-01')
  await shortLadder(server)
  // Said of them once they are there: of a minute before, it would be said of nobody.
  const startMs = Date.now()
  await holdBy(server, 'Q1-01', 'shortLadder', startMs)
  const tankId = await idOf(server, 'Q1-01')
  await driver.goto('/regimens')
  await driver.follow('begin a regimen …')
  await driver.press('Ladder')
  await page.getByLabel('In the water of').selectOption(tankId)
  await page.getByLabel('Agent').selectOption({ label: 'Copper, ionic' })
  await driver.press('begin')
  // Nothing is offered before somebody said what stands there.
  await expect(page.getByText('Say first what stands in this water.')).toBeVisible()
  await driver.press('none of these')
  await expect(page.getByText('Put the part dose in: 0.54 mL.')).toBeVisible()
  await expect(page.getByText('Follow the product’s label and a veterinarian; local law decides. Aerate. Test before dosing.')).toBeVisible()
  await driver.press('0.54 mL is in')
  await expect(page.getByText(/^Written down\. Read it in some hours\.$/)).toBeVisible()
  const readAt = async (atMs: number, mgL: string): Promise<void> => {
    await server.standAt(atMs)
    await page.reload()
    await driver.type(/^copper/, mgL)
    await driver.press('read')
    await expect(page.getByText('The reading is written down.')).toBeVisible()
  }
  await server.standAt(startMs + 5 * hourMs)
  await page.reload()
  await expect(page.getByText('Read first, with the kit for copper, ionic.')).toBeVisible()
  await readAt(startMs + 5 * hourMs, '0.09')
  await expect(page.getByText(/^Leave it for 4[34] h more\.$/)).toBeVisible()
  for (const day of [1, 2]) {
    await server.standAt(startMs + day * dayMs)
    await look(server, tankId, startMs + day * dayMs)
    if (day === 1) await server.post(`/api/tanks/${tankId}/readings`, { what: 'copperMgL', value: 0.09, instrument: 'copper, ionic', happenedAtMs: startMs + day * dayMs })
  }
  await readAt(startMs + 2 * dayMs + hourMs, '0.09')
  await expect(page.getByText(/^Raise it to 0\.18 mg\/L: 0\.\d+ mL\.$/)).toBeVisible()
  await driver.press(/ mL is in$/)
  for (let day = 3; day <= 9; day += 1) {
    await server.standAt(startMs + day * dayMs)
    await look(server, tankId, startMs + day * dayMs)
    await server.post(`/api/tanks/${tankId}/readings`, { what: 'copperMgL', value: 0.17, instrument: 'copper, ionic', happenedAtMs: startMs + day * dayMs })
    if (day !== 5) continue
    await page.reload()
    await expect(page.getByText('Keep it where it is, and read daily.')).toBeVisible()
    await expect(page.getByText(/\d+ days at level to go\./)).toBeVisible()
    await expect(page.getByRole('img', { name: /in its range; read 0 h ago\.$/ })).toBeVisible()
  }
  await page.reload()
  await expect(page.getByText(/^Change 15 L, 5 times from now\.$/)).toBeVisible()
  for (const [index, mgL] of ['0.128', '0.096', '0.072', '0.054', '0.04'].entries()) {
    await driver.press('changed')
    await expect(page.getByText('The change is written down.')).toBeVisible()
    await server.standAt(startMs + (10 + index) * dayMs)
    await look(server, tankId, startMs + (10 + index) * dayMs - hourMs)
    await readAt(startMs + (10 + index) * dayMs, mgL)
  }
  await expect(page.getByText('It is out: end the regimen.')).toBeVisible()
  await page.getByText('End this regimen').click()
  await driver.type('how it ends', 'served')
  await driver.press('end it')
  await expect(page.getByText(/^Ended .+ by Imre: served$/)).toBeVisible()
  await driver.goto('/holds')
  await expect(page.getByText(/^Watch day 1 of 2/)).toBeVisible()
  for (const day of [15, 16, 17]) {
    await server.standAt(startMs + day * dayMs)
    await look(server, tankId, startMs + day * dayMs - hourMs)
  }
  await driver.goto('/holds')
  await driver.press('release it')
  await expect(page.getByText(/^No fish are held\./)).toBeVisible()
})

test('shrimp in the water end it; a lead overrides where the table lets one, and says why; a dose is cut to stay under the limit', async ({ driver, server, page }) => {
  const { id } = await copper(server, { targetMgL: 0.2 })
  await rack(server, 'one water')
  await server.post('/api/setup/species/adoptions', { names: ['Cleaner shrimp', 'Mandarin dragonet'] })
  for (const [code, species] of [['Q1-02', 'Cleaner shrimp'], ['Q1-03', 'Mandarin dragonet']] as const) await server.post(`/api/tanks/${await idOf(server, code)}/additions`, { species, quantity: 1, how: 'brought-in', note: null, happenedAtMs: Date.now() })
  await driver.goto(`/regimens/dose?tank=Q1-01&product=${id}`)
  await driver.press('none of these')
  await expect(page.getByText('Not into this water. Nobody can override this.')).toBeVisible()
  await expect(page.getByRole('list', { name: 'What is said against Copper, ionic' })).toContainText('harms invertebrates; there are some in this water')
  await expect(page.getByRole('button', { name: /is in$/ })).toHaveCount(0)
  // The shrimp are out; the dragonet stays.
  const { stock } = await server.get<{ stock: { lotId: string }[] }>('/api/tanks/Q1-02')
  await server.post(`/api/tanks/${await idOf(server, 'Q1-02')}/releases`, { lotId: stock[0]?.lotId, quantity: 1, reason: 'sold', note: null, happenedAtMs: Date.now() })
  await page.reload()
  await expect(page.getByText('Not into this water. A lead may go on with a reason, which is kept.')).toBeVisible()
  await driver.press('go on as a lead …')
  await driver.type('why a lead goes on', 'the keeper of the label said so')
  // The label's target is its limit: the rest waits for a reading.
  await expect(page.getByText(/Cut to stay under its limit: give this, read, then the rest\.$/)).toBeVisible()
  await driver.press(/ mL is in$/)
  await expect(page.getByText('Written down.', { exact: true })).toBeVisible()
  await driver.goto('/regimens')
  await expect(page.getByText('Q1-01: 3.33 mL of Copper, ionic; the keeper of the label said so')).toBeVisible()
  await expect(page.getByText('copper (ionic), until it is cleared')).toBeVisible()
  await driver.goto(`/regimens/dose?tank=Q1-01&product=${id}`)
  await expect(page.getByText('no reading of the last 24 h: read first')).toBeVisible()
  await expect(page.getByRole('button', { name: / mL is in$/ })).toHaveCount(0)
  // Carbon took it out; salt came with the water.
  await driver.press('copper (ionic) is out')
  await expect(page.getByText('Nothing, as far as is written down.')).toBeVisible()
  await page.getByText('something is in it that nobody wrote down').click()
  await page.getByLabel('found in it').selectOption('salt')
  await driver.press('it is in')
  await expect(page.getByRole('button', { name: 'salt is out' })).toBeVisible()
})

test('a tank transfer to its fourth move: made by moving them, late once, and begun anew with that', async ({ driver, server, page }) => {
  const startMs = Date.now()
  await rack(server, 'each its own')
  await server.post('/api/setup/species/adoptions', { names: ['Royal gramma'] })
  await server.post(`/api/tanks/${await idOf(server, 'Q1-01')}/additions`, { species: 'Royal gramma', quantity: 1, how: 'brought-in', note: null, happenedAtMs: startMs })
  await driver.goto('/regimens/new?kind=transfer&tank=Q1-01')
  await page.getByLabel('Then into').selectOption(await idOf(server, 'Q1-02'))
  await driver.press('begin')
  await expect(page.getByText('Move them from Q1-01 to Q1-02 when its time comes.')).toBeVisible()
  const address = page.url()
  const codes = ['Q1-01', 'Q1-02']
  let nowMs = startMs
  const moveOn = async (hours: number, turn: number): Promise<void> => {
    nowMs += hours * hourMs
    await server.standAt(nowMs)
    await page.goto(address)
    await driver.follow(`move them to ${codes[turn % 2] ?? ''} …`)
    await driver.moveThem()
    await expect(page.getByRole('status').filter({ hasText: 'Royal gramma' })).toBeVisible()
    await page.goto(address)
  }
  await moveOn(71, 1)
  await expect(page.getByText('1 of 4 transfers count.')).toBeVisible()
  await driver.press('Q1-01 is emptied, cleaned, drying')
  await expect(page.getByRole('button', { name: 'Q1-01 is emptied, cleaned, drying' })).toHaveCount(0)
  // Too late by a night: it counts as a new beginning, and nothing of before does.
  nowMs += 80 * hourMs
  await server.standAt(nowMs)
  await page.goto(address)
  await expect(page.getByText('Move them from Q1-02 to Q1-01: this counts as a new beginning.')).toBeVisible()
  await moveOn(0, 0)
  await expect(page.getByText('0 of 4 transfers count.')).toBeVisible()
  for (const turn of [1, 2, 3, 4]) await moveOn(72, turn)
  await expect(page.getByText('All transfers are made.')).toBeVisible()
  expect(await server.stock()).toMatchObject({ 'Q1-01': { 'Royal gramma': 1 } })
})

test('low salinity: read first, down by litres in two days, low for its days, slowly up, and clear where the house keeps it', async ({ driver, server, page }) => {
  const startMs = Date.now()
  await rack(server, 'each its own')
  await driver.goto('/regimens/new?kind=low salinity&tank=Q1-01')
  await driver.type('Days low', '2')
  await driver.type('As the house keeps it', '34')
  await driver.type('Up a day at most', '8')
  await driver.press('begin')
  await expect(page.getByText('Water made up for the way up is missing')).toBeVisible()
  await driver.type('Water made up for the way up', '40')
  await driver.press('begin')
  await expect(page.getByText('Read the salinity first.')).toBeVisible()
  const read = async (ppt: string): Promise<void> => {
    await driver.type('salinity read', ppt)
    await driver.press('read')
    await expect(page.getByText(`Read at ${ppt}.0 ppt.`)).toBeVisible()
  }
  await read('34')
  await driver.press(/^19\.4 L swapped for fresh water$/)
  await expect(page.getByText(/^Next step on /)).toBeVisible()
  let nowMs = startMs
  const nextDay = async (): Promise<void> => {
    nowMs += dayMs
    await server.standAt(nowMs)
    await page.reload()
  }
  await nextDay()
  await read('23')
  await driver.press(/ L swapped for fresh water$/)
  await expect(page.getByText(/^Next step on |^Read again/)).toBeVisible()
  await read('12')
  await expect(page.getByText('Keep it low; top up with fresh water.')).toBeVisible()
  await driver.goto('/room/Q1-01')
  await expect(page.getByRole('link', { name: 'low salinity' })).toBeVisible()
  await driver.goto('/regimens')
  await page.getByRole('link', { name: /^Low salinity, Q1-01/ }).click()
  await nextDay()
  await nextDay()
  for (const ppt of ['12', '19', '27']) {
    await read(ppt)
    await driver.press(/ L swapped for water of 40\.0 ppt$/)
    await expect(page.getByText(/^Next step on |^Read again/)).toBeVisible()
    await nextDay()
  }
  await read('34')
  await expect(page.getByText('It is where the house keeps it: end the regimen.')).toBeVisible()
  await driver.goto('/room/Q1-01')
  await expect(page.getByRole('link', { name: 'low salinity' })).toHaveCount(0)
})
