import { expect, openedLine, test } from './fixtures'
import { lookAt } from './look'
import { changeRow } from './changeRow'
import type { OpenRoom } from './rooms'

// Moving fish as staff would: what speaks against it, who decides, and what it leaves behind.

const hourMs = 3_600_000

interface Tank {
  id: string
  code: string
}
const tanksOf = async (server: OpenRoom): Promise<(code: string) => string> => {
  const { tanks } = await server.get<{ tanks: Tank[] }>('/api/room')
  return (code) => tanks.find((tank) => tank.code === code)?.id ?? ''
}
const bring = async (server: OpenRoom, code: string, species: string, quantity: number): Promise<void> => {
  const idOf = await tanksOf(server)
  await server.post(`/api/tanks/${idOf(code)}/additions`, { species, quantity, how: 'brought-in', note: null, happenedAtMs: Date.now() })
}
/** Fish by tank: several lots of a kind are one number. */
const fishIn = async (server: OpenRoom): Promise<Record<string, number>> => Object.fromEntries((await server.get<{ tanks: { code: string; fish: number }[] }>('/api/room')).tanks.filter(({ fish }) => fish > 0).map(({ code, fish }) => [code, fish]))
const adopt = (server: OpenRoom, ...names: string[]): Promise<unknown> => server.post('/api/setup/species/adoptions', { names })

test('five of fourteen go next door in at most five touches, and all of it is taken back with one', async ({ driver, server, page }) => {
  await bring(server, 'R1-05', 'Cherry barb', 14)
  await driver.goto('/room/R1-05')
  const touches = driver.touches
  await driver.sayMove('Cherry barb', 5, 'R1-06')
  await driver.moveThem()
  await expect(page.getByRole('status')).toContainText('5 Cherry barb to R1-06. Recorded.')
  expect(driver.touches - touches).toBeLessThanOrEqual(5)
  expect(await server.stock()).toEqual({ 'R1-05': { 'Cherry barb': 9 }, 'R1-06': { 'Cherry barb': 5 } })
  await driver.press('take it back')
  await driver.allSent()
  expect(await server.stock()).toEqual({ 'R1-05': { 'Cherry barb': 14 } })
})

test('what is sold says first what speaks against it', async ({ driver, server, page }) => {
  await bring(server, 'R1-05', 'Cherry barb', 14)
  await driver.goto('/room/R1-05')
  await driver.press('sold')
  await expect(page.getByRole('dialog').getByRole('status')).toContainText(/Lot \S+ was moved 0 h ago\./)
  await page.getByRole('dialog').getByRole('button', { name: '3', exact: true }).click()
  await expect(page.getByText('3 Cherry barb sold')).toBeVisible()
})

test('a predator and its prey, two suppliers that have not met: the words before the net, the lead’s reason after', async ({ driver, server, page }) => {
  await adopt(server, 'Oscar', 'Cherry barb', 'Kuhli loach')
  await bring(server, 'R1-05', 'Oscar', 1)
  await bring(server, 'R1-06', 'Kuhli loach', 6)
  await driver.goto('/room/R1-05')
  await driver.sayMove('Oscar', 1, 'R1-06')
  const check = page.getByRole('region', { name: 'Before the net' })
  await expect(check).toContainText('A lead decides this:')
  await expect(check).toContainText('Oscar swallows Kuhli loach.')
  await driver.moveThem()
  const refusal = page.getByRole('region', { name: 'Against a rule' })
  await expect(refusal.getByRole('alert')).toContainText('Oscar must not go to R1-06')
  expect(await server.stock()).toEqual({ 'R1-05': { Oscar: 1 }, 'R1-06': { 'Kuhli loach': 6 } })
  await page.getByLabel('Why all the same').fill('the loaches go in a minute')
  await driver.press(/^All the same/)
  await expect(page.getByRole('status')).toContainText('1 Oscar to R1-06')
  expect(await server.stock()).toEqual({ 'R1-06': { 'Kuhli loach': 6, Oscar: 1 } })

  // In a quarantine nobody meets another supplier's fish without a pairing.
  await server.put('/api/house-limits/shopHoldDays', { value: 0, source: null, version: 0 })
  await changeRow(server, 'tanks', 'R1-01', { purpose: 'quarantine' })
  for (const [supplier, code] of [['Hollow Reed Hatchery', 'R1-01'], ['Brackwater Nurseries', 'R1-02']] as const) {
    const crate = await openedLine(server, { species: 'Cherry barb', count: 6, bags: 1, tank: code, supplier })
    await server.post(`/api/crates/${crate.id}/placements`, { tankId: null, happenedAtMs: Date.now() })
  }
  await driver.goto('/room/R1-02')
  await driver.sayMove('Cherry barb', 6, 'R1-01')
  await expect(check).toContainText('Brackwater Nurseries and Hollow Reed Hatchery have never met; no pairing passed.')
  await driver.moveThem()
  await expect(refusal.getByRole('alert')).toContainText('have never met')
  expect((await server.stock())['R1-02']).toEqual({ 'Cherry barb': 6 })
})

test('copper in the water: shrimp do not go there, and no keeper decides it', async ({ driver, server, page }) => {
  await adopt(server, 'Cleaner shrimp')
  await bring(server, 'M1-01', 'Cleaner shrimp', 3)
  await server.post('/api/systems', { name: 'Copper rack', water: 'marine', rack: 'Q1', tankCount: 2, sharing: 'each its own', sumpL: null, perShelf: 2, tankKind: 'glass', netVolumeL: 60 })
  await changeRow(server, 'systems', 'Copper rack', { tempC: 25, salinityPpt: 34 })
  const { tanks } = await server.get<{ tanks: { id: string; code: string }[] }>('/api/room')
  await server.post(`/api/tanks/${tanks.find(({ code }) => code === 'Q1-01')?.id ?? ''}/found-agents`, { agent: 'copperIonic', happenedAtMs: Date.now() })
  await driver.goto('/room/M1-01')
  await driver.sayMove('Cleaner shrimp', 2, 'Q1-01')
  await expect(page.getByRole('region', { name: 'Before the net' })).toContainText('Copper in the water; Cleaner shrimp does not bear it.')
  await driver.moveThem()
  await expect(page.getByRole('region', { name: 'Against a rule' }).getByRole('alert')).toContainText('copper')
  expect(await server.stock()).toEqual({ 'M1-01': { 'Cleaner shrimp': 3 } })
})

test('a breach is written down in two touches more, and is traced in words and as a drawing', async ({ driver, server, page }) => {
  await bring(server, 'R1-05', 'Cherry barb', 6)
  await bring(server, 'R1-06', 'Kuhli loach', 6)
  await driver.goto('/room/R1-05')
  await driver.press('water got elsewhere …')
  const touches = driver.touches
  await driver.touch(page.getByRole('dialog').getByRole('button', { name: 'hose', exact: true }))
  await driver.touch(page.getByRole('dialog').getByRole('button', { name: 'R1-06', exact: true }))
  expect(driver.touches - touches).toBe(2)
  await expect(page.getByRole('status')).toContainText('hose: R1-05 and R1-06')
  await driver.allSent()
  await driver.goto('/room/R1-06/contacts')
  await expect(page.getByText('1 water, 1 of them directly; 2 lots.')).toBeVisible()
  await expect(page.getByText(/hose between R1-05 and R1-06, .* \(breach\)/)).toBeVisible()
  const drawing = page.getByRole('group', { name: 'Drawing of what met' })
  await expect(drawing.getByText('R1-05')).toBeVisible()
  await drawing.getByText('R1-05').click()
  await expect(page.getByRole('heading', { name: 'How it got there' })).toBeVisible()
  // Another question, by the same address.
  await page.getByLabel('Which way').selectOption('forward')
  await expect(page).toHaveURL(/direction=forward/)
})

test('two people move the same fish at once: one does, the other is told, and keeps what was said', async ({ driver, server, page, anotherDevice }) => {
  await bring(server, 'R1-05', 'Cherry barb', 6)
  await driver.goto('/room/R1-05')
  await driver.sayMove('Cherry barb', 5, 'R1-06')
  const other = await anotherDevice()
  await other.goto('/room/R1-05')
  await other.sayMove('Cherry barb', 4, 'R1-07')
  await other.moveThem()
  await expect(other.page.getByRole('status')).toContainText('4 Cherry barb to R1-07')
  await driver.moveThem()
  await expect(page.getByRole('alert')).toContainText('Only 2 of these stand here now')
  await expect(page.getByRole('list', { name: 'Which fish' })).toContainText('5 of')
  expect(await server.stock()).toEqual({ 'R1-05': { 'Cherry barb': 2 }, 'R1-07': { 'Cherry barb': 4 } })
})

test('an introduction goes to its end: the ruler out, newcomers in, a bully boxed and let out, quiet days', async ({ driver, server, page }) => {
  await adopt(server, 'Honey gourami')
  await bring(server, 'R1-05', 'Honey gourami', 1)
  await bring(server, 'R1-06', 'Honey gourami', 2)
  for (const [name, kind, litres] of [['Bucket 1', 'bucket', 20], ['Box 1', 'box', 3]] as const) await server.post('/api/setup/vessels', { values: { name, kind, litres, air: 'yes', note: null } })
  const { stock } = await server.get<{ stock: { speciesId: string }[] }>('/api/tanks/R1-06')
  const fish = encodeURIComponent(JSON.stringify([{ speciesId: stock[0]?.speciesId, strain: null, lotIds: [], quantity: 2 }]))
  await driver.goto(`/bench/introductions/new?from=R1-06&to=R1-05&fish=${fish}`)
  await driver.press(/^Honey gourami/)
  await expect(page.getByText(/^Honey gourami out for about \d+ min, newcomers in, then back\.$/)).toBeVisible()
  await driver.press(/^Begin/)
  await expect(page.getByRole('heading', { name: 'Into R1-05', exact: true })).toBeVisible()
  const done = async (): Promise<void> => driver.press(/^Done/)
  const steps = page.getByRole('region', { name: 'Steps' }).locator('li')
  const all = await steps.count()
  for (let step = 0; step < all; step += 1) {
    await expect(steps.nth(step)).toHaveClass('is-next')
    await done()
    await expect(steps.nth(step)).toHaveClass('is-done')
  }
  expect(await fishIn(server)).toEqual({ 'R1-05': 3 })

  const look = async (seen: string, by?: string): Promise<void> => {
    await driver.press(/^Look/)
    await driver.touch(page.getByRole('dialog').getByRole('button', { name: seen, exact: true }))
    if (by) await driver.touch(page.getByRole('dialog').getByRole('button', { name: by, exact: true }))
    await expect(page.getByRole('dialog')).toBeHidden()
    await driver.allSent()
  }
  await look('hurt', 'nobody saw by whom')
  await expect(page.getByRole('status')).toContainText('Box the bully')
  await driver.press('box a bully …')
  await driver.touch(page.getByRole('dialog').getByRole('button', { name: 'Honey gourami', exact: true }).first())
  await driver.touch(page.getByRole('dialog').getByRole('button', { name: 'Box 1', exact: true }))
  await expect(page.getByRole('status')).toContainText('in Box 1')
  expect(await fishIn(server)).toEqual({ 'R1-05': 2 })

  // Its days go by, by the server's clock, on whatever device.
  let nowMs = Date.now()
  const later = async (hours: number): Promise<void> => {
    nowMs += hours * hourMs
    await server.standAt(nowMs)
    await page.reload()
  }
  await later(73)
  await expect(page.getByRole('status')).toContainText('back, and look')
  await driver.press('Honey gourami back')
  await expect(page.getByRole('button', { name: 'Honey gourami back', exact: true })).toBeHidden()
  await later(24)
  await look('quiet')
  await later(49)
  await look('quiet')
  await expect(page.getByText('Over: they live together.')).toBeVisible()
  expect(await fishIn(server)).toEqual({ 'R1-05': 3 })

  // A touch that ended it by mistake is taken back where it ended.
  await driver.press(/^undo/)
  await expect(page.getByRole('button', { name: /^Look/ })).toBeVisible()
  await driver.press('one died …')
  await driver.touch(page.getByRole('dialog').getByRole('button', { name: 'Honey gourami', exact: true }).first())
  await expect(page.getByText('Over.', { exact: false })).toBeVisible()
  expect(await fishIn(server)).toEqual({ 'R1-05': 2 })
  await driver.press(/^undo/)
  await expect(page.getByRole('button', { name: /^Look/ })).toBeVisible()
  expect(await fishIn(server)).toEqual({ 'R1-05': 3 })
})

test('screens of moves can be read and used, in both themes; none scrolls sideways, no word is cut off', async ({ driver, server, page }) => {
  await adopt(server, 'Oscar', 'Honey gourami')
  await bring(server, 'R1-05', 'Oscar', 1)
  await bring(server, 'R1-06', 'Honey gourami', 6)
  const { id: netId } = await server.post<{ id: string }>('/api/setup/toolSets', { values: { name: 'Green nets with the long handle', zoneId: null, marking: 'green', netWidthCm: 20, netMesh: 'medium', note: null } })
  const { id: boxId } = await server.post<{ id: string }>('/api/setup/vessels', { values: { name: 'Box 1', kind: 'box', litres: 3, air: null, note: null } })
  const idOf = await tanksOf(server)
  const { stock } = await server.get<{ stock: { speciesId: string }[] }>('/api/tanks/R1-06')
  const fish = [{ speciesId: stock[0]?.speciesId, strain: null, lotIds: [], quantity: 1 }]
  await server.post('/api/moves', { from: { kind: 'tank', id: idOf('R1-06') }, to: { kind: 'vessel', id: boxId }, fish, toolSetId: netId, waterGoesAlong: false, note: null, happenedAtMs: Date.now() })
  await server.post('/api/contacts', { kind: 'splash', fromTankId: idOf('R1-05'), toTankId: idOf('R1-06'), litres: null, note: null, happenedAtMs: Date.now() })
  await server.post('/api/contacts', { kind: 'joined', fromTankId: idOf('R1-07'), toTankId: idOf('R1-06'), litres: null, note: null, happenedAtMs: Date.now() })
  const findings: string[] = []
  const look = async (): Promise<void> => void findings.push(...(await lookAt(page)))
  const list = encodeURIComponent(JSON.stringify(fish))
  for (const path of ['/room/R1-06', '/room/R1-06/contacts', '/contacts/tools', '/setup/moves', '/setup/vessels', `/vessels/${boxId}`, `/bench/introductions/new?from=R1-06&to=R1-05&fish=${list}`, `/room?from=R1-06&fish=${list}`, '/bench']) {
    await driver.goto(path)
    await expect(page.locator('main h1')).toBeVisible()
    if (path.endsWith('contacts')) await expect(page.locator('.react-flow__node').first()).toBeVisible()
    await look()
  }
  await driver.goto('/room/R1-06')
  await driver.sayMove('Honey gourami', 2, 'R1-05')
  await expect(page.getByRole('region', { name: 'Before the net' })).toBeVisible()
  await look()
  await driver.moveThem()
  await expect(page.getByRole('region', { name: 'Against a rule' })).toBeVisible()
  await look()
  const { id } = await server.post<{ id: string }>('/api/introductions', { tankId: idOf('R1-07'), fromTankId: idOf('R1-06'), fish, hasMirror: false, hasDivider: true, dominants: [], happenedAtMs: Date.now() })
  await driver.goto(`/bench/introductions/${id}`)
  await expect(page.locator('main h1')).toBeVisible()
  await look()
  await driver.press('not after all')
  await expect(page.getByText('Given up.')).toBeVisible()
  await driver.press(/^undo given up/)
  await driver.press('not after all')
  await expect(page.getByText('Given up.')).toBeVisible()
  const again = await server.post<{ id: string }>('/api/introductions', { tankId: idOf('R1-07'), fromTankId: idOf('R1-06'), fish, hasMirror: false, hasDivider: true, dominants: [], happenedAtMs: Date.now() })
  await driver.goto(`/bench/introductions/${again.id}`)
  await driver.press(/^Done/)
  await driver.press(/^Look/)
  await expect(page.getByRole('dialog')).toBeVisible()
  await look()
  expect(findings).toEqual([])
})
